"""Changes to a build; each is told who acts. What was said of steps and lines is added, never changed or taken away."""

from __future__ import annotations

import contextlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4, uuid5

from django.db import transaction
from django.utils import timezone

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import MOST_ENTRIES, MOST_INSPECTIONS, MOST_TEMPLATES
from server.api.quotas import need_room
from server.api.stale import Stale
from server.builds.models import Build, InspectionEntry, PartEntry, StepEntry, StepTemplate
from server.builds.site import Clock, entry_of, site_of
from server.designs.models import Vehicle
from server.parts.actions import Change, change_parts
from server.runs.actions import NewRun, log_run, present_design
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError
from ydrometer.build.book import read_book
from ydrometer.build.inspection import read_inspection
from ydrometer.build.own import read_own
from ydrometer.build.power import SPIN
from ydrometer.build.step import Step
from ydrometer.document.design import Document
from ydrometer.files.parts_sheet import SaidInFile
from ydrometer.parts.read import read_part
from ydrometer.screens.build_shown import Reason, refused, steps_for
from ydrometer.screens.parts_shown import PartLine, PartsShown
from ydrometer.screens.step_entries import Entry

AHEAD = timedelta(minutes=10)
"""By how much a device's clock may run before the server's."""


@dataclass(frozen=True, slots=True)
class NewEntry:
    """What is said of a step, as it comes: see `StepEntry`."""

    id: UUID
    step: str
    doing: str
    at: datetime
    minutes: float | None = None
    value: str = ""
    note: str = ""
    reason: str = ""
    about: str = ""
    title: str = ""
    made_from: Sequence[str] = ()


@dataclass(frozen=True, slots=True)
class HeldBack:
    """An entry that was not taken, and why."""

    id: UUID
    reasons: list[Reason]


@allowed(EDITORS)
@transaction.atomic
def say_of_steps(
    user: User, vehicle: Vehicle, entries: Sequence[NewEntry], document: Document, clock: Clock
) -> list[HeldBack]:
    """Write down what is said of steps, in the order in which it was said; one that has come already is left as it is.

    A step that is held back, by what is loose or not done before it, is ticked only with a reason, which is kept.

    Returns:
        What was not taken.

    Raises:
        Refused: another vehicle has an entry of this id, or something is undone without a reason.
        Full: there are too many.
    """
    vehicle.lock()
    known = dict(StepEntry.objects.filter(pk__in=[entry.id for entry in entries]).values_list("pk", "vehicle"))
    if any(owner != vehicle.pk for owner in known.values()):
        raise Refused("An entry belongs to another vehicle: give it an id of its own.")
    new = [entry for entry in sorted(entries, key=lambda entry: entry.at) if entry.id not in known]
    need_room("entries", vehicle.step_entries.count() + len(new) - 1, MOST_ENTRIES, "start with a copy of the vehicle")
    site, back = site_of(vehicle, clock), []
    steps, said = steps_for(document, site.bench), list(site.entries)
    for entry in new:
        reasons = _held(entry, steps, said, clock)
        if reasons:
            back.append(HeldBack(entry.id, reasons))
            continue
        row = _step_entry(user, vehicle, entry)
        _log_spin(user, vehicle, entry)
        said.append(entry_of(row, clock))
    return back


def _held(new: NewEntry, steps: Sequence[Step], said: Sequence[Entry], clock: Clock) -> list[Reason]:
    if new.doing == "undone" and not new.reason.strip():
        raise Refused("Say why it is not done any more: the next one at the bench wants to know.")
    if new.doing == "later" and not new.reason.strip():
        raise Refused("Say why not now.")
    return (
        []
        if new.doing != "done" or new.reason.strip()
        else refused(steps, said, new.step, clock.local(new.at), new.value)
    )


def _step_entry(user: User, vehicle: Vehicle, new: NewEntry) -> StepEntry:
    return StepEntry.objects.create(
        id=new.id,
        vehicle=vehicle,
        step=new.step,
        doing=new.doing,
        at=min(new.at, timezone.now() + AHEAD),
        minutes=new.minutes,
        value=new.value,
        note=new.note,
        reason=new.reason,
        about=new.about,
        title=new.title,
        made_from=list(new.made_from),
        author=user,
    )


@allowed(EDITORS)
@transaction.atomic
def take_said(user: User, vehicle: Vehicle, steps: Sequence[NewEntry]) -> None:
    """Write down what was said elsewhere of steps of a vehicle that is new here; it was held against those of its day.

    Raises:
        Full: there are too many.
    """
    need_room("entries", vehicle.step_entries.count() + len(steps) - 1, MOST_ENTRIES)
    for raw_step in steps:
        _step_entry(user, vehicle, raw_step)


def _log_spin(user: User, vehicle: Vehicle, new: NewEntry) -> None:
    """Turns counted in the air are a run in the air, with its prediction; what is no number stays a note."""
    if new.step != SPIN or new.doing != "done" or not new.value.strip():
        return
    run = {"kind": "spin", "of": "wheel", "readings": [f"{new.value.strip()} rpm"], "note": "counted while building"}
    with contextlib.suppress(DocumentError):
        log_run(user, vehicle, NewRun(uuid5(new.id, "spin"), run, made_at=new.at), present_design(vehicle))


