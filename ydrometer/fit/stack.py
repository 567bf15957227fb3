"""Filling the gaps along a shaft from the spacers at hand: exactly and with fewest pieces, else as nearly as can be."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

if TYPE_CHECKING:
    from scipy.optimize import LinearConstraint

Floats = NDArray[np.float64]
MOST_PIECES = 12
"""Largest number of spacers in one gap; more would better be a tube."""
CLOSE = 1e-3
"""Errors nearer than this are the same, mm: less than anybody measures."""
LIMIT_S = 1.0
"""For all stacks of a design."""


@dataclass(frozen=True, slots=True)
class Filling:
    """Spacers for one gap, the thickest first, m, and by how much they are too thick (+) or too thin (−), m."""

    pieces: tuple[float, ...]
    error: float


@dataclass(frozen=True, slots=True)
class Fillings:
    """A filling for each gap, and whether they are the best there are: else time ran out before that was known."""

    fillings: tuple[Filling, ...]
    best: bool


def fill(gaps: Sequence[float], spacers: Mapping[float, int], limit: float = LIMIT_S) -> Fillings:
    """Fill all gaps from one lot of spacers.

    Least is first the sum of the errors, then the number of pieces: two integer programs, one after the other.

    Args:
        gaps: lengths to fill, m, at least 0.
        spacers: how many there are of each thickness, m.
        limit: seconds after which what was found is taken.

    Returns:
        The fillings in the order of the gaps.
    """
    sizes = tuple(sorted((thickness for thickness, n in spacers.items() if thickness > 0.0 and n > 0), reverse=True))
    if not gaps or not sizes:
        return Fillings(tuple(Filling((), -gap) for gap in gaps), best=True)
    counts, best = _least(tuple(gaps), sizes, tuple(spacers[size] for size in sizes), 0.5 * limit)
    pieces = [tuple(size for size, n in zip(sizes, row, strict=True) for _ in range(n)) for row in counts]
    fillings = (Filling(chosen, round(sum(chosen) - gap, 9)) for chosen, gap in zip(pieces, gaps, strict=True))
    return Fillings(tuple(fillings), best)


@lru_cache(maxsize=256)  # stacks stay the same while shafts are moved
def _least(
    gaps: tuple[float, ...], sizes: tuple[float, ...], stock: tuple[int, ...], limit: float
) -> tuple[list[list[int]], bool]:
    """How many of each size go into each gap, (gaps, sizes), and whether that is known to be the best.

    Unknown are the counts, gap by gap, then the error of each gap, mm.
    """
    from scipy.optimize import LinearConstraint  # noqa: PLC0415  # a third of a second that little else needs

    kinds, number = len(sizes), len(gaps)
    widths, counts = 1e3 * np.array(sizes), kinds * number
    each = np.kron(np.eye(number), widths)
    gap_mm, none = 1e3 * np.array(gaps), np.zeros((number, number))
    rules = [
        # An error is at least what the pieces are too thick, and what they are too thin.
        LinearConstraint(np.hstack([each, -np.eye(number)]), -np.inf, gap_mm),
        LinearConstraint(np.hstack([each, np.eye(number)]), gap_mm, np.inf),
        LinearConstraint(np.hstack([np.kron(np.eye(number), np.ones(kinds)), none]), 0, MOST_PIECES),
        LinearConstraint(np.hstack([np.tile(np.eye(kinds), number), np.zeros((kinds, number))]), 0, np.array(stock)),
    ]
    error, pieces = np.r_[np.zeros(counts), np.ones(number)], np.r_[np.ones(counts), np.zeros(number)]
    nearest, known = _solved(error, rules, counts, number, limit)
    as_near = LinearConstraint(error, -np.inf, float(error @ nearest) + CLOSE)
    fewest, settled = _solved(pieces, [*rules, as_near], counts, number, limit, instead=nearest)
    return np.round(fewest[:counts]).astype(int).reshape(number, kinds).tolist(), known and settled


def _solved(
    cost: Floats,
    rules: Sequence[LinearConstraint],
    counts: int,
    number: int,
    limit: float,
    instead: Floats | None = None,
) -> tuple[Floats, bool]:
    """The unknowns at the least cost, and whether the time sufficed to know that it is the least."""
    from scipy.optimize import Bounds, milp  # noqa: PLC0415  # as above

    whole = np.r_[np.ones(counts), np.zeros(number)]
    solution = milp(
        cost,
        integrality=whole,
        bounds=Bounds(0, np.inf),
        constraints=rules,
        options={"time_limit": limit, "mip_rel_gap": 0.0},
    )
    if solution.x is None:
        return (np.zeros(counts + number) if instead is None else instead), False
    return np.asarray(solution.x), bool(solution.status == 0)
