"""Heat of motors: closed forms, and days of drawn motors stepped through by a general solver."""

from __future__ import annotations

import math
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from ydrometer.document.sources import Constants, Motor, Thermal
from ydrometer.loads import heat
from ydrometer.loads.heat import HeatBlock, HeatDay, Pieces

AMBIENT = 295.0
LIMIT = 403.15


def motor(resistance: float = 0.05, idle: float = 1.0, thermal: Thermal | None = None, **more: float) -> Motor:
    constants = Constants(kv=40.0, resistance=resistance, no_load_current=idle)
    return Motor(constants=constants, thermal=thermal, **more)  # type: ignore[arg-type]  # numbers are what they are


def pieces(*rows: tuple[float, float, float]) -> Pieces:
    current, speed, time = np.array(rows).T
    return Pieces(current**2, speed, time)


TWO = Thermal(winding_capacity=20.0, winding_to_case=1.5, case_capacity=150.0, case_to_air=4.0)


def stepped(of: Motor, rows: list[tuple[float, float, float]]) -> tuple[float, float, float]:
    """Winding and case at the end, and the hottest winding, by stepping through the equations as the page has them."""
    thermal = of.thermal
    assert thermal is not None
    constants = of.constants
    assert constants is not None
    friction = constants.no_load_current / constants.kv
    warm, hottest = np.full(2, AMBIENT), AMBIENT
    for current, speed, time in rows:

        def rate(_: float, at: np.ndarray, current: float = current, speed: float = speed) -> list[float]:
            winding, case = at
            copper = current**2 * constants.resistance * (1.0 + 0.00385 * (winding - 298.15))
            inside = (winding - case) / thermal.winding_to_case
            outside = (case - AMBIENT) / thermal.case_to_air
            return [
                (copper - inside) / thermal.winding_capacity,
                (friction * speed + inside - outside) / thermal.case_capacity,
            ]

        made = solve_ivp(rate, (0.0, time), warm, rtol=1e-9, atol=1e-9, max_step=max(time / 200.0, 1e-3))
        warm, hottest = made.y[:, -1], max(hottest, float(made.y[0].max()))
    return float(warm[0]), float(warm[1]), hottest


def drawn() -> st.SearchStrategy[Thermal]:
    def between(low: float, high: float) -> st.SearchStrategy[float]:
        return st.floats(math.log(low), math.log(high)).map(math.exp)

    return st.builds(
        Thermal,
        winding_capacity=between(2.0, 200.0),
        winding_to_case=between(0.2, 5.0),
        case_capacity=between(20.0, 2000.0),
        case_to_air=between(0.5, 10.0),
    )


ROW = st.tuples(st.floats(0.0, 40.0), st.floats(0.0, 1500.0), st.floats(0.5, 300.0))


