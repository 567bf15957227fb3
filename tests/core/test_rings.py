"""A ring gear has an outside: against the frame, the ground, shafts and what stands in its depth."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from tests.core.plates import AXLE, JACK, MOTOR, PLATE, about, at, look, read, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.ways import ways
from ydrometer.screens.mounted import OnPlate

RING: dict[str, Any] = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "internal": True, "module": "1 mm"}
"""Its roots are 62.5 mm across, its outside 67.5 mm; inside it is clear for 58 mm."""


def ring(*shafts: dict[str, Any], stage: dict[str, Any] = RING, **fit: Any) -> OnPlate:
    standing = [shaft(MOTOR, 60, 60), shaft(JACK, 82.5, 60), *shafts]
    return look({"shafts": standing, **fit}, **{"drive.branches.0.stages": [stage]})


class Outside(TestCase):
    def test_a_shaft_stands_outside_or_inside_of_it(self) -> None:
        for x, short in ((82.5 + 35, 1.25), (82.5 + 39, 0.0), (82.5 + 25, 1.0), (82.5 + 23, 0.0)):
            told = about(ring(shaft(AXLE, x, 60, diameter="8 mm")), "60-tooth ring gear runs into the axle")
            told += about(ring(shaft(AXLE, x, 60, diameter="8 mm")), "60-tooth ring gear leaves too little to the axle")
            with self.subTest(x):
                # 33.75 mm outside, 29 mm inside, 4 mm of the axle, 1 mm between.
                wanted = min(38.75 - (x - 82.5), (x - 82.5) - 24.0)
                self.assertEqual([round(1e3 * clash.amount, 6) for clash in told], [wanted] if wanted > 0.0 else [])
                self.assertEqual(bool(told), short > 0.0)

    def test_the_frame_keeps_off_it_and_a_said_outside_counts(self) -> None:
        rail = [{"name": "rail", "start": at(0, 95), "end": at(200, 95)}]
        self.assertEqual(about(ring(frame=rail), "ring gear comes too near"), [])
        wide = {**RING, "make": {"driven": {"outside": "72 mm"}}}
        told = about(ring(stage=wide, frame=rail), "60-tooth ring gear comes too near to the rail: 2.00 mm")
        self.assertEqual(len(told), 1)

    def test_the_ground_is_below_it(self) -> None:
        low = look(
            {"shafts": [shaft(MOTOR, 60, 60), shaft(JACK, 82.5, 60)]},
            **{"drive.branches.0.stages": [RING], "drive.stages": [], "vehicle.wheel_diameter": "70 mm"},
        )
        self.assertEqual(len(about(low, "60-tooth ring gear leaves 1.25 mm to the ground")), 1)

    def test_ways_keep_off_it_too(self) -> None:
        standing = [shaft(MOTOR, 60, 60), shaft(JACK, 82.5, 60), {"shaft": AXLE, "mount": "holes", "diameter": "8 mm"}]
        belt = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 18, "pitch": "5 mm", "belt_teeth": 40}
        fit = {"plate": PLATE, "shafts": standing, "loop_tolerance": "20 mm"}
        answer = ways(set_up(read(fit, **{"drive.branches.0.stages": [RING], "drive.stages": [belt]}).design))
        self.assertTrue(answer.count)
        for way in answer.ways:
            off = ((1e3 * way.at[AXLE][0] - 82.5) ** 2 + (1e3 * way.at[AXLE][1] - 60.0) ** 2) ** 0.5
            self.assertTrue(off >= 38.75 - 1e-6 or off <= 24.0 + 1e-6, off)

    def test_what_is_said_of_it_wrongly_is_told(self) -> None:
        for stage, words in (
            ({**RING, "make": {"driven": {"outside": "62 mm"}}}, "its roots are 62.5 mm across"),
            ({**RING, "internal": False, "make": {"driven": {"outside": "80 mm"}}}, "no ring"),
        ):
            with self.subTest(words), self.assertRaises(DocumentError) as raised:
                read({}, **{"drive.branches.0.stages": [stage]})
            self.assertIn(words, str(raised.exception))
