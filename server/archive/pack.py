"""Writing an archive: a zip whose parts every other program can open."""

from __future__ import annotations

import io
import re
import zipfile
from typing import Any

import orjson

from server.archive import building
from server.builds.models import Photo
from server.designs.copying import kept_revisions
from server.designs.models import Vehicle
from server.parts.models import documents
from server.runs import history
from server.workshops.models import Workshop
from ydrometer.parts import files, sheet

FORMAT, VERSION = "ydrometer-archive", 1
HEAD, PARTS = "workshop.json", "parts.json"
README = """A workshop of Ydrometer, as it was when this file was made.

workshop.json            what is in here: vehicles in their order, with their revisions; steps kept under a name
parts.json               the bin, a part an entry, as in a search request
parts.csv                the same as a table
vehicles/…/*.json        designs, a file a revision: the named ones and the newest
vehicles/…/runs.json     all runs, with the designs they were made with
vehicles/…/build.json    what was said of steps and parts, inspections, and which photo belongs to which step
vehicles/…/photos/*.jpg  the photos

Formats are described by ./ydro schema and in the docs of the application. Opened at "Who works here" of another one,
it becomes a workshop there.
"""


def pack(workshop: Workshop) -> bytes:
    """The archive of a workshop."""
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        vehicles = [
            _vehicle(archive, number, vehicle)
            for number, vehicle in enumerate(workshop.vehicles.filter(scratch=False), 1)
        ]
        head = {
            "format": FORMAT,
            "version": VERSION,
            "name": workshop.name,
            "vehicles": vehicles,
            "templates": building.templates_of(workshop),
        }
        parts = documents(workshop)
        _write(archive, HEAD, head)
        _write(archive, PARTS, parts)
        archive.writestr("parts.csv", files.WRITE["csv"]([("", sheet.rows_of(parts))]))
        archive.writestr("README.txt", README)
    return stream.getvalue()


def _vehicle(archive: zipfile.ZipFile, number: int, vehicle: Vehicle) -> dict[str, Any]:
    """Write a vehicle's files; what is said of it in the head."""
    folder = f"vehicles/{number:02d}-{_plain(vehicle.name)}"
    revisions = []
    for revision in kept_revisions(vehicle):
        file = f"{folder}/revision-{revision.number}.json"
        _write(archive, file, revision.document)
        revisions.append({"file": file, "name": revision.name, "saved_at": revision.saved_at.isoformat()})
    head = {"name": vehicle.name, "put_away": vehicle.put_away, "revisions": revisions}
    if vehicle.runs.exists():
        archive.writestr(f"{folder}/runs.json", history.runs_file(vehicle))
        head["runs"] = f"{folder}/runs.json"
    build = building.written(vehicle, lambda photo: _photo(archive, folder, photo))
    if build is not None:
        _write(archive, f"{folder}/build.json", build)
        head["build"] = f"{folder}/build.json"
    return head


def _photo(archive: zipfile.ZipFile, folder: str, photo: Photo) -> str:
    """Write a photo, which no packing makes smaller; its file's name."""
    name = f"{folder}/photos/{photo.pk}.jpg"
    archive.writestr(name, bytes(photo.data), zipfile.ZIP_STORED)
    return name


def _write(archive: zipfile.ZipFile, name: str, content: Any) -> None:
    archive.writestr(name, orjson.dumps(content, option=orjson.OPT_INDENT_2))


def _plain(name: str) -> str:
    """A name that any file system takes."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60] or "vehicle"
