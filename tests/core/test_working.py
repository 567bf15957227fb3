"""Every working: the numbers shown give the number shown, and that is the measure."""

import json
import unittest
from pathlib import Path
from typing import Any

from hypothesis import HealthCheck, Phase, given, settings

from tests.core.designs import changed, whole_documents
from tests.core.recomputing import recomputed
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.working import working
from ydrometer.working.recipes import RECIPES, NoWorkingError

CASES = Path(__file__).parent / "cases"
DEMO = Path(__file__).parents[2] / "server" / "demo" / "vehicles"


class Recomputing(unittest.TestCase):
    def check(self, raw: dict[str, Any]) -> None:
        document = design.read(raw)
        evaluation = evaluate([document])
        for name in RECIPES:
            found = evaluation.value(name, 0)
            if name == "overall_ratio":  # one a branch and gear; the working is of the lowest
                found = found[:: len(found) // len(document.design.drive.branches)]
            for branch, value in enumerate(found if isinstance(found, list) else [found]):
                steps = working(document, name, branch=branch if isinstance(found, list) else 0)
                recomputed(self, steps)
                if isinstance(value, float):
                    self.assertIsNotNone(steps.value)
                    if steps.steps:
                        last = steps.steps[-1].value
                        self.assertAlmostEqual(last, value, delta=2e-6 * abs(value) + 1e-7)
                    else:
                        self.assertFalse(evaluation.starts(0))
                if steps.plain is not None and isinstance(value, float):
                    reached = (steps.parts[-1].value if steps.parts else steps.plain) or 0.0
                    self.assertAlmostEqual(reached, value, delta=1e-8 * max(1.0, abs(value)))

    def test_the_reference_cases(self) -> None:
        for file in sorted(f for f in CASES.glob("*.json") if "expected" not in f.name):
            self.check(json.loads(file.read_text()))

    def test_the_demo(self) -> None:
        for file in sorted(DEMO.glob("*/2.json")):
            self.check(json.loads(file.read_text()))

    @settings(
        max_examples=8,
        deadline=None,
        derandomize=True,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(raw=whole_documents())
    def test_drawn_designs(self, raw: dict[str, Any]) -> None:
        self.check(raw)


class Contents(unittest.TestCase):
    def test_every_measure_has_one_but_the_price(self) -> None:
        self.assertEqual(set(MEASURES) - set(RECIPES), {"price"})

    def test_each_number_says_where_it_came_from(self) -> None:
        raw = changed({"vehicle.mass": {"value": "14 kg", "origin": "measured", "note": "bathroom scale"}})
        made = working(design.read(raw), "launch_acceleration")
        origins = {entry.symbol: (entry.origin, entry.note, entry.path) for entry in made.inputs}
        self.assertEqual(origins["m_v"], ("measured", "bathroom scale", "vehicle.mass"))
        self.assertEqual(origins["g"][0], "constant")
        self.assertEqual(origins["eta_t1"][0], "assumed")
        self.assertEqual(origins["m_p"][0], "default")
        self.assertEqual(origins["K_v"][0], "given")

    def test_the_plain_estimate_is_what_a_spreadsheet_gives(self) -> None:
        made = working(design.read(changed()), "top_speed")
        plain = 420 * 25.2 / (56 / 15 * 2) / 60 * 3.141592653589793 * 0.125
        self.assertAlmostEqual(made.plain or 0.0, plain, places=9)
        self.assertIn("friction in the stages", [part.words for part in made.parts])
        self.assertAlmostEqual(sum(p.change or 0.0 for p in made.parts), (made.value or 0.0) - plain, places=9)

    def test_a_distance_of_its_own(self) -> None:
        made = working(design.read(changed()), "time_to_distance", at=5.0)
        self.assertAlmostEqual(sum(made.table[3].values), 5.0, places=5)

    def test_what_is_not_there(self) -> None:
        for name, branch in (("beauty", 0), ("price", 0), ("top_speed", 3)):
            with self.assertRaises(NoWorkingError):
                working(design.read(changed()), name, branch=branch)
