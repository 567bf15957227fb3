"""When people work: hours of each weekday as windows of time, filled piece by piece."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from itertools import count

Span = tuple[float, float]
"""From when to when, minutes from an anchor."""

LEAST_PIECE = 15.0
"""Minutes below which work is not split."""
EVENING, MORNING, LONG = 18, 10, 12
"""Hours of the day at which work begins: on a day of few hours, of more, and of so many that it begins at midnight."""
FEW = 4.0
HORIZON_DAYS = 2000
DAY_MIN = 24.0 * 60.0


@dataclass(frozen=True, slots=True)
class Hours:
    """How many people work, and how many hours on each weekday, Monday first, 0 to 24."""

    people: int
    weekdays: tuple[float, ...]

    def window(self, day: date) -> tuple[datetime, datetime]:
        """From when to when there is work on a day; empty where nobody works."""
        hours = self.weekdays[day.weekday()]
        begin = EVENING if hours <= FEW else MORNING if hours <= LONG else 0
        start = datetime.combine(day, time(begin))
        return start, start + timedelta(hours=hours)

    @property
    def a_week(self) -> float:
        """Minutes of work in a week, of all people."""
        return 60.0 * self.people * sum(self.weekdays)


@dataclass(slots=True)
class Lane:
    """The time of one person, from an anchor on or back from it: spans that are free, the nearest first."""

    spans: Iterator[Span]
    free: list[Span] = field(default_factory=list)

    def pieces(self, ready: float, minutes: float) -> list[Span]:
        """Where work would go that can begin at `ready`: in as few pieces as the windows allow, none too short.

        Args:
            ready: minutes from the anchor.
            minutes: of work, above 0.
        """
        spans: list[Span] = []
        left = minutes
        for number in count(self._first_after(ready)):
            span = self._span(number)
            start = max(span[0], ready)
            piece = _piece(span[1] - start, left)
            if piece:
                spans.append((start, start + piece))
                left -= piece
            if left <= 1e-9:
                return spans
        raise AssertionError  # count does not end

    def reached(self, minutes: float) -> float:
        """When so much of its free time has passed, minutes from the anchor."""
        left = minutes
        for number in count():
            start, end = self._span(number)
            if left <= end - start + 1e-9:
                return start + left
            left -= end - start
        raise AssertionError  # count does not end

    def take(self, pieces: list[Span]) -> None:
        """Say that these are not free any more."""
        for start, end in pieces:
            place = self._first_after(start)
            self.free[place : place + 1] = _without(self.free[place], start, end)

    def _first_after(self, moment: float) -> int:
        """The number of the first free span that ends after a moment, or of the first that is not known yet."""
        return bisect_right(self.free, moment, key=lambda span: span[1])

    def _span(self, number: int) -> Span:
        while len(self.free) <= number:
            self.free.append(next(self.spans))
        return self.free[number]


def lanes(hours: Hours, anchor: datetime, direction: int) -> list[Lane]:
    """The time of every person.

    Args:
        hours: when they work.
        anchor: from which minutes are counted.
        direction: +1 for the time after it, −1 for that before it.

    Raises:
        ValueError: nobody ever works.
    """
    if not hours.a_week:
        raise ValueError("nobody works on any day: give hours for at least one weekday")
    return [Lane(_spans(hours, anchor, direction)) for _ in range(hours.people)]


def _spans(hours: Hours, anchor: datetime, direction: int) -> Iterator[Span]:
    """Windows as minutes from the anchor, the nearest first."""
    for day in range(HORIZON_DAYS):
        start, end = hours.window(anchor.date() + direction * timedelta(days=day))
        ends = sorted(direction * (moment - anchor).total_seconds() / 60.0 for moment in (start, end))
        begin = max(0.0, ends[0])
        if ends[1] > begin:
            yield begin, ends[1]
    raise ValueError(f"the work does not end within {HORIZON_DAYS} days: give more hours or people")


def _piece(room: float, left: float) -> float:
    """How much of what is left goes into a span; 0 where nothing does."""
    if room >= left:
        return left
    piece = min(room, left - LEAST_PIECE)
    return piece if piece >= LEAST_PIECE else 0.0


def _without(span: Span, start: float, end: float) -> list[Span]:
    """A span with a stretch taken out."""
    if end <= span[0] or start >= span[1]:
        return [span]
    return [part for part in ((span[0], start), (end, span[1])) if part[1] - part[0] > 1e-9]
