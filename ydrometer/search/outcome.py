"""What a search has seen: counts, the best combinations, one for each stretch of overall ratios, the ways to drives."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from ydrometer.search.option import Entry, entry_from_json, entry_json
from ydrometer.search.ways import Drive, Ways, best_of


@dataclass(slots=True)
class Outcome:
    """What a search has seen so far.

    Attributes:
        combinations: that the limits leave. meeting: how many of them meet every target. failing: reasons, counted.
        best: in the order of their keys. field: the best of each stretch of overall ratios, by the stretch's number.
        ways: to each of the best drives.
    """

    combinations: int = 0
    meeting: int = 0
    failing: Counter[str] = field(default_factory=Counter)
    best: list[Entry] = field(default_factory=list)
    ways: dict[Drive, Ways] = field(default_factory=dict)
    field: dict[int, Entry] = field(default_factory=dict)

    def add(self, other: Outcome, keep: int) -> None:
        """Take in what was seen elsewhere."""
        self.combinations += other.combinations
        self.meeting += other.meeting
        self.failing.update(other.failing)
        self.best = sorted([*self.best, *other.best], key=lambda entry: entry[0])[:keep]
        for stretch, entry in other.field.items():
            self.represent(stretch, entry)
        for drive, ways in other.ways.items():
            self.ways.setdefault(drive, Ways()).add(ways)
        self.ways = best_of(self.ways)

    def represent(self, stretch: int, entry: Entry) -> None:
        """Let a combination stand for its stretch of ratios, where it is better than the one that does."""
        if stretch not in self.field or entry[0] < self.field[stretch][0]:
            self.field[stretch] = entry

    def as_json(self) -> dict[str, Any]:
        """As it can be kept and sent."""
        return {
            "combinations": self.combinations,
            "meeting": self.meeting,
            "failing": dict(self.failing),
            "best": [entry_json(entry) for entry in self.best],
            "field": [[stretch, entry_json(entry)] for stretch, entry in sorted(self.field.items())],
            "ways": [[list(drive), ways.as_json()] for drive, ways in self.ways.items()],
        }

    @classmethod
    def from_json(cls, raw: dict[str, Any]) -> Outcome:
        """What `as_json` has made."""
        best = [entry_from_json(entry) for entry in raw["best"]]
        represented = {stretch: entry_from_json(entry) for stretch, entry in raw["field"]}
        # Searches kept from before have counted no ways.
        ways = {tuple(drive): Ways.from_json(entry) for drive, entry in raw.get("ways", ())}
        return cls(raw["combinations"], raw["meeting"], Counter(raw["failing"]), best, ways, represented)
