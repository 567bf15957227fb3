"""How far a build is: what is done, what is loose, what holds a step back, what a change of the design touches."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ydrometer.build.order import before
from ydrometer.build.step import COMES_AGAIN, SIGNED, Step

_NUMBERS = re.compile(r"\d+(?:\.\d+)?")
_UNIT = re.compile(r" \((?:unit \d+|on each of the \d+ units)\)$")


@dataclass(frozen=True, slots=True)
class Tick:
    """That a step was done: when, for which wheels and stages (`about`), under which title, made from which numbers;
    ticks of before these were kept have none.
    """

    at: datetime
    about: str
    title: str
    made_from: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Open:
    """A line of the ledger: what is loose, the step that left it so, and the one that closes it."""

    id: str
    words: str
    opened_by: str
    closed_by: str


@dataclass(frozen=True, slots=True)
class Condition:
    """Something that has to be so before a step is done: another step is done, and what that waits for is over.

    Attributes:
        step: id of the other step; empty of what no step mends, but a change of the design. words: what is wrong while
        it is not done. wait: s that pass after it. waiting: what is wrong while they have not, empty where none have
        to. since: id of the step from which on the condition matters; empty where it always does.
    """

    step: str
    words: str
    wait: float
    waiting: str
    since: str


@dataclass(frozen=True, slots=True)
class Held:
    """Why a step cannot be done yet: in words, the step that would help, and until when it is waited for, None where
    waiting does not help. Somebody may overrule it with a reason.
    """

    words: str
    step: str
    until: datetime | None = None


@dataclass(frozen=True, slots=True)
class Touched:
    """A step that was done, and has to be done once more.

    Attributes:
        step: its id. why: the design has other numbers now, or something that it stands on was opened again; in words.
        again: ids of done steps behind it that would have to be done once more, the last one first, to get there.
    """

    step: str
    why: str
    again: tuple[str, ...]


def ledger(steps: Sequence[Step], done: Collection[str]) -> list[Open]:
    """What is loose: opened by a step that is done, closed by one that is not.

    Args:
        steps: in their order.
        done: ids of those that are done.
    """
    closed_by = closers(steps)
    return [
        Open(loose.id, loose.words, step.id, closed_by.get(loose.id, ""))
        for step in steps
        if step.id in done
        for loose in step.opens
        if closed_by.get(loose.id) not in done
    ]


def closers(steps: Sequence[Step]) -> dict[str, str]:
    """By the id of each thing that is left loose, the id of the step that closes it."""
    return {id: step.id for step in steps for id in step.closes}


def conditions(steps: Sequence[Step]) -> dict[str, tuple[Condition, ...]]:
    """What has to be so before each step: that Fit finds no clash there, what it would bury, what it needs, and what
    must not be loose.

    Args:
        steps: in their order.

    Returns:
        By the ids of steps, the nearest conditions first.
    """
    known = {step.id: step for step in steps}
    loose = _closings(steps)
    return {step.id: (*_clashing(step), *_needed(step, known), *_not_loose(step, loose)) for step in steps}


def _clashing(step: Step) -> Iterator[Condition]:
    return (Condition("", f"does not go together, see Fit: {text}", 0.0, "", "") for text in step.clashes)


def _needed(step: Step, known: Mapping[str, Step]) -> Iterator[Condition]:
    needs = [known[id] for id in step.needs if id in known]
    for need in sorted(needs, key=lambda need: need.id not in step.buries):
        words = "it buries this, which is not done" if need.id in step.buries else "needs first"
        waiting = f"not over yet: {need.title}" if need.wait else ""
        yield Condition(need.id, f"{words}: {need.title}", need.wait, waiting, "")
    if step.kind == SIGNED:
        # Whoever signs, signs for all of it.
        others = [other for other in known.values() if other.id not in (step.id, *step.needs)]
        yield from (Condition(other.id, f"needs first: {other.title}", 0.0, "", "") for other in others)


def _closings(steps: Sequence[Step]) -> list[Condition]:
    """That each thing is closed again, once it is open."""
    closed_by = closers(steps)
    return [
        Condition(closed_by.get(loose.id, ""), f"loose: {loose.words}", 0.0, "", step.id)
        for step in steps
        for loose in step.opens
    ]


def _not_loose(step: Step, loose: Sequence[Condition]) -> Iterator[Condition]:
    """Everything under power or a signature is closed, else what the step would bury."""
    if step.buries:
        yield from (entry for entry in loose if entry.step in step.buries or entry.since in step.buries)
    elif step.powers or step.kind == SIGNED:
        yield from loose


@dataclass(frozen=True, slots=True)
class Done:
    """What is done, by the ids of steps; and what of it stands, because it has not to be done once more."""

    ticks: Mapping[str, Tick]
    again: Collection[str] = ()

    def stands(self, step: str) -> bool:
        """Whether a step is done, and has not to be done once more: on that alone others may stand."""
        return step in self.ticks and step not in self.again


def held_back(wanted: Sequence[Condition], done: Done, now: datetime) -> list[Held]:
    """What keeps a step from being done now, the nearest first; nothing where it may be.

    Args:
        wanted: its conditions.
        done: what is done.
        now: against which waits are judged.
    """
    return [held for condition in wanted for held in _unmet(condition, done, now)]


def _unmet(condition: Condition, done: Done, now: datetime) -> Iterator[Held]:
    if condition.since:
        if condition.since in done.ticks and condition.step not in done.ticks:
            yield Held(condition.words, condition.step)
        return
    if not done.stands(condition.step):
        yield Held(condition.words, condition.step)
        return
    until = done.ticks[condition.step].at + timedelta(seconds=condition.wait)
    # A clock that is ahead makes nobody wait for what need not be waited for.
    if condition.wait and until > now:
        yield Held(condition.waiting, condition.step, until)


def ready(wanted: Mapping[str, Sequence[Condition]], done: Done, now: datetime) -> list[str]:
    """Ids of steps that nothing holds back but time, in their order, those that need not wait first.

    Args:
        wanted: conditions, by the ids of steps in their order.
        done: what is done.
        now: against which waits are judged.
    """
    held = {step: held_back(entries, done, now) for step, entries in wanted.items() if not done.stands(step)}
    waits = {step: [reason.until for reason in reasons if reason.until] for step, reasons in held.items()}
    free = [step for step, reasons in held.items() if len(waits[step]) == len(reasons)]
    return sorted(free, key=lambda step: max(waits[step], default=now))


def touched(steps: Sequence[Step], done: Mapping[str, Tick], opened: Mapping[str, datetime]) -> list[Touched]:
    """Steps that were done for something else than the design has now, that stand on what was opened again, or that
    come again after any change; with what has to be opened again to get there.

    Args:
        steps: of the design as it is.
        done: by the ids of steps, that they are done.
        opened: when a step that had been done was last undone, or done for something else.
    """
    earlier = before(steps)
    titles = {step.id: step.title for step in steps}
    changed = {step.id: why for step in steps if step.id in done for why in _differs(step, done[step.id])}
    rows = []
    for step in steps:
        if step.id not in done:
            continue
        stands_on = [id for id in titles if id in earlier[step.id]]
        why = changed.get(step.id) or _upset(step, stands_on, done[step.id].at, changed, opened, titles)
        if why:
            rows.append(Touched(step.id, why, tuple(_behind(step, steps, earlier, done))))
    return rows


def _upset(
    step: Step,
    stands_on: Sequence[str],
    at: datetime,
    changed: Collection[str],
    opened: Mapping[str, datetime],
    titles: Mapping[str, str],
) -> str:
    """Why a step whose own numbers are the same has to be done once more; empty where it has not."""
    since = next((id for id in stands_on if id in opened and opened[id] > at), "")
    if since:
        return f"Opened again since: “{titles[since]}”"
    other = next((id for id in stands_on if id in changed), "") if step.kind in COMES_AGAIN else ""
    return f"The design has changed since, at “{titles[other]}”" if other else ""


def _differs(step: Step, tick: Tick) -> Iterator[str]:
    """For which numbers a step was done and which the design has now.

    Words alone do not count: they may be put better without anything having changed at the bench. Of a tick of which
    no numbers were kept, its parts and the numbers in its title are compared.
    """
    was, now = tick.made_from, step.made_from
    if not was:
        was, now = tuple(filter(None, tick.about.split(", "))), tuple(filter(None, step.about.split(", ")))
        if set(was) == set(now) and tick.title and _numbers(tick.title) != _numbers(step.title):
            was, now = (tick.title,), (step.title,)
    gone, new = [fact for fact in was if fact not in now], [fact for fact in now if fact not in was]
    if gone or (new and was):
        yield f"Done for {', '.join(gone) or 'less'}; now {', '.join(new) or 'without'}"


def _numbers(title: str) -> list[str]:
    """The numbers in a title, but for that of its unit."""
    return _NUMBERS.findall(_UNIT.sub("", title))


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
