"""The reference designs and their results."""

import json
import math
import unittest
from pathlib import Path
from typing import Any

from ydrometer.base import strict_json
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import result

CASES = Path(__file__).parent / "cases"
CLOSE = 1e-4


def difference(found: Any, wanted: Any) -> float:
    """The largest relative difference anywhere; infinite where texts or nulls differ."""
    if isinstance(wanted, dict):
        return max(difference(found[key], wanted[key]) for key in wanted)
    if isinstance(wanted, list):
        return max((difference(f, w) for f, w in zip(found, wanted, strict=True)), default=0.0)
    if isinstance(wanted, float) and isinstance(found, float):
        return abs(found - wanted) / abs(wanted) if wanted else abs(found)
    return 0.0 if found == wanted else math.inf


class References(unittest.TestCase):
    def test_all_cases_agree(self) -> None:
        files = sorted(f for f in CASES.glob("*.json") if "expected" not in f.name)
        self.assertEqual(len(files), 12)
        for file in files:
            wanted = json.loads(file.with_suffix("").with_suffix(".expected.json").read_text())
            found = result(evaluate([design.read(strict_json.load(file.read_bytes()))]))
            with self.subTest(file.name, key="state"):
                self.assertEqual((found["state"], found.get("held_by")), (wanted["state"], wanted.get("held_by")))
            for measure, entry in wanted["measures"].items():
                with self.subTest(file.name, measure=measure):
                    self.assertEqual(found["measures"][measure]["unit"], entry["unit"])
                    self.assertLess(difference(found["measures"][measure]["value"], entry["value"]), CLOSE)
