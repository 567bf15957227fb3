"""Tables as files to be saved."""

from __future__ import annotations

from django.http import Http404, HttpResponse

from server.api.heavy import aside
from ydrometer.parts import files

FORMATS = {"csv": "text/csv", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}


def attachment(name: str, suffix: str, tables: files.Tables) -> HttpResponse:
    """Tables under their titles: the first one as CSV, or all as the sheets of an XLSX file.

    Raises:
        Http404: there is no such format.
    """
    if suffix not in FORMATS:
        raise Http404
    data = aside(files.WRITE[suffix], tables)
    disposition = {"Content-Disposition": f'attachment; filename="{name}.{suffix}"'}
    return HttpResponse(data, content_type=FORMATS[suffix], headers=disposition)
