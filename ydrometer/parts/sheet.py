"""Parts as rows of a table and back, for files that spreadsheets read: every faulty cell is told."""

from __future__ import annotations

import copy
import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from difflib import get_close_matches
from typing import Any

from ydrometer.base import units
from ydrometer.base.errors import MOST_FAULTS, DocumentError, QuantityError
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.parts.cells import cell_text, cell_value, head_of, put, value_at
from ydrometer.parts.columns import TABLE, PartColumn
from ydrometer.parts.names import Ids
from ydrometer.parts.read import read_part

MOST_ROWS = 5000
MOST_COLUMNS = 200
LONGEST_CELL = 2000
_HEAD = re.compile(r"(?P<head>[^\[(]*+)(?:[\[(](?P<unit>[^\])]*+)[\])]\s*+)?")
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet would take for the beginning of a formula."""

Cell = str | float | int


@dataclass(frozen=True, slots=True)
class CellFault:
    """What is wrong in which cell (row counted from 1, the heads being row 1), and what would be right."""

    row: int
    column: str
    problem: str
    remedy: str
    sheet: str = ""


def rows_of(parts: Sequence[Mapping[str, Any]]) -> list[list[Cell]]:
    """A table of parts with its heads: `kind`, `id`, then every column that one of their kinds has.

    Quantities are numbers in the unit that stands in the head; what is text is kept from being taken for a formula.
    """
    kinds = [kind for kind in TABLE if any(part["kind"] == kind for part in parts)] or ["gear"]
    heads: dict[str, PartColumn] = {}
    for kind in kinds:
        heads |= {column.head: column for column in TABLE[kind].columns if column.head not in heads}
    table: list[list[Cell]] = [["kind", "id", *(_head(column) for column in heads.values())]]
    for part in parts:
        own = {column.head: column for column in TABLE[part["kind"]].columns}
        table.append([part["kind"], harmless(part["id"]), *(_written(own.get(head), part) for head in heads)])
    return table


def _head(column: PartColumn) -> str:
    unit = DIMENSIONS[column.dimension].metric if column.type == "quantity" else ""
    return f"{column.head} [{unit}]" if unit else column.head


def _written(column: PartColumn | None, part: Mapping[str, Any]) -> Cell:
    if column is None:
        return ""
    text = cell_text(column, part)
    if text and column.type == "quantity":
        dimension = DIMENSIONS[column.dimension]
        value = value_at(part, column.path)
        raw: Any = value.get("value") if isinstance(value, Mapping) else value
        si, uncertainty = units.parse_uncertain(raw, column.dimension)
        if uncertainty:
            return harmless(text)
        factor, offset = units.scale(dimension.metric, column.dimension)
        shown = float(f"{(si - offset) / factor:.12g}")
        return int(shown) if shown.is_integer() else shown
    if text and column.type == "whole":
        return int(text)
    return harmless(text)


def harmless(text: str) -> str:
    """A text that no spreadsheet takes for a formula."""
    return f"'{text}" if _like_a_formula(text) else text


def _like_a_formula(text: str) -> bool:
    """Whether a spreadsheet might compute it: some overlook blanks and ends of lines before the sign."""
    return text.startswith(_FORMULA) or text.lstrip().startswith(_FORMULA)


def parts_in(
    rows: Sequence[Sequence[Any]], kind: str = "", taken: Collection[str] = ()
) -> tuple[list[dict[str, Any]], list[CellFault]]:
    """The parts that a table holds, and every fault of every row; with any fault the parts are not to be used.

    Args:
        rows: the heads, then a row a part. Heads may carry the unit of bare numbers in brackets, and cells their own.
        kind: of rows that do not say theirs.
        taken: ids that are in use; a row without an id gets one of its own.
    """
    table = [[_text(cell) for cell in row] for row in rows[: MOST_ROWS + 1]]
    if not table or not any(table[0]):
        return [], [CellFault(1, "", "no heads", "give the names of the columns in the first row")]
    faults = list(_too_large(rows))
    heads = [_HEAD.fullmatch(text) for text in table[0]]
    names = [
        (match["head"].strip().lower().replace("_", " "), match["unit"] or "") if match else ("", "") for match in heads
    ]
    faults += _unknown(names)
    parts: list[dict[str, Any]] = []
    ids = Ids(taken)
    given: dict[str, int] = {}
    for number, row in enumerate(table[1:], start=2):
        if len(faults) >= MOST_FAULTS:
            faults.append(CellFault(number, "", "not read from here on", "mend the faults above first"))
            break
        if not any(row):
            continue
        raw_part = _row(number, row, names, kind, faults)
        if raw_part is None:
            continue
        if raw_part.get("id") in given:
            problem = f'"{raw_part["id"]}" a second time'
            faults.append(CellFault(number, "id", problem, f"row {given[raw_part['id']]} has it: give another"))
        if "id" in raw_part:
            ids.take(raw_part["id"])
        else:
            raw_part["id"] = ids.new(raw_part)
        given[raw_part["id"]] = number
        parts.append(raw_part)
    return parts, faults


def sheets_of(parts: Sequence[Mapping[str, Any]]) -> list[tuple[str, list[list[Cell]]]]:
    """A table a kind, under the kind's name for many."""
    held = {kind: [part for part in parts if part["kind"] == kind] for kind in TABLE}
    return [(TABLE[kind].plural, rows_of(some)) for kind, some in held.items() if some]


