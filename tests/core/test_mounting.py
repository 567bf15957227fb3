"""The `fit` section: how it is read, where shafts stand by it, and what does not go together."""

from __future__ import annotations

import math
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tests.core.designs import changed
from tests.core.plates import AXLE, CHAIN, JACK, MOTOR, PLATE, V_BELT, about, at, look, read, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.document.mounting import Slot
from ydrometer.fit.clash import Clash
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.standing import on_line
from ydrometer.geometry.segments import closest


class Reading(TestCase):
    def test_a_design_without_it_is_as_valid_as_before(self) -> None:
        self.assertIsNone(design.read(changed({})).design.fit)

    def test_every_fault_says_where_and_what_would_be_right(self) -> None:
        wrong: dict[str, tuple[dict[str, Any], str]] = {
            "fit.shafts[0].slot": ({"shafts": [{"shaft": MOTOR, "mount": "slot"}]}, "needs its start and end"),
            "fit.shafts[0].at": ({"shafts": [{"shaft": MOTOR, "mount": "fixed"}]}, "give x and y"),
            "fit.shafts[1]": ({"shafts": [shaft(MOTOR, 0, 0), shaft(MOTOR, 1, 1)]}, "say it once"),
            "fit.plate.hole": ({"plate": {**PLATE, "hole": "12 mm"}}, "smaller than hole_pitch"),
            "fit.shafts[0].slot.end": (
                {"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": {"start": at(1, 1), "end": at(1, 1)}}]},
                "the other end",
            ),
            "fit.frame[0].start": ({"frame": [{"start": ["1 mm"], "end": at(1, 1)}]}, "give x and y"),
            "fit.frame[0].end[1]": ({"frame": [{"start": at(0, 0), "end": ["1 mm", "1 kg"]}]}, "mm"),
            "fit.shafts[0].shape": ({"shafts": [shaft(MOTOR, 0, 0, shape="oval")]}, "round"),
        }
        for path, (fit, remedy) in wrong.items():
            with self.subTest(path), self.assertRaises(DocumentError) as raised:
                read(fit)
            faults = {fault.path: fault.remedy for fault in raised.exception.faults}
            self.assertIn(path, faults)
            self.assertIn(remedy, faults[path])

    def test_a_place_has_no_spread(self) -> None:
        with self.assertRaises(DocumentError):
            read({"shafts": [{"shaft": MOTOR, "mount": "fixed", "at": ["1 mm +/- 0.1 mm", "0 mm"]}]})

    def test_what_is_said_of_a_stage_that_was_taken_out_is_kept_and_told(self) -> None:
        plate = look({"shafts": [shaft("drive.stages[4]", 0, 0)], "loops": [{"stage": "drive.stages[4]"}]})
        self.assertEqual(len(about(plate, "does not have")), 2)


