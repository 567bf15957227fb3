"""The result document of a design, with how sure each number is where its inputs say how sure they are."""

from __future__ import annotations

from typing import Any

from ydrometer.base.tables.measures import OF_LOADS
from ydrometer.document.design import Document
from ydrometer.evaluation import uncertainty
from ydrometer.evaluation.evaluate import NOTHING, Evaluation, Known, evaluate
from ydrometer.evaluation.result import result as plain


def result(document: Document) -> dict[str, Any]:
    """What `evaluate` prints for one design."""
    sampled = uncertainty.sample(document)
    if sampled is None:
        evaluation = evaluate([document])
        return plain(evaluation, known=_told_by_loads(evaluation))
    return plain(sampled.evaluation, 0, uncertainty.bands(sampled), _told_by_loads(sampled.evaluation))


def _told_by_loads(evaluation: Evaluation) -> Known:
    if not any(target.measure in OF_LOADS for target in evaluation.documents[0].design.targets):
        return NOTHING
    from ydrometer.loads.told import told_by_loads  # noqa: PLC0415  # a third of the time of starting, seldom needed

    return told_by_loads(evaluation)
