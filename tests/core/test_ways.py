"""All ways to place the shafts of a design, what would help where there is none, and what is left out."""

from __future__ import annotations

import math
import re
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.plates import AXLE, JACK, MOTOR, PLATE, about, at, look, read, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.document.mounting import Plate
from ydrometer.fit.clearances import clear
from ydrometer.fit.places import as_problem, with_distance
from ydrometer.fit.placing import placements
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.stock import stock_of
from ydrometer.screens.mounted import places


class Placing(TestCase):
    def test_no_plate_no_placings(self) -> None:
        with self.assertRaises(DocumentError) as raised:
            places(read({}))
        self.assertIn("no plate", str(raised.exception))

    def test_each_way_has_no_clash_in_its_distances(self) -> None:
        pair = [{"kind": "gear", "driver_teeth": 60, "driven_teeth": 60, "module": "1 mm"}]
        belt = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm"}
        edits = {"drive.branches.0.stages": pair, "drive.stages": [belt]}
        belts = [{"kind": "belt", "id": f"b{n}", "pitch": "5 mm", "teeth": n, "owned": 1} for n in range(70, 121)]
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 120, 60)], "tolerance": "0.1 mm"}
        ways = places(read(fit, **edits), stock_of(belts))
        self.assertGreater(ways.count, 4)
        for way in ways.ways[:8]:
            stand = [{"shaft": path, "mount": "holes", "at": list(spot)} for path, spot in way.at.items()]
            teeth = int(way.lengths[AXLE].split()[0])
            again = look({**fit, "shafts": stand}, **{**edits, "drive.stages": [{**belt, "belt_teeth": teeth}]})
            self.assertFalse([c for c in again.clashes if "apart" in c.text or "runs" in c.text])

    def test_another_length_and_another_tooth_are_offered(self) -> None:
        belts = [{"kind": "belt", "id": f"b{n}", "pitch": "5 mm", "teeth": n, "owned": 1} for n in range(60, 141)]
        slot = {"start": at(60, 60), "end": at(110, 60)}
        fit = {
            "plate": {**PLATE, "up": 1, "across": 40},
            "shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 120, 60)],
        }
        ways = places(read(fit), stock_of(belts))
        self.assertEqual(ways.count, 0)
        self.assertFalse(any("teeth in place" in entry.text for entry in ways.helps))
        pair = [{"kind": "gear", "driver_teeth": 59, "driven_teeth": 60, "module": "1 mm"}]
        teeth = places(
            read(
                {"plate": PLATE, "shafts": [shaft(MOTOR, 120, 60)]},
                **{"drive.branches.0.stages": pair, "drive.stages": []},
            )
        )
        helps = [entry for entry in teeth.helps if entry.teeth]
        self.assertTrue(any(60 in entry.teeth.values() for entry in helps), teeth.helps)
        self.assertTrue(all(entry.way for entry in helps))

    def test_an_idler_is_offered_where_it_leaves_no_clash(self) -> None:
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 84.45, 60), shaft(JACK, 120, 60), {"shaft": AXLE}]}
        ways = places(read({**fit, "loop_tolerance": "0.01 mm"}))
        self.assertEqual(ways.count, 0)
        entry = next(entry for entry in ways.helps if entry.idler)
        assert entry.idler is not None and entry.way is not None
        stand = [
            {"shaft": path, "mount": "holes" if path == AXLE else "fixed", "at": list(spot)}
            for path, spot in entry.way.at.items()
        ]
        tensioner = {"at": list(entry.idler.at), "diameter": entry.idler.diameter, "outside": entry.idler.outside}
        loops = [{"stage": entry.idler.stage, "tensioner": tensioner}]
        plate = look({"plate": PLATE, "shafts": stand, "loops": loops, "loop_tolerance": "0.01 mm"})
        self.assertEqual([clash.text for clash in plate.clashes if clash.level == "clash"], [])

    def test_what_is_left_out_is_what_the_checks_tell_of(self) -> None:
        """Each placement of the solver by itself, on a plate with a frame, stacks and the ground."""
        belts = [{"kind": "belt", "id": f"b{n}", "pitch": "5 mm", "teeth": n, "owned": 1} for n in range(60, 91)]
        belt = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm"}
        edits = {"drive.branches.0.stages": [{**belt, "belt_teeth": 70}], "drive.stages": [belt]}
        depth = [
            {"name": "pulley", "width": "10 mm", "wheel": f"{JACK} driven"},
            {"name": "pulley", "width": "10 mm", "wheel": f"{AXLE} driver", "at": "12 mm"},
        ]
        first: dict[str, Any] = {"stack": {"between": "30 mm", "items": [{**depth[0], "wheel": f"{JACK} driver"}]}}
        fit: dict[str, Any] = {
            "plate": {**PLATE, "across": 24, "up": 8},
            "loop_tolerance": "2 mm",
            "frame": [{"name": "rail", "start": at(0, 84), "end": at(200, 84)}],
            "shafts": [
                shaft(MOTOR, 24, 24, **first),
                {"shaft": JACK, "stack": {"between": "30 mm", "items": depth}},
                {"shaft": AXLE, "diameter": "10 mm"},
            ],
        }
        setup = set_up(read(fit, **edits).design, stock_of(belts))
        problem = as_problem(setup)
        placed = placements(problem).placements[::5]
        left = {id(placement) for placement in clear(setup, placed, with_distance(setup.plane))}
        self.assertTrue(0 < len(left) < len(placed))
        for placement in placed:
            shafts = [{**said, "mount": "fixed", "at": list(placement.at[said["shaft"]])} for said in fit["shafts"]]
            plate = look({**fit, "shafts": shafts}, belts, **edits)
            standing = "runs into|ground|leaves too little|too near|of metal|edge|break into"
            clashing = [c.text for c in plate.clashes if c.level == "clash" and re.search(standing, c.text)]
            self.assertEqual(id(placement) in left, not clashing, (placement.at, clashing))

    def test_a_first_shaft_in_a_slot_is_set_where_the_others_want_it(self) -> None:
        """By hand: the jack on each hole, the motor where the slot's line comes to 35.5 mm from it."""
        slot = {"start": at(10, 53), "end": at(70, 53)}
        fit = {"plate": {**PLATE, "across": 12}, "shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}]}
        ways = places(read(fit, **{"drive.stages": []}))
        setup = set_up(read(fit, **{"drive.stages": []}).design)
        reach = setup.plane.couplings[0].reaches[0]
        settings = np.linspace(10e-3, 70e-3, 60_001)
        going = 0
        for x, y in Plate(hole_pitch=12e-3, across=12, up=10).holes():
            apart = np.hypot(settings - x, 53e-3 - y)
            going += bool(((apart >= reach.low) & (apart <= reach.high)).any())
        spots = {(round(way.at[JACK][0], 9), round(way.at[JACK][1], 9)) for way in ways.ways}
        self.assertTrue(len(spots) > 20 and len(spots) <= going, (len(spots), going))

    def test_helps_are_enough_and_push_no_teeth_into_each_other(self) -> None:
        fit = {"plate": {**PLATE, "up": 1}, "shafts": [shaft(MOTOR, 12, 0), {"shaft": JACK}], "tolerance": "0.01 mm"}
        pair = {"kind": "gear", "driver_teeth": 19, "module": "1 mm"}
        for driven, helped in ((52, True), (54, False)):
            edits = {"drive.branches.0.stages": [{**pair, "driven_teeth": driven}], "drive.stages": []}
            ways = places(read(fit, **edits))
            more = [entry for entry in ways.helps if "more tolerance" in entry.text]
            self.assertEqual((ways.count, bool(more)), (0, helped))
            for entry in more:
                extra = float(entry.text.split()[0])
                self.assertTrue(1e-3 * extra >= entry.extra > 0.0 and extra > 0.0)
                wider = {**fit, "tolerance": f"{0.01 + extra} mm"}
                self.assertGreater(places(read(wider, **edits)).count, 0)

    def test_the_place_of_an_idler_is_said(self) -> None:
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 84.45, 60), shaft(JACK, 120, 60), {"shaft": AXLE}]}
        ways = places(read({**fit, "loop_tolerance": "0.01 mm"}))
        entry = next(entry for entry in ways.helps if entry.idler)
        assert entry.idler is not None
        x, y = (1e3 * size for size in entry.idler.at)
        self.assertIn(f"at {x:.1f}, {y:.1f} mm", entry.text)

    def test_ways_with_an_eccentric_meet_as_they_stand(self) -> None:
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 60, 60, eccentric="4 mm"), {"shaft": JACK}]}
        ways = places(read(fit, **{"drive.stages": []}))
        self.assertGreater(ways.count, 0)
        for way in ways.ways:
            stand = [
                shaft(MOTOR, 60, 60, eccentric="4 mm"),
                {"shaft": JACK, "mount": "holes", "at": list(way.at[JACK])},
            ]
            self.assertFalse(about(look({"plate": PLATE, "shafts": stand}, **{"drive.stages": []}), "too "))

    def test_a_free_idler_stands_where_both_of_its_meshes_are_right(self) -> None:
        row = {"kind": "gear", "module": "1 mm", "driver_teeth": 20, "idlers": [31], "driven_teeth": 40}
        edits = {"drive.branches.0.stages": [row], "drive.stages": []}
        idler = {"shaft": f"{JACK}.idlers[0]", "mount": "free"}
        fit = {"plate": PLATE, "shafts": [shaft(MOTOR, 60, 60), idler, shaft(JACK, 108, 72)]}
        plate = look(fit, **edits)
        self.assertFalse(about(plate, "too"))
        ways = places(read(fit, **edits))
        self.assertEqual(ways.count, 2)
        for way in ways.ways:
            for path, teeth in ((MOTOR, 51), (JACK, 71)):
                free = 0.5e-3 * teeth
                self.assertTrue(0.0 < math.dist(way.at[path], way.at[f"{JACK}.idlers[0]"]) - free < 1e-4)
        first, second = (plate.plan.shafts[1].other, (plate.plan.shafts[1].x, plate.plan.shafts[1].y))
        assert first is not None
        self.assertAlmostEqual(math.dist(first, (0.108, 0.072)), math.dist(second, (0.108, 0.072)), 9)
        rail = [{"name": "rail", "start": at(0, 96), "end": at(200, 96)}]
        cleared = look({**fit, "frame": rail}, **edits)
        self.assertEqual([clash.text for clash in cleared.clashes if clash.level == "clash"], [])
        self.assertEqual(cleared.plan.shafts[1].other, second)
        far = {**fit, "shafts": [shaft(MOTOR, 60, 60), idler, shaft(JACK, 180, 72)]}
        self.assertTrue(about(look(far, **edits), "too far apart"))
        self.assertEqual(places(read(far, **edits)).count, 0)
