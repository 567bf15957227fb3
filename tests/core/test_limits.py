"""Loads: the reference results, closed forms for what cases do not reach, and what cannot be judged or done."""

from __future__ import annotations

import copy
import json
import math
import re
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.designs import changed
from tests.core.plates import JACK, MOTOR, at, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.strengths import BeltForce, belt_force, chain_breaks, lewis_form
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.files.limits_report import report
from ydrometer.loads import rows
from ydrometer.loads.helps import helps
from ydrometer.loads.limits import limits
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow, judged
from ydrometer.loads.shafts import _branch
from ydrometer.screens.loads import RowWanted, helps_shown, loads_shown

CASES = Path(__file__).parent / "cases" / "loads"
FACTOR = 1.25
"""Of motors where nothing is said of the service."""
GEAR = "drive.branches[0].stages[0]"


def told(raw: dict[str, Any]) -> dict[str, Any]:
    return report(design.read(raw))


def row(found: dict[str, Any], check: str, **wanted: Any) -> dict[str, Any]:
    rows = [r for r in found["checks"] if r["check"] == check and all(r[k] == v for k, v in wanted.items())]
    assert len(rows) == 1, (check, wanted, rows)
    made: dict[str, Any] = rows[0]
    return made


def pick(value: Any, where: list[Any]) -> Any:
    """What selectors lead to: a key, an index, or an object that picks the one entry which has its values."""
    for selector in where:
        if isinstance(selector, dict):
            value = next((e for e in value if all(e.get(k) == v for k, v in selector.items())), None)
        else:
            value = None if value is None or (isinstance(value, dict) and selector not in value) else value[selector]
    return value


class References(TestCase):
    def test_all_cases_agree(self) -> None:
        for file in sorted([*CASES.glob("*.expected.json"), *(CASES.parent / "loads2").glob("*.expected.json")]):
            answer = told(json.loads(file.with_suffix("").with_suffix(".json").read_text()))
            for entry in json.loads(file.read_text()):
                with self.subTest(file.name, where=entry["where"]):
                    got, wanted = pick(answer, entry["where"]), entry.get("value")
                    if isinstance(wanted, float) and got is not None:
                        room = entry.get("atol", 0.0) + entry.get("rtol", 0.0) * abs(wanted)
                        self.assertLessEqual(abs(got - wanted), room, got)
                    else:
                        self.assertEqual(got, wanted)


class Rows(TestCase):
    def test_what_stands_nothing_is_over_and_has_no_use(self) -> None:
        for capacity, use, state in ((0.0, None, "over"), (10.0, 0.5, "ok"), (None, None, "unknown")):
            row_ = rows.row("fuse", "drive.supply", "A", 5.0, capacity)
            self.assertEqual((row_.use, row_.state), (use, state))

    def test_it_is_near_from_eight_tenths_and_over_above_all(self) -> None:
        uses = (0.7999, 0.8, 1.0, 1.0001)
        self.assertEqual([judged(use) for use in uses], ["ok", "near", "near", "over"])


