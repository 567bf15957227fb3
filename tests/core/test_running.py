"""Loops as they really run, against the hull of many points on their wheels; the room that they need."""

from __future__ import annotations

import math
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.spatial import ConvexHull

from tests.core.plates import AXLE, CHAIN, JACK, MOTOR, PLATE, V_BELT, about, at, look, read, shaft
from ydrometer.document.mounting import Point, Tensioner
from ydrometer.fit.running import Running
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.ways import ways
from ydrometer.screens.mounted import OnPlate

MANY = 3000
RADII = st.floats(0.01, 0.06)
CROSSED = {**V_BELT, "crossed": True}


def hull(*wheels: tuple[Point, float]) -> float:
    """Length of a string around circles, m, by the hull of points on them."""
    angles = np.linspace(0.0, 2.0 * math.pi, MANY, endpoint=False)
    ring = np.stack([np.cos(angles), np.sin(angles)], axis=1)
    return float(ConvexHull(np.concatenate([np.array(centre) + radius * ring for centre, radius in wheels])).area)


def told(plate: OnPlate, path: str) -> dict[str, float]:
    """The numbers of a stage, by name."""
    return {s.name: s.value for stage in plate.settings if stage.path == path for s in stage.settings}


def pressed(stage: str, x: float, y: float, **more: Any) -> dict[str, Any]:
    return {"stage": stage, "tensioner": {"at": at(x, y), "diameter": "20 mm", "outside": True, **more}}


class AsItRuns(TestCase):
    @given(RADII, RADII, RADII, st.floats(0.15, 0.4), st.floats(0.1, 0.9), st.floats(-0.15, 0.15))
    def test_over_a_tensioner_inside_it_is_the_hull_of_all_that_it_touches(
        self, r1: float, r2: float, r3: float, apart: float, along: float, up: float
    ) -> None:
        third = Tensioner(at=(along * apart, up), diameter=2.0 * r3, outside=False)
        loop = Running((0.0, 0.0), (apart, 0.0), (r1, r2), crossed=False, tensioner=third)
        try:
            length = loop.taut.length
        except ValueError:
            assume(False)
        bare, whole = (hull(*wheels) for wheels in _with_and_without(r1, r2, apart, third))
        # Two wheels that the third hides from each other are no loop of three.
        assume(all(wrap < 1.9 * math.pi for wrap in loop.wraps))
        self.assertAlmostEqual(length, whole, 6)
        if whole - bare > 1e-6:
            self.assertTrue(loop.reached)

    def test_one_that_is_not_reached_takes_no_part_and_is_told(self) -> None:
        shafts = [shaft(JACK, 0, 0), shaft(AXLE, 137, 0)]
        bare = told(look({"shafts": shafts}), AXLE)
        for y in (-60, 60, 200):
            plate = look({"shafts": shafts, "loops": [pressed(AXLE, 70, y)]})
            with self.subTest(y):
                self.assertTrue(about(plate, "the tensioner does not reach the belt"))
                self.assertEqual(told(plate, AXLE)["length_here"], bare["length_here"])

    def test_one_in_a_wheel_or_the_ground_or_the_frame_is_told(self) -> None:
        shafts = [shaft(JACK, 0, 0), shaft(AXLE, 138, 0)]
        rail = [{"name": "rail", "start": at(60, -28), "end": at(80, -28)}]
        near = look({"shafts": shafts, "loops": [pressed(AXLE, 14, -20)]})
        self.assertTrue(about(near, "the tensioner of the belt runs into the 18-tooth pulley"))
        plate = look({"shafts": shafts, "loops": [pressed(AXLE, 70, -20)], "frame": rail})
        self.assertTrue(about(plate, "the tensioner of the belt runs into the rail"))
        deep = look({"shafts": shafts, "loops": [pressed(AXLE, 70, -80, diameter="120 mm")]})
        self.assertTrue(about(deep, "the tensioner of the belt reaches"))

    def test_one_that_cuts_the_other_run_of_its_belt_is_told_from_either_side(self) -> None:
        """By hand: between two 36-tooth pulleys the runs lie 28.65 mm above and below the line of centres."""
        shafts, even = [shaft(JACK, 0, 0), shaft(AXLE, 160, 0)], {"drive.stages.0.driver_teeth": 36}
        for y, diameter, outside, word in (
            (10, 40, True, ""),
            (10, 76, True, "leaves too little to"),
            (-10, 84, True, "cuts"),
            (30, 120, False, "cuts"),
            (40, 60, False, ""),
            (0, 90, False, "cuts"),
        ):
            loop = pressed(AXLE, 80, y, diameter=f"{diameter} mm", outside=outside)
            plate = look({"shafts": shafts, "loops": [loop]}, **even)
            with self.subTest(y=y, diameter=diameter):
                self.assertEqual(bool(about(plate, f"{word} its other run")), bool(word))
                self.assertFalse(about(plate, "does not reach"))

    def test_its_runs_are_looked_at_where_they_are(self) -> None:
        """An idler from inside lifts the upper run over a bar, and the belt off the bar below it."""
        shafts = [shaft(JACK, 0, 0), shaft(AXLE, 150, 0)]
        bar = [{"name": "bar", "start": at(70, 40), "end": at(80, 40)}]
        self.assertFalse(about(look({"shafts": shafts, "frame": bar}), "the belt runs into the bar"))
        lifted = {"shafts": shafts, "frame": bar, "loops": [pressed(AXLE, 75, 30, outside=False)]}
        self.assertTrue(about(look(lifted), "the belt runs into the bar"))

    def test_a_tensioner_holds_more_teeth(self) -> None:
        shafts = [shaft(JACK, 0, 0), shaft(AXLE, 138, 0)]
        few, more = (told(look({"shafts": shafts, "loops": loops}), AXLE) for loops in ([], [pressed(AXLE, 40, -18)]))
        self.assertGreater(more["driver_wrap"], few["driver_wrap"])
        self.assertGreaterEqual(more["driver_teeth_in_mesh"], few["driver_teeth_in_mesh"])

    def test_a_crossed_belt_takes_none_on_its_outside_and_stays_crossed_over_one_inside(self) -> None:
        shafts, stage = [shaft(MOTOR, 0, 0), shaft(JACK, 300, 0)], {"drive.branches.0.stages": [CROSSED]}
        outside = look({"shafts": shafts, "loops": [pressed(JACK, 40, 60)]}, **stage)
        self.assertTrue(about(outside, "a crossed V-belt takes no tensioner on its outside"))
        bare = told(look({"shafts": shafts}, **stage), JACK)["length_here"]
        for x, y in ((40, 40), (40, -40), (230, 60), (230, -60)):
            inside = look({"shafts": shafts, "loops": [pressed(JACK, x, y, outside=False, diameter="30 mm")]}, **stage)
            with self.subTest(x=x, y=y):
                self.assertFalse(about(inside, "does not reach"))
                self.assertTrue(bare < told(inside, JACK)["length_here"] < 1.1 * bare)


