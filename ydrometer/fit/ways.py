"""All ways to place the shafts of a design on its plate, and what would help where there is none."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.fit import placing
from ydrometer.fit.clearances import clear
from ydrometer.fit.helps import Help, helps
from ydrometer.fit.places import MOST_TRIED, Placing, as_problem, way, with_distance
from ydrometer.fit.setup import Setup

MOST_SHOWN = 60
"""Placements that are handed on, the best first."""


@dataclass(frozen=True, slots=True)
class Ways:
    """The answer: the best ways, how many there are (at most `MOST_TRIED` are looked at), and what would help."""

    ways: list[Placing]
    count: int
    helps: list[Help]


def ways(setup: Setup) -> Ways:
    """Every way that satisfies all couplings at once and keeps clear of shafts and frame; the least error first.

    Shafts said to be fixed stay, and so do free ones that have a place and those that nothing couples; where none is
    fixed, the first one stays. Those on holes, and those of which nothing is said, may stand on any hole; slots are
    set.

    Args:
        setup: a design with a plate.

    Raises:
        ValueError: there is no plate, or two shafts in slots are tied to each other.
    """
    problem = as_problem(setup)
    couplings = with_distance(setup.plane)
    found = clear(setup, placing.placements(problem, MOST_TRIED))
    shown = [way(placement, couplings) for placement in found[:MOST_SHOWN]]
    return Ways(shown, len(found), [] if found else helps(setup, problem, couplings))
