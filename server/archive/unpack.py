"""Opening an archive into a workshop, step by step; nothing of it is believed.

A step is one file of rows, or one small thing. Steps come in the same order whenever the archive is looked at, so that
opening can go on after any of them.
"""

from __future__ import annotations

import zipfile
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any
from uuid import UUID, uuid4, uuid5

from server.accounts.models import User
from server.api import limits
from server.archive import reading, version_1
from server.archive.pack import FORMAT, HEAD, VERSION
from server.archive.reading import fault, inside, listed, text
from server.archive.rows import AnswerRow, KeptRunRow, LessonRow, PhotoRow, RaceRow, RevisionRow, SetRow, TemplateRow
from server.builds import actions as builds
from server.builds import photos
from server.builds.actions import NewEntry, NewPartEntry
from server.builds.api import EntrySerializer, NewInspectionSerializer
from server.builds.parts_api import PartEntrySerializer
from server.builds.pictures import PictureError, made_anew
from server.designs import lessons
from server.designs.actions import KeptRevision, put_away, take_revisions
from server.designs.models import Vehicle
from server.parts.actions import Change, change_parts
from server.practice import racing
from server.practice.actions import KeptAnswer, KeptPupil, KeptSet, take_answers, take_set
from server.practice.models import ExerciseSet
from server.runs.actions import NewRun, log_runs, tried
from server.runs.models import Origin
from server.runs.plans import save_plan
from server.workshops.models import Workshop
from ydrometer.trials import plan, runs_file

LONGEST_NAME = 120


@dataclass(frozen=True, slots=True)
class Filling:
    """A workshop that is being filled from an archive.

    Attributes:
        vehicles: what became of vehicles and sets, their keys here by their places in the archive.
    """

    user: User
    workshop: Workshop
    archive: zipfile.ZipFile
    vehicles: dict[str, str]

    def vehicle(self, place: int) -> Vehicle:
        """The vehicle at a place of the archive."""
        key = self.vehicles.get(str(place))
        if key is None:
            raise fault(f"{HEAD}: vehicles[{place}]", "a vehicle without revisions")
        return Vehicle.objects.select_related("workshop").get(pk=key)


Step = Callable[[Filling], None]


def name_of(archive: zipfile.ZipFile) -> str:
    """What the workshop is called."""
    return (text(_head(archive), "name").strip() or "Workshop")[:LONGEST_NAME]


def _head(archive: zipfile.ZipFile) -> dict[str, Any]:
    head = reading.json_of(archive, HEAD)
    version = head.get("version") if isinstance(head, Mapping) and head.get("format") == FORMAT else None
    if version == 1:
        return version_1.as_version_2(archive, dict(head))
    if version != VERSION:
        raise fault(HEAD, f"not a {FORMAT} of version {VERSION}")
    return dict(head)


def steps_of(archive: zipfile.ZipFile) -> list[Step]:
    """What there is to do, in its order.

    Raises:
        DocumentError: the archive does not say what is in it.
    """
    head = _head(archive)
    vehicles = listed(head, "vehicles", HEAD)
    return [
        *(partial(_parts, file=text(file)) for file in listed(head, "parts", HEAD)),
        *(partial(_templates, source=source) for source in listed(head, "templates", HEAD)),
        *(step for place, raw in enumerate(vehicles) for step in _steps_of_vehicle(place, raw)),
        *(partial(_races, file=text(file), ids=_ids(vehicles)) for file in listed(head, "races", HEAD)),
        *(step for place, raw in enumerate(listed(head, "sets", HEAD)) for step in _steps_of_set(place, raw)),
    ]


def _ids(vehicles: list[Any]) -> dict[str, int]:
    """Places of vehicles by the ids that the archive has for them."""
    return {text(raw, "id"): place for place, raw in enumerate(vehicles) if text(raw, "id")}


def _steps_of_vehicle(place: int, raw: Any) -> Iterator[Step]:
    path = f"{HEAD}: vehicles[{place}]"
    files = raw.get("files") if isinstance(raw, Mapping) else None
    if not listed(files, "revisions", path):
        raise fault(path, "a vehicle without revisions")
    for key, step in OF_A_VEHICLE.items():
        for source in listed(files, key, path):
            yield partial(step, place=place, source=source)
    if raw.get("put_away") is True:
        yield partial(_put_away, place=place)


