"""What is kept of a build, as the core wants it."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.utils import timezone

from server.builds.models import Build, InspectionEntry, PartEntry, StepEntry
from server.designs.models import Revision, Vehicle
from server.parts.models import documents
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.build.bin import bin_of
from ydrometer.build.book import EMPTY, Book, read_book
from ydrometer.build.inspection import Inspection, read_inspection
from ydrometer.build.purchase import Said
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.screens.build_shown import Finding, Site
from ydrometer.screens.orders import MOST_BEFORE, OnBench, Taken
from ydrometer.screens.parts_shown import BenchKnown
from ydrometer.screens.step_entries import Entry

QUARTER = timedelta(minutes=15)
FARTHEST = timedelta(hours=15)
"""Between the clocks of two places on earth."""
A_RUN_S = 60.0
"""That a run takes of which no time is measured."""


class Clock:
    """The local time of whoever asks, by what their device says; else the server's."""

    def __init__(self, said: str | None) -> None:
        here = timezone.now()
        self.offset = timezone.localtime(here).utcoffset() or timedelta(0)
        if said:
            apart = _local(said) - here.replace(tzinfo=None)
            self.offset = round(apart / QUARTER) * QUARTER
            if abs(self.offset) > FARTHEST:
                raise DocumentError([Fault("now", f'"{said[:40]}" given', "give the time on your clock")])

    @property
    def now(self) -> datetime:
        """Local time."""
        return self.local(timezone.now())

    def local(self, moment: datetime) -> datetime:
        """A moment as the clock shows it."""
        return (moment.replace(tzinfo=None) + self.offset).replace(microsecond=0)


def _local(said: str) -> datetime:
    try:
        return datetime.fromisoformat(said).replace(tzinfo=None)
    except ValueError:
        problem = f'"{said[:40]}" given'
        raise DocumentError([Fault("now", problem, "give a local time, such as 2027-05-03T18:00")]) from None


def present(vehicle: Vehicle) -> Document:
    """The newest design of a vehicle."""
    newest = vehicle.revisions.values_list("document", flat=True).first()
    return design.read(newest)


def book_of(vehicle: Vehicle) -> Book:
    """What is said beside the design."""
    build = Build.objects.filter(vehicle=vehicle).first()
    return EMPTY if build is None else read_book(build.book)


def bench_of(vehicle: Vehicle, clock: Clock) -> BenchKnown:
    """What stands around a vehicle on its bench."""
    before = vehicle.workshop.vehicles.filter(put_away=False, scratch=False, created_at__lt=vehicle.created_at)
    bin_, taken = bin_of(documents(vehicle.workshop)), Taken()
    for other in before.order_by("created_at")[:MOST_BEFORE]:
        taken = taken.after(other.name, present(other), bin_)
    return BenchKnown(bin_, taken.named, book_of(vehicle), said_of(vehicle, clock))


def said_of(vehicle: Vehicle, clock: Clock) -> dict[str, Said]:
    """What was said last of each line."""
    return {entry.key: _said(entry, clock) for entry in vehicle.part_entries.select_related("author")}


def _said(entry: PartEntry, clock: Clock) -> Said:
    return Said(
        state=entry.state,  # type: ignore[arg-type]  # one of its choices
        at=clock.local(entry.at),
        by=entry.author.username if entry.author else "",
        expected=entry.expected,
        paid=entry.paid,
    )


def on_bench(bench: Workshop, ordering: Sequence[Vehicle], clock: Clock) -> list[OnBench]:
    """The vehicles of a bench as far as the last one that orders, in few statements for however many."""
    wanted = {vehicle.pk for vehicle in ordering}
    last = max((vehicle.created_at for vehicle in ordering), default=timezone.now())
    on_it = bench.vehicles.filter(put_away=False, scratch=False, created_at__lte=last)
    newest = Revision.objects.filter(vehicle__in=on_it).order_by("vehicle_id", "-number").distinct("vehicle_id")
    documents_of = dict(newest.values_list("vehicle", "document"))
    books = dict(Build.objects.filter(vehicle__in=wanted).values_list("vehicle", "book"))
    said: dict[UUID, dict[str, Said]] = {}
    for entry in PartEntry.objects.filter(vehicle__in=wanted).select_related("author"):
        said.setdefault(entry.vehicle_id, {})[entry.key] = _said(entry, clock)
    return [
        OnBench(vehicle.name, documents_of[vehicle.pk], books.get(vehicle.pk, {}), said.get(vehicle.pk, {}), orders)
        for vehicle in on_it.order_by("created_at")
        for orders in [vehicle.pk in wanted]
    ]


def site_of(vehicle: Vehicle, clock: Clock) -> Site:
    """All that is known of the building of a vehicle."""
    entries = vehicle.step_entries.select_related("author")
    photos: dict[str, list[str]] = {}
    for step, id_ in vehicle.photos.values_list("step", "id"):
        photos.setdefault(step, []).append(str(id_))
    return Site(
        bench=bench_of(vehicle, clock),
        now=clock.now,
        entries=[entry_of(entry, clock) for entry in entries],
        findings=[finding for inspection in vehicle.inspections.all() for finding in _findings(inspection, clock)],
        photos=photos,
    )


def entry_of(entry: StepEntry, clock: Clock) -> Entry:
    """What was said of a step, for the core."""
    return Entry(
        step=entry.step,
        doing=entry.doing,  # type: ignore[arg-type]  # one of its choices
        at=clock.local(entry.at),
        by=entry.author.username if entry.author else "",
        minutes=entry.minutes,
        value=entry.value,
        note=entry.note,
        reason=entry.reason,
        about=entry.about,
        title=entry.title,
        made_from=tuple(entry.made_from),
    )


def _findings(entry: InspectionEntry, clock: Clock) -> list[Finding]:
    day = clock.local(entry.at).date()
    return [Finding(finding.step, finding.sentence, day) for finding in read_inspection(entry.document).findings]


def inspections_of(vehicle: Vehicle) -> list[Inspection]:
    """All inspections, the oldest first."""
    return [read_inspection(document) for document in vehicle.inspections.values_list("document", flat=True)]


def hours_run(vehicle: Vehicle) -> float:
    """Hours of running: what the last inspection says, else the runs that were logged, whichever is more."""
    seconds = 0.0
    for dimension, measured, document in vehicle.runs.filter(put_away=False).values_list(
        "dimension", "measured", "document"
    ):
        seconds += (measured if dimension == "time" else A_RUN_S) * len(document.get("readings", ()))
    said = [inspection.hours for inspection in inspections_of(vehicle)]
    return max([seconds / 3600.0, *said])


def pulse_of(vehicle: Vehicle) -> str:
    """Something that changes with all that the station shows, cheap to ask for."""
    # One count each: several relations counted in one aggregate are joined, and their rows multiply.
    counts = [
        entries.count() for entries in (vehicle.step_entries, vehicle.part_entries, vehicle.photos, vehicle.inspections)
    ]
    version = Build.objects.filter(vehicle=vehicle).values_list("version", flat=True).first() or 0
    number = Revision.objects.filter(vehicle=vehicle).values_list("number", flat=True).first() or 0
    return ".".join(str(part) for part in (version, number, *counts))


def vehicles_on(bench: Workshop, ids: list[Any]) -> list[Vehicle]:
    """Vehicles of a workshop by their ids; those that stand on its bench where none is named."""
    mine = bench.vehicles.filter(put_away=False, scratch=False)
    return list(mine.filter(pk__in=ids) if ids else mine)
