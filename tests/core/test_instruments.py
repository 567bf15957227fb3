"""Instruments: lines and their faults, turns out of pulses, gates, and the practice rig."""

from __future__ import annotations

import json
import math
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import PLAIN, changed, read
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.instruments.findings import findings, read_lines, turning
from ydrometer.instruments.lines import WRAP, Stream, line_of
from ydrometer.instruments.rig import ACTIONS, RigBench, RigState, hidden, kept, remembered, truth
from ydrometer.screens.heard import MOST_POINTS, listened
from ydrometer.trials.unknowns import unknowns


def heard(*told: dict[str, Any]) -> Stream:
    stream = Stream()
    stream.take(line_of(one) for one in told)
    return stream


class Lines(TestCase):
    def test_faults_are_told_line_by_line_and_the_rest_is_read(self) -> None:
        stream = Stream()
        stream.take(
            [
                '{"t": 1, "gate": 1}',
                "noise",
                '{"t": "x", "gate": 2}',
                '{"t": 2, "sun": 1}',
                "[1]",
                "",
                '{"instrument": "c", "slots": 0}',
                '{"t": 3, "gate": true}',
                "[" * 900,
            ]
        )
        paths = ["line 2", "line 3.t", "line 4", "line 5", "line 7.slots", "line 8.gate", "line 9"]
        self.assertEqual([fault.path for fault in stream.faults], paths)
        self.assertEqual([(s.key, s.value) for s in stream.samples], [("gate", 1.0)])

    def test_a_clock_that_wraps_goes_on_and_one_that_restarts_begins_anew(self) -> None:
        wraps = heard({"t": WRAP - 1.0, "gate": 1}, {"t": 2.0, "gate": 2})
        self.assertAlmostEqual(findings(wraps)[0].readings[0], 3.0)
        restarted = heard({"t": 50.0, "gate": 1}, {"t": 2.0, "gate": 2}, {"t": 3.0, "gate": 1}, {"t": 7.0, "gate": 2})
        (found,) = findings(restarted)
        self.assertEqual((found.readings, found.remarks), ((4.0,), ("1 starts without an arrival",)))

    def test_in_pieces_as_in_one(self) -> None:
        lines = RigBench(read(), read(), 4, RigState()).perform("push", 2).lines
        whole, pieces = Stream(), Stream()
        whole.take(lines)
        for line in lines:
            pieces.take([line])
        self.assertEqual(findings(whole), findings(pieces))

    def test_what_holds_no_run_is_refused_with_words(self) -> None:
        with self.assertRaisesRegex(DocumentError, "no run in 1 lines"):
            read_lines(['{"t": 1, "volt": 12}'], {})


class Turning(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.floats(5.0, 900.0), st.integers(1, 12), st.integers(0, 2**31))
    def test_steady_turning_is_found_under_bounces_and_missed_slots(self, speed: float, slots: int, seed: int) -> None:
        random = np.random.default_rng(seed)
        period = 2.0 * math.pi / slots / speed
        times = np.arange(200) * period + random.normal(0.0, 0.001, 200) * period
        kept_ones = times[random.random(200) > 0.04]
        bounces = kept_ones[random.random(len(kept_ones)) < 0.03] + 0.05 * period
        found = turning(np.sort(np.concatenate([kept_ones, bounces])), slots)
        assert found is not None
        self.assertAlmostEqual(found.speed / speed, 1.0, delta=0.003)
        self.assertEqual(found.bounces, len(bounces))

    def test_of_a_wheel_that_speeds_up_the_speed_that_it_keeps(self) -> None:
        t = np.linspace(0.0, 4.0, 20_000)
        turned = 100.0 * (t - 0.4 * (1.0 - np.exp(-t / 0.4))) * 8 / (2.0 * math.pi)
        found = turning(np.interp(np.arange(1.0, turned[-1]), turned, t), 8)
        assert found is not None
        self.assertAlmostEqual(found.speed, 100.0, delta=1.0)

    def test_a_few_pulses_say_nothing(self) -> None:
        self.assertIsNone(turning(np.arange(4.0), 8))
        self.assertIsNone(turning(np.arange(5.0), 8))
        self.assertIsNotNone(turning(np.arange(6.0), 8))


class Rig(TestCase):
    def test_every_action_is_read_back_within_its_scatter(self) -> None:
        document = read()
        for action in ACTIONS:
            bench = RigBench(document, document, 11, RigState())
            performed = bench.perform(action, 3)
            run = performed.runs()[0]
            with self.subTest(action):
                self.assertEqual((run["kind"], len(run["readings"])), (performed.kind, 3))
                self.assertEqual(run["supply_voltage"], "25.2 V")

    def test_it_is_the_same_from_the_same_seed_and_another_from_another(self) -> None:
        document = read()
        lines = [RigBench(document, document, seed, RigState()).perform("run", 2).lines for seed in (5, 5, 6)]
        self.assertEqual(lines[0], lines[1])
        self.assertNotEqual(lines[0], lines[2])

    def test_its_battery_empties_and_its_motor_warms(self) -> None:
        document = read({"drive.supply.capacity": "1 A*h"})
        state = RigState()
        for _ in range(4):
            state = RigBench(document, document, 5, remembered(kept(state))).perform("run", 5).state
        tired = RigBench(document, document, 5, state)
        self.assertLess(tired.voltage or 0.0, 25.1)
        self.assertGreater(state.warmth, 0.0)

    def test_what_is_only_better_known_changes_nothing_of_what_is_true(self) -> None:
        base = read()
        known = design.read(changed({"vehicle.rolling_resistance": {"value": "0.04 +/- 0.001", "origin": "measured"}}))
        ahead = dict(truth(base, base, 3))["rolling_resistance"] * 0.03
        self.assertAlmostEqual(dict(truth(base, known, 3))["rolling_resistance"] * 0.04, ahead)
        other = design.read(changed({"vehicle.rolling_resistance": 0.04}))
        (unknown,) = [u for u in unknowns({"": other}, [("", "")]) if u.kind.name == "rolling_resistance"]
        self.assertAlmostEqual(math.exp(hidden(base, other, unknown, 3)), ahead / 0.03)


class Heard(TestCase):
    def test_curves_and_runs_of_what_has_come_so_far(self) -> None:
        lines = RigBench(read(), read(), 4, RigState()).perform("spin", 3).lines
        so_far = listened(lines[: len(lines) // 2], {})
        whole = listened(lines, {})
        self.assertLess(len(so_far.runs[0]["readings"]), len(whole.runs[0]["readings"]))
        curve = whole.curves[0]
        self.assertEqual((curve.words, curve.dimension), ("turns of the wheel", "angular speed"))
        self.assertLessEqual(len(curve.points), MOST_POINTS + 2)
        json.dumps([curve.points, whole.runs])

    def test_gates_need_to_be_told_how_far_they_stand_apart(self) -> None:
        stream = ['{"t": 1, "gate": 1}', '{"t": 4, "gate": 2}']
        (run,) = listened(stream, {"distance": "12 m"}).runs
        self.assertEqual(run, {"kind": "distance_time", "distance": "12 m", "readings": ["3 s"]})
        self.assertEqual(PLAIN["run"]["distance"], "25 m")
