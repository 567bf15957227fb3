"""Reading files out of an archive that a stranger may have made: bounded, and every fault says in which file it is."""

from __future__ import annotations

import zipfile
import zlib
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from typing import Any, BinaryIO, TypeVar

from rest_framework import serializers
from rest_framework.exceptions import APIException

from server.api import limits
from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError, Fault

LARGEST, DEEPEST = 8_000_000, 40
"""Bytes and levels of one file of JSON."""
MOST_ROWS = 10_000
"""In one file."""
LEFT_WITHOUT = "it was not made by Ydrometer, or is damaged: choose a workshop's archive"
Form = TypeVar("Form", bound=serializers.Serializer[Any])


def opened(stream: BinaryIO) -> zipfile.ZipFile:
    """The archive, its files counted and added up before any is read.

    Raises:
        DocumentError: it is none, or too much is in it.
    """
    try:
        archive = zipfile.ZipFile(stream)
    except (zipfile.BadZipFile, ValueError, OSError):
        raise fault("$", "not a zip file") from None
    entries = archive.infolist()
    size = sum(entry.file_size for entry in entries)
    if len(entries) > limits.ARCHIVE_FILES or size > limits.ARCHIVE_UNPACKED:
        most = f"at most {limits.ARCHIVE_FILES:,} files and {limits.ARCHIVE_UNPACKED // 1_000_000:,} MB"
        raise DocumentError([Fault("$", f"{len(entries):,} files of {size // 1_000_000:,} MB", most)])
    return archive


def json_of(archive: zipfile.ZipFile, file: str) -> Any:
    """A file of the archive as JSON.

    Raises:
        DocumentError: it is missing, damaged, too large, or no JSON.
    """
    data = bytes_of(archive, file, LARGEST)
    with inside(file):
        return strict_json.load(data, largest=LARGEST, deepest=DEEPEST)


def object_of(archive: zipfile.ZipFile, file: str) -> dict[str, Any]:
    """A file that holds an object."""
    value = json_of(archive, file)
    if not isinstance(value, dict):
        raise fault(file, "not an object")
    return value


def rows_of(archive: zipfile.ZipFile, file: str) -> list[Any]:
    """A file that holds a list."""
    value = json_of(archive, file)
    if not isinstance(value, list) or len(value) > MOST_ROWS:
        raise fault(file, "not a list, or too long")
    return value


def bytes_of(archive: zipfile.ZipFile, file: str, most: int) -> bytes:
    """The bytes of a file; one more than the most where there are more."""
    try:
        with archive.open(file) as stream:
            return stream.read(most + 1)
    except (KeyError, zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError, zlib.error):
        raise fault(file or "$", "missing or damaged in the archive") from None


def read(form: type[Form], raw: Any, file: str, place: int | None = None) -> dict[str, Any]:
    """One row, as if it were sent.

    Raises:
        DocumentError: something is wrong with it.
    """
    row = form(data=raw if isinstance(raw, Mapping) else {})
    if row.is_valid():
        return dict(row.validated_data)
    field = next(iter(row.errors))
    path = f"[{place}].{field}" if place is not None else field
    raise DocumentError([Fault(f"{file}: {path}", _first(row.errors[field]), "correct it")])


def _first(errors: Any) -> str:
    """The first sentence of what may be nested."""
    while not isinstance(errors, str):
        errors = next(iter(errors.values() if isinstance(errors, Mapping) else errors))
    return str(errors)


def read_rows(form: type[Form], raw: list[Any], file: str) -> list[dict[str, Any]]:
    """Rows of a file, as if they were sent."""
    return [read(form, row, file, place) for place, row in enumerate(raw)]


@contextmanager
def inside(file: str) -> Iterator[None]:
    """Faults of what is done here say in which file they are."""
    try:
        yield
    except DocumentError as error:
        faults = [Fault(f"{file}: {each.path}", each.problem, each.remedy) for each in error.faults]
        raise DocumentError(faults, error.more) from None
    except APIException as refused:
        raise DocumentError([Fault(file, str(refused.detail), "or leave it out")]) from None


def listed(raw: Any, key: str, file: str) -> list[Any]:
    """A list in a file, empty where there is none of this name.

    Raises:
        DocumentError: it is no list.
    """
    entries = raw.get(key, []) if isinstance(raw, Mapping) else None
    if not isinstance(entries, list):
        raise fault(file, f"no list of {key}")
    return entries


def text(raw: Any, key: str = "") -> str:
    """A text, or the text under a key; empty where it is none."""
    value = raw.get(key, "") if key and isinstance(raw, Mapping) else raw
    return value if isinstance(value, str) else ""


def fault(path: str, problem: str) -> DocumentError:
    """What is wrong with the archive as such."""
    return DocumentError([Fault(path, problem, LEFT_WITHOUT)])
