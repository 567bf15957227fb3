"""Loads, second part: what the reference cases do not reach."""

import json
import math
import unittest
from dataclasses import fields
from pathlib import Path
from typing import Any

import numpy as np

from tests.core.designs import changed
from ydrometer.base import paths
from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.bearings import load_rating
from ydrometer.base.tables.fatigue import concentration
from ydrometer.base.tables.keys import key_for
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.files.limits_report import report
from ydrometer.loads.day import Stretch, longest_currents
from ydrometer.loads.limits import limits
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.low import emptied
from ydrometer.loads.offers import Offer, offers
from ydrometer.motion.states import States, driving

CASES = Path(__file__).parent / "cases" / "loads2"


def case(name: str) -> dict[str, Any]:
    """One of the reference designs, to be changed."""
    raw: dict[str, Any] = json.loads((CASES / f"{name}.json").read_text())
    return raw


def case_of_motion(name: str) -> dict[str, Any]:
    """The same of the motion model's."""
    raw: dict[str, Any] = json.loads((CASES.parent / f"{name}.json").read_text())
    return raw


def told(raw: dict[str, Any]) -> dict[str, Any]:
    """The rows alone, as they are printed; helps take long."""
    found = limits(evaluate([design.read(raw)])).rows
    lists = ("needs", "remarks")
    plain = [{f.name: getattr(row, f.name) for f in fields(row)} for row in found]
    return {"checks": [{**row, **{key: list(row[key]) for key in lists}} for row in plain]}


def whole(raw: dict[str, Any]) -> dict[str, Any]:
    """All that is printed."""
    return report(design.read(raw))


def row(answer: dict[str, Any], check: str, path: str = "", member: str | None = None) -> dict[str, Any]:
    """The first row of a check, of a path and member where they are asked for."""
    found: dict[str, Any] = next(
        each
        for each in answer["checks"]
        if each["check"] == check and path in each["path"] and (member is None or each["member"] == member)
    )
    return found


class Reversal(unittest.TestCase):
    def test_who_is_thrown_into_reverse(self) -> None:
        robot = case("01-robot")
        for said, wanted in ((None, True), (False, False), (True, True)):
            robot["loads"].pop("reverses", None)
            robot["loads"] |= {} if said is None else {"reverses": said}
            names = [moment["moment"] for moment in whole(robot)["moments"]]
            with self.subTest(said):
                self.assertEqual("reversal" in names, wanted)

    def test_neither_engines_nor_panels_are(self) -> None:
        panel = {
            "kind": "panel",
            "short_circuit_current": "3 A",
            "open_circuit_voltage": "24 V",
            "max_power_voltage": "19 V",
            "max_power_current": "2.6 A",
        }
        with self.assertRaisesRegex(DocumentError, "a panel takes no current back"):
            design.read(changed({"drive.supply": panel, "loads": {"reverses": True}}))

    def test_wheels_that_hold_pass_all_but_what_turns_the_rotor(self) -> None:
        robot = case("01-robot")
        robot["vehicle"]["grip"] = 4.0
        del robot["loads"]["day"]
        moment = next(m for m in whole(robot)["moments"] if m["moment"] == "reversal")
        turned = next(shaft for shaft in moment["shafts"] if shaft["path"].endswith("source"))
        # The vehicle slows down, so its rotors push on, and less than the motor's torque is passed.
        self.assertLess(turned["torque"], 0.0)
        self.assertGreater(turned["torque"], moment["sources"][0]["torque"])

    def test_without_a_limit_it_is_told(self) -> None:
        robot = case("01-robot")
        del robot["drive"]["branches"][0]["controller"]["current_limit"]
        found = row(told(robot), "controller_peak")
        self.assertEqual(found["moment"], "reversal")
        self.assertTrue(any("nothing holds its current back" in remark for remark in found["remarks"]))

    def test_current_that_flows_back_counts(self) -> None:
        robot = case("01-robot")
        peak = row(told(robot), "supply_peak")
        self.assertEqual(peak["moment"], "reversal")
        self.assertIn("it flows back into the battery", peak["remarks"])

    def test_a_fuse_sees_it_whichever_way_it_flows(self) -> None:
        def day(sign: float) -> list[float]:
            time, one = np.array([0.0, 2.0]), np.ones(2)
            nothing, each = np.zeros(2), np.zeros((2, 1))
            states = States(time, nothing, one, one, nothing, one, one, sign * 50.0 * one, one, each, each, each, each)
            return longest_currents(type("Day", (), {"stretches": [Stretch(states)]})())

        self.assertEqual(day(1.0), day(-1.0))
        self.assertAlmostEqual(day(-1.0)[0], 50.0)


