"""Motors and supply against a plain search for the bus voltage, with two kinds of motor on one bus."""

import math
import unittest
from typing import Any

import numpy as np
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.core.designs import changed
from tests.core.reference import Reference
from ydrometer.base import jit
from ydrometer.document import design
from ydrometer.evaluation import driveline
from ydrometer.evaluation.train import overall
from ydrometer.motion import currents, trace
from ydrometer.motion.plant import Batch, for_kernels, row

AMPS = st.floats(5.0, 300.0)
NO_LIMIT: dict[str, Any] = {}
HEAVY = {"vehicle.mass": 4000.0, "vehicle.grip": 5.0}
"""So that the tyres never hold it back: what is seen is full throttle."""


def two_kinds(first: dict[str, Any], second: dict[str, Any], supply: dict[str, Any]) -> design.Document:
    """The plain design with a second, weaker motor beside its own."""
    own = changed()["drive"]["branches"][0]
    weaker = {
        **own,
        "source": {
            "kind": "motor",
            "constants": {"kv": "380 rpm/V", "resistance": "95 mohm", "no_load_current": "0.9 A"},
        },
    }
    branches = [{**own, "controller": first}, {**weaker, "controller": second}]
    return design.read(changed({**HEAVY, "drive.supply": supply, "drive.branches": branches}))


def limited(amps: float) -> dict[str, Any]:
    return {} if math.isinf(amps) else {"current_limit": amps}


def battery(resistance: float, limit: float = math.inf) -> dict[str, Any]:
    return {"kind": "battery", "open_circuit_voltage": 25.2, "resistance": resistance, **limited(limit)}


PANEL = {
    "kind": "panel",
    "short_circuit_current": 40.0,
    "open_circuit_voltage": 26.0,
    "max_power_voltage": 21.0,
    "max_power_current": 37.0,
}


class Bus(unittest.TestCase):
    def check(self, document: design.Document, speed: float) -> None:
        batch = driveline.assemble([document.design])
        found = trace.driving(batch, 0, 0, speed)
        _, voltage, drawn = Reference(document.design).electrics(0, speed, 1.0)
        self.assertAlmostEqual(found.bus_voltage, voltage, delta=1e-8 * voltage)
        self.assertAlmostEqual(found.bus_current, drawn, delta=1e-6 * max(1.0, abs(drawn)))

    @settings(max_examples=60, deadline=None)
    @given(
        limits=st.tuples(AMPS | st.just(math.inf), AMPS | st.just(math.inf)),
        resistance=st.floats(0.001, 0.2),
        speed=st.floats(0.0, 9.0),
    )
    def test_the_highest_voltage_that_closes_the_circuit(
        self, limits: tuple[float, float], resistance: float, speed: float
    ) -> None:
        self.check(two_kinds(limited(limits[0]), limited(limits[1]), battery(resistance)), speed)

    @settings(max_examples=40, deadline=None)
    @given(limits=st.tuples(AMPS, AMPS), limit=st.floats(5.0, 60.0), speed=st.floats(0.0, 8.0))
    def test_a_battery_at_its_limit_lowers_the_duty_just_so_far(
        self, limits: tuple[float, float], limit: float, speed: float
    ) -> None:
        self.check(two_kinds(limited(limits[0]), limited(limits[1]), battery(0.03, limit)), speed)

    @settings(max_examples=40, deadline=None)
    @given(limits=st.tuples(AMPS | st.just(math.inf), AMPS | st.just(math.inf)), speed=st.floats(0.0, 8.0))
    def test_a_panel_gives_what_its_three_points_say(self, limits: tuple[float, float], speed: float) -> None:
        self.check(two_kinds(limited(limits[0]), limited(limits[1]), PANEL), speed)

    def test_a_panel_takes_nothing_back(self) -> None:
        document = two_kinds(NO_LIMIT, NO_LIMIT, PANEL)
        state = trace.driving(driveline.assemble([document.design]), 0, 0, 14.0)
        self.assertGreater(state.bus_voltage, 26.0)
        self.assertAlmostEqual(state.bus_current, 0.0, places=9)

    @settings(max_examples=30, deadline=None)
    @given(grip=st.floats(0.02, 0.4), limits=st.tuples(AMPS, AMPS))
    def test_eased_off_it_pushes_just_what_the_tyres_hold(self, grip: float, limits: tuple[float, float]) -> None:
        read = two_kinds(limited(limits[0]), limited(limits[1]), battery(0.02)).design
        held = design.read(
            changed(
                {
                    "vehicle.grip": grip,
                    "drive.supply": battery(0.02),
                    "drive.branches.0.controller": limited(limits[0]),
                }
            )
        ).design
        for made in (read, held):
            reference = Reference(made)
            state = trace.standing(driveline.assemble([made]), 0, pushing=True)
            force = sum(
                reference.number(b) * torque * overall(b.stages).torque * overall(b.stages).efficiency
                for b, torque in zip(made.drive.branches, state.torque, strict=True)
            )
            ratio, _, efficiency = reference.trunk(0)
            wanted = min(reference.full(0, 0.0), made.vehicle.grip * reference.weight)
            self.assertAlmostEqual(force * ratio * efficiency / reference.radius, wanted, delta=1e-9 * wanted)

    @given(grip=st.floats(0.02, 0.3), limits=st.tuples(AMPS, AMPS))
    @example(grip=0.1, limits=(20.0, 20.0))
    @settings(max_examples=30, deadline=None)
    def test_eased_off_a_panel_gives_current_at_the_voltage_that_goes_with_it(
        self, grip: float, limits: tuple[float, float]
    ) -> None:
        raw = changed({"vehicle.grip": grip, "drive.supply": PANEL, "drive.branches.0.controller": limited(limits[0])})
        state = trace.standing(driveline.assemble([design.read(raw).design]), 0, pushing=True)
        current, voltage = state.bus_current, state.bus_voltage
        self.assertGreater(current, 0.0)
        upper = 37.0 * (26.0 - voltage) / (26.0 - 21.0)
        lower = 40.0 - (40.0 - 37.0) * voltage / 21.0
        self.assertAlmostEqual(current, upper if voltage >= 21.0 else lower, 9)


