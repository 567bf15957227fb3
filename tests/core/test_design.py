import json
import unittest
from typing import Any

from tests.core.designs import GEAR, MOTOR, PLAIN, REMOVED, changed, read
from ydrometer import design
from ydrometer.errors import DocumentError


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
                found = faults(changed({path: value}))
                self.assertIn(at, found)
                self.assertIn(words, found[at])

    def test_all_faults_at_once(self) -> None:
        raw = changed({"vehicle.mass": "0 kg", f"{GEAR}.driver_teeth": 2, "drive.supply.resistance": "x", "speed": 1})
        self.assertEqual(len(faults(raw)), 4)

    def test_what_the_format_holds_beyond_this_version_is_named(self) -> None:
        for path, value, at in (
            ("vehicle.driven", "rear", "vehicle.driven"),
            ("vehicle.driven_share", 0.6, "vehicle.driven_share"),
            ("drive.supply", {"kind": "panel"}, "drive.supply"),
            ("drive.supply.cells", {"series": 6}, "drive.supply.cells"),
            (MOTOR, {"kind": "engine"}, "drive.branches[0].source"),
            ("drive.branches.0.clutch", {}, "drive.branches[0].clutch"),
            ("drive.stages", [{"kind": "speeds"}], "drive.stages[0]"),
            ("drive.branches", PLAIN["drive"]["branches"] * 2, "drive.branches[1]"),
            ("vehicle.mass", "14 kg +/- 0.2 kg", "vehicle.mass"),
            ("targets.0.measure", "price", "targets[0].measure"),
        ):
            with self.subTest(path):
                self.assertIn(f"not yet supported: {at}", faults(changed({path: value}))[at])

    def test_a_ring_must_hold_its_pinion(self) -> None:
        raw = changed({f"{GEAR}.internal": True, f"{GEAR}.idlers": [60]})
        self.assertIn("cannot hold 60 inside", faults(raw)["drive.branches[0].stages[0].driven_teeth"])


class Loading(unittest.TestCase):
    def complaint(self, data: bytes) -> str:
        with self.assertRaises(DocumentError) as caught:
            design.load(data)
        (fault,) = caught.exception.faults
        self.assertEqual(fault.path, "$")
        return fault.problem

    def test_hostile_files_are_refused_quickly(self) -> None:
        self.assertIn("nested too deep", self.complaint(b"[" * 100_000))
        self.assertIn("nested too deep", self.complaint(b"[" * 40 + b"]" * 40))
        self.assertIn("bytes given", self.complaint(b" " * 1_000_001))
        self.assertIn("not UTF-8", self.complaint(b"\xff"))
        self.assertIn("not JSON", self.complaint(b"{"))
        self.assertIn("NaN is not a number", self.complaint(b'{"a": NaN}'))
        self.assertIn("given twice", self.complaint(b'{"a": 1, "a": 2}'))
        self.assertIn("characters that are none", self.complaint(b'{"a": "\\u0000"}'))
        self.assertIn("characters that are none", self.complaint(b'{"\\ud800": 1}'))
        self.assertIn("not JSON", self.complaint(b"1" * 5000))

    def test_many_stages_are_refused(self) -> None:
        raw = changed({"drive.stages": [{"kind": "gearbox", "ratio": 2}] * 30_000})
        self.assertEqual(faults(raw), {"drive.stages": "30000 entries given, give 0 to 64 entries"})

    def test_a_design_file_comes_back_as_it_was(self) -> None:
        self.assertEqual(design.load(json.dumps(PLAIN).encode()), PLAIN)
