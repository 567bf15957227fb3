"""What one pass over a document gathers: values by their paths, what had to be assumed, and every fault."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from ydrometer.base.errors import MOST_FAULTS, DocumentError, Fault

UNREADABLE: Any = object()
"""Stands for a value that could not be read; its faults are noted."""


Bounds = tuple[float, float, float]
"""(above, at least, at most), in SI."""


UNBOUNDED: Bounds = (-math.inf, -math.inf, math.inf)


@dataclass(frozen=True, slots=True)
class Value:
    """A quantity as it was read.

    Attributes:
        si: its value. dimension: its kind of quantity.
        origin: how it was come by, one of `ORIGINS`, or "default" where the document does not give it.
        uncertainty: one standard deviation, SI, 0 where none is given. bounds: what the format allows.
        note: what was written beside it.
    """

    si: float
    dimension: str
    origin: str
    uncertainty: float = 0.0
    bounds: Bounds = UNBOUNDED
    note: str = ""


@dataclass(slots=True)
class Reading:
    """What one pass over a document gathers besides the types themselves.

    Attributes:
        faults: the first `MOST_FAULTS`. found: how many there are in all.
    """

    faults: list[Fault] = field(default_factory=list)
    values: dict[str, Value] = field(default_factory=dict)
    assumed: list[str] = field(default_factory=list)
    found: int = 0

    def fault(self, path: str, problem: str, remedy: str) -> Any:
        """Note a fault; returns the marker of an unreadable value."""
        self.found += 1
        if self.found <= MOST_FAULTS:
            self.faults.append(Fault(path or "$", problem, remedy))
        return UNREADABLE

    def take(self, error: DocumentError, place: str) -> None:
        """Note the faults of a part of the document that was read by itself, and where that part stands."""
        self.found += error.more
        for fault in error.faults:
            path = place if fault.path == "$" else f"{place}.{fault.path}"
            self.fault(path, fault.problem, fault.remedy)

    def refuse(self) -> None:
        """Raise every fault at once.

        Raises:
            DocumentError: anything was wrong.
        """
        if self.faults:
            raise DocumentError(self.faults, self.found - len(self.faults))


def printable(key: object) -> str:
    """A stranger's key or text, fit to be shown in one line."""
    text = str(key)[:60]
    return text if text.isprintable() else "".join(c if c.isprintable() else "?" for c in text)


def shown(value: Any) -> str:
    """What was given, as a fault tells it."""
    if isinstance(value, Mapping):
        return "an object"
    if isinstance(value, list | tuple):
        return "a list"
    if value is None:
        return "null"
    shown = printable(value)
    return f'"{shown[:40]}"' if isinstance(value, str) else shown[:40]
