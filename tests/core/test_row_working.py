"""The working of every row: the numbers shown give the number shown, and that is the row's."""

import json
import unittest
from pathlib import Path
from typing import Any

from tests.core.recomputing import recomputed
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.limits import ORDER, limits
from ydrometer.loads.row_working import row_working
from ydrometer.loads.rows import UseRow
from ydrometer.working.sheet import Working

CASES = Path(__file__).parent / "cases" / "loads"
DEMO = Path(__file__).parents[2] / "server" / "demo" / "vehicles"
NEAR = 2e-6
"""Relative difference that is allowed between a working and its row: what is solved is solved to this."""


class RowWorkings(unittest.TestCase):
    def check(self, raw: dict[str, Any]) -> set[str]:
        found = limits(evaluate([design.read(raw)]))
        for row in found.rows:
            with self.subTest(check=row.check, path=row.path, member=row.member, moment=row.moment):
                self.holds(row, row_working(found.case, row))
        return {row.check for row in found.rows if row.use is not None}

    def holds(self, row: UseRow, steps: Working) -> None:
        recomputed(self, steps)
        self.assertEqual(steps.value, row.demand if row.use is None else row.use)
        if row.use is not None:
            self.assertAlmostEqual(steps.steps[-1].value, row.use, delta=NEAR * abs(row.use))
        self.assertTrue(steps.formula)
        self.assertTrue(steps.source)

    def test_all_checks_of_cases_and_demo(self) -> None:
        cases = [*CASES.glob("*.json"), *CASES.parent.glob("*.json"), *(CASES.parent / "loads2").glob("*.json")]
        files = [file for file in cases if "expected" not in file.name] + sorted(DEMO.glob("*/2.json"))
        seen: set[str] = set()
        for file in files:
            raw = json.loads(file.read_text())
            with self.subTest(file=str(file.relative_to(file.parents[1]))):
                seen |= self.check(raw.get("design", raw))
        self.assertEqual(set(ORDER) - seen, {"order_of_steps"})