class Run(unittest.TestCase):
    def test_what_jumps_where_a_panels_voltage_drops_is_seen_on_both_sides(self) -> None:
        """A current limit holds the force until the panel gives way: it is seen just before."""
        raw = case_of_motion("06-panel")
        raw["vehicle"].update(mass="0.66 kg", wheel_diameter="52 mm")
        raw["drive"]["branches"][0]["source"] = {
            "kind": "motor",
            "bench_points": {
                "nominal_voltage": "6 V",
                "free_speed": "11500 rpm",
                "free_current": "0.22 A",
                "stall_torque": "0.0223 N*m",
                "stall_current": "4.9 A",
            },
        }
        raw["drive"]["supply"] = {
            "kind": "panel",
            "short_circuit_current": "0.615 A",
            "open_circuit_voltage": "9.86 V",
            "max_power_voltage": "6.78 V",
            "max_power_current": "0.575 A",
        }
        raw["drive"]["branches"][0].update(controller={"current_limit": "1.03 A", "resistance": "0.16 ohm"})
        found = evaluate([design.read(raw)])
        run = LoadCase(found).moments.run
        assert run is not None
        group, row = found.group(0)
        speeds = np.linspace(1e-3, float(run.speed.max()), 4000)
        looked_at = np.array([driving(group.batch, row, 0, v).force[0] for v in speeds])
        drop = int(np.abs(np.diff(looked_at)).argmax())
        self.assertGreater(looked_at[drop], 2.0 * looked_at[drop + 1])
        held = 0.9 * looked_at[drop]
        self.assertAlmostEqual(run.speed[run.force > held].max(), speeds[drop], delta=2e-3)


class LowBattery(unittest.TestCase):
    def test_by_its_discharge_or_a_tenth_less(self) -> None:
        battery = design.read(case("01-robot")).design.drive.supply
        left = emptied(battery)  # type: ignore[arg-type]  # the case has a battery
        self.assertAlmostEqual(left.voltage, 21.6)
        plain = design.read(case("03-v-belt-and-chain")).design.drive.supply
        self.assertAlmostEqual(emptied(plain).voltage, 0.9 * 48.0)  # type: ignore[arg-type]  # likewise

    def test_cells_are_told_as_a_whole(self) -> None:
        cells = {"series": 6, "cell_voltage": "3.7 V", "cell_resistance": "4 mohm"}
        raw = changed({"drive.supply": {"kind": "battery", "cells": cells, "cutoff_voltage": "15 V"}})
        answer = whole(raw)
        self.assertAlmostEqual(answer["low"]["open_circuit_voltage"], 0.9 * 22.2)
        self.assertAlmostEqual(answer["low"]["resistance"], 1.5 * 0.024)

    def test_a_discharge_goes_from_full_to_empty(self) -> None:
        for curve, words in (
            ([[0, "25 V"], [0.5, "24 V"]], "not from full to empty"),
            ([[0, "25 V"], [0.5, "24 V"], [0.4, "23 V"], [1, "20 V"]], "not above the share before it"),
            ([[0, "25 V"], [0.5, "26 V"], [1, "20 V"]], "above the voltage before it"),
            ([[0, "25 V", 3], [1, "20 V"]], "not a pair"),
        ):
            raw = case("01-robot")
            raw["drive"]["supply"]["discharge"] = curve
            with self.subTest(words), self.assertRaisesRegex(DocumentError, words):
                design.read(raw)

    def test_only_currents_and_voltages_look_at_it(self) -> None:
        moments = {each["check"] for each in told(case("01-robot"))["checks"] if (each["moment"] or "").endswith("low")}
        self.assertLessEqual(moments, {"motor_peak_current", "controller_peak", "supply_peak", "supply_voltage"})


