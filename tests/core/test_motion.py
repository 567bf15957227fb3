"""The run from rest against stepping through time, and against closed forms."""

import math
import unittest
from typing import Any

from hypothesis import HealthCheck, Phase, assume, given, settings
from hypothesis import strategies as st

from tests.core.designs import MOTOR, REMOVED, changed, documents, engine_documents, read, whole_documents
from tests.core.reference import Reference
from ydrometer.document import design
from ydrometer.evaluation import driveline
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.motion import trace

SLOW = [HealthCheck.too_slow, HealthCheck.filter_too_much]
DRAW_ONLY = [Phase.explicit, Phase.generate]
"""Without shrinking, which would step through time for an hour."""


def one(changes: dict[str, Any] | None = None) -> Evaluation:
    return evaluate([read(changes)])


class AgainstTimeSteps(unittest.TestCase):
    """The kernels against a second working-out of the model that shares no code with them."""

    def check_run(self, raw: dict[str, Any], within: float) -> None:
        document = design.read(raw)
        evaluation = evaluate([document])
        assume(evaluation.starts(0) and evaluation.value("top_speed", 0) is not None)
        reference, run = Reference(document.design), document.design.run
        assert run.distance is not None and run.time is not None
        arrived = reference.run("distance", run.distance)
        wanted = {
            "time_to_distance": arrived.time,
            "speed_at_distance": arrived.speed,
            "distance_in_time": reference.run("time", run.time).distance,
            "no_load_speed": reference.no_load(len(reference.gears) - 1),
        }
        if reference.electric:
            wanted["energy_per_run"] = arrived.energy
        for name, value in wanted.items():
            self.assertLess(abs(evaluation.value(name, 0) - value), within * max(abs(value), 1e-3), name)
        if all(branch["source"]["kind"] == "motor" for branch in raw["drive"]["branches"]):
            energy = evaluation.value("energy_per_run", 0)
            self.assertLess(abs(arrived.spent - energy), 1e-3 * max(abs(energy), 1.0), "balance of energy")


class TheRun(AgainstTimeSteps):
    """In a class of its own, as it takes the longest: test classes run side by side."""

    @settings(max_examples=40, deadline=None, derandomize=True, phases=DRAW_ONLY, suppress_health_check=SLOW)
    @given(raw=whole_documents())
    def test_the_run(self, raw: dict[str, Any]) -> None:
        self.check_run(raw, within=1e-4)


class EnginesAlone(AgainstTimeSteps):
    @settings(max_examples=15, deadline=None, derandomize=True, phases=DRAW_ONLY, suppress_health_check=SLOW)
    @given(raw=engine_documents())
    def test_the_run_of_engines_alone(self, raw: dict[str, Any]) -> None:
        self.check_run(raw, within=2e-5)

    @settings(max_examples=100, deadline=None, derandomize=True, phases=DRAW_ONLY, suppress_health_check=SLOW)
    @given(raw=engine_documents())
    def test_where_engines_change_gear(self, raw: dict[str, Any]) -> None:
        raw["drive"]["stages"][0]["shift_time"] = 0.0
        document = design.read(raw)
        assume(evaluate([document]).starts(0))
        reference = Reference(document.design)
        points = trace.points(driveline.assemble([document.design]), 0)
        assume(len(points.gear) > 0)
        begun: list[tuple[int, float]] = []
        gear: int | None = int(points.gear[0])
        start = 0.0
        while gear is not None:
            stop, to = reference.next_change(gear, start, reference.end(gear, start))
            begun += [(gear, start)] if stop > start * (1.0 + 1e-9) else []
            gear, start = to, stop
        # A gear that is passed through at once covers no speeds.
        speeds = {int(number): points.speed[points.gear == number] for number in points.gear if number >= 0}
        rows = [(number, float(v[0])) for number, v in speeds.items() if v[-1] > v[0] * (1.0 + 1e-9)]
        self.assertEqual([number for number, _ in rows], [number for number, _ in begun])
        for (_, one), (_, other) in zip(rows, begun, strict=True):
            self.assertLess(abs(one - other), 1e-6 * max(other, 1.0))


class Standing(unittest.TestCase):
    @settings(max_examples=20, deadline=None, derandomize=True, phases=DRAW_ONLY, suppress_health_check=SLOW)
    @given(raw=whole_documents())
    def test_standing_and_at_the_end(self, raw: dict[str, Any]) -> None:
        document = design.read(raw)
        evaluation, reference = evaluate([document]), Reference(document.design)
        full = reference.full(0, 0.0)
        self.assertAlmostEqual(evaluation.value("stall_wheel_torque", 0), full * reference.radius, delta=1e-6 * full)
        launch = max(reference.acceleration(gear, 0.0) for gear in range(len(reference.gears)))
        self.assertEqual(evaluation.starts(0), launch > 0.0)
        if evaluation.starts(0) and evaluation.value("top_speed", 0) is not None:
            self.assertAlmostEqual(evaluation.value("launch_acceleration", 0), launch, delta=1e-7 * launch)
            gear = int(evaluation.raw("last_gear", 0))
            top = evaluation.value("top_speed", 0)
            self.assertGreaterEqual(reference.acceleration(gear, top * (1 - 1e-6)), 0.0)
            self.assertLessEqual(reference.acceleration(gear, top * (1 + 1e-6)), 0.0)
        grade = evaluation.value("max_grade", 0)
        if grade is not None:
            for share, starts in ((0.999, True), (1.001, False)):
                raw["conditions"]["grade"] = min(grade * share, 3.0)
                self.assertEqual(evaluate([design.read(raw)]).starts(0), starts or grade * share > 3.0, share)


