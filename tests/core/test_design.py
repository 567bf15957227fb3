import json
import unittest
from typing import Any

from tests.core.designs import GEAR, MOTOR, PLAIN, REMOVED, changed, read
from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.document.supply import Battery


def faults(raw: Any) -> dict[str, str]:
    try:
        design.read(raw)
    except DocumentError as error:
        return {fault.path: f"{fault.problem}, {fault.remedy}" for fault in error.faults}
    return {}


class Reading(unittest.TestCase):
    def test_values_are_si_and_known_by_path(self) -> None:
        document = read({"vehicle.mass": "2 lb"})
        self.assertAlmostEqual(document.design.vehicle.mass, 0.90718474)
        self.assertEqual(document.values["vehicle.mass"].dimension, "mass")
        self.assertEqual(document.values["drive.branches[0].controller.current_limit"].si, 22.0)

    def test_a_quantity_may_say_how_it_was_come_by(self) -> None:
        document = read({"vehicle.mass": {"value": "14.2 kg", "origin": "measured", "note": "scale"}})
        self.assertEqual(document.values["vehicle.mass"].origin, "measured")

    def test_what_is_assumed_is_listed(self) -> None:
        document = read({"vehicle.grip": REMOVED})
        self.assertEqual(
            document.assumed,
            (
                "vehicle.grip = 0.8",
                "drive.branches[0].stages[0].efficiency = 0.97",
                "drive.stages[0].efficiency = 0.96",
            ),
        )

    def test_an_efficiency_given_is_not_assumed(self) -> None:
        self.assertEqual(len(read({f"{GEAR}.efficiency": "95 %"}).assumed), 1)

    def test_reading_changes_nothing(self) -> None:
        raw = changed()
        design.read(raw)
        self.assertEqual(raw, PLAIN)


class Names(unittest.TestCase):
    def test_are_one_line_and_notes_keep_theirs(self) -> None:
        typed = changed({"name": "Sand\r\n piper\t2\u2028x", "notes": "first\nsecond"})
        named = design.read(typed).design
        self.assertEqual((named.name, named.notes), ("Sand piper 2 x", "first\nsecond"))
        self.assertEqual(design.read(changed({"name": "  Knot, ½ "})).design.name, "  Knot, ½ ", "what is seen stays")