class Shafts(unittest.TestCase):
    def test_a_notch_and_a_shape_count_as_the_worse_of_both(self) -> None:
        both = concentration("keyway", "shoulder")
        self.assertEqual((both.bent, both.twisted), (2.1, 3.0))

    def test_fatigue_by_hand(self) -> None:
        """A shaft of 8 mm of steel: Se = ka·kb·Sut/2."""
        raw = case("01-robot")
        raw["fit"]["shafts"][1]["notch"] = "shoulder"
        found = row(told(raw), "shaft_fatigue", "branches[0].stages[0]")
        stress = row(told(raw), "shaft_stress", "branches[0].stages[0]")
        ka, kb = 4.51 * 400.0**-0.265, min(1.0, 1.24 * 8.0**-0.107)
        endured = ka * kb * 200e6
        # Neither bending nor twist alone takes more than both together.
        self.assertLess(found["demand"], stress["demand"] * (1.7 / endured + 1.5 / 400e6))

    def test_plastic_shafts_want_their_strength(self) -> None:
        raw = case("01-robot")
        raw["fit"]["shafts"][1] |= {"material": "nylon"}
        found = row(told(raw), "shaft_fatigue", "branches[0].stages[0]")
        self.assertEqual((found["state"], found["needs"]), ("unknown", ["fit.shafts[1].tensile"]))

    def test_bearings_of_other_sizes_want_their_rating(self) -> None:
        self.assertEqual(load_rating(8e-3, 22.05e-3, 7e-3), 3300.0)
        self.assertIsNone(load_rating(8e-3, 22.2e-3, 7e-3))
        raw = case("02-jackshaft")
        item = raw["fit"]["shafts"][2]["stack"]["items"][0]
        for change, needs in (({"outside": "27 mm"}, ".load_rating"), ({}, ".outside")):
            item.pop("outside", None)
            item |= change
            found = row(told(raw), "bearing_life", member="items[0]")
            with self.subTest(needs):
                self.assertEqual(found["needs"], [f"fit.shafts[2].stack.items[0]{needs}"])

    def test_an_idler_turns_on_bearings_by_its_teeth(self) -> None:
        raw = case("02-jackshaft")
        idler = raw["fit"]["shafts"][1]
        del idler["overhang"]
        bearing = {"name": "bearing", "width": "7 mm", "bearing": True, "load_rating": "3 kN"}
        wheel = {"name": "idler", "width": "10 mm", "at": "16 mm", "wheel": "drive.branches[0].stages[0] idler 1"}
        idler["stack"] = {"between": "60 mm", "items": [bearing, wheel, {**bearing, "at": "40 mm"}]}
        whole = row(told(raw), "bearing_life", "idlers[0]")
        raw["drive"]["branches"][0]["stages"][0]["idlers"] = [48]
        twice = row(told(raw), "bearing_life", "idlers[0]")
        # Twice the teeth turn half as often; the same force at them bears as long as the cube root of that tells.
        self.assertAlmostEqual(twice["capacity"] / whole["capacity"], 2.0 ** (1.0 / 3.0), 6)

    def test_twice_the_hours_take_the_cube_root_of_two(self) -> None:
        raw = case("02-jackshaft")
        uses = []
        for hours in ("80 h", "160 h"):
            raw["loads"]["hours"] = hours
            uses.append(row(told(raw), "bearing_life", member="items[0]")["use"])
        self.assertAlmostEqual(uses[1] / uses[0], 2.0 ** (1.0 / 3.0), 9)


class Hubs(unittest.TestCase):
    def hub(self, **said: Any) -> dict[str, Any]:
        raw = case("01-robot")
        raw["drive"]["stages"][0]["driver_hub"] = said
        check = {"key": "key", "set screw": "set_screw", "clamp": "clamp", "press": "press"}[said["by"]]
        return row(told(raw), check, "drive.stages[0]", "driver")

    def test_what_is_not_known_is_asked_for(self) -> None:
        path = "drive.stages[0].driver_hub"
        for said, needs in (
            ({"by": "press"}, [f"{path}.torque"]),
            ({"by": "clamp", "bore": "8 mm"}, [f"{path}.screw"]),
            ({"by": "set screw", "bore": "8 mm", "screw": "M2"}, [f"{path}.torque"]),
            ({"by": "key", "bore": "8 mm"}, [f"{path}.length"]),
            ({"by": "key", "bore": "5 mm", "length": "8 mm"}, [f"{path}.torque"]),
        ):
            with self.subTest(said):
                found = self.hub(**said)
                self.assertEqual((found["state"], found["needs"]), ("unknown", needs))

    def test_a_makers_figure_goes_first(self) -> None:
        for by in ("key", "set screw", "clamp", "press"):
            self.assertEqual(self.hub(by=by, torque="9 N*m")["capacity"], 9.0)

    def test_two_screws_on_a_flat_hold_four_times_as_much(self) -> None:
        one = self.hub(by="set screw", screw="M4", bore="8 mm")["capacity"]
        self.assertAlmostEqual(one, 750.0 * 4e-3)
        self.assertAlmostEqual(
            self.hub(by="set screw", screw="M4", bore="8 mm", count=2, flat=True)["capacity"], 4 * one
        )

    def test_the_bore_is_that_of_its_shaft(self) -> None:
        self.assertAlmostEqual(self.hub(by="clamp", screw="M4")["capacity"], 0.12 * 2300.0 * 8e-3)

    def test_keys_are_those_of_their_shaft(self) -> None:
        key = key_for(8e-3)
        assert key is not None  # the table begins above 6 mm
        self.assertAlmostEqual(key.in_shaft, 1.2e-3)
        self.assertIsNone(key_for(5e-3))

    def test_screws_belong_to_what_is_screwed(self) -> None:
        with self.assertRaisesRegex(DocumentError, "given for a hub held by a press"):
            self.hub(by="press", screw="M4")


