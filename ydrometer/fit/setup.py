"""All that is looked at of a design on its plate, and where the runs of its loops go."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting, PlateBehind, Point, ShaftMount, Tensioner
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.line import Plane, planes
from ydrometer.fit.running import Running
from ydrometer.fit.standing import Stand, reach_between, stands
from ydrometer.fit.stock import NOTHING, Stock
from ydrometer.geometry.loops import Run


@dataclass(frozen=True, slots=True)
class Setup:
    """All that the checks look at: a design with what its section says of one plate, the plane of that, where all
    stands, and what is at hand.
    """

    design: Design
    mounting: Mounting
    plane: Plane
    stands: Mapping[str, Stand]
    mounts: Mapping[str, ShaftMount]
    stock: Stock

    def at(self, shaft: str) -> Point:
        """Where a shaft stands."""
        return self.stands[shaft].at

    def said(self, shaft: str) -> Point:
        """Where a shaft stands before an eccentric is turned."""
        stand = self.stands[shaft]
        return stand.at if stand.turned is None else stand.turned.home

    def bored(self, shaft: str) -> Point:
        """The middle of what a shaft needs in the plate: that of its eccentric, where it is on one."""
        stand = self.stands[shaft]
        return stand.at if stand.turned is None else stand.turned.middle

    def distance(self, coupling: Coupling) -> float:
        """Between the two shafts of a coupling, m."""
        return math.dist(self.at(coupling.driver.shaft), self.at(coupling.driven.shaft))

    def reach(self, coupling: Coupling) -> tuple[float, float]:
        """The least and the largest distance that the mount of a coupling allows, m: of a slot, else as it stands."""
        first, second = coupling.shafts
        return reach_between(self.at(first), self.shaft(first).slot, self.at(second), self.shaft(second).slot)

    def shaft(self, path: str) -> ShaftMount:
        """How a shaft is mounted: free where nothing is said."""
        return self.mounts[path]

    @property
    def road_radius(self) -> float:
        """Of the wheel on the ground under load, m."""
        return 0.5 * self.design.vehicle.wheel_diameter

    @property
    def ground(self) -> float | None:
        """Height of the ground, m, where the axle stands on this plate: the tyre is pressed together as measured."""
        return None if self.plane.last is None else self.at(self.plane.last)[1] - self.road_radius


def set_up(design: Design, stock: Stock = NOTHING, behind: str = "") -> Setup:
    """A design with the plane of one of its plates, where all stands there, and what is at hand.

    Args:
        design: its `fit` section may be missing.
        stock: what a bin has.
        behind: path of the stage that turns the axis, behind which the plate is; empty for the first plate.

    Raises:
        ValueError: there is no plate behind that stage.
    """
    wanted = next((setup for setup in set_ups(design, stock) if setup.plane.behind == behind), None)
    if wanted is None:
        raise ValueError(f"{behind} does not turn the axis: there is no plate behind it")
    return wanted


def set_ups(design: Design, stock: Stock = NOTHING) -> list[Setup]:
    """A design on each of its plates, the first one first.

    Args:
        design: its `fit` section may be missing.
        stock: what a bin has.
    """
    possible = planes(design, stock)
    said = design.fit or Mounting()
    return [_set_up(replace(design, fit=_of_plate(said, plane, possible)), plane, stock) for plane in possible]


def _of_plate(mounting: Mounting, plane: Plane, of: Sequence[Plane]) -> Mounting:
    """What the section says of one of several plates; of the first one also all that belongs to none."""
    if len(of) == 1:
        return mounting
    others = [other for other in of if other is not plane]
    shafts = {path for other in others for path in (*other.shafts, *other.in_line)}
    stages = {path for other in others for path in other.stages}
    mine = replace(
        mounting,
        shafts=tuple(shaft for shaft in mounting.shafts if shaft.shaft not in shafts),
        loops=tuple(loop for loop in mounting.loops if loop.stage not in stages),
    )
    if not plane.behind:
        return mine
    said = next((plate for plate in mounting.behind if plate.stage == plane.behind), PlateBehind(stage=plane.behind))
    return replace(
        mine,
        plate=said.plate,
        frame=said.frame,
        adapters=(),
        shafts=tuple(shaft for shaft in mine.shafts if shaft.shaft in (*plane.shafts, *plane.in_line)),
        loops=tuple(loop for loop in mine.loops if loop.stage in plane.stages),
    )


def changed(setup: Setup, design: Design) -> Setup:
    """The same plate of a changed design.

    Args:
        setup: as it was.
        design: its `fit` section speaks of that plate alone, as the one of `setup` does.
    """
    same_plane = next(plane for plane in planes(design, setup.stock) if plane.behind == setup.plane.behind)
    return _set_up(design, same_plane, setup.stock)


def _set_up(design: Design, plane: Plane, stock: Stock) -> Setup:
    mounting = design.fit or Mounting()
    mounts = {path: mounting.of(path) or ShaftMount(shaft=path, mount="free") for path in plane.shafts}
    for coupling in plane.couplings:
        path = coupling.driver.shaft
        if coupling.around_driven:
            mounts[path] = _as_the_first(mounts[path], mounts[path.rpartition("[")[0]])
    return Setup(design, mounting, plane, stands(plane, mounting), mounts, stock)


def _as_the_first(said: ShaftMount, first: ShaftMount) -> ShaftMount:
    """How a further motor is mounted: where it is said to be, and what is not said of it as of the first one."""
    return replace(
        said,
        diameter=said.diameter or first.diameter,
        shape=said.shape if said.diameter else first.shape,
        length=said.length or first.length,
        body=said.body or first.body,
        opening=said.opening or first.opening,
        bolts=said.bolts or first.bolts,
    )


def middle(setup: Setup, coupling: Coupling) -> Point:
    """The place in the middle between two shafts."""
    first, second = setup.at(coupling.driver.shaft), setup.at(coupling.driven.shaft)
    return 0.5 * (first[0] + second[0]), 0.5 * (first[1] + second[1])


def tensioner(setup: Setup, coupling: Coupling) -> Tensioner | None:
    """What presses on a loop besides its two wheels."""
    said = setup.mounting.loop(coupling.path)
    return None if said is None else said.tensioner


def running(setup: Setup, coupling: Coupling) -> Running:
    """A loop by the radii of its length."""
    first, second = (setup.at(path) for path in coupling.shafts)
    return Running(first, second, coupling.radii, coupling.stage.crossed, tensioner(setup, coupling))


def drawn(setup: Setup, coupling: Coupling) -> Running:
    """A loop by the radii on which its pitch line lies: those of a chain's pins."""
    pitch_radii = coupling.driver.pitch_radius, coupling.driven.pitch_radius
    return replace(running(setup, coupling), radii=pitch_radii)


def free_runs(setup: Setup, coupling: Coupling) -> list[Run]:
    """The free runs of a loop as their ends; none where its wheels overlap."""
    if setup.distance(coupling) <= coupling.free:
        return []
    try:
        return drawn(setup, coupling).taut.runs
    except ValueError:  # the tensioner stands in a wheel, which is told as a clash
        return []


def depth(setup: Setup, wheel: Wheel) -> tuple[float, float] | None:
    """From where to where along its shaft a wheel reaches, m, from the first face; None where no stack says so."""
    stack = setup.shaft(wheel.shaft).stack
    if stack is None:
        return None
    laid = zip(stack.items, stack.spans, strict=True)
    return next((span for item, span in laid if item.wheel == wheel.name), None)


def same_depth(setup: Setup, first: Wheel, second: Wheel) -> bool:
    """Whether stacks say that two wheels lie in the same depth."""
    spans = depth(setup, first), depth(setup, second)
    return bool(spans[0] and spans[1] and spans[0][0] < spans[1][1] - NOISE and spans[1][0] < spans[0][1] - NOISE)
