"""Several motors of one branch around one gear: each with a place of its own, in checks, plan and template."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any
from unittest import TestCase

from tests.core.plates import JACK, MOTOR, PLATE, about, look, read, shaft
from ydrometer.files.sheets.outline import BOLTS, Circle, plate_outline
from ydrometer.fit.setting_up import set_up
from ydrometer.screens.mounted import OnPlate, places

GEAR = {"kind": "gear", "module": "1 mm", "driver_teeth": 20, "driven_teeth": 60}


def motors(count: int, shafts: list[dict[str, Any]], **more: Any) -> OnPlate:
    return look({"shafts": shafts, **more}, **edits(count))


def edits(count: int) -> dict[str, Any]:
    return {"drive.branches.0.stages": [GEAR], "drive.branches.0.count": count, "drive.stages": []}


class Around(TestCase):
    def test_they_stand_evenly_around_the_gear_and_mesh(self) -> None:
        for count in (2, 3, 4):
            found = motors(count, [shaft(MOTOR, 0, 0), shaft(JACK, 40.05, 0)])
            spots = [(one.x - 0.04005, one.y) for one in found.plan.shafts if one.path.startswith(MOTOR)]
            angles = sorted(math.atan2(y, x) % (2.0 * math.pi) for x, y in spots)
            self.assertEqual(len(spots), count)
            for before, after in pairwise(angles):
                self.assertAlmostEqual(after - before, 2.0 * math.pi / count, 6)
            self.assertFalse(about(found, "too close") + about(found, "too far"))
            drivers = [wheel for wheel in found.plan.wheels if wheel.teeth == GEAR["driver_teeth"]]
            (gear,) = (wheel for wheel in found.plan.wheels if wheel.teeth == GEAR["driven_teeth"])
            for driver in drivers:
                towards = math.atan2(gear.y - driver.y, gear.x - driver.x)
                tooth = (driver.phase - towards) * 20 / (2.0 * math.pi)
                gap = (gear.phase - towards - math.pi) * 60 / (2.0 * math.pi)
                self.assertAlmostEqual(abs((tooth + gap) % 1.0 - 0.5), 0.0, 6)

    def test_bodies_that_are_too_wide_for_it_are_told(self) -> None:
        row = [shaft(MOTOR, 0, 0, body="50 mm"), shaft(JACK, 40.05, 0)]
        self.assertFalse(about(motors(3, row), "to the body on"))
        self.assertTrue(
            about(motors(4, [shaft(MOTOR, 0, 0, body="60 mm"), shaft(JACK, 40.05, 0)]), "the body on the motor")
        )

    def test_one_may_be_said_to_stand_elsewhere_and_bolts_are_drilled_for_each(self) -> None:
        bolts = {"count": 2, "circle": "16 mm", "hole": "3 mm"}
        row = [shaft(MOTOR, 0, 0, bolts=bolts), shaft(JACK, 40.05, 0)]
        said = motors(2, [*row, shaft(f"{MOTOR}[1]", 40.05, 40.05)])
        self.assertEqual(about(said, "does not have") + about(said, "too"), [])
        setup = set_up(read({"shafts": row}, **edits(3)).design)
        drilled = [shape for shape in plate_outline(setup).shapes if isinstance(shape, Circle) and shape.layer == BOLTS]
        self.assertEqual(len(drilled), 3 * 2)
        placed = set_up(read({"shafts": [*row, shaft(f"{MOTOR}[1]", 40.05, 40.05)]}, **edits(2)).design)
        self.assertEqual(placed.shaft(f"{MOTOR}[1]").bolts, placed.shaft(MOTOR).bolts)
        self.assertTrue(about(motors(1, [*row, shaft(f"{MOTOR}[1]", 0, 40)]), "does not have"))

    def test_ways_place_each_on_a_hole_of_its_own(self) -> None:
        fit = {"plate": {**PLATE, "hole_pitch": "10 mm"}, "shafts": [shaft(MOTOR, 100, 50, body="30 mm")]}
        ways = places(read(fit, **edits(2)))
        self.assertGreater(ways.count, 0)
        for way in ways.ways:
            self.assertGreater(math.dist(way.at[MOTOR], way.at[f"{MOTOR}[1]"]), 0.031)

    def test_more_than_fit_are_told(self) -> None:
        self.assertTrue(about(motors(6, [shaft(MOTOR, 0, 0)]), "6 motors"))
