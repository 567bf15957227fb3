"""Work put into the time of people, so that all of it is over as early as possible.

Jobs with times between them, on people who are alike, with calendars: a resource-constrained project scheduling
problem (Brucker, Resource-constrained project scheduling: Notation, classification, models, and methods, European
Journal of Operational Research 112, 1999). It is solved by serial schedule generation (Kolisch, Serial and parallel
resource-constrained project scheduling methods revisited: Theory and computation, European Journal of Operational
Research 90, 1996): of the tasks that could be next the most urgent is placed first, by several measures of urgency, and
the best plan is kept.
"""

from __future__ import annotations

import heapq
import random
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from ydrometer.build.hours import Lane, Span

DRAWN, MOST_PLACED = 24, 6_000
"""Plans whose measure of urgency is drawn around the length of what is left; fewer of them where tasks are so many that
this number of placings would be passed.
"""
SPREAD = 0.35
"""By which share it is drawn up or down."""
SEED = 1
SAME = 1e-6


@dataclass(frozen=True, slots=True)
class Task:
    """Something to do: minutes of work of one person.

    Attributes:
        minutes. after: numbers of tasks before it, each with the minutes that pass after it.
        head: minutes before which it cannot begin. tail: minutes that pass after it until it counts as over.
    """

    minutes: float
    after: tuple[tuple[int, float], ...]
    head: float = 0.0
    tail: float = 0.0


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece of work: from when to when, minutes, and the number of the person who does it."""

    start: float
    end: float
    person: int


@dataclass(frozen=True, slots=True)
class Schedule:
    """The pieces of each task, in the order of time, and when all is over, minutes."""

    pieces: list[list[Placed]]
    over: float


def schedule(
    tasks: Sequence[Task], people: Callable[[], list[Lane]], stretch: float, days: Callable[[float], float]
) -> Schedule:
    """The best of several plans; the first one takes the tasks in the order in which they are given.

    Args:
        tasks: each behind all that it comes after.
        people: their free time, anew for each plan.
        stretch: how much longer work takes by the calendar than by the clock.
        days: that a plan takes which is over after so many minutes; no plan is sought that saves less than one.
    """
    least = days(_least(tasks, people))
    best: Schedule | None = None
    for urgency in _urgencies(tasks, stretch):
        tried = _placed(tasks, people(), urgency)
        if best is None or tried.over < best.over - SAME:
            best = tried
        if days(best.over) <= least:
            break
    assert best is not None  # there is always the given order
    return best


def _least(tasks: Sequence[Task], people: Callable[[], list[Lane]]) -> float:
    """No plan is over earlier: not with as many people as tasks, nor if nobody ever waited."""
    free = people()
    alone = free[0]
    ends: list[float] = []
    for task in tasks:
        ready = max([task.head, *(ends[before] + wait for before, wait in task.after)])
        ends.append(alone.pieces(ready, task.minutes)[-1][1])
    longest = max((end + task.tail for end, task in zip(ends, tasks, strict=True)), default=0.0)
    share = sum(task.minutes for task in tasks) / len(free)
    return max(longest, alone.reached(share) if share else 0.0)


def _urgencies(tasks: Sequence[Task], stretch: float) -> Iterator[list[float]]:
    """Measures of urgency, one plan each: the given order, the length of what is left, the same drawn."""
    yield [-float(number) for number in range(len(tasks))]
    lengths = [_left(tasks, factor) for factor in (stretch, 1.0)]
    yield from lengths
    rng = random.Random(SEED)  # a plan, no secret
    for number in range(min(DRAWN, MOST_PLACED // max(1, len(tasks)))):
        yield [length * rng.uniform(1.0 - SPREAD, 1.0 + SPREAD) for length in lengths[number % 2]]


def _left(tasks: Sequence[Task], stretch: float) -> list[float]:
    """The longest way from the beginning of each task to the end of all, minutes."""
    behind = [task.tail for task in tasks]
    for number in range(len(tasks) - 1, -1, -1):
        whole = behind[number] + stretch * tasks[number].minutes
        behind[number] = whole
        for before, wait in tasks[number].after:
            behind[before] = max(behind[before], wait + whole)
    return behind


def _placed(tasks: Sequence[Task], people: Sequence[Lane], urgency: Sequence[float]) -> Schedule:
    """Each task as early as it can be, the most urgent of those that could be next first."""
    followers: list[list[int]] = [[] for _ in tasks]
    missing = [len(task.after) for task in tasks]
    for number, task in enumerate(tasks):
        for before, _ in task.after:
            followers[before].append(number)
    ready = [(-urgency[number], number) for number in range(len(tasks)) if not missing[number]]
    heapq.heapify(ready)
    pieces: list[list[Placed]] = [[] for _ in tasks]
    over = 0.0
    while ready:
        _, number = heapq.heappop(ready)
        task = tasks[number]
        begin = max([task.head, *(pieces[before][-1].end + wait for before, wait in task.after)])
        pieces[number] = _by_whoever_is_first(people, begin, task.minutes)
        over = max(over, pieces[number][-1].end + task.tail)
        for follower in followers[number]:
            missing[follower] -= 1
            if not missing[follower]:
                heapq.heappush(ready, (-urgency[follower], follower))
    return Schedule(pieces, over)


def _by_whoever_is_first(people: Sequence[Lane], ready: float, minutes: float) -> list[Placed]:
    """The pieces of a task in the time of whoever has done it first; of equals, of who would begin last."""
    tried: list[tuple[list[Span], int]] = [(lane.pieces(ready, minutes), n) for n, lane in enumerate(people)]
    chosen, person = min(tried, key=lambda entry: (round(entry[0][-1][1], 6), -entry[0][0][0]))
    people[person].take(chosen)
    return [Placed(start, end, person) for start, end in chosen]
