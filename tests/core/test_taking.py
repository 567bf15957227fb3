"""What a part of the bin becomes in a design: one rule, whoever asks it."""

from __future__ import annotations

from typing import Any, ClassVar
from unittest import TestCase

from tests.core.designs import changed
from ydrometer.base.errors import DocumentError
from ydrometer.build.bin import bin_of
from ydrometer.build.matching import match
from ydrometer.build.needs import needs
from ydrometer.build.savings import swaps
from ydrometer.build.workshop import workshop
from ydrometer.document import design
from ydrometer.document.drive import Branch
from ydrometer.document.stages import KINDS, whole_kinds
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.limits import limits
from ydrometer.parts.boxes import BOX
from ydrometer.parts.kinds import EnginePart, MotorPart
from ydrometer.parts.read import read_part
from ydrometer.questions.inverse import inverse
from ydrometer.search import answer, read_request
from ydrometer.taking import applied, branch_with, changes, exchanged, pair_values, whole_stage, with_source

GEARS = "drive.branches[0].stages[0]"
WORM = {"kind": "worm", "ratio": 20, "efficiency": 0.6}
BOXES: list[dict[str, Any]] = [
    {"id": "b5", "kind": "gearbox", "ratio": 5, "efficiency": 0.88, "torque_rating": "9 N*m", "max_speed": "9000 rpm"},
    {"id": "p", "kind": "gearbox", "reductions": [4, 3], "torque_ratings": ["2 N*m", None]},
    {"id": "s", "kind": "gearbox", "ratios": [3, 2, 1]},
    {"id": "c", "kind": "gearbox", "lobes": 11, "inertia": "2e-5 kg*m^2", "mass": "0.4 kg", "torque_rating": "7 N*m"},
]


def gear(teeth: int, **more: Any) -> dict[str, Any]:
    return {"id": f"g{teeth}", "kind": "gear", "teeth": teeth, "module": "1 mm", **more}


def taken(part: dict[str, Any], path: str = GEARS, member: str = "", **stage: Any) -> dict[str, Any]:
    document = changed({"drive.branches.0.stages.0": {"kind": "gear", "driver_teeth": 15, "driven_teeth": 56, **stage}})
    return changes(document, path, member, part)


