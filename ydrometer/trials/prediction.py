"""What is said of one run by itself, at once: what was measured, and what its design predicted."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.document import design
from ydrometer.trials import scatter
from ydrometer.trials.kinds import CaseTemperature
from ydrometer.trials.model import Model, Posed
from ydrometer.trials.runs_file import THE_ONE, read_run


@dataclass(frozen=True, slots=True)
class Predicted:
    """A run beside its prediction: kind, dimension and words, the mean of its readings and what was predicted, SI, and
    how far the one is off the other, relative to what counts of it; None where nothing is predicted.
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
    run = read_run(raw, document)
    model = Model({THE_ONE: design.read(document)}, [Posed(run, THE_ONE, run.ground, run.conditions)])
    value, zero = float(model.values([], np.zeros((1, 0)))[0, 0]), float(model.zeros[0])
    mean = scatter.mean(run)
    if not math.isfinite(value):
        return Predicted(run.kind, run.dimension, run.words, mean, None, None)
    return Predicted(run.kind, run.dimension, run.words, mean, value, (mean - value) / (value - zero))
