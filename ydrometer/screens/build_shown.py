"""What the station Build shows: steps with what was done, what is next, what is loose, and the days to the event."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any

from ydrometer.build.line import Line
from ydrometer.build.making import jobs
from ydrometer.build.own import with_own
from ydrometer.build.parts_list import PartsList, makings
from ydrometer.build.plan import pace, paced
from ydrometer.build.progress import (
    Condition,
    Done,
    Held,
    Tick,
    Touched,
    closers,
    conditions,
    held_back,
    ledger,
    ready,
    rechecks,
)
from ydrometer.build.step import RECHECK, SIGNED, Step
from ydrometer.build.steps import steps_of
from ydrometer.build.workshop import workshop
from ydrometer.document.design import Document
from ydrometer.screens.days_shown import DaysShown, PlannedWork, days_shown, planned
from ydrometer.screens.parts_shown import BenchKnown, listed
from ydrometer.screens.step_entries import Entry, changes, ticks


@dataclass(frozen=True, slots=True)
class Finding:
    """Something that an inspection has found at a step: worn, loosened …, with the day."""

    step: str
    words: str
    on: date


@dataclass(frozen=True, slots=True)
class Site:
    """What is known of a build beside its design.

    Attributes:
        bench: parts, book, what was said of lines. entries: of steps, the oldest first. findings: of inspections.
        photos: ids of photos by step. now: local time.
    """

    bench: BenchKnown
    now: datetime
    entries: Sequence[Entry] = ()
    findings: Sequence[Finding] = ()
    photos: Mapping[str, Sequence[str]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Reason:
    """Why a step is held back, the step that would help, empty where none would, and until when time alone does."""

    words: str
    step: str
    until: datetime | None


@dataclass(frozen=True, slots=True)
class LooseShown:
    """A line of the ledger: what is loose, and the steps that left it so and close it."""

    id: str
    words: str
    opened_by: str
    closed_by: str


@dataclass(frozen=True, slots=True)
class Recheck:
    """What is looked at again after the first runs: the step that closed or set it, and words."""

    step: str
    words: str


@dataclass(frozen=True, slots=True)
class Handled:
    """A wheel of the drawing that a step handles, or with an empty `member` a box or source, by its path."""

    path: str
    member: str


@dataclass(frozen=True, slots=True)
class StepShown:
    """A step as it is shown, see `build.step.Step`.

    Attributes:
        marks: what of the drawing it handles. looks: what is looked at again in it, or of a signature what was done
        though it was held back. opens: what it leaves loose. by, at, took, value, note, reason: what was said of it
        last. later: why not now, empty where nobody has said so. conditions: what has to be so before it, for a device
        that has no connection. held: what of it is not so. made_from: the design's numbers that it is about. once_more:
        why it has to be done again, empty where it has not; again: ids of steps to be opened for that. found: of
        inspections, the newest first. start, end: planned. critical: on the longest way.
    """

    id: str
    title: str
    why: str
    kind: str
    unit: int
    minutes: float
    about: str
    marks: list[Handled]
    tools: list[str]
    cautions: list[str]
    what: str
    measured_in: str
    wait: float
    own: bool
    looks: list[Recheck]
    opens: list[LooseShown]
    done: bool
    by: str
    at: datetime | None
    took: float | None
    value: str
    note: str
    reason: str
    later: str
    conditions: list[Condition]
    held: list[Reason]
    made_from: list[str]
    once_more: str
    again: list[str]
    found: list[str]
    photos: list[str]
    start: datetime | None
    end: datetime | None
    critical: bool


@dataclass(frozen=True, slots=True)
class BuildShown:
    """The station.

    Attributes:
        steps: in their order. next: ids of those that can be done now, the nearest first, those that wait last.
        loose: the ledger. plan: None without an event. pace: how much longer this builder takes than assumed; `judged`
        from how many steps. signed: when it was signed off, and by whom.
    """

    steps: list[StepShown]
    next: list[str]
    loose: list[LooseShown]
    plan: DaysShown | None
    pace: float
    judged: int
    done: int
    signed_at: datetime | None
    signed_by: str


@dataclass(frozen=True, slots=True)
class _Built:
    """The line and the parts of a design, and its steps with the builder's own between them."""

    line: Line
    parts: PartsList
    steps: list[Step]


