"""What a plan that is late says of itself, and what would help."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import partial

from ydrometer.build.hours import Hours
from ydrometer.build.plan import Order, Plan, plan
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
    orders: Sequence[Order]
    event: datetime
    now: datetime
    hours: Hours
    done: Collection[str] = ()

    def plan(self) -> Plan:
        """The plan itself."""
        return plan(self.steps, self.orders, self.event, self.now, self.hours, self.done)


def sentence(asked: LateCase, found: Plan) -> str:
    """How the plan stands, and what to do first.

    Args:
        asked: from which it was made.
        found: the plan.
    """
    first = _first(asked, found)
    if not found.late_by_days:
        return f"In time. {first}" if first else "In time: all is done."
    days = "1 day" if found.late_by_days == 1 else f"{found.late_by_days} days"
    return f"Late by {days}. {first}"


def reliefs(asked: LateCase, found: Plan) -> list[Relief]:
    """Single changes that make a late plan less late, the best first.

    Args:
        asked: from which it was made.
        found: the plan.
    """
    if not found.late_by_days:
        return []
    changes = list(_changes(asked))
    tried = [Relief(words, change(asked).plan().late_by_days) for words, change in changes]
    together = asked
    for _, change in changes:
        together = change(together)
    tried.append(Relief("all of these", together.plan().late_by_days))
    return sorted((one for one in tried if one.late_by_days < found.late_by_days), key=lambda one: one.late_by_days)


def _first(asked: LateCase, found: Plan) -> str:
    """The order or step that cannot wait."""
    today = asked.now.date()
    urgent = [due.part for due in found.orders if due.latest <= today]
    if urgent:
        more = f" and {len(urgent) - 2} more" if len(urgent) > 2 else ""
        return f"Order today: {'; '.join(urgent[:2])}{more}."
    if found.orders:
        due = found.orders[0]
        return f"Next: order the {due.part} by {due.latest:%A, %d %B}."
    titles = {step.id: step.title for step in asked.steps}
    return f"Next, on {found.days[0].date:%A, %d %B}: {titles[found.days[0].steps[0]]}." if found.days else ""


Change = Callable[[LateCase], LateCase]


def _changes(asked: LateCase) -> Iterator[tuple[str, Change]]:
    """What might help, in words, and how the question is changed by it."""
    yield "one more person", lambda a: replace(a, hours=replace(a.hours, people=a.hours.people + 1))
    yield "one hour more each day", _longer
    if any(order.days > EXPRESS_DAYS and not order.placed for order in asked.orders):
        yield f"orders that are here in {EXPRESS_DAYS:.0f} days", _express
    for kind, words in _CURES.items():
        if any(step.kind == kind and step.wait for step in asked.steps):
            yield words, partial(_without_wait, kind=kind)


_CURES = {
    "locker": "lock nuts instead of locker, which needs no day to cure",
    "bearing": "bearings pressed in instead of glued",
}


def _longer(asked: LateCase) -> LateCase:
    weekdays = tuple(min(DAY_H, hours + 1.0) for hours in asked.hours.weekdays)
    return replace(asked, hours=replace(asked.hours, weekdays=weekdays))


def _express(asked: LateCase) -> LateCase:
    quick = [one if one.placed else replace(one, days=min(one.days, EXPRESS_DAYS)) for one in asked.orders]
    return replace(asked, orders=quick)


def _without_wait(asked: LateCase, kind: str) -> LateCase:
    return replace(asked, steps=[replace(step, wait=0.0) if step.kind == kind else step for step in asked.steps])