@dataclass(frozen=True, slots=True)
class NewPartEntry:
    """What is said of a line of the parts list, as it comes."""

    id: UUID
    key: str
    state: str
    at: datetime
    expected: date | None = None
    paid: float | None = None


@allowed(EDITORS)
@transaction.atomic
def say_of_parts(user: User, vehicle: Vehicle, entries: Sequence[NewPartEntry]) -> None:
    """Write down what is said of lines; one that has come already is left as it is.

    Raises:
        Refused: another vehicle has an entry of this id.
        Full: there are too many.
    """
    vehicle.lock()
    known = dict(PartEntry.objects.filter(pk__in=[entry.id for entry in entries]).values_list("pk", "vehicle"))
    if any(owner != vehicle.pk for owner in known.values()):
        raise Refused("An entry belongs to another vehicle: give it an id of its own.")
    new = [entry for entry in entries if entry.id not in known]
    need_room("entries", vehicle.part_entries.count() + len(new) - 1, MOST_ENTRIES, "start with a copy of the vehicle")
    PartEntry.objects.bulk_create(
        PartEntry(
            id=entry.id,
            vehicle=vehicle,
            key=entry.key,
            state=entry.state,
            expected=entry.expected,
            paid=entry.paid,
            at=min(entry.at, timezone.now() + AHEAD),
            author=user,
        )
        for entry in new
    )


@allowed(EDITORS)
@transaction.atomic
def change_book(user: User, vehicle: Vehicle, base: int, book: Mapping[str, Any]) -> Build | Stale[Build]:
    """Put another book in the place of version `base`, 0 where there is none yet.

    Raises:
        DocumentError: it has faults.
    """
    read_book(book)
    vehicle.lock()
    build = Build.objects.filter(vehicle=vehicle).first()
    if build is None:
        build = Build(vehicle=vehicle, version=0)
    if build.version != base:
        return Stale(build)
    build.book, build.author, build.version = dict(book), user, build.version + 1
    build.save()
    return build


@allowed(EDITORS)
@transaction.atomic
def inspect(user: User, vehicle: Vehicle, id_: UUID, document: Mapping[str, Any], at: datetime) -> InspectionEntry:
    """Write an inspection down; one that has come already is left as it is.

    Raises:
        DocumentError: it has faults.
        Refused: another vehicle has one of this id.
        Full: there are too many.
    """
    read_inspection(document)
    vehicle.lock()
    known = InspectionEntry.objects.filter(pk=id_).first()
    if known is not None:
        if known.vehicle_id != vehicle.pk:
            raise Refused("This inspection belongs to another vehicle: give it an id of its own.")
        return known
    need_room("inspections", vehicle.inspections.count(), MOST_INSPECTIONS, "start with a copy of the vehicle")
    when = min(at, timezone.now() + AHEAD)
    return InspectionEntry.objects.create(id=id_, vehicle=vehicle, document=dict(document), at=when, author=user)


@allowed(EDITORS)
@transaction.atomic
def keep_template(user: User, workshop: Workshop, name: str, steps: Sequence[Mapping[str, Any]]) -> StepTemplate:
    """Keep own steps under a name, in the place of those that had it.

    Raises:
        DocumentError: they have faults.
        Full: there are too many.
    """
    read_own({"steps": list(steps)})
    if not workshop.step_templates.filter(name=name).exists():
        need_room("templates", workshop.step_templates.count(), MOST_TEMPLATES)
    template, _ = StepTemplate.objects.update_or_create(
        workshop=workshop, name=name, defaults={"steps": list(steps), "author": user}
    )
    return template


@allowed(EDITORS)
def remove_template(user: User, template: StepTemplate) -> None:
    """Take a template away; builds that have taken its steps keep them."""
    template.delete()


@allowed(EDITORS)
@transaction.atomic
def take_file(user: User, vehicle: Vehicle, said: Sequence[SaidInFile], shown: PartsShown) -> int:
    """Take states and prices of a parts list from a file; prices go to the parts of the bin.

    Returns:
        How many lines were changed.
    """
    lines = {line.key: line for line in shown.lines}
    changed = [line for line in said if _differs(line, lines[line.key])]
    now = timezone.now()
    say_of_parts(
        user, vehicle, [NewPartEntry(uuid4(), line.key, line.state, now, line.expected, line.paid) for line in changed]
    )
    prices = {lines[line.key].bin: line.each for line in said if line.each is not None and lines[line.key].bin}
    repriced = _reprice(user, vehicle.workshop, prices)
    return len(changed) + repriced


def _differs(said: SaidInFile, line: PartLine) -> bool:
    return (said.state, said.expected, said.paid) != (line.state, line.expected, line.paid)


def _reprice(user: User, workshop: Workshop, prices: Mapping[str, float]) -> int:
    """Put other prices to parts of the bin."""
    parts = workshop.parts.filter(ref__in=prices)
    changes = [
        Change(part.ref, part.version, {**part.document, "price": prices[part.ref]})
        for part in parts
        if _price_of(part.document) != prices[part.ref]
    ]
    if changes and isinstance(change_parts(user, workshop, changes), Stale):
        raise Refused("Somebody else has changed the bin meanwhile: open the file once more.")
    return len(changes)


def _price_of(document: Mapping[str, Any]) -> float | None:
    return read_part(document).price
