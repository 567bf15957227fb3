"""Writing an archive: a zip whose parts every other program can open.

What there may be much of is written as files of rows, `NAME.json`, `NAME-2.json` and so on, none of which is large: so
an archive is read step by step, whatever it holds.
"""

from __future__ import annotations

import re
import zipfile
from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import IO, Any

import orjson
from django.db.models import Count
from rest_framework import serializers

from server.accounts.models import User
from server.archive import rows
from server.builds.api import EntrySerializer, NewInspectionSerializer
from server.builds.models import Photo
from server.builds.parts_api import PartEntrySerializer
from server.designs.models import Vehicle
from server.parts.models import documents
from server.practice.models import ExerciseSet, PupilAnswer
from server.runs import history
from server.runs.models import Plan, Run, Tried
from server.workshops.access import OWNERS, may
from server.workshops.models import Workshop
from ydrometer.parts import files, sheet
from ydrometer.trials.runs_file import MOST_DESIGNS

FORMAT, VERSION = "ydrometer-archive", 2
HEAD = "workshop.json"
MOST_ROWS, MOST_ROW_BYTES = 1000, 4_000_000
"""Of a file of rows."""
REVISIONS_A_FILE, PHOTOS_A_FILE, RUNS_A_FILE = 100, 20, 500
README = """A workshop of Ydrometer, as it was when this file was made.

workshop.json            what is in here: vehicles in their order, with the names of their files
parts.json, parts.csv    the bin, a part an entry as in a search request; the same as a table
templates.json           own steps kept under a name
races.json               race boards; vehicles by their ids in workshop.json
sets.json, answers…json  exercises for classes, their pupils and what they answered
vehicles/…/revision-*    designs, a file a revision; revisions.json has their names and when they were saved
vehicles/…/runs.json     all runs with the designs they were made with, as ./ydro calibrate reads them;
                         kept.json has when and by what each was made, in the same order, and what was put away
vehicles/…/lessons.json  what was learnt from runs and put into the design
vehicles/…/plan.json     what is to be tried
vehicles/…/book.json     what was said of the build; steps, parts and inspections beside it
vehicles/…/photos/*.jpg  the photos; photos.json has to which steps they belong
Where there is much of something, NAME-2.json and so on go on with it.

What stays behind:
"""
STAYS = (
    "Who works in the workshop, invitations, links that were shared, tokens of instruments.",
    "Who did what: opened again, all of it is by whoever opens it.",
    "Codes of sets of exercises: opened again, each has a new one.",
    "Searches and booklets, which can be made again.",
    "Loggers' files; runs that were taken from them are in it.",
    "Practice rigs and scratch vehicles.",
)
OF_OWNERS = "Sets of exercises with their pupils: an archive that an owner saves has them."
Told = Callable[[int, int], None]


def stays(user: User, workshop: Workshop) -> list[str]:
    """What an archive of theirs leaves behind, in sentences."""
    return [*STAYS, *([] if may(user, workshop, OWNERS) else [OF_OWNERS])]


def pack(user: User, workshop: Workshop, stream: IO[bytes] | Any, told: Told) -> None:
    """Write the archive of a workshop as this user may see it.

    Args:
        user: a member.
        workshop: what is written.
        stream: takes the bytes in their order.
        told: is told how much of how much is written; it may raise to end it.
    """
    vehicles = list(workshop.vehicles.filter(scratch=False).annotate(pictures=Count("photos")).order_by("created_at"))
    progress = _Progress(sum(1 + vehicle.pictures for vehicle in vehicles), told)
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        packing = _Packing(archive, progress)
        archive.writestr("README.txt", README + "".join(f"* {line}\n" for line in stays(user, workshop)))
        head = {
            "format": FORMAT,
            "version": VERSION,
            "name": workshop.name,
            "parts": _parts(packing, workshop),
            "templates": packing.rows("templates", _templates(workshop)),
            "vehicles": [_vehicle(packing, number, vehicle) for number, vehicle in enumerate(vehicles, 1)],
            "races": packing.rows("races", _races(workshop)),
            "sets": _sets(packing, workshop) if may(user, workshop, OWNERS) else [],
        }
        packing.one(HEAD, head)


class _Progress:
    """How much is written."""

    def __init__(self, steps: int, told: Told) -> None:
        self._done, self._steps, self._told = 0, steps, told
        told(0, steps)

    def step(self) -> None:
        self._done += 1
        self._told(self._done, self._steps)


