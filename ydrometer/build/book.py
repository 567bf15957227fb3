"""What a builder says of a build beside the design: the event, who works when, own steps and lines, what it weighs."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from ydrometer.base import reading
from ydrometer.base.seen import Reading
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.build.hours import Hours
from ydrometer.build.own import MOST_OWN, OwnStep
from ydrometer.parts.part import MOST_OWNED, YEAR_S

USUAL_HOURS = (2.0, 2.0, 2.0, 2.0, 2.0, 6.0, 6.0)
"""Hours on each weekday, Monday first: evenings, and most of a weekend."""
FIRST_YEAR, LAST_YEAR = 2000, 2100
"""Between which anything is built: other years are those of a clock that is wrong."""
MOST_PEOPLE = 64
MOST_LINES = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnLine:
    """A thing needed that the design does not know of, such as the frame: what, how many, and of one price and mass."""

    id: str = reading.text(longest=80)
    words: str = reading.line(longest=200)
    number: int = reading.whole(1, MOST_OWNED, default=1)
    price: float | None = reading.quantity("price", at_least=0.0, default=None)
    mass: float | None = reading.quantity("mass", at_least=0.0, default=None)
    lead_time: float | None = reading.quantity("lead time", at_least=0.0, at_most=YEAR_S, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """It says what it is, and has an id."""
        for key in ("id", "words"):
            if not getattr(self, key).strip():
                yield key, "empty", "give it some words"


@dataclass(frozen=True, slots=True, kw_only=True)
class Book:
    """All of it.

    Attributes:
        event: day and time by which all has to be done, empty where there is none. people, hours: who works when.
        budget: of all parts, where no target says so. weighed: all-up mass of the vehicle as it stands, kg.
        lines, steps: of the builder's own.
    """

    event: str = reading.text(longest=30)
    people: int = reading.whole(1, MOST_PEOPLE, default=1)
    hours: tuple[float, ...] = reading.items(reading.quantity_reader("ratio", at_least=0.0, at_most=24.0), most=7)
    budget: float | None = reading.quantity("price", at_least=0.0, default=None)
    weighed: float | None = reading.quantity("mass", above=0.0, default=None)
    lines: tuple[OwnLine, ...] = reading.items(reading.object_reader(OwnLine), most=MOST_LINES)
    steps: tuple[OwnStep, ...] = reading.items(reading.object_reader(OwnStep), most=MOST_OWN)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """The event is a day and a time; hours are of seven days, some above 0; ids are each one's own."""
        if self.event and self.deadline is None:
            yield (
                "event",
                f'"{self.event}" given',
                f"give a day and a time from {FIRST_YEAR} to {LAST_YEAR}, such as 2027-06-12T09:00",
            )
        if self.hours and len(self.hours) != len(USUAL_HOURS):
            yield "hours", f"{len(self.hours)} given", "give hours of seven days, Monday first"
        elif self.hours and not any(self.hours):
            yield "hours", "no work on any day", "give hours for at least one weekday"
        for key in ("lines", "steps"):
            ids = [entry.id for entry in getattr(self, key)]
            for place, id in enumerate(ids):
                if id in ids[:place]:
                    yield f"{key}[{place}].id", f'"{id}" a second time', "give each an id of its own"

    @property
    def deadline(self) -> datetime | None:
        """The event; None where there is none, or none in these years."""
        try:
            moment = datetime.fromisoformat(self.event or "none").replace(tzinfo=None)
        except ValueError:
            return None
        return moment if FIRST_YEAR <= moment.year <= LAST_YEAR else None

    @property
    def work(self) -> Hours:
        """Who works when."""
        return Hours(self.people, self.hours or USUAL_HOURS)


EMPTY = Book()


def read_book(raw: Any) -> Book:
    """The book as it is kept.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
    seen = Reading()
    book = reading.read_object(Book, raw, "", seen)
    return reading.finish(book, seen)
