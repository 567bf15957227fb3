"""One combination that a search has found, and what it is ranked by."""

from __future__ import annotations

from dataclasses import astuple, dataclass
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


Entry = tuple[Key, Option]


def entry_json(entry: Entry) -> list[Any]:
    """As it can be kept and sent."""
    key, option = entry
    return [*key[:-1], list(key[-1]), option.layout, list(astuple(option.head)), list(option.chosen)]


def entry_from_json(raw: list[Any]) -> Entry:
    """What `entry_json` has made."""
    *key, names, layout, head, chosen = raw
    option = Option(layout, Head(*head), tuple(chosen), price=key[2], buy=key[3])
    return (*key, tuple(names)), option
