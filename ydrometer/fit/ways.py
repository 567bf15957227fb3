"""All ways to place the shafts of a design on its plate, and what would help where there is none."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.fit import placing
from ydrometer.fit.clashes import meets
from ydrometer.fit.clearances import clear
from ydrometer.fit.help import Help
from ydrometer.fit.helps import helps
from ydrometer.fit.places import MOST_TRIED, Placing, as_problem, moved, way, with_distance
from ydrometer.fit.problem import Effort
from ydrometer.fit.setup import Setup

MOST_SHOWN = 60
"""Placements that are handed on, the best first."""


@dataclass(frozen=True, slots=True)
class Ways:
    """The answer: the best ways, how many were found, whether there may be more, and what would help."""

    ways: list[Placing]
    count: int
    more: bool
    helps: list[Help]


def ways(setup: Setup) -> Ways:
    """Every way that satisfies all couplings at once and keeps clear of shafts and frame; the least error first.

    Shafts said to be fixed stay, and so do free ones that have a place and those that nothing couples; where none is
    fixed, the first one stays, unless it is in a slot. Those on holes, and those of which nothing is said, may stand on
    any hole; slots are set.

    Args:
        setup: a design with a plate.

    Raises:
        ValueError: there is no plate, or two shafts in slots are tied to each other.
    """
    problem = as_problem(setup)
    couplings = with_distance(setup.plane)
    effort = Effort()
    placements, complete = placing.placements(problem, MOST_TRIED, effort)
    going = clear(setup, placements, couplings)
    if any(shaft.eccentric for shaft in setup.mounting.shafts):
        # How far an eccentric carries its shaft aside is known only where all stands.
        complete = complete and len(going) <= MOST_SHOWN
        going = [placement for placement in going[:MOST_SHOWN] if meets(moved(setup, placement))]
    shown = [way(placement, couplings) for placement in going[:MOST_SHOWN]]
    helping = [] if going else helps(setup, problem, couplings, effort)
    return Ways(shown, len(going), not complete or effort.over, helping)
