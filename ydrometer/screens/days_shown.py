"""The days to an event as the station Build shows them: what is late, what helps, and what is due when."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date, datetime

from ydrometer.build.late import LateCase, reliefs, sentence
from ydrometer.build.parts_list import PartsList
from ydrometer.build.plan import WorkPlan, shifts
from ydrometer.build.purchase import open_orders
from ydrometer.build.step import Step
from ydrometer.screens.parts_shown import BenchKnown


@dataclass(frozen=True, slots=True)
class PlannedDay:
    """A day with work: its minutes, and ids of its steps."""

    date: date
    minutes: float
    steps: list[str]
    critical: bool


@dataclass(frozen=True, slots=True)
class ShiftShown:
    """Work of one person without a break: from when to when, the person's number from 1, and ids of the steps."""

    start: datetime
    end: datetime
    person: int
    steps: list[str]


@dataclass(frozen=True, slots=True)
class DueShown:
    """An order with the latest day on which it can be made; `late` where that is today or past."""

    part: str
    latest: date
    late: bool


@dataclass(frozen=True, slots=True)
class ReliefShown:
    """What helps: in words, and by how many days the plan is late with it."""

    words: str
    late_by_days: int


@dataclass(frozen=True, slots=True)
class DaysShown:
    """The days to the event."""

    event: datetime
    sentence: str
    late_by_days: int
    days: list[PlannedDay]
    shifts: list[ShiftShown]
    orders: list[DueShown]
    reliefs: list[ReliefShown]
    trouble: str


@dataclass(frozen=True, slots=True)
class PlannedWork:
    """A plan with what it was made from, or why there is none."""

    case: LateCase
    plan: WorkPlan | None
    trouble: str


def planned(
    steps: Sequence[Step], parts: PartsList, bench: BenchKnown, now: datetime, done: Collection[str]
) -> PlannedWork | None:
    """The plan of what is left to do; None without an event.

    Args:
        steps: with the minutes of their builder.
        parts: of the design, some of which have still to come.
        bench: whose book has the event, and what was said of lines.
        now: local time.
        done: ids of steps that are done.
    """
    event = bench.book.deadline
    if event is None:
        return None
    orders = open_orders(parts.lines, bench.said, now)
    case = LateCase(steps, orders, event, now, bench.book.work, set(done))
    try:
        return PlannedWork(case, case.plan(), "")
    except ValueError as error:
        return PlannedWork(case, None, str(error))


def days_shown(days: PlannedWork | None) -> DaysShown | None:
    """What is shown of a plan."""
    if days is None:
        return None
    plan, case = days.plan, days.case
    if plan is None:
        return DaysShown(case.event, days.trouble, 0, [], [], [], [], days.trouble)
    critical, today = set(plan.critical), case.now.date()
    return DaysShown(
        event=plan.event,
        sentence=sentence(case, plan),
        late_by_days=plan.late_by_days,
        days=[PlannedDay(day.date, day.minutes, list(day.steps), bool(critical & set(day.steps))) for day in plan.days],
        shifts=[
            ShiftShown(row[0].start, row[-1].end, row[0].person + 1, [piece.step for piece in row])
            for row in shifts(plan.pieces)
        ],
        orders=[DueShown(due.part, due.latest, due.latest <= today) for due in plan.orders],
        reliefs=[ReliefShown(relief.words, relief.late_by_days) for relief in reliefs(case, plan)],
        trouble="",
    )
