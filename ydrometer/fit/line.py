"""What of a line lies in the plane of each plate: its shafts, the wheels on them, and what couples two shafts."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting
from ydrometer.document.sources import Engine
from ydrometer.document.stages import Member, Stage
from ydrometer.document.stages.plane import Coaxial, Contact, Loop, Mesh, OtherPlane
from ydrometer.document.walk import MOST_AROUND, further_motors, own_stages, trunk_stages
from ydrometer.fit.coupling import Coupling, Wheel, contact_reach, gear_reach, taut_reach
from ydrometer.fit.stock import NOTHING, Stock, lengths_in_stock, wheel_key


@dataclass(slots=True)
class Plane:
    """All of a line that stands on one plate.

    Attributes:
        shafts: paths in the order of power; each stands by itself. in_line: those that stand where another one does,
        with that one's path: behind a box. stages: paths of those that stand on it. wheels. couplings.
        behind: the path of the stage that turns the axis and behind which this plate is; empty of the first plate.
        turns: +1 of what turns clockwise, −1 anticlockwise; behind a stage that turns the axis as if its shaft
        turned clockwise.
        sources: the words for those that a motor or engine turns. last: the shaft with the wheel on the ground, None
        where that is elsewhere.
        missing: what is not given of a stage, by its path. impossible: why it cannot be placed at all, likewise.
    """

    behind: str = ""
    shafts: list[str] = field(default_factory=list)
    stages: list[str] = field(default_factory=list)
    in_line: dict[str, str] = field(default_factory=dict)
    wheels: list[Wheel] = field(default_factory=list)
    couplings: list[Coupling] = field(default_factory=list)
    turns: dict[str, int] = field(default_factory=dict)
    sources: dict[str, str] = field(default_factory=dict)
    last: str | None = None
    missing: dict[str, str] = field(default_factory=dict)
    impossible: dict[str, str] = field(default_factory=dict)

    def standing(self, shaft: str) -> str:
        """The shaft where a shaft stands: behind a box the one before it."""
        return self.in_line.get(shaft, shaft)

    def named(self, shaft: str) -> str:
        """A shaft in words: "motor shaft", "shaft of the 56-tooth gear", "axle"."""
        if shaft == self.last:
            return "axle"
        if shaft in self.sources:
            return self.sources[shaft]
        if shaft == self.behind:
            return "shaft out of the turning stage"
        wheel = next((wheel for wheel in self.wheels if wheel.shaft == shaft), None)
        return "next shaft" if wheel is None else f"shaft of the {wheel.words}"


@dataclass(frozen=True, slots=True)
class _End:
    """A shaft that stages lead to, and the plane in which it is."""

    plane: Plane
    shaft: str


def planes(design: Design, stock: Stock = NOTHING) -> list[Plane]:
    """What stands on the first plate, then what stands behind each stage that turns the axis, on a plate of its own.

    Args:
        design: its `fit` section may be missing.
        stock: lengths of belts and chains to choose from where a stage has none of its own.
    """
    mounting = design.fit or Mounting()
    so_far = [Plane()]
    first, joint = so_far[0], None
    for b, branch in enumerate(design.drive.branches):
        path = f"drive.branches[{b}].source"
        first.shafts.append(path)
        word = "engine" if isinstance(branch.source, Engine) else "motor"
        first.sources[path] = f"{word} shaft" + (f" of branch {b + 1}" if len(design.drive.branches) > 1 else "")
        first.turns[path] = -1 if branch.source.reversed else 1
        end = _follow(so_far, _End(first, path), own_stages(design, b), mounting, stock, joint)
        _further_motors(first, path, branch.count)
        joint = joint or end
    assert joint is not None  # a drive has a branch
    last = _follow(so_far, joint, trunk_stages(design), mounting, stock, None)
    last.plane.last = last.plane.standing(last.shaft)
    return so_far


def _further_motors(plane: Plane, path: str, count: int) -> None:
    """The other motors of a branch, each on a shaft of its own around the gear that the first one turns."""
    first = next((coupling for coupling in plane.couplings if coupling.driver.shaft == path), None)
    if count == 1 or first is None or not isinstance(first.stage.in_plane, Mesh):
        return
    if count > MOST_AROUND or first.inside:
        plane.missing[path] = (
            f"{count} motors: up to {MOST_AROUND} have places of their own, around a gear from outside"
        )
        return
    for number, (shaft, driver) in enumerate(further_motors(path, count), 1):
        wheel = replace(first.driver, member=driver, shaft=shaft)
        plane.shafts.append(shaft)
        plane.wheels.append(wheel)
        plane.turns[shaft] = plane.turns[path]
        plane.sources[shaft] = f"{plane.sources[path]}, {number + 1} of {count}"
        turn = 2.0 * math.pi * number / count
        plane.couplings.append(replace(first, path=shaft, driver=wheel, around_driven=turn))


def _follow(
    so_far: list[Plane],
    start: _End,
    steps: Iterator[tuple[str, Stage]],
    mounting: Mounting,
    stock: Stock,
    joint: _End | None,
) -> _End:
    """Go along stages from a shaft; the last one of a further branch turns the joint of the first."""
    listed = list(steps)
    here = start
    for place, (path, stage) in enumerate(listed):
        ends_at = joint if joint and place == len(listed) - 1 else None
        if isinstance(stage.in_plane, OtherPlane):
            here = ends_at or _turned(so_far, path)
            here.plane.stages += [path] if ends_at else []
        elif ends_at is not None and ends_at.plane is not here.plane:
            here.plane.stages.append(path)
            here.plane.impossible[path] = f"the {stage.noun} leads to a shaft on another plate"
            here = ends_at
        else:
            here = _stand(here, ends_at, _Laid(path, stage, mounting, stock))
    return here


def _turned(so_far: list[Plane], path: str) -> _End:
    """Begin a plate behind a stage that turns the axis, as seen so that its shaft turns clockwise."""
    plane = Plane(behind=path, shafts=[path], turns={path: 1})
    so_far.append(plane)
    return _End(plane, path)


@dataclass(frozen=True, slots=True)
class _Laid:
    """A stage with its path, and what is said and at hand."""

    path: str
    stage: Stage
    mounting: Mounting
    stock: Stock


def _stand(start: _End, joint: _End | None, laid: _Laid) -> _End:
    """A stage on the plate of its first shaft; the shaft that it turns."""
    plane, path, stage = start.plane, laid.path, laid.stage
    plane.stages.append(path)
    end = joint or _End(plane, path)
    plane.turns.setdefault(end.shaft, plane.turns[start.shaft] * stage.rotation)
    if isinstance(stage.in_plane, Coaxial):
        plane.in_line[path] = plane.standing(start.shaft)
        return end
    if joint is None:
        plane.shafts += [f"{path}.{member.key}" for member in stage.members if member.idle] + [path]
    ends = plane.standing(start.shaft), plane.standing(end.shaft)
    # Behind a box its driver stands where the shaft before the box does, and may turn the other way.
    _couple(plane, _Step(path, stage, laid.mounting, laid.stock, *ends, plane.turns[start.shaft]))
    return end


@dataclass(frozen=True, slots=True)
class _Step(_Laid):
    """A stage between the places of two shafts: that of its driver, which turns +1 clockwise or −1, and its driven."""

    driver: str
    driven: str
    turns: int

    @property
    def wheels(self) -> list[Wheel]:
        """Its wheels on their shafts, in the order of power."""
        return [self._wheel(member) for member in self.stage.members]

    def _wheel(self, member: Member) -> Wheel:
        size, form, measure = self.stage.tooth_size or 0.0, member.form, member.measure
        place = f"{self.path}.{member.key}"
        shaft = place if member.idle else self.driver if member.name == "driver" else self.driven
        rim = member.outside or self.stock.rims.get(wheel_key(form, size, measure))
        radii = form.pitch_radius(size, measure), form.outer_radius(size, measure, rim)
        return Wheel(self.path, member.name, place, shaft, form, measure, size, *radii)


def _couple(plane: Plane, step: _Step) -> None:
    """Put a stage's wheels on their shafts, and couple those that work together."""
    if step.stage.lacking:
        plane.missing[step.path] = step.stage.lacking
        return
    wheels = step.wheels
    plane.wheels += wheels
    plane.couplings += _COUPLE[type(step.stage.in_plane)](plane, step, wheels)


