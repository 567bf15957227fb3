"""The words of `ydrometer parts` and `ydrometer build`: designs, a bin, an event, people and hours."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.build.book import MOST_PEOPLE, USUAL_HOURS
from ydrometer.build.hours import Hours
from ydrometer.command.words import split
from ydrometer.files.build_report import Deadline

DAY_H = 24.0


@dataclass(frozen=True, slots=True)
class PartsAsked:
    """Designs and the bin, empty where none is given."""

    designs: list[str]
    bin: str


@dataclass(frozen=True, slots=True)
class BuildAsked(PartsAsked):
    """The same with the event; None where none is given."""

    deadline: Deadline | None


def read_parts_words(words: Sequence[str]) -> PartsAsked:
    """What `parts` is asked.

    Raises:
        DocumentError: a word is not known, or lacks its value.
    """
    designs, options = _designs(words, ("--bin",))
    return PartsAsked(designs, options.get("--bin", ""))


def read_build_words(words: Sequence[str]) -> BuildAsked:
    """What `build` is asked.

    Raises:
        DocumentError: with every word that is wrong.
    """
    designs, options = _designs(words, ("--bin", "--event", "--people", "--hours"))
    faults: list[Fault] = []
    event = _event(options.get("--event", ""), faults)
    people = _people(options.get("--people", "1"), faults)
    weekdays = _weekdays(options.get("--hours", ""), faults)
    if faults:
        raise DocumentError(faults)
    now = datetime.now().replace(second=0, microsecond=0)
    deadline = Deadline(event, now, Hours(people, weekdays)) if event else None
    return BuildAsked(designs, options.get("--bin", ""), deadline)


def _designs(words: Sequence[str], known: Sequence[str]) -> tuple[list[str], dict[str, str]]:
    designs, options = split(words, known)
    if not designs:
        raise DocumentError([Fault("$", "no design", "give a design file")])
    return designs, options


def _event(text: str, faults: list[Fault]) -> datetime | None:
    if not text:
        return None
    try:
        return datetime.fromisoformat(text).replace(tzinfo=None)
    except ValueError:
        faults.append(Fault("--event", f'"{text[:40]}" given', "give a day and a time, such as 2027-06-12T09:00"))
        return None


def _people(text: str, faults: list[Fault]) -> int:
    if text.isascii() and text.isdigit() and 1 <= int(text[:9]) <= MOST_PEOPLE:
        return int(text)
    faults.append(Fault("--people", f'"{text[:40]}" given', f"give a whole number from 1 to {MOST_PEOPLE}"))
    return 1


def _weekdays(text: str, faults: list[Fault]) -> tuple[float, ...]:
    if not text:
        return USUAL_HOURS
    try:
        hours = tuple(float(word) for word in text.split(","))
    except ValueError:
        hours = ()
    good = len(hours) == len(USUAL_HOURS) and all(math.isfinite(h) and 0.0 <= h <= DAY_H for h in hours)
    if not good or not any(hours):
        remedy = "give hours of seven days from Monday on, each 0 to 24, not all 0, such as 2,2,2,2,2,6,6"
        faults.append(Fault("--hours", f'"{text[:60]}" given', remedy))
        return USUAL_HOURS
    return hours
