"""Archives of the first version, which are still opened: a file for all runs, and one for all of a build."""

from __future__ import annotations

import zipfile
from collections.abc import Mapping
from typing import Any

from server.archive import reading

BUILD = ("ydrometer-build", 1)


def as_version_2(archive: zipfile.ZipFile, head: dict[str, Any]) -> dict[str, Any]:
    """What the present version would say of the same archive.

    Raises:
        DocumentError: something is not as that version had it.
    """
    templates = reading.listed(head, "templates", "workshop.json")
    return {
        **head,
        "parts": ["parts.json"],
        "templates": [templates] if templates else [],
        "vehicles": [_vehicle(archive, raw) for raw in reading.listed(head, "vehicles", "workshop.json")],
    }


def _vehicle(archive: zipfile.ZipFile, raw: Any) -> Any:
    if not isinstance(raw, Mapping):
        return raw
    runs, build = reading.text(raw, "runs"), reading.text(raw, "build")
    revisions = raw.get("revisions")
    files = {
        "revisions": [revisions] if isinstance(revisions, list) and revisions else [],
        "runs": [{"file": runs}] if runs else [],
        **(_build(archive, build) if build else {}),
    }
    return {"put_away": raw.get("put_away"), "files": files}


def _build(archive: zipfile.ZipFile, file: str) -> dict[str, list[Any]]:
    """The lists of a build, each as one source of rows."""
    raw = reading.object_of(archive, file)
    if (raw.get("format"), raw.get("version")) != BUILD:
        raise reading.fault(file, "not a ydrometer-build of version 1")
    lists = {key: reading.listed(raw, key, file) for key in ("steps", "parts", "inspections", "photos")}
    book = raw.get("book")
    return {"book": [book] if book else [], **{key: [rows] for key, rows in lists.items() if rows}}
