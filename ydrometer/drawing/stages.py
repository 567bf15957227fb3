"""A stage as it is drawn, by how it lies in the plane: circles that touch, loops around them, boxes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import Coaxial, Contact, Loop, Mesh, OtherPlane
from ydrometer.drawing import loops, wheels
from ydrometer.drawing.shapes import Box, DrawnLoop, DrawnWheel
from ydrometer.drawing.wheels import Spot
from ydrometer.geometry.loops import centre_distance, crossed_wraps, wraps

SPACING = 1.35
"""Centre distance of a loop of unknown length, relative to the sum of its wheels' radii."""
SYMBOL_SIZE = 0.55
"""Radius of the larger wheel of a pair whose sizes are not known, relative to the road wheel's."""
BOX_SIZE = 0.6
"""Height of a case relative to the road wheel's radius."""
CLEAR = 0.5
"""Gap between a wheel's shaft and the case behind it, relative to the road wheel's radius."""


@dataclass(frozen=True, slots=True)
class StageStart:
    """Where a stage begins: its path, the shafts of its driver and its driven, x of the first, which way that turns."""

    path: str
    shafts: tuple[int, int]
    x: float
    rotation: int
    road_radius: float


@dataclass(slots=True)
class StageLayout:
    """What a stage adds, and where the next shaft stands."""

    x: float
    wheels: list[DrawnWheel] = field(default_factory=list)
    loops: list[DrawnLoop] = field(default_factory=list)
    boxes: list[Box] = field(default_factory=list)
    assumed: bool = False


def lay_out(stage: Stage, start: StageStart) -> StageLayout:
    """A stage from its first shaft to its last.

    Args:
        stage: of any kind.
        start: where it begins.
    """
    return _LAY_OUT[type(stage.in_plane)](stage, start) if stage.members else _boxed(stage, start)


def _size(stage: Stage) -> float:
    """Size of its teeth, m: the usual one of its form where it is not given, 0 where it has none."""
    return stage.tooth_size or (stage.form.usual_size if stage.form else 0.0)


def _meshing(stage: Stage, start: StageStart) -> StageLayout:
    """Pitch circles that touch, in one row; a ring holds its partner inside."""
    size = _size(stage)
    layout = StageLayout(start.x, assumed=stage.tooth_size is None)
    row, rotation, phase = stage.members, start.rotation, 0.0
    for place, member in enumerate(row):
        ring = member.form.encloses
        if place:
            before = row[place - 1].measure
            layout.x += size * (member.measure - before if ring else member.measure + before) / 2.0
            rotation = rotation if ring else -rotation
            phase = wheels.meshing_phase(layout.wheels[-1], int(member.measure), ring=ring)
        spot = Spot.of(member, start.path, start.shafts[member.name == "driven"], layout.x, rotation)
        angle = stage.pressure_angle
        layout.wheels.append(wheels.wheel(spot, member.form, size, member.measure, angle=angle, phase=phase))
    return layout


def _touching(stage: Stage, start: StageStart) -> StageLayout:
    """Two rims that touch."""
    driver, driven = (member.form.pitch_radius(0.0, member.measure) for member in stage.members)
    layout = StageLayout(start.x + driver + driven)
    layout.wheels = _pair(stage, start, 0.0, layout.x)
    return layout


def _turned_into_the_plane(stage: Stage, start: StageStart) -> StageLayout:
    """Both wheels turned into the plane of the drawing; sizes are symbols with the right ratio."""
    measures = [member.measure for member in stage.members]
    size = 2.0 * SYMBOL_SIZE * start.road_radius / max(measures)
    layout = StageLayout(start.x + 0.5 * size * sum(measures), assumed=True)
    layout.wheels = _pair(stage, start, size, layout.x)
    return layout


def _looped(stage: Stage, start: StageStart) -> StageLayout:
    """Two wheels and what runs around them, as far apart as its length says, else as is usual."""
    loop, members, pitch = stage.in_plane, stage.members, _size(stage)
    assert isinstance(loop, Loop)  # see _LAY_OUT
    by_length = [member.form.loop_radius(pitch, member.measure) for member in members]
    r1, r2 = (member.form.pitch_radius(pitch, member.measure) for member in members)
    taut = centre_distance(stage.loop_length, *by_length) if stage.loop_length else None
    distance = taut or SPACING * max(sum(by_length), 1.2 * start.road_radius)
    layout = StageLayout(start.x + distance, assumed=not taut)
    layout.wheels = _pair(stage, start, pitch, layout.x)
    shape = loops.crossed_path if stage.crossed else loops.path
    contact = (crossed_wraps if stage.crossed else wraps)(r1, r2, distance)
    segments = shape((start.x, 0.0), r1, (start.x + distance, 0.0), r2)
    pieces = stage.loop_pieces
    layout.loops = [DrawnLoop(start.path, loop.form, pitch or None, pieces, distance, not taut, *contact, segments)]
    return layout


def _pair(stage: Stage, start: StageStart, size: float, x: float) -> list[DrawnWheel]:
    """Driver and driven on their shafts, the driven one at x."""
    pair = []
    for end, member in enumerate(stage.members):
        rotation = start.rotation * (stage.rotation if end else 1)
        spot = Spot.of(member, start.path, start.shafts[end], (start.x, x)[end], rotation)
        pair.append(wheels.wheel(spot, member.form, size, member.measure))
    return pair


def _boxed(stage: Stage, start: StageStart) -> StageLayout:
    """A case between its two shafts; its size is a symbol, what is inside has the right proportions."""
    inside = stage.inside(BOX_SIZE * start.road_radius)
    # The case stands clear of the wheel before it on the same shaft.
    near = start.x + CLEAR * start.road_radius
    middle = near + 0.5 * inside.length
    box = Box(
        start.path,
        stage.title,
        stage.several_speeds,
        list(inside.steps),
        middle,
        0.0,
        inside.length,
        inside.height,
        0.0,
        inside.placed(near),
        stage.ratio,
        start.shafts[1],
    )
    return StageLayout(near + inside.length + CLEAR * start.road_radius, boxes=[box], assumed=True)


_LAY_OUT: dict[type, Callable[[Stage, StageStart], StageLayout]] = {
    Mesh: _meshing,
    Contact: _touching,
    Loop: _looped,
    OtherPlane: _turned_into_the_plane,
    Coaxial: _boxed,
}
"""How what has wheels is drawn, by how it lies in the plane."""
