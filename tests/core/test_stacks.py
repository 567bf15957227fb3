"""Depths along the shafts: what misses its partner, overlaps, or is not looked at; usual tolerances."""

from __future__ import annotations

import math
from typing import Any, cast
from unittest import TestCase, mock

import numpy as np

from tests.core.designs import changed
from tests.core.plates import AXLE, CHAIN, JACK, MOTOR, PLATE, about, at, look, read, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.files.fit_report import report
from ydrometer.files.sheets.outline import NOTES, Circle, plate_outline
from ydrometer.fit.coupling import Wheel
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.setup import Setup, same_depth
from ydrometer.geometry import gears
from ydrometer.screens.mounted import places

ANGLE = math.radians(20.0)
GEAR = {"kind": "gear", "driver_teeth": 20, "driven_teeth": 40, "module": "2.5 mm"}


def stacked(path: str, x: float, wheel: str, start: float, width: float, **more: Any) -> dict[str, Any]:
    items = [{"name": "wheel", "width": f"{width} mm", "at": f"{start} mm", "wheel": wheel}]
    return shaft(path, x, 0, stack={"between": "60 mm", "items": items}, **more)


class Depths(TestCase):
    def pair(self, start: float, begin: float) -> Any:
        return look(
            {
                "shafts": [
                    stacked(MOTOR, 0, f"{JACK} driver", start, 10),
                    stacked(JACK, 35.55, f"{JACK} driven", begin, 8),
                ]
            }
        )

    def test_gears_in_different_depths_are_told(self) -> None:
        apart = about(self.pair(0, 13), "miss each other by 3.00 mm")
        self.assertEqual([clash.level for clash in apart], ["clash"])
        partly = about(self.pair(0, 5), "meet over 5.00 mm of their width alone")
        self.assertEqual([clash.level for clash in partly], ["mind"])
        self.assertFalse(about(self.pair(0, 2), "width") + about(self.pair(0, 2), "depth"))

    def test_a_belt_runs_straight(self) -> None:
        def belt(begin: float) -> Any:
            wheels = [stacked(JACK, 0, f"{AXLE} driver", 10, 12), stacked(AXLE, 137, f"{AXLE} driven", begin, 12)]
            return look({"shafts": wheels})

        self.assertTrue(about(belt(12), "the belt runs 2.00 mm askew"))
        self.assertFalse(about(belt(10.5), "askew"))

    def test_a_wheel_that_is_not_there_or_elsewhere_switches_nothing_off_unsaid(self) -> None:
        for name, words in (
            ("drive.stages[7] driver", "this design does not have"),
            (f"{AXLE} driven", "is on another shaft"),
        ):
            plate = look({"shafts": [stacked(JACK, 0, name, 0, 10)]})
            self.assertTrue(about(plate, words))
        self.assertFalse(about(look({"shafts": [stacked(JACK, 0, f"{AXLE} driver", 0, 10)]}), "not looked at"))

    def test_every_overlap_and_a_short_shaft_are_told(self) -> None:
        widths = ("20 mm", "20 mm", "30 mm")
        items = [
            {"name": f"item {i}", "width": w, "at": f"{at_} mm"}
            for i, (w, at_) in enumerate(zip(widths, (0, 18, 33), strict=True))
        ]
        fit = {"shafts": [shaft(JACK, 0, 0, length="55 mm", stack={"between": "60 mm", "items": items})]}
        plate = look(fit)
        for words in (
            "item 0 and item 1 overlap by 2.00 mm",
            "item 1 and item 2 overlap by 5.00 mm",
            "item 2 and the second face overlap by 3.00 mm",
            "ends 5.00 mm before the second",
        ):
            self.assertEqual([clash.level for clash in about(plate, words)], ["clash"])
        (reported,) = report(read(fit))["stacks"]
        for gap, wanted in zip(reported["gaps"], (0.0, -2e-3, -5e-3, -3e-3), strict=True):
            self.assertAlmostEqual(gap, wanted)


class SameDepth(TestCase):
    def test_wheels_share_a_depth_where_their_spans_overlap(self) -> None:
        for first, second, same in (
            ((0.0, 0.01), (0.005, 0.015), True),
            ((0.0, 0.01), (0.002, 0.004), True),
            ((0.0, 0.01), (0.0, 0.01), True),
            ((0.0, 0.01), (0.01, 0.02), False),
            ((0.0, 0.01), (0.03, 0.04), False),
            ((0.0, 0.01), None, False),
            (None, None, False),
        ):
            for spans in ([first, second], [second, first]):
                with self.subTest(spans), mock.patch("ydrometer.fit.setup.depth", side_effect=spans):
                    setup, wheel = cast(Setup, None), cast(Wheel, None)
                    self.assertEqual(same_depth(setup, wheel, wheel), same)


