"""Test runs: the reference results, closed forms, chance against brute force, and what is refused."""

from __future__ import annotations

import copy
import json
import math
from functools import cache
from itertools import combinations
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np
from scipy.integrate import quad

from tests.core.designs import PLAIN, changed
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.files.calibration_report import report_of
from ydrometer.files.limits_report import report as limits_report
from ydrometer.trials import runs_file
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.case import Factors, TrialCase
from ydrometer.trials.differences import by_chance
from ydrometer.trials.fitted_design import fitted_design
from ydrometer.trials.kinds import Coast
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.rows import alone
from ydrometer.trials.unknowns import unknowns
from ydrometer.trials.words import unknown_words

CASES = Path(__file__).parent / "cases" / "runs"
NAMES = [file.stem for file in sorted(CASES.glob("*.json")) if "truth" not in file.name]
THERMAL = {
    "winding_capacity": "45 J/K",
    "winding_to_case": "1.1 K/W",
    "case_capacity": "310 J/K",
    "case_to_air": "3.2 K/W",
}


def raw_case(name: str) -> dict[str, Any]:
    answer: dict[str, Any] = json.loads((CASES / f"{name}.json").read_text())
    return answer


@cache
def calibrated(name: str) -> Calibration:
    return Calibration(runs_file.read(raw_case(name)))


@cache
def told(name: str) -> dict[str, Any]:
    return report_of(calibrated(name))


def made_of(*runs: dict[str, Any], **designs: dict[str, Any]) -> dict[str, Any]:
    return {"format": "ydrometer-runs", "version": 1, "designs": designs or {"plain": PLAIN}, "runs": list(runs)}


def run(kind: str, *readings: Any, **more: Any) -> dict[str, Any]:
    return {"design": "plain", "kind": kind, "readings": list(readings), **more}


def value(raw: dict[str, Any], designs: dict[str, Any] | None = None) -> float:
    """What the model says of one run."""
    file = runs_file.read(made_of(raw, **(designs or {})))
    (trial,) = file.runs
    model = Model(dict(file.designs), [PosedQuestion(trial, trial.design, "", trial.conditions)])
    return float(model.values([], np.zeros((1, 0)))[0, 0])


