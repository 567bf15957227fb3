"""Texts from strangers: twice as long a text takes about twice as long to read, whatever stands in it."""

from __future__ import annotations

import contextlib
import time
import unittest
from collections.abc import Callable
from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.core.designs import changed
from ydrometer.base import strict_json, units
from ydrometer.base.errors import MOST_FAULTS, DocumentError, YdrometerError
from ydrometer.document import design
from ydrometer.parts import bulk, cells, columns, files, names, sheet

SHORT, LONG = 4_000, 64_000
"""Characters of the two texts that are compared."""
MOST_TIMES = 100.0
"""A text 16 times as long may take this many times as long; quadratic time would be 256 times."""
TICK_S = 2e-4
"""What takes less is not told apart from nothing."""
CURVE = next(column for column in columns.TABLE["engine"].columns if column.type == "curve")
QUANTITY = next(column for column in columns.TABLE["gear"].columns if column.type == "quantity")

READERS: dict[str, Callable[[str], Any]] = {
    "quantity": lambda text: units.parse(text, "mass"),
    "uncertain quantity": lambda text: units.parse_uncertain(f"12 kg ± {text}", "mass"),
    "spread first": lambda text: units.parse_uncertain(f"{text} +/- 1", "mass"),
    "lines of parts": lambda text: bulk.read_lines("gear", text),
    "a line's settings": lambda text: bulk.read_lines("gear", f"{text}: 12"),
    "heads of a table": lambda text: sheet.parts_in([[text, text], ["a", "b"]], "gear"),
    "cell of a table": lambda text: sheet.parts_in([["teeth", "module", "note"], [text, text, text]], "gear"),
    "cell of a curve": lambda text: cells.cell_value(CURVE, text),
    "cell of a quantity": lambda text: cells.cell_value(QUANTITY, text),
    "file": lambda text: files.tables_in("a.csv", text.encode()),
    "id of a part": lambda text: names.Ids(()).new({"kind": "gear", "name": text}),
    "JSON": lambda text: strict_json.load(text.encode()),
    "name of a design": lambda text: design.read(changed({"name": text})),
    "mass of a design": lambda text: design.read(changed({"vehicle.mass": text})),
    "unknown keys": lambda text: design.read(changed() | dict.fromkeys(text.split())),
}
PIECES = (
    " ",
    "1",
    "1 ",
    "1/",
    "a",
    "a ",
    "1 a",
    ".",
    ",",
    "-",
    "- ",
    "(",
    "[",
    "±",
    "+/-",
    "*",
    "/",
    "x",
    ";",
    ":",
    "\t",
    "\n",
    "é",
    "0.",
    "e1",
    "mm ",
    "Nm",
    '"',
    "\\",
    "{",
    "1 1/1",
)


def seconds(read: Callable[[str], Any], text: str) -> float:
    """The shortest of three times of this thread alone; a refusal is an answer too."""
    taken = []
    for _ in range(3):
        begun = time.thread_time()
        with contextlib.suppress(YdrometerError):
            read(text)
        taken.append(time.thread_time() - begun)
    return min(taken)


def grows_evenly(read: Callable[[str], Any], short: str, long: str) -> bool:
    """Whether a text that is longer takes as much longer, and no more; a machine that stumbles is asked again."""
    return any(seconds(read, long) < MOST_TIMES * max(seconds(read, short), TICK_S) for _ in range(3))


class Growth(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.sampled_from(PIECES), st.sampled_from(PIECES), st.sampled_from(("", "1", "a", "(", ":")))
    @example("±", " ", "a")
    @example("a", " ", "b")
    @example("1", " ", ":")
    @example("1 rpm", " ", "a")
    def test_time_grows_with_the_length(self, first: str, repeated: str, last: str) -> None:
        for name, read in READERS.items():
            short, long = (first + repeated * (n // len(repeated)) + last for n in (SHORT, LONG))
            self.assertTrue(grows_evenly(read, short, long), f"{name}: {first!r}, many {repeated!r}, {last!r}")


class ManyFaults(unittest.TestCase):
    def test_the_first_are_told_and_the_others_counted(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            design.read(changed() | {f"key{n}": n for n in range(3000)})
        self.assertEqual((len(caught.exception.faults), caught.exception.more), (MOST_FAULTS, 2800))
        self.assertEqual(caught.exception.lines()[-1], "and 2,800 more")

    def test_a_table_is_read_until_then(self) -> None:
        parts, faults = sheet.parts_in([["kind", "teeth"], *(["gear", "many"] for _ in range(5000))])
        self.assertEqual((parts, len(faults), faults[-1].row), ([], MOST_FAULTS + 1, MOST_FAULTS + 2))
        self.assertIn("not read from here on", faults[-1].problem)


class Cells(unittest.TestCase):
    def test_what_a_spreadsheet_would_compute_is_told_to_be_text(self) -> None:
        for text in ("=1+1", " =1+1", "\n=1+1", "\u00a0=1", "\t@x", "-1+1"):
            with self.subTest(text):
                self.assertEqual(sheet.harmless(text), f"'{text}")
        self.assertEqual(sheet.harmless("a = 1"), "a = 1")


if __name__ == "__main__":
    unittest.main()
