"""Something that does not go together, and how it is told."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ydrometer.document.mounting import Point
from ydrometer.fit.line import Tie

Level = Literal["clash", "mind"]


@dataclass(frozen=True, slots=True)
class Clash:
    """Something that does not go, or is to be minded.

    Attributes:
        level. text: what, by how much, and what would help. path: of the stage or shaft it is about.
        amount: by how much, m, 0 where that says nothing. at: where, m; None where it is nowhere on the plate.
    """

    level: Level
    text: str
    path: str
    amount: float
    at: Point | None


def mm(size: float) -> str:
    """A length as it is told: to the hundredth of a millimetre."""
    return f"{size * 1e3:.2f} mm"


def called(tie: Tie) -> str:
    """What runs around a tie, as people call it."""
    return {"belt": "belt", "chain": "chain", "v_belt": "V-belt"}.get(tie.kind, "pair")
