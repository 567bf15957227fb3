"""What a plan that is late says of itself, and what would help."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from ydrometer.build.hours import Hours
from ydrometer.build.plan import Order, Plan, plan
from ydrometer.build.step import Step

EXPRESS_DAYS = 2.0
"""Days that an order takes which is paid for."""


@dataclass(frozen=True, slots=True)
class Relief:
    """A change that helps: in words, and by how many days the plan is late with it."""

    words: str
    late_by_days: int


@dataclass(frozen=True, slots=True)
class Asked:
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


def sentence(asked: Asked, found: Plan) -> str:
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


def reliefs(asked: Asked, found: Plan) -> list[Relief]:
    """Single changes that make a late plan less late, the best first.

    Args:
        asked: from which it was made.
        found: the plan.
    """
    if not found.late_by_days:
        return []
    tried = [Relief(words, changed.plan().late_by_days) for words, changed in _changes(asked)]
    return sorted((one for one in tried if one.late_by_days < found.late_by_days), key=lambda one: one.late_by_days)


def _first(asked: Asked, found: Plan) -> str:
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


def _changes(asked: Asked) -> Iterator[tuple[str, Asked]]:
    people = replace(asked.hours, people=asked.hours.people + 1)
    yield "one more person", replace(asked, hours=people)
    longer = tuple(min(24.0, hours + 1.0) for hours in asked.hours.weekdays)
    yield "one hour more each day", replace(asked, hours=replace(asked.hours, weekdays=longer))
    slow = max((one for one in asked.orders if not one.placed), key=lambda order: order.days, default=None)
    if slow is not None and slow.days > EXPRESS_DAYS:
        quick = [one if one.placed else replace(one, days=min(one.days, EXPRESS_DAYS)) for one in asked.orders]
        yield (
            f"orders that are here in {EXPRESS_DAYS:.0f} days, or bought over the counter",
            replace(asked, orders=quick),
        )
    if any(step.kind == "locker" and step.wait for step in asked.steps):
        dry = [replace(step, wait=0.0) if step.kind == "locker" else step for step in asked.steps]
        yield "lock nuts instead of locker, which needs no day to cure", replace(asked, steps=dry)
    if any(step.kind == "bearing" and step.wait for step in asked.steps):
        pressed = [replace(step, wait=0.0) if step.kind == "bearing" else step for step in asked.steps]
        yield "bearings pressed in instead of glued", replace(asked, steps=pressed)
