"""The lines of a working in which a stage says how its ratio comes about."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Given:
    """A value put in: the quantity that the document has under `key` of the stage, or `value` where it is no quantity.

    An empty `key` stands for the stage as a whole.
    """

    symbol: str
    words: str
    key: str
    value: float | None = None


@dataclass(frozen=True, slots=True)
class Derived:
    """A ratio computed from symbols put in before, by `formula`."""

    symbol: str
    words: str
    formula: str


Step = Given | Derived
