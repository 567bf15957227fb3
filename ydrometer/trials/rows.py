"""Designs n times with other losses, measured together as far as their runs ask."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.loads import Loads
from ydrometer.document.target import RUN_KEYS
from ydrometer.motion.measures import Results, Wanted, measure, measure_standing
from ydrometer.motion.plant import Batch
from ydrometer.trials.case import Factors, Stack, TrialCase


@dataclass(frozen=True, slots=True)
class AskedOf:
    """Distances, speeds and times that the runs of one design are asked about, m, m/s and s."""

    distance: tuple[float, ...] = ()
    speed: tuple[float, ...] = ()
    time: tuple[float, ...] = ()


class TrialBlock:
    """The designs of a stack with their factors, measured in one go once one of them is asked for."""

    def __init__(self, stack: Stack, factors: Factors, questions: Sequence[AskedOf], *, moving: bool) -> None:
        """Lay factors on a stack.

        Args:
            stack: of G designs.
            factors: of G·n rows.
            questions: of each design.
            moving: whether anything of the run is asked: it takes ten times as long as the rest.
        """
        self.stack, self.factors, self.asked, self.moving = stack, factors, questions, moving
        self.n = len(factors.rolling) // len(questions)
        self.batch = stack.with_factors(factors)

    @cached_property
    def results(self) -> Results:
        """All measures, of the run at what is asked about; those of standing still and of spinning in the air alone
        where nothing of the run is asked.
        """
        if not self.moving:
            return measure_standing(self.batch)
        distances, speeds, times = (self._columns(key) for key in RUN_KEYS)
        return measure(self.batch, Wanted(distances, speeds, times))

    def _columns(self, key: str) -> Floats:
        """What each row is asked for, as many columns as any of them needs."""
        wanted = [getattr(question, key) for question in self.asked]
        most = max(1, *(len(column) for column in wanted))
        padded = np.array([[*column, *([np.nan] * (most - len(column)))] for column in wanted])
        return np.repeat(padded, self.n, axis=0)

    def rows(self, g: int) -> TrialRows:
        """Those of one design."""
        return TrialRows(self, g)


class TrialRows:
    """One design of a block, n times with other factors."""

    def __init__(self, block: TrialBlock, g: int) -> None:
        own = slice(g * block.n, (g + 1) * block.n)
        self.block, self.own, self.asked = block, own, block.asked[g]
        self.case, self.factors = block.stack.cases[g], block.factors.of(own)
        self.batch = Batch(*(field[own] for field in block.batch))

    def __len__(self) -> int:
        return self.block.n

    def document_with(self, loads: Loads) -> Document:
        """The design with a day of its own."""
        return Document(replace(self.case.design, loads=loads), {}, ())

    @cached_property
    def results(self) -> Results:
        """Their measures."""
        return Results(*(field[self.own] for field in self.block.results))

    def of_the_run(self, name: str, key: str, at: float) -> Floats:
        """A measure of the run, (n,).

        Args:
            name: of the measure.
            key: what it refers to: distance, speed or time.
            at: which one, SI.
        """
        column: Floats = getattr(self.results, name)[:, getattr(self.asked, key).index(at)]
        return column


def alone(case: TrialCase, factors: Factors, distances: tuple[float, ...] = (), *, moving: bool = True) -> TrialRows:
    """Rows of one case by itself.

    Args:
        case: the design under its conditions.
        factors: of each row.
        distances: that its run is asked about, m.
        moving: whether anything of the run is asked.
    """
    return TrialBlock(Stack([case]), factors, [AskedOf(distances)], moving=moving).rows(0)
