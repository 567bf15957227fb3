"""A plan as an iCalendar file: orders as all-day entries, evenings of work, what cures over night, and the event."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event

from ydrometer.screens.build_shown import BuildShown, StepShown
from ydrometer.screens.days_shown import DaysShown

NAMESPACE = uuid.UUID("5a17a45b-0000-4000-8000-00000000ca1e")
DAY_S = 86_400.0
MOST_NAMED = 6


def calendar(name: str, key: str, shown: BuildShown) -> bytes:
    """The file (RFC 5545, Internet Calendaring and Scheduling Core Object Specification).

    What stays the same thing keeps its UID: a calendar that reads the file again moves it and does not add another.

    Args:
        name: of the vehicle.
        key: that tells it from others for good.
        shown: what the station shows; without a plan the calendar is empty.
    """
    made = Calendar()
    made.add("prodid", "-//Ydrometer//Build//EN")
    made.add("version", "2.0")
    made.add("name", f"{name}, build")
    plan = shown.plan
    if plan is not None:
        made.add_component(_event(f"{key} event", plan.event, plan.event + timedelta(hours=1), f"{name}: event"))
        for due in plan.orders:
            made.add_component(_day(f"{key} order {due.part}", due.latest, f"{name}: order {due.part} by today"))
        for entry in _evenings(name, key, plan, {step.id: step for step in shown.steps}):
            made.add_component(entry)
        for entry in _cures(name, key, shown.steps):
            made.add_component(entry)
    return bytes(made.to_ical())


def _event(key: str, start: datetime, end: datetime, words: str, more: str = "") -> Event:
    """An entry in local time, wherever it is read."""
    made = _entry(key, words, more)
    made.add("dtstart", start)
    made.add("dtend", end)
    return made


def _day(key: str, day: date, words: str) -> Event:
    made = _entry(key, words, "")
    made.add("dtstart", day)
    made.add("dtend", day + timedelta(days=1))
    return made


def _entry(key: str, words: str, more: str) -> Event:
    made = Event()
    made.add("uid", f"{uuid.uuid5(NAMESPACE, key)}@ydrometer")
    made.add("dtstamp", datetime.now(UTC))
    made.add("summary", words)
    if more:
        made.add("description", more)
    return made


def _evenings(name: str, key: str, plan: DaysShown, steps: Mapping[str, StepShown]) -> list[Event]:
    """Each day with work, from its first step on."""
    made = []
    for day in plan.days:
        known = [steps[id_] for id_ in day.steps if id_ in steps]
        starts = [step.start for step in known if step.start is not None and step.start.date() == day.date]
        start = min(starts, default=datetime.combine(day.date, datetime.min.time()))
        more = "\n".join(step.title for step in known)
        words = f"{name}: build, {day.minutes:.0f} min"
        made.append(_event(f"{key} day {day.date}", start, start + timedelta(minutes=day.minutes), words, more))
    return made


def _cures(name: str, key: str, steps: list[StepShown]) -> list[Event]:
    """What has to be left alone for most of a day."""
    made = []
    for step in steps:
        if step.start is not None and step.wait >= DAY_S / 2:
            start = step.start + timedelta(minutes=step.minutes)
            words = f"{name}: leave it, it cures ({step.about or step.kind})"
            made.append(_event(f"{key} wait {step.id}", start, start + timedelta(seconds=step.wait), words, step.title))
    return made