def _rows(filling: Filling, source: Any) -> tuple[list[Any], str]:
    """Rows and where they stand: in a file, or in the head itself."""
    if isinstance(source, list):
        return source, HEAD
    return reading.rows_of(filling.archive, text(source)), text(source)


def _parts(filling: Filling, file: str) -> None:
    rows = reading.rows_of(filling.archive, file)
    changes = [Change(text(row, "id"), 0, dict(row)) for row in rows if isinstance(row, Mapping)]
    with inside(file):
        change_parts(filling.user, filling.workshop, changes)


def _templates(filling: Filling, source: Any) -> None:
    raw, file = _rows(filling, source)
    for row in reading.read_rows(TemplateRow, raw, file):
        with inside(file):
            builds.keep_template(filling.user, filling.workshop, row["name"], row["steps"])


def _revisions(filling: Filling, place: int, source: Any) -> None:
    raw, file = _rows(filling, source)
    known = filling.vehicle(place) if str(place) in filling.vehicles else None
    for row in reading.read_rows(RevisionRow, raw, file):
        document = reading.object_of(filling.archive, row["file"])
        kept = KeptRevision(document, row["name"], row["number"], row["saved_at"])
        with inside(row["file"]):
            known = take_revisions(filling.user, filling.workshop, known, [kept])
    if known is not None:
        filling.vehicles[str(place)] = str(known.pk)


def _runs(filling: Filling, place: int, source: Any) -> None:
    """Runs of one runs file; without what was kept beside it they are runs of today out of a file."""
    vehicle, file, kept = filling.vehicle(place), text(source, "file"), text(source, "kept")
    raw = reading.object_of(filling.archive, file)
    with inside(file):
        runs_file.read(raw)
    known = reading.read_rows(KeptRunRow, reading.rows_of(filling.archive, kept), kept) if kept else []
    if known and len(known) != len(raw["runs"]):
        raise fault(kept, f"{len(known)} rows for {len(raw['runs'])} runs")
    designs, new = {}, []
    for place_of_run, run in enumerate(raw["runs"]):
        row = known[place_of_run] if known else None
        name = run["design"]
        if name not in designs:
            designs[name] = tried(vehicle, raw["designs"][name], row["revision"] if row else None)
        document = {key: value for key, value in run.items() if key != "design"}
        new.append((_run(vehicle, document, row), designs[name]))
    with inside(file):
        log_runs(filling.user, vehicle, new)


def _run(vehicle: Vehicle, document: dict[str, Any], row: dict[str, Any] | None) -> NewRun:
    if row is None:
        return NewRun(uuid4(), document, Origin.FILE)
    return NewRun(_here(vehicle, row["id"]), document, row["origin"], row["made_at"], row["changed"], row["put_away"])


def _here(vehicle: Vehicle, key: UUID | str) -> UUID:
    """The id that a run of the archive has here: always the same, so that what names it can be told."""
    return uuid5(vehicle.pk, str(key))


def _lessons(filling: Filling, place: int, source: Any) -> None:
    vehicle = filling.vehicle(place)
    raw, file = _rows(filling, source)
    for row in reading.read_rows(LessonRow, raw, file):
        runs = [str(_here(vehicle, key)) for key in row["runs"]]
        lessons.keep(filling.user, vehicle, row["together"], runs, row["learnt_at"])


def _plan(filling: Filling, place: int, source: Any) -> None:
    vehicle, file = filling.vehicle(place), text(source)
    raw = reading.object_of(filling.archive, file)
    with inside(file):
        done = plan.read(raw).done
    kept = {**raw, "done": {step: str(_here(vehicle, key)) for step, key in done.items()}}
    save_plan(filling.user, vehicle, 0, kept)


def _book(filling: Filling, place: int, source: Any) -> None:
    book, file = (source, HEAD) if isinstance(source, Mapping) else (None, text(source))
    with inside(file):
        builds.change_book(filling.user, filling.vehicle(place), 0, book or reading.object_of(filling.archive, file))


