"""Numbers drawn from a seed, round in the units that the learner reads, and said in words."""

from __future__ import annotations

from collections.abc import Sequence
from random import Random
from typing import Literal, TypeVar

from ydrometer.base import units
from ydrometer.base.tables.dimensions import DIMENSIONS

Units = Literal["metric", "inch"]
Level = Literal[1, 2, 3]
LEVELS: tuple[Level, ...] = (1, 2, 3)
VERSION = 1
"""Of the exercises: a kind, a level, a seed and this number always give the same one."""
FEWEST, MOST = 8, 80
"""Teeth of a wheel in an exercise."""
SAID = 4
"""Significant digits of a number in a sentence."""
SEEDS = 10**9
"""Largest seed that is taken from outside."""
Span = tuple[float, float, float]
"""Least, largest, and the step between, in the unit of display."""
T = TypeVar("T")


class Again(Exception):  # noqa: N818  # a signal, not a fault
    """What was drawn makes no good exercise: it is drawn again."""


def unit_of(dimension: str, system: Units) -> str:
    """In which a dimension is shown."""
    known = DIMENSIONS[dimension]
    return known.metric if system == "metric" else known.inch


def said(value: float, dimension: str, system: Units) -> str:
    """A quantity, SI, in words: "125 mm"."""
    unit = unit_of(dimension, system)
    return f"{units.digits(value / units.scale(unit, dimension)[0], SAID)} {units.symbol(unit)}".strip()


class Draw:
    """What a kind draws its numbers with."""

    def __init__(self, kind: str, level: Level, seed: int, system: Units) -> None:
        """Begin at a seed.

        Args:
            kind: of exercise.
            level: 1 to 3, the easiest first.
            seed: any whole number.
            system: of the units in which it is said.
        """
        self.level, self.system = level, system
        # A text as a seed gives the same numbers in every version of Python and on every machine.
        self.random = Random(f"{kind} {level} {seed} {VERSION}")

    def choice(self, choices: Sequence[T]) -> T:
        """One of some."""
        return self.random.choice(choices)

    def some(self, choices: Sequence[T], count: int) -> list[T]:
        """So many of some, each at most once, in any order."""
        return self.random.sample(choices, count)

    def whole(self, low: int, high: int) -> int:
        """A whole number between two, both included."""
        return self.random.randint(low, high)

    def number(self, low: float, high: float, step: float) -> float:
        """A multiple of a step between two bounds."""
        return round(step * self.random.randint(round(low / step), round(high / step)), 9)

    def size(self, dimension: str, metric: Span, inch: Span | None = None) -> float:
        """A quantity that is round in the unit of display, SI; `inch` where that has another unit than metric."""
        span = metric if self.system == "metric" or inch is None else inch
        return self.number(*span) * units.scale(self.unit(dimension), dimension)[0]

    def unit(self, dimension: str) -> str:
        """In which a dimension is shown."""
        return unit_of(dimension, self.system)

    def say(self, value: float, dimension: str) -> str:
        """A quantity in words: "125 mm"."""
        return said(value, dimension, self.system)

    def pair(self, *, up: bool = False) -> tuple[int, int]:
        """Teeth of a driver and of a driven wheel with more; `up` asks for one with fewer.

        At level 1 one divides the other, or nearly; at level 2 and 3 they do not.
        """
        if self.level == 1:
            small, times = self.choice((10, 12, 15, 16, 18, 20)), self.choice((1.5, 2, 2.5, 3, 4, 5))
            large = round(small * times)
        else:
            small, large = self.whole(9, 27), self.whole(24, MOST)
        if large < 1.2 * small or large > MOST or (self.level > 1 and large % small == 0):
            raise Again
        return (large, small) if up else (small, large)

    def pairs(self, count: int) -> list[tuple[int, int]]:
        """Several such pairs, none like another."""
        drawn = [self.pair() for _ in range(count)]
        if len(set(drawn)) < count:
            raise Again
        return drawn


def times(count: float, noun: str) -> str:
    """ "1 turn", "12 turns"."""
    return f"{units.digits(count, SAID)} {noun}" + ("" if count == 1 else "s")
