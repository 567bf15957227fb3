"""What the station Runs shows: names of gearings, what has changed since, curves, and plans."""

from __future__ import annotations

import dataclasses
from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.designs import PLAIN, changed
from tests.core.test_trials import calibrated
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.evaluation.uncertainty import Together, sample
from ydrometer.screens.learnt import KeptDesign, KeptRun, learnt
from ydrometer.screens.learnt_shown import Learnt
from ydrometer.screens.planned import offered, planned
from ydrometer.trials.fitted_design import fitted_values, written
from ydrometer.trials.over_reduction import over_reduction
from ydrometer.trials.plan import dealt, looks_like, read
from ydrometer.trials.prediction import with_its_day
from ydrometer.trials.runs_file import read_run
from ydrometer.trials.tried import changed_since, essence, names, reduction

TEETH = "drive.branches.0.stages.0.driver_teeth"
TIMED = {"kind": "distance_time", "distance": "25 m"}


def geared(teeth: int, **more: Any) -> dict[str, Any]:
    return changed({TEETH: teeth, **{key.replace("__", "."): value for key, value in more.items()}})


def of(present: dict[str, Any], *runs: tuple[dict[str, Any], dict[str, Any]]) -> Learnt:
    """Of runs, each with its design."""
    designs: list[dict[str, Any]] = []
    for made_with, _ in runs:
        if made_with not in designs:
            designs.append(made_with)
    tried = [KeptDesign(str(k), one) for k, one in enumerate(designs)]
    return learnt(present, tried, [KeptRun(str(k), str(designs.index(d)), run) for k, (d, run) in enumerate(runs)])


def timed(*readings: float) -> dict[str, Any]:
    return {**TIMED, "readings": [f"{reading} s" for reading in readings], "supply_voltage": "25.2 V"}


class Names(TestCase):
    def called(self, *raw: dict[str, Any]) -> list[str]:
        return names([design.read(document) for document in raw])

    def test_by_what_differs(self) -> None:
        self.assertEqual(self.called(geared(12), geared(14)), ["12 teeth", "14 teeth"])
        both = changed({TEETH: 12, "drive.branches.0.stages.0.driven_teeth": 60})
        self.assertEqual(self.called(geared(15), both), ["15:56", "12:60"])
        self.assertEqual(self.called(PLAIN), ["7.47 : 1"])

    def test_of_the_same_wheels_the_last_has_the_plain_name(self) -> None:
        heavy, heavier = geared(12, vehicle__mass="15 kg"), geared(12, vehicle__mass="16 kg")
        self.assertEqual(
            self.called(heavy, heavier, geared(14), geared(12)),
            ["12 teeth, earlier (2)", "12 teeth, earlier", "14 teeth", "12 teeth"],
        )

    def test_numbers_of_both_kinds_are_one(self) -> None:
        self.assertEqual(essence(changed({"vehicle.grip": 1})), essence(changed({"vehicle.grip": 1.0, "notes": "x"})))


class ChangedSince(TestCase):
    def since(self, then: dict[str, Any], now: dict[str, Any], run: dict[str, Any] | None = None) -> list[str]:
        made = read_run(run or timed(2.9), then)
        return changed_since(made, design.read(then), design.read(now))

    def test_what_the_measure_depends_on(self) -> None:
        self.assertEqual(self.since(PLAIN, geared(20, vehicle__mass="15.5 kg")), ["mass 14 → 15.5 kg"])
        tow = {"kind": "tow", "readings": ["4 N"]}
        self.assertEqual(self.since(PLAIN, geared(15, drive__supply__resistance="30 mohm"), tow), [])
        weighed = {**timed(2.9), "mass": "14 kg"}
        self.assertEqual(self.since(PLAIN, geared(15, vehicle__mass="15.5 kg"), weighed), [])

    def test_another_part_is_told_as_such(self) -> None:
        bench = {"kind": "bench", "voltage": "20 V"}
        self.assertIn("another supply", self.since(PLAIN, changed({"drive.supply": bench})))

    def test_what_is_only_better_known_is_no_change(self) -> None:
        known = {"value": "0.034 +/- 0.001", "origin": "measured"}
        self.assertEqual(self.since(PLAIN, changed({"vehicle.rolling_resistance": known})), [])
        self.assertEqual(
            self.since(PLAIN, changed({"vehicle.rolling_resistance": 0.05})), ["rolling resistance 0.03 → 0.05"]
        )


