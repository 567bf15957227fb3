"""Ways to the same drive: combinations of other parts that drive alike are counted, and a few of the best are kept."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from ydrometer.search.option import Entry, entry_from_json, entry_json

MOST_KEPT = 200
"""Drives of which the ways are counted; those are the best by the first two keys of the ranking."""
MOST_SHOWN = 4
"""Ways to each of them that are kept."""

Drive = tuple[Any, ...]
"""What tells drives apart, in an order in which the better comes first: the first two keys of the ranking, the overall
ratio and what is left after all losses, in whole steps, and the head. It is of the drive alone, whatever else a search
has seen; so the best of all stretches are among the best of each."""


@dataclass(slots=True)
class Ways:
    """How many ways lead to one drive, how many of them from owned parts alone, the least price, and the best few."""

    count: int = 0
    from_bin: int = 0
    price: float = float("inf")
    best: list[Entry] = field(default_factory=list)

    def add(self, other: Ways) -> None:
        """Take in what was counted elsewhere."""
        self.count += other.count
        self.from_bin += other.from_bin
        self.price = min(self.price, other.price)
        self.best = sorted([*self.best, *other.best], key=lambda entry: entry[0])[:MOST_SHOWN]

    def as_json(self) -> list[Any]:
        """As it can be kept and sent."""
        return [self.count, self.from_bin, self.price, [entry_json(entry) for entry in self.best]]

    @classmethod
    def from_json(cls, raw: list[Any]) -> Ways:
        """What `as_json` has made."""
        count, from_bin, price, best = raw
        return cls(count, from_bin, price, [entry_from_json(entry) for entry in best])


def best_of(ways: dict[Drive, Ways]) -> dict[Drive, Ways]:
    """The best of them, as many as are kept, in their order."""
    return {drive: ways[drive] for drive in sorted(ways)[:MOST_KEPT]}
