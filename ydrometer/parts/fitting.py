"""Which parts of a bin could stand in a stage of a design: those of its kind and tooth size."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.stages import Stage
from ydrometer.parts.names import called
from ydrometer.parts.read import read_part

SAME_SIZE = 1e-6
"""Relative difference up to which two tooth sizes are equal."""


@dataclass(frozen=True, slots=True)
class PartFit:
    """A part that could be one of a stage's wheels: its teeth, or the diameter on which it works, m."""

    size: float
    id: str
    name: str
    owned: int


def fits(stage: Stage, parts: Sequence[Mapping[str, Any]]) -> list[PartFit]:
    """The parts that fit a stage, from the smallest up.

    Args:
        stage: of the design; where it gives no tooth size, parts of any fit.
        parts: documents of the bin's parts, read before.
    """
    kind, size = stage.form.part if stage.form else "", stage.tooth_size
    matches = []
    for raw in parts:
        if not kind or raw.get("kind") != kind:
            continue
        part: Any = read_part(raw)
        if size is None or abs(part.tooth_size - size) <= SAME_SIZE * size:
            matches.append(PartFit(float(part.measure), part.id, called(raw), part.owned))
    return sorted(matches, key=lambda fit: (fit.size, fit.id))
