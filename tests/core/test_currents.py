"""Motors and supply against a plain search for the bus voltage, with two kinds of motor on one bus."""

import dataclasses
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import read
from ydrometer import driveline
from ydrometer.driveline import Array, Plant
from ydrometer.motion import currents


def two_kinds(limits: tuple[float, float], ratio: float, supply_resistance: float, supply_limit: float) -> Plant:
    """The plain design with a second, weaker motor beside its own."""
    plant = driveline.assemble([read().design])

    def pair(array: Array, second: float) -> Array:
        return np.concatenate([array, array * second])

    doubled = {
        f.name: pair(getattr(plant, f.name), 1.0) for f in dataclasses.fields(plant) if getattr(plant, f.name).ndim == 3
    }
    return dataclasses.replace(
        plant,
        **{
            **doubled,
            "back_emf": pair(plant.back_emf, ratio),
            "kt": pair(plant.kt, 1.2),
            "resistance": pair(plant.resistance, 2.5),
            "current_limit": np.array(limits)[:, None, None],
        },
        supply_resistance=np.array([[supply_resistance]]),
        supply_limit=np.array([[supply_limit]]),
    )


def bus_demand(plant: Plant, emf: Array, voltage: float, duty: float = 1.0) -> float:
    carried = currents.motor_currents(plant, emf, np.array([[duty * voltage]]))
    return float((plant.count * carried * (carried * plant.resistance + emf)).sum() / voltage)


AMPS = st.floats(5.0, 300.0)


class Bus(unittest.TestCase):
    @settings(max_examples=150, deadline=None)
    @given(
        limits=st.tuples(AMPS | st.just(np.inf), AMPS | st.just(np.inf)),
        ratio=st.floats(0.6, 1.4),
        resistance=st.floats(0.0, 0.2),
        speed=st.floats(0.0, 9.0),
    )
    def test_the_highest_voltage_that_closes_the_circuit(
        self, limits: tuple[float, float], ratio: float, resistance: float, speed: float
    ) -> None:
        plant = two_kinds(limits, ratio, resistance, np.inf)
        at = np.array([[speed]])
        found = float(currents.full_throttle(plant, at).bus_voltage[0, 0])
        emf = plant.back_emf * at
        open_circuit = float(plant.voltage[0, 0])
        self.assertAlmostEqual(found, open_circuit - resistance * bus_demand(plant, emf, found), places=8)
        higher = np.linspace(found + 1e-3, 2 * open_circuit, 400)
        left = [open_circuit - resistance * bus_demand(plant, emf, v) - v for v in higher]
        self.assertTrue(all(value < 0.0 for value in left), "another root above the one taken")

    @settings(max_examples=100, deadline=None)
    @given(limits=st.tuples(AMPS, AMPS), limit=st.floats(5.0, 60.0), speed=st.floats(0.0, 8.0))
    def test_the_supply_limit_lowers_the_duty_just_so_far(
        self, limits: tuple[float, float], limit: float, speed: float
    ) -> None:
        plant = two_kinds(limits, 0.9, 0.03, limit)
        at = np.array([[speed]])
        state = currents.full_throttle(plant, at)
        self.assertLessEqual(float(state.bus_current[0, 0]), limit * (1 + 1e-12))
        if float(state.demand[0, 0]) > limit:
            emf = plant.back_emf * at
            power = float((plant.count * state.currents * (state.currents * plant.resistance + emf)).sum())
            self.assertAlmostEqual(power / float(state.bus_voltage[0, 0]), limit, places=8)

    @settings(max_examples=100, deadline=None)
    @given(limits=st.tuples(AMPS, AMPS), share=st.floats(0.02, 0.98), speed=st.floats(0.0, 8.0))
    def test_eased_off_gives_just_the_force(self, limits: tuple[float, float], share: float, speed: float) -> None:
        plant = two_kinds(limits, 1.1, 0.02, np.inf)
        at = np.array([[speed]])
        full = currents.drive_force(plant, currents.full_throttle(plant, at).currents)
        wanted = np.where(full > 0.0, full * share, full)
        eased = currents.eased_off(plant, at, wanted)
        self.assertAlmostEqual(float(currents.drive_force(plant, eased.currents)[0, 0]), float(wanted[0, 0]), places=6)

    def test_a_braking_motor_loses_the_other_way(self) -> None:
        plant = driveline.assemble([read().design])
        drives = currents.drive_force(plant, np.full((1, 1, 1), 3.4))
        brakes = currents.drive_force(plant, np.full((1, 1, 1), -0.6))
        lost = float((plant.branch_efficiency * plant.trunk_efficiency)[0, 0, 0])
        self.assertAlmostEqual(float(-drives[0, 0] / brakes[0, 0]), lost**2)
