"""What turns which way, and what helps: every remedy offered is tried."""

import copy
import unittest
from typing import Any

from tests.core.designs import GEAR, MOTOR, changed
from tests.core.test_live import MIXED
from ydrometer.document import design
from ydrometer.evaluation.rotation import Rotation, rotation

ENGINE = {
    "drive.supply": None,
    "drive.branches": [
        {
            "source": {"kind": "engine", "torque_curve": [["1800 rpm", "6 N*m"], ["3600 rpm", "5 N*m"]]},
            "clutch": {"engagement_speed": "2200 rpm"},
            "stages": [{"kind": "gear", "driver_teeth": 16, "driven_teeth": 48}],
        },
    ],
}


def raw(changes: dict[str, Any]) -> dict[str, Any]:
    copied = copy.deepcopy(changed(changes))
    if copied["drive"].get("supply") is None:
        copied["drive"].pop("supply", None)
    return copied


def of(document: dict[str, Any]) -> Rotation:
    return rotation(design.read(document).design)


def with_change(document: Any, path: str, value: Any) -> None:
    *way, last = path.replace("[", ".").replace("]", "").split(".")
    for key in way:
        document = document[int(key) if key.isdigit() else key]
    document.pop(last, None)
    if value:
        document[last] = value


class Turning(unittest.TestCase):
    def test_each_remedy_helps(self) -> None:
        crossed = {"kind": "v_belt", "driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "120 mm"}
        for changes, count in (
            ({}, 2),
            (ENGINE, 1),
            ({f"{MOTOR}.reversed": True, f"{GEAR}.idlers": [20]}, 2),
            ({"drive.stages": [crossed]}, 3),
            ({f"{MOTOR}.reversed": True, "drive.stages": [{**crossed, "crossed": True}]}, 3),
        ):
            with self.subTest(changes):
                message = of(raw(changes))
                self.assertFalse(message.forwards)
                self.assertEqual(len(message.remedies), count)
                for remedy in message.remedies:
                    document = raw(changes)
                    for change in remedy.changes:
                        with_change(document, change.path, change.flag or change.teeth)
                    self.assertTrue(of(document).forwards, remedy.words)

    def test_an_engine_is_never_told_to_turn_round(self) -> None:
        self.assertFalse([r for r in of(raw(ENGINE)).remedies if "lead" in r.words])

    def test_branches_that_work_against_each_other(self) -> None:
        message = of(raw(MIXED))
        self.assertEqual(message.against, [1])
        for remedy in message.remedies:
            document = raw(MIXED)
            for change in remedy.changes:
                with_change(document, change.path, change.flag or change.teeth)
            self.assertEqual(of(document).against, [], remedy.words)

    def test_forwards_needs_no_remedy(self) -> None:
        message = of(raw({f"{MOTOR}.reversed": True}))
        self.assertEqual((message.forwards, message.known, message.remedies), (True, True, []))

    def test_a_bevel_leaves_it_open(self) -> None:
        message = of(raw({"drive.stages": [{"kind": "bevel", "driver_teeth": 16, "driven_teeth": 32}]}))
        self.assertEqual((message.known, message.remedies), (False, []))
