"""The plate from above, to scale: shafts where they stand, the wheels on them, loops, slots, frame, ground, clashes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ydrometer.document.mounting import Plate, Point, ShaftMount
from ydrometer.document.stages.plane import LoopForm, Mesh
from ydrometer.drawing import loops as paths
from ydrometer.drawing import wheels as wheel_shapes
from ydrometer.drawing.shapes import DrawnWheel, Segment
from ydrometer.fit import coupling as fit_coupling
from ydrometer.fit.bodies import free_side
from ydrometer.fit.clash import Clash
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup, drawn
from ydrometer.fit.standing import Turned

BUSH = 2.0
"""Rim of an eccentric beyond its throw, relative to that, where the shaft is not wider."""
ROOM = 0.02
"""m around what has no plate."""


@dataclass(frozen=True, slots=True)
class PlateShape:
    """A plate: how far its holes are apart, how many across and up, their diameter (0: not known), its margin, m."""

    hole_pitch: float
    across: int
    up: int
    hole: float
    margin: float


@dataclass(frozen=True, slots=True)
class SlotShape:
    """A slot, from its start to its end, m; `setting` is where in it the shaft stands, m from the start."""

    x1: float
    y1: float
    x2: float
    y2: float
    setting: float


@dataclass(frozen=True, slots=True)
class EccentricShape:
    """An eccentric: its middle, its radius, the end of the mark on its rim that turns with it, and where the shaft
    stands in line, m.
    """

    x: float
    y: float
    radius: float
    mark_x: float
    mark_y: float
    home_x: float
    home_y: float


@dataclass(frozen=True, slots=True)
class PlanShaft:
    """A shaft where it stands, m.

    Attributes:
        path: of what turns it. name: in words. mount: fixed, holes, slot, free. by: said, tied or guessed.
        other: the second place that would suit, m, of one that is free between two others.
        diameter: 0 where not known. body: across what stands around it behind the plate, 0 where nothing does.
        wires: the direction with most room beside a body, rad.
        opening: in the plate, 0 where there is none. slot, eccentric: of one in or on one.
        wheels: numbers of those on it. carries: the same in words.
    """

    path: str
    name: str
    x: float
    y: float
    mount: str
    by: str
    other: Point | None
    diameter: float
    body: float
    wires: float | None
    opening: float
    slot: SlotShape | None
    eccentric: EccentricShape | None
    wheels: list[int]
    carries: list[str]


@dataclass(frozen=True, slots=True)
class PlanLoop:
    """A belt or chain as it runs: nothing where its wheels touch; its pitch, m, which a V-belt has none of.

    `slack` is the run that the driver does not pull, by its number among the segments.
    """

    path: str
    form: LoopForm
    pitch: float | None
    segments: list[Segment]
    slack: int | None


@dataclass(frozen=True, slots=True)
class Disc:
    """A tensioner: its loop's stage, its middle and radius, m."""

    path: str
    x: float
    y: float
    radius: float


@dataclass(frozen=True, slots=True)
class FrameShape:
    """A line of the frame, m."""

    name: str
    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class Mark:
    """Where a clash is, by its number in the list, m."""

    number: int
    level: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class PlanDrawing:
    """The plan, with the extent of what is drawn: x to the right, y up, m.

    `ground` is its height, None where the axle is on another plate; `road_radius` that of the wheel around `axle`.
    """

    plate: PlateShape | None
    shafts: list[PlanShaft]
    wheels: list[DrawnWheel]
    loops: list[PlanLoop]
    tensioners: list[Disc]
    frame: list[FrameShape]
    marks: list[Mark]
    ground: float | None
    axle: str | None
    road_radius: float
    left: float
    bottom: float
    right: float
    top: float


def draw_plan(setup: Setup, clashes: Sequence[Clash]) -> PlanDrawing:
    """Draw a design on its plate.

    Args:
        setup: with where all stands.
        clashes: those with a place are marked.
    """
    wheels = _wheels(setup)
    shafts = [_shaft(setup, path, wheels) for path in setup.plane.shafts]
    tensioners = [
        Disc(loop.stage, *loop.tensioner.at, 0.5 * loop.tensioner.diameter)
        for loop in setup.mounting.loops
        if loop.tensioner is not None
    ]
    frame = [FrameShape(line.name, *line.start, *line.end) for line in setup.mounting.frame]
    plate = setup.mounting.plate
    left, bottom, right, top = _extent(setup, wheels, plate)
    return PlanDrawing(
        plate=None
        if plate is None
        else PlateShape(plate.hole_pitch, plate.across, plate.up, plate.hole or 0.0, plate.margin),
        shafts=shafts,
        wheels=wheels,
        loops=[_loop(setup, coupling) for coupling in setup.plane.couplings if coupling.is_loop],
        tensioners=tensioners,
        frame=frame,
        marks=[Mark(i, c.level, *c.at) for i, c in enumerate(clashes) if c.at is not None],
        ground=setup.ground,
        axle=setup.plane.last,
        road_radius=setup.road_radius,
        left=left,
        bottom=bottom,
        right=right,
        top=top,
    )