class TwoNodes(TestCase):
    @given(drawn(), st.lists(ROW, min_size=1, max_size=5))
    @settings(max_examples=40, deadline=None)
    def test_the_same_as_stepped_through(self, thermal: Thermal, rows: list[tuple[float, float, float]]) -> None:
        of = motor(thermal=thermal)
        net = heat.network(of, AMBIENT)
        assert net is not None
        found = heat.gone_through(HeatDay(net, [HeatBlock(pieces(*rows))]), 1)
        winding, case, hottest = stepped(of, rows)
        if hottest < heat.RUNAWAY:
            self.assertAlmostEqual(found.winding, winding, delta=0.01)
            self.assertAlmostEqual(found.case, case, delta=0.01)
            self.assertAlmostEqual(found.hottest_winding, hottest, delta=0.05)

    def test_heats_and_counts_are_the_same_one_after_the_other(self) -> None:
        net = heat.network(motor(thermal=TWO), AMBIENT)
        assert net is not None
        once = pieces((20.0, 300.0, 3.0), (0.0, 0.0, 20.0))
        rest = pieces((0.0, 0.0, 200.0))
        whole = HeatDay(net, [HeatBlock(once, 4), HeatBlock(rest)])
        long = HeatDay(net, [*[HeatBlock(once), HeatBlock(once), HeatBlock(once, 2), HeatBlock(rest)] * 3])
        self.assertAlmostEqual(heat.gone_through(whole, 3).winding, heat.gone_through(long, 1).winding, 9)
        self.assertAlmostEqual(heat.gone_through(whole, 3).at, heat.gone_through(long, 1).at, 6)
        self.assertLessEqual(len(heat.gone_through(whole, 200).curve), heat.MOST_POINTS)

    def test_it_ends_where_as_much_goes_as_comes(self) -> None:
        """Held for ever: I²·R(Tw) = (Tw − Ta)/(Rwc + Rca), solved for Tw."""
        net = heat.network(motor(thermal=TWO), AMBIENT)
        assert net is not None
        found = heat.gone_through(HeatDay(net, [HeatBlock(pieces((15.0, 0.0, 1e5)))]), 1)
        through, lost = TWO.winding_to_case + TWO.case_to_air, 15.0**2 * 0.05
        wanted = (AMBIENT + lost * through * (1.0 - 0.00385 * 298.15)) / (1.0 - lost * through * 0.00385)
        self.assertAlmostEqual(found.winding, wanted, 6)

    def test_a_runaway_is_told_as_one(self) -> None:
        net = heat.network(motor(thermal=TWO), AMBIENT)
        assert net is not None
        found = heat.gone_through(HeatDay(net, [HeatBlock(pieces((90.0, 0.0, 1e5)))]), 3)
        self.assertEqual([found.hottest_winding, found.case], [heat.RUNAWAY] * 2)

    def test_how_long_a_shove_lasts(self) -> None:
        net = heat.network(motor(thermal=TWO), AMBIENT)
        assert net is not None
        seconds = heat.until(net, 40.0**2, LIMIT)
        assert seconds is not None
        self.assertAlmostEqual(stepped(motor(thermal=TWO), [(40.0, 0.0, seconds)])[0], LIMIT, 3)
        self.assertIsNone(heat.until(net, 5.0**2, LIMIT))

    def test_the_rest_that_is_needed_just_does(self) -> None:
        net = heat.network(motor(thermal=TWO), AMBIENT)
        assert net is not None
        day = HeatDay(net, [HeatBlock(pieces((40.0, 300.0, 12.0), (0.0, 0.0, 30.0)))])
        self.assertGreater(day.hottest(20)[0], LIMIT - 10.0)
        rest = heat.rest_needed(day, 20, LIMIT - 10.0)
        assert rest is not None
        self.assertGreater(rest, 1.0)
        self.assertAlmostEqual(day.hottest(20, rest)[0], LIMIT - 10.0, 3)
        self.assertEqual(heat.rest_needed(day, 1, LIMIT), 0.0)
        self.assertIsNone(heat.rest_needed(HeatDay(net, [HeatBlock(pieces((90.0, 0.0, 60.0)))]), 2, LIMIT))


class OneNode(TestCase):
    def test_by_hand(self) -> None:
        """Without current a warm motor cools by exp(−t/RC); with its continuous one it gets 75 K warmer."""
        of = motor(mass=0.5, continuous_current=20.0, idle=0.0)
        net = heat.network(of, 298.15)
        assert net is not None
        self.assertEqual(net.nodes, 1)
        resistance = 75.0 / (20.0**2 * 0.05 * 1.29)
        day = HeatDay(net, [HeatBlock(pieces((20.0, 0.0, 1e6), (0.0, 0.0, 120.0)))])
        found = heat.gone_through(day, 1)
        self.assertAlmostEqual(found.hottest_winding - 298.15, 75.0, delta=0.2)
        left = (found.hottest_winding - 298.15) * math.exp(-120.0 / (400.0 * 0.5 * resistance))
        self.assertAlmostEqual(found.winding - 298.15, left, 6)

    def test_too_little_is_known(self) -> None:
        self.assertIsNone(heat.network(motor(mass=0.5), AMBIENT))

    def test_moving_air_takes_twice_as_much(self) -> None:
        still, moved = (heat.network(motor(thermal=TWO), AMBIENT, moving_air=air) for air in (False, True))
        assert still is not None
        assert moved is not None
        self.assertAlmostEqual(moved.to_air[-1], 2.0 * still.to_air[-1], 12)
