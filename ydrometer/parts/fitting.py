"""Which parts of a bin could stand in a stage of a design: those of its kind and tooth size."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.stages import Stage
from ydrometer.parts.names import called
from ydrometer.parts.read import read_part

OF_STAGE = {"gear": "gear", "belt": "pulley", "chain": "sprocket", "v_belt": "v_pulley"}
"""The kind of part that a kind of stage is made of."""
SAME_SIZE = 1e-6
"""Relative difference up to which two tooth sizes are equal."""


@dataclass(frozen=True, slots=True)
class Fit:
    """A part that could be one of a stage's wheels: its teeth, or the diameter on which a belt runs, m."""

    size: float
    id: str
    name: str
    owned: int


def tooth_size(stage: Stage) -> float | None:
    """Module of gears, pitch of a belt or chain, m; None where it is not given or there is none."""
    found: float | None = getattr(stage, "tooth_size", None) or getattr(stage, "pitch", None)
    return found


def fits(stage: Stage, parts: Sequence[Mapping[str, Any]]) -> list[Fit]:
    """The parts that fit a stage, from the smallest up.

    Args:
        stage: of the design; where it gives no tooth size, parts of any fit.
        parts: documents of the bin's parts, read before.
    """
    kind, size = OF_STAGE.get(stage.kind), tooth_size(stage)
    found = []
    for raw in parts:
        if raw.get("kind") != kind:
            continue
        part: Any = read_part(raw)
        if size is None or kind == "v_pulley" or abs(part.size - size) <= SAME_SIZE * size:
            wheel = part.pitch_diameter if kind == "v_pulley" else float(part.teeth)
            found.append(Fit(wheel, part.id, called(raw), part.owned))
    return sorted(found, key=lambda fit: (fit.size, fit.id))