def _shaft(setup: Setup, path: str, wheels: Sequence[DrawnWheel]) -> PlanShaft:
    stand, shaft = setup.stands[path], setup.shaft(path)
    number = setup.plane.shafts.index(path)
    return PlanShaft(
        path=path,
        name=setup.plane.named(path),
        x=stand.at[0],
        y=stand.at[1],
        mount=shaft.mount,
        by=stand.by,
        other=stand.other,
        diameter=shaft.diameter or 0.0,
        body=shaft.body or 0.0,
        wires=free_side(setup, path),
        opening=shaft.opening or 0.0,
        slot=None if shaft.slot is None else SlotShape(*shaft.slot.start, *shaft.slot.end, stand.setting or 0.0),
        eccentric=None if stand.turned is None else _eccentric(stand.turned, shaft),
        wheels=[i for i, wheel in enumerate(wheels) if wheel.shaft == number],
        carries=[wheel.words for wheel in setup.plane.wheels if wheel.shaft == path],
    )


def _eccentric(turned: Turned, shaft: ShaftMount) -> EccentricShape:
    """Around its middle, a throw beyond the shaft; the mark points to the shaft while that stands in line."""
    throw = shaft.eccentric or 0.0
    (x, y), (home_x, home_y) = turned.middle, turned.home
    radius = throw + max(BUSH * throw, 0.5 * (shaft.diameter or 0.0))
    towards = math.atan2(home_y - y, home_x - x) + turned.angle
    return EccentricShape(x, y, radius, x + radius * math.cos(towards), y + radius * math.sin(towards), home_x, home_y)


def _wheels(setup: Setup) -> list[DrawnWheel]:
    """Every wheel where it stands, with gears turned so that they mesh."""
    numbers = {path: i for i, path in enumerate(setup.plane.shafts)}
    by_path: dict[str, DrawnWheel] = {}
    angles = {coupling.path: coupling.pressure_angle for coupling in setup.plane.couplings}
    for wheel in setup.plane.wheels:
        spot = wheel_shapes.Spot(
            wheel.path, wheel.member, wheel.place, numbers[wheel.shaft], *setup.at(wheel.shaft), rotation=1
        )
        by_path[wheel.name] = _form(wheel, spot, angles.get(wheel.path, 0.0))
    for coupling in setup.plane.couplings:
        if isinstance(coupling.stage.in_plane, Mesh):
            driver_form, other = coupling.driver, coupling.driven
            # A further motor comes to a gear that is turned already.
            still, turned = (other, driver_form) if coupling.around_driven else (driver_form, other)
            by_path[turned.name] = _meshed(setup, still, by_path[still.name], turned, by_path[turned.name])
    return list(by_path.values())


def _form(wheel: fit_coupling.Wheel, spot: wheel_shapes.Spot, pressure_angle: float) -> DrawnWheel:
    phase = 0.0 if pressure_angle else None
    return wheel_shapes.wheel(
        spot, wheel.form, wheel.size, wheel.measure, angle=pressure_angle, phase=phase, rim=wheel.outer_radius
    )


def _meshed(
    setup: Setup, still: fit_coupling.Wheel, drawn_still: DrawnWheel, turned: fit_coupling.Wheel, drawn: DrawnWheel
) -> DrawnWheel:
    """A gear with a gap where the one that is drawn already has a tooth, whichever way it stands from it."""
    first, second = setup.at(still.shaft), setup.at(turned.shaft)
    towards = math.atan2(second[1] - first[1], second[0] - first[0])
    straight = replace(drawn_still, phase=drawn_still.phase - towards)
    phase = wheel_shapes.meshing_phase(straight, turned.teeth, ring=turned.form.encloses)
    return replace(drawn, phase=phase + towards)


def _loop(setup: Setup, coupling: Coupling) -> PlanLoop:
    assert coupling.loop is not None  # only loops come here
    form = coupling.loop.form
    first, second = (setup.at(path) for path in coupling.shafts)
    pitch = coupling.driver.size or None
    if setup.distance(coupling) <= coupling.free:
        return PlanLoop(coupling.path, form, pitch, [], None)
    loop = drawn(setup, coupling)
    try:
        if loop.reached:
            return PlanLoop(coupling.path, form, pitch, paths.around_path(loop.wheels), None)
    except ValueError:  # the tensioner stands in a wheel
        return PlanLoop(coupling.path, form, pitch, [], None)
    # A driver that turns clockwise pulls the run on its right, as seen towards the driven wheel.
    # Behind a stage that turns the axis the sense is not known.
    slack = None if setup.plane.behind else 0 if coupling.turns > 0 else 2
    segments = (paths.crossed_path if coupling.stage.crossed else paths.path)(
        first, loop.radii[0], second, loop.radii[1]
    )
    return PlanLoop(coupling.path, form, pitch, segments, slack)


def _extent(setup: Setup, wheels: Sequence[DrawnWheel], plate: Plate | None) -> tuple[float, float, float, float]:
    if plate is not None:
        left, bottom, right, top = plate.corners
    else:
        spots = [setup.at(path) for path in setup.plane.shafts]
        left, right = min(x for x, _ in spots) - ROOM, max(x for x, _ in spots) + ROOM
        bottom, top = min(y for _, y in spots) - ROOM, max(y for _, y in spots) + ROOM
    for wheel in wheels:
        left, right = min(left, wheel.x - wheel.outer_radius), max(right, wheel.x + wheel.outer_radius)
        bottom, top = min(bottom, wheel.y - wheel.outer_radius), max(top, wheel.y + wheel.outer_radius)
    if setup.plane.last is not None:
        x, y = setup.at(setup.plane.last)
        left, right = min(left, x - setup.road_radius), max(right, x + setup.road_radius)
        bottom = min(bottom, y - setup.road_radius)
    for line in setup.mounting.frame:
        for x, y in (line.start, line.end):
            left, right, bottom, top = min(left, x), max(right, x), min(bottom, y), max(top, y)
    return left, bottom, right, top