def _meshing(plane: Plane, step: _Step, wheels: Sequence[Wheel]) -> Iterator[Coupling]:
    """Each gear with the next one of the row."""
    angle = step.stage.pressure_angle
    for number, (first, second) in enumerate(pairwise(wheels)):
        # Every idler of a row turns it round.
        turns = -step.turns if number % 2 else step.turns
        teeth, ring = (first.teeth, second.teeth), second.form.encloses
        reach = gear_reach(first.size, teeth, angle, step.mounting.tolerance, ring=ring)
        free = reach.high if ring else reach.low
        path = step.path if second is wheels[-1] else second.place
        yield Coupling(path, step.stage, first, second, (reach,), free, turns, pressure_angle=angle)


def _touching(plane: Plane, step: _Step, wheels: Sequence[Wheel]) -> Iterator[Coupling]:
    driver, driven = wheels
    free = driver.pitch_radius + driven.pitch_radius
    reach = contact_reach(free, step.mounting.tolerance)
    yield Coupling(step.path, step.stage, driver, driven, (reach,), free, step.turns)


def _around(plane: Plane, step: _Step, wheels: Sequence[Wheel]) -> Iterator[Coupling]:
    """A loop with the distances at which its lengths are taut; a tensioner takes up any."""
    loop, (driver, driven) = step.stage.in_plane, wheels
    assert isinstance(loop, Loop)  # see _COUPLE
    lengths = _lengths(step, loop)
    said = step.mounting.loop(step.path)
    touching = driver.pitch_radius + driven.pitch_radius
    bare = Coupling(step.path, step.stage, driver, driven, (), touching, step.turns, tuple(lengths))
    if not lengths:
        plane.missing[step.path] = "no length given"
    if said is not None and said.tensioner is not None:
        yield bare
        return
    known = [(bare.around.centre_distance(length, *bare.radii), name) for length, name in lengths]
    reaches = tuple(
        taut_reach(taut, step.mounting.loop_tolerance, loop, name) for taut, name in known if taut is not None
    )
    if lengths and not reaches:
        names = ", ".join(name for _, name in lengths)
        plane.impossible[step.path] = f"{names}: too short, the wheels would touch"
    yield replace(bare, reaches=reaches)


def _lengths(step: _Step, loop: Loop) -> list[tuple[float, str]]:
    """Lengths that the loop may have, with what each is called: its own, else those at hand."""
    said, size = step.mounting.loop(step.path), step.stage.tooth_size or 0.0
    own = step.stage.loop_length or (said.length if said and not loop.pieces else None)
    return [(own, loop.named(own, size))] if own else lengths_in_stock(step.stock, loop, size)


_COUPLE: dict[type, Callable[[Plane, _Step, Sequence[Wheel]], Iterator[Coupling]]] = {
    Mesh: _meshing,
    Contact: _touching,
    Loop: _around,
}
"""Ways to lie in the plane that lead to another shaft of it; the others stay in line, or leave it."""
