"""The shafts of a design on its plate as the placing solver takes them, and what it finds as it is handed on."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ydrometer.fit import placing, touching
from ydrometer.fit.line import Plane, Tie
from ydrometer.fit.placing import Clear, Floats, Frame, Pair, Placement
from ydrometer.fit.setup import Setup
from ydrometer.mounting import Plate, Point

MOST_TRIED = 20_000
"""Placements that are looked at."""


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


def as_problem(setup: Setup) -> placing.Plate:
    """The plate as the solver takes it."""
    plate = setup.mounting.plate
    if plate is None:
        raise ValueError("no plate is given: give hole_pitch, across and up")
    ties = tied(setup.plane)
    held = {path for tie in ties for path in tie.shafts}
    stay = set(setup.plane.shafts) - held
    if not any(shaft.mount == "fixed" for shaft in setup.mounting.shafts):
        stay.add(setup.plane.shafts[0])
    shafts = tuple(_shaft(setup, path, plate, stay) for path in setup.plane.shafts)
    pairs = tuple(Pair(*tie.shafts, tie.reaches) for tie in ties)
    clears = tuple(
        Clear(wheel.shaft, path, touching.clear_of_shaft(setup, wheel.outer_radius, path))
        for wheel, path in touching.shafts_beside(setup)
    )
    frames = tuple(
        Frame(wheel.shaft, line.start, line.end, wheel.outer_radius + setup.mounting.gap)
        for wheel, line in touching.frame_beside(setup)
    )
    return placing.Plate(shafts, pairs, clears, frames)


def tied(found: Plane) -> list[Tie]:
    """The ties of a plane that say how far their shafts are apart."""
    return [tie for tie in found.ties if tie.reaches]


def _shaft(setup: Setup, path: str, plate: Plate, stay: Collection[str]) -> placing.Shaft:
    shaft = setup.mounting.of(path)
    if path in stay:
        return placing.Shaft(path, (setup.at(path),))
    if shaft is not None and shaft.slot is not None:
        return placing.Shaft(path, (shaft.slot.start, shaft.slot.end), slot=True)
    if shaft is not None and shaft.mount in ("fixed", "free") and shaft.at is not None:
        return placing.Shaft(path, (shaft.at,))
    return placing.Shaft(path, tuple(plate.holes()))


def clear(setup: Setup, found: list[Placement]) -> list[Placement]:
    """Placements in which no loop runs into a shaft or the frame; looked at all at once.

    Args:
        setup: of the design.
        found: ways that satisfy all ties.
    """
    if not found:
        return found
    at = {path: np.array([placement.at[path] for placement in found]) for path in setup.plane.shafts}
    good = np.ones(len(found), bool)
    for tie in setup.plane.ties:
        if not tie.is_loop:
            continue
        keep = touching.thickness(tie) + setup.mounting.gap
        for start, end in _runs(tie, *(at[path] for path in tie.shafts)):
            for path in setup.plane.shafts:
                if path not in tie.shafts:
                    wanted = touching.clear_of_shaft(setup, touching.thickness(tie), path)
                    good &= _from_run(start, end, at[path]) >= wanted - placing.NOISE
            for line in setup.mounting.frame:
                first, second = (np.broadcast_to(spot, start.shape) for spot in (line.start, line.end))
                good &= ~_cross(start, end, first, second)
                for off in (_from_run(start, end, first), _from_run(start, end, second),
                            _from_run(first, second, start), _from_run(first, second, end)):  # fmt: skip
                    good &= off >= keep - placing.NOISE
    return [placement for placement, is_good in zip(found, good, strict=True) if is_good]


def _runs(tie: Tie, one: Floats, other: Floats) -> list[tuple[Floats, Floats]]:
    """The two free runs of a loop in n placements at once, (n, 2) each end; as `loops.runs`."""
    step = other - one
    distance = np.hypot(*step.T)
    towards = np.arctan2(step[:, 1], step[:, 0])
    r1, r2 = tie.radii[0], -tie.radii[1] if tie.crossed else tie.radii[1]
    half = 0.5 * np.pi + np.arcsin(np.clip((r2 - r1) / distance, -1.0, 1.0))
    found = []
    for angle in (towards + half, towards - half):
        way = np.stack([np.cos(angle), np.sin(angle)], axis=1)
        found.append((one + r1 * way, other + r2 * way))
    return found


def _from_run(start: Floats, end: Floats, at: Floats) -> Floats:
    """How far places are from straight lines, all (n, 2); (n,)."""
    along = end - start
    length = np.maximum((along**2).sum(axis=1), 1e-30)
    share = np.clip(((at - start) * along).sum(axis=1) / length, 0.0, 1.0)
    return np.asarray(np.hypot(*(at - start - share[:, None] * along).T))


def _cross(a: Floats, b: Floats, c: Floats, d: Floats) -> NDArray[np.bool_]:
    """Whether the lines from a to b and from c to d cross, all (n, 2); (n,)."""

    def side(one: Floats, other: Floats, at: Floats) -> Floats:
        step, off = other - one, at - one
        return np.asarray(step[:, 0] * off[:, 1] - step[:, 1] * off[:, 0])

    return np.asarray((side(a, b, c) * side(a, b, d) < 0.0) & (side(c, d, a) * side(c, d, b) < 0.0))


def way(placement: Placement, ties: Sequence[Tie]) -> Placing:
    """A placement as it is handed on.

    Args:
        placement: of the solver.
        ties: in the order of its pairs.
    """
    lengths = {
        tie.path: reach.name for tie, reach in zip(ties, placement.reaches, strict=True) if tie.is_loop
    }  # fmt: skip
    room = None if placement.room == float("inf") else placement.room
    return Placing(placement.at, lengths, placement.error, room, placement.size)