class References(TestCase):
    def test_every_run_before_and_after(self) -> None:
        for name in NAMES:
            wanted = json.loads((CASES / f"{name}.truth.json").read_text())["reference"]
            for mine, theirs in zip(told(name)["runs"], wanted["runs"], strict=True):
                with self.subTest(name, run=theirs["run"]):
                    self.assertEqual(mine["odd"], theirs["odd"])
                    self.assertEqual(mine.get("why"), theirs.get("why"))
                    for key, near in (("measured", 1e-6), ("before", 1e-5), ("after", 3e-4)):
                        if theirs.get(key) is not None:
                            self.assertAlmostEqual(mine[key], theirs[key], delta=near * abs(theirs[key]))

    def test_the_least_is_as_low_and_where_it_is_found(self) -> None:
        for name in NAMES:
            wanted = json.loads((CASES / f"{name}.truth.json").read_text())["reference"]
            answer = told(name)
            with self.subTest(name):
                self.assertTrue(answer["converged"])
                self.assertEqual(answer["degrees"], wanted["degrees"])
                self.assertLess(answer["chi_square"], wanted["chi_square"] * (1.0 + 1e-4))
                mine = {(u["name"], u.get("ground")): u for u in answer["unknowns"]}
                self.assertEqual(set(mine), {(u["name"], u.get("ground")) for u in wanted["unknowns"]})
                for theirs in wanted["unknowns"]:
                    own = mine[theirs["name"], theirs.get("ground")]
                    self.assertAlmostEqual(own["factor"], theirs["factor"], delta=3e-3)
                    # Where a run lies on the edge between torque and grip its slope depends on the step.
                    self.assertAlmostEqual(own["sd"], theirs["sd"], delta=0.02 * theirs["sd"])

    def test_what_is_asked_and_which_differences_are_real(self) -> None:
        for name in NAMES:
            wanted = json.loads((CASES / f"{name}.truth.json").read_text())["reference"]
            answer = told(name)
            with self.subTest(name):
                for which, measures in wanted["ask"].items():
                    for measure, theirs in measures.items():
                        mine = answer["ask"][which][measure]
                        self.assertAlmostEqual(mine["value"], theirs["value"], delta=2e-4 * theirs["value"])
                        for edge in ("low", "high"):
                            self.assertAlmostEqual(mine[edge], theirs[edge], delta=5e-3 * theirs[edge])
                rows = zip(answer["differences"], wanted["differences"], strict=True)
                for mine, theirs in rows:
                    for key in ("mean", "low", "high", "chance"):
                        self.assertAlmostEqual(mine[key], theirs[key], places=5)
                    self.assertEqual((mine["a"], mine["b"]), (theirs["a"], theirs["b"]))

    def test_a_fitted_design_is_read_and_says_what_was_asked(self) -> None:
        for name in NAMES:
            calibration = calibrated(name)
            asked = calibration.predictions[0][0].design
            document = design.read(fitted_design(calibration, asked))
            again = evaluate([document]).value("top_speed", 0)
            with self.subTest(name):
                self.assertAlmostEqual(again, told(name)["ask"][asked]["top_speed"]["value"], delta=1e-6 * again)
                self.assertEqual(document.values["vehicle.rolling_resistance"].origin, "measured")

    def test_what_to_measure_next_cuts_something(self) -> None:
        proposed = told(NAMES[0])["next"]
        self.assertEqual(len(proposed), 3)
        self.assertTrue(all(0.0 < one["cuts"] <= 1.0 for one in proposed))
        self.assertEqual(proposed, sorted(proposed, key=lambda one: -one["cuts"]))


class Invariance(TestCase):
    def test_the_same_in_other_units(self) -> None:
        raw = raw_case(NAMES[1])
        other = copy.deepcopy(raw)
        for one in other["runs"]:
            one["readings"] = [text.replace(" s", "e3 ms") if text.endswith(" s") else text for text in one["readings"]]
        again = Calibration(runs_file.read(other)).data
        np.testing.assert_allclose(calibrated(NAMES[1]).data.y, again.y, atol=1e-12)
        np.testing.assert_allclose(calibrated(NAMES[1]).data.variance, again.variance, atol=1e-12)


class Edges(TestCase):
    def test_without_runs_or_questions_nothing_is_learnt(self) -> None:
        bare = report_of(Calibration(runs_file.read(made_of())))
        self.assertEqual((bare["unknowns"], bare["runs"], bare["ask"], bare["next"]), ([], [], {}, []))
        self.assertEqual(bare["designs"]["plain"], PLAIN)

    def test_one_run_alone_teaches_a_little(self) -> None:
        found = report_of(Calibration(runs_file.read(made_of(run("tow", "5.2 N")))))
        (rolling,) = found["unknowns"]
        self.assertEqual(rolling["name"], "rolling_resistance")
        self.assertGreater(rolling["factor"], 1.0)
        self.assertGreater(len(found["next"]), 0)

    def test_a_run_of_which_nothing_counts_takes_no_part_and_says_so(self) -> None:
        runs = [run("tow", "5.2 N"), run("top_speed", "8 m/s", "8.4 m/s"), run("push", "60 N")]
        alone_ = report_of(Calibration(runs_file.read(made_of(*runs))))
        slipped = [{"reading": k, "why": "slipped"} for k in (0, 1)]
        with_it = report_of(
            Calibration(runs_file.read(made_of(*runs, run("top_speed", "3 m/s", "2 m/s", left_out=slipped))))
        )
        row = with_it["runs"][3]
        self.assertEqual((row["after"], row["z"], row["why"]), (None, None, "every reading of it is left out"))
        self.assertAlmostEqual(row["measured"], 2.5)
        self.assertEqual(with_it["degrees"], alone_["degrees"])
        for mine, other in zip(with_it["unknowns"], alone_["unknowns"], strict=True):
            self.assertAlmostEqual(mine["factor"], other["factor"], 9)
        self.assertEqual(with_it["differences"], [])

    def test_what_is_fitted_can_be_named(self) -> None:
        raw = {**made_of(run("tow", "5.2 N"), run("top_speed", "8 m/s")), "fit": ["losses"]}
        self.assertEqual([u["name"] for u in report_of(Calibration(runs_file.read(raw)))["unknowns"]], ["losses"])


