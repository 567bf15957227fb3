"""Tables as files to be saved."""

from __future__ import annotations

from collections.abc import Sequence

from django.http import Http404, HttpResponse

from ydrometer.parts import files
from ydrometer.parts.sheet import Cell

FORMATS = {"csv": "text/csv", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}


def attachment(
    name: str, suffix: str, rows: Sequence[Sequence[Cell]], sheets: Sequence[tuple[str, Sequence[Sequence[Cell]]]]
) -> HttpResponse:
    """A table as CSV, or its sheets as XLSX.

    Raises:
        Http404: there is no such format.
    """
    if suffix not in FORMATS:
        raise Http404
    data = files.csv_of(rows) if suffix == "csv" else files.xlsx_of(sheets)
    disposition = {"Content-Disposition": f'attachment; filename="{name}.{suffix}"'}
    return HttpResponse(data, content_type=FORMATS[suffix], headers=disposition)