class AWheel(TestCase):
    def test_its_teeth_its_size_and_what_it_brings(self) -> None:
        values = taken(gear(20, material="brass", width="6 mm"), member="driven")
        self.assertEqual(
            values,
            {
                f"{GEARS}.driven_teeth": 20,
                f"{GEARS}.module": "1 mm",
                f"{GEARS}.driven_material": "brass",
                f"{GEARS}.width": "6 mm",
            },
        )

    def test_a_material_of_which_nothing_is_known_stays_in_the_bin(self) -> None:
        values = taken(gear(20, material="what lay about"), member="driver", module="1 mm")
        self.assertEqual(values, {f"{GEARS}.driver_teeth": 20})

    def test_what_the_wheel_before_said_goes(self) -> None:
        values = taken(gear(20), member="driver", module="1 mm", driver_material="steel", driven_material="brass")
        self.assertEqual(values, {f"{GEARS}.driver_teeth": 20, f"{GEARS}.driver_material": None})

    def test_the_narrower_wheel_says_how_wide_a_stage_is_in_whatever_order_they_come(self) -> None:
        for present, new, then in (
            ("10 mm", "6 mm", "6 mm"),
            ("6 mm", "10 mm", "6 mm"),
            ("0.5 in", "10 mm", "10 mm"),
            (None, "6 mm", "6 mm"),
            ({"value": "5 mm", "origin": "measured"}, "6 mm", {"value": "5 mm", "origin": "measured"}),
            ("not a width", "6 mm", "6 mm"),
            ("6 mm", None, "6 mm"),
        ):
            stage: dict[str, Any] = {} if present is None else {"width": present}
            part = gear(20) if new is None else gear(20, width=new)
            values = taken(part, member="driver", module="1 mm", **stage)
            with self.subTest(present=present, new=new):
                self.assertEqual(values.get(f"{GEARS}.width", present), then)

    def test_an_idler_has_its_teeth_in_the_list_and_no_material_of_its_own(self) -> None:
        values = taken(gear(24, material="steel", width="4 mm"), member="idler 1", idlers=[20], module="1 mm")
        self.assertEqual(values, {f"{GEARS}.idlers[0]": 24, f"{GEARS}.width": "4 mm"})
        document = applied(changed({f"drive.branches.0.stages.0.{k}": v for k, v in (("idlers", [20]),)}), values)
        self.assertEqual(document["drive"]["branches"][0]["stages"][0]["idlers"], [24])

    def test_teeth_of_another_size_are_refused_with_both_sizes(self) -> None:
        for size in ({"module": "0.5 mm"}, {"diametral_pitch": "32 1/in"}):
            with self.assertRaisesRegex(DocumentError, "teeth of 1 mm where the stage has 0"):
                taken(gear(20), member="driver", **dict(size))
        same = taken({**gear(20), "module": "0.79375 mm"}, member="driver", diametral_pitch="32 1/in")
        self.assertEqual(same, {f"{GEARS}.driver_teeth": 20})

    def test_what_cannot_be_taken_there_is_refused(self) -> None:
        pulley = {"id": "p", "kind": "pulley", "teeth": 20, "pitch": "5 mm"}
        places: list[tuple[dict[str, Any], str, str]] = [
            (pulley, GEARS, "driver"),
            (gear(20), GEARS, "idle"),
            (gear(20), GEARS, ""),
            (gear(20), "no", "driver"),
            (gear(20), "drive.stages[99]", "driver"),
            (gear(20), "vehicle", "driver"),
            (BOXES[2], GEARS, ""),
            ({"id": "x", "kind": "spacer", "thickness": "1 mm"}, GEARS, ""),
            (gear(20), GEARS, "idler 0"),
        ]
        for part, path, member in places:
            with self.subTest(part=part["kind"], path=path, member=member), self.assertRaises(DocumentError):
                taken(part, path, member)

    def test_a_bad_part_is_refused_with_its_faults(self) -> None:
        with self.assertRaisesRegex(DocumentError, "teeth"):
            taken({"id": "x", "kind": "gear", "module": "1 mm"}, member="driver")


class BothWheels(TestCase):
    def test_what_they_say_holds_alone(self) -> None:
        stage = {"kind": "gear", "module": "1 mm", "width": "3 mm", "driver_material": "steel", "driven_teeth": 50}
        chosen = {"driver": gear(12, width="10 mm"), "driven": gear(48, width="6 mm", material="brass")}
        values = pair_values(KINDS["gear"], chosen, stage)
        self.assertEqual(
            values,
            {
                "driver_teeth": 12,
                "driven_teeth": 48,
                "width": "6 mm",
                "driver_material": None,
                "driven_material": "brass",
            },
        )

    def test_of_a_new_stage_nothing_is_taken_out(self) -> None:
        values = pair_values(KINDS["gear"], {"driver": gear(12), "driven": gear(48)})
        self.assertEqual(values, {"driver_teeth": 12, "module": "1 mm", "driven_teeth": 48})

    def test_options_by_hand_and_turned_round_give_the_same_width(self) -> None:
        parts = [gear(12, width="10 mm", owned=1), gear(48, width="6 mm", owned=1)]
        bare = changed({"drive.branches.0.stages": [], "drive.stages": [], "targets": []})
        layout = {"stages": [{"kind": "gear"}]}
        request = {"format": "ydrometer-search", "version": 1, "design": bare, "parts": parts, "layouts": [layout]}
        options = answer(read_request(request))["options"]
        searched = next(
            o["design"]["drive"]["branches"][0]["stages"][0] for o in options if o["parts"] == ["g12", "g48"]
        )
        document = changed({"drive.branches.0.stages.0": {"kind": "gear", "driver_teeth": 12, "driven_teeth": 48}})
        for member, part in (("driver", parts[0]), ("driven", parts[1])):
            document = applied(document, changes(document, GEARS, member, part))
        by_hand = document["drive"]["branches"][0]["stages"][0]
        self.assertEqual(searched, by_hand)
        turned = inverse(document, "reduction", GEARS, {"measure": "no_load_speed", "at_most": "5 m/s"}, parts)
        found = [real.changes for real in turned.real if real.changes.get(f"{GEARS}.driven_teeth") == 48]
        self.assertEqual([made.get(f"{GEARS}.width") for made in found], ["6 mm"] * len(found))


