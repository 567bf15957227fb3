"""A logger's file as the station shows it: the runs in it with their curves over the predicted ones, and its faults."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.base.units import scale
from ydrometer.document import design
from ydrometer.evaluation.curves import run_curve
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.instruments.columns import MEANINGS, SEPARATORS, LogColumn, LogLayout
from ydrometer.instruments.journeys import MOST_CURVES, Journey, journeys, resting_voltage, runs_of
from ydrometer.instruments.table import Going, read_table

MOST_COLUMNS = 200


@dataclass(frozen=True, slots=True)
class JourneyShown:
    """A run in a file, SI: when it began on the logger's clock, how long and how far it went, and its curve: rows of
    time from its start, speed, current and voltage; null where they were not logged. `remarks`: what is not taken from
    it, and why.
    """

    begun: float
    lasted: float
    distance: float
    curve: list[list[float | None]]
    remarks: list[str]


@dataclass(frozen=True, slots=True)
class FileShown:
    """What is in a file.

    Attributes:
        rows, faulty, faults: how many rows there were, how many of them cannot be read, and the first of those.
        journeys: the first ones. count: of all. runs: to be logged, as in a runs file but for their design.
        predicted: time and speed of the run as designed.
    """

    rows: int
    faulty: int
    faults: list[Fault]
    journeys: list[JourneyShown]
    count: int
    runs: list[dict[str, Any]]
    predicted: list[list[float]]


def layout_of(raw: Mapping[str, Any]) -> LogLayout:
    """How a table is written, as it was confirmed.

    Raises:
        DocumentError: it cannot be.
    """
    faults = []
    columns = raw.get("columns")
    separator, decimal, skip = raw.get("separator"), raw.get("decimal"), raw.get("skip")
    if separator not in SEPARATORS:
        faults.append(Fault("separator", "none of those", "give one of ; , | a tab or a blank"))
    if decimal not in (".", ",") or decimal == separator:
        faults.append(Fault("decimal", "neither point nor comma", "give the sign before the decimals"))
    if not isinstance(skip, int) or isinstance(skip, bool) or not 0 <= skip <= 10_000:
        faults.append(Fault("skip", "no number of rows", "give how many rows come before the first with numbers"))
    if not isinstance(columns, list) or not 1 <= len(columns) <= MOST_COLUMNS:
        faults.append(Fault("columns", "no columns", f"give 1 to {MOST_COLUMNS}"))
        columns = []
    read_columns = [_column(column, f"columns[{k}]", faults) for k, column in enumerate(columns)]
    if faults:
        raise DocumentError(faults)
    return LogLayout(str(separator), str(decimal), int(skip or 0), tuple(read_columns))


def _column(raw: Any, path: str, faults: list[Fault]) -> LogColumn:
    raw_column = raw if isinstance(raw, Mapping) else {}
    name, meaning, unit = (str(raw_column.get(key, ""))[:200] for key in ("name", "meaning", "unit"))
    if meaning and meaning not in MEANINGS:
        faults.append(Fault(f"{path}.meaning", f'"{meaning}" given', f"use one of {', '.join(MEANINGS)}, or nothing"))
    elif meaning and not _fits(unit, MEANINGS[meaning][0]):
        faults.append(Fault(f"{path}.unit", f'"{unit}" given', f"give a unit such as {MEANINGS[meaning][1]}"))
    return LogColumn(name, meaning, unit)


def _fits(unit: str, dimension: str) -> bool:
    try:
        scale(unit, dimension)
    except QuantityError:
        return False
    return True


def file_shown(lines: Iterable[str], layout: LogLayout, document: Mapping[str, Any], going: Going) -> FileShown:
    """Read a file, and find the runs in it.

    Args:
        lines: of the file, from its first one on.
        layout: how it is written.
        document: the design that was driven.
        going: told how many rows have been read; raises to end it.

    Raises:
        DocumentError: it cannot be read.
    """
    driven = design.read(document)
    table = read_table(lines, layout, going)
    every_journey = journeys(table, driven.design)
    return FileShown(
        rows=table.rows,
        faulty=table.faulty,
        faults=table.faults,
        journeys=[_journey(journey) for journey in every_journey[:MOST_CURVES]],
        count=len(every_journey),
        runs=runs_of(every_journey, resting_voltage(table, every_journey)),
        predicted=_predicted(driven),
    )


def _journey(journey: Journey) -> JourneyShown:
    rows = [[round(float(v), 5) if np.isfinite(v) else None for v in row] for row in journey.curve]
    return JourneyShown(journey.begun, journey.lasted, journey.distance, rows, list(journey.remarks))


def _predicted(driven: design.Document) -> list[list[float]]:
    points = run_curve(evaluate([driven]))
    return [list(point) for point in zip(points.time, points.speed, strict=True)] if points else []
