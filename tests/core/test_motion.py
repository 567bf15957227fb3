"""The run from rest against stepping through time, and against closed forms."""

import math
import unittest
from typing import Any

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.special import erf
from ydrometer.motion.roots import find_root

from tests.core.designs import MOTOR, REMOVED, changed, documents, read
from ydrometer import design, driveline
from ydrometer.design import Document
from ydrometer.errors import ConvergenceError
from ydrometer.evaluate import Evaluation, evaluate
from ydrometer.motion import forces


def one(changes: dict[str, Any] | None = None) -> Evaluation:
    return evaluate([read(changes)])


def stepped(document: Document, distance: float) -> tuple[float, float, float]:
    """Time, speed and energy at a distance, by an ODE solver that knows nothing of panels or corners."""
    plant = driveline.assemble([document.design])

    def rates(_: float, state: np.ndarray) -> list[float]:
        speed = np.array([[max(state[0], 0.0)]])  # a trial step may reach below rest
        now = forces.at_speed(plant, speed)
        electric = forces.as_driven(plant, speed, now)
        power = float(electric.bus_voltage[0, 0] * electric.bus_current[0, 0])
        return [float(now.acceleration[0, 0]), state[0], power]

    def arrived(_: float, state: np.ndarray) -> float:
        return float(state[1] - distance)

    arrived.terminal = True  # type: ignore[attr-defined]
    solution = solve_ivp(rates, (0.0, 1e4), [0.0, 0.0, 0.0], events=arrived, rtol=1e-8, atol=1e-9, method="LSODA")
    speed, _, energy = solution.y[:, -1]
    return float(solution.t[-1]), float(speed), float(energy)


class AgainstTimeSteps(unittest.TestCase):
    @settings(max_examples=12, deadline=None, derandomize=True)
    @given(raw=documents(), distance=st.floats(1.0, 30.0))
    def test_time_speed_and_energy(self, raw: dict[str, Any], distance: float) -> None:
        raw["run"] = {"distance": distance}
        document = design.read(raw)
        evaluation = evaluate([document])
        assume(evaluation.starts(0) and evaluation.value("top_speed", 0) > 0.3)
        for name, wanted in zip(
            ("time_to_distance", "speed_at_distance", "energy_per_run"),
            stepped(document, distance),
            strict=True,
        ):
            found = evaluation.value(name, 0)
            self.assertLess(abs(found - wanted), 1e-4 * abs(wanted) + 1e-6, name)


class ClosedForms(unittest.TestCase):
    """A bench supply, no limits, no drag: the acceleration falls in a straight line and t, x are exponentials."""

    def setUp(self) -> None:
        self.evaluation = one(
            {
                "drive.supply": {"kind": "bench", "voltage": "12 V"},
                "drive.branches.0.controller": {},
                "vehicle.drag_area": 0,
                "vehicle.grip": 5,
                "vehicle.rolling_resistance": 0,
                f"{MOTOR}.constants.no_load_current": 0,
                f"{MOTOR}.constants.resistance": "0.2 ohm",
                "run": {"distance": "6 m", "speed": "3 m/s", "time": "1.5 s"},
            }
        )
        plant = self.evaluation.analysis.plant
        self.top = 12.0 / float(plant.back_emf[0, 0, 0])
        self.launch = float(self.evaluation.analysis.rest.drive[0, 0] / plant.inertial_mass[0, 0])
        self.tau = self.top / self.launch

    def value(self, name: str) -> float:
        return float(self.evaluation.value(name, 0))

    def test_no_load_and_top_speed(self) -> None:
        self.assertAlmostEqual(self.value("no_load_speed"), self.top, places=12)
        self.assertAlmostEqual(self.value("top_speed"), self.top, places=12)

    def test_time_to_speed(self) -> None:
        self.assertAlmostEqual(self.value("time_to_speed"), -self.tau * math.log1p(-3.0 / self.top), places=10)

    def test_distance_in_time(self) -> None:
        wanted = self.top * (1.5 - self.tau * (1.0 - math.exp(-1.5 / self.tau)))
        self.assertAlmostEqual(self.value("distance_in_time"), wanted, places=9)

    def test_time_to_distance_is_its_inverse(self) -> None:
        time = self.value("time_to_distance")
        self.assertAlmostEqual(self.top * (time - self.tau * (1.0 - math.exp(-time / self.tau))), 6.0, places=9)

    def test_what_is_never_reached_is_null(self) -> None:
        self.assertIsNone(one({"run": {"speed": "300 m/s"}}).value("time_to_speed", 0))
        self.assertIsNone(one({"run": REMOVED}).value("time_to_distance", 0))

    def test_a_long_run_ends_in_cruising(self) -> None:
        far = one({"run": {"distance": "10 km"}})
        further = one({"run": {"distance": "11 km"}})
        more = further.value("time_to_distance", 0) - far.value("time_to_distance", 0)
        self.assertAlmostEqual(more * far.value("top_speed", 0), 1000.0, places=6)


