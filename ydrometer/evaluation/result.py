"""The result document of a design, as the command line prints it."""

from __future__ import annotations

from typing import Any

from ydrometer.base.tables.measures import MEASURES, TARGETABLE
from ydrometer.base.units import RPM
from ydrometer.evaluation import driveline
from ydrometer.evaluation.evaluate import NOTHING, Evaluation, Known, TargetResult
from ydrometer.evaluation.messages import messages

Bands = dict[str, dict[str, Any]]
"""By measure, what a result says of how sure it is: low, high and spread_from."""


def result(
    evaluation: Evaluation, index: int = 0, bands: Bands | None = None, known: Known = NOTHING
) -> dict[str, Any]:
    """The result document of one design, as the command line prints it.

    Args:
        evaluation: holds the design.
        index: its place there.
        bands: how sure each number is.
        known: see `Evaluation.judge`.
    """
    state: dict[str, Any] = {"state": "ok"}
    if not evaluation.starts(index):
        state = {"state": "will not start", "held_by": evaluation.held_by(index)}
    sure = bands or {}
    return {
        "format": "ydrometer-result",
        "version": 1,
        **state,
        "measures": {name: {**measure(evaluation, name, index), **sure.get(name, {})} for name in MEASURES},
        "assumed": list(evaluation.documents[index].assumed),
        "messages": [{"level": m.level, "path": m.path, "text": m.text} for m in messages(evaluation, index)],
        "targets": [target(entry) for entry in evaluation.target_results(index, known)],
    }


def measure(evaluation: Evaluation, name: str, index: int) -> dict[str, Any]:
    """A measure of one design as the result document has it: value and unit."""
    row = MEASURES[name]
    if row.shape == "ratios":
        ratios = driveline.overall_ratios(evaluation.documents[index].design)
        return {"value": [{"branch": b, "gear": g, "value": ratio} for b, g, ratio in ratios], "unit": row.unit}
    value = evaluation.value(name, index)
    if row.unit == "rpm":
        value = [in_rpm(entry) for entry in value] if isinstance(value, list) else in_rpm(value)
    return {"value": value, "unit": row.unit}


def target(entry: TargetResult) -> dict[str, Any]:
    """A target as the result document has it."""
    verdict, row = entry.verdict, TARGETABLE[entry.target.measure]
    return {
        "measure": row.name,
        "wanted": entry.target.wanted,
        "value": in_rpm(verdict.value) if row.unit == "rpm" else verdict.value,
        "met": verdict.met,
        "margin": verdict.margin,
    }


def in_rpm(speed: float | None) -> float | None:
    """rad/s as revolutions per minute."""
    return None if speed is None else speed * RPM