class InsteadOfBuying(TestCase):
    def test_the_wheels_bring_their_material_and_width(self) -> None:
        stage = {
            "kind": "gear",
            "driver_teeth": 15,
            "driven_teeth": 60,
            "module": "1 mm",
            "width": "20 mm",
            "driver_material": "steel",
            "driven_material": "steel",
        }
        document = changed({"drive.branches.0.stages.0": stage, "drive.stages": []})
        bin_ = bin_of([gear(12, width="2 mm", material="nylon", owned=4), gear(48, width="3 mm", owned=4)])
        (swap,) = swaps(design.read(document).design, bin_, {})
        self.assertEqual(
            swap.changes,
            {
                f"{GEARS}.driver_teeth": 12,
                f"{GEARS}.driven_teeth": 48,
                f"{GEARS}.width": "2 mm",
                f"{GEARS}.driver_material": "nylon",
                f"{GEARS}.driven_material": None,
            },
        )
        before, after = (
            max(row.use or 0.0 for row in limits(evaluate([design.read(raw)])).rows if row.check == "gear_tooth")
            for raw in (document, applied(document, swap.changes))
        )
        self.assertGreater(after, 5.0 * before)

    def test_a_ring_is_no_gear_of_the_bin(self) -> None:
        stage = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "module": "1 mm", "internal": True}
        document = changed({"drive.branches.0.stages.0": stage, "drive.stages": []})
        bin_ = bin_of([gear(12, owned=4), gear(48, owned=4)])
        self.assertEqual(swaps(design.read(document).design, bin_, {}), [])


class WholeStages(TestCase):
    def test_each_becomes_the_kind_whose_ratio_it_says_with_all_that_this_kind_takes(self) -> None:
        self.assertEqual(
            [whole_stage(part) for part in BOXES],
            [
                {"kind": "gearbox", "ratio": 5, "efficiency": 0.88, "torque_rating": "9 N*m", "max_speed": "9000 rpm"},
                {"kind": "planetary", "reductions": [4, 3], "torque_ratings": ["2 N*m", None]},
                {"kind": "speeds", "ratios": [3, 2, 1]},
                {
                    "kind": "cycloidal",
                    "lobes": 11,
                    "torque_rating": "7 N*m",
                    "inertia": "2e-5 kg*m^2",
                    "mass": "0.4 kg",
                },
            ],
        )

    def test_read_and_typed_are_the_same_stage(self) -> None:
        for part in BOXES:
            with self.subTest(part["id"]):
                (typed,) = design.read_stages([whole_stage(part)])
                read: Any = read_part(part)
                self.assertEqual(read.stage, typed)

    def test_a_box_says_one_ratio(self) -> None:
        for more in ({}, {"ratio": 5, "lobes": 11}, {"reductions": [4], "ratios": [2, 1]}):
            with self.assertRaisesRegex(
                DocumentError, "ratio: given twice or not at all, give one of ratio, lobes, .*reductions and ratios"
            ):
                read_part({"id": "x", "kind": "gearbox", **more})

    def test_one_of_several_speeds_goes_where_all_branches_meet(self) -> None:
        self.assertEqual(
            taken(BOXES[2], "drive.stages[0]"), {"drive.stages[0]": {"kind": "speeds", "ratios": [3, 2, 1]}}
        )
        with self.assertRaisesRegex(DocumentError, "in a branch"):
            taken(BOXES[2])

    def test_the_question_turned_round_keeps_its_rating(self) -> None:
        document = changed({"drive.branches.0.stages.0": {"kind": "gearbox", "ratio": 4}})
        reals = inverse(document, "reduction", GEARS, {"measure": "no_load_speed", "at_most": "15 m/s"}, BOXES)
        rows = next(real for real in reals.real if real.part == "b5")
        self.assertEqual(rows.changes, {GEARS: whole_stage(BOXES[0])})

    def test_a_kind_without_parts_in_a_bin_is_owned_by_nobody(self) -> None:
        box = {"id": "b20", "kind": "gearbox", "ratio": 20, "owned": 3}
        shop = workshop(design.read(changed({"drive.stages": [WORM]})))
        (need,) = [need for need in needs(shop) if need.kind == "worm"]
        self.assertIsNone(match(need, bin_of([box])))
        shop = workshop(design.read(changed({"drive.stages": [{"kind": "gearbox", "ratio": 20}]})))
        (need,) = [need for need in needs(shop) if need.kind == BOX]
        self.assertIsNotNone(match(need, bin_of([box])))

    def test_every_kind_of_box_can_be_told_by_the_key_of_its_ratio(self) -> None:
        keys = [kind.ratio_key for kind in whole_kinds(BOX)]
        self.assertEqual(len(set(keys)), len(keys))


