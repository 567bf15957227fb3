"""Measures that were measured: so that they can stand beside what is predicted."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.target import RUN_KEYS
from ydrometer.trials.runs_file import read_run
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


def measured_of(runs: Sequence[tuple[Mapping[str, Any], Mapping[str, Any]]]) -> list[Measured]:
    """All that runs have measured of measures that a design is asked for.

    Args:
        runs: each as the document of its design and the run as in a runs file.
    """
    found: dict[tuple[int, str, float | None], list[float]] = {}
    designs: list[Mapping[str, Any]] = []
    for document, raw in runs:
        run = read_run(raw, document)
        own = essence(document)
        if not run.measure:
            continue
        if own not in designs:
            designs.append(own)
        at = next((at for key in RUN_KEYS for at in run.refers_to(key)), None)
        found.setdefault((designs.index(own), run.measure, at), []).extend(run.counted)
    return [
        Measured(designs[d], measure, at, math.fsum(readings) / len(readings), len(readings))
        for (d, measure, at), readings in found.items()
    ]
