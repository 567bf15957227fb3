"""What a search has seen: counts, the best combinations, and one for each stretch of overall ratios."""

from __future__ import annotations

from collections import Counter
from dataclasses import astuple, dataclass, field
from typing import Any

from ydrometer.search.choices import Head

Key = tuple[Any, ...]
"""What a combination is ranked by, smaller first."""


@dataclass(frozen=True, slots=True)
class Option:
    """One combination: its layout, its head, the option of each slot, its price and what has to be bought."""

    layout: int
    head: Head
    chosen: tuple[int, ...]
    price: float
    buy: int


@dataclass(slots=True)
class Found:
    """What a search has seen so far.

    Attributes:
        combinations: that the limits leave. meeting: how many of them meet every target. failing: reasons, counted.
        best: in the order of their keys. field: the best of each stretch of overall ratios, by the stretch's number.
    """

    combinations: int = 0
    meeting: int = 0
    failing: Counter[str] = field(default_factory=Counter)
    best: list[tuple[Key, Option]] = field(default_factory=list)
    field: dict[int, tuple[Key, Option]] = field(default_factory=dict)

    def add(self, other: Found, keep: int) -> None:
        """Take in what was seen elsewhere."""
        self.combinations += other.combinations
        self.meeting += other.meeting
        self.failing.update(other.failing)
        self.best = sorted([*self.best, *other.best], key=lambda entry: entry[0])[:keep]
        for stretch, entry in other.field.items():
            self.represent(stretch, entry)

    def represent(self, stretch: int, entry: tuple[Key, Option]) -> None:
        """Let a combination stand for its stretch of ratios, where it is better than the one that does."""
        if stretch not in self.field or entry[0] < self.field[stretch][0]:
            self.field[stretch] = entry

    def as_json(self) -> dict[str, Any]:
        """As it can be kept and sent."""
        return {
            "combinations": self.combinations,
            "meeting": self.meeting,
            "failing": dict(self.failing),
            "best": [_entry_json(entry) for entry in self.best],
            "field": [[stretch, _entry_json(entry)] for stretch, entry in sorted(self.field.items())],
        }

    @classmethod
    def from_json(cls, raw: dict[str, Any]) -> Found:
        """What `as_json` has made."""
        best = [_entry(entry) for entry in raw["best"]]
        represented = {stretch: _entry(entry) for stretch, entry in raw["field"]}
        return cls(raw["combinations"], raw["meeting"], Counter(raw["failing"]), best, represented)


def _entry_json(entry: tuple[Key, Option]) -> list[Any]:
    key, option = entry
    return [*key[:-1], list(key[-1]), option.layout, list(astuple(option.head)), list(option.chosen)]


def _entry(raw: list[Any]) -> tuple[Key, Option]:
    *key, names, layout, head, chosen = raw
    option = Option(layout, Head(*head), tuple(chosen), price=key[2], buy=key[3])
    return (*key, tuple(names)), option
