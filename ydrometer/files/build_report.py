"""What `./ydro build` prints: the steps of a design in their order, and the days to an event."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from ydrometer.build.bin import bin_of
from ydrometer.build.hours import Hours
from ydrometer.build.making import jobs
from ydrometer.build.parts_list import makings, orders, parts_list
from ydrometer.build.plan import WorkPlan, plan
from ydrometer.build.step import Step
from ydrometer.build.steps import steps_of
from ydrometer.build.workshop import workshop
from ydrometer.document.design import Document

FORMAT = "ydrometer-build"


@dataclass(frozen=True, slots=True)
class Deadline:
    """The event by which all has to be done, from when on people work, and when."""

    event: datetime
    now: datetime
    hours: Hours


def report(
    document: Document, bin_: Sequence[Mapping[str, Any]] = (), deadline: Deadline | None = None
) -> dict[str, Any]:
    """The answer as JSON; waits in s, work in minutes.

    Args:
        document: a design as read.
        bin_: documents of the parts of a bin, read before; what it does not have is ordered.
        deadline: for the plan; None for the steps alone.

    Raises:
        ValueError: nobody works on any day.
    """
    shop = workshop(document)
    parts = parts_list(shop, bin_of(bin_))
    steps = steps_of(shop, jobs(makings(parts.lines)))
    schedule = None
    if deadline is not None:
        schedule = _plan(plan(steps, orders(parts), deadline.event, deadline.now, deadline.hours))
    return {"format": FORMAT, "version": 1, "steps": [_step(step) for step in steps], "plan": schedule}


def _step(step: Step) -> dict[str, Any]:
    return {
        "id": step.id,
        "title": step.title,
        "why": step.why,
        "needs": list(step.needs),
        "opens": [{"id": loose.id, "words": loose.words} for loose in step.opens],
        "closes": list(step.closes),
        "buries": list(step.buries),
        "wait": step.wait,
        "parts": list(step.parts),
        "tools": list(step.tools),
        "minutes": step.minutes,
        "record": {"what": step.record.what, "unit": step.record.unit} if step.record else None,
        "cautions": [*(f"Does not go together, see Fit: {text}" for text in step.clashes), *step.cautions],
        "kind": step.kind,
    }


def _plan(schedule: WorkPlan) -> dict[str, Any]:
    return {
        "event": schedule.event.isoformat(timespec="minutes"),
        "days": [
            {"date": day.date.isoformat(), "minutes": day.minutes, "steps": list(day.steps)} for day in schedule.days
        ],
        "orders": [{"part": due.part, "latest": due.latest.isoformat()} for due in schedule.orders],
        "late_by_days": schedule.late_by_days,
        "critical": schedule.critical,
    }