class Tolerances(TestCase):
    def test_gears_stand_apart_by_a_tenth_of_a_millimetre_or_of_a_small_module(self) -> None:
        small = {**GEAR, "module": "0.5 mm"}
        for stage, apart, usual in ((GEAR, 75.0, 0.10), (small, 15.0, 0.05)):
            for more, goes in ((usual - 1e-3, True), (usual + 1e-3, False)):
                fit = {"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, apart + more, 0)]}
                plate = look(fit, **{"drive.branches.0.stages": [stage]})
                with self.subTest(stage["module"], more=more):
                    self.assertEqual(not about(plate, "too far apart"), goes)

    def test_enough_teeth_carry_at_once(self) -> None:
        """20 and 40 teeth without play have the contact ratio of textbooks, 1.64; farther apart less."""
        self.assertAlmostEqual(gears.contact_ratio(1e-3, 20, 40, ANGLE, 30e-3), 1.635, 3)
        self.assertGreater(gears.contact_ratio(1e-3, 20, 60, ANGLE, 20e-3, internal=True), 1.635)
        fit = {"tolerance": "2.5 mm", "shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 77.4, 0)]}
        plate = look(fit, **{"drive.branches.0.stages": [GEAR]})
        self.assertTrue(about(plate, "contact ratio"))
        self.assertFalse(about(plate, "too far apart"))

    def test_small_rings_have_no_involute_at_their_tips(self) -> None:
        for teeth, told in ((33, True), (34, False)):
            ring = {**GEAR, "driver_teeth": 12, "driven_teeth": teeth, "internal": True}
            plate = look({}, **{"drive.branches.0.stages": [ring]})
            with self.subTest(teeth):
                self.assertEqual(bool(about(plate, "no involute")), told)

    def test_one_mount_is_set_not_two(self) -> None:
        slot = {"start": at(0, 0), "end": at(9, 0)}
        with self.assertRaises(DocumentError) as raised:
            read({"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot, "eccentric": "2 mm"}]})
        self.assertEqual(raised.exception.faults[0].path, "fit.shafts[0].eccentric")


class Said(TestCase):
    def test_what_is_said_of_a_loop_and_not_used_is_told_for_what_it_is(self) -> None:
        chain = {"drive.stages": [CHAIN]}
        for loop, words in (
            ({"stage": JACK, "tension": "40 N"}, "which has none"),
            ({"stage": AXLE, "length": "762 mm"}, "its links count"),
            ({"stage": "drive.stages[3]"}, "this design does not have"),
        ):
            self.assertTrue(about(look({"loops": [loop]}, **chain), words))
        self.assertFalse(about(look({"loops": [{"stage": AXLE, "tension": "40 N"}]}, **chain), "said"))

    def test_each_mesh_of_a_row_has_a_path_of_its_own_and_what_does_not_mesh_keeps_apart(self) -> None:
        row = {"kind": "gear", "module": "1 mm", "driver_teeth": 30, "idlers": [20, 20], "driven_teeth": 30}
        edits = {"drive.branches.0.stages": [row], "drive.stages": []}
        fit = {
            "shafts": [
                shaft(MOTOR, 0, 0),
                shaft(f"{JACK}.idlers[0]", 15, 20),
                shaft(f"{JACK}.idlers[1]", 35, 20),
                shaft(JACK, 29, 0),
            ]
        }
        reported = report(read(fit, **edits))
        self.assertEqual(
            [stage["path"] for stage in reported["stages"]], [f"{JACK}.idlers[0]", f"{JACK}.idlers[1]", JACK]
        )
        self.assertTrue([c for c in reported["clashes"] if "30-tooth gear runs into the 30-tooth gear" in c["text"]])


class Teeth(TestCase):
    def test_gears_in_rings_as_their_corners_really_go(self) -> None:
        for ring in (40, 60, 97):
            for inner in range(ring - 14, ring - 2):
                self.assertEqual(gears.tips_foul(inner, ring, ANGLE), foul(inner, ring), (inner, ring))

    def test_a_pinion_that_fills_its_ring_is_told_and_how_many_teeth_go(self) -> None:
        pair = {"kind": "gear", "module": "1 mm", "driver_teeth": 58, "driven_teeth": 60, "internal": True}
        (clash,) = about(look({}, **{"drive.branches.0.stages": [pair], "drive.stages": []}), "run into those of")
        self.assertEqual(clash.level, "clash")
        most = int(clash.text.split("at most ")[1].split()[0])
        self.assertTrue(foul(most + 1, 60) and not foul(most, 60))

    def test_few_teeth_are_undercut(self) -> None:
        self.assertAlmostEqual(gears.least_teeth(ANGLE), 17.0973, 4)
        for teeth, told in ((17, [18.0]), (18, [])):
            plate = look({}, **{"drive.branches.0.stages.0.driver_teeth": teeth})
            self.assertEqual([s.value for s in plate.settings[0].settings if s.name == "driver_least_teeth"], told)


def foul(inner: int, ring: int) -> bool:
    """By turning a tooth of the gear out of its mesh until its leading corner goes into a tooth of the ring."""

    def involute(radius: float, teeth: int) -> float:
        angle = math.acos(min(1.0, 0.5 * teeth * math.cos(ANGLE) / radius))
        return math.tan(angle) - angle

    own = math.tan(ANGLE) - ANGLE
    tip, inside = 0.5 * inner + 1.0, 0.5 * ring - 1.0
    corner = math.pi / (2 * inner) + own - involute(tip, inner)
    for turn in np.linspace(0.0, math.pi, 4000):
        x = 0.5 * (ring - inner) + tip * math.cos(turn + corner)
        y = tip * math.sin(turn + corner)
        radius = math.hypot(x, y)
        if radius <= inside:
            continue
        pitch = 2.0 * math.pi / ring
        off = (math.atan2(y, x) - turn * inner / ring + 0.5 * pitch) % pitch - 0.5 * pitch
        if abs(off) > math.pi / (2 * ring) + own - involute(radius, ring) + 1e-9:
            return True
    return False


class Bodies(TestCase):
    def test_motors_clear_each_other_shafts_the_frame_and_the_ground(self) -> None:
        branch = changed({})["drive"]["branches"][0]
        two, other = {"drive.branches": [branch, branch]}, "drive.branches[1].source"
        pair = [shaft(MOTOR, 0, 0, body="40 mm"), shaft(other, 0, 42, body="36 mm")]
        self.assertFalse(about(look({"shafts": pair}, **two), "the body on"))
        pair[1]["at"] = at(0, 38.5)
        (clash,) = about(look({"shafts": pair}, **two), "leaves too little to the body on")
        self.assertAlmostEqual(clash.amount, 0.5e-3)
        near = [shaft(MOTOR, 0, 0, body="40 mm"), shaft(JACK, 20, 0, diameter="8 mm")]
        rail = [{"name": "rail", "start": at(-30, 15), "end": at(30, 15)}]
        plate = look({"shafts": near, "frame": rail})
        self.assertTrue(about(plate, "runs into the shaft of the 56-tooth gear: 5.00 mm more"))
        self.assertTrue(about(plate, "runs into the rail: 6.00 mm more"))
        under = [{"name": "pan", "start": at(0, -200), "end": at(90, -190)}]
        self.assertTrue(about(look({"shafts": near, "frame": under}), "the pan reaches"))
        low = {"shafts": [shaft(MOTOR, 0, 0, body="240 mm"), shaft(AXLE, 200, 0)]}
        self.assertTrue(about(look(low), "into the ground"))

    def test_placing_keeps_clear_of_them_and_templates_show_them(self) -> None:
        fit = {"plate": PLATE, "tolerance": "1 mm", "shafts": [shaft(MOTOR, 60, 60, body="64 mm"), {"shaft": JACK}]}
        setup = set_up(read(fit, **{"drive.stages": []}).design)
        bare = {**fit, "shafts": [shaft(MOTOR, 60, 60), {"shaft": JACK, "diameter": "8 mm"}]}
        self.assertGreater(places(read(bare, **{"drive.stages": []})).count, 0)
        wide = {**fit, "shafts": [shaft(MOTOR, 60, 60, body="70 mm"), {"shaft": JACK, "diameter": "8 mm"}]}
        self.assertEqual(places(read(wide, **{"drive.stages": []})).count, 0)
        drawn = [shape for shape in plate_outline(setup).shapes if isinstance(shape, Circle) and shape.layer == NOTES]
        self.assertEqual([(round(c.x, 6), c.radius) for c in drawn], [(0.06, 0.032)])

    def test_wires_go_where_most_room_is(self) -> None:
        branch = changed({})["drive"]["branches"][0]
        two, other = {"drive.branches": [branch, branch]}, "drive.branches[1].source"
        pair = [shaft(MOTOR, 0, 0, body="40 mm"), shaft(other, 44, 0, body="40 mm"), shaft(JACK, 22, -300)]
        rows = {one.path: one.wires for one in look({"shafts": pair}, **two).plan.shafts}
        self.assertIsNone(rows[JACK])
        self.assertAlmostEqual(rows[MOTOR] or 0.0, math.pi)
        self.assertEqual(rows[other], 0.0)
        walls = [
            {"name": "wall", "start": at(-24, -90), "end": at(-24, 90)},
            {"name": "roof", "start": at(-24, 24), "end": at(90, 24)},
        ]
        (way,) = (one.wires for one in look({"shafts": pair, "frame": walls}, **two).plan.shafts if one.path == MOTOR)
        self.assertLess(math.sin(way or 0.0), -0.8)