def _built(document: Document, bench: BenchKnown) -> _Built:
    shop = workshop(document)
    parts = listed(shop, bench)
    return _Built(shop.line, parts, with_own(steps_of(shop, jobs(makings(parts.lines))), bench.book.steps))


def steps_for(document: Document, bench: BenchKnown) -> list[Step]:
    """The steps of a design with the builder's own between them.

    Args:
        document: as read.
        bench: whose bin says what has to be made, and whose book has own steps.
    """
    return _built(document, bench).steps


def build_shown(document: Document, site: Site) -> BuildShown:
    """What the station shows of a design.

    Args:
        document: as read.
        site: what is known of its build.
    """
    built = _built(document, site.bench)
    steps, wanted = built.steps, conditions(built.steps)
    last = {entry.step: entry for entry in site.entries}
    done = ticks(site.entries)
    changed = changes(steps, done, site.entries)
    signed = next((step.id for step in steps if step.kind == SIGNED and step.id in done), "")
    if signed and not _stands(last[signed], changed, held_back(wanted[signed], Done(done, changed), site.now)):
        del done[signed]
    progress = Done(done, changed)
    known = {step.id: step for step in steps}
    taken = [(e.minutes, known[e.step].minutes) for e in last.values() if e.minutes and e.step in known]
    factor = pace(taken)
    days = planned(paced(steps, factor), built.parts, site.bench, site.now, done)
    return BuildShown(
        steps=_shown(built, site, last, done, wanted, changed, days),
        next=ready(wanted, progress, site.now),
        loose=[LooseShown(entry.id, entry.words, entry.opened_by, entry.closed_by) for entry in ledger(steps, done)],
        plan=days_shown(days),
        pace=factor,
        judged=len(taken),
        done=sum(step.id in done for step in steps),
        signed_at=last[signed].at if signed in done else None,
        signed_by=last[signed].by if signed in done else "",
    )


def refused(steps: Sequence[Step], entries: Sequence[Entry], step: str, at: datetime, value: str = "") -> list[Reason]:
    """Why a step cannot be ticked; nothing where it can.

    Args:
        steps: of the design, see `steps_for`.
        entries: what was said of them, the oldest first.
        step: its id; of one that the design does not have, nothing is said: it was ticked before a change.
        at: when it was done, local time.
        value: what was measured, as typed.
    """
    done = ticks(entries)
    reasons = _reasons(conditions(steps).get(step, ()), Done(done, changes(steps, done, entries)), at)
    record = next((known.record for known in steps if known.id == step), None)
    wrong = record.beside(value) if record else ""
    return [*reasons, *([Reason(wrong, step, None)] if wrong else [])]


def _stands(signature: Entry, changed: Collection[str], held: Sequence[Held]) -> bool:
    """Whether a signature is of the state that is there now. One that was given all the same, with a reason, was given
    for what held it back."""
    return signature.step not in changed and (not held or bool(signature.reason.strip()))


def _reasons(wanted: Sequence[Condition], done: Done, now: datetime) -> list[Reason]:
    return [Reason(held.words, held.step, held.until) for held in held_back(wanted, done, now)]


