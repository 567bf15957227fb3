"""A friction drive: how hard its roller is pressed decides."""

from __future__ import annotations

import unittest

from tests.core.every_kind import (
    PATH,
    raw,
)
from ydrometer.document import design
from ydrometer.document.stages import KINDS
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.messages import messages


class Friction(unittest.TestCase):
    def test_a_roller_that_is_pressed_too_little_is_told(self) -> None:
        for force, told in (("5 N", True), ("5000 N", False)):
            document = raw("friction", **{"drive.stages.0.press_force": force})
            document["drive"]["stages"][0]["press_force"] = force
            rows = [m for m in messages(evaluate([design.read(document)])) if m.path == f"{PATH}.press_force"]
            self.assertEqual(bool(rows), told, force)

    def test_its_caution_begins_at_press_force_times_friction(self) -> None:
        (stage,) = design.read_stages([{**KINDS["friction"].start, "kind": "friction", "friction": 0.5}])
        holds = 80.0 * 0.5 * 0.015
        self.assertEqual(list(stage.cautions(0.999 * holds)), [])
        self.assertEqual([key for key, _ in stage.cautions(1.001 * holds)], ["press_force"])

    def test_what_nobody_measured_is_assumed(self) -> None:
        assumed = design.read(raw("friction")).assumed
        for key, value in (("friction", 0.6), ("slip", 0.03), ("efficiency", 0.92)):
            self.assertIn(f"{PATH}.{key} = {value:g}", assumed)