class AnotherKind(TestCase):
    GEAR: ClassVar[dict[str, Any]] = {
        "kind": "gear",
        "driver_teeth": 14,
        "driven_teeth": 56,
        "module": "1 mm",
        "width": "6 mm",
        "efficiency": 0.9,
    }

    def become(self, old: dict[str, Any], kind: str, path: str = "drive.stages[0]") -> dict[str, Any]:
        return exchanged(changed({"drive.stages": [old, {"kind": "chain", "driver_teeth": 9}]}), path, kind)

    def test_teeth_and_width_stay_between_toothed_kinds_and_the_ratio_otherwise(self) -> None:
        self.assertEqual(
            self.become(self.GEAR, "belt"),
            {
                "kind": "belt",
                "driver_teeth": 14,
                "driven_teeth": 56,
                "pitch": "5 mm",
                "width": "6 mm",
            },
        )
        self.assertEqual(self.become(self.GEAR, "gearbox"), {"kind": "gearbox", "ratio": 4})
        self.assertEqual(self.become(self.GEAR, "planetary"), {"kind": "planetary", "reductions": [4]})
        self.assertEqual(self.become(self.GEAR, "cycloidal"), {"kind": "cycloidal", "lobes": 4})
        box = {"kind": "gearbox", "ratio": 4}
        for kind, wanted in (
            ("gear", {"driver_teeth": 16, "driven_teeth": 64}),
            ("v_belt", {"driven_pitch_diameter": "240 mm"}),
            ("friction", {"driver_diameter": "30 mm", "driven_diameter": "120 mm"}),
        ):
            with self.subTest(kind):
                self.assertLessEqual(wanted.items(), self.become(box, kind).items())

    def test_a_stage_that_cannot_be_read_counts_as_a_usual_one(self) -> None:
        self.assertEqual(self.become({"kind": "gearbox", "ratio": "many"}, "planetary")["reductions"], [4])

    def test_a_box_of_several_speeds_stands_once_and_where_all_branches_meet(self) -> None:
        self.assertEqual(self.become(self.GEAR, "speeds")["ratios"][0], 4)
        with self.assertRaisesRegex(DocumentError, "in a branch"):
            self.become(self.GEAR, "speeds", GEARS)
        with self.assertRaisesRegex(DocumentError, "a second"):
            self.become({"kind": "speeds", "ratios": [3, 2]}, "speeds", "drive.stages[1]")

    def test_no_such_stage_or_kind(self) -> None:
        for kind, path in (("sail", "drive.stages[0]"), ("gear", "drive.stages[7]"), ("gear", "vehicle")):
            with self.subTest(kind, path=path), self.assertRaises(DocumentError):
                self.become(self.GEAR, kind, path)


