"""An adapter between two flanges that were never meant for each other, such as of a motor and of a bought axle."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading

FARTHEST = 10.0
"""m; what is larger is no plate."""
PLATES = 2


def maybe_length() -> Any:
    """A length above 0 that need not be known."""
    return reading.quantity("length", above=0.0, at_most=FARTHEST, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Bolts:
    """A circle of bolts around a shaft: how many, on what diameter, through holes how wide, the first at an angle.

    `length` is of a bolt under its head, `depth` how deep the thread behind the plate takes it.
    """

    count: int = reading.whole(1, 64)
    circle: float = reading.quantity("length", above=0.0, at_most=FARTHEST)
    hole: float = reading.quantity("length", above=0.0, at_most=1.0)
    angle: float = reading.quantity("angle", default=0.0)
    length: float | None = maybe_length()
    depth: float | None = maybe_length()

    @property
    def around(self) -> tuple[tuple[float, float], ...]:
        """Where each goes through, x and y, m from the middle."""
        angles = [self.angle + 2.0 * math.pi * k / self.count for k in range(self.count)]
        return tuple((0.5 * self.circle * math.cos(angle), 0.5 * self.circle * math.sin(angle)) for angle in angles)


@dataclass(frozen=True, slots=True, kw_only=True)
class Flange:
    """One side of an adapter; all of both sides is seen from the first side.

    Attributes:
        name. bolts: with which the adapter is screwed on it. head: across the head of one of them, which is sunk in the
        other plate. centring: diameter on which the flange is centred; `spigot` says that the plate stands into the
        flange there, else the flange stands into the plate. stands_out: its shaft, over the flange.
    """

    name: str = reading.line(longest=100)
    bolts: Bolts = reading.nested(Bolts)
    head: float | None = maybe_length()
    centring: float | None = maybe_length()
    spigot: bool = reading.flag()
    stands_out: float | None = reading.quantity("length", at_least=0.0, at_most=FARTHEST, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A head is wider than its hole."""
        if self.head is not None and self.head <= self.bolts.hole:
            yield "head", "no wider than the hole of its bolt", "give the diameter over the head"


@dataclass(frozen=True, slots=True, kw_only=True)
class FlangeAdapter:
    """One or two plates between two flanges.

    Attributes:
        name. sides: first and second. plates: how many. outside: diameter of the plates. first_plate: thickness of the
        first of two. dowels: holes common to both plates. joint: bolts that hold two plates together.
        coupling: length of what couples the shafts. coupling_diameter: across it. shaft_gap: between the shafts' ends.
        wall: least metal between two holes.
    """

    name: str = reading.line(longest=100)
    sides: tuple[Flange, ...] = reading.items(reading.object_reader(Flange), least=2, most=2)
    plates: int = reading.whole(1, PLATES, default=1)
    outside: float = reading.quantity("length", above=0.0, at_most=FARTHEST)
    first_plate: float | None = maybe_length()
    dowels: Bolts | None = reading.nested(Bolts, default=None)
    joint: Bolts | None = reading.nested(Bolts, default=None)
    coupling: float | None = maybe_length()
    coupling_diameter: float | None = maybe_length()
    shaft_gap: float = reading.quantity("length", at_least=0.0, at_most=1.0, default=1e-3)
    wall: float = reading.quantity("length", at_least=0.0, at_most=1.0, default=1.5e-3)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What is of two plates belongs to two."""
        for key in ("first_plate", "dowels", "joint"):
            if self.plates == 1 and getattr(self, key) is not None:
                yield key, "given for an adapter of one plate", 'leave it out, or say "plates": 2'
