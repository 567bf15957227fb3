"""Measures that were measured: so that they can stand beside what is predicted."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.target import RUN_KEYS
from ydrometer.trials import runs_file
from ydrometer.trials.tried import essence

NEAR = 1e-6
"""Relative difference up to which two distances or speeds are the same."""


@dataclass(frozen=True, slots=True)
class Measured:
    """What was measured of a measure with a design.

    Attributes:
        design: the essence of its document. measure: its name. at: distance or speed it refers to, SI; None where to
        none. mean: of all readings, SI. count: how many there are.
    """

    design: Mapping[str, Any]
    measure: str
    at: float | None
    mean: float
    count: int

    def answers(self, measure: str, at: float | None) -> bool:
        """Whether it is about a measure at a distance or speed."""
        same = self.at is None or (at is not None and math.isclose(self.at, at, rel_tol=NEAR))
        return self.measure == measure and same


def measured_of(designs: Mapping[str, Mapping[str, Any]], runs: Sequence[Mapping[str, Any]]) -> list[Measured]:
    """All that runs have measured of measures that a design is asked for.

    Args:
        designs: documents by name.
        runs: as in a runs file.
    """
    if not runs:
        return []
    file = runs_file.read(
        {
            "format": runs_file.FORMAT,
            "version": runs_file.VERSION,
            "designs": designs,
            "runs": list(runs),
        }
    )
    by_question: dict[tuple[str, str, float | None], list[float]] = {}
    for run in file.runs:
        if run.measure:
            at = next((at for key in RUN_KEYS for at in run.refers_to(key)), None)
            by_question.setdefault((run.design, run.measure, at), []).extend(run.counted)
    own = {name: essence(document) for name, document in designs.items()}
    return [
        Measured(own[name], measure, at, math.fsum(readings) / len(readings), len(readings))
        for (name, measure, at), readings in by_question.items()
    ]
