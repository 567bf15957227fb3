"""The plan backwards from an event: when each step and order is due at the latest, and by how much it is late."""

from __future__ import annotations

import math
import statistics
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from functools import partial

from ydrometer.build.hours import DAY_MIN, Hours, lanes
from ydrometer.build.schedule import Schedule, Task, schedule
from ydrometer.build.step import Step

BREAK = timedelta(minutes=1)
"""Between two pieces of work; what is less is none."""
ENOUGH_TO_JUDGE = 5
"""Steps of which both minutes are known before a builder's pace is taken from them."""


@dataclass(frozen=True, slots=True)
class PartOrder:
    """A part that has to be bought: its words, its kind on the parts list, paths of the design it goes to, and days
    until it is here; `placed` says that it has been ordered.
    """

    part: str
    kind: str
    where: tuple[str, ...]
    days: float
    placed: bool = False

    def holds(self, step: Step) -> bool:
        """Whether a step cannot be done without it."""
        return self.kind in step.uses and bool({step.place, *step.parts} & set(self.where))


@dataclass(frozen=True, slots=True)
class WorkDay:
    """Work of one day: minutes of all people, and ids of steps, some of which may go on from another day."""

    date: date
    minutes: float
    steps: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Piece:
    """A stretch of work on a step: from when to when, and the number of the person who does it, from 0."""

    step: str
    start: datetime
    end: datetime
    person: int


@dataclass(frozen=True, slots=True)
class Due:
    """An order with the latest day on which it can be made."""

    part: str
    latest: date


@dataclass(frozen=True, slots=True)
class WorkPlan:
    """The days to an event.

    Attributes:
        event. days: with work, in order. pieces: all work, in the order of time. starts, ends: when each step begins
        and is done. orders: the most urgent first.
        late_by_days: 0 where all can be done in time. critical: ids of steps whose delay delays the event.
    """

    event: datetime
    days: list[WorkDay]
    pieces: list[Piece]
    starts: dict[str, datetime]
    ends: dict[str, datetime]
    orders: list[Due]
    late_by_days: int
    critical: list[str]


def plan(
    steps: Sequence[Step],
    orders: Sequence[PartOrder],
    event: datetime,
    now: datetime,
    hours: Hours,
    done: Collection[str] = (),
) -> WorkPlan:
    """Spread what is left over the days to an event: as late as it can be, or, where that began before now, as early.

    Args:
        steps: all of them, in an order that can be followed.
        orders: what has to be bought.
        event: by when all has to be done.
        now: before which nothing can be done.
        hours: when people work.
        done: ids of steps that are done.

    Raises:
        ValueError: nobody works on any day, or the work takes years.
    """
    left = [step for step in steps if step.id not in set(done)]
    back = _backwards(left, orders, event, hours)
    begins: dict[str, datetime] = {}
    for piece in back:
        begins.setdefault(piece.step, piece.start)
    due = [_due(order, left, begins, event) for order in orders]
    first = min(begins.values(), default=event)
    if first >= now and all(entry.latest >= now.date() for entry in due):
        return _told(back, left, orders, due, event, hours)
    ahead = _forwards(left, orders, now, event, hours)
    due = [replace(entry, latest=max(entry.latest, now.date())) for entry in due]
    return _told(ahead, left, orders, due, event, hours)


def shifts(pieces: Sequence[Piece]) -> list[list[Piece]]:
    """Work in a row: the pieces that one person does without a break, each row in the order of time.

    Args:
        pieces: of a plan, in the order of time.
    """
    rows: list[list[Piece]] = []
    last: dict[int, list[Piece]] = {}
    for piece in pieces:
        row = last.get(piece.person)
        if row is None or piece.start - row[-1].end > BREAK:
            row = last[piece.person] = []
            rows.append(row)
        row.append(piece)
    return rows


def pace(taken: Sequence[tuple[float, float]]) -> float:
    """How much longer this builder takes than was assumed: the median of taken over assumed minutes.

    Args:
        taken: minutes taken and assumed, of steps of which both are known.

    Returns:
        1 until there are `ENOUGH_TO_JUDGE` of them.
    """
    known = [real / assumed for real, assumed in taken if real > 0.0 and assumed > 0.0]
    return statistics.median(known) if len(known) >= ENOUGH_TO_JUDGE else 1.0


def paced(steps: Sequence[Step], factor: float) -> list[Step]:
    """Steps with the minutes of this builder."""
    return [replace(step, minutes=step.minutes * factor) for step in steps]


def _told(
    pieces: list[Piece],
    steps: Sequence[Step],
    orders: Sequence[PartOrder],
    due: Sequence[Due],
    event: datetime,
    hours: Hours,
) -> WorkPlan:
    starts: dict[str, datetime] = {}
    for piece in pieces:
        starts.setdefault(piece.step, piece.start)
    ends = {piece.step: piece.end for piece in sorted(pieces, key=lambda piece: piece.end)}
    over = max([event, *(ends[step.id] + timedelta(seconds=step.wait) for step in steps)])
    open_due = [entry for entry, order in zip(due, orders, strict=True) if not order.placed]
    return WorkPlan(
        event=event,
        days=_days(pieces),
        pieces=pieces,
        starts=starts,
        ends=ends,
        orders=sorted(open_due, key=lambda entry: entry.latest),
        late_by_days=_late(over, event),
        critical=critical(steps, orders, hours),
    )


