"""Tables as files to be saved."""

from __future__ import annotations

from collections.abc import Sequence

from django.http import Http404, HttpResponse

from ydrometer.parts import files
from ydrometer.parts.sheet import Cell

FORMATS = {"csv": "text/csv", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}


def attachment(name: str, suffix: str, tables: Sequence[tuple[str, Sequence[Sequence[Cell]]]]) -> HttpResponse:
    """Tables under their titles: the first one as CSV, or all as the sheets of an XLSX file.

    Raises:
        Http404: there is no such format.
    """
    if suffix not in FORMATS:
        raise Http404
    data = files.csv_of(tables[0][1]) if suffix == "csv" else files.xlsx_of(tables)
    disposition = {"Content-Disposition": f'attachment; filename="{name}.{suffix}"'}
    return HttpResponse(data, content_type=FORMATS[suffix], headers=disposition)