class Balances(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(raw=documents())
    def test_stopping_and_pushing_hold_together(self, raw: dict[str, Any]) -> None:
        raw["run"] = {"distance": 20.0}
        evaluation = evaluate([design.read(raw)])
        push = evaluation.value("pushing_force", 0)
        self.assertLessEqual(push, float(forces.wall_traction(evaluation.analysis.plant)[0, 0]) * (1 + 1e-12))
        if evaluation.starts(0) and evaluation.value("sprint_and_stop", 0) is not None:
            self.assertGreater(evaluation.value("sprint_and_stop", 0), evaluation.value("time_to_distance", 0))
            if raw["conditions"]["grade"] >= 0.0:
                self.assertLessEqual(evaluation.value("top_speed", 0), evaluation.value("no_load_speed", 0))

    @settings(max_examples=30, deadline=None)
    @given(raws=st.lists(documents(), min_size=2, max_size=5))
    def test_a_batch_gives_what_each_gives_alone(self, raws: list[dict[str, Any]]) -> None:
        read_ones = [design.read(raw) for raw in raws]
        together = evaluate(read_ones)
        for index, document in enumerate(read_ones):
            alone = evaluate([document])
            for name in ("top_speed", "time_to_distance", "pushing_force", "peak_bus_current", "max_grade"):
                a, b = together.value(name, index), alone.value(name, 0)
                self.assertEqual(a is None, b is None)
                if a is not None:
                    self.assertAlmostEqual(a, b, delta=1e-9 * abs(b) + 1e-12)

    def test_downhill_it_outruns_its_motors(self) -> None:
        evaluation = one({"conditions": {"grade": -0.6}, "vehicle.drag_area": 0})
        top = evaluation.value("top_speed", 0)
        self.assertGreater(top, 1.02 * evaluation.value("no_load_speed", 0))
        state = forces.at_speed(evaluation.analysis.plant, np.array([[top]]))
        self.assertAlmostEqual(float(state.acceleration[0, 0]), 0.0, places=9)

    def test_the_geometry_bounds_what_the_tyres_can_do(self) -> None:
        tall = {
            "vehicle.wheelbase": "420 mm",
            "vehicle.cg_ahead_of_rear": "60 mm",
            "vehicle.cg_height": "300 mm",
        }
        evaluation = one({**tall, "vehicle.grip": 2, "drive.branches.0.controller": {}})
        weight = 14.0 * 9.80665
        lifted = weight * 60 / 300 + 0.03 * weight
        self.assertAlmostEqual(float(evaluation.analysis.rest.traction[0, 0]), lifted, places=9)
        self.assertAlmostEqual(
            evaluation.value("pushing_force", 0), min(2 * weight, float(evaluation.analysis.rest.drive[0, 0]))
        )


class Properties(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(raw=documents(), teeth=st.integers(31, 120))
    def test_more_reduction_less_speed_more_torque(self, raw: dict[str, Any], teeth: int) -> None:
        raw["drive"]["branches"][0]["stages"][0]["driven_teeth"] = 30
        short, tall = evaluate_pair(raw, teeth)
        assume(short.value("stall_wheel_torque", 0) > 0.0)
        self.assertLess(tall.value("no_load_speed", 0), short.value("no_load_speed", 0))
        self.assertGreater(tall.value("stall_wheel_torque", 0), short.value("stall_wheel_torque", 0))

    @settings(max_examples=40, deadline=None)
    @given(raw=documents())
    def test_twice_the_motors_are_no_faster_in_the_air(self, raw: dict[str, Any]) -> None:
        raw["drive"]["supply"] = {"kind": "bench", "voltage": 12.0}
        once = evaluate([design.read(raw)])
        raw["drive"]["branches"][0]["count"] *= 2
        twice = evaluate([design.read(raw)])
        assume(once.value("no_load_speed", 0) > 0.0)
        self.assertAlmostEqual(twice.value("no_load_speed", 0) / once.value("no_load_speed", 0), 1.0, places=9)

    @given(mass=st.floats(1.0, 200.0), diameter=st.floats(0.05, 0.5), volts=st.floats(6.0, 48.0))
    @settings(max_examples=40, deadline=None)
    def test_the_units_typed_do_not_matter(self, mass: float, diameter: float, volts: float) -> None:
        si = {
            "vehicle.mass": mass,
            "vehicle.wheel_diameter": diameter,
            "drive.supply.open_circuit_voltage": volts,
        }
        typed = {
            "vehicle.mass": f"{mass / 0.45359237!r} lb",
            "vehicle.wheel_diameter": f"{diameter / 0.0254!r} in",
            "drive.supply.open_circuit_voltage": f"{volts * 1000!r} mV",
        }
        both = evaluate([read(si), read(typed)])
        for name in ("top_speed", "time_to_distance", "pushing_force", "launch_acceleration"):
            first, second = both.value(name, 0), both.value(name, 1)
            self.assertEqual(first is None, second is None)
            if first:
                self.assertAlmostEqual(second / first, 1.0, places=9)


def evaluate_pair(raw: dict[str, Any], teeth: int) -> tuple[Evaluation, Evaluation]:
    more = changed({"drive.branches.0.stages.0.driven_teeth": teeth}, raw)
    return evaluate([design.read(raw)]), evaluate([design.read(more)])


class Roots(unittest.TestCase):
    def test_many_at_once_to_the_last_bits(self) -> None:
        wanted = np.linspace(-3.0, 3.0, 41)
        found = find_root(lambda x: erf(x - wanted), np.full(41, -9.0), np.full(41, 9.0))
        np.testing.assert_allclose(found, wanted, atol=1e-15)

    def test_an_end_that_is_the_root(self) -> None:
        self.assertEqual(find_root(lambda x: x, np.array([0.0]), np.array([1.0]))[0], 0.0)

    def test_it_says_where_it_gave_up(self) -> None:
        with self.assertRaises(ConvergenceError) as caught:
            find_root(lambda x: np.where(x > 0.3, 1.0, -1.0), np.array([0.0]), np.array([1e300]), tolerance=0.0)
        self.assertIn("residual", caught.exception.values)
