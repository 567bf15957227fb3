"""One thing that would make everything go together."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from ydrometer.document.mounting import Point
from ydrometer.fit.idlers import Idler
from ydrometer.fit.places import Placing


@dataclass(frozen=True, slots=True)
class NewSlot:
    """A slot for a shaft, and the middles of its ends, m."""

    shaft: str
    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class Help:
    """One thing that would make it go, as it was tried.

    Attributes:
        text: in words. extra: how much more that is, m, where it is a length. way: how all then stands. teeth: tooth
        counts that it takes, by their path in the document. idler, slot: that it takes. tolerance: of gears, m, that it
        takes.
    """

    text: str
    extra: float
    way: Placing
    teeth: Mapping[str, int] = field(default_factory=dict)
    idler: Idler | None = None
    slot: NewSlot | None = None
    tolerance: float | None = None
