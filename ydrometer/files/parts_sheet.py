"""A parts list, or an order list of several vehicles, as a table; and prices and states read back from one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from ydrometer.build.purchase import PURCHASE_STATES, PurchaseState
from ydrometer.parts.sheet import CellFault, harmless
from ydrometer.screens.orders import OrderList
from ydrometer.screens.parts_shown import PartLine, PartsShown

HEADS = (
    "key",
    "kind",
    "what",
    "number",
    "where",
    "in the bin",
    "owned",
    "to buy",
    "each",
    "price",
    "mass [kg]",
    "lead days",
    "to do",
    "state",
    "expected",
    "paid",
)
MOST_MONEY = 1e9
Rows = list[list[Any]]


@dataclass(frozen=True, slots=True)
class SaidInFile:
    """What a file says of a line: by its key, the state, when it is expected, what was paid, and the price of one."""

    key: str
    state: PurchaseState
    expected: date | None
    paid: float | None
    each: float | None


def table(shown: PartsShown) -> Rows:
    """The list with one row a line under its heads.

    Args:
        shown: what the station shows.
    """
    return [list(HEADS), *(_row(line) for line in shown.lines)]


def _row(line: PartLine) -> list[Any]:
    make = "; ".join(making.words for making in line.make)
    expected = line.expected.isoformat() if line.expected else ""
    cells = [
        line.key,
        line.kind,
        line.words,
        line.number,
        line.where,
        line.name,
        line.owned,
        line.to_buy,
        line.each,
        line.price,
        line.mass,
        line.lead_days,
        make,
        line.state,
        expected,
        line.paid,
    ]
    return [harmless(cell) if isinstance(cell, str) else cell for cell in cells]


def order_table(orders: OrderList) -> Rows:
    """The order list with one row a thing under its heads."""
    heads = ["what", "number", "for", "each", "price", "lead days"]
    rows = [
        [harmless(o.words), o.number, harmless(", ".join(o.vehicles)), o.each, o.price, o.lead_days]
        for o in orders.lines
    ]
    return [heads, *rows]


def read_table(rows: Sequence[Sequence[Any]], keys: Sequence[str]) -> tuple[list[SaidInFile], list[CellFault]]:
    """What a table that was exported says of its lines; rows of other lines are told, not dropped in silence.

    Args:
        rows: with the heads first.
        keys: of the lines that there are.
    """
    heads = [str(head or "").strip().lower() for head in rows[0]] if rows else []
    if "key" not in heads:
        return [], [CellFault(1, "key", "there is no such column", "give the table as it was exported")]
    entries: list[SaidInFile] = []
    faults: list[CellFault] = []
    for number, row in enumerate(rows[1:], 2):
        cells = {head: cell for head, cell in zip(heads, row, strict=False) if head}
        key = _text(cells.get("key"))
        if not key:
            continue
        if key not in keys:
            faults.append(CellFault(number, "key", f'"{key[:60]}" is no line of this list', "take the row out"))
            continue
        said = _said(key, cells, number, faults)
        if said is not None:
            entries.append(said)
    return entries, faults


def _said(key: str, cells: Mapping[str, Any], row: int, faults: list[CellFault]) -> SaidInFile | None:
    text = _text(cells.get("state")).lower() or "needed"
    state = next((state for state in PURCHASE_STATES if state == text), None)
    if state is None:
        faults.append(CellFault(row, "state", f'"{text[:40]}" given', "give one of " + ", ".join(PURCHASE_STATES)))
        return None
    money = {column: _money(cells.get(column), column, row, faults) for column in ("paid", "each")}
    return SaidInFile(key, state, _day(cells.get("expected"), row, faults), money["paid"], money["each"])


def _text(cell: Any) -> str:
    return "" if cell is None else str(cell).strip().removeprefix("'")


def _money(cell: Any, column: str, row: int, faults: list[CellFault]) -> float | None:
    text = _text(cell).replace(",", ".")
    if not text:
        return None
    try:
        amount = float(text)
    except ValueError:
        amount = -1.0
    if not 0.0 <= amount < MOST_MONEY:
        faults.append(CellFault(row, column, f'"{text[:40]}" given', "give a number, such as 31.50"))
        return None
    return amount


def _day(cell: Any, row: int, faults: list[CellFault]) -> date | None:
    text = _text(cell)[:10]
    try:
        return date.fromisoformat(text) if text else None
    except ValueError:
        faults.append(CellFault(row, "expected", f'"{text}" given', "give a day, such as 2027-05-20"))
        return None