def _steps(filling: Filling, place: int, source: Any) -> None:
    raw, file = _rows(filling, source)
    entries = [NewEntry(**row) for row in reading.read_rows(EntrySerializer, _with_ids(raw), file)]
    with inside(file):
        builds.take_said(filling.user, filling.vehicle(place), entries)


def _parts_said(filling: Filling, place: int, source: Any) -> None:
    raw, file = _rows(filling, source)
    entries = [NewPartEntry(**row) for row in reading.read_rows(PartEntrySerializer, _with_ids(raw), file)]
    with inside(file):
        builds.say_of_parts(filling.user, filling.vehicle(place), entries)


def _inspections(filling: Filling, place: int, source: Any) -> None:
    raw, file = _rows(filling, source)
    vehicle = filling.vehicle(place)
    for row in reading.read_rows(NewInspectionSerializer, _with_ids(raw), file):
        with inside(file):
            builds.inspect(filling.user, vehicle, row["id"], row["document"], row["at"])


def _with_ids(raw: list[Any]) -> list[Any]:
    """Rows with ids of their own: each place has other ones."""
    return [{**row, "id": uuid4()} if isinstance(row, Mapping) else row for row in raw]


def _photos(filling: Filling, place: int, source: Any) -> None:
    raw, file = _rows(filling, source)
    vehicle = filling.vehicle(place)
    for row in reading.read_rows(PhotoRow, raw, file):
        data = reading.bytes_of(filling.archive, row["file"], limits.PHOTO)
        with inside(row["file"]):
            photos.keep(filling.user, vehicle, row["step"], uuid4(), _picture(data), row["taken_at"])


def _picture(data: bytes) -> bytes:
    try:
        return made_anew(data)
    except PictureError as error:
        raise fault("$", str(error)) from None


def _put_away(filling: Filling, place: int) -> None:
    put_away(filling.user, filling.vehicle(place), True)


OF_A_VEHICLE: dict[str, Callable[..., None]] = {
    "revisions": _revisions,
    "runs": _runs,
    "lessons": _lessons,
    "plan": _plan,
    "book": _book,
    "steps": _steps,
    "parts": _parts_said,
    "inspections": _inspections,
    "photos": _photos,
}
"""What belongs to a vehicle, in the order in which it is written down."""


def _races(filling: Filling, file: str, ids: Mapping[str, int]) -> None:
    """Races, with the vehicles that those of the archive have become."""
    for row in reading.read_rows(RaceRow, reading.rows_of(filling.archive, file), file):
        document = row["document"]
        entries = [_entered(filling, entry, ids) for entry in listed(document, "entries", file)]
        with inside(file):
            racing.make(filling.user, filling.workshop, {**document, "entries": entries}, row["made_at"])


def _entered(filling: Filling, entry: Any, ids: Mapping[str, int]) -> Any:
    place = ids.get(text(entry, "vehicle"))
    return entry if place is None else {**entry, "vehicle": filling.vehicles[str(place)]}


def _steps_of_set(place: int, raw: Any) -> Iterator[Step]:
    yield partial(_set, place=place, file=text(raw, "set"))
    for file in listed(raw, "answers", HEAD):
        yield partial(_answers, place=place, file=text(file))


def _set(filling: Filling, place: int, file: str) -> None:
    for row in reading.read_rows(SetRow, reading.rows_of(filling.archive, file), file):
        kept = KeptSet(**{**row, "pupils": [KeptPupil(**pupil) for pupil in row["pupils"]]})
        with inside(file):
            filling.vehicles[f"set {place}"] = str(take_set(filling.user, filling.workshop, kept).pk)


def _answers(filling: Filling, place: int, file: str) -> None:
    rows = reading.read_rows(AnswerRow, reading.rows_of(filling.archive, file), file)
    exercise_set = ExerciseSet.objects.get(pk=filling.vehicles[f"set {place}"])
    with inside(file):
        take_answers(filling.user, exercise_set, [KeptAnswer(**row) for row in rows])