class Stages(TestCase):
    def test_a_tooth_by_hand(self) -> None:
        """16 teeth of module 1.5 and 12 mm: Lewis in the shove, where nothing turns and Barth's factor is 1."""
        gear = {"driver_teeth": 16, "module": "1.5 mm", "width": "12 mm", "driver_material": "brass"}
        edits = {f"drive.branches.0.stages.0.{key}": value for key, value in gear.items()}
        answer = told(changed({**edits, "vehicle.grip": 0.01}))
        shove = pick(answer, ["moments", {"moment": "shove"}, "sources", {"branch": 0}, "torque"])
        start = pick(answer, ["moments", {"moment": "hard start"}, "shafts", {"path": MOTOR}, "torque"])
        torque = max(shove, start)
        stress = FACTOR * torque / 12e-3 / (12e-3 * 1.5e-3 * 0.296)
        one = row(answer, "gear_tooth", member="driver")
        self.assertAlmostEqual(one["demand"] / stress, 1.0, 2)
        self.assertEqual(one["capacity"], 60e6)
        self.assertIn("allowed stress of brass", one["assumed"])

    def test_form_factors_between_and_beyond_the_table(self) -> None:
        self.assertAlmostEqual(lewis_form(23), 0.5 * (0.331 + 0.337), 12)
        self.assertEqual([lewis_form(z) for z in (6, 10, 300, 301)], [0.201, 0.201, 0.472, 0.485])

    def test_pitches_of_tables(self) -> None:
        self.assertEqual(belt_force(5e-3, None), BeltForce(9e3, None))
        self.assertEqual(belt_force(5.08e-3, "trapezoidal"), BeltForce(5.3e3, 9.5e-3))
        self.assertIsNone(belt_force(4e-3, "curved"))
        self.assertEqual(chain_breaks(9.525e-3 * 1.0005), 7.9e3)
        self.assertIsNone(chain_breaks(9.6e-3))

    def test_what_is_not_known_says_what_would_settle_it(self) -> None:
        answer = told(changed({}))
        tooth, belt = row(answer, "gear_tooth", member="driver"), row(answer, "belt_force")
        self.assertEqual([tooth["state"], tooth["use"], tooth["needs"]], ["unknown", None, [f"{GEAR}.width"]])
        self.assertEqual(belt["needs"], ["drive.stages[0].width"])
        self.assertGreater(belt["demand"], 0.0)
        self.assertEqual(row(answer, "belt_jump")["needs"], ["fit.loops[0].tension"])

    def test_steps_of_a_stack_in_the_wrong_order(self) -> None:
        for ratings, state in (([18, 5], "over"), ([5, 18], "ok"), ([5, None], "unknown")):
            stack = {"kind": "planetary", "reductions": [4, 3], "torque_ratings": ratings}
            found = row(told(changed({"drive.branches.0.stages": [stack], "vehicle.mass": "60 kg"})), "order_of_steps")
            with self.subTest(ratings):
                self.assertEqual([found["state"], found["use"]], [state, None])
        with self.assertRaisesRegex(DocumentError, "give one a step"):
            told(changed({"drive.branches.0.stages": [{**stack, "torque_ratings": [1]}]}))

    def test_a_step_carries_what_the_steps_before_it_make(self) -> None:
        stack = {"kind": "planetary", "reductions": [4, 3], "efficiency": 0.81, "torque_ratings": [5, 18]}
        raw = changed({"drive.branches.0.stages": [stack], "drive.branches.0.source.rotor_inertia": 0.0})
        raw["loads"] = {**raw.get("loads", {}), "reverses": False}
        answer = told(raw)
        torque = max(abs(m["sources"][0]["torque"]) for m in answer["moments"])
        for k, ratio in enumerate((4 * 0.9, 12 * 0.81)):
            demand = row(answer, "box_torque", member=f"steps[{k}]")["demand"]
            self.assertAlmostEqual(demand / (FACTOR * ratio * torque), 1.0, 3)

    def test_uses_are_rounded_before_they_are_judged(self) -> None:
        self.assertEqual([judged(u) for u in (0.79994, 0.79996, 1.00004, 1.00006)], ["ok", "near", "near", "over"])


