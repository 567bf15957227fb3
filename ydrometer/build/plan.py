"""The plan backwards from an event: when each step and order is due at the latest, and by how much it is late."""

from __future__ import annotations

import math
import statistics
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta

from ydrometer.build.hours import DAY_MIN, Hours, Lane, Span, lanes
from ydrometer.build.step import Step

ENOUGH_TO_JUDGE = 5
"""Steps of which both minutes are known before a builder's pace is taken from them."""


@dataclass(frozen=True, slots=True)
class PartOrder:
    """A part that has to be bought: its words, paths of the design it goes to, and days until it is here; `placed` says
    that it has been ordered.
    """

    part: str
    where: tuple[str, ...]
    days: float
    placed: bool = False


@dataclass(frozen=True, slots=True)
class WorkDay:
    """Work of one day: minutes of all people, and ids of steps, some of which may go on from another day."""

    date: date
    minutes: float
    steps: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Due:
    """An order with the latest day on which it can be made."""

    part: str
    latest: date


@dataclass(frozen=True, slots=True)
class WorkPlan:
    """The days to an event.

    Attributes:
        event. days: with work, in order. starts: when each step begins. orders: the most urgent first.
        late_by_days: 0 where all can be done in time. critical: ids of steps whose delay delays the event.
    """

    event: datetime
    days: list[WorkDay]
    starts: dict[str, datetime]
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
    back = _backwards(left, event, hours)
    begins = {id: event - timedelta(minutes=pieces[-1][1]) for id, pieces in back.items()}
    due = [Due(order.part, _latest(order, left, begins, event).date()) for order in orders if not order.placed]
    early = min([*begins.values(), *(_latest(order, left, begins, event) for order in orders)], default=event)
    if early >= now:
        spans = {
            id: [(event - timedelta(minutes=e), event - timedelta(minutes=s)) for s, e in reversed(pieces)]
            for id, pieces in back.items()
        }
        return _told(spans, left, orders, due, event, hours, 0)
    ahead = _forwards(left, orders, now, hours)
    spans = {
        id: [(now + timedelta(minutes=s), now + timedelta(minutes=e)) for s, e in pieces]
        for id, pieces in ahead.items()
    }
    end = max([now, *(pieces[-1][1] for pieces in spans.values())])
    late = max(0, math.ceil((end - event) / timedelta(days=1)))
    due = [replace(due_part, latest=max(due_part.latest, now.date())) for due_part in due]
    return _told(spans, left, orders, due, event, hours, late)


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


Spans = dict[str, list[tuple[datetime, datetime]]]


def _told(
    spans: Spans,
    steps: Sequence[Step],
    orders: Sequence[PartOrder],
    due: list[Due],
    event: datetime,
    hours: Hours,
    late: int,
) -> WorkPlan:
    work: dict[date, list[tuple[datetime, float, str]]] = {}
    for id, pieces in spans.items():
        for start, end in pieces:
            work.setdefault(start.date(), []).append((start, (end - start).total_seconds() / 60.0, id))
    days = [
        WorkDay(
            day, round(sum(minutes for _, minutes, _ in own), 3), tuple(dict.fromkeys(id for _, _, id in sorted(own)))
        )
        for day, own in sorted(work.items())
    ]
    starts = {id: pieces[0][0] for id, pieces in spans.items()}
    return WorkPlan(event, days, starts, sorted(due, key=lambda d: d.latest), late, critical(steps, orders, hours))


def _backwards(steps: Sequence[Step], event: datetime, hours: Hours) -> dict[str, list[Span]]:
    """Pieces of each step, minutes before the event: the last steps come first, each before all that need it."""
    people = lanes(hours, event, -1)
    needed_by: dict[str, list[str]] = {}
    for step in steps:
        for need in step.needs:
            needed_by.setdefault(need, []).append(step.id)
    placed: dict[str, list[Span]] = {}
    for step in reversed(steps):
        ready = max((placed[later][-1][1] for later in needed_by.get(step.id, ())), default=0.0) + step.wait / 60.0
        placed[step.id] = _place(people, ready, step.minutes)
    return placed


def _forwards(steps: Sequence[Step], orders: Sequence[PartOrder], now: datetime, hours: Hours) -> dict[str, list[Span]]:
    """Pieces of each step, minutes from now: each behind what it needs, and behind the delivery of its parts."""
    people = lanes(hours, now, 1)
    waits = {step.id: step.wait / 60.0 for step in steps}
    placed: dict[str, list[Span]] = {}
    for step in steps:
        needs = [placed[need][-1][1] + waits[need] for need in step.needs if need in placed]
        placed[step.id] = _place(people, max([_here(step, orders), *needs]), step.minutes)
    return placed


def _here(step: Step, orders: Sequence[PartOrder]) -> float:
    """When the last part of a step is here that is ordered now, minutes from now."""
    return max((order.days * DAY_MIN for order in orders if set(order.where) & set(step.parts)), default=0.0)


def _place(people: Sequence[Lane], ready: float, minutes: float) -> list[Span]:
    """The pieces of a step in the time of whoever has done it first."""
    tried = [(lane.pieces(ready, minutes), lane) for lane in people]
    pieces, lane = min(tried, key=lambda pair: pair[0][-1][1])
    lane.take(pieces)
    return list(pieces)


def _latest(order: PartOrder, steps: Sequence[Step], begins: Mapping[str, datetime], event: datetime) -> datetime:
    """The latest moment of an order: its days before the first step that handles the part."""
    first = min((begins[s.id] for s in steps if set(order.where) & set(s.parts)), default=event)
    return first - timedelta(days=order.days)


def critical(steps: Sequence[Step], orders: Sequence[PartOrder], hours: Hours) -> list[str]:
    """Ids of the steps on the longest way to the end, counting waits, deliveries, and work as long as a week makes it.

    The critical path method (Kelley and Walker, Critical-Path Planning and Scheduling, 1959), with each duration in
    minutes of the calendar.

    Args:
        steps: in an order that can be followed.
        orders: what has to be bought.
        hours: when people work.
    """
    stretch = 7.0 * DAY_MIN / hours.a_week
    end: dict[str, float] = {}
    waits = {step.id: step.wait / 60.0 for step in steps}
    before: dict[str, str] = {}
    for step in steps:
        ready = _here(step, orders)
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