class Station(TestCase):
    def test_which_gearing_is_best_and_what_has_changed(self) -> None:
        light = geared(18, vehicle__mass="12 kg")
        shown = of(
            geared(15), (geared(12), timed(4.1, 4.12, 4.09, 4.11)), (geared(15), timed(3.45, 3.47, 3.44, 3.46)),
            (geared(18), timed(3.46, 3.44, 3.47, 3.45)), (light, timed(3.1, 3.12)),
        )  # fmt: skip
        self.assertTrue(shown.sentence.startswith("Time over 25 m: 15 teeth") or "18 teeth" in shown.sentence)
        self.assertIn("ahead of 12 teeth", shown.sentence)
        self.assertIn("cannot be told from it yet", shown.sentence)
        self.assertEqual([run.stale for run in shown.runs], [[], [], [], ["mass 12 → 14 kg"]])
        (curve,) = shown.curves
        self.assertEqual([point.stale for point in curve.points if point.count == 2], [True])
        dataclasses.asdict(shown)

    def test_before_the_first_run_it_says_what_to_measure(self) -> None:
        shown = of(PLAIN)
        self.assertEqual((shown.runs, shown.unknowns, shown.values, shown.off), ([], [], {}, None))
        self.assertEqual(len(shown.next), 3)
        for entry in shown.next:
            self.assertTrue(read_run({**entry.run, "readings": [1.0]}, PLAIN))

    def test_after_use_the_design_carries_it_and_the_same_runs_are_not_used_again(self) -> None:
        runs = [(PLAIN, timed(3.6, 3.62)), (PLAIN, {"kind": "tow", "readings": ["5.3 N", "5.4 N", "5.2 N"]})]
        first = of(PLAIN, *runs)
        self.assertIn("vehicle.rolling_resistance", first.values)
        paths = {path.replace("[", ".").replace("]", ""): value for path, value in first.values.items()}
        again = of(changed(paths), *runs)
        self.assertEqual(again.values, {})
        self.assertTrue(all(unknown.silent for unknown in again.unknowns))
        rolling = next(unknown for unknown in again.unknowns if unknown.path == "vehicle.rolling_resistance")
        self.assertEqual(rolling.words, "in the design already, fitted to 2 runs")
        self.assertEqual([run.stale for run in again.runs], [[], []])


class OverReduction(TestCase):
    def test_the_curve_goes_through_what_the_model_says_of_each_gearing(self) -> None:
        calibration = calibrated("01-board-of-two-motors")
        for k, run in enumerate(calibration.runs):
            if run.kind == "distance_time":
                own = reduction(calibration.designs[run.design].design)
                curve = over_reduction(calibration, run.design, run, calibration.grounds[k], [own])
                at = np.exp(np.interp(np.log(own), np.log(curve.reduction), np.log(curve.after)))
                with self.subTest(run=k):
                    self.assertAlmostEqual(float(at) / calibration.after[k], 1.0, delta=2e-3)

    def test_values_of_one_fit_vary_together_as_its_covariance_says(self) -> None:
        calibration = calibrated("02-coasting-stopping-currents")
        name = next(iter(calibration.designs))
        fitted = fitted_values(calibration, name)
        for path, entry in written(calibration, fitted).items():
            self.assertEqual(entry["origin"], "measured", path)
        place = {path: k for k, path in enumerate(fitted.paths)}
        for u, unknown in enumerate(calibration.chosen):
            if unknown.kind.name == "rolling_resistance" and name in unknown.designs:
                row = fitted.together[place["vehicle.rolling_resistance"]]
                self.assertAlmostEqual(float(row @ row), float(calibration.fit.covariance[u, u]), delta=1e-4)


class InTheReadout(TestCase):
    def test_inputs_that_hang_together_are_drawn_together(self) -> None:
        sure = {"value": "0.03 +/- 0.003", "origin": "measured"}
        air = {"value": "0.05 +/- 0.005 m^2", "origin": "measured"}
        document = design.read(changed({"vehicle.rolling_resistance": sure, "vehicle.drag_area": air}))
        paths = ("vehicle.rolling_resistance", "vehicle.drag_area")
        opposite = Together(paths, np.array([0.03, 0.05]), np.array([[0.1], [-0.1]]))
        drawn_values = sample(document, together=opposite)
        assert drawn_values is not None
        columns = [drawn_values.values[:, drawn_values.inputs.index(path)] for path in paths]
        self.assertAlmostEqual(float(np.corrcoef(columns[0], columns[1])[0, 1]), -1.0, places=6)
        moved = Together(paths, np.array([0.031, 0.05]), np.array([[0.1], [-0.1]]))
        apart = sample(document, together=moved)
        assert apart is not None
        self.assertLess(abs(float(np.corrcoef(apart.values[:, 0], apart.values[:, 1])[0, 1])), 0.3)