class Standing(TestCase):
    def test_without_a_word_they_stand_in_a_row_as_far_apart_as_they_have_to(self) -> None:
        plan = look({}).plan
        xs = [entry.x for entry in plan.shafts]
        self.assertEqual([entry.by for entry in plan.shafts], ["guessed", "tied", "tied"])
        self.assertTrue(xs[0] < xs[1] < xs[2])
        self.assertFalse(look({}).clashes)

    def test_a_shaft_in_a_slot_goes_where_its_pinion_meets(self) -> None:
        slot = {"start": at(60, 50), "end": at(100, 50)}
        fit = {"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 120, 50)]}
        motor, jack, _ = look(fit).plan.shafts
        free = 0.5e-3 * (15 + 56)
        self.assertAlmostEqual(jack.x - motor.x, free + 0.04e-3 / (2 * math.tan(math.radians(20))), 9)
        assert motor.slot is not None
        self.assertAlmostEqual(motor.slot.setting, motor.x - 0.06, 12)

    def test_a_slot_that_is_too_short_says_by_how_much_on_which_side(self) -> None:
        slot = {"start": at(60, 50), "end": at(80, 50)}
        fit = {"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 120, 50)]}
        clash = about(look(fit), "beyond its end")[0]
        self.assertAlmostEqual(clash.amount, 0.12 - 0.035555 - 0.08, 6)
        near = {"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 92, 50)]}
        clash = about(look(near), "beyond its start")[0]
        self.assertAlmostEqual(clash.amount, 0.06 - (0.092 - 0.035555), 6)

    @given(st.floats(-0.2, 0.2), st.floats(-0.2, 0.2), st.floats(0.02, 0.3), st.floats(-3.1, 3.1), st.floats(0.01, 0.1))
    def test_places_on_a_slots_line_have_the_distance(
        self, x: float, y: float, distance: float, angle: float, travel: float
    ) -> None:
        slot = Slot(start=(0.0, 0.0), end=(travel * math.cos(angle), travel * math.sin(angle)))
        for setting in on_line(slot, (x, y), distance):
            spot = (setting * math.cos(angle), setting * math.sin(angle))
            off = abs(x * math.sin(angle) - y * math.cos(angle))
            self.assertAlmostEqual(math.dist(spot, (x, y)), max(distance, off), 9)

    def test_boxes_stay_in_line_and_what_turns_the_axis_ends_the_plate(self) -> None:
        box = {"kind": "planetary", "reductions": [4]}
        setup = set_up(read({}, **{"drive.stages": [box, CHAIN]}).design)
        self.assertEqual(setup.plane.in_line, {"drive.stages[0]": JACK})
        self.assertEqual(setup.plane.last, "drive.stages[1]")
        turned = look({}, **{"drive.stages": [{"kind": "bevel", "driver_teeth": 16, "driven_teeth": 32}, CHAIN]})
        self.assertEqual([shaft.path for shaft in turned.plan.shafts], [MOTOR, JACK])
        self.assertIsNone(turned.plan.axle)

    def test_branches_meet_on_one_shaft(self) -> None:
        branch = changed({})["drive"]["branches"][0]
        setup = set_up(read({}, **{"drive.branches": [branch, branch]}).design)
        self.assertEqual(len(setup.plane.shafts), 4)
        ends = {coupling.driven.shaft for coupling in setup.plane.couplings if coupling.stage.kind == "gear"}
        self.assertEqual(ends, {JACK})


class Clashing(TestCase):
    def test_gears_too_close_and_too_far_with_the_play_that_is_left(self) -> None:
        for distance, words in ((35.0, "too close"), (36.0, "play"), (35.55, "")):
            with self.subTest(distance):
                plate = look({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, distance, 0)]})
                clash = [c for c in plate.clashes if c.path == JACK]
                self.assertEqual(bool(clash), bool(words))
                self.assertTrue(all(words in c.text for c in clash))

    def test_a_belt_that_is_too_short_or_too_loose(self) -> None:
        taut = look({}).plan.shafts
        wanted = 1e3 * (taut[2].x - taut[1].x)
        for more, word in ((3.0, "too short by 5.9"), (-3.0, "too loose by 5.9"), (0.2, "")):
            plate = look({"shafts": [shaft(JACK, 0, 0), shaft(AXLE, wanted + more, 0)]})
            self.assertEqual(bool(about(plate, "too ")), bool(word))
            self.assertTrue(all(word in c.text for c in about(plate, "too ")))

    def test_room_to_put_a_v_belt_on(self) -> None:
        slot = {"start": at(0, 0), "end": at(25, 0)}
        fit = {
            "shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 300, 0)],
            "loops": [{"stage": JACK, "length": "900 mm"}],
        }
        plate = look(fit, **{"drive.branches.0.stages": [V_BELT]})
        wanted = about(plate, "to put it on")[0]
        self.assertIn("take a longer V-belt", wanted.text)
        self.assertEqual(wanted.level, "clash")

    def test_a_wheel_that_runs_into_a_shaft_beside_it(self) -> None:
        near = {"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 35.55, 0), shaft(AXLE, 30, 20, diameter="8 mm")]}
        self.assertTrue(about(look(near), "the 56-tooth gear runs into the axle"))
        spur = {"name": "spur", "width": "10 mm", "at": "30 mm", "wheel": JACK + " driven"}
        deep = {"between": "60 mm", "items": [spur]}
        near["shafts"][1]["stack"] = deep
        near["shafts"][2]["length"] = "25 mm"
        self.assertFalse(about(look(near), "the 56-tooth gear runs into the axle"))

    def test_frame_ground_holes_and_plate(self) -> None:
        fit = {
            "plate": PLATE,
            "shafts": [shaft(MOTOR, 13, 12, "holes"), shaft(JACK, 48, 400), shaft(AXLE, 48, 50)],
            "frame": [{"name": "rail", "start": at(0, 380), "end": at(100, 380)}],
        }
        plate = look(fit)
        self.assertTrue(about(plate, "motor shaft stands 1.00 mm off the nearest hole"))
        self.assertTrue(about(plate, "beside the plate"))
        self.assertTrue(about(plate, "too near to the rail"))
        big = {**CHAIN, "driven_teeth": 45}
        self.assertTrue(about(look({}, **{"drive.stages": [big]}), "the ground, "))

    def test_a_chain_that_runs_through_a_rail(self) -> None:
        wanted = look({}, **{"drive.stages": [CHAIN]}).plan.shafts
        span = 1e3 * (wanted[2].x - wanted[1].x)
        rail = {"name": "rail", "start": at(span / 2, -200), "end": at(span / 2, 200)}
        fit = {"shafts": [shaft(JACK, 0, 0), shaft(AXLE, span, 0)], "frame": [rail]}
        self.assertEqual(len(about(look(fit, **{"drive.stages": [CHAIN]}), "the chain runs into the rail")), 2)

    def test_a_tensioner_takes_up_what_is_too_long(self) -> None:
        loops = [{"stage": AXLE, "tensioner": {"at": at(70, -20), "diameter": "20 mm", "outside": True}}]
        fit = {"shafts": [shaft(JACK, 0, 0), shaft(AXLE, 138, 0)], "loops": loops}
        off = about(look(fit), "with the tensioner")[0]
        # Moved until it is right: the way grows as it presses further in.
        low, high = -31.0, -5.0
        for _ in range(40):
            middle = 0.5 * (low + high)
            loops[0]["tensioner"] = {"at": at(70, middle), "diameter": "20 mm", "outside": True}
            clash_list = about(look(fit), "with the tensioner")
            if not clash_list:
                break
            low, high = (middle, high) if "longer" in clash_list[0].text else (low, middle)
        self.assertFalse(about(look(fit), "with the tensioner"))
        self.assertGreater(off.amount, 0.0)
        self.assertEqual(len(look(fit).plan.loops[0].segments), 6)
        values = {s.name: s.value for s in look(fit).settings[1].settings}
        self.assertAlmostEqual(values["length_here"], 0.42, 3)
        self.assertLess(values["driver_wrap"] + values["driven_wrap"] - 2.0 * math.pi, 1.2)
        self.assertGreater(values["driver_wrap"] + values["driven_wrap"], 2.0 * math.pi)
        loops[0]["tensioner"] = {"at": at(70, -40), "diameter": "20 mm", "outside": True}
        self.assertTrue(about(look(fit), "does not reach"))

    def test_bores_of_the_parts_at_hand(self) -> None:
        gear = {"kind": "gear", "id": "g", "teeth": 15, "module": "1 mm", "bore": "8 mm", "owned": 1}
        fit = {"shafts": [shaft(MOTOR, 0, 0, diameter="5 mm")]}
        self.assertTrue(about(look(fit, [gear]), "a sleeve of 5 mm inside and 8 mm outside"))
        self.assertFalse(about(look({"shafts": [shaft(MOTOR, 0, 0, diameter="8 mm")]}, [gear]), "bore"))

    def test_a_sleeve_that_is_at_hand_is_said_to_be(self) -> None:
        gear = {"kind": "gear", "id": "g", "teeth": 15, "module": "1 mm", "bore": "8 mm", "owned": 1}
        sleeve = {"kind": "sleeve", "id": "s", "shaft": "5 mm", "outside": "8 mm", "owned": 1}
        fit = {"shafts": [shaft(MOTOR, 0, 0, diameter="5 mm")]}
        self.assertTrue(about(look(fit, [gear, sleeve]), "which is at hand"))
        self.assertFalse(about(look(fit, [gear, {**sleeve, "owned": 0}]), "which is at hand"))

    def test_a_belt_wider_than_its_pulley(self) -> None:
        pulley = {"kind": "pulley", "id": "p", "teeth": 18, "pitch": "5 mm", "width": "16 mm"}
        belt = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm", "belt_teeth": 84}
        for wide, clashes in (("25 mm", 1), ("15 mm", 0)):
            plate = look({}, [pulley], **{"drive.stages": [{**belt, "width": wide}]})
            self.assertEqual(len(about(plate, "wide, the 18-tooth pulley of the bin")), clashes)

    def test_bolts_too_long_and_too_short_for_the_thread_behind(self) -> None:
        plate = {**PLATE, "thickness": "3 mm"}
        for length, words in (
            ("10 mm", "go 7.00 mm behind the plate"),
            ("8 mm", ""),
            ("5 mm", "less than their own width"),
        ):
            bolts = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": length, "depth": "5 mm"}
            found = look({"plate": plate, "shafts": [shaft(MOTOR, 24, 24, bolts=bolts)]})
            clash_list = about(found, "bolts around the motor shaft")
            self.assertEqual(bool(clash_list), bool(words), length)
            self.assertTrue(all(words in clash.text for clash in clash_list))

    def test_loops_in_the_same_depth_keep_apart(self) -> None:
        belt = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm", "belt_teeth": 84}
        edits = {"drive.branches.0.stages": [belt], "drive.stages": [belt]}
        first = {"between": "40 mm", "items": [{"width": "15 mm", "at": "10 mm", "wheel": JACK + " driver"}]}

        def placed(depth: str) -> list[Clash]:
            second = {"between": "60 mm", "items": [{"width": "15 mm", "at": depth, "wheel": AXLE + " driver"}]}
            shafts = [shaft(MOTOR, 0, 0, stack=first), shaft(JACK, 141.78, 0, stack=second), shaft(AXLE, 0, 2)]
            return about(look({"shafts": shafts}, **edits), "the belt runs into the belt")

        self.assertTrue(placed("10 mm"))
        self.assertFalse(placed("30 mm"))

    @given(st.lists(st.floats(-1, 1), min_size=8, max_size=8))
    def test_nearest_places_of_two_lines_are_as_near_as_any(self, n: list[float]) -> None:
        first, second = ((n[0], n[1]), (n[2], n[3])), ((n[4], n[5]), (n[6], n[7]))
        best = math.dist(*closest(first, second))
        for i in range(21):
            for j in range(21):
                spots = [
                    (a[0] + k / 20 * (b[0] - a[0]), a[1] + k / 20 * (b[1] - a[1]))
                    for (a, b), k in ((first, i), (second, j))
                ]
                self.assertLessEqual(best, math.dist(*spots) + 1e-9)


class Settings(TestCase):
    def values(self, fit: dict[str, Any], number: int, **edits: Any) -> dict[str, float]:
        return {s.name: s.value for s in look(fit, **edits).settings[number].settings}

    def test_a_stated_tension_is_felt_and_heard(self) -> None:
        fit = {"loops": [{"stage": AXLE, "tension": "64 N", "mass_per_length": "40 g/m"}]}
        settings = self.values(fit, 1)
        self.assertAlmostEqual(settings["push"], 4.0 * 64.0 / 64.0, 9)
        self.assertAlmostEqual(settings["note"], math.sqrt(64.0 / 0.04) / (2.0 * settings["span"]), 6)

    def test_play_as_it_stands(self) -> None:
        settings = self.values({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 35.6, 0)]}, 0)
        self.assertAlmostEqual(settings["play_here"], 2.0 * math.tan(math.radians(20)) * 0.1e-3, 12)

    def test_an_eccentric_is_turned_until_the_pair_meets(self) -> None:
        fit = {"shafts": [shaft(MOTOR, 0, 0, eccentric="2 mm"), shaft(JACK, 34.5, 0)]}
        plate = look(fit)
        self.assertFalse([c for c in plate.clashes if c.path == JACK])
        settings = self.values(fit, 0)
        angle = settings["eccentric_angle"]
        along, aside = 2e-3 * (1.0 - math.cos(angle)), 2e-3 * math.sin(angle)
        self.assertAlmostEqual(math.hypot(0.0345 + along, aside), settings["centre_distance_with_play"], 9)
        # Drawn where it stands then, with the mark on its rim turned as far.
        motor = plate.plan.shafts[0]
        assert motor.eccentric is not None
        self.assertAlmostEqual(motor.x, -along, 9)
        self.assertAlmostEqual(motor.y, aside, 9)
        self.assertEqual((motor.eccentric.home_x, motor.eccentric.home_y), (0.0, 0.0))
        pointing = math.atan2(motor.eccentric.mark_y - motor.eccentric.y, motor.eccentric.mark_x - motor.eccentric.x)
        self.assertAlmostEqual(pointing, settings["eccentric_angle"], 9)
        # Its bush reaches a throw beyond the shaft, or beyond two throws of its own.
        self.assertAlmostEqual(motor.eccentric.radius, 2e-3 + 4e-3, 12)
        thick = {"shafts": [{**fit["shafts"][0], "diameter": "12 mm"}, fit["shafts"][1]]}
        around = look(thick).plan.shafts[0].eccentric
        assert around is not None
        self.assertAlmostEqual(around.radius, 2e-3 + 6e-3, 12)
        on_a_hole = {"plate": PLATE, "shafts": [{**fit["shafts"][0], "mount": "holes"}, fit["shafts"][1]]}
        self.assertEqual(about(look(on_a_hole), "nearest hole"), [])
        fit["shafts"][0]["eccentric"] = "0.2 mm"
        self.assertTrue([c for c in look(fit).clashes if c.path == JACK])

    def test_every_pair_has_the_caution(self) -> None:
        for entry in look({}).settings:
            self.assertIn("Battery disconnected", entry.caution)
            self.assertTrue(entry.check)

    def test_pinions_and_lengths_that_a_mount_takes(self) -> None:
        slot = {"start": at(80, 50), "end": at(86, 50)}
        fit = {"shafts": [{"shaft": MOTOR, "mount": "slot", "slot": slot}, shaft(JACK, 120, 50)]}
        belts = [{"kind": "belt", "id": f"b{n}", "pitch": "5 mm", "teeth": n, "owned": 1} for n in (80, 84, 90)]
        gears, belt = look(fit, belts).settings
        going = [c.words for c in gears.choices if not c.missing]
        self.assertEqual(going, [f"{n} teeth" for n in range(12, 19)])
        self.assertEqual([c.words for c in belt.choices if not c.missing], ["84 teeth"])
        self.assertAlmostEqual(belt.choices[0].missing, 0.01, 3)