class Electrical(TestCase):
    def test_a_controller_with_a_continuous_figure_alone(self) -> None:
        found = row(told(changed({"drive.branches.0.controller": {"continuous_current": "40 A"}})), "controller_peak")
        self.assertEqual(found["capacity"], 40.0)
        self.assertIn("no peak figure: its continuous one is taken", found["remarks"])

    def test_a_limit_is_no_rating(self) -> None:
        battery = {
            "kind": "battery",
            "open_circuit_voltage": "14.8 V",
            "resistance": "20 mohm",
            "current_limit": "60 A",
        }
        found = row(told(changed({"drive.supply": battery})), "supply_peak")
        self.assertEqual([found["state"], found["needs"]], ["unknown", ["drive.supply.peak_current"]])

    def test_a_fuse_sees_how_long_a_current_lasts(self) -> None:
        """A shove of 4 s has to go under 1.1 times the rating, one of 0.2 s under 1.6 times."""
        battery = {"kind": "battery", "open_circuit_voltage": "14.8 V", "fuse": {"rating": "10 A"}}
        for lasts, multiple in (("4 s", 1.1), ("200 ms", 1.6), ("100 us", 6.0)):
            day = [{"do": "shove", "for": lasts}]
            answer = told(changed({"drive.supply": battery, "loads": {"day": day}}))
            fuse = row(answer, "fuse")
            with self.subTest(lasts):
                self.assertAlmostEqual(fuse["capacity"], 10.0 * multiple, 9)
                drawn = pick(answer, ["moments", {"moment": "shove"}, "bus_current"])
                self.assertAlmostEqual(fuse["demand"], drawn, 6)

    def test_long_waits_do_not_count_for_what_is_carried_long(self) -> None:
        controller = {"continuous_current": "30 A"}

        def mean(day: list[dict[str, Any]]) -> float:
            answer = told(changed({"drive.branches.0.controller": controller, "loads": {"day": day}}))
            made: float = row(answer, "controller_continuous")["demand"]
            return made

        shove, current = {"do": "shove", "for": "10 s"}, mean([{"do": "shove", "for": "10 s"}])
        self.assertAlmostEqual(mean([shove, {"do": "rest", "for": "61 s"}]), current, 9)
        self.assertAlmostEqual(mean([shove, {"do": "rest", "for": "30 s"}]), 0.5 * current, 9)


class Moments(TestCase):
    def test_a_turn_on_the_spot_by_hand(self) -> None:
        edits = {"drive.units": 2, "vehicle.driven": "all", "vehicle.track": "380 mm", "vehicle.wheelbase": "400 mm"}
        answer = told(changed(edits))
        vehicle = design.read(changed(edits)).design.vehicle
        share = 0.4 / math.hypot(0.4, 0.38)
        wanted = vehicle.grip * vehicle.total_mass * 9.80665 / 2.0 * share
        self.assertAlmostEqual(answer["turn"]["force_each_side"], wanted, 9)
        self.assertIsNone(told(changed({**edits, "drive.units": 1}))["turn"])

    def test_a_turn_that_is_not_possible_is_told_and_refused_in_a_day(self) -> None:
        edits = {
            "drive.units": 2,
            "vehicle.driven": "all",
            "vehicle.track": "380 mm",
            "vehicle.wheelbase": "400 mm",
            "vehicle.mass": "900 kg",
        }
        answer = told(changed(edits))
        self.assertEqual([answer["turn"]["possible"], answer["turn"]["rate"]], [False, None])
        self.assertIsNone(pick(answer, ["moments", {"moment": "turn on the spot"}]))
        day = [{"do": "rest", "for": "1 s"}, {"do": "turns", "for": "4 s"}]
        with self.assertRaisesRegex(DocumentError, r"loads\.day\[1\]"):
            told(changed({**edits, "loads": {"day": day}}))

    def test_a_design_that_does_not_start_leaves_its_runs_out(self) -> None:
        stuck = changed({"vehicle.mass": "9000 kg"})
        answer = told(stuck)
        self.assertEqual(answer["state"], "will not start")
        told_of = {"hard start", "shove", "hard start, low", "shove, low"}
        self.assertEqual({m["moment"] for m in answer["moments"]}, told_of)
        with self.assertRaisesRegex(DocumentError, "does not start"):
            told({**stuck, "loads": {"day": [{"do": "runs", "count": 2, "every": "30 s"}]}})

    def test_what_speeds_rotors_up_does_not_pass_the_stages(self) -> None:
        """The last stage passes what moves the mass: F = m·a + resistance, whatever the rotors weigh."""
        raw = changed({"drive.branches.0.source.rotor_inertia": "2e-4 kg*m^2", "vehicle.wheels_inertia": 0.0})
        evaluation = evaluate([design.read(raw)])
        case = LoadCase(evaluation)
        last = case.line.shafts[-1].torque[0]
        vehicle = case.design.vehicle
        acceleration = float(case.moments.states.acceleration[0])
        rolling = vehicle.rolling_resistance * vehicle.total_mass * 9.80665 + vehicle.fixed_drag
        wanted = (vehicle.total_mass * acceleration + rolling) * vehicle.wheel_diameter / 2.0
        self.assertAlmostEqual(last * case.design.drive.units / wanted, 1.0, 9)

    def test_branches_join_on_one_shaft_that_carries_both(self) -> None:
        branch = changed({})["drive"]["branches"][0]
        single, two = (told(changed({"drive.branches": [branch] * n, "vehicle.mass": "400 kg"})) for n in (1, 2))
        paths = [shaft["path"] for shaft in two["moments"][0]["shafts"]]
        self.assertEqual(paths, [MOTOR, JACK, "drive.branches[1].source", "drive.stages[0]"])
        joint = [pick(f, ["moments", {"moment": "shove"}, "shafts", {"path": JACK}, "torque"]) for f in (single, two)]
        self.assertGreater(joint[1], 1.5 * joint[0])


