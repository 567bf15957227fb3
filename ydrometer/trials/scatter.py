"""How sure a run is: the scatter of its readings, pooled over all runs of its kind."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.trials.kinds import KINDS
from ydrometer.trials.trial import Trial

MIXED_IN = 4.0
"""Degrees of freedom that the usual scatter of a kind is mixed in with."""
FLOOR = 0.003
"""Relative doubt of an instrument that no repeating tells."""
VOLTAGE_DOUBT = 0.02
"""Relative doubt of a battery's voltage at rest that nobody has measured."""


def mean(run: Trial) -> float:
    """Of the readings that count, SI; of all readings of a run that does not count."""
    return float(np.mean(run.counted or run.readings))


def pooled(runs: Sequence[Trial], zeros: Floats) -> dict[str, float]:
    """The relative scatter of one reading by kind, of the kinds that there are runs of.

    Args:
        runs: all of them.
        zeros: what is taken off the readings of each, (m,).
    """
    sums: dict[str, tuple[float, float]] = {}
    for run, zero in zip(runs, zeros, strict=True):
        squares, degrees = sums.get(run.kind, (0.0, 0.0))
        if run.sd is None and len(run.counted) > 1 and mean(run) > zero:
            relative = np.std(run.counted, ddof=1) / (mean(run) - zero)
            own = len(run.counted) - 1
            squares, degrees = squares + own * float(relative) ** 2, degrees + own
        sums[run.kind] = squares, degrees
    return {
        kind: float(np.sqrt((MIXED_IN * KINDS[kind].scatter ** 2 + squares) / (MIXED_IN + degrees)))
        for kind, (squares, degrees) in sums.items()
    }


def of_one(run: Trial, zero: float, scatter: dict[str, float]) -> float:
    """The relative scatter of one reading of a run: as it says, else that of its kind."""
    return scatter[run.kind] if run.sd is None else run.sd / (mean(run) - zero)


def variance(run: Trial, zero: float, scatter: dict[str, float]) -> float:
    """Of ln of the mean of a run's readings."""
    return of_one(run, zero, scatter) ** 2 / max(1, len(run.counted)) + FLOOR**2