def _late(over: datetime, event: datetime) -> int:
    """By how many days all is over after the event."""
    return max(0, math.ceil((over - event) / timedelta(days=1) - 1e-9))


def _days(pieces: Sequence[Piece]) -> list[WorkDay]:
    work: dict[date, list[Piece]] = {}
    for piece in pieces:
        work.setdefault(piece.start.date(), []).append(piece)
    return [
        WorkDay(
            day,
            round(sum((piece.end - piece.start) / timedelta(minutes=1) for piece in own), 3),
            tuple(dict.fromkeys(piece.step for piece in own)),
        )
        for day, own in sorted(work.items())
    ]


def _backwards(steps: Sequence[Step], orders: Sequence[PartOrder], event: datetime, hours: Hours) -> list[Piece]:
    """As late as it can be: the same as forwards with time turned round, the last step first."""
    turned = list(reversed(steps))
    place = {step.id: number for number, step in enumerate(turned)}
    later: dict[str, list[int]] = {}
    for step in steps:
        for need in step.needs:
            later.setdefault(need, []).append(place[step.id])
    tasks = [
        Task(
            minutes=step.minutes,
            after=tuple((number, step.wait / 60.0) for number in later.get(step.id, ())),
            head=step.wait / 60.0,
            tail=_delivery(step, orders),
        )
        for step in turned
    ]
    found = schedule(tasks, partial(lanes, hours, event, -1), _stretch(hours), lambda over: over // DAY_MIN)
    return _pieces(turned, found, event, -1)


def _forwards(
    steps: Sequence[Step], orders: Sequence[PartOrder], now: datetime, event: datetime, hours: Hours
) -> list[Piece]:
    """As early as it can be: each step behind what it needs, and behind the delivery of its parts."""
    place = {step.id: number for number, step in enumerate(steps)}
    waits = {step.id: step.wait / 60.0 for step in steps}
    tasks = [
        Task(
            minutes=step.minutes,
            after=tuple((place[need], waits[need]) for need in step.needs if need in place),
            head=_delivery(step, orders),
            tail=step.wait / 60.0,
        )
        for step in steps
    ]

    def late(over: float) -> int:
        return _late(now + timedelta(minutes=over), event)

    found = schedule(tasks, partial(lanes, hours, now, 1), _stretch(hours), late)
    return _pieces(steps, found, now, 1)


def _pieces(steps: Sequence[Step], found: Schedule, anchor: datetime, direction: int) -> list[Piece]:
    """What was placed, minutes after an anchor or before it, as moments in the order of time."""
    pieces = []
    for step, row in zip(steps, found.pieces, strict=True):
        for placed in row:
            start, end = sorted(anchor + direction * timedelta(minutes=at) for at in (placed.start, placed.end))
            pieces.append(Piece(step.id, start, end, placed.person))
    return sorted(pieces, key=lambda piece: (piece.start, piece.person))


def _stretch(hours: Hours) -> float:
    """How much longer work takes by the calendar than by the clock."""
    return 7.0 * DAY_MIN / hours.a_week if hours.a_week else 1.0


def _delivery(step: Step, orders: Sequence[PartOrder]) -> float:
    """How long the last part of a step takes that is ordered now, minutes."""
    return max((order.days * DAY_MIN for order in orders if order.holds(step)), default=0.0)


def _due(order: PartOrder, steps: Sequence[Step], begins: Mapping[str, datetime], event: datetime) -> Due:
    """The latest day of an order: it is here on the day before the first step that cannot be done without it."""
    first = min((begins[step.id] for step in steps if order.holds(step)), default=event)
    return Due(order.part, first.date() - timedelta(days=1 + math.ceil(order.days)))


def critical(steps: Sequence[Step], orders: Sequence[PartOrder], hours: Hours) -> list[str]:
    """Ids of the steps on the longest way to the end, counting waits, deliveries, and work as long as a week makes it.

    The critical path method (Kelley and Walker, Critical-Path Planning and Scheduling, 1959), with each duration in
    minutes of the calendar.

    Args:
        steps: in an order that can be followed.
        orders: what has to be bought.
        hours: when people work.
    """
    stretch = _stretch(hours)
    end: dict[str, float] = {}
    waits = {step.id: step.wait / 60.0 for step in steps}
    before: dict[str, str] = {}
    for step in steps:
        ready = _delivery(step, orders)
        for need in step.needs:
            if need in end and end[need] + waits[need] > ready:
                ready, before[step.id] = end[need] + waits[need], need
        end[step.id] = ready + step.minutes * stretch
    path: list[str] = []
    at = max(end, key=lambda id: end[id] + waits[id], default="")
    while at:
        path.append(at)
        at = before.get(at, "")
    return path[::-1]