class _Packing:
    """An archive that is being written."""

    def __init__(self, archive: zipfile.ZipFile, progress: _Progress) -> None:
        self.archive, self.progress = archive, progress

    def one(self, name: str, content: Any) -> str:
        """Write one file; its name."""
        self.archive.writestr(name, orjson.dumps(content, option=orjson.OPT_INDENT_2))
        return name

    def rows(self, stem: str, content: Iterable[Mapping[str, Any]], most: int = MOST_ROWS) -> list[str]:
        """Write rows into as many files as it takes; their names."""
        names: list[str] = []
        for group in _groups(map(orjson.dumps, content), most):
            names.append(_name(stem, len(names)))
            self.archive.writestr(names[-1], b"[\n" + b",\n".join(group) + b"\n]\n")
        return names


def _groups(lines: Iterable[bytes], most: int) -> Iterator[list[bytes]]:
    """Rows for one file after the other."""
    group: list[bytes] = []
    size = 0
    for line in lines:
        if group and (len(group) == most or size + len(line) > MOST_ROW_BYTES):
            yield group
            group, size = [], 0
        group.append(line)
        size += len(line)
    if group:
        yield group


def _name(stem: str, before: int) -> str:
    return f"{stem}.json" if before == 0 else f"{stem}-{before + 1}.json"


def _parts(packing: _Packing, workshop: Workshop) -> list[str]:
    parts = documents(workshop)
    packing.archive.writestr("parts.csv", files.WRITE["csv"]([("", sheet.rows_of(parts))]))
    return packing.rows("parts", parts)


def _templates(workshop: Workshop) -> Iterator[dict[str, Any]]:
    for template in workshop.step_templates.all():
        yield {"name": template.name, "steps": template.steps}


def _races(workshop: Workshop) -> Iterator[dict[str, Any]]:
    for race in workshop.races.order_by("made_at"):
        yield _as_sent(rows.RaceRow, race)


def _sets(packing: _Packing, workshop: Workshop) -> list[dict[str, Any]]:
    """Sets, each with the files of its answers."""
    written = []
    for number, exercise_set in enumerate(workshop.exercise_sets.order_by("made_at"), 1):
        file = packing.rows(f"sets/{number:03d}/set", [_set(exercise_set)])
        written.append({"set": file[0], "answers": packing.rows(f"sets/{number:03d}/answers", _answers(exercise_set))})
    return written


def _set(exercise_set: ExerciseSet) -> dict[str, Any]:
    keys = ("name", "plan", "own_numbers", "seed", "units", "made_at")
    pupils = [_as_sent(rows.PupilRow, pupil) for pupil in exercise_set.pupils.all()]
    return {**{key: getattr(exercise_set, key) for key in keys}, "pupils": pupils}


def _answers(exercise_set: ExerciseSet) -> Iterator[dict[str, Any]]:
    answers = PupilAnswer.objects.filter(pupil__set=exercise_set).select_related("pupil")
    for answer in answers.order_by("pk").iterator(chunk_size=2000):
        keys = ("place", "given", "verdict", "mistake", "at")
        yield {"pupil": answer.pupil.number, **{key: getattr(answer, key) for key in keys}}


def _vehicle(packing: _Packing, number: int, vehicle: Vehicle) -> dict[str, Any]:
    """Write a vehicle's files; what is said of it in the head."""
    folder = f"vehicles/{number:02d}-{_plain(vehicle.name)}"
    written = {
        "revisions": packing.rows(f"{folder}/revisions", _revisions(packing, folder, vehicle), REVISIONS_A_FILE),
        "runs": _runs(packing, folder, vehicle),
        "lessons": packing.rows(f"{folder}/lessons", _lessons(vehicle)),
        "plan": _plan(packing, folder, vehicle),
        "book": _book(packing, folder, vehicle),
        "steps": packing.rows(f"{folder}/steps", _said(EntrySerializer, vehicle.step_entries.all())),
        "parts": packing.rows(f"{folder}/parts", _said(PartEntrySerializer, vehicle.part_entries.all())),
        "inspections": packing.rows(f"{folder}/inspections", _said(NewInspectionSerializer, vehicle.inspections.all())),
        "photos": packing.rows(f"{folder}/photos", _photos(packing, folder, vehicle), PHOTOS_A_FILE),
    }
    packing.progress.step()
    return {
        "id": vehicle.pk,
        "name": vehicle.name,
        "put_away": vehicle.put_away,
        "files": {key: names for key, names in written.items() if names},
    }


