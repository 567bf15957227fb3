import unittest
from typing import Any

from tests.core.designs import GEAR, changed, read
from ydrometer.evaluation import uncertainty
from ydrometer.files.answer import result
from ydrometer.screens.gauge_bands import uncertainties

DOUBTFUL = {"vehicle.mass": "14 kg +/- 0.5 kg", "vehicle.rolling_resistance": "0.03 +/- 0.01"}


class Spread(unittest.TestCase):
    def test_without_any_the_result_is_the_plain_one(self) -> None:
        self.assertIsNone(uncertainty.sample(read()))
        self.assertEqual(set(result(read())["measures"]["top_speed"]), {"value", "unit"})

    def test_low_and_high_lie_round_the_value_and_shares_add_up(self) -> None:
        measures = result(read(DOUBTFUL))["measures"]
        for name in ("top_speed", "launch_acceleration", "time_to_distance", "max_grade"):
            entry = measures[name]
            self.assertLess(entry["low"], entry["value"], name)
            self.assertGreater(entry["high"], entry["value"], name)
            self.assertAlmostEqual(sum(entry["spread_from"].values()), 1.0)
            self.assertEqual(set(entry["spread_from"]), set(DOUBTFUL))

    def test_a_force_that_depends_on_neither_is_sure(self) -> None:
        entry = result(read(DOUBTFUL))["measures"]["stall_wheel_torque"]
        self.assertEqual((entry["low"], entry["high"]), (entry["value"], entry["value"]))
        self.assertEqual(entry["spread_from"], {})

    def test_lists_get_lists(self) -> None:
        entry = result(read(DOUBTFUL))["measures"]["cruise_motor_current"]
        self.assertLess(entry["low"][0], entry["value"][0])
        self.assertGreater(entry["spread_from"][0]["vehicle.rolling_resistance"], 0.9)

    def test_the_same_every_time(self) -> None:
        self.assertEqual(result(read(DOUBTFUL)), result(read(DOUBTFUL)))

    def test_what_is_known_of_a_normal_distribution(self) -> None:
        # The launch is held by grip, so a(0) = (mu − Crr)·g, linear in mu: percentiles are known.
        sure = {"vehicle.rolling_resistance": 0, "vehicle.grip": "0.5 +/- 0.02"}
        measures = result(read({**sure, "drive.branches.0.controller": {}}))["measures"]["launch_acceleration"]
        self.assertAlmostEqual(measures["high"], (0.5 + 0.02 * 1.2815515) * 9.80665, places=2)
        self.assertAlmostEqual(measures["low"], (0.5 - 0.02 * 1.2815515) * 9.80665, places=2)

    def test_draws_stay_within_the_bounds_of_the_format(self) -> None:
        drawn_values = uncertainty.sample(read({f"{GEAR}.efficiency": "0.98 +/- 0.2", "vehicle.grip": "0.1 +/- 0.2"}))
        assert drawn_values is not None
        self.assertLessEqual(
            drawn_values.values[:, drawn_values.inputs.index("drive.branches[0].stages[0].efficiency")].max(), 1.0
        )
        self.assertGreater(drawn_values.values[:, drawn_values.inputs.index("vehicle.grip")].min(), 0.0)


class Assumed(unittest.TestCase):
    def test_assumed_values_are_doubted_where_that_is_wanted(self) -> None:
        self.assertEqual(uncertainty.uncertain(read(), assumed=False), {})
        found = uncertainty.uncertain(read(), assumed=True)
        self.assertEqual(set(found), {"drive.branches[0].stages[0].efficiency", "drive.stages[0].efficiency"})
        self.assertAlmostEqual(found["drive.stages[0].efficiency"].uncertainty, 0.012)

    def words(self, changes: dict[str, Any], assumed: bool) -> str:
        return uncertainties(changed(changes), assumed=assumed).first

    def test_it_says_what_to_measure_first(self) -> None:
        self.assertEqual(self.words({}, False), "")
        self.assertRegex(
            self.words(DOUBTFUL, False), r"^Measure the rolling resistance: it makes \d+ % of the doubt in top speed\.$"
        )
        self.assertRegex(self.words({}, True), "Measure the efficiency of the (gears|toothed belt)")

    def test_gauges_are_those_of_the_readout(self) -> None:
        made = uncertainties(changed(DOUBTFUL), assumed=False)
        self.assertEqual([gauge.measure for gauge in made.gauges][:2], ["top_speed", "pushing_force"])
        self.assertEqual(len(made.gauges), 6)
