"""What of a line lies in the plane of a plate: its shafts, the wheels on them, and what ties two shafts together."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any, Literal

from ydrometer.document.design import Design, own_stages, trunk_stages
from ydrometer.document.mounting import Loop, Mounting
from ydrometer.document.sources import Engine
from ydrometer.document.stages import LOOPS, Belt, Bevel, Chain, Gear, Stage, VBelt, Worm
from ydrometer.fit import chains, loops, pairs
from ydrometer.fit.placing import Reach
from ydrometer.fit.stock import NOTHING, Stock, WheelKey, pieces, plain, wheel_key

USUAL_PLAY = 0.04
"""Play at the pitch circle as a share of the module, to begin with; common practice for spur gears."""
BELT_BACK = 0.22
"""How far a toothed belt stands over its pitch line, relative to its pitch (ISO 13050, middle of the range)."""
PLATE = 0.475
"""Half the height of a chain's plates relative to its pitch: they stand so far over the pitch circle (ISO 606)."""
GROOVE = 1.06
"""Rim of a V-pulley relative to the circle on which the belt runs, where the bin does not say."""
STRETCH = 0.002
"""Share of its distance by which a chain may stand nearer than taut: it then sags by some 4 % of its span."""

Form = Literal["gear", "ring", "pulley", "sprocket", "grooved"]


@dataclass(frozen=True, slots=True)
class Wheel:
    """A wheel of the line.

    Attributes:
        path: of its stage. member: driver, driven, or idler with its number. shaft: the path of what turns it.
        form. teeth: None where it has none. size: module or pitch, m, 0 of a V-pulley.
        pitch_radius: on which it works, m. outer_radius: over all that turns with it, m; of a ring its inside.
    """

    path: str
    member: str
    shaft: str
    form: Form
    teeth: int | None
    size: float
    pitch_radius: float
    outer_radius: float

    @property
    def name(self) -> str:
        """As an item of a stack names it."""
        return f"{self.path} {self.member}"

    @property
    def key(self) -> WheelKey:
        """As a bin's parts are looked up; a ring is bought as a gear."""
        return wheel_key("gear" if self.form == "ring" else self.form, self.size, self.teeth, 2.0 * self.pitch_radius)

    @property
    def words(self) -> str:
        """As people say it: "56-tooth gear"."""
        if self.teeth is None:
            return f"V-pulley of {2e3 * self.pitch_radius:.4g} mm"
        return f"{self.teeth}-tooth {self.form}"


@dataclass(frozen=True, slots=True)
class Tie:
    """Two wheels that belong together, and the distances that suit them; none where nothing says how far.

    Attributes:
        path, stage: to which they belong. driver, driven. reaches. free: least distance at which they go together at
        all, m; of a ring the most. lengths: of a loop, m, with what each is called; several where the stage has none.
    """

    path: str
    stage: Stage
    driver: Wheel
    driven: Wheel
    reaches: tuple[Reach, ...]
    free: float
    lengths: tuple[tuple[float, str], ...] = ()

    @property
    def kind(self) -> str:
        """Of its stage."""
        return self.stage.kind

    @property
    def wheels(self) -> tuple[Wheel, Wheel]:
        """Driver and driven."""
        return self.driver, self.driven

    @property
    def shafts(self) -> tuple[str, str]:
        """Their shafts."""
        return self.driver.shaft, self.driven.shaft

    @property
    def is_loop(self) -> bool:
        """Whether something runs around both."""
        return isinstance(self.stage, LOOPS)

    @property
    def radii(self) -> tuple[float, float]:
        """On which driver and driven work, m."""
        return self.driver.pitch_radius, self.driven.pitch_radius

    @property
    def crossed(self) -> bool:
        """Whether its runs cross."""
        return isinstance(self.stage, VBelt) and self.stage.crossed

    @property
    def around(self) -> loops.Shape:
        """The geometry of what runs around both."""
        return loops.CROSSED if self.crossed else loops.OPEN

    def partner(self, shaft: str) -> str:
        """The other one of its shafts; empty for one that it does not tie."""
        return {self.driver.shaft: self.driven.shaft, self.driven.shaft: self.driver.shaft}.get(shaft, "")