class Kinds(TestCase):
    def test_coasting_against_the_integral(self) -> None:
        rows = alone(TrialCase(design.read(PLAIN).design), Factors.ones(1, 1))
        body = rows.batch.vehicle[0, 0]
        for grade in (0.0, -0.02):
            run_ = Coast(design="plain", readings=(1.0,), begun=8.0, ended=6.0, drive="free", grade=grade)
            case = TrialCase(run_.conditions.applied(design.read(PLAIN).design))
            sloping = alone(case, Factors.ones(1, 1)).batch.vehicle[0, 0]
            against = float(sloping["rolling"] + sloping["grade"])
            exact = quad(lambda v, a=against: float(body["mass"]) / (a + float(body["air"]) * v * v), 6.0, 8.0)[0]
            with self.subTest(grade=grade):
                self.assertAlmostEqual(float(run_.values(alone(case, Factors.ones(1, 1)))[0]), exact, places=6)

    def test_downhill_it_never_gets_slower(self) -> None:
        self.assertTrue(
            math.isnan(value(run("coast", "3 s", **{"from": "3 m/s", "to": "1 m/s"}, drive="free", grade="-20 %")))
        )

    def test_motors_that_are_dragged_along_slow_it_down(self) -> None:
        coast = {"from": "5 m/s", "to": "2 m/s"}
        self.assertLess(
            value(run("coast", "3 s", **coast, drive="attached")), value(run("coast", "3 s", **coast, drive="free"))
        )

    def test_a_motor_turns_as_much_faster_as_it_is_geared(self) -> None:
        wheel, motor = (value(run("spin", "900 rpm", of=of)) for of in ("wheel", "motor"))
        self.assertAlmostEqual(motor / wheel, evaluate([design.read(PLAIN)]).value("overall_ratio", 0)[0])

    def test_another_supply_is_the_run_s_own(self) -> None:
        bench = {"kind": "bench", "voltage": "12.6 V"}
        self.assertAlmostEqual(
            2.0 * value(run("spin", "900 rpm", of="wheel", supply=bench)) / value(run("spin", "900 rpm", of="wheel")),
            1.0,
            delta=0.05,
        )

    def test_a_case_gets_as_warm_as_loads_say(self) -> None:
        warm = changed({"drive.branches.0.source.thermal": THERMAL})
        day = [{"do": "shove", "for": "20 s"}, {"do": "rest", "for": "1 min"}]
        told_by_loads = limits_report(design.read({**warm, "loads": {"day": day, "heats": 1}}))["heat"][0]["case"]
        found = value(run("case_temperature", "310 K", day=day), {"plain": warm})
        self.assertAlmostEqual(found, told_by_loads, places=6)


class Unknown(TestCase):
    def test_is_called_by_the_ground_that_it_is_of(self) -> None:
        found = unknowns({"a": design.read(PLAIN)}, [("a", "hall floor")])
        words = {unknown.kind.name: unknown_words(unknown) for unknown in found}
        self.assertEqual(words["rolling_resistance"], "rolling resistance on hall floor")
        self.assertNotIn(" on ", words["wheel_diameter"])

    def test_designs_that_hold_the_same_share_one(self) -> None:
        other = changed({"vehicle.rolling_resistance": "0.05 +/- 0.01", "drive.stages.0.driver_teeth": 20})
        unknown_list = unknowns({"a": design.read(PLAIN), "b": design.read(other)}, [("a", ""), ("b", "")])
        shared = {u.kind.name: u.designs for u in unknown_list}
        self.assertEqual(shared["grip"], ("a", "b"))
        rolling = [u for u in unknown_list if u.kind.name == "rolling_resistance"]
        self.assertEqual([(u.designs, round(u.sigma, 6)) for u in rolling], [(("a",), 0.25), (("b",), 0.2)])

    def test_what_was_measured_is_nearly_sure(self) -> None:
        sure = changed({"vehicle.grip": {"value": 0.8, "origin": "measured"}})
        unknown_list = unknowns({"a": design.read(sure)}, [("a", "")])
        self.assertEqual(next(u.sigma for u in unknown_list if u.kind.name == "grip"), 0.01)