class WhatAVehicleHasOnce(TestCase):
    def test_each_goes_to_its_place(self) -> None:
        supply = {"kind": "battery", "open_circuit_voltage": "12 V"}
        for part, made in (
            ({"id": "b", "kind": "battery", "supply": supply}, {"drive.supply": supply}),
            ({"id": "w", "kind": "wheel", "diameter": "4 in"}, {"vehicle.wheel_diameter": "4 in"}),
            (
                {"id": "c", "kind": "controller", "controller": {"current_limit": "20 A"}},
                {"drive.branches[0].controller": {"current_limit": "20 A"}},
            ),
        ):
            with self.subTest(part["kind"]):
                self.assertEqual(taken(part), made)

    def test_a_belt_brings_its_length_and_what_it_stands(self) -> None:
        belt = {"id": "b", "kind": "belt", "pitch": "5 mm", "teeth": 90, "width": "9 mm", "profile": "curved"}
        stage = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "allowed_force_per_width": "9 N/mm"}
        values = changes(changed({"drive.stages": [stage]}), "drive.stages[0]", "", belt)
        self.assertEqual(
            values,
            {
                "drive.stages[0].belt_teeth": 90,
                "drive.stages[0].width": "9 mm",
                "drive.stages[0].profile": "curved",
                "drive.stages[0].allowed_force_per_width": None,
                "drive.stages[0].pitch": "5 mm",
            },
        )

    def test_a_chain_and_a_gear_bring_what_they_stand(self) -> None:
        chain = {"id": "c", "kind": "chain", "pitch": "9.525 mm", "max_speed": "3500 rpm"}
        stage = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 36, "pitch": "9.525 mm", "links": 70}
        values = changes(changed({"drive.stages": [stage]}), "drive.stages[0]", "", chain)
        self.assertEqual(values["drive.stages[0].max_speed"], "3500 rpm")
        gear = {"id": "g", "kind": "gear", "teeth": 18, "module": "1 mm", "allowed_contact": "600 MPa"}
        values = changes(changed(), "drive.branches[0].stages[0]", "driver", gear)
        self.assertEqual(values["drive.branches[0].stages[0].driver_allowed_contact"], "600 MPa")


class ALoop(TestCase):
    def test_of_another_pitch_is_refused(self) -> None:
        stage = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm"}
        belt = {"id": "b", "kind": "belt", "pitch": "3 mm", "teeth": 90}
        with self.assertRaisesRegex(DocumentError, "teeth of 3 mm where the stage has 5 mm"):
            changes(changed({"drive.stages": [stage]}), "drive.stages[0]", "", belt)


class ASource(TestCase):
    MOTOR: ClassVar[dict[str, Any]] = {
        "id": "m",
        "kind": "motor",
        "name": "mill",
        "mass": "0.3 kg",
        "source": {
            "kind": "motor",
            "constants": {"kv": "300 rpm/V", "resistance": "0.1 ohm", "no_load_current": "1 A"},
        },
        "controller": {"current_limit": "30 A"},
    }
    ENGINE: ClassVar[dict[str, Any]] = {
        "id": "e",
        "kind": "engine",
        "clutch": {"engagement_speed": "1500 rpm"},
        "source": {"kind": "engine", "torque_curve": [[100, 1], [300, 2], [400, 0]]},
    }
    OF_AN_ENGINE: ClassVar[dict[str, Any]] = {"source": ENGINE["source"], "clutch": {"engagement_speed": "900 rpm"}}
    OF_A_MOTOR: ClassVar[dict[str, Any]] = {"source": MOTOR["source"], "controller": {"current_limit": "5 A"}}

    def test_a_motor_takes_a_clutch_away_and_keeps_a_controller_where_it_has_none(self) -> None:
        self.assertEqual(
            branch_with(self.OF_AN_ENGINE, self.MOTOR),
            {
                "source": {"mass": "0.3 kg", **self.MOTOR["source"], "name": "mill"},
                "controller": {"current_limit": "30 A"},
            },
        )
        plain = {key: value for key, value in self.MOTOR.items() if key != "controller"}
        self.assertEqual(branch_with(self.OF_A_MOTOR, plain)["controller"], {"current_limit": "5 A"})

    def test_an_engine_takes_a_controller_away(self) -> None:
        self.assertEqual(set(branch_with(self.OF_A_MOTOR, self.ENGINE)), {"source", "clutch"})
        values = taken(self.ENGINE, "drive.branches[0].source")
        self.assertIsNone(values["drive.branches[0].controller"])

    def test_typed_and_read_are_one_rule(self) -> None:
        for part in (self.MOTOR, self.ENGINE):
            for branch in (self.OF_A_MOTOR, self.OF_AN_ENGINE):
                read = read_part(part)
                assert isinstance(read, MotorPart | EnginePart)
                made = with_source(self.read(branch), read)
                typed = self.read(branch_with(branch, part))
                self.assertEqual((made.clutch, made.controller), (typed.clutch, typed.controller))

    def read(self, branch: dict[str, Any]) -> Branch:
        document = changed({"drive.branches.0": {**branch, "stages": []}})
        if "clutch" in branch:
            del document["drive"]["supply"]
        return design.read(document).design.drive.branches[0]
