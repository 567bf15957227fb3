"""Plates behind stages that turn the axis: what stands on each, and that each is looked at for itself."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from unittest import TestCase

from tests.core.designs import changed
from tests.core.plates import CHAIN, JACK, MOTOR, PLATE, about, at, look, read, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.document.remounted import renamed
from ydrometer.files.fit_report import report
from ydrometer.files.sheets.template import TemplateWish, template
from ydrometer.fit.clashes import all_clashes
from ydrometer.fit.setting_up import set_up, set_ups
from ydrometer.fit.stock import NOTHING
from ydrometer.screens.mounted import mounted, places

BEVEL = {"kind": "bevel", "driver_teeth": 16, "driven_teeth": 32}
TURN, AXLE = "drive.stages[0]", "drive.stages[1]"
SMALL = {**CHAIN, "driven_teeth": 20, "links": 60}
STAGES = {"drive.stages": [BEVEL, SMALL]}
SLOT = {"mount": "slot", "slot": {"start": at(190, 48), "end": at(260, 48)}}


def behind(**said: Any) -> dict[str, Any]:
    return {"plate": PLATE, "behind": [{"stage": TURN, "plate": PLATE} | said]}


class Behind(TestCase):
    def test_each_plate_has_its_own_shafts_and_the_axle_is_on_the_last_one(self) -> None:
        found = mounted(read(behind(), **STAGES)).plates
        self.assertEqual([plate.name for plate in found], ["plate 1", "plate 2, behind the bevel gears"])
        self.assertEqual([[s.path for s in plate.plan.shafts] for plate in found], [[MOTOR, JACK], [TURN, AXLE]])
        self.assertEqual([s.name for s in found[1].plan.shafts], ["shaft out of the turning stage", "axle"])
        self.assertIsNone(found[0].plan.ground)
        self.assertIsNotNone(found[1].plan.ground)
        self.assertEqual([entry.path for entry in found[1].settings], [AXLE])

    def test_the_same_as_on_a_plate_of_its_own(self) -> None:
        """The numbers of a chain are those that it has in a line without the bevel in front of it."""
        plain = {stage.name: stage.value for stage in look({}, **{"drive.stages": [SMALL]}).settings[-1].settings}
        turned = {stage.name: stage.value for stage in mounted(read({}, **STAGES)).plates[1].settings[-1].settings}
        self.assertEqual(list(plain), list(turned))
        for name, value in plain.items():
            self.assertAlmostEqual(value, turned[name], 12, name)

    def test_places_frame_and_clashes_are_of_one_plate(self) -> None:
        frame = [{"name": "keel", "start": at(0, 40), "end": at(300, 40)}]
        fit = {**behind(frame=frame), "shafts": [shaft(TURN, 24, 48, "holes"), shaft(AXLE, 290, 48, "free")]}
        first, second = mounted(read(fit, **STAGES)).plates
        self.assertEqual(about(first, "keel"), [])
        self.assertTrue(about(second, "keel"))
        self.assertTrue(about(second, "chain"))
        design = read(fit, **STAGES).design
        self.assertEqual(all_clashes(set_ups(design)), [*first.clashes, *second.clashes])

    def test_ways_are_looked_for_on_the_plate_asked_for(self) -> None:
        fit = {**behind(), "shafts": [shaft(TURN, 24, 48), shaft(JACK, 240, 48), {"shaft": AXLE, **SLOT}]}
        ways = places(read(fit, **STAGES), behind=TURN)
        self.assertGreater(ways.count, 0)
        for way in ways.ways:
            self.assertEqual(set(way.at), {TURN, AXLE})
        with self.assertRaisesRegex(DocumentError, "no plate is given"):
            places(read({"plate": PLATE}, **STAGES), behind=TURN)
        with self.assertRaisesRegex(DocumentError, r"drive.stages\[1\] does not turn the axis"):
            places(read(fit, **STAGES), behind=AXLE)

    def test_helps_stay_on_their_plate(self) -> None:
        fit = {**behind(), "shafts": [shaft(TURN, 24, 48), shaft(AXLE, 204, 48)]}
        helps = places(read(fit, **STAGES), behind=TURN).helps
        self.assertTrue(helps)
        self.assertTrue(all(set(help_.way.at) == {TURN, AXLE} for help_ in helps if help_.way))

    def test_the_report_says_each_plate(self) -> None:
        reported = report(read(behind(), **STAGES))
        self.assertEqual(reported["elsewhere"], [TURN, AXLE])
        (second,) = reported["behind"]
        self.assertEqual([second["stage"], *(s["shaft"] for s in second["shafts"])], [TURN, TURN, AXLE])
        self.assertIn("shaft out of the turning stage", second["placements"]["helps"][-1]["text"])
        self.assertNotIn("behind", report(read({})))

    def test_a_template_of_the_second_plate(self) -> None:
        drilled = {**PLATE, "hole": "5 mm"}
        fit = {**behind(plate=drilled), "plate": drilled, "shafts": [shaft(AXLE, 100, 48, opening="20 mm")]}
        raw = {**changed(STAGES), "fit": fit}
        templates = [template(raw, NOTHING, TemplateWish("svg", "a4", "", where), ()) for where in ("", TURN)]
        self.assertEqual([one.holes for one in templates], [300, 301])
        self.assertTrue(templates[1].name.endswith("-plate-behind.svg"))

    def test_two_turns_make_three_plates_and_a_turn_at_the_end_leaves_the_axle_alone(self) -> None:
        worm = {"kind": "worm", "ratio": 20, "efficiency": 0.6}
        setups = set_ups(read({}, **{"drive.stages": [BEVEL, CHAIN, worm]}).design)
        self.assertEqual([setup.plane.behind for setup in setups], ["", TURN, "drive.stages[2]"])
        self.assertEqual(setups[2].plane.shafts, ["drive.stages[2]"])
        self.assertEqual([setup.plane.last for setup in setups], [None, None, "drive.stages[2]"])

    def test_branches_that_meet_behind_their_bevels_and_one_that_comes_from_another_plate(self) -> None:
        branch = changed({})["drive"]["branches"][0]
        both = [{**branch, "stages": [BEVEL]}] * 2
        setups = set_ups(read({}, **{"drive.branches": both, "drive.stages": [CHAIN]}).design)
        self.assertEqual(
            [setup.plane.shafts for setup in setups][1], ["drive.branches[0].stages[0]", "drive.stages[0]"]
        )
        mixed = [{**branch, "stages": [BEVEL]}, branch]
        first, _ = mounted(read({}, **{"drive.branches": mixed, "drive.stages": [CHAIN]})).plates
        self.assertTrue(about(first, "leads to a shaft on another plate"))

    def test_what_is_said_of_a_plate_that_is_none_is_told_and_moves_with_its_stage(self) -> None:
        fit = {"behind": [{"stage": JACK, "plate": PLATE}]}
        self.assertTrue(about(look(fit), "does not turn the axis"))
        self.assertEqual(renamed(behind(), {TURN: AXLE})["behind"][0]["stage"], AXLE)
        with self.assertRaisesRegex(DocumentError, "given twice"):
            read({"behind": [{"stage": TURN}, {"stage": TURN}]})

    def test_what_is_said_of_a_shaft_counts_on_its_plate_alone(self) -> None:
        fit = {**behind(), "shafts": [shaft(MOTOR, 24, 48), shaft(AXLE, 24, 48)]}
        design = read(fit, **STAGES).design
        said = [[mount.shaft for mount in setup.mounting.shafts] for setup in set_ups(design)]
        self.assertEqual(said, [[MOTOR], [AXLE]])
        with self.assertRaisesRegex(ValueError, "does not turn the axis"):
            set_up(replace(design, fit=None), behind=JACK)
