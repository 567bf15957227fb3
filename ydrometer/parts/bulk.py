"""Many parts in one line: "module 1, width 10: 12 13 14x2 15" is four gears, two of the third."""

from __future__ import annotations

import copy
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base.errors import DocumentError
from ydrometer.parts.cells import cell_value, head_of, put
from ydrometer.parts.columns import TABLE, PartColumn, PartTable
from ydrometer.parts.read import read_part

LISTED = {
    "gear": "teeth",
    "pulley": "teeth",
    "sprocket": "teeth",
    "belt": "teeth",
    "wheel": "diameter",
    "v_pulley": "pitch_diameter",
    "v_belt": "length",
    "spacer": "thickness",
    "gearbox": "ratio",
    "chain": "links",
}
"""For each kind that can be listed, the value that the list is of."""
SIZE = {"gear": "module", "pulley": "pitch", "sprocket": "pitch", "belt": "pitch", "chain": "pitch"}
"""What a size without a word is."""
SPELLINGS = {"dp": "diametral pitch", "m": "module", "p": "pitch"}
MOST = 500
LONGEST_LINE = 4000
"""Characters of a line, at most."""
# Lines come here with single blanks; runs are possessive, so that a line is gone through once.
_ENTRY = re.compile(r"(?P<value>\d++ \d++/\d++|\d++/\d++|\d++(?:[.,]\d++)?)(?: ?[x×] ?(?P<owned>\d++))?", re.IGNORECASE)
_UNIT = re.compile(r"(?<=[\d ])(mm|cm|m|in) ?$")
_VALUE_BEGINS = re.compile(r"[-+]?[\d.]")


@dataclass(frozen=True, slots=True)
class LineFault:
    """What is wrong in which line, counted from 1, and what would be right."""

    line: int
    problem: str
    remedy: str


def read_lines(kind: str, text: str) -> tuple[list[dict[str, Any]], list[LineFault]]:
    """The parts that lines of text stand for, without ids; one owned of each where no number is given.

    Args:
        kind: of the parts, a key of `LISTED`.
        text: lines "size or head value, …: list"; the part before the colon may be left out.

    Returns:
        The parts as they would stand in a bin, and the faults; with any fault the parts are not to be used.
    """
    parts: list[dict[str, Any]] = []
    faults: list[LineFault] = []
    for number, line in enumerate(text.splitlines(), start=1):
        if not line.strip():
            continue
        try:
            lines = list(_line(TABLE[kind], _plain(line)))
            faults += _judged(number, lines)
            parts += lines
        except ValueError as error:
            problem, _, remedy = str(error).partition(": ")
            faults.append(LineFault(number, problem, remedy))
    if len(parts) > MOST:
        faults.append(LineFault(0, f"{len(parts)} parts", f"give at most {MOST} at once"))
    return parts, faults


def _plain(line: str) -> str:
    if len(line) > LONGEST_LINE:
        raise ValueError(f"{len(line)} characters: give at most {LONGEST_LINE} in a line")
    return " ".join(line.split())


def _judged(line: int, parts: Sequence[dict[str, Any]]) -> list[LineFault]:
    """What the reader has against the parts of a line, each fault once."""
    faults: dict[LineFault, None] = {}
    for part in parts:
        try:
            read_part({"id": "new", **part})
        except DocumentError as error:
            faults |= {
                LineFault(line, f"{head_of(part['kind'], f.path)}: {f.problem}", f.remedy): None for f in error.faults
            }
    return list(faults)


def _line(kind: PartTable, line: str) -> Iterator[dict[str, Any]]:
    settings, colon, entries = line.rpartition(":")
    base: dict[str, Any] = {"kind": kind.kind, **copy.deepcopy(dict(kind.fixed))}
    for setting in settings.split(",") if colon else ():
        column, text = _setting(kind, setting)
        put(base, column.path, cell_value(column, text))
    listed = next(column for column in kind.columns if column.path == LISTED[kind.kind])
    rest, matched = entries, False
    unit = _UNIT.search(rest)
    rest = rest[: unit.start()] if unit else rest
    for entry in _ENTRY.finditer(rest):
        matched = True
        part = copy.deepcopy(base)
        put(part, listed.path, cell_value(listed, entry["value"], unit[1] if unit else ""))
        part["owned"] = int(entry["owned"]) if entry["owned"] else part.get("owned", 1)
        yield part
    left = _ENTRY.sub("", rest).replace(",", "").replace(";", "").strip()
    if left or not matched:
        raise ValueError(f'"{left[:40] or line.strip()[:40]}" is no list: give {_example(kind)}')


def _setting(kind: PartTable, text: str) -> tuple[PartColumn, str]:
    words, value = _split(text.strip())
    head = SPELLINGS.get(words, words) or SIZE.get(kind.kind, "").replace("_", " ")
    for column in kind.columns:
        if value and column.head == head:
            return column, value
    known = ", ".join(column.head for column in kind.columns)
    raise ValueError(f'"{text.strip()[:40]}" is no size of a {kind.singular}: known are {known}')


def _split(setting: str) -> tuple[str, str]:
    """Head and value: the value begins with the first number, or is the last word."""
    number = _VALUE_BEGINS.search(setting)
    if number:
        return setting[: number.start()].strip().lower(), setting[number.start() :]
    head, _, value = setting.rpartition(" ")
    return head.lower(), value


def _example(kind: PartTable) -> str:
    size = SIZE.get(kind.kind)
    before = f"{'module 1' if size == 'module' else 'pitch 5'}: " if size else ""
    return f"for example {before}12 13 14x2"