class Refusing(unittest.TestCase):
    def test_each_fault_has_its_path_and_a_remedy(self) -> None:
        for path, value, at, words in (
            ("vehicle.mass", "-3 kg", "vehicle.mass", "above 0"),
            ("vehicle.mass", REMOVED, "vehicle.mass", "missing"),
            ("vehicle.colour", "red", "vehicle.colour", "unknown key"),
            ("vehicle.driven", "sideways", "vehicle.driven", "use one of all, rear, front"),
            ("vehicle.grip", 7, "vehicle.grip", "at most 5"),
            ("vehicle.cg_ahead_of_rear", "-1 m", "vehicle.cg_ahead_of_rear", "between the axles"),
            (f"{GEAR}.driver_teeth", 0, "drive.branches[0].stages[0].driver_teeth", "from 5 to 1000"),
            (f"{GEAR}.driver_teeth", 14.5, "drive.branches[0].stages[0].driver_teeth", "whole number"),
            (f"{GEAR}.driver_teeth", True, "drive.branches[0].stages[0].driver_teeth", "whole number"),
            (f"{GEAR}.kind", "magic", "drive.branches[0].stages[0].kind", "use one of gear, belt"),
            (
                f"{GEAR}.diametral_pitch",
                "32 1/in",
                "drive.branches[0].stages[0].diametral_pitch",
                "one of the two",
            ),
            (f"{GEAR}.efficiency", 1.2, "drive.branches[0].stages[0].efficiency", "at most 1"),
            (f"{MOTOR}.bench_points", PLAIN, "drive.branches[0].source.bench_points.format", "unknown key"),
            (
                f"{MOTOR}.constants",
                REMOVED,
                "drive.branches[0].source.constants",
                "either constants or bench_points",
            ),
            (f"{MOTOR}.reversed", "yes", "drive.branches[0].source.reversed", "true or false"),
            ("drive.branches", [], "drive.branches", "give 1 to 64"),
            ("drive.stages", {}, "drive.stages", "give a list"),
            ("drive.supply", "mains", "drive.supply", "object with its kind"),
            ("vehicle", 5, "vehicle", "give an object"),
            ("name", 5, "name", "give a text"),
            ("version", 2, "version", "from 1 to 1"),
            ("targets.0.measure", "beauty", "targets[0].measure", "use one of no_load_speed"),
            ("targets.0.at_most", "9 m/s", "targets[0]", "give one of at_least, at_most, between"),
            ("targets.0.at_least", "5 kg", "targets[0].at_least", "speed such as 5 m/s"),
            ("targets.0.wish", "fast", "targets[0].wish", "unknown key"),
            (
                "targets.0",
                {"measure": "top_speed", "between": ["9 m/s", "8 m/s"]},
                "targets[0].between",
                "lower one first",
            ),
            (
                "targets.0",
                {"measure": "top_speed", "between": "8 m/s"},
                "targets[0].between",
                "lower and the upper",
            ),
            ("vehicle.mass", {"value": {"value": 3}}, "vehicle.mass.value", "text or a number"),
            (
                "vehicle.mass",
                {"value": "3 kg", "origin": "guessed"},
                "vehicle.mass.origin",
                "use one of given",
            ),
            ("vehicle.mass", {"value": "3 kg", "by": "me"}, "vehicle.mass.by", "value, origin and note"),
        ):
            with self.subTest(path, value=repr(value)[:40]):
                fault_list = faults(changed({path: value}))
                self.assertIn(at, fault_list)
                self.assertIn(words, fault_list[at])

    def test_all_faults_at_once(self) -> None:
        raw = changed({"vehicle.mass": "0 kg", f"{GEAR}.driver_teeth": 2, "drive.supply.resistance": "x", "speed": 1})
        self.assertEqual(len(faults(raw)), 4)

    def test_what_only_shows_in_combination(self) -> None:
        lengths = {"vehicle.wheelbase": "0.4 m", "vehicle.cg_ahead_of_rear": "0.2 m", "vehicle.cg_height": "0.1 m"}
        motor = PLAIN["drive"]["branches"][0]
        engine = {"source": {"kind": "engine", "torque_curve": [[100, 3], [300, 4]]}}
        clutched = {**engine, "clutch": {"engagement_speed": "1800 rpm"}}
        speeds = {"kind": "speeds", "ratios": [3, 1]}
        panel = {
            "kind": "panel",
            "short_circuit_current": 2,
            "open_circuit_voltage": 20,
            "max_power_voltage": 16,
            "max_power_current": 1.8,
        }
        for changes, at, words in (
            ({"vehicle.driven": "rear"}, "vehicle.wheelbase", "missing for rear drive"),
            ({**lengths, "vehicle.driven_share": 0.5}, "vehicle.driven_share", "given beside wheelbase"),
            ({"vehicle.driven_share": 0}, "vehicle.driven_share", "above 0"),
            ({"drive.branches": [engine]}, "drive.branches[0].clutch", "cannot start a vehicle from rest"),
            ({"drive.branches": [clutched]}, "drive.supply", "draws nothing"),
            ({"drive.supply": REMOVED}, "drive.supply", "motors need"),
            ({"drive.branches.0.clutch": clutched["clutch"]}, "drive.branches[0].clutch", "starts from rest by itself"),
            (
                {"drive.branches": [motor, {**clutched, "controller": {}}]},
                "drive.branches[1].controller",
                "belongs to a motor",
            ),
            ({"drive.stages": [speeds, speeds]}, "drive.stages[1]", "one is computed"),
            ({"drive.stages": [{"kind": "speeds", "ratios": [1, 3]}]}, "drive.stages[0].ratios", "lowest gear"),
            ({"drive.stages": [{"kind": "speeds"}]}, "drive.stages[0].ratios", "missing"),
            ({"drive.stages": [{"kind": "worm", "ratio": 20}]}, "drive.stages[0].efficiency", "missing"),
            ({"drive.branches.0.stages": [speeds]}, "drive.branches[0].stages[0]", "drive.stages"),
            ({"drive.supply": {**panel, "max_power_voltage": 21}}, "drive.supply.max_power_voltage", "not below"),
            ({"drive.supply": {**panel, "max_power_current": 3}}, "drive.supply.max_power_current", "above short"),
            ({"drive.supply.cells": {"series": 6, "cell_voltage": 4.2}}, "drive.supply.resistance", "beside cells"),
            ({"drive.supply": {"kind": "battery"}}, "drive.supply.open_circuit_voltage", "or cells"),
            (
                {f"{MOTOR}": {"kind": "engine", "torque_curve": [[3, 1], [2, 1]]}},
                "drive.branches[0].source.torque_curve[1][0]",
                "rising in speed",
            ),
            (
                {f"{MOTOR}": {"kind": "engine", "torque_curve": [[3]]}},
                "drive.branches[0].source.torque_curve[0]",
                "not a pair",
            ),
            ({"targets.0.at_least": "8 m/s +/- 1 m/s"}, "targets[0].at_least", "bound alone"),
        ):
            with self.subTest(at, words=words):
                fault_list = faults(changed(changes))
                self.assertIn(at, fault_list)
                self.assertIn(words, fault_list[at])

    def test_a_pack_by_its_cells(self) -> None:
        cells = {
            "series": 6,
            "parallel": 2,
            "cell_voltage": "4.2 V",
            "cell_resistance": "6 mohm",
            "cell_capacity": "2.5 A*h",
            "extra_resistance": "4 mohm",
        }
        supply = read({"drive.supply": {"kind": "battery", "cells": cells}}).design.drive.supply
        assert isinstance(supply, Battery)
        self.assertAlmostEqual(supply.voltage, 25.2)
        self.assertAlmostEqual(supply.internal_resistance, 0.022)
        self.assertAlmostEqual(supply.charge or 0.0, 18000.0)

    def test_a_quantity_may_carry_its_spread(self) -> None:
        for text, spread in (
            ("14 kg +/- 0.2 kg", 0.2),
            ("14 kg ± 200 g", 0.2),
            ("14 +/- 0.2 kg", 0.2),
            ("14 kg +/- 2 %", 0.28),
            ("14 kg +/- 0.2", 0.2),
        ):
            with self.subTest(text):
                value = read({"vehicle.mass": text}).values["vehicle.mass"]
                self.assertAlmostEqual(value.si, 14.0)
                self.assertAlmostEqual(value.uncertainty, spread)
        self.assertAlmostEqual(read({"vehicle.grip": "80 % +/- 5 %"}).values["vehicle.grip"].uncertainty, 0.05)
        warm = read({"conditions": {"ambient": "25 degC +/- 3 degC"}}).values["conditions.ambient"]
        self.assertAlmostEqual(warm.uncertainty, 3.0)
        self.assertIn("is negative", faults(changed({"vehicle.mass": "14 kg +/- -1 kg"}))["vehicle.mass"])

    def test_a_price_is_unknown_until_parts_are_priced(self) -> None:
        document = read({"targets": [{"measure": "price", "at_most": 240}]})
        self.assertEqual(document.design.targets[0].upper, 240.0)

    def test_a_ring_must_hold_its_pinion(self) -> None:
        raw = changed({f"{GEAR}.internal": True, f"{GEAR}.idlers": [60]})
        self.assertIn("cannot hold 60 inside", faults(raw)["drive.branches[0].stages[0].driven_teeth"])


