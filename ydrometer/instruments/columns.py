"""What the columns of a logger's table are: told by their names and values, to be confirmed by whoever knows."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.base.units import scale

MEANINGS = {
    "time": ("time", "s"),
    "speed": ("speed", "m/s"),
    "wheel turns": ("angular speed", "rpm"),
    "motor turns": ("angular speed", "rpm"),
    "current": ("current", "A"),
    "voltage": ("voltage", "V"),
    "temperature": ("temperature", "degC"),
    "distance": ("distance", "m"),
}
"""What a column may hold: the kind of quantity, and its usual unit."""
SEPARATORS = (";", "\t", ",", "|", " ")
HEAD = 200
"""Rows that are looked at."""
_UNITS = (r"[\[(]\s*([^\])]+?)\s*[\])]", r"\bin\s+(\S+)$", r"[_\s]([^\s_]+)$", r"^(\S+)$")
"""Where names have their units: in brackets, behind "in", behind the last blank or line, or they are nothing else."""
_OTHERWISE = r"erpm|current.*motor|motor.*(current|amp)|phase"
"""What no column is taken for, as there are two ways to read it."""
_BY_UNIT = ("speed", "current", "voltage", "temperature", "distance", "wheel turns")
"""What a column holds by its unit alone; a time is told by its name, or as it rises."""
_WORDS = (
    ("motor turns", r"motor.*(rpm|speed|turn)|m_?rpm"),
    ("wheel turns", r"rpm|wheel.*(speed|turn)|turns"),
    ("time", r"^t$|time|seconds|^ms$|stamp|zeit"),
    ("current", r"amp|current|^i$|strom"),
    ("voltage", r"volt|^v$|^u$|spannung"),
    ("temperature", r"temp|deg|celsius"),
    ("distance", r"dist|metre|meter|weg|odo"),
    ("speed", r"speed|veloc|km/?h|mph|m/s|geschw"),
)
"""Names of columns by what they hold, the more special first."""
_SPELLINGS = {
    "°c": "degC",
    "c": "degC",
    "celsius": "degC",
    "volts": "V",
    "v": "V",
    "amps": "A",
    "a": "A",
    "sec": "s",
    "kmh": "km/h",
    "kph": "km/h",
    "1/min": "rpm",
    "secs": "s",
    "seconds": "s",
    "u/min": "rpm",
    "ma": "mA",
    "millis": "ms",
    "km/hr": "km/h",
    "mps": "m/s",
}


@dataclass(frozen=True, slots=True)
class LogColumn:
    """A column of a table: its name, what it holds, empty where that is of no interest, and the unit of its numbers."""

    name: str
    meaning: str
    unit: str


@dataclass(frozen=True, slots=True)
class LogLayout:
    """How a table is written: what stands between cells, the sign before the decimals, rows before the first one with
    numbers, and its columns.
    """

    separator: str
    decimal: str
    skip: int
    columns: tuple[LogColumn, ...]

    @property
    def used(self) -> list[int]:
        """Places of the columns that are of interest."""
        return [k for k, column in enumerate(self.columns) if column.meaning]


def guess(head: str) -> LogLayout:
    """How a table is written, from its first lines.

    Raises:
        DocumentError: no column of numbers.
    """
    lines = [line for line in head.splitlines()[:HEAD] if line.strip()]
    separator, decimal = max(
        ((s, d) for s in SEPARATORS for d in ".," if s != d), key=lambda way: _numbers(lines, *way)
    )
    rows = [cells(line, separator) for line in lines]
    first = next((k for k, row in enumerate(rows) if _is_numeric(row, decimal)), None)
    if first is None:
        raise DocumentError([Fault("", "no row of numbers in it", "give a table with one row a moment")])
    width = len(rows[first])
    names = next((row for row in reversed(rows[:first]) if len(row) == width), [""] * width)
    values = np.array([[number(c, decimal) for c in row] for row in rows[first:] if len(row) == width])
    return LogLayout(separator, decimal, first, tuple(_columns(names, values)))


def cells(line: str, separator: str) -> list[str]:
    """The cells of one line."""
    row = next(csv.reader(io.StringIO(line), delimiter=separator, skipinitialspace=True), [])
    return [cell.strip() for cell in row]


def number(cell: str, decimal: str) -> float:
    """A cell as a number; NaN where it is none."""
    plain = cell.replace(" ", "")
    if decimal == ",":
        plain = plain.replace(".", "").replace(",", ".") if plain.count(",") == 1 else plain
    try:
        return float(plain)
    except ValueError:
        return float("nan")


def _is_numeric(row: Sequence[str], decimal: str) -> bool:
    known = [np.isfinite(number(cell, decimal)) for cell in row]
    return len(row) > 1 and sum(known) * 2 > len(row) and bool(known[0])


def _numbers(lines: Sequence[str], separator: str, decimal: str) -> tuple[int, int]:
    """How many lines are rows of numbers, and how many numbers there are, read one way."""
    rows = [row for row in (cells(line, separator) for line in lines) if _is_numeric(row, decimal)]
    widths = [len(row) for row in rows]
    usual = max(set(widths), key=widths.count, default=0)
    alike = [row for row in rows if len(row) == usual]
    return len(alike), sum(bool(np.isfinite(number(cell, decimal))) for row in alike for cell in row)


def _columns(names: Sequence[str], values: np.ndarray[tuple[int, int], np.dtype[np.float64]]) -> list[LogColumn]:
    columns: list[LogColumn] = []
    for name in names:
        meaning = _meaning(name)
        if meaning in {column.meaning for column in columns}:
            meaning = ""
        columns.append(LogColumn(name, meaning, _unit(name, meaning)))
    if not any(column.meaning == "time" for column in columns):
        rising = [k for k in range(len(columns)) if not columns[k].meaning and _rises(values[:, k])]
        if rising:
            k = rising[0]
            columns[k] = LogColumn(names[k], "time", _unit(names[k], "time"))
    return [_by_size(column, values[:, k]) for k, column in enumerate(columns)]


def _meaning(name: str) -> str:
    """What a column holds by the words of its name and by its unit, which goes first where the two disagree.

    Nothing is taken for what would be read wrongly: electrical turns, which are those of a motor times its pole pairs,
    and the current of a motor, which is not that of the supply.
    """
    if re.search(_OTHERWISE, name.lower()):
        return ""
    plain, unit = _split(name)
    meaning = next((m for m, p in _WORDS if re.search(p, plain) or re.search(p, name.lower())), "")
    if not unit or (meaning and _fits(unit, meaning)):
        return meaning
    return next((other for other in _BY_UNIT if _fits(unit, other)), meaning)


def _split(name: str) -> tuple[str, str]:
    """A name without its unit, in small letters, and the unit as it is written here; empty where it tells none."""
    for pattern in _UNITS:
        match = re.search(pattern, name.strip(), re.IGNORECASE)
        unit = _spelled(match[1]) if match else ""
        if match and unit:
            return name.strip()[: match.start()].strip().lower() or name.lower(), unit
    return name.strip().lower(), ""


def _spelled(text: str) -> str:
    """A unit of something that a column may hold, as it is written here; empty where it is none."""
    unit = _SPELLINGS.get(text.strip().lower(), text.strip())
    return unit if any(_fits(unit, meaning) for meaning in MEANINGS) else ""


def _fits(unit: str, meaning: str) -> bool:
    try:
        scale(unit, MEANINGS[meaning][0])
    except QuantityError:
        return False
    return bool(unit)


def _unit(name: str, meaning: str) -> str:
    """The unit that a name tells, where it is one of such a quantity; else the usual one."""
    if not meaning:
        return ""
    unit = _split(name)[1]
    return unit if unit and _fits(unit, meaning) else MEANINGS[meaning][1]


def _rises(values: np.ndarray[tuple[int], np.dtype[np.float64]]) -> bool:
    steps = np.diff(values)
    return len(steps) > 2 and bool((steps > 0.0).all())


MILLISECONDS = 2.0
"""Seconds between two rows from which on they are rather milliseconds."""


def _by_size(column: LogColumn, values: np.ndarray[tuple[int], np.dtype[np.float64]]) -> LogColumn:
    """Times in whole numbers far apart are milliseconds, or microseconds, where nobody says."""
    if column.meaning != "time" or _split(column.name)[1] or len(values) < 2:
        return column
    step = float(np.nanmedian(np.diff(values)))
    unit = "us" if step >= 1e3 * MILLISECONDS else "ms" if step >= MILLISECONDS else column.unit
    return LogColumn(column.name, "time", unit)
