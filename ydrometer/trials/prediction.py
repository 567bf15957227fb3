"""What is said of one run by itself, at once: what was measured, and what its design predicted."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.design import Document
from ydrometer.trials import scatter
from ydrometer.trials.kinds import CaseTemperature
from ydrometer.trials.model import as_designed
from ydrometer.trials.runs_file import read_run_of, read_runs_of
from ydrometer.trials.trial import Trial


@dataclass(frozen=True, slots=True)
class Predicted:
    """A run beside its prediction: kind, dimension and words, the mean of its readings and what was predicted, SI, and
    how far the one is off the other, relative to what counts of it; None where nothing is predicted, or no reading
    counts.
    """

    kind: str
    dimension: str
    words: str
    measured: float
    predicted: float | None
    off: float | None


def with_its_day(raw: Mapping[str, Any], document: Mapping[str, Any]) -> dict[str, Any]:
    """A run with the day of its design, where it is one of a day and says none."""
    loads = document.get("loads")
    day = loads.get("day") if isinstance(loads, Mapping) else None
    asks = raw.get("kind") == CaseTemperature.kind and "day" not in raw
    return {**raw, "day": day} if asks and day else dict(raw)


def predicted(raw: Mapping[str, Any], document: Mapping[str, Any]) -> Predicted:
    """A run beside what its design predicted.

    Args:
        raw: the run as in a runs file, without its design.
        document: the design.

    Raises:
        DocumentError: the run cannot be read.
    """
    run, read = read_run_of(raw, document)
    return _beside([run], read)[0]


def all_predicted(raw: Sequence[Mapping[str, Any]], document: Mapping[str, Any]) -> list[Predicted]:
    """Runs of one design beside what it predicted, worked out together.

    Args:
        raw: runs as in a runs file, without their design.
        document: the design.

    Raises:
        DocumentError: a run cannot be read; paths begin with "runs".
    """
    return _beside(*read_runs_of(raw, document))


def _beside(runs: Sequence[Trial], read: Document) -> list[Predicted]:
    values, zeros = as_designed(read, [(run, run.conditions) for run in runs])
    rows = []
    for run, value, zero in zip(runs, values.tolist(), zeros.tolist(), strict=True):
        mean, known = scatter.mean(run), value if math.isfinite(value) else None
        off = off_by(mean, known, zero) if run.counted else None
        rows.append(Predicted(run.kind, run.dimension, run.words, mean, known, off))
    return rows


def off_by(mean: float, predicted: float | None, zero: float) -> float | None:
    """How far a mean is off its prediction, relative to what counts of that; None where nothing is predicted.

    Args:
        mean: of readings, SI.
        predicted: SI.
        zero: what is taken off both: the ambient temperature of a temperature.
    """
    return None if predicted is None or predicted <= zero else (mean - predicted) / (predicted - zero)
