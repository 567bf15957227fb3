"""A logger's table, read in a stream: any separator and decimal mark, memory bounded, every faulty row counted."""

from __future__ import annotations

import csv
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from itertools import islice
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import shown
from ydrometer.base.units import scale
from ydrometer.instruments.columns import MEANINGS, LogLayout, number
from ydrometer.instruments.lines import MOST_FAULTS

MOST_ROWS = 2_000_000
AT_ONCE = 20_000
"""Rows that are read together."""
LONGEST_CELL = 40

Floats = NDArray[np.float64]
Narrow = NDArray[np.float32]
Going = Callable[[int], None]
"""Told how many rows have been read; raises to end it."""


@dataclass(slots=True)
class Table:
    """What was read, SI.

    Attributes:
        time: of each row, s, (n,). columns: the others by what they hold, (n,) each; NaN where a cell was empty.
        rows: how many there were. faulty: how many of them could not be read. faults: the first of those.
    """

    time: Floats
    columns: dict[str, Narrow]
    rows: int
    faulty: int
    faults: list[Fault] = field(default_factory=list)


def read_table(lines: Iterable[str], layout: LogLayout, going: Going = lambda rows: None) -> Table:
    """Read a table in a stream.

    Args:
        lines: of the file, from its first one on.
        layout: how it is written; one column at least is the time.
        going: told how many rows have been read.

    Raises:
        DocumentError: no time among the columns, too many rows, or none that can be read.
    """
    meanings = [layout.columns[k].meaning for k in layout.used]
    if "time" not in meanings or len(meanings) < 2 or len(set(meanings)) < len(meanings):
        problem = "not one time and something else, each once"
        raise DocumentError([Fault("columns", problem, "say which columns hold them")])
    reader = _Reader(layout)
    stream = islice(iter(lines), layout.skip, None)
    while chunk := list(islice(stream, AT_ONCE)):
        reader.read(chunk)
        if reader.rows > MOST_ROWS:
            raise DocumentError([Fault("", f"more than {MOST_ROWS:,} rows", "cut the file into several")])
        going(reader.rows)
    return reader.table()


class _Reader:
    """Reads pieces of a table one after the other."""

    def __init__(self, layout: LogLayout) -> None:
        self.layout, self.used = layout, layout.used
        columns = [layout.columns[k] for k in self.used]
        self.scales = [scale(column.unit, MEANINGS[column.meaning][0]) for column in columns]
        self.parts: dict[str, list[Any]] = {column.meaning: [] for column in columns}
        self.rows, self.faulty = 0, 0
        self.faults: list[Fault] = []

    def read(self, chunk: list[str]) -> None:
        """Take some lines on: each column in SI, the times alone with all their digits."""
        numbers = self._numbers(chunk)
        for k, (meaning, (factor, offset)) in enumerate(zip(self.parts, self.scales, strict=True)):
            kind = np.float64 if meaning == "time" else np.float32
            self.parts[meaning].append((numbers[:, k] * factor + offset).astype(kind))

    def _numbers(self, chunk: list[str]) -> Floats:
        """The numbers of some lines, (rows that can be read, columns of interest), in the units of the file."""
        begun = self.rows
        self.rows += len(chunk)
        comma = self.layout.decimal == ","
        plain = [line.replace(",", ".") for line in chunk] if comma else chunk
        try:
            numbers: Floats = np.loadtxt(
                plain, delimiter=self.layout.separator, usecols=self.used, comments=None, quotechar='"', ndmin=2
            )
        except ValueError:
            return self._row_by_row(chunk, begun)
        return numbers if len(numbers) == len(chunk) else self._row_by_row(chunk, begun)

    def _row_by_row(self, chunk: list[str], begun: int) -> Floats:
        """Where something in it is no number."""
        read_rows = []
        rows = csv.reader(chunk, delimiter=self.layout.separator, skipinitialspace=True)
        for k, row in enumerate(rows):
            if not any(cell.strip() for cell in row):
                continue
            values = self._row(row, self.layout.skip + begun + k + 1)
            if values is not None:
                read_rows.append(values)
        return np.array(read_rows).reshape(-1, len(self.used))

    def _row(self, row: list[str], line: int) -> list[float] | None:
        if len(row) <= max(self.used):
            self._fault(line, f"{len(row)} cells given", f"give {len(self.layout.columns)}, as in the other rows")
            return None
        values = []
        for k in self.used:
            cell, column = row[k].strip(), self.layout.columns[k]
            value = number(cell, self.layout.decimal)
            if not np.isfinite(value) and (cell or column.meaning == "time"):
                given = f"{shown(cell[:LONGEST_CELL])} given for {column.name or column.meaning}"
                self._fault(line, given, "give a number")
                return None
            values.append(value)
        return values

    def _fault(self, line: int, problem: str, remedy: str) -> None:
        self.faulty += 1
        if len(self.faults) < MOST_FAULTS:
            self.faults.append(Fault(f"line {line}", problem, remedy))

    def table(self) -> Table:
        """All that was read; the parts are let go on the way."""
        if self.rows == self.faulty or not any(len(part) for part in self.parts["time"]):
            raise DocumentError(self.faults or [Fault("", "no row of numbers", "give one row a moment")], self.faulty)
        columns = {meaning: np.concatenate(self.parts.pop(meaning)) for meaning in list(self.parts)}
        return Table(columns.pop("time"), columns, self.rows, self.faulty, self.faults)


def rows_of_sheet(data: Any) -> Iterator[str]:
    """The rows of the first sheet of an XLSX file as lines of CSV, one after the other.

    Args:
        data: a file opened for reading bytes.
    """
    from openpyxl import load_workbook  # noqa: PLC0415  # takes a moment to load

    book = load_workbook(data, read_only=True, data_only=True)
    for row in book.worksheets[0].iter_rows(values_only=True):
        yield ",".join("" if cell is None else str(cell).replace(",", ".") for cell in row)