def _revisions(packing: _Packing, folder: str, vehicle: Vehicle) -> Iterator[dict[str, Any]]:
    for number in list(vehicle.revisions.order_by("number").values_list("number", flat=True)):
        revision = vehicle.revisions.filter(number=number).first()
        if revision is None:  # it was thinned meanwhile
            continue
        file = packing.one(f"{folder}/revision-{number}.json", revision.document)
        yield {"file": file, "name": revision.name, "number": number, "saved_at": revision.saved_at}


def _runs(packing: _Packing, folder: str, vehicle: Vehicle) -> list[dict[str, str]]:
    """All runs, those put away too, as runs files; beside each what else is known of its runs."""
    written: list[dict[str, str]] = []
    for designs, runs in _runs_by_file(vehicle):
        names = _name(f"{folder}/runs", len(written)), _name(f"{folder}/kept", len(written))
        revision_of = {tried.pk: tried.revision for tried in designs}
        kept = [
            {
                "id": run.pk,
                "made_at": run.made_at,
                "origin": run.origin,
                "put_away": run.put_away,
                "changed": run.changed,
                "revision": revision_of[run.tried_id],
            }
            for run in runs
        ]
        packing.one(names[0], history.as_file(designs, runs))
        packing.one(names[1], kept)
        written.append({"file": names[0], "kept": names[1]})
    return written


def _runs_by_file(vehicle: Vehicle) -> Iterator[tuple[list[Tried], list[Run]]]:
    """Runs in their order, with the designs that they need, as many at a time as a runs file has room for."""
    designs: dict[int, Tried] = {}
    runs: list[Run] = []
    size = 0
    for run in vehicle.runs.iterator(chunk_size=500):
        own = designs.get(run.tried_id) or Tried.objects.get(pk=run.tried_id)
        more = len(orjson.dumps(run.document)) + (0 if own.pk in designs else len(orjson.dumps(own.document)))
        full = len(runs) == RUNS_A_FILE or len(designs | {own.pk: own}) > MOST_DESIGNS
        if runs and (full or size + more > MOST_ROW_BYTES // 2):  # half of it: lines are indented
            yield list(designs.values()), runs
            designs, runs, size = {}, [], 0
        designs[own.pk] = own
        runs.append(run)
        size += more
    if runs:
        yield list(designs.values()), runs


def _lessons(vehicle: Vehicle) -> Iterator[dict[str, Any]]:
    for lesson in vehicle.lessons.order_by("learnt_at", "pk"):
        yield {"together": lesson.together, "runs": lesson.runs, "learnt_at": lesson.learnt_at}


def _plan(packing: _Packing, folder: str, vehicle: Vehicle) -> list[str]:
    plan = Plan.objects.filter(vehicle=vehicle).first()
    return [packing.one(f"{folder}/plan.json", plan.document)] if plan else []


def _book(packing: _Packing, folder: str, vehicle: Vehicle) -> list[str]:
    build = getattr(vehicle, "build", None)
    return [packing.one(f"{folder}/book.json", build.book)] if build and build.book else []


def _said(form: type[serializers.Serializer[Any]], entries: Iterable[Any]) -> Iterator[dict[str, Any]]:
    """Rows as they would be sent; their ids stay behind, for each place has its own."""
    for entry in entries:
        yield {key: value for key, value in form(entry).data.items() if key != "id"}


def _photos(packing: _Packing, folder: str, vehicle: Vehicle) -> Iterator[dict[str, Any]]:
    """Write photos, which no packing makes smaller, one by one."""
    for key in list(vehicle.photos.values_list("pk", flat=True)):
        photo = Photo.objects.filter(pk=key).first()
        packing.progress.step()
        if photo is None:
            continue
        file = f"{folder}/photos/{photo.pk}.jpg"
        packing.archive.writestr(file, bytes(photo.data), zipfile.ZIP_STORED)
        yield {"step": photo.step, "taken_at": photo.taken_at, "file": file}


def _as_sent(form: type[serializers.Serializer[Any]], row: Any) -> dict[str, Any]:
    return dict(form(row).data)


def _plain(name: str) -> str:
    """A name that any file system takes."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60] or "vehicle"
