"""Clearance checks of many placements at once, as arrays."""

from __future__ import annotations

from dataclasses import replace
from itertools import product

import numpy as np
from numpy.typing import NDArray

from ydrometer.fit import bodies, touching
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.placing import Floats, off_line
from ydrometer.fit.problem import Placement
from ydrometer.fit.setup import Setup, drawn, running, tensioner

Bools = NDArray[np.bool_]
Run = tuple[Floats, Floats]


def clear(setup: Setup, placements: list[Placement]) -> list[Placement]:
    """Placements in which no loop runs into a shaft, the frame, or what lies in the same depth, and no wheel into the
    ground. What circles clear is the solver's own.

    Args:
        setup: of the design.
        placements: ways that satisfy all couplings.
    """
    if not placements:
        return placements
    at = {path: np.array([placement.at[path] for placement in placements]) for path in setup.plane.shafts}
    loops = [coupling for coupling in setup.plane.couplings if coupling.is_loop]
    bare = [loop for loop in loops if tensioner(setup, loop) is None]
    runs = {loop.path: _runs(loop, *(at[path] for path in loop.shafts)) for loop in bare}
    good = _off_the_ground(setup, at)
    for loop in loops:
        if loop not in bare:
            runs[loop.path], taut = _tensioned(setup, loop, *(at[path] for path in loop.shafts))
            good &= taut
    good &= _beside_loops(setup, at, runs)
    for coupling in setup.plane.couplings:
        for run in runs.get(coupling.path, ()):
            good &= _past_shafts(setup, coupling, run, at) & _past_the_frame(setup, coupling, run)
    return [placement for placement, is_good in zip(placements, good, strict=True) if is_good]


def _off_the_ground(setup: Setup, at: dict[str, Floats]) -> Bools:
    good = np.ones(len(next(iter(at.values()))), bool)
    if setup.plane.last is None:
        return good
    ground = at[setup.plane.last][:, 1] - setup.road_radius
    for wheel in setup.plane.wheels:
        good &= at[wheel.shaft][:, 1] - wheel.outer_radius - ground >= setup.mounting.ground_gap - NOISE
    for line in setup.mounting.frame:
        good &= min(line.start[1], line.end[1]) - ground >= setup.mounting.ground_gap - NOISE
    for path, radius in bodies.radii(setup).items():
        good &= at[path][:, 1] - radius - ground >= setup.mounting.ground_gap - NOISE
    return good


def _past_shafts(setup: Setup, coupling: Coupling, run: Run, at: dict[str, Floats]) -> Bools:
    good = np.ones(len(run[0]), bool)
    for path in setup.plane.shafts:
        if path not in coupling.shafts:
            wanted = touching.clear_of_shaft(setup, touching.thickness(coupling), path)
            good &= off_line(at[path], *run) >= wanted - NOISE
    return good


def _past_the_frame(setup: Setup, coupling: Coupling, run: Run) -> Bools:
    good = np.ones(len(run[0]), bool)
    for line in setup.mounting.frame:
        first, second = (np.broadcast_to(spot, run[0].shape) for spot in (line.start, line.end))
        good &= apart(run, (first, second)) >= touching.thickness(coupling) + setup.mounting.gap - NOISE
    return good


def _beside_loops(setup: Setup, at: dict[str, Floats], runs: dict[str, list[Run]]) -> Bools:
    """Loops clear the wheels and loops in the same depth."""
    good = np.ones(len(next(iter(at.values()))), bool)
    for coupling, wheel in touching.wheels_beside_loops(setup):
        keep = touching.thickness(coupling) + setup.mounting.gap + wheel.outer_radius
        for run in runs[coupling.path]:
            good &= off_line(at[wheel.shaft], *run) >= keep - NOISE
    for first, second in touching.loops_beside(setup):
        keep = touching.thickness(first) + touching.thickness(second) + setup.mounting.gap
        for run, beside in product(runs[first.path], runs[second.path]):
            good &= apart(run, beside) >= keep - NOISE
    return good


def _runs(coupling: Coupling, first: Floats, second: Floats) -> list[Run]:
    """The two free runs of a loop in n placements at once, (n, 2) each end; as `loops.runs`."""
    step = second - first
    distance = np.hypot(*step.T)
    towards = np.arctan2(step[:, 1], step[:, 0])
    r1, r2 = coupling.driver.pitch_radius, coupling.driven.pitch_radius
    r2 = -r2 if coupling.stage.crossed else r2
    half = 0.5 * np.pi + np.arcsin(np.clip((r2 - r1) / distance, -1.0, 1.0))
    runs = []
    for angle in (towards + half, towards - half):
        way = np.stack([np.cos(angle), np.sin(angle)], axis=1)
        runs.append((first + r1 * way, second + r2 * way))
    return runs


def _tensioned(setup: Setup, coupling: Coupling, here: Floats, other: Floats) -> tuple[list[Run], Bools]:
    """The free runs of a loop with a tensioner in n placements, and where one of its lengths is taut, (n,).

    Lengths are by the radii of its length, runs lie where its pins do. Where the tensioner is not reached there are
    two runs, and the second one stands twice.
    """
    give, lengths = setup.mounting.loop_tolerance, [length for length, _ in coupling.lengths]
    ends, good = np.zeros((3, 2, len(here), 2)), np.zeros(len(here), bool)
    by_length, by_pins = running(setup, coupling), drawn(setup, coupling)
    for i, spots in enumerate(zip(here.tolist(), other.tolist(), strict=True)):
        first, second = (tuple(spot) for spot in spots)
        loop = replace(by_length, driver=first, driven=second)
        try:
            way, runs = loop.taut, replace(by_pins, driver=first, driven=second).taut.runs
        except ValueError:  # it stands in a wheel
            continue
        good[i] = loop.reached and any(abs(length - way.length) <= give for length in lengths or [way.length])
        ends[:, :, i] = (*runs, runs[-1])[:3]
    return [(start, end) for start, end in ends], good


def apart(first: Run, second: Run) -> Floats:
    """How far straight lines are from each other, m, (n,); 0 where they cross.

    Args:
        first: the lines by their ends, m, (n, 2) each.
        second: those that they are held against, likewise.
    """
    off = np.minimum.reduce(
        [
            off_line(second[0], *first),
            off_line(second[1], *first),
            off_line(first[0], *second),
            off_line(first[1], *second),
        ]
    )
    return np.where(_cross(*first, *second), 0.0, off)


def _cross(a: Floats, b: Floats, c: Floats, d: Floats) -> Bools:
    """Whether the lines from a to b and from c to d cross, all (n, 2); (n,)."""

    def side(first: Floats, second: Floats, at: Floats) -> Floats:
        step, off = second - first, at - first
        return np.asarray(step[:, 0] * off[:, 1] - step[:, 1] * off[:, 0])

    return np.asarray((side(a, b, c) * side(a, b, d) < 0.0) & (side(c, d, a) * side(c, d, b) < 0.0))
