"""What a plan that is late says of itself, and what would help."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import partial

from ydrometer.build.hours import Hours
from ydrometer.build.plan import PartOrder, WorkPlan, plan
from ydrometer.build.step import Step

DAY_H = 24.0
EXPRESS_DAYS = 2.0
"""Days that an order takes which is paid for."""


@dataclass(frozen=True, slots=True)
class Relief:
    """A change that helps: in words, and by how many days the plan is late with it."""

    words: str
    late_by_days: int


@dataclass(frozen=True, slots=True)
class LateCase:
    """All that a plan was made from, to make it once more with one thing changed."""

    steps: Sequence[Step]
    orders: Sequence[PartOrder]
    event: datetime
    now: datetime
    hours: Hours
    done: Collection[str] = ()

    def plan(self) -> WorkPlan:
        """The plan itself."""
        return plan(self.steps, self.orders, self.event, self.now, self.hours, self.done)


def sentence(case: LateCase, schedule: WorkPlan) -> str:
    """How the plan stands, and what to do first.

    Args:
        case: from which it was made.
        schedule: the plan.
    """
    first = _first(case, schedule)
    if not schedule.late_by_days:
        return f"In time. {first}" if first else "In time: all is done."
    days = "1 day" if schedule.late_by_days == 1 else f"{schedule.late_by_days} days"
    return f"Late by {days}. {first}"


def reliefs(case: LateCase, days: WorkPlan) -> list[Relief]:
    """Single changes that make a late plan less late, the best first.

    Args:
        case: from which it was made.
        days: the plan.
    """
    if not days.late_by_days:
        return []
    changes = list(_changes(case))
    tried = [Relief(words, change(case).plan().late_by_days) for words, change in changes]
    together = case
    for _, change in changes:
        together = change(together)
    tried.append(Relief("all of these", together.plan().late_by_days))
    return sorted(
        (relief for relief in tried if relief.late_by_days < days.late_by_days), key=lambda relief: relief.late_by_days
    )


def _first(case: LateCase, days: WorkPlan) -> str:
    """The order or step that cannot wait."""
    today = case.now.date()
    urgent = [due.part for due in days.orders if due.latest <= today]
    if urgent:
        more = f" and {len(urgent) - 2} more" if len(urgent) > 2 else ""
        return f"Order today: {'; '.join(urgent[:2])}{more}."
    if days.orders:
        due = days.orders[0]
        return f"Next: order the {due.part} by {due.latest:%A, %d %B}."
    titles = {step.id: step.title for step in case.steps}
    return f"Next, on {days.days[0].date:%A, %d %B}: {titles[days.days[0].steps[0]]}." if days.days else ""


Change = Callable[[LateCase], LateCase]


def _changes(case: LateCase) -> Iterator[tuple[str, Change]]:
    """What might help, in words, and how the question is changed by it."""
    yield "one more person", lambda a: replace(a, hours=replace(a.hours, people=a.hours.people + 1))
    yield "one hour more each day", _longer
    if any(order.days > EXPRESS_DAYS and not order.placed for order in case.orders):
        yield f"orders that are here in {EXPRESS_DAYS:.0f} days", _express
    for kind, words in _CURES.items():
        if any(step.kind == kind and step.wait for step in case.steps):
            yield words, partial(_without_wait, kind=kind)


_CURES = {
    "locker": "lock nuts instead of locker, which needs no day to cure",
    "bearing": "bearings pressed in instead of glued",
}


def _longer(case: LateCase) -> LateCase:
    weekdays = tuple(min(DAY_H, hours + 1.0) for hours in case.hours.weekdays)
    return replace(case, hours=replace(case.hours, weekdays=weekdays))


def _express(case: LateCase) -> LateCase:
    quick = [order if order.placed else replace(order, days=min(order.days, EXPRESS_DAYS)) for order in case.orders]
    return replace(case, orders=quick)


def _without_wait(case: LateCase, kind: str) -> LateCase:
    return replace(case, steps=[replace(step, wait=0.0) if step.kind == kind else step for step in case.steps])
