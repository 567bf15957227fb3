"""How the text of a cell becomes a value of a part, and back.

A cell holds what people type: a quantity with its unit or a bare number in the column's own unit, a whole number,
a text, one of several words, ratios with spaces between, quantities with semicolons between and - for one that is not
known, or a torque curve "1800 rpm 6.1 N*m; 2400 rpm 6.4 N*m".
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.parts.columns import TABLE, PartColumn


def value_at(part: Mapping[str, Any], path: str) -> Any:
    """What stands at a path of a part as typed, None where there is nothing."""
    value: Any = part
    for key in path.split("."):
        value = value.get(key) if isinstance(value, Mapping) else None
    return value


def cell_text(column: PartColumn, part: Mapping[str, Any]) -> str:
    """A cell as it is shown and typed."""
    value = value_at(part, column.path)
    if isinstance(value, Mapping):
        value = value.get("value")
    if value is None:
        return ""
    if column.type == "ratios" and isinstance(value, list | tuple):
        return " ".join(_plain(entry) for entry in value)
    if column.type == "quantities" and isinstance(value, list | tuple):
        return "; ".join("-" if entry is None else _plain(entry) for entry in value)
    if column.type == "curve" and isinstance(value, list | tuple):
        return "; ".join(" ".join(_plain(entry) for entry in point) for point in value)
    return _plain(value)


def _plain(value: Any) -> str:
    return f"{value:.12g}" if isinstance(value, float) else str(value)


_BETWEEN_WORDS = re.compile(r",?\s++|(?<=[^\d\s]),")
_BARE = re.compile(r"[-+−]?(?:\d[\d.,/\s-]*+|\.\d++)(?:[eE][-+]?\d++)?")


def cell_value(column: PartColumn, text: str, unit: str = "") -> Any:
    """What a cell's text puts into a part, for the reader to judge; None for an empty cell.

    Args:
        column: of the cell.
        text: as typed.
        unit: of bare numbers; the column's metric unit where it is empty.
    """
    text = text.strip()
    if not text:
        return None
    if column.type == "quantity":
        return _quantity(text, column.dimension, unit)
    if column.type == "quantities":
        return _quantities(text, column.dimension, unit)
    if column.type == "whole":
        return _whole_number(text)
    if column.type == "ratios":
        return [_whole_number(entry) for entry in re.split(r"[\s;x×]+", text) if entry]
    return _curve(text) if column.type == "curve" else text


def _curve(text: str) -> list[list[str]]:
    return [_curve_point(point.strip()) for point in text.split(";") if point.strip()]


def _quantities(text: str, dimension: str, unit: str) -> list[Any]:
    """Quantities with semicolons between; - stands for one that is not known."""
    pieces = [piece.strip() for piece in text.split(";") if piece.strip()]
    return [None if piece == "-" else _quantity(piece, dimension, unit) for piece in pieces]


def _curve_point(text: str) -> list[str]:
    """A speed and a torque, each a number with its unit, beside or apart from it; the text itself where it is none."""
    quantities: list[str] = []
    for word in filter(None, _BETWEEN_WORDS.split(text)):
        if quantities and not _has_unit(quantities[-1]):
            quantities[-1] += f" {word}"
        else:
            quantities.append(word)
    return quantities if len(quantities) == 2 else [text[:40]]


def _has_unit(quantity: str) -> bool:
    return bool(quantity.strip("0123456789.,/+-−eE"))


def _quantity(text: str, dimension: str, unit: str) -> Any:
    if not _BARE.fullmatch(text):
        return text
    unit = unit or DIMENSIONS[dimension].metric
    if DIMENSIONS[dimension].si and unit:
        return f"{text} {unit}"
    return _whole_number(text)


def _whole_number(text: str) -> Any:
    """The number a text stands for; the text itself where it is none, so that the refusal shows what was given."""
    try:
        number = float(text)
    except ValueError:
        return text
    return int(number) if number.is_integer() and abs(number) < 1e15 else number


def put(part: dict[str, Any], path: str, value: Any) -> None:
    """Put a value at a path of a part, or take it away where it is None; what is left empty goes too."""
    *outer, last = path.split(".")
    places = [part]
    for key in outer:
        places.append(places[-1].setdefault(key, {}))
    if value is not None:
        places[-1][last] = value
        return
    places[-1].pop(last, None)
    for place, key in zip(reversed(places[:-1]), reversed(outer), strict=True):
        if not place[key]:
            place.pop(key)


def head_of(kind: str, path: str) -> str:
    """The head of the column that a fault's path belongs to; the path itself where there is none."""
    for column in TABLE[kind].columns:
        if path == column.path or path.startswith((f"{column.path}.", f"{column.path}[")):
            return column.head
    return next((c.head for c in TABLE[kind].columns if c.path.startswith(f"{path}.")), path)
