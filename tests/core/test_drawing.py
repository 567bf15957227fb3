"""Loops against the definition of a taut belt, and the line against the rules of turning and spacing."""

import math
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.core.designs import GEAR, MOTOR, REMOVED, read
from ydrometer.drawing import LineDrawing, draw_line, loops

RADIUS = st.floats(0.005, 0.2)


def drawn(changes: dict[str, Any] | None = None) -> LineDrawing:
    return draw_line(read(changes).design)


class Loops(unittest.TestCase):
    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0))
    def test_length_is_that_of_the_path(self, r1: float, r2: float, slack: float) -> None:
        distance = (r1 + r2) * slack
        path = loops.path((0.0, 0.0), r1, (distance, 0.0), r2)
        pieces = [s.radius * s.wrap if s.wrap else math.dist((s.x1, s.y1), (s.x2, s.y2)) for s in path]
        self.assertAlmostEqual(sum(pieces), loops.length(r1, r2, distance), places=12)

    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0))
    def test_centre_distance_is_the_inverse_of_length(self, r1: float, r2: float, slack: float) -> None:
        distance = (r1 + r2) * slack
        found = loops.centre_distance(loops.length(r1, r2, distance), r1, r2)
        self.assertIsNotNone(found)
        self.assertAlmostEqual(found or 0.0, distance, places=12)

    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0), turn=st.floats(-3.0, 3.0))
    def test_the_free_runs_are_tangents(self, r1: float, r2: float, slack: float, turn: float) -> None:
        distance = (r1 + r2) * slack
        c2 = (distance * math.cos(turn), distance * math.sin(turn))
        upper, _, lower, _ = loops.path((0.0, 0.0), r1, c2, r2)
        ends = (((0.0, 0.0), upper.x1, upper.y1), (c2, upper.x2, upper.y2), (c2, lower.x1, lower.y1),
                ((0.0, 0.0), lower.x2, lower.y2))  # fmt: skip
        for run, (centre, x, y) in zip((upper, upper, lower, lower), ends, strict=True):
            spoke = (x - centre[0], y - centre[1])
            along = (run.x2 - run.x1, run.y2 - run.y1)
            self.assertAlmostEqual(along[0] * spoke[0] + along[1] * spoke[1], 0.0, places=9)

    def test_equal_wheels(self) -> None:
        self.assertAlmostEqual(loops.length(0.1, 0.1, 0.5), 1.0 + 0.2 * math.pi)
        self.assertEqual(loops.wraps(0.1, 0.1, 0.5), (math.pi, math.pi))

    def test_what_cannot_be(self) -> None:
        self.assertIsNone(loops.centre_distance(0.5, 0.1, 0.1))
        with self.assertRaisesRegex(ValueError, "above 0.1 m is needed, 0.05 m given"):
            loops.length(0.1, 0.2, 0.05)


class Line(unittest.TestCase):
    def test_gears_touch_at_their_pitch_circles(self) -> None:
        driver, driven = drawn().wheels[:2]
        self.assertAlmostEqual(driven.x - driver.x, 0.001 * (15 + 56) / 2)
        self.assertAlmostEqual(driver.pitch_radius + driven.pitch_radius, driven.x - driver.x)

    def test_diametral_pitch(self) -> None:
        driver = drawn({f"{GEAR}.module": REMOVED, f"{GEAR}.diametral_pitch": "32 1/in"}).wheels[0]
        self.assertAlmostEqual(driver.pitch_radius, 15 * 0.0254 / 32 / 2)

    def test_the_belt_has_its_length(self) -> None:
        (belt,) = drawn().loops
        straight = [math.dist((s.x1, s.y1), (s.x2, s.y2)) for s in belt.segments[::2]]
        bent = [s.radius * s.wrap for s in belt.segments[1::2]]
        self.assertAlmostEqual(sum(straight + bent), 84 * 0.005)
        self.assertFalse(belt.assumed)

    def test_a_belt_of_unknown_length_is_drawn_and_named(self) -> None:
        line = drawn({"drive.stages": [{"kind": "belt", "driver_teeth": 18, "driven_teeth": 36}]})
        self.assertEqual(line.sizes_assumed, ["drive.stages[0]"])

    def test_a_chain_stands_on_its_pitch_polygon(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 60}
        line = drawn({"drive.stages": [chain]})
        self.assertAlmostEqual(line.wheels[2].pitch_radius, 0.00635 / (2 * math.sin(math.pi / 11)))

    def test_a_ring_holds_its_pinion_inside(self) -> None:
        driver, ring = drawn({f"{GEAR}.internal": True}).wheels[:2]
        self.assertEqual(ring.form, "ring")
        self.assertAlmostEqual(abs(ring.x - driver.x) + driver.pitch_radius, ring.pitch_radius)

    def test_turning_senses(self) -> None:
        for changes, senses in (
            ({}, [1, -1, -1]),
            ({f"{MOTOR}.reversed": True}, [-1, 1, 1]),
            ({f"{GEAR}.idlers": [20]}, [1, 1, 1]),
            ({f"{GEAR}.internal": True}, [1, 1, 1]),
            ({f"{GEAR}.internal": True, f"{GEAR}.idlers": [20]}, [1, -1, -1]),
            ({"drive.stages": [{"kind": "gearbox", "ratio": 4}]}, [1, -1, -1]),
        ):
            with self.subTest(changes):
                line = drawn(changes)
                self.assertEqual([shaft.sense for shaft in line.shafts], senses)
                self.assertEqual(line.forwards, senses[-1] > 0)
                for wheel in line.wheels:
                    if not wheel.member.startswith("idler"):
                        self.assertEqual(wheel.sense, senses[wheel.shaft])

    def test_everything_lies_inside_the_extent(self) -> None:
        line = drawn({f"{GEAR}.idlers": [20, 30]})
        for wheel in line.wheels:
            self.assertGreaterEqual(wheel.x - wheel.outer_radius, line.left - 1e-12)
            self.assertLessEqual(wheel.x + wheel.outer_radius, line.right + 1e-12)
        self.assertEqual(line.ground, -line.road_wheel.radius)

    def test_a_motor_alone_on_the_wheel(self) -> None:
        line = drawn({"drive.stages": [], "drive.branches.0.stages": []})
        self.assertEqual(len(line.shafts), 1)
        self.assertEqual(line.wheels, [])