def _with_and_without(
    r1: float, r2: float, apart: float, third: Tensioner
) -> tuple[list[tuple[Point, float]], list[tuple[Point, float]]]:
    pair = [((0.0, 0.0), r1), ((apart, 0.0), r2)]
    return pair, [*pair, (third.at, 0.5 * third.diameter)]


class Lengths(TestCase):
    def test_a_chain_of_odd_links_is_taut_by_the_circle_on_which_they_are_as_long_as_their_pitch(self) -> None:
        r1, r2 = 12 * 9.525e-3 / (2 * math.pi), 40 * 9.525e-3 / (2 * math.pi)
        plate = look({}, **{"drive.stages": [{**CHAIN, "links": 81}]})
        numbers = told(plate, AXLE)
        self.assertAlmostEqual(numbers["length_here"], 81 * 9.525e-3, 9)
        self.assertAlmostEqual(hull(((0.0, 0.0), r1), ((numbers["centre_distance"], 0.0), r2)), 81 * 9.525e-3, 6)

    def test_too_short_is_said_as_a_length_of_the_belt(self) -> None:
        taut = look({}).plan.shafts
        wanted = 1e3 * (taut[2].x - taut[1].x)
        for more, word in ((3.0, "short"), (-3.0, "loose")):
            plate = look({"shafts": [shaft(JACK, 0, 0), shaft(AXLE, wanted + more, 0)]})
            ways = [told(one, AXLE)["length_here"] for one in (look({}), plate)]
            self.assertTrue(about(plate, f"too {word} by {1e3 * abs(ways[1] - ways[0]):.2f} mm"))

    def test_room_of_a_v_belt_is_a_share_of_its_length(self) -> None:
        for stage in (V_BELT, CROSSED):
            numbers = told(
                look({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 300, 0)]}, **{"drive.branches.0.stages": [stage]}),
                JACK,
            )
            self.assertAlmostEqual(numbers["room_to_put_on"], 0.015 * numbers["length_here"], 9)
            self.assertAlmostEqual(numbers["room_to_tighten"], 0.03 * numbers["length_here"], 9)


class OnAPlate(TestCase):
    def test_a_tensioner_stays_where_it_is_while_shafts_are_placed(self) -> None:
        shafts = [shaft(JACK, 48, 48), {"shaft": AXLE, "mount": "holes"}]
        fit = {"plate": PLATE, "shafts": shafts, "loops": [pressed(AXLE, 108, 12)]}
        for way in ways(set_up(read(fit).design)).ways:
            self.assertGreater(math.dist(way.at[AXLE], (0.108, 0.012)), 0.01)
