"""What was said of steps, and what it comes to: what is done, and what of it has to be done once more."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from ydrometer.build.progress import Tick, Touched, touched
from ydrometer.build.step import Step

Doing = Literal["done", "undone", "later"]
DOINGS: tuple[Doing, ...] = ("done", "undone", "later")


@dataclass(frozen=True, slots=True)
class Entry:
    """What somebody has said of a step: that it is done, not done any more, or not now and why.

    Attributes:
        step: its id. doing. at, by: when and who. minutes: that it took; None where nobody says so. value: that was
        measured, as typed. note, reason: in words. about, title, made_from: of the step, when it was done.
    """

    step: str
    doing: Doing
    at: datetime
    by: str
    minutes: float | None = None
    value: str = ""
    note: str = ""
    reason: str = ""
    about: str = ""
    title: str = ""
    made_from: tuple[str, ...] = ()


def ticks(entries: Sequence[Entry]) -> dict[str, Tick]:
    """What was done, by the last that was said of each step.

    Args:
        entries: the oldest first.
    """
    last = {entry.step: entry for entry in entries}
    return {e.step: Tick(e.at, e.about, e.title, e.made_from) for e in last.values() if e.doing == "done"}


def changes(steps: Sequence[Step], done: Mapping[str, Tick], entries: Sequence[Entry]) -> dict[str, Touched]:
    """Steps that have to be done once more, by their ids.

    Args:
        steps: of the design.
        done: see `ticks`.
        entries: the oldest first.
    """
    return {change.step: change for change in touched(steps, done, _opened(entries))}


def _opened(entries: Sequence[Entry]) -> dict[str, datetime]:
    """When a step that had been done was last undone, or done for something else."""
    opened: dict[str, datetime] = {}
    before: dict[str, Entry] = {}
    for entry in entries:
        known = before.get(entry.step)
        if known is not None and (entry.doing == "undone" or _is_other(known, entry)):
            opened[entry.step] = entry.at
        if entry.doing == "done":
            before[entry.step] = entry
    return opened


def _is_other(known: Entry, entry: Entry) -> bool:
    """Whether a step that was done has been done for something else, as far as both say for what."""
    if entry.doing != "done" or not (known.made_from and entry.made_from):
        return False
    return known.made_from != entry.made_from
