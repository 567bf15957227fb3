"""The result document of a design, with how sure each number is where its inputs say how sure they are."""

from __future__ import annotations

from typing import Any

from ydrometer.document.design import Document
from ydrometer.evaluation import uncertainty
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import result as plain
from ydrometer.loads.summary import told_by_loads


def result(document: Document) -> dict[str, Any]:
    """What `evaluate` prints for one design."""
    sampled = uncertainty.sample(document)
    if sampled is None:
        evaluation = evaluate([document])
        return plain(evaluation, known=told_by_loads(evaluation))
    return plain(sampled.evaluation, 0, uncertainty.bands(sampled), told_by_loads(sampled.evaluation))
