"""A vehicle as a card on the bench: its line in miniature, and how its targets stand."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ydrometer.document import design
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.readout import shown_targets
from ydrometer.screens.live import Gauge, gauge


@dataclass(frozen=True, slots=True)
class Card:
    """What a card shows; `ratio` is overall, in the lowest gear, and the gauges are those of the readout."""

    ratio: float
    line: LineDrawing
    gauges: list[Gauge]


def card(raw: dict[str, Any]) -> Card:
    """The card of a design.

    Args:
        raw: a design document.

    Raises:
        DocumentError: it has faults.
    """
    document = design.read(raw)
    evaluation = evaluate([document])
    return Card(
        ratio=evaluation.value("overall_ratio", 0)[0],
        line=draw_line(document.design),
        gauges=[gauge(evaluation, number, target) for number, target in shown_targets(document.design)],
    )