@dataclass(slots=True)
class Plane:
    """All of a line that stands on one plate.

    Attributes:
        shafts: paths in the order of power; each stands by itself. in_line: those that stand where another one does,
        with that one's path: behind a box. wheels. ties. elsewhere: behind stages that turn the axis.
        turns: +1 of what turns clockwise, −1 anticlockwise.
        sources: the words for those that a motor or engine turns. last: the shaft with the wheel on the ground, None
        where that is elsewhere.
        missing: what is not given of a stage, by its path. impossible: why it cannot be placed at all, likewise.
    """

    shafts: list[str] = field(default_factory=list)
    in_line: dict[str, str] = field(default_factory=dict)
    wheels: list[Wheel] = field(default_factory=list)
    ties: list[Tie] = field(default_factory=list)
    elsewhere: list[str] = field(default_factory=list)
    turns: dict[str, int] = field(default_factory=dict)
    sources: dict[str, str] = field(default_factory=dict)
    last: str | None = None
    missing: dict[str, str] = field(default_factory=dict)
    impossible: dict[str, str] = field(default_factory=dict)

    def named(self, shaft: str) -> str:
        """A shaft in words: "motor shaft", "shaft of the 56-tooth gear", "axle"."""
        if shaft == self.last:
            return "axle"
        if shaft in self.sources:
            return self.sources[shaft]
        wheel = next((wheel for wheel in self.wheels if wheel.shaft == shaft), None)
        return "next shaft" if wheel is None else f"shaft of the {wheel.words}"


def plane(design: Design, stock: Stock = NOTHING) -> Plane:
    """What stands on the plate.

    Args:
        design: its `fit` section may be missing.
        stock: lengths of belts and chains to choose from where a stage has none of its own.
    """
    mounting = design.fit or Mounting()
    made = Plane()
    joint: str | None = None
    for b in range(len(design.drive.branches)):
        path = f"drive.branches[{b}].source"
        made.shafts.append(path)
        word = "engine" if isinstance(design.drive.branches[b].source, Engine) else "motor"
        made.sources[path] = f"{word} shaft" + (f" of branch {b + 1}" if len(design.drive.branches) > 1 else "")
        made.turns[path] = -1 if design.drive.branches[b].source.reversed else 1
        end = _follow(made, path, own_stages(design, b), mounting, stock, joint)
        joint = joint or end
    made.last = _follow(made, joint, trunk_stages(design), mounting, stock, None) if joint else None
    return made


def _follow(
    made: Plane, start: str | None, steps: Iterator[tuple[str, Stage]], mounting: Mounting, stock: Stock,
    joint: str | None,
) -> str | None:  # fmt: skip
    """Go along stages from a shaft; the last one of a further branch turns the joint of the first."""
    listed = list(steps)
    shaft = start
    for place, (path, stage) in enumerate(listed):
        if shaft is None or isinstance(stage, Bevel | Worm):
            made.elsewhere.append(path)
            shaft = None
            continue
        ends_at = joint if joint and place == len(listed) - 1 else path
        made.turns.setdefault(ends_at, made.turns[shaft] * stage.sense)
        build = _BUILD.get(stage.kind)
        if build is None:
            made.in_line[path] = made.in_line.get(shaft, shaft)
        elif ends_at == path:
            made.shafts += [f"{path}.idlers[{i}]" for i in range(len(getattr(stage, "idlers", ())))] + [path]
        if build is not None:
            build(made, _Step(path, made.in_line.get(shaft, shaft), ends_at, mounting, stock), stage)
        shaft = ends_at
    return shaft