class Shafts(TestCase):
    def fit(self, **jack: Any) -> dict[str, Any]:
        shafts = [
            {"shaft": MOTOR, "mount": "fixed", "at": at(0, 0)},
            {"shaft": JACK, "mount": "fixed", "at": at(35.5, 0), "diameter": "8 mm", **jack},
            {"shaft": "drive.stages[0]", "mount": "fixed", "at": at(190, 0), "diameter": "8 mm"},
        ]
        return {"shafts": shafts, "loops": [{"stage": "drive.stages[0]", "tension": "60 N"}]}

    def test_an_overhung_shaft_by_hand(self) -> None:
        raw = changed({"fit": self.fit(overhang="15 mm", **{"yield": "400 MPa"})})
        asked = LoadCase(evaluate([design.read(raw)]))
        gear, belt = (asked.passing(through) for through in asked.line.stages)
        size = asked.design.drive.branches[0].stages[0].tooth_size or 0.0
        teeth = asked.design.drive.branches[0].stages[0].members[0].measure
        force = gear.torque_in / (0.5 * size * teeth)
        drawn = np.maximum(120.0, belt.torque_in / (18 * 5e-3 / (2.0 * math.pi))) * math.cos(belt.loop.lean)
        sums = np.hypot(drawn + force * math.tan(math.radians(20.0)), force)
        stress = np.sqrt((32.0 * sums * 0.015) ** 2 + 3.0 * (16.0 * gear.torque_out) ** 2) / (math.pi * 0.008**3)
        found = row(told(raw), "shaft_stress", path=JACK)
        self.assertAlmostEqual(found["demand"] / (FACTOR * float(stress.max())), 1.0, 6)
        self.assertEqual(found["capacity"], 200e6)

    def test_two_bearings_that_stand_wide_bend_less_than_an_overhang(self) -> None:
        items = [
            {"name": "bearing", "width": "7 mm", "bearing": True},
            {"name": "gear", "width": "10 mm", "wheel": f"{GEAR} driven"},
            {"name": "pulley", "width": "16 mm", "wheel": "drive.stages[0] driver"},
            {"name": "bearing", "width": "7 mm", "bearing": True},
        ]
        answer = told(changed({"fit": self.fit(stack={"between": "40 mm", "items": items})}))
        over = told(changed({"fit": self.fit(overhang="20 mm")}))
        beam, out = (row(one, "shaft_stress", path=JACK)["demand"] for one in (answer, over))
        self.assertLess(beam, out)
        three = [*items, {"name": "bearing", "width": "7 mm", "bearing": True}]
        crowded = told(changed({"fit": self.fit(stack={"between": "50 mm", "items": three})}))
        self.assertIn({"check": "shaft_stress", "path": JACK}, crowded["not_judged"])

    def test_what_cannot_be_judged_is_told(self) -> None:
        answer = told(changed({"fit": self.fit()}))
        self.assertEqual({one["path"] for one in answer["not_judged"]}, {MOTOR, JACK, "drive.stages[0]"})
        self.assertEqual(told(changed({}))["not_judged"][0], {"check": "shaft_stress", "path": MOTOR})

    def test_without_a_diameter_it_is_not_known(self) -> None:
        fit = copy.deepcopy(self.fit(overhang="15 mm"))
        del fit["shafts"][1]["diameter"]
        found = row(told(changed({"fit": fit})), "shaft_stress", path=JACK)
        self.assertEqual([found["state"], found["needs"]], ["unknown", ["fit.shafts[1].diameter"]])


