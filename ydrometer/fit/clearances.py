"""Clearance checks of many placements at once, as arrays."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import product

import numpy as np

from ydrometer.document.mounting import Tensioner
from ydrometer.fit import bodies, touching
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.loops_placed import Bools, Run, bare_runs, can_be_put_on, over
from ydrometer.fit.metal import keep_metal
from ydrometer.fit.placing import Floats
from ydrometer.fit.problem import Placement
from ydrometer.fit.setup import Setup, tensioner
from ydrometer.geometry.segments import apart, nearest_on, off_line


def clear(
    setup: Setup, placements: list[Placement], couplings: Sequence[Coupling], *, but: Coupling | None = None
) -> list[Placement]:
    """Placements in which all goes together as `clashes.goes` sees it: loops go on, are as long as their way around,
    and run into nothing; wheels keep off the ground, and the plate keeps its metal. What circles clear is the solver's
    own.

    Args:
        setup: of the design.
        placements: ways that satisfy all couplings.
        couplings: in the order of the pairs of their problem.
        but: a loop that will run elsewhere and is not looked at.
    """
    if not placements:
        return placements
    at = {path: np.array([placement.at[path] for placement in placements]) for path in setup.plane.shafts}
    good, runs = _off_the_ground(setup, at), dict[str, list[Run]]()
    for loop in (coupling for coupling in setup.plane.couplings if coupling.is_loop and coupling is not but):
        first, second = (at[path] for path in loop.shafts)
        good &= np.hypot(*(first - second).T) > loop.free + NOISE
        pressing = tensioner(setup, loop)
        if pressing is None:
            runs[loop.path] = bare_runs(loop, first, second)
        else:
            around = over(setup, loop, pressing, first, second)
            runs[loop.path] = around.runs
            good &= around.good & _tensioner_clear(setup, pressing, at)
    for pair, coupling in enumerate(couplings):
        if coupling is not but:
            good &= can_be_put_on(setup, coupling, placements, pair)
    good &= _beside_loops(setup, at, runs) & keep_metal(setup, at)
    for coupling in setup.plane.couplings:
        for run in runs.get(coupling.path, ()):
            good &= _past_shafts(setup, coupling, run, at) & _past_the_frame(setup, coupling, run)
    return [placement for placement, is_good in zip(placements, good, strict=True) if is_good]


def _tensioner_clear(setup: Setup, pressing: Tensioner, at: dict[str, Floats]) -> Bools:
    """Where a tensioner, which stays, keeps off the ground; nowhere if it stands in the frame."""
    ground = _ground(setup, at)
    reach = 0.5 * pressing.diameter
    off = [math.dist(nearest_on(line.start, line.end, pressing.at), pressing.at) for line in setup.mounting.frame]
    good = np.full(len(ground), min(off, default=math.inf) >= reach + setup.mounting.gap - NOISE)
    return np.asarray(good & (pressing.at[1] - reach - ground >= setup.mounting.ground_gap - NOISE))


def _ground(setup: Setup, at: dict[str, Floats]) -> Floats:
    """Height of the ground in each placement, m, (n,); far below where the axle is elsewhere."""
    if setup.plane.last is None:
        return np.full(len(next(iter(at.values()))), -np.inf)
    return at[setup.plane.last][:, 1] - setup.road_radius


def _off_the_ground(setup: Setup, at: dict[str, Floats]) -> Bools:
    ground, gap = _ground(setup, at), setup.mounting.ground_gap - NOISE
    good = np.ones(len(ground), bool)
    for wheel in setup.plane.wheels:
        good &= at[wheel.shaft][:, 1] - wheel.outer_radius - ground >= gap
    for line in setup.mounting.frame:
        good &= min(line.start[1], line.end[1]) - ground >= gap
    for path, radius in bodies.radii(setup).items():
        good &= at[path][:, 1] - radius - ground >= gap
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
        for run in runs.get(coupling.path, ()):
            good &= off_line(at[wheel.shaft], *run) >= keep - NOISE
    for first, second in touching.loops_beside(setup):
        keep = touching.thickness(first) + touching.thickness(second) + setup.mounting.gap
        for run, beside in product(runs.get(first.path, ()), runs.get(second.path, ())):
            good &= apart(run, beside) >= keep - NOISE
    return good