def _shown(
    built: _Built,
    site: Site,
    last: Mapping[str, Entry],
    done: Mapping[str, Tick],
    wanted: Mapping[str, Sequence[Condition]],
    changed: Mapping[str, Touched],
    days: PlannedWork | None,
) -> list[StepShown]:
    """Every step with all that is known of it."""
    steps = built.steps
    progress = Done(done, changed)
    plan = days.plan if days else None
    starts, ends, critical = (plan.starts, plan.ends, set(plan.critical)) if plan else ({}, {}, set())
    closed_by = closers(steps)
    looks = {
        RECHECK: [Recheck(step, words) for step, words in rechecks(steps)],
        SIGNED: _overruled(steps, done, last),
    }
    return [
        StepShown(
            **_of_step(step, built.line, closed_by),
            **_of_entry(last.get(step.id)),
            **_of_change(changed.get(step.id)),
            looks=looks.get(step.kind, []),
            done=step.id in done,
            conditions=list(wanted[step.id]),
            held=[] if progress.stands(step.id) else _reasons(wanted[step.id], progress, site.now),
            found=_found(step.id, site.findings),
            photos=list(site.photos.get(step.id, ())),
            start=starts.get(step.id),
            end=ends.get(step.id),
            critical=step.id in critical,
        )
        for step in steps
    ]


def _overruled(steps: Sequence[Step], done: Collection[str], last: Mapping[str, Entry]) -> list[Recheck]:
    """Steps that were done though something held them back, each with the reason: who signs has to know."""
    said = [(step, last[step.id]) for step in steps if step.id in done and last[step.id].reason.strip()]
    return [Recheck(step.id, f"{step.title}: “{entry.reason.strip()}” ({entry.by})") for step, entry in said]


def _of_step(step: Step, line: Line, closed_by: Mapping[str, str]) -> dict[str, Any]:
    """What a step is, whatever was said of it."""
    record = step.record
    return {
        "id": step.id,
        "title": step.title,
        "why": step.why,
        "kind": step.kind,
        "unit": step.unit,
        "minutes": step.minutes,
        "about": step.about,
        "made_from": list(step.made_from),
        "marks": _marks(step, line),
        "tools": list(step.tools),
        "cautions": list(step.cautions),
        "what": record.what if record else "",
        "measured_in": record.unit if record else "",
        "wait": step.wait,
        "own": step.kind == "own",
        "opens": [LooseShown(entry.id, entry.words, step.id, closed_by.get(entry.id, "")) for entry in step.opens],
    }


def _of_entry(said: Entry | None) -> dict[str, Any]:
    """What was said of a step last."""
    if said is None:
        return {"by": "", "at": None, "took": None, "value": "", "note": "", "reason": "", "later": ""}
    return {
        "by": said.by,
        "at": said.at,
        "took": said.minutes,
        "value": said.value,
        "note": said.note,
        "reason": said.reason,
        "later": said.reason if said.doing == "later" else "",
    }


def _of_change(touched_: Touched | None) -> dict[str, Any]:
    """What a change of the design has done to a step that was done."""
    if touched_ is None:
        return {"once_more": "", "again": []}
    return {"once_more": touched_.why, "again": list(touched_.again)}


def _marks(step: Step, line: Line) -> list[Handled]:
    """What of the drawing a step handles; one that names no wheel is about all of its stages."""
    named = [wheel for wheel in line.wheels if wheel.name in step.parts]
    wheels = named or [wheel for wheel in line.wheels if wheel.stage in step.parts]
    bare = [path for path in step.parts if path in line.sources or any(b.path == path for b in line.stages)]
    members = [Handled(wheel.stage, wheel.name.removeprefix(wheel.stage).strip()) for wheel in wheels]
    return [*members, *(Handled(path, "") for path in bare)]


def _found(step: str, findings: Sequence[Finding]) -> list[str]:
    """What inspections have found at a step, the newest first, the same words once with how often."""
    own = sorted(
        (finding for finding in findings if finding.step == step), key=lambda finding: finding.on, reverse=True
    )
    counts: dict[str, int] = {}
    for finding in own:
        counts[finding.words] = counts.get(finding.words, 0) + 1
    return [words if number == 1 else f"{words} ({number} times)" for words, number in counts.items()]