class Reading(TestCase):
    def test_what_is_refused(self) -> None:
        for edits, words in (
            ({"loads": {"day": [{"do": "fly", "for": "3 s"}]}}, "use one of runs, cruise, shove, turns, rest"),
            ({"loads": {"day": [{"do": "shove", "for": 0}]}}, "out of range"),
            ({"loads": {"service": "rough"}}, "use one of uniform"),
            ({"drive.branches.0.source.thermal": {"winding_capacity": "4 J/K"}}, "this value is needed"),
            ({"drive.supply": {"kind": "panel", "fuse": {"rating": "4 A"}}}, "unknown key"),
        ):
            with self.subTest(words), self.assertRaisesRegex(DocumentError, words):
                design.read(changed(edits))

    def test_keys_that_are_words_of_the_language_are_in_the_schema(self) -> None:
        properties = design.schema()["properties"]
        phases = properties["loads"]["properties"]["day"]["items"]["oneOf"]
        self.assertIn("for", phases[1]["properties"])
        self.assertIn("yield", properties["fit"]["properties"]["shafts"]["items"]["properties"])


class Helps(TestCase):
    """Each help that is promised is tried: the document is changed so, and has the use that was told."""

    def test_what_is_promised_is_true(self) -> None:
        gear = "drive.branches.0.stages.0"
        raw = changed(
            {
                f"{gear}.width": "4 mm",
                f"{gear}.driven_material": "acetal",
                "drive.stages.0.width": "6 mm",
                "drive.branches.0.controller": {"continuous_current": "12 A"},
                "fit": {"loops": [{"stage": "drive.stages[0]", "tension": "20 N"}]},
            }
        )
        rows = self.each_is_true(raw)
        self.assertGreaterEqual(
            {one.check for one in rows}, {"gear_tooth", "belt_force", "belt_jump", "controller_peak"}
        )

    def test_several_together_where_one_is_not_enough(self) -> None:
        gear = "drive.branches.0.stages.0"
        raw = changed({f"{gear}.width": "3 mm", f"{gear}.driver_allowed_stress": "85 MPa", f"{gear}.driver_teeth": 20})
        found = limits(evaluate([design.read(raw)]))
        driver = next(one for one in found.rows if one.check == "gear_tooth" and one.member == "driver")
        told_ = helps(found, driver)
        self.assertTrue(all((help_.use or 2.0) > 1.0 for help_ in told_[:-1]), told_)
        self.assertTrue((told_[-1].use or 2.0) <= 1.0 and len(told_[-1].changes) > 1, told_)
        self.each_is_true(raw)

    def test_where_grip_limits_a_larger_driven_wheel_relieves(self) -> None:
        """What the wheels pass to the ground is the same: only the radius at which the belt holds it changes."""
        v_belt = {"kind": "v_belt", "driver_pitch_diameter": "50 mm", "driven_pitch_diameter": "100 mm"}
        chain = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 24, "pitch": "9.525 mm", "links": 80}
        places = {"drive.branches[0].source": 0, "drive.branches[0].stages[0]": 200, "drive.stages[0]": 500}
        shafts = [shaft(path, x, 0) for path, x in places.items()]
        loops = [{"stage": "drive.stages[0]", "tension": "12 N"}]
        raw = changed(
            {
                "drive.branches.0.stages": [chain],
                "drive.stages": [{**v_belt, "surface": "cast iron"}],
                "fit": {"shafts": shafts, "loops": loops},
                "vehicle.grip": 0.3,
                "vehicle.mass": "20 kg",
            }
        )
        slips = next(one for one in self.each_is_true(raw) if one.check == "v_belt_slip")
        self.assertEqual(slips.moment, "shove")
        texts = [help_.text for help_ in helps(limits(evaluate([design.read(raw)])), slips)]
        self.assertFalse([text for text in texts if "driver" in text], texts)
        self.assertTrue(any("driven wheel of" in text for text in texts), texts)

    def each_is_true(self, raw: dict[str, Any]) -> list[UseRow]:
        before = limits(evaluate([design.read(raw)]))
        rows = [one for one in before.rows if one.state in ("near", "over")]
        for one in rows:
            for help_ in helps(before, one):
                with self.subTest(one.check, text=help_.text):
                    copied = copy.deepcopy(raw)
                    for path, value in help_.changes.items():
                        copied = changed({re.sub(r"\[(\d+)\]", r".\1", path): value}, copied)
                    found = [
                        r
                        for r in told(copied)["checks"]
                        if (r["check"], r["path"], r["member"]) == (one.check, one.path, one.member)
                    ]
                    assert help_.use is not None
                    self.assertAlmostEqual(found[0]["use"], help_.use, 6)
                    self.assertIn(f"{found[0]['use']:.2f}", help_.text)
        return rows

    def test_steps_are_swapped_and_rest_is_added(self) -> None:
        stack = {"kind": "planetary", "reductions": [4, 3], "torque_ratings": [18, 5]}
        raw = changed({"drive.branches.0.stages": [stack], "vehicle.mass": "60 kg"})
        found = limits(evaluate([design.read(raw)]))
        order = next(one for one in found.rows if one.check == "order_of_steps")
        (swapped,) = helps(found, order)
        self.assertEqual(swapped.changes[f"{GEAR}.reductions"], [3.0, 4.0])

    def test_what_is_all_right_needs_no_help(self) -> None:
        found = limits(evaluate([design.read(changed({}))]))
        calm = [one for one in found.rows if one.state in ("ok", "unknown")]
        self.assertEqual([help_ for one in calm for help_ in helps(found, one)], [])