class Chance(TestCase):
    def test_against_every_deal(self) -> None:
        random = np.random.default_rng(3)
        for sizes in ((2, 2), (3, 4), (5, 3)):
            first, second = (random.normal(3.0, 0.1, n).round(2) for n in sizes)
            both = np.concatenate([first, second])
            most = abs(first.mean() - second.mean()) - 1e-9 * both.max()
            deals = [
                abs(both[list(chosen)].mean() - np.delete(both, list(chosen)).mean()) >= most
                for chosen in combinations(range(len(both)), len(first))
            ]
            with self.subTest(sizes=sizes):
                self.assertAlmostEqual(by_chance(first, second), np.mean(deals))

    def test_equal_heaps_differ_by_chance_alone(self) -> None:
        self.assertEqual(by_chance(np.array([1.0, 2.0]), np.array([1.0, 2.0])), 1.0)

    def test_many_readings_are_drawn(self) -> None:
        random = np.random.default_rng(4)
        self.assertLess(by_chance(random.normal(0.0, 1.0, 20), random.normal(3.0, 1.0, 20)), 1e-3)


class Refused(TestCase):
    def faults(self, raw: dict[str, Any]) -> str:
        with self.assertRaises(DocumentError) as caught:
            runs_file.read(raw)
        return "\n".join(caught.exception.lines())

    def test_all_at_once_with_their_paths(self) -> None:
        raw = made_of(
            run("spin", "900 rpm"),
            run("coast", "3 s", **{"from": "2 m/s", "to": "5 m/s"}, drive="free"),
            {**run("tow", "9 N"), "design": "nobody's"},
            run("push", "9 N", left_out=[{"reading": 1, "why": "slipped"}]),
            run("motor_current", "9 A", moment="shove", branch=3),
            run("tow", "9 N", grade=4),
        )
        raw["ask"] = ["18 teeth"]
        fault_list = self.faults(raw)
        for wanted in (
            "runs[0].of",
            "runs[1].to",
            "runs[2].design",
            "runs[3].left_out",
            "runs[4].branch",
            "runs[5].grade",
        ):
            self.assertIn(wanted, fault_list)
        self.assertIn("ask[0]", fault_list)

    def test_faults_of_designs_tell_whose(self) -> None:
        broken = changed({"vehicle.mass": "heavy"})
        self.assertIn('designs["18 teeth"].vehicle.mass', self.faults(made_of(**{"18 teeth": broken})))

    def test_what_a_drive_does_not_have(self) -> None:
        engine = json.loads((CASES / "03-two-grounds.json").read_text())["designs"]["64 mm"]
        raw = made_of(
            run("spin", "900 rpm", of="wheel", supply_voltage="12 V"),
            run("coast", "3 s", **{"from": "5 m/s", "to": "2 m/s"}, drive="attached"),
            plain=engine,
        )
        fault_list = self.faults(raw)
        self.assertIn("runs[0].supply_voltage: given for no supply", fault_list)
        self.assertIn("runs[1].drive: attached to an engine", fault_list)
        battery = {"kind": "battery", "open_circuit_voltage": "12 V", "resistance": "20 mohm"}
        other = self.faults(made_of(run("top_speed", "9 m/s", supply=battery), plain=engine))
        self.assertIn("runs[0].supply: given for engines alone", other)
