"""Tables as files to be saved."""

from __future__ import annotations

import re
from pathlib import Path

from django.conf import settings
from django.http import Http404, HttpResponse

from server.api.heavy import aside
from ydrometer.parts import files

FORMATS = {"csv": "text/csv", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}


def faces_folder() -> Path:
    """Where the faces lie that ship with the page."""
    return Path(settings.PAGE) / "assets"


def attachment(name: str, suffix: str, tables: files.Tables) -> HttpResponse:
    """Tables under their titles: the first one as CSV, or all as the sheets of an XLSX file.

    Raises:
        Http404: there is no such format.
    """
    if suffix not in FORMATS:
        raise Http404
    return download(aside(files.WRITE[suffix], tables), FORMATS[suffix], f"{name}.{suffix}")


def download(data: bytes, kind: str, name: str) -> HttpResponse:
    """Data as a file to be saved.

    Args:
        data: its content.
        kind: its media type.
        name: of the file; what cannot stand in one is left out.
    """
    safe = re.sub(r"[^\w .,()-]", "", name, flags=re.ASCII)
    return HttpResponse(data, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{safe}"'})
