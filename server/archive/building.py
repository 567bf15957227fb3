"""The building of a vehicle in an archive: what was said of its steps and parts, its inspections, its photos."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, TypeVar
from uuid import uuid4

from rest_framework import serializers

from server.accounts.models import User
from server.api.errors import Refused
from server.api.quotas import MOST_ENTRIES, MOST_INSPECTIONS, MOST_PHOTOS, MOST_TEMPLATES, need_room
from server.api.requests import MomentField
from server.builds import actions, photos
from server.builds.actions import NewEntry, NewPartEntry
from server.builds.api import EntrySerializer, NewInspectionSerializer
from server.builds.models import Photo
from server.builds.parts_api import PartEntrySerializer
from server.designs.models import Vehicle
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault

FORMAT, VERSION = "ydrometer-build", 1
LONGEST_TEMPLATE = 120
Read = TypeVar("Read", bound=serializers.Serializer[Any])


def written(vehicle: Vehicle, keep_photo: Callable[[Photo], str]) -> dict[str, Any] | None:
    """What is kept of a build, as JSON has it; None where nothing is.

    Args:
        vehicle: that is built.
        keep_photo: puts a photo into the archive and tells its file's name.
    """
    build = getattr(vehicle, "build", None)
    said = {
        "book": build.book if build else {},
        "steps": _rows(EntrySerializer, vehicle.step_entries.all()),
        "parts": _rows(PartEntrySerializer, vehicle.part_entries.all()),
        "inspections": _rows(NewInspectionSerializer, vehicle.inspections.all()),
        "photos": [
            {"step": photo.step, "taken_at": photo.taken_at.isoformat(), "file": keep_photo(photo)}
            for photo in vehicle.photos.iterator(chunk_size=1)
        ],
    }
    return {"format": FORMAT, "version": VERSION, **said} if any(said.values()) else None


def _rows(serializer: type[Read], rows: Any) -> list[dict[str, Any]]:
    """Rows as they would be sent; their ids stay behind, for each place has its own."""
    return [{key: value for key, value in row.items() if key != "id"} for row in serializer(rows, many=True).data]


def templates_of(workshop: Workshop) -> list[dict[str, Any]]:
    """Own steps that the workshop keeps under a name."""
    return [{"name": template.name, "steps": template.steps} for template in workshop.step_templates.all()]


def take_templates(user: User, workshop: Workshop, raw: Sequence[Any]) -> None:
    """Keep them as they came.

    Raises:
        DocumentError: there are faults in them.
    """
    need_room("templates", len(raw) - 1, MOST_TEMPLATES)
    for raw_template in raw:
        if (
            not isinstance(raw_template, Mapping)
            or not isinstance(raw_template.get("steps"), list)
            or not raw_template.get("name")
        ):
            raise DocumentError([Fault("templates", "no name and steps", "give both")])
        actions.keep_template(user, workshop, str(raw_template["name"])[:LONGEST_TEMPLATE], raw_template["steps"])


def take(user: User, vehicle: Vehicle, raw: Mapping[str, Any], photo: Callable[[str], bytes]) -> None:
    """Write down what an archive says of a build, as it was said; nothing of it is asked again.

    Args:
        user: who opens the archive.
        vehicle: it belongs to.
        raw: as `written` has made it.
        photo: the bytes of one of the archive's files.

    Raises:
        DocumentError: there are faults in it.
    """
    if (raw.get("format"), raw.get("version")) != (FORMAT, VERSION):
        raise DocumentError([Fault("format", f"not a {FORMAT} of version {VERSION}", "choose a workshop's archive")])
    book = raw.get("book")
    if book:
        if not isinstance(book, Mapping):
            raise DocumentError([Fault("book", "not an object", "give an object")])
        actions.change_book(user, vehicle, 0, book)
    steps = [NewEntry(**row) for row in _read(EntrySerializer, raw, "steps", MOST_ENTRIES)]
    parts = [NewPartEntry(**row) for row in _read(PartEntrySerializer, raw, "parts", MOST_ENTRIES)]
    actions.take_said(user, vehicle, steps, parts)
    for row in _read(NewInspectionSerializer, raw, "inspections", MOST_INSPECTIONS):
        actions.inspect(user, vehicle, row["id"], row["document"], row["at"])
    for place, about in enumerate(_read(PhotoToldSerializer, raw, "photos", MOST_PHOTOS)):
        try:
            _photo(user, vehicle, about, photo(about["file"]))
        except Refused as refused:
            raise DocumentError([Fault(f"photos[{place}]", str(refused.detail), "or leave it out")]) from None


class PhotoToldSerializer(serializers.Serializer[Any]):
    """A photo as an archive tells of it."""

    step = serializers.CharField(max_length=200)
    file = serializers.CharField(max_length=300)
    taken_at = MomentField()


def _photo(user: User, vehicle: Vehicle, about: Mapping[str, Any], data: bytes) -> None:
    photo = photos.keep(user, vehicle, about["step"], uuid4(), photos.picture(data))
    photo.taken_at = min(about["taken_at"], photo.taken_at)
    photo.save(update_fields=["taken_at"])


def _read(serializer: type[Read], raw: Mapping[str, Any], key: str, most: int) -> list[dict[str, Any]]:
    """Rows of a list, each checked as if it were sent, with an id of its own."""
    rows = []
    for place, row in enumerate(_listed(raw, key, most)):
        form = serializer(data={**row, "id": uuid4()} if isinstance(row, Mapping) else {})
        if not form.is_valid():
            field = next(iter(form.errors))
            raise DocumentError([Fault(f"{key}[{place}].{field}", str(form.errors[field][0]), "correct it")])
        rows.append(dict(form.validated_data))
    return rows


def _listed(raw: Mapping[str, Any], key: str, most: int) -> list[Any]:
    rows = raw.get(key, [])
    if not isinstance(rows, list) or len(rows) > most:
        raise DocumentError([Fault(key, "not a list, or too long", f"give a list of at most {most:,}")])
    return rows