class Losses(unittest.TestCase):
    def test_a_braking_motor_loses_the_other_way(self) -> None:
        document = design.read(changed({**HEAVY, "vehicle.drag_area": 0}))
        batch = driveline.assemble([document.design])
        no_load = Reference(document.design).no_load(0)
        step = 1e-4 * no_load
        below, above = trace.forces_over(batch, 0, 0, np.array([no_load - step, no_load + step]))[0]
        lost = overall(document.design.drive.branches[0].stages).efficiency
        lost *= overall(document.design.drive.stages).efficiency
        self.assertAlmostEqual(-below / above, lost**2, places=6)


@jit.entry
def force_at(batch: Batch, speed: float, u: float) -> float:
    return currents.drive_force(row(batch, 0), 0, speed, u, 1.0)


@jit.entry
def voltage_for(batch: Batch, speed: float, force: float, full: float) -> float:
    return currents.voltage_for_force(row(batch, 0), 0, speed, force, full)


class EasedOff(unittest.TestCase):
    """The voltage at which motors give a force: the inverse of a line that is bent at each motor's limit."""

    SPEED, FULL = 2.0, 24.0

    def setUp(self) -> None:
        document = two_kinds(limited(40.0), limited(60.0), battery(0.001))
        self.records = driveline.assemble([document.design])
        self.batch = for_kernels(self.records)

    def bends(self) -> list[float]:
        """Where a motor's current reaches its limit, or its torque changes sign."""
        found = []
        for source in self.records.sources[0]:
            ke, resistance = float(source["ke"]), float(source["resistance"])
            e = ke * float(source["speed_ratio"]) * float(self.records.gears[0][0]["turning"]) * self.SPEED
            found += [e + float(source[key]) * resistance for key in ("no_load_current", "current_limit")]
        return sorted(found)

    def test_at_each_bend_and_between_them(self) -> None:
        first, second, third, fourth = self.bends()
        for u in (first - 0.7, first, second, 0.5 * (second + third), third, 0.5 * (third + fourth)):
            force = force_at(self.batch, self.SPEED, u)
            with self.subTest(u=u):
                self.assertAlmostEqual(voltage_for(self.batch, self.SPEED, force, self.FULL), u, places=9)

    def test_where_no_motor_gives_more_the_highest_voltage_is_as_good(self) -> None:
        most = force_at(self.batch, self.SPEED, self.FULL)
        self.assertGreater(self.FULL, self.bends()[-1])
        u = voltage_for(self.batch, self.SPEED, most, self.FULL)
        self.assertTrue(math.isfinite(u))
        self.assertAlmostEqual(force_at(self.batch, self.SPEED, u), most, places=9)
