"""A measure of a design as a question to the model, and what two designs can be asked for."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.base.tables.measures import MEASURES, NUMBERS
from ydrometer.document.design import Design
from ydrometer.evaluation.targets import unbound
from ydrometer.motion.measures import Results
from ydrometer.trials.rows import TrialRows

ALWAYS = ("top_speed", "time_to_distance")
"""Asked of every design that has them."""
KNOWN = tuple(name for name in NUMBERS if name in Results._fields)


STILL = {
    "no_load_speed",
    "stall_wheel_torque",
    "pushing_force",
    "pushing_bus_current",
    "launch_bus_current",
    "max_grade",
}
"""Measures that are about no run."""


@dataclass(frozen=True, slots=True)
class Measure:
    """A measure, at a distance, speed or time of the run where it refers to one."""

    name: str
    at: float | None = None

    @property
    def moving(self) -> bool:
        """Whether it is about the run."""
        return self.name not in STILL

    def refers_to(self, key: str) -> tuple[float, ...]:
        """What it refers to."""
        return (self.at,) if self.at is not None and MEASURES[self.name].run == key else ()

    def zero(self, ambient: float) -> float:
        """Nothing is taken off a measure."""
        return 0.0

    def values(self, rows: TrialRows) -> Floats:
        """SI, (n,)."""
        key = MEASURES[self.name].run
        if key and self.at is not None:
            return rows.of_the_run(self.name, key, self.at)
        numbers: Floats = getattr(rows.results, self.name)
        return np.where(np.isfinite(numbers), numbers, np.nan)


def asked_of(design: Design) -> list[Measure]:
    """The measures of a design's targets, and those that are always asked."""
    wanted = [*design.targets, *(unbound(name) for name in ALWAYS)]
    kinds = []
    for target in wanted:
        if target.measure in KNOWN:
            at = target.about(design.run)
            if at is not None or not MEASURES[target.measure].run:
                kinds.append(Measure(target.measure, at))
    return list(dict.fromkeys(kinds))


def targets_of(design: Design) -> list[Measure]:
    """The measures of its targets; those that are always asked where it has none."""
    aimed = {target.measure for target in design.targets} or set(ALWAYS)
    return [measure for measure in asked_of(design) if measure.name in aimed]
