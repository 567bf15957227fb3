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
    dates = Calendar()
    dates.add("prodid", "-//Ydrometer//Build//EN")
    dates.add("version", "2.0")
    dates.add("name", f"{name}, build")
    plan = shown.plan
    if plan is not None:
        dates.add_component(_event(f"{key} event", plan.event, plan.event + timedelta(hours=1), f"{name}: event"))
        for due in plan.orders:
            dates.add_component(_day(f"{key} order {due.part}", due.latest, f"{name}: order {due.part} by today"))
        for entry in _evenings(name, key, plan, {step.id: step for step in shown.steps}):
            dates.add_component(entry)
        for entry in _cures(name, key, shown.steps):
            dates.add_component(entry)
    return bytes(dates.to_ical())


def _event(key: str, start: datetime, end: datetime, words: str, more: str = "") -> Event:
    """An entry in local time, wherever it is read."""
    event = _entry(key, words, more)
    event.add("dtstart", start)
    event.add("dtend", end)
    return event


def _day(key: str, day: date, words: str) -> Event:
    event = _entry(key, words, "")
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    return event


def _entry(key: str, words: str, more: str) -> Event:
    event = Event()
    event.add("uid", f"{uuid.uuid5(NAMESPACE, key)}@ydrometer")
    event.add("dtstamp", datetime.now(UTC))
    event.add("summary", words)
    if more:
        event.add("description", more)
    return event


def _evenings(name: str, key: str, plan: DaysShown, steps: Mapping[str, StepShown]) -> list[Event]:
    """Each day with work, from its first step on."""
    events = []
    for day in plan.days:
        known = [steps[id] for id in day.steps if id in steps]
        starts = [step.start for step in known if step.start is not None and step.start.date() == day.date]
        start = min(starts, default=datetime.combine(day.date, datetime.min.time()))
        more = "\n".join(step.title for step in known)
        words = f"{name}: build, {day.minutes:.0f} min"
        events.append(_event(f"{key} day {day.date}", start, start + timedelta(minutes=day.minutes), words, more))
    return events


def _cures(name: str, key: str, steps: list[StepShown]) -> list[Event]:
    """What has to be left alone for most of a day."""
    events = []
    for step in steps:
        if step.start is not None and step.wait >= DAY_S / 2:
            start = step.start + timedelta(minutes=step.minutes)
            words = f"{name}: leave it, it cures ({step.about or step.kind})"
            events.append(
                _event(f"{key} wait {step.id}", start, start + timedelta(seconds=step.wait), words, step.title)
            )
    return events
