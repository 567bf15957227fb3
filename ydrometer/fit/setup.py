"""All that is looked at of a design on its plate, and where the runs of its loops go."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting, Point, ShaftMount, Tensioner
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.line import Plane
from ydrometer.fit.running import Running
from ydrometer.fit.standing import Stand, reach_between
from ydrometer.fit.stock import Stock
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