class Shown(TestCase):
    def test_what_a_design_cannot_do_is_left_out_of_its_day_and_told(self) -> None:
        day = [{"do": "rest", "for": "1 s"}, {"do": "turns", "for": "4 s"}, {"do": "shove", "for": "2 s"}]
        found = loads_shown(design.read(changed({"loads": {"day": day}})))
        self.assertEqual(len(found.left_out), 1)
        self.assertIn("block 2", found.left_out[0])
        self.assertEqual([phase.do for phase in found.day], ["rest", "turns", "shove"])
        self.assertFalse(found.day_assumed)

    def test_parts_come_in_the_order_of_the_line_with_what_would_settle_them(self) -> None:
        found = loads_shown(design.read(changed({})))
        titles = [part.title for part in found.parts]
        self.assertLess(titles.index("motor"), titles.index("gears"))
        self.assertLess(titles.index("gears"), titles.index("toothed belt"))
        gears = next(part for part in found.parts if part.title == "gears")
        self.assertEqual(gears.rows[0].needs[0].words, "width")

    def test_helps_of_a_row_that_is_gone_are_none(self) -> None:
        document = design.read(changed({}))
        self.assertEqual(helps_shown(document, RowWanted("fuse", "drive.supply", "", "")), [])


class OfABranch(TestCase):
    def test_a_shaft_belongs_to_its_branch_until_several_join(self) -> None:
        raw = changed({})
        one = LoadCase(evaluate([design.read(raw)]))
        self.assertEqual(_branch(one, "drive.branches[0].source"), 0)
        self.assertEqual(_branch(one, "drive.branches[0].stages[0]"), 0)
        self.assertIsNone(_branch(one, "drive.stages[0]"))
        raw["drive"]["branches"].append(copy.deepcopy(raw["drive"]["branches"][0]))
        two = LoadCase(evaluate([design.read(raw)]))
        self.assertEqual(_branch(two, "drive.branches[1].source"), 1)
        self.assertIsNone(_branch(two, "drive.branches[1].stages[0]"))
