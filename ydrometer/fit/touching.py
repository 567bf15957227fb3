"""Checks of clearance between wheels, shafts, runs of loops, the frame and the ground.

Nothing is taken for clear that is not known to be: a shaft is thought to go through everything, unless stacks say how
deep it lies. What lies in the same depth besides is looked at only where stacks say so.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations, product

from ydrometer.document.mounting import Point, Tensioner
from ydrometer.fit.along import NOISE
from ydrometer.fit.clash import Clash, called, mm
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.setup import Setup, depth, free_runs, same_depth, tensioner
from ydrometer.geometry.segments import closest, nearest_on


@dataclass(frozen=True, slots=True)
class Apart:
    """A wheel that has to keep off a shaft: at least so far, m, or within its ring; for the wheel on it, if for one."""

    wheel: Wheel
    shaft: str
    other: Wheel | None
    least: float
    within: float

    def short(self, distance: float) -> float:
        """By how much a distance of the two falls short, m; not above 0 where it does not."""
        return min(self.least - distance, distance - self.within)


def beside(setup: Setup) -> Iterator[Apart]:
    """What wheels have to keep off: shafts that go past them, and wheels in their depth or row."""
    yield from shafts_beside(setup)
    for first, second in _wheels_beside(setup):
        ring, other = (second, first) if second.form.encloses else (first, second)
        yield _apart(setup, ring, other.shaft, other, other.outer_radius)


def shafts_beside(setup: Setup) -> Iterator[Apart]:
    """Wheels with the shafts that are not coupled with them and pass through their depth."""
    for wheel in setup.plane.wheels:
        mates = {shaft for coupling in setup.plane.couplings if wheel in coupling.wheels for shaft in coupling.shafts}
        for path in setup.plane.shafts:
            if path not in mates and not _passes(setup, wheel, path):
                yield _apart(setup, wheel, path, None, 0.5 * (setup.shaft(path).diameter or 0.0))


def _apart(setup: Setup, wheel: Wheel, path: str, other: Wheel | None, radius: float) -> Apart:
    keep = radius + setup.mounting.gap
    within = wheel.inner_radius - keep if wheel.form.encloses else -math.inf
    return Apart(wheel, path, other, wheel.outer_radius + keep, within)


def _wheels_beside(setup: Setup) -> Iterator[tuple[Wheel, Wheel]]:
    """Pairs of wheels on different shafts, not coupled, in the same depth: as stacks say, or in a row of one stage."""
    coupled = [set(coupling.wheels) for coupling in setup.plane.couplings]
    for first, second in combinations(setup.plane.wheels, 2):
        strangers = {first, second} not in coupled and first.shaft != second.shaft
        if strangers and (first.path == second.path or same_depth(setup, first, second)):
            yield first, second


def wheels_beside_loops(setup: Setup) -> Iterator[tuple[Coupling, Wheel]]:
    """Pairs of a loop and a wheel of another stage in the same depth."""
    for coupling, wheel in product(setup.plane.couplings, setup.plane.wheels):
        if coupling.is_loop and wheel.path != coupling.path and same_depth(setup, coupling.driver, wheel):
            yield coupling, wheel


def loops_beside(setup: Setup) -> Iterator[tuple[Coupling, Coupling]]:
    """Pairs of loops in the same depth."""
    for first, second in combinations([coupling for coupling in setup.plane.couplings if coupling.is_loop], 2):
        if same_depth(setup, first.driver, second.driver):
            yield first, second


@dataclass(frozen=True, slots=True)
class Beside:
    """A shaft that has to keep a distance, m, from the tensioner of a loop, for what `name` says of it."""

    coupling: Coupling
    tensioner: Tensioner
    shaft: str
    name: str
    least: float


def tensioners_beside(setup: Setup) -> Iterator[Beside]:
    """Tensioners with the wheels of their own loop, those in the same depth, and the shafts that go past them."""
    for coupling in setup.plane.couplings:
        pressing = tensioner(setup, coupling)
        if pressing is None:
            continue
        radius = 0.5 * pressing.diameter
        for wheel in setup.plane.wheels:
            if wheel in coupling.wheels or same_depth(setup, coupling.driver, wheel):
                least = radius + wheel.outer_radius + setup.mounting.gap
                yield Beside(coupling, pressing, wheel.shaft, wheel.words, least)
        for path in setup.plane.shafts:
            if path not in coupling.shafts:
                yield Beside(coupling, pressing, path, setup.plane.named(path), clear_of_shaft(setup, radius, path))


def tensioners(setup: Setup) -> Iterator[Clash]:
    """A tensioner clears the wheels of its loop, shafts beside it, the frame and the ground."""
    for beside in tensioners_beside(setup):
        short = beside.least - math.dist(beside.tensioner.at, setup.at(beside.shaft))
        yield from _pressed_into(setup, beside.coupling, beside.tensioner, short, beside.name)
    for coupling in setup.plane.couplings:
        pressing = tensioner(setup, coupling)
        if pressing is None:
            continue
        keep = 0.5 * pressing.diameter + setup.mounting.gap
        for line in setup.mounting.frame:
            near = nearest_on(line.start, line.end, pressing.at)
            short = keep - math.dist(near, pressing.at)
            yield from _pressed_into(setup, coupling, pressing, short, line.name or "frame")
        if setup.ground is not None:
            left = pressing.at[1] - 0.5 * pressing.diameter - setup.ground
            yield from too_low(setup, f"tensioner of the {called(coupling)}", coupling.path, pressing.at, left)


def _pressed_into(setup: Setup, coupling: Coupling, pressing: Tensioner, short: float, name: str) -> Iterator[Clash]:
    what = f"tensioner of the {called(coupling)}"
    yield from crowding(setup, what, f"the {name}", coupling.path, short, pressing.at)


def clear_of_shaft(setup: Setup, reach: float, path: str) -> float:
    """Least distance from a shaft's centre of something whose own radius is `reach`, m."""
    return reach + 0.5 * (setup.shaft(path).diameter or 0.0) + setup.mounting.gap


