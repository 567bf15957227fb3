"""How far a build is: what is done, what is loose, what holds a step back, what a change of the design touches."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ydrometer.build.order import before
from ydrometer.build.step import Step

_NUMBERS = re.compile(r"\d+(?:\.\d+)?")
SIGNED = "sign_off"
"""The kind of step that asks for an empty ledger."""


@dataclass(frozen=True, slots=True)
class Tick:
    """That a step was done: when, for which wheels and stages (`about`), under which title."""

    at: datetime
    about: str
    title: str


@dataclass(frozen=True, slots=True)
class Open:
    """A line of the ledger: what is loose, the step that left it so, and the one that closes it."""

    id: str
    words: str
    opened_by: str
    closed_by: str


@dataclass(frozen=True, slots=True)
class Held:
    """Why a step cannot be done yet: in words, and whether somebody may overrule it with a reason."""

    words: str
    step: str


@dataclass(frozen=True, slots=True)
class Touched:
    """A step that was done for something else than the design has now.

    Attributes:
        step: its id. was, now: for what it was done, and what it would be done for. again: ids of done steps behind it
        that would have to be done once more, the last one first, to get there.
    """

    step: str
    was: str
    now: str
    again: tuple[str, ...]


def ledger(steps: Sequence[Step], done: Collection[str]) -> list[Open]:
    """What is loose: opened by a step that is done, closed by one that is not.

    Args:
        steps: in their order.
        done: ids of those that are done.
    """
    closers = {id: step.id for step in steps for id in step.closes}
    return [
        Open(loose.id, loose.words, step.id, closers.get(loose.id, ""))
        for step in steps
        if step.id in done
        for loose in step.opens
        if closers.get(loose.id) not in done
    ]


def held_back(step: Step, steps: Sequence[Step], done: Collection[str]) -> list[Held]:
    """What keeps a step from being done now, the nearest first; nothing where it may be.

    Args:
        step: of them.
        steps: all.
        done: ids of those that are done.
    """
    known = {step.id: step for step in steps}
    missing = [known[id] for id in step.needs if id in known and id not in done]
    reasons = [
        Held(f"it buries this, which is not done: {earlier.title}", earlier.id)
        for earlier in missing
        if earlier.id in step.buries
    ]
    reasons += [
        Held(f"needs first: {earlier.title}", earlier.id) for earlier in missing if earlier.id not in step.buries
    ]
    if step.powers or step.buries or step.kind == SIGNED:
        reasons += [Held(f"loose: {entry.words}", entry.closed_by) for entry in _in_the_way(step, steps, done)]
    return reasons


def _in_the_way(step: Step, steps: Sequence[Step], done: Collection[str]) -> list[Open]:
    """What must not be loose for a step: everything under power or a signature, else what it would bury."""
    everything = ledger(steps, done)
    if not step.buries:
        return everything
    return [entry for entry in everything if entry.closed_by in step.buries or entry.opened_by in step.buries]


@dataclass(frozen=True, slots=True)
class Ready:
    """A step that can be done, from when on: None where nothing is being waited for, else until when, and for what."""

    step: str
    until: datetime | None
    waits_for: str


def ready(steps: Sequence[Step], done: Mapping[str, Tick], now: datetime) -> list[Ready]:
    """Steps whose needs are met, in their order, those that need not wait first.

    Args:
        steps: in their order.
        done: by the ids of steps, that they are done.
        now: against which waits are judged.
    """
    known = {step.id: step for step in steps}
    waiting = [_ready(step, known, done, now) for step in steps if step.id not in done and _met(step, known, done)]
    return sorted(waiting, key=lambda entry: entry.until or now)


def _met(step: Step, known: Mapping[str, Step], done: Collection[str]) -> bool:
    return all(need in done for need in step.needs if need in known)


def _ready(step: Step, known: Mapping[str, Step], done: Mapping[str, Tick], now: datetime) -> Ready:
    waits = [
        (done[need].at + timedelta(seconds=known[need].wait), known[need].title)
        for need in step.needs
        if need in known and known[need].wait
    ]
    until, title = max(waits, default=(now, ""))
    return Ready(step.id, until, title) if until > now else Ready(step.id, None, "")


def touched(steps: Sequence[Step], done: Mapping[str, Tick]) -> list[Touched]:
    """Steps that were done for something else than the design has now, with what has to be opened again to get there.

    Args:
        steps: of the design as it is.
        done: by the ids of steps, that they are done.
    """
    earlier = before(steps)
    return [
        Touched(step.id, was, now, tuple(_behind(step, steps, earlier, done)))
        for step in steps
        if step.id in done
        for was, now in _differs(step, done[step.id])
    ]


def _differs(step: Step, tick: Tick) -> Iterator[tuple[str, str]]:
    """For what a step was done and for what it would be now: parts that took the place of others, else other numbers.

    Words alone do not count: they may be put better without anything having changed at the bench.
    """
    was, now = tick.about.split(", "), step.about.split(", ")
    gone, new = (
        [was_made for was_made in was if was_made not in now],
        [is_made for is_made in now if is_made not in was],
    )
    if gone and new and tick.about:
        yield ", ".join(gone), ", ".join(new)
    elif tick.title and _NUMBERS.findall(tick.title) != _NUMBERS.findall(step.title):
        yield tick.title, step.title


def _behind(
    step: Step, steps: Sequence[Step], earlier: Mapping[str, frozenset[str]], done: Collection[str]
) -> Iterator[str]:
    """Done steps after one that close, bury or set what it made, the last one first."""
    for later in reversed(steps):
        same = later.place == step.place and later.unit == step.unit
        if later.id in done and step.id in earlier[later.id] and (same or set(later.buries) & {step.id}):
            yield later.id


def rechecks(steps: Sequence[Step]) -> list[tuple[str, str]]:
    """What is looked at again after the first runs: everything that was closed, and every play and tension.

    Args:
        steps: in their order.

    Returns:
        Ids of steps with words of what to look at.
    """
    words = {loose.id: loose.words for step in steps for loose in step.opens}
    again = [(step.id, words[id]) for step in steps for id in step.closes if id in words]
    measured = [(s.id, _measured(s)) for s in steps if s.record and s.kind in ("gear", "belt", "friction")]
    return [*again, *((id, what) for id, what in measured)]


def _measured(step: Step) -> str:
    """What a step measures, with the wheels and the unit that it is of."""
    unit = f", unit {step.unit}" if step.unit else ""
    return f"{step.record.what if step.record else ''} ({step.about}{unit})"