class Currents(unittest.TestCase):
    def test_wires_by_how_they_lie(self) -> None:
        raw = case("01-robot")
        wire = raw["drive"]["supply"]["wire"]
        free = row(told(raw), "wire", "drive.supply")["capacity"]
        self.assertAlmostEqual(free, 12.5 * 4.0**0.61)
        wire |= {"bundled": True, "insulation": "silicone"}
        self.assertAlmostEqual(row(told(raw), "wire", "drive.supply")["capacity"], 1.5 * 8.0 * 4.0**0.61)
        wire |= {"rating": "33 A"}
        self.assertEqual(row(told(raw), "wire", "drive.supply")["capacity"], 33.0)

    def test_a_full_battery_at_rest_may_be_the_highest_voltage(self) -> None:
        raw = case("01-robot")
        raw["loads"]["reverses"] = False
        self.assertEqual(row(told(raw), "bus_voltage_high", "drive.supply")["moment"], "rest")


class Gears(unittest.TestCase):
    def test_a_ring_presses_less_than_a_gear_of_its_size(self) -> None:
        raw = case("01-robot")
        stage = raw["drive"]["branches"][0]["stages"][0]
        outside = row(told(raw), "gear_pitting", member="driven")["demand"]
        inside = changed({}, {**raw, "fit": {}})
        inside["drive"]["branches"][0]["stages"][0] = {**stage, "internal": True}
        ring = row(told(inside), "gear_pitting", member="driven")["demand"]
        self.assertLess(ring / outside, math.sqrt(3.0 / 5.0) * 1.02)

    def test_the_two_rows_of_a_run_are_only_there_with_one(self) -> None:
        raw = case("03-v-belt-and-chain")
        raw["conditions"]["grade"] = 0.9
        del raw["loads"]["day"]
        speeds = [each["moment"] for each in told(raw)["checks"] if each["check"] in ("source_speed", "chain_speed")]
        self.assertEqual(set(speeds), {"wheels in the air"})

    def test_each_help_relieves_by_a_twentieth(self) -> None:
        for name in ("01-robot", "02-jackshaft"):
            for each in whole(case(name))["checks"]:
                for words in each["helps"]:
                    use = float(words.split(": ")[1].split(" ")[0].rstrip(";"))
                    with self.subTest(name, check=each["check"], words=words):
                        self.assertLessEqual(use, 0.95 * (each["use"] or math.inf) + 0.005)


class Offered(unittest.TestCase):
    def offered(self, raw: dict[str, Any], check: str) -> list[Offer]:
        document = design.read(raw)
        rows = limits(evaluate([document])).rows
        return [offer for each in rows if each.check == check for offer in offers(document.design, each)]

    def test_a_motors_radial_rating_by_its_mass(self) -> None:
        robot = case("01-robot")
        del robot["drive"]["branches"][0]["source"]["radial_rating"]
        robot["drive"]["branches"][0]["source"]["mass"] = "300 g"
        found = self.offered(robot, "radial_load")
        self.assertEqual([offer.value for offer in found], ["60 N", "20 N"])
        paths.put(robot, found[0].path, found[0].value)
        self.assertEqual(row(told(robot), "radial_load")["capacity"], 60.0)

    def test_a_bearings_outside_by_its_bore_and_width(self) -> None:
        robot = case("02-jackshaft")
        held = next(shaft for shaft in robot["fit"]["shafts"] if "stack" in shaft)
        held["diameter"] = "8 mm"
        for item in held["stack"]["items"]:
            if item.get("bearing"):
                item.update(width="7 mm")
                item.pop("outside", None)
                item.pop("load_rating", None)
        found = self.offered(robot, "bearing_life")
        self.assertEqual({offer.value for offer in found}, {"22 mm"})
