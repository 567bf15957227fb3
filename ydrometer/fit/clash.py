"""Something that does not go together, and how it is told."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ydrometer.document.mounting import Point
from ydrometer.fit.coupling import Coupling

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


def called(coupling: Coupling) -> str:
    """What runs around a coupling, as people call it."""
    return "pair" if coupling.loop is None else coupling.loop.noun
