"""Reading an archive into a workshop of its own; all of it or nothing, and nothing of it is believed."""

from __future__ import annotations

import io
import zipfile
import zlib
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from typing import Any

from django.db import transaction

from server.accounts.models import User
from server.archive import building
from server.archive.pack import FORMAT, HEAD, PARTS, VERSION
from server.designs.actions import put_away
from server.designs.copying import with_revision
from server.designs.models import Vehicle
from server.parts.actions import Change, change_parts
from server.runs.actions import log_file
from server.workshops.actions import create_workshop
from server.workshops.models import Workshop
from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError, Fault

MOST_FILES = 5_000
MOST_BYTES = 200_000_000
"""Of all files in it together, unpacked."""
LARGEST, DEEPEST = 8_000_000, 40
"""Of one file."""
LONGEST_NAME = 120
LEFT_WITHOUT = "it was not made by Ydrometer, or is damaged: choose a workshop's archive"


def unpack(user: User, data: bytes) -> Workshop:
    """Make a workshop of an archive; the user owns it.

    Raises:
        DocumentError: it is no archive, or something in it has faults; paths name its files.
    """
    archive = _opened(data)
    head = _read(archive, HEAD)
    if not isinstance(head, Mapping) or head.get("format") != FORMAT or head.get("version") != VERSION:
        raise _fault(HEAD, f"not a {FORMAT} of version {VERSION}")
    with transaction.atomic():
        workshop = create_workshop(user, str(head.get("name") or "Workshop")[:LONGEST_NAME])
        _parts(user, workshop, archive)
        with _inside(HEAD):
            building.take_templates(user, workshop, _list({"templates": [], **head}, "templates", HEAD))
        for place, vehicle_head in enumerate(_list(head, "vehicles", HEAD)):
            _vehicle(user, workshop, archive, vehicle_head, f"{HEAD}: vehicles[{place}]")
    return workshop


def _opened(data: bytes) -> zipfile.ZipFile:
    try:
        archive = zipfile.ZipFile(io.BytesIO(data))
    except zipfile.BadZipFile:
        raise _fault("$", "not a zip file") from None
    entries = archive.infolist()
    if len(entries) > MOST_FILES or sum(entry.file_size for entry in entries) > MOST_BYTES:
        raise DocumentError(
            [
                Fault(
                    "$", "more than is opened at once", f"at most {MOST_FILES:,} files and {MOST_BYTES // 1_000_000} MB"
                )
            ]
        )
    return archive


def _parts(user: User, workshop: Workshop, archive: zipfile.ZipFile) -> None:
    parts = _read(archive, PARTS)
    if not isinstance(parts, list):
        raise _fault(PARTS, "not a list")
    changes = [Change(str(part.get("id", "")), 0, dict(part)) for part in parts if isinstance(part, Mapping)]
    if changes:
        change_parts(user, workshop, changes)


def _vehicle(user: User, workshop: Workshop, archive: zipfile.ZipFile, head: Any, path: str) -> None:
    revisions = [(_text(revision, "file"), _text(revision, "name")) for revision in _list(head, "revisions", path)]
    if not revisions:
        raise _fault(path, "a vehicle without revisions")
    vehicle: Vehicle | None = None
    for file, name in revisions:
        document = _object(archive, file)
        with _inside(file):
            vehicle = with_revision(user, workshop, vehicle, document, name[:LONGEST_NAME])
    assert vehicle is not None  # there is at least one
    runs = _text(head, "runs")
    if runs:
        logged = _object(archive, runs)
        with _inside(runs):
            log_file(user, vehicle, logged)
    build = _text(head, "build")
    if build:
        said = _object(archive, build)
        with _inside(build):
            building.take(user, vehicle, said, lambda file: _bytes(archive, file))
    if head.get("put_away") is True:
        put_away(user, vehicle, True)


@contextmanager
def _inside(file: str) -> Iterator[None]:
    """Faults of what is read here say in which file they are."""
    try:
        yield
    except DocumentError as error:
        faults = [Fault(f"{file}: {fault.path}", fault.problem, fault.remedy) for fault in error.faults]
        raise DocumentError(faults, error.more) from None


def _read(archive: zipfile.ZipFile, file: str) -> Any:
    """A file of the archive as JSON."""
    data = _bytes(archive, file)
    with _inside(file):
        return strict_json.load(data, largest=LARGEST, deepest=DEEPEST)


def _bytes(archive: zipfile.ZipFile, file: str) -> bytes:
    """A file of the archive; never more of it than is read of any document."""
    try:
        with archive.open(file) as stream:
            return stream.read(LARGEST + 1)
    except (KeyError, zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, zlib.error):
        raise _fault(file or "$", "missing or damaged in the archive") from None


def _object(archive: zipfile.ZipFile, file: str) -> dict[str, Any]:
    value = _read(archive, file)
    if not isinstance(value, dict):
        raise _fault(file, "not an object")
    return value


def _list(raw: Any, key: str, path: str) -> list[Any]:
    entries = raw.get(key) if isinstance(raw, Mapping) else None
    if not isinstance(entries, list):
        raise _fault(path, f"no list of {key}")
    return entries


def _text(raw: Any, key: str) -> str:
    text = raw.get(key, "") if isinstance(raw, Mapping) else ""
    return text if isinstance(text, str) else ""


def _fault(path: str, problem: str) -> DocumentError:
    return DocumentError([Fault(path, problem, LEFT_WITHOUT)])