@dataclass(frozen=True, slots=True)
class _Step:
    """A stage's path, the shafts of its driver and its driven, and what is said and at hand."""

    path: str
    shaft: str
    ends_at: str
    mounting: Mounting
    stock: Stock


def _gear(made: Plane, step: _Step, stage: Gear) -> None:
    size = stage.tooth_size
    if size is None:
        made.missing[step.path] = "no tooth size given: give module or diametral pitch"
        return
    last = len(stage.idlers) + 1
    row = []
    for place, teeth in enumerate((stage.driver_teeth, *stage.idlers, stage.driven_teeth)):
        ring = stage.internal and place == last
        member = "driver" if place == 0 else "driven" if place == last else f"idler {place}"
        shaft = step.shaft if place == 0 else step.ends_at if place == last else f"{step.path}.idlers[{place - 1}]"
        outer = 0.5 * size * (teeth - 2) if ring else 0.5 * pairs.outside_diameter(size, teeth)
        row.append(Wheel(step.path, member, shaft, "ring" if ring else "gear", teeth, size, 0.5 * size * teeth, outer))
    made.wheels += row
    for one, other in pairwise(row):
        made.ties.append(_meshing(step, stage, one, other))


def gear_reach(size: float, teeth: tuple[int, int], angle: float, tolerance: float, *, ring: bool) -> Reach:
    """The distances that suit two gears: from none of play to a tolerance, best with the usual play.

    Args:
        size: module, m.
        teeth: of driver and driven.
        angle: of pressure, rad.
        tolerance: how much further apart than without play they may stand, in a ring nearer, m.
        ring: whether the driven one is a ring.
    """
    free = pairs.centre_distance(size, *teeth, angle, internal=ring)
    loose = pairs.centre_distance(size, *teeth, angle, internal=ring, play=USUAL_PLAY * size)
    if ring:
        return Reach(free - tolerance, free, max(loose, free - tolerance))
    return Reach(free, free + tolerance, min(loose, free + tolerance))


def taut_reach(taut: float, tolerance: float, kind: str, name: str = "") -> Reach:
    """The distances that suit a loop; a chain may hang through a little.

    Args:
        taut: at which it is taut, m.
        tolerance: how far its wheels may be off that, m.
        kind: of its stage.
        name: what its length is called.
    """
    less = max(tolerance, STRETCH * taut if kind == "chain" else 0.0)
    return Reach(taut - less, taut + tolerance, taut, name)


def _meshing(step: _Step, stage: Gear, one: Wheel, other: Wheel) -> Tie:
    size, angle = one.size, stage.pressure_angle
    ring = other.form == "ring"
    teeth = one.teeth or 0, other.teeth or 0
    free = pairs.centre_distance(size, *teeth, angle, internal=ring)
    reach = gear_reach(size, teeth, angle, step.mounting.tolerance, ring=ring)
    return Tie(step.path, stage, one, other, (reach,), free)


def pulley_outer(pitch: float, teeth: int, flange: float = 0.0) -> float:
    """Radius over a pulley with its belt and its flanges, m.

    Args:
        pitch: m.
        teeth: of the pulley.
        flange: its diameter, m, 0 without one.
    """
    return max(loops.pitch_radius(pitch, teeth) + BELT_BACK * pitch, 0.5 * flange)


def sprocket_outer(pitch: float, teeth: int) -> float:
    """Radius over a sprocket with its chain, m.

    Args:
        pitch: m.
        teeth: of the sprocket.
    """
    return 0.5 * chains.pitch_diameter(pitch, teeth) + PLATE * pitch


def grooved_outer(pitch_diameter: float, rim: float | None = None) -> float:
    """Radius over a V-pulley, m.

    Args:
        pitch_diameter: on which its belt runs, m.
        rim: its outside diameter, m, where that is known.
    """
    return 0.5 * (GROOVE * pitch_diameter if rim is None else rim)


