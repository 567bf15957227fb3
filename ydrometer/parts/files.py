"""Tables of parts as CSV and XLSX."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Callable, Collection, Sequence
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.parts.sheet import MOST_COLUMNS, MOST_ROWS, Cell, CellFault, parts_of

LARGEST = 2_000_000
"""Bytes of a file, at most."""
MOST_UNPACKED = 24_000_000
"""Bytes that an XLSX file may hold unpacked: what is larger is no list of parts."""
MOST_SHARED = 4_000_000
"""Bytes of its texts, which are read whole before the first row is."""
MOST_SHEETS = 40
_DELIMITERS = (";", "\t", ",")


Tables = Sequence[tuple[str, Sequence[Sequence[Cell]]]]
"""Tables under their titles."""


def csv_of(tables: Tables) -> bytes:
    """The first table as CSV in UTF-8, with the mark by which spreadsheets know that."""
    text = io.StringIO()
    csv.writer(text).writerows(tables[0][1])
    return text.getvalue().encode("utf-8-sig")


def xlsx_of(sheets: Tables) -> bytes:
    """Tables as the sheets of one XLSX file, their heads frozen; texts are never formulas."""
    from openpyxl import Workbook  # noqa: PLC0415  # half a second that only files need
    from openpyxl.styles import Font  # noqa: PLC0415

    book = Workbook()
    book.remove(book.active)
    for title, rows in sheets or [("Parts", [])]:
        sheet = book.create_sheet(title)
        sheet.freeze_panes = "A2"
        for r, row in enumerate(rows, start=1):
            for c, value in enumerate(row, start=1):
                cell = sheet.cell(r, c, value)
                if isinstance(value, str):
                    cell.data_type = "s"
                if r == 1:
                    cell.font = Font(bold=True)
        for column in sheet.columns:
            longest = max(len(str(cell.value or "")) for cell in column)
            sheet.column_dimensions[column[0].column_letter].width = min(40, longest + 2)
    stream = io.BytesIO()
    book.save(stream)
    return stream.getvalue()


WRITE: dict[str, Callable[[Tables], bytes]] = {"csv": csv_of, "xlsx": xlsx_of}


def parts_in(
    name: str, data: bytes, kind: str = "", taken: Collection[str] = ()
) -> tuple[list[dict[str, Any]], list[CellFault]]:
    """The parts of a CSV or XLSX file, and every fault; arguments as for `tables_in` and `sheet.parts_of`."""
    return parts_of(tables_in(name, data), kind, taken)


def tables_in(name: str, data: bytes) -> list[tuple[str, list[list[Any]]]]:
    """The tables of a CSV or XLSX file, each with the name of its sheet (empty for CSV).

    Raises:
        DocumentError: it is too large, or neither.
    """
    if len(data) > LARGEST:
        raise DocumentError([Fault("$", f"{name[:60]} has {len(data)} bytes", f"give a file of at most {LARGEST}")])
    if data.startswith(b"PK"):
        return _xlsx(name, data)
    return [("", _csv(name, data))]


def _csv(name: str, data: bytes) -> list[list[Any]]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        fault = Fault("$", f"{name[:60]} is neither XLSX nor text in UTF-8", "save it as CSV UTF-8 or as XLSX")
        raise DocumentError([fault]) from None
    first = text.split("\n", 1)[0]
    delimiter = max(_DELIMITERS, key=first.count)
    try:
        return [row[: MOST_COLUMNS + 1] for row in csv.reader(io.StringIO(text), delimiter=delimiter)]
    except csv.Error as error:
        raise DocumentError([Fault("$", f"{name[:60]}: {error}", "give CSV with a row a line")]) from None


def _xlsx(name: str, data: bytes) -> list[tuple[str, list[list[Any]]]]:
    from openpyxl import load_workbook  # noqa: PLC0415

    try:
        _refuse_large(name, zipfile.ZipFile(io.BytesIO(data)).infolist())
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        rows = {"max_row": MOST_ROWS + 2, "max_col": MOST_COLUMNS + 1, "values_only": True}
        sheets = book.worksheets[:MOST_SHEETS]
        return [(sheet.title, [_trimmed(row) for row in sheet.iter_rows(**rows)]) for sheet in sheets]
    except DocumentError:
        raise
    except Exception:  # a damaged file fails in as many ways as there are bytes in it
        fault = Fault("$", f"{name[:60]} cannot be read as XLSX", "save it anew, or give CSV")
        raise DocumentError([fault]) from None


def _refuse_large(name: str, entries: Sequence[zipfile.ZipInfo]) -> None:
    unpacked = sum(entry.file_size for entry in entries)
    texts = sum(entry.file_size for entry in entries if entry.filename.endswith("sharedStrings.xml"))
    if unpacked > MOST_UNPACKED or texts > MOST_SHARED:
        raise DocumentError([Fault("$", f"{name[:60]} is too large unpacked", "give only the list of parts")])


def _trimmed(row: Sequence[Any]) -> list[Any]:
    """A row up to its last cell that holds something."""
    last = max((i for i, cell in enumerate(row) if cell is not None), default=-1)
    return list(row[: last + 1])