class Sections(TestCase):
    def section(self, items: list[dict[str, Any]], spacers: list[tuple[str, int]]) -> Any:
        fit = {
            "shafts": [shaft(JACK, 0, 0, diameter="8 mm", length="50 mm", stack={"between": "40 mm", "items": items})]
        }
        parts = [
            {"kind": "spacer", "id": f"s{t}", "thickness": t, "bore": "8 mm", "owned": owned} for t, owned in spacers
        ]
        return look(fit, parts).sections[0]

    def test_gaps_are_filled_from_what_is_at_hand(self) -> None:
        items = [{"width": "10 mm"}, {"width": "12 mm", "at": "15 mm"}, {"width": "8 mm"}]
        stack_section = self.section(items, [("1 mm", 4), ("2 mm", 4), ("5 mm", 2)])
        self.assertAlmostEqual(stack_section.error, -0.005)
        lines = [entry.width or entry.item for entry in stack_section.filled]
        self.assertEqual(lines, [0, "5 mm", 1, 2, "5 mm"])
        self.assertAlmostEqual(stack_section.protrudes, 0.010)

    def test_the_nearest_with_its_error(self) -> None:
        stack_section = self.section([{"width": "36.5 mm"}], [("1 mm", 4)])
        self.assertAlmostEqual(abs(stack_section.filled_error), 0.0005)

    def test_what_is_too_long_overlaps(self) -> None:
        stack_section = self.section([{"width": "30 mm"}, {"width": "12 mm", "at": "25 mm"}], [])
        self.assertAlmostEqual(stack_section.overlap, 0.005)
        self.assertIsNone(stack_section.filled)