class ClosedForms(unittest.TestCase):
    """A bench supply, no limits, no drag: the acceleration falls in a straight line and t, x are exponentials."""

    def setUp(self) -> None:
        self.document = read(
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
        self.evaluation = evaluate([self.document])
        ratio = driveline.overall_ratios(self.document.design)[0][2]
        self.top = 12.0 * 420.0 * 2.0 * math.pi / 60.0 / ratio * 0.0625
        self.tau = self.top / self.value("launch_acceleration")

    def value(self, name: str) -> float:
        return float(self.evaluation.value(name, 0))

    def test_no_load_and_top_speed(self) -> None:
        self.assertAlmostEqual(self.value("no_load_speed"), self.top, places=12)
        self.assertAlmostEqual(self.value("top_speed"), self.top, places=12)

    def test_time_to_speed(self) -> None:
        self.assertAlmostEqual(self.value("time_to_speed"), -self.tau * math.log1p(-3.0 / self.top), places=9)

    def test_distance_in_time(self) -> None:
        wanted = self.top * (1.5 - self.tau * (1.0 - math.exp(-1.5 / self.tau)))
        self.assertAlmostEqual(self.value("distance_in_time"), wanted, places=6)

    def test_time_to_distance_is_its_inverse(self) -> None:
        time = self.value("time_to_distance")
        self.assertAlmostEqual(self.top * (time - self.tau * (1.0 - math.exp(-time / self.tau))), 6.0, places=6)

    def test_what_is_never_reached_is_null(self) -> None:
        self.assertIsNone(one({"run": {"speed": "300 m/s"}}).value("time_to_speed", 0))
        self.assertIsNone(one({"run": REMOVED}).value("time_to_distance", 0))

    def test_a_long_run_ends_in_cruising(self) -> None:
        far = one({"run": {"distance": "10 km"}})
        further = one({"run": {"distance": "11 km"}})
        more = further.value("time_to_distance", 0) - far.value("time_to_distance", 0)
        self.assertAlmostEqual(more * far.value("top_speed", 0), 1000.0, places=6)


ENGINE = {
    "source": {
        "kind": "engine",
        "torque_curve": [["1500 rpm", "3 N*m"], ["3000 rpm", "3.4 N*m"], ["3600 rpm", "2 N*m"]],
    },
    "clutch": {"engagement_speed": "2000 rpm"},
    "stages": [{"kind": "chain", "driver_teeth": 10, "driven_teeth": 60}],
}


class Engines(unittest.TestCase):
    def engine(self, changes: dict[str, Any] | None = None) -> Evaluation:
        document = {"vehicle.mass": 40.0, "drive.supply": REMOVED, "drive.branches": [ENGINE], "drive.units": 1}
        return one({**document, **(changes or {})})

    def test_it_is_held_at_the_speed_where_it_is_cut_off(self) -> None:
        measures = self.engine()
        cut_off = 3600 * 2 * math.pi / 60 / 12 * 0.0625
        self.assertAlmostEqual(measures.value("top_speed", 0), cut_off, places=9)
        self.assertEqual(measures.value("limited_by", 0), "gearing")
        self.assertAlmostEqual(measures.value("motor_speed_at_top", 0)[0], 3600 * 2 * math.pi / 60, places=6)

    def test_an_engine_has_no_electric_figures(self) -> None:
        measures = self.engine()
        for name in ("launch_bus_current", "peak_bus_current", "cruise_bus_current", "energy_per_run"):
            self.assertIsNone(measures.value(name, 0), name)
        self.assertEqual(measures.value("launch_motor_current", 0), [None])

    def test_a_slipping_clutch_shows_the_engines_own_speed(self) -> None:
        slow = self.engine({"conditions": {"grade": 0.0}, "vehicle.drag_area": "900 m^2"})
        self.assertAlmostEqual(slow.value("motor_speed_at_top", 0)[0], 2000 * 2 * math.pi / 60, places=6)


class Gears(unittest.TestCase):
    def geared(self, **box: Any) -> Evaluation:
        stages = [{"kind": "speeds", "ratios": [2.4, 1.3, 1.0], **box}, changed()["drive"]["stages"][0]]
        return one({"drive.stages": stages, "drive.branches.0.controller": {}, "vehicle.grip": 0.5})

    def test_a_longer_change_costs_time(self) -> None:
        times = [self.geared(shift_time=t).value("time_to_distance", 0) for t in (0.0, 0.2, 0.5)]
        self.assertEqual(times, sorted(times))
        self.assertLess(times[0], times[2])

    def test_standing_it_is_in_its_lowest_gear(self) -> None:
        geared, lowest = self.geared(), one({"drive.stages.0.driven_teeth": 36})
        first = driveline.overall_ratios(geared.documents[0].design)[0]
        self.assertAlmostEqual(first[2], lowest.value("overall_ratio", 0)[0] * 2.4)
        points = trace.points(geared.groups[0].batch, 0)
        self.assertEqual(points.gear[0], 0.0)
        self.assertIn(-1.0, points.gear)

    def test_a_source_at_its_maximum_changes_up(self) -> None:
        stages = [{"kind": "speeds", "ratios": [2.4, 1.3], "shift_time": 0.0}, changed()["drive"]["stages"][0]]
        held = one({"drive.stages": stages, f"{MOTOR}.max_speed": "6000 rpm"})
        points = trace.points(held.groups[0].batch, 0)
        per = driveline.overall_ratios(held.documents[0].design)[0][2] / 0.0625
        fastest = max(points.speed[points.gear == 0.0]) * per * 60 / (2 * math.pi)
        self.assertLess(fastest, 6000 * (1 + 1e-9))


class Balances(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(raw=documents())
    def test_stopping_and_pushing_hold_together(self, raw: dict[str, Any]) -> None:
        raw["run"] = {"distance": 20.0}
        document = design.read(raw)
        evaluation, reference = evaluate([document]), Reference(document.design)
        push = evaluation.value("pushing_force", 0)
        self.assertLessEqual(push, reference.vehicle.grip * reference.weight * (1 + 1e-12))
        if evaluation.starts(0) and evaluation.value("sprint_and_stop", 0) is not None:
            self.assertGreater(evaluation.value("sprint_and_stop", 0), evaluation.value("time_to_distance", 0))
            if raw["conditions"]["grade"] >= 0.0:
                self.assertLessEqual(evaluation.value("top_speed", 0), evaluation.value("no_load_speed", 0))

    @settings(max_examples=30, deadline=None)
    @given(raws=st.lists(whole_documents(), min_size=2, max_size=5))
    def test_a_batch_gives_what_each_gives_alone(self, raws: list[dict[str, Any]]) -> None:
        read_ones = [design.read(raw) for raw in raws]
        together = evaluate(read_ones)
        for index, document in enumerate(read_ones):
            alone = evaluate([document])
            for name in ("top_speed", "time_to_distance", "pushing_force", "peak_bus_current", "max_grade"):
                self.assertEqual(together.value(name, index), alone.value(name, 0))

    def test_downhill_it_outruns_its_motors(self) -> None:
        evaluation = one({"conditions": {"grade": -0.6}, "vehicle.drag_area": 0})
        top = evaluation.value("top_speed", 0)
        self.assertGreater(top, 1.02 * evaluation.value("no_load_speed", 0))
        self.assertAlmostEqual(Reference(evaluation.documents[0].design).acceleration(0, top), 0.0, places=7)

    def test_downhill_an_engine_is_held_by_nothing(self) -> None:
        evaluation = one(
            {"drive.supply": REMOVED, "drive.branches": [ENGINE], "conditions": {"grade": -0.6}, "vehicle.drag_area": 0}
        )
        self.assertIsNone(evaluation.value("top_speed", 0))
        self.assertIsNone(evaluation.value("time_to_distance", 0))

    def test_a_stop_may_begin_in_the_middle_of_a_change(self) -> None:
        stages = [{"kind": "speeds", "ratios": [2.4, 1.0], "shift_time": "1 s"}, changed()["drive"]["stages"][0]]
        document = read({"drive.stages": stages, "vehicle.brake_force": "60 N"})
        group = evaluate([document]).groups[0]
        points = trace.points(group.batch, 0)
        moment = int((points.gear == -1.0).argmax()) + 2
        rate = 60.0 / 14.0
        speed = points.speed[moment]
        distance = float(points.distance[moment] + speed**2 / (2 * rate))
        rows = one({"drive.stages": stages, "vehicle.brake_force": "60 N", "run": {"distance": distance}})
        self.assertAlmostEqual(rows.value("sprint_and_stop", 0), points.time[moment] + speed / rate, places=6)


class Properties(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(raw=documents(), teeth=st.integers(31, 120))
    def test_more_reduction_less_speed_more_torque(self, raw: dict[str, Any], teeth: int) -> None:
        raw["drive"]["branches"][0]["stages"][0]["driven_teeth"] = 30
        more = changed({"drive.branches.0.stages.0.driven_teeth": teeth}, raw)
        both = evaluate([design.read(raw), design.read(more)])
        assume(both.value("stall_wheel_torque", 0) > 0.0)
        self.assertLess(both.value("no_load_speed", 1), both.value("no_load_speed", 0))
        self.assertGreater(both.value("stall_wheel_torque", 1), both.value("stall_wheel_torque", 0))

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
                self.assertAlmostEqual(second / first, 1.0, places=7)