def _belt(made: Plane, step: _Step, stage: Belt) -> None:
    if stage.pitch is None:
        made.missing[step.path] = "no pitch given"
        return
    radii = [loops.pitch_radius(stage.pitch, teeth) for teeth in (stage.driver_teeth, stage.driven_teeth)]
    wheels = [
        Wheel(step.path, member, shaft, "pulley", teeth, stage.pitch, radius,
              pulley_outer(stage.pitch, teeth, step.stock.flanges.get((stage.pitch, teeth), 0.0)))
        for member, shaft, teeth, radius in
        zip(("driver", "driven"), (step.shaft, step.ends_at), (stage.driver_teeth, stage.driven_teeth), radii,
            strict=True)
    ]  # fmt: skip
    own = (stage.belt_teeth,) if stage.belt_teeth else step.stock.belts.get(stage.pitch, ())
    _around(made, step, stage, wheels, (radii[0], radii[1]), pieces(own, stage.pitch, "teeth"))


def _chain(made: Plane, step: _Step, stage: Chain) -> None:
    if stage.pitch is None:
        made.missing[step.path] = "no pitch given"
        return
    teeth = (stage.driver_teeth, stage.driven_teeth)
    wheels = []
    for member, shaft, z in zip(("driver", "driven"), (step.shaft, step.ends_at), teeth, strict=True):
        radius = 0.5 * chains.pitch_diameter(stage.pitch, z)
        wheels.append(
            Wheel(step.path, member, shaft, "sprocket", z, stage.pitch, radius, sprocket_outer(stage.pitch, z))
        )
    own = (stage.links,) if stage.links else step.stock.chains.get(stage.pitch, ())
    radii = (loops.pitch_radius(stage.pitch, teeth[0]), loops.pitch_radius(stage.pitch, teeth[1]))
    _around(made, step, stage, wheels, radii, pieces(own, stage.pitch, "links"))


def _v_belt(made: Plane, step: _Step, stage: VBelt) -> None:
    diameters = (stage.driver_pitch_diameter, stage.driven_pitch_diameter)
    wheels = [
        Wheel(step.path, member, shaft, "grooved", None, 0.0, 0.5 * across,
              grooved_outer(across, step.stock.rims.get(round(across, 6))))
        for member, shaft, across in zip(("driver", "driven"), (step.shaft, step.ends_at), diameters, strict=True)
    ]  # fmt: skip
    said = step.mounting.loop(step.path) or Loop(stage=step.path)
    own = (said.length,) if said.length else step.stock.v_belts
    radii = (0.5 * diameters[0], 0.5 * diameters[1])
    _around(made, step, stage, wheels, radii, plain(own))


def _around(
    made: Plane, step: _Step, stage: Stage, wheels: list[Wheel], radii: tuple[float, float],
    lengths: list[tuple[float, str]],
) -> None:  # fmt: skip
    """A loop with the distances at which its lengths are taut; a tensioner takes up any."""
    bare = Tie(step.path, stage, wheels[0], wheels[1], (), sum(radii), tuple(lengths))
    said = step.mounting.loop(step.path)
    made.wheels += wheels
    if not lengths:
        made.missing[step.path] = "no length given"
    if said is not None and said.tensioner is not None:
        made.ties.append(bare)
        return
    reaches = []
    for length, name in lengths:
        taut = bare.around.centre_distance(length, *radii)
        if taut is not None:
            reaches.append(taut_reach(taut, step.mounting.loop_tolerance, stage.kind, name))
    if lengths and not reaches:
        names = ", ".join(name for _, name in lengths)
        made.impossible[step.path] = f"{names}: too short, the wheels would touch"
    made.ties.append(replace(bare, reaches=tuple(reaches)))


_BUILD: dict[str, Callable[[Plane, _Step, Any], None]] = {
    "gear": _gear, "belt": _belt, "chain": _chain, "v_belt": _v_belt,
}  # fmt: skip
"""Stages that lead to another shaft of the plane; the others stay in line, or leave it."""
