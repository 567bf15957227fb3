"""Between a design on its plate and the placing solver: the problem it solves, and its solutions in words."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import product

from ydrometer.document.mounting import Plate, Point, ShaftMount
from ydrometer.fit import bodies, touching
from ydrometer.fit.along import Frame, Reach
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.line import Plane
from ydrometer.fit.problem import Clear, PlacedPair, PlacedShaft, Placement, Problem
from ydrometer.fit.setting_up import changed
from ydrometer.fit.setup import Setup, tensioner
from ydrometer.fit.toothing import suiting

MOST_TRIED = 20_000
"""Largest number of placements the solver looks at."""


@dataclass(frozen=True, slots=True)
class Placing:
    """One way to place everything: where each shaft stands, m, and the length of each loop in words, by stage.

    Attributes:
        at. lengths. error: sum of the distances from the best ones, m. room: the least that a slot leaves, m, None
        without a slot. size: half the way around everything, m.
    """

    at: dict[str, Point]
    lengths: dict[str, str]
    error: float
    room: float | None
    size: float


def as_problem(setup: Setup) -> Problem:
    """The problem for the solver."""
    plate = setup.mounting.plate
    if plate is None:
        raise ValueError("no plate is given: give hole_pitch, across and up")
    couplings = with_distance(setup.plane)
    over = list(_over_tensioners(setup))
    held = {path for coupling in couplings for path in coupling.shafts}
    held |= {path for link in over for path in (link.first, link.second) if setup.shaft(path).slot is None}
    stay = set(setup.plane.shafts) - held
    first = setup.plane.shafts[0]
    if setup.shaft(first).slot is None and not any(shaft.mount == "fixed" for shaft in setup.mounting.shafts):
        stay.add(first)
    drilled = _drilled(setup, couplings, stay)
    shafts = tuple(
        PlacedShaft(path, free=True) if path in drilled else _shaft(setup, path, plate, stay)
        for path in setup.plane.shafts
    )
    pairs = tuple(
        PlacedPair(*coupling.shafts, _with_eccentric(setup, coupling), coupling.may_be_nearer, coupling.may_be_farther)
        for coupling in couplings
    )
    clears = (
        tuple(Clear(pair.wheel.shaft, pair.shaft, pair.least, within=pair.within) for pair in touching.beside(setup))
        + tuple(Clear(*beside) for beside in bodies.shafts_beside(setup))
        + tuple(over)
    )
    frames = (
        tuple(
            Frame(wheel.shaft, line.start, line.end, wheel.outer_radius + setup.mounting.gap)
            for wheel, line in product(setup.plane.wheels, setup.mounting.frame)
        )
        + tuple(
            Frame(beside.shaft, beside.tensioner.at, beside.tensioner.at, beside.least)
            for beside in touching.tensioners_beside(setup)
        )
        + tuple(Frame(path, line.start, line.end, least) for path, line, least in bodies.frame_beside(setup))
    )
    return Problem(shafts, pairs, clears, frames)


def _drilled(setup: Setup, couplings: Sequence[Coupling], stay: Collection[str]) -> set[str]:
    """Shafts that are said to be free, without a place, and that two others tell where to stand."""
    drilled: set[str] = set()
    for path in setup.plane.shafts:
        said = setup.mounting.of(path)
        if said is None or said.mount != "free" or said.at is not None or path in stay:
            continue
        partners = [other for coupling in couplings if (other := coupling.partner(path))]
        if len(partners) > 1 and not drilled.intersection(partners):
            drilled.add(path)
    return drilled


def _with_eccentric(setup: Setup, coupling: Coupling) -> tuple[Reach, ...]:
    """The reaches of a coupling between shafts in line: an eccentric of either adds up to twice its throw."""
    throw = sum(setup.shaft(path).eccentric or 0.0 for path in coupling.shafts)
    return tuple(replace(r, low=r.low - 2.0 * throw, best=r.best - throw) for r in suiting(coupling))


def _over_tensioners(setup: Setup) -> Iterator[Clear]:
    """The shafts of loops over a tensioner, which takes up any distance up to that at which the longest is taut."""
    for coupling in setup.plane.couplings:
        if tensioner(setup, coupling) is not None and coupling.lengths:
            taut = [coupling.around.centre_distance(length, *coupling.radii) for length, _ in coupling.lengths]
            yield Clear(*coupling.shafts, coupling.free, max(distance or 0.0 for distance in taut))


def with_distance(plane: Plane) -> list[Coupling]:
    """The couplings that hold their shafts to a distance, those included that no distance suits."""
    return [coupling for coupling in plane.couplings if coupling.reaches or coupling.path in plane.impossible]


def _shaft(setup: Setup, path: str, plate: Plate, stay: Collection[str]) -> PlacedShaft:
    shaft = setup.shaft(path)
    if path in stay:
        return PlacedShaft(path, (setup.said(path),))
    if shaft.slot is not None:
        return PlacedShaft(path, (shaft.slot.start, shaft.slot.end), slot=True)
    if shaft.mount in ("fixed", "free") and shaft.at is not None:
        return PlacedShaft(path, (shaft.at,))
    return PlacedShaft(path, plate.holes())


def way(placement: Placement, couplings: Sequence[Coupling]) -> Placing:
    """A solution of the solver, with the lengths of loops in words.

    Args:
        placement: of the solver.
        couplings: in the order of its pairs.
    """
    known = zip(couplings, placement.reaches, strict=True)
    lengths = {coupling.path: reach.name for coupling, reach in known if coupling.is_loop}
    room = None if placement.room == float("inf") else placement.room
    return Placing(placement.at, lengths, placement.error, room, placement.size)


def moved(setup: Setup, placement: Placement) -> Setup:
    """A design with its shafts where a solution of the solver has them; those in slots go there by themselves."""
    said = {shaft.shaft: shaft for shaft in setup.mounting.shafts}
    shafts = {
        path: replace(said.get(path) or ShaftMount(shaft=path), at=at)
        for path, at in placement.at.items()
        if path not in said or said[path].slot is None
    }
    mounting = replace(setup.mounting, shafts=tuple({**said, **shafts}.values()))
    return changed(setup, replace(setup.design, fit=mounting))