class Loading(unittest.TestCase):
    def complaint(self, data: bytes) -> str:
        with self.assertRaises(DocumentError) as caught:
            strict_json.load(data)
        (fault,) = caught.exception.faults
        return str(fault)

    def test_hostile_files_are_refused_quickly(self) -> None:
        self.assertIn("nested too deep", self.complaint(b"[" * 100_000))
        self.assertIn("nested too deep", self.complaint(b"[" * 40 + b"]" * 40))
        self.assertIn("bytes given", self.complaint(b" " * 1_000_001))
        self.assertIn("not UTF-8", self.complaint(b"\xff"))
        self.assertIn("not JSON", self.complaint(b"{"))
        self.assertIn("NaN is not a number", self.complaint(b'{"a": NaN}'))
        self.assertIn("given twice", self.complaint(b'{"a": 1, "a": 2}'))
        self.assertIn('a: "?" holds control characters', self.complaint(b'{"a": "\\u0000"}'))
        self.assertIn("control characters", self.complaint(b'{"\\ud800": 1}'))
        self.assertIn("too large a number", self.complaint(b"1" * 5000))
        self.assertIn("1e999 is too large a number", self.complaint(b'{"a": 1e999}'))

    def test_where_something_bad_stands_is_told(self) -> None:
        self.assertIn('a.b[1].c: "x?"', self.complaint(b'{"a": {"b": [0, {"c": "x\\u001b"}]}}'))

    def test_a_whole_number_beyond_64_bits_is_kept_as_the_nearest_number(self) -> None:
        self.assertEqual(strict_json.load(b"[12345678901234567890, 12]"), [12345678901234567890.0, 12])

    def test_many_stages_are_refused(self) -> None:
        raw = changed({"drive.stages": [{"kind": "gearbox", "ratio": 2}] * 30_000})
        self.assertEqual(faults(raw), {"drive.stages": "30000 entries given, give 0 to 64 entries"})

    def test_a_design_file_comes_back_as_it_was(self) -> None:
        self.assertEqual(strict_json.load(json.dumps(PLAIN).encode()), PLAIN)
