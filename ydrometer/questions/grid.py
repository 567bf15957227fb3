"""Every driver against every driven of one stage: what people print and pin to the wall."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.design import Document
from ydrometer.document.stages.forms import LEAST_TEETH, MOST_TEETH
from ydrometer.document.walk import stage_at
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.sweep import with_wheels
from ydrometer.evaluation.targets import Standing

MOST = 40
"""Sizes either way."""
_WORST: tuple[Standing, ...] = ("misses", "tight", "holds")


@dataclass(frozen=True, slots=True)
class Cell:
    """One pair: overall ratio, how far a motor turn rolls it m, top speed m/s, time over the run's distance s.

    `standing` is the worst among the targets; unknown where there are none. All None where the pair cannot be.
    """

    ratio: float | None
    per_turn: float | None
    top_speed: float | None
    time: float | None
    standing: Standing


@dataclass(frozen=True, slots=True)
class Grid:
    """A row for each driver, a column for each driven; `distance` is the run's, m."""

    path: str
    drivers: list[int]
    drivens: list[int]
    present: tuple[int, int]
    distance: float | None
    cells: list[list[Cell]]


def grid(document: Document, path: str, drivers: Sequence[int], drivens: Sequence[int]) -> Grid:
    """Evaluate a design with every pair of tooth counts of one stage, in one batch.

    Args:
        document: the design.
        path: of a stage with teeth.
        drivers: tooth counts, up to 40.
        drivens: likewise.

    Raises:
        DocumentError: no such stage, or counts that cannot be.
    """
    faults = [*_faults("drivers", drivers), *_faults("drivens", drivens)]
    stage = stage_at(document.design, path)
    if stage is None or stage.form is None or not stage.form.toothed:
        faults.append(Fault("path", f'"{path[:60]}" given', "give the path of a stage with teeth"))
    if faults:
        raise DocumentError(faults)
    assert stage is not None  # else there is a fault
    present = (int(stage.members[0].measure), int(stage.members[-1].measure))
    pairs = [(z, y) for z in drivers for y in drivens]
    variants = [with_wheels(document, path, {"driver": z, "driven": y}) for z, y in pairs]
    cells = iter(_cells([d for d in variants if d is not None]))
    row = [next(cells) if d is not None else Cell(None, None, None, None, "unknown") for d in variants]
    wide = len(drivens)
    rows = [row[i * wide : (i + 1) * wide] for i in range(len(drivers))]
    return Grid(path, list(drivers), list(drivens), present, document.design.run.distance, rows)


def _cells(documents: Sequence[Document]) -> list[Cell]:
    if not documents:
        return []
    evaluation = evaluate(documents)
    return [_cell(evaluation, i) for i in range(len(documents))]


def _cell(evaluation: Evaluation, index: int) -> Cell:
    ratio = float(evaluation.value("overall_ratio", index)[0])
    stand = {result.verdict.standing for result in evaluation.target_results(index)}
    return Cell(
        ratio=ratio,
        per_turn=math.pi * evaluation.documents[index].design.vehicle.wheel_diameter / ratio,
        top_speed=evaluation.value("top_speed", index),
        time=evaluation.value("time_to_distance", index),
        standing=next((word for word in _WORST if word in stand), "unknown"),
    )


def _faults(name: str, counts: Sequence[int]) -> list[Fault]:
    if not 1 <= len(counts) <= MOST:
        return [Fault(name, f"{len(counts)} tooth counts given", f"give 1 to {MOST}")]
    wrong = [count for count in counts if not LEAST_TEETH <= count <= MOST_TEETH]
    return [Fault(name, f"{wrong[0]} teeth given", f"give {LEAST_TEETH} to {MOST_TEETH}")] if wrong else []
