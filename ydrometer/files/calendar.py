"""A plan as an iCalendar file: orders as all-day entries, everybody's work, what is left alone, and the event."""

from __future__ import annotations

import uuid
from collections import Counter
from collections.abc import Iterator, Mapping
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event, vText

from ydrometer.base.reading import one_line
from ydrometer.build.step import RECHECK
from ydrometer.screens.build_shown import BuildShown, StepShown
from ydrometer.screens.days_shown import DaysShown

NAMESPACE = uuid.UUID("5a17a45b-0000-4000-8000-00000000ca1e")
HOUR_S = 3600.0
DOES = {"charge": "charges", "make": "prints"}
"""What something does while it is left alone, by the kind of the step before."""
RUNNING = (RECHECK, "run")
"""Kinds of steps after which an hour of running is waited for, which no calendar knows."""


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
    plan, name = shown.plan, one_line(name)
    dates.add("name", vText(f"{name}, build"))
    if plan is not None:
        dates.add_component(_event(f"{key} event", plan.event, plan.event + timedelta(hours=1), f"{name}: event"))
        for due in plan.orders:
            dates.add_component(_day(f"{key} order {due.part}", due.latest, f"{name}: order {due.part} by today"))
        for entry in _shifts(name, key, plan, {step.id: step for step in shown.steps}):
            dates.add_component(entry)
        for entry in _waits(name, key, shown.steps):
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


def _shifts(name: str, key: str, plan: DaysShown, steps: Mapping[str, StepShown]) -> Iterator[Event]:
    """Work without a break; of several people each has entries of their own, beside each other."""
    several = any(shift.person > 1 for shift in plan.shifts)
    numbers: Counter[tuple[date, int]] = Counter()
    for shift in plan.shifts:
        day = (shift.start.date(), shift.person)
        numbers[day] += 1
        who = f", person {shift.person}" if several else ""
        minutes = (shift.end - shift.start) / timedelta(minutes=1)
        more = "\n".join(dict.fromkeys(steps[id].title for id in shift.steps if id in steps))
        uid = f"{key} day {day[0]} {shift.person} {numbers[day]}"
        yield _event(uid, shift.start, shift.end, f"{name}: build{who}, {minutes:.0f} min", more)


def _waits(name: str, key: str, steps: list[StepShown]) -> Iterator[Event]:
    """What has to be left alone for an hour or more, from when it is done to the true end."""
    for step in steps:
        if step.end is not None and step.wait >= HOUR_S and step.kind not in RUNNING:
            words = f"{name}: leave it, it {DOES.get(step.kind, 'cures')} ({step.about or step.title})"
            yield _event(f"{key} wait {step.id}", step.end, step.end + timedelta(seconds=step.wait), words, step.title)
