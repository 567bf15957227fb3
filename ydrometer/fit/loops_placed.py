"""Loops of many placements at once, as arrays: their runs, where they are taut, and the room to put them on."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product

import numpy as np
from numpy.typing import NDArray

from ydrometer.document.mounting import Tensioner
from ydrometer.fit import touching
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.placing import Floats
from ydrometer.fit.problem import Placement
from ydrometer.fit.room import room_wanted
from ydrometer.fit.running import in_order, sides
from ydrometer.fit.setup import Setup
from ydrometer.geometry.around import Round, Taut, many_taut
from ydrometer.geometry.segments import off_line

Bools = NDArray[np.bool_]
Run = tuple[Floats, Floats]


def bare_runs(coupling: Coupling, first: Floats, second: Floats) -> list[Run]:
    """The two free runs of a loop, (n, 2) each end; NaN where its wheels overlap.

    Args:
        coupling: of the loop, without a tensioner.
        first, second: where its wheels stand, m, (n, 2) each.
    """
    return _runs(many_taut(_pair(coupling, first, second, _pins(coupling))))


@dataclass(frozen=True, slots=True)
class Over:
    """A loop over a tensioner in n placements: its runs, the direct one first, and where it is as it should be, (n,).

    That is: it reaches the tensioner, one of its lengths is taut, and the run beside that is clear of it.
    """

    runs: list[Run]
    good: Bools


def over(setup: Setup, coupling: Coupling, pressing: Tensioner, first: Floats, second: Floats) -> Over:
    """How a loop runs over its tensioner. Lengths are by the radii of its length, runs lie where its pins do.

    Args:
        setup: of the design.
        coupling: of the loop.
        pressing: the tensioner, which stays where it is.
        first, second: where its wheels stand, m, (n, 2) each.
    """
    ends = np.full((3, 2, len(first), 2), np.nan)
    length, wrap = np.full(len(first), np.nan), np.full(len(first), np.nan)
    by_length = _pair(coupling, first, second, coupling.radii)
    left, behind = sides(*by_length, pressing.at, crossed=coupling.stage.crossed)
    for side, lobe in product((False, True), (False, True) if coupling.stage.crossed else (False,)):
        rows = (left == side) & (behind == lobe)
        if not rows.any():
            continue
        way, drawn = (
            many_taut(in_order(*_pair(coupling, first[rows], second[rows], radii), pressing, left=side, behind=lobe))
            for radii in (coupling.radii, _pins(coupling))
        )
        third_last = side != lobe
        ends[:, :, rows] = np.array(_runs(drawn))[[0, 1, 2] if third_last else [2, 0, 1]]
        length[rows], wrap[rows] = way.length, way.wraps[2 if third_last else 1]
    runs = [(start, end) for start, end in ends]
    known = [length_ for length_, _ in coupling.lengths]
    good = np.asarray(wrap <= math.pi)
    if known:
        good &= np.min([np.abs(length - one) for one in known], axis=0) <= setup.mounting.loop_tolerance
    beside = off_line(np.array(pressing.at), *runs[0]) - 0.5 * pressing.diameter
    return Over(runs, good & (beside >= touching.beside_own_run(setup, coupling) - NOISE))


def can_be_put_on(setup: Setup, coupling: Coupling, placements: Sequence[Placement], pair: int) -> Bools:
    """Where a slot leaves the room that it takes to put a loop on, (n,); all, where neither shaft is in one.

    Args:
        setup: of the design.
        coupling: of the loop.
        placements: n of them.
        pair: the number of the loop among the pairs of their problem.
    """
    first, second = coupling.shafts
    sliding, partner = (first, second) if setup.shaft(first).slot else (second, first)
    slot = setup.shaft(sliding).slot
    if slot is None or coupling.loop is None:
        return np.ones(len(placements), bool)
    wanted = {name: room_wanted(coupling, coupling.loop, length)[0] for length, name in coupling.lengths}
    here, other = (np.array([placement.at[path] for placement in placements]) for path in (sliding, partner))
    nearest = off_line(other, np.array(slot.start), np.array(slot.end))
    on = np.array([wanted[placement.reaches[pair].name] for placement in placements])
    return np.asarray(np.hypot(*(here - other).T) - nearest >= on - NOISE)


def _pair(coupling: Coupling, first: Floats, second: Floats, radii: tuple[float, float]) -> tuple[Round, Round]:
    (x, y), (other_x, other_y) = first.T, second.T
    return Round(x, y, radii[0]), Round(other_x, other_y, radii[1], coupling.stage.crossed)


def _pins(coupling: Coupling) -> tuple[float, float]:
    return coupling.driver.pitch_radius, coupling.driven.pitch_radius


def _runs(taut: Taut) -> list[Run]:
    return [(np.stack(start, axis=-1), np.stack(end, axis=-1)) for start, end in taut.runs]