def thickness(coupling: Coupling) -> float:
    """Height of a loop over its pitch line, m."""
    return coupling.driver.outer_radius - coupling.driver.pitch_radius


def beside_own_run(setup: Setup, coupling: Coupling) -> float:
    """How far a tensioner has to stay from the run of its loop on which it does not press, m."""
    return thickness(coupling) + setup.mounting.gap


def wheels_and_shafts(setup: Setup) -> Iterator[Clash]:
    """A wheel clears the shafts beside it, and what lies in the same depth on another shaft."""
    for pair in beside(setup):
        at, other = setup.at(pair.wheel.shaft), setup.at(pair.shaft)
        short = pair.short(math.dist(at, other))
        if short > NOISE:
            name = pair.other.words if pair.other else setup.plane.named(pair.shaft)
            rim = _rim(at, other, pair.wheel.outer_radius)
            yield from crowding(setup, pair.wheel.words, f"the {name}", pair.wheel.path, short, rim)


def crowding(setup: Setup, what: str, name: str, path: str, short: float, at: Point) -> Iterator[Clash]:
    """What is told of something that stands `short`, m, too near to something: nothing where it is far enough."""
    if short > NOISE:
        word = "runs into" if short > setup.mounting.gap else "leaves too little to"
        yield Clash("clash", f"the {what} {word} {name}: {mm(short)} more is wanted", path, short, at)


def _rim(centre: Point, towards: Point, radius: float) -> Point:
    distance = math.dist(centre, towards) or 1.0
    share = min(1.0, radius / distance)
    return centre[0] + share * (towards[0] - centre[0]), centre[1] + share * (towards[1] - centre[1])


def _passes(setup: Setup, wheel: Wheel, path: str) -> bool:
    """Whether a shaft is known to end before the depth in which a wheel lies."""
    span, shaft = depth(setup, wheel), setup.shaft(path)
    return bool(span and shaft.length is not None and shaft.length <= span[0])


def frame(setup: Setup) -> Iterator[Clash]:
    """All wheels clear the lines of the frame."""
    for wheel, line in product(setup.plane.wheels, setup.mounting.frame):
        at = setup.at(wheel.shaft)
        near = nearest_on(line.start, line.end, at)
        short = wheel.outer_radius + setup.mounting.gap - math.dist(near, at)
        if short > NOISE:
            text = f"the {wheel.words} comes too near to the {line.name or 'frame'}: {mm(short)} more is wanted"
            yield Clash("clash", text, wheel.path, short, near)


def runs(setup: Setup) -> Iterator[Clash]:
    """The runs of a loop clear the shafts between them and the lines of the frame."""
    for coupling in setup.plane.couplings:
        if not coupling.is_loop:
            continue
        for run in free_runs(setup, coupling):
            for path in setup.plane.shafts:
                if path not in coupling.shafts:
                    at, wanted = setup.at(path), clear_of_shaft(setup, thickness(coupling), path)
                    yield from _run_into(coupling, wanted, nearest_on(*run, at), at, setup.plane.named(path))
            for line in setup.mounting.frame:
                near, on_line = closest(run, (line.start, line.end))
                yield from _run_into(
                    coupling, thickness(coupling) + setup.mounting.gap, near, on_line, line.name or "frame"
                )


def _run_into(coupling: Coupling, wanted: float, near: Point, other: Point, name: str) -> Iterator[Clash]:
    short = wanted - math.dist(near, other)
    if short > NOISE:
        text = f"the {called(coupling)} runs into the {name}: {mm(short)} more is wanted"
        yield Clash("clash", text, coupling.path, short, near)


def ground(setup: Setup) -> Iterator[Clash]:
    """Wheels and frame clear the ground; the tyre is pressed together as much as its rolling diameter says."""
    ground = setup.ground
    if ground is None:
        return
    for wheel in setup.plane.wheels:
        at = setup.at(wheel.shaft)
        yield from too_low(setup, wheel.words, wheel.path, at, at[1] - wheel.outer_radius - ground)
    for line in setup.mounting.frame:
        lowest = min(line.start, line.end, key=lambda end: end[1])
        yield from too_low(setup, line.name or "frame", setup.plane.last or "", lowest, lowest[1] - ground)


def too_low(setup: Setup, name: str, path: str, at: Point, left: float) -> Iterator[Clash]:
    """What is told of something that has `left`, m, to the ground: nothing where that is enough."""
    short = setup.mounting.ground_gap - left
    if short > NOISE:
        stands = f"leaves {mm(left)} to the ground" if left >= 0.0 else f"reaches {mm(-left)} into the ground"
        text = f"the {name} {stands}, {mm(setup.mounting.ground_gap)} above it is wanted"
        yield Clash("clash", text, path, short, (at[0], setup.ground or 0.0))


def neighbours(setup: Setup) -> Iterator[Clash]:
    """In the same depth, as stacks say, a loop clears other wheels and other loops."""
    for coupling, wheel in wheels_beside_loops(setup):
        keep, at = thickness(coupling) + setup.mounting.gap + wheel.outer_radius, setup.at(wheel.shaft)
        for run in free_runs(setup, coupling):
            yield from _run_into(coupling, keep, nearest_on(*run, at), at, wheel.words)
    for first, second in loops_beside(setup):
        keep = thickness(first) + thickness(second) + setup.mounting.gap
        for run, beside in product(free_runs(setup, first), free_runs(setup, second)):
            yield from _run_into(first, keep, *closest(run, beside), called(second))