class Plans(TestCase):
    def test_each_gearing_once_a_round_and_never_twice_in_a_row(self) -> None:
        for count in (2, 3, 5):
            order = dealt(count, 6, seldom=False)
            for k in range(0, len(order), count):
                self.assertEqual(sorted(order[k : k + count]), list(range(count)))
            self.assertTrue(all(a != b for a, b in pairwise(order)))
        self.assertEqual(dealt(2, 2, seldom=True), [0, 0, 1, 1])

    def test_a_drift_looks_less_like_a_gear_when_it_is_mixed(self) -> None:
        self.assertEqual(looks_like([0, 1, 1, 0]), 0.0)
        self.assertAlmostEqual(looks_like([0, 0, 1, 1]), 2.0 / 3.0)
        self.assertLess(looks_like(dealt(3, 4, seldom=False)), looks_like(dealt(3, 4, seldom=True)))

    def plan(self, **more: Any) -> dict[str, Any]:
        gearings = [{"name": f"{n} teeth", "design": geared(n)} for n in (13, 17)]
        return {"format": "ydrometer-plan", "version": 1, "gearings": gearings, "measures": [TIMED], **more}

    def test_what_it_takes(self) -> None:
        made = planned(self.plan(rounds=2, readings=4))
        self.assertEqual([step.swap for step in made.steps], [True] * 4)
        self.assertIn("driver gear", made.steps[1].change)
        self.assertGreater(made.seconds, 4 * 360.0)
        self.assertGreater(made.charge or 0.0, 0.0)
        self.assertIsNone(made.share)
        warm = geared(
            13,
            **{
                "drive__branches__0__source__thermal": {
                    "winding_capacity": "45 J/K",
                    "winding_to_case": "1.1 K/W",
                    "case_capacity": "310 J/K",
                    "case_to_air": "3.2 K/W",
                }
            },
        )
        hot = planned(self.plan(gearings=[{"name": "13 teeth", "design": warm}], measures=[{"kind": "push"}, TIMED]))
        self.assertGreater(hot.hottest or 0.0, 293.0)

    def test_faults_by_path(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            read(self.plan(rounds=99, measures=[{"kind": "spin", "of": "moon"}], done=[1], swap="soon"))
        self.assertEqual(
            {fault.path for fault in caught.exception.faults}, {"rounds", "swap", "measures[0].of", "done"}
        )

    def test_what_the_bin_offers_in_the_place_of_a_driver(self) -> None:
        parts = [
            {"id": f"g{n}", "kind": "gear", "teeth": n, "module": "1 mm", "owned": owned}
            for n, owned in ((12, 1), (20, 0), (24, 2))
        ]
        offers = offered(PLAIN, [geared(18)], [PLAIN, geared(16)], parts)
        self.assertEqual([entry.name for entry in offers], ["15 teeth", "18 teeth", "16 teeth", "12 teeth", "24 teeth"])
        self.assertEqual(
            [entry.source for entry in offers], ["as it is now", "run before", "kept", "in the bin", "in the bin"]
        )


class DayOfARun(TestCase):
    def test_one_of_a_day_takes_that_of_its_design_where_it_says_none(self) -> None:
        day = [{"do": "shove", "for": "20 s"}]
        own = [{"do": "rest", "for": "1 min"}]
        document = {"loads": {"day": day}}
        run = {"kind": "case_temperature", "measured": "60 degC"}
        self.assertEqual(with_its_day(run, document), {**run, "day": day})
        self.assertEqual(with_its_day({**run, "day": own}, document), {**run, "day": own})
        self.assertEqual(with_its_day({**run, "kind": "top_speed"}, document), {**run, "kind": "top_speed"})
        others: list[dict[str, Any]] = [{}, {"loads": {}}, {"loads": {"day": []}}, {"loads": 3}]
        for without in others:
            self.assertEqual(with_its_day(run, without), run)