def parts_of(
    tables: Sequence[tuple[str, Sequence[Sequence[Any]]]], kind: str = "", taken: Collection[str] = ()
) -> tuple[list[dict[str, Any]], list[CellFault]]:
    """The parts of several tables; a sheet named for a kind of part holds such parts."""
    parts: list[dict[str, Any]] = []
    faults: list[CellFault] = []
    for title, rows in tables:
        used = {*taken, *(part["id"] for part in parts)}
        entries, wrong = parts_in(rows, _kind(title) or kind, used)
        parts += entries
        faults += [replace(fault, sheet=title) for fault in wrong]
        if len(faults) >= MOST_FAULTS:
            break
    return parts, faults


def _too_large(rows: Sequence[Sequence[Any]]) -> Iterator[CellFault]:
    if len(rows) > MOST_ROWS + 1:
        yield CellFault(MOST_ROWS + 2, "", f"{len(rows) - 1} rows", f"give at most {MOST_ROWS} parts at once")
    if any(len(row) > MOST_COLUMNS for row in rows):
        yield CellFault(1, "", "too many columns", f"give at most {MOST_COLUMNS}")


def _unknown(names: Sequence[tuple[str, str]]) -> Iterator[CellFault]:
    known = {"kind", "id"} | {column.head for kind in TABLE.values() for column in kind.columns}
    seen: set[str] = set()
    for head, unit in names:
        if head and head not in known:
            near = get_close_matches(head, known, 4, 0.5) or sorted(known)
            yield CellFault(1, head[:60], "unknown column", "known are " + ", ".join(near))
        elif head in seen:
            yield CellFault(1, head, "a second time", "leave one of them out")
        seen.add(head or "\0")
        yield from _wrong_unit(head, unit)


def _wrong_unit(head: str, unit: str) -> Iterator[CellFault]:
    column = next((c for kind in TABLE.values() for c in kind.columns if c.head == head), None)
    if unit and column is not None and column.type == "quantity":
        try:
            units.parse(f"1 {unit}", column.dimension)
        except QuantityError as error:
            yield CellFault(1, head, f"the unit [{unit[:20]}] does not fit", f"give {error.remedy}")


def _row(
    number: int, row: Sequence[str], names: Sequence[tuple[str, str]], kind: str, faults: list[CellFault]
) -> dict[str, Any] | None:
    cells = {head: (text, unit) for (head, unit), text in zip(names, row, strict=False) if head}
    given = cells.get("kind", ("", ""))[0]
    kind = _kind(given) if given else kind
    if kind not in TABLE:
        faults.append(CellFault(number, "kind", f'"{given[:40]}" given', "use one of " + ", ".join(TABLE)))
        return None
    part: dict[str, Any] = {"kind": kind, **copy.deepcopy(dict(TABLE[kind].fixed))}
    identity = _plain(cells.get("id", ("", ""))[0])
    if identity:
        part["id"] = identity
    own = {column.head: column for column in TABLE[kind].columns}
    before = len(faults)
    for head, (text, unit) in cells.items():
        if head in own and text:
            put(part, own[head].path, cell_value(own[head], _plain(text), unit))
        elif text and head not in ("kind", "id") and any(head == c.head for k in TABLE.values() for c in k.columns):
            faults.append(
                CellFault(number, head, f'"{text[:40]}" given', f"a {TABLE[kind].singular} has none: leave it empty")
            )
    faults += _judged(number, part)
    return part if len(faults) == before else None


def _kind(text: str) -> str:
    """A kind as the file has it: its name, or what the screen calls one or many of it."""
    plain = text.strip().lower()
    for kind in TABLE.values():
        if plain in (kind.kind, kind.singular.lower(), kind.plural.lower()):
            return kind.kind
    return ""


def _judged(number: int, part: dict[str, Any]) -> Iterator[CellFault]:
    try:
        read_part({"id": "new", **part})
    except DocumentError as error:
        for fault in error.faults:
            yield CellFault(number, head_of(part["kind"], fault.path), fault.problem, fault.remedy)


def _text(cell: Any) -> str:
    if cell is None:
        return ""
    if isinstance(cell, float):
        return f"{cell:.12g}"
    return str(cell)[:LONGEST_CELL].strip()


def _plain(text: str) -> str:
    """Without the mark that keeps a text from being taken for a formula."""
    return text[1:] if text.startswith("'") and _like_a_formula(text[1:]) else text
