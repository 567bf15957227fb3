"""Loops against the definition of a taut belt, and the line against the rules of turning and spacing."""

import math
import unittest
from itertools import pairwise
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.core.designs import GEAR, MOTOR, REMOVED, changed, read
from tests.core.test_live import MIXED
from ydrometer.document.stages import forms
from ydrometer.drawing import draw_line, loops, teeth, wheels
from ydrometer.drawing.shapes import DrawnRow
from ydrometer.geometry import loops as fit

RADIUS = st.floats(0.005, 0.2)


def drawn(changes: dict[str, Any] | None = None) -> DrawnRow:
    (row,) = draw_line(read(changes).design).rows
    return row


class Loops(unittest.TestCase):
    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0))
    def test_length_is_that_of_the_path(self, r1: float, r2: float, slack: float) -> None:
        distance = (r1 + r2) * slack
        path = loops.path((0.0, 0.0), r1, (distance, 0.0), r2)
        pieces = [s.radius * s.wrap if s.wrap else math.dist((s.x1, s.y1), (s.x2, s.y2)) for s in path]
        self.assertAlmostEqual(sum(pieces), fit.length(r1, r2, distance), places=12)

    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0))
    def test_centre_distance_is_the_inverse_of_length(self, r1: float, r2: float, slack: float) -> None:
        distance = (r1 + r2) * slack
        found = fit.centre_distance(fit.length(r1, r2, distance), r1, r2)
        self.assertIsNotNone(found)
        self.assertAlmostEqual(found or 0.0, distance, places=12)

    @given(r1=RADIUS, r2=RADIUS, slack=st.floats(1.01, 6.0), turn=st.floats(-3.0, 3.0))
    def test_the_free_runs_are_tangents(self, r1: float, r2: float, slack: float, turn: float) -> None:
        distance = (r1 + r2) * slack
        c2 = (distance * math.cos(turn), distance * math.sin(turn))
        upper, _, lower, _ = loops.path((0.0, 0.0), r1, c2, r2)
        ends = (
            ((0.0, 0.0), upper.x1, upper.y1),
            (c2, upper.x2, upper.y2),
            (c2, lower.x1, lower.y1),
            ((0.0, 0.0), lower.x2, lower.y2),
        )
        for run, (centre, x, y) in zip((upper, upper, lower, lower), ends, strict=True):
            spoke = (x - centre[0], y - centre[1])
            along = (run.x2 - run.x1, run.y2 - run.y1)
            self.assertAlmostEqual(along[0] * spoke[0] + along[1] * spoke[1], 0.0, places=9)

    def test_equal_wheels(self) -> None:
        self.assertAlmostEqual(fit.length(0.1, 0.1, 0.5), 1.0 + 0.2 * math.pi)
        self.assertEqual(fit.wraps(0.1, 0.1, 0.5), (math.pi, math.pi))

    def test_what_cannot_be(self) -> None:
        self.assertIsNone(fit.centre_distance(0.5, 0.1, 0.1))
        with self.assertRaisesRegex(ValueError, "above 0.1 m is needed, 0.05 m given"):
            fit.length(0.1, 0.2, 0.05)


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
        line = draw_line(read({"drive.stages": [{"kind": "belt", "driver_teeth": 18, "driven_teeth": 36}]}).design)
        self.assertEqual(line.sizes_assumed, ["drive.stages[0]"])

    def test_a_chain_stands_on_its_pitch_polygon(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 60}
        line = drawn({"drive.stages": [chain]})
        self.assertAlmostEqual(line.wheels[2].pitch_radius, 0.00635 / (2 * math.sin(math.pi / 11)))

    def test_a_ring_holds_its_pinion_inside(self) -> None:
        driver, ring = drawn({f"{GEAR}.internal": True}).wheels[:2]
        self.assertEqual(ring.form, "ring")
        self.assertAlmostEqual(abs(ring.x - driver.x) + driver.pitch_radius, ring.pitch_radius)

    def test_rotations(self) -> None:
        for changes, rotations in (
            ({}, [1, -1, -1]),
            ({f"{MOTOR}.reversed": True}, [-1, 1, 1]),
            ({f"{GEAR}.idlers": [20]}, [1, 1, 1]),
            ({f"{GEAR}.internal": True}, [1, 1, 1]),
            ({f"{GEAR}.internal": True, f"{GEAR}.idlers": [20]}, [1, -1, -1]),
            ({"drive.stages": [{"kind": "gearbox", "ratio": 4}]}, [1, -1, -1]),
        ):
            with self.subTest(changes):
                row = drawn(changes)
                self.assertEqual([shaft.rotation for shaft in row.shafts], rotations)
                assert row.road_wheel is not None
                self.assertEqual(row.road_wheel.rotation, rotations[-1])
                for wheel in row.wheels:
                    if not wheel.member.startswith("idler"):
                        self.assertEqual(wheel.rotation, rotations[wheel.shaft])

    def test_a_motor_alone_on_the_wheel(self) -> None:
        line = drawn({"drive.stages": [], "drive.branches.0.stages": []})
        self.assertEqual([shaft.role for shaft in line.shafts], ["wheel"])
        self.assertEqual((line.wheels, len(line.sources)), ([], 1))

    def test_everything_lies_inside_the_extent(self) -> None:
        for row in (drawn({f"{GEAR}.idlers": [20, 30]}), drawn(MIXED)):
            assert row.road_wheel is not None
            circles = [(w.x, w.y, w.outer_radius) for w in row.wheels] + [(s.x, s.y, s.radius) for s in row.sources]
            for x, y, radius in circles:
                self.assertGreaterEqual(x - radius, row.left - 1e-12)
                self.assertLessEqual(x + radius, row.right + 1e-12)
                self.assertLessEqual(y + radius, row.top + 1e-12)
                self.assertGreaterEqual(y - radius, row.bottom - 1e-12)


class Branches(unittest.TestCase):
    def test_they_meet_where_the_trunk_begins(self) -> None:
        row = drawn(MIXED)
        trunk = next(w for w in row.wheels if w.path == "drive.stages[0]" and w.member == "driver")
        joining = [
            next(w for w in row.wheels if w.path == path and w.member == "driven")
            for path in ("drive.branches[0].stages[0]", "drive.branches[1].stages[1]")
        ]
        for wheel in joining:
            self.assertAlmostEqual(math.dist((wheel.x, wheel.y), (trunk.x, trunk.y)), 0.0)
            self.assertEqual(wheel.shaft, trunk.shaft)

    def test_their_gears_still_touch_and_their_sources_stand_apart(self) -> None:
        row = drawn(MIXED)
        for path in {w.path for w in row.wheels if w.form == "gear"}:
            one, other = (w for w in row.wheels if w.path == path)
            self.assertAlmostEqual(math.dist((one.x, one.y), (other.x, other.y)), one.pitch_radius + other.pitch_radius)
        first, second = row.sources
        self.assertGreater(math.dist((first.x, first.y), (second.x, second.y)), first.radius + second.radius)
        self.assertEqual([source.count for source in row.sources], [2, 1])

    def test_branches_without_stages_share_the_shaft(self) -> None:
        bare = {"drive.branches": [{"source": changed()["drive"]["branches"][0]["source"]} for _ in range(2)]}
        row = drawn(bare)
        self.assertEqual([(s.x, s.y) for s in row.sources], [(0.0, 0.0)] * 2)
        self.assertEqual([shaft.index for shaft in row.shafts], [0, 1])


LONG = {
    "drive.stages": [{"kind": "belt", "driver_teeth": 20, "driven_teeth": 30, "pitch": "5 mm", "belt_teeth": 140}] * 5
}


class Folding(unittest.TestCase):
    def test_rows_are_no_longer_than_asked_and_hold_every_stage_once(self) -> None:
        plain = draw_line(read(LONG).design)
        folded = draw_line(read(LONG).design, 4.0)
        self.assertEqual(len(plain.rows), 1)
        self.assertGreater(len(folded.rows), 1)
        wheels_of = [[(w.path, w.member) for row in line.rows for w in row.wheels] for line in (plain, folded)]
        self.assertEqual(*wheels_of)
        for row in folded.rows:
            tallest = max(row.top - row.bottom, 0.125)
            self.assertLess(row.shafts[-1].x - row.shafts[0].x, 4.0 * tallest + 0.4)

    def test_a_row_begins_with_the_shaft_the_last_one_ended_with(self) -> None:
        rows = draw_line(read(LONG).design, 4.0).rows
        for before, after in pairwise(rows):
            self.assertTrue(before.shafts[-1].carried)
            self.assertEqual(before.shafts[-1].index, after.shafts[0].index)
            self.assertEqual(after.shafts[0].x, 0.0)
        self.assertEqual([row.road_wheel is not None for row in rows], [False] * (len(rows) - 1) + [True])
        self.assertEqual([bool(row.sources) for row in rows], [True] + [False] * (len(rows) - 1))


class Teeth(unittest.TestCase):
    @given(count=st.integers(5, 200), module=st.floats(0.0005, 0.01), degrees=st.floats(14.5, 25.0))
    def test_an_involute_tooth_is_half_a_pitch_thick_on_the_pitch_circle(
        self, count: int, module: float, degrees: float
    ) -> None:
        tooth = teeth.involute(count, module, math.radians(degrees))
        radius = 0.5 * count * module
        right = [(r, a) for r, a in zip(tooth.radii, tooth.angles, strict=True) if a >= 0.0]
        over = min((r, a) for r, a in right if r >= radius)
        under = max((r, a) for r, a in right if r <= radius)
        share = (radius - under[0]) / (over[0] - under[0]) if over[0] > under[0] else 0.0
        # Straight between its points, which lie on the flank: thicker than the involute by what a chord cuts off.
        self.assertAlmostEqual(
            (under[1] + share * (over[1] - under[1])) * count, math.pi / 2.0, delta=0.06 if count > 12 else 0.25
        )

    @given(count=st.integers(6, 120))
    def test_outlines_go_from_gap_to_gap(self, count: int) -> None:
        outlines = (
            teeth.involute(count, 0.001, 0.35),
            teeth.involute(count + 20, 0.001, 0.35, internal=True),
            teeth.pulley(count, 0.005, count * 0.005 / 6.4),
            teeth.sprocket(count, 0.00635),
        )
        for outline, z in zip(outlines, (count, count + 20, count, count), strict=True):
            self.assertAlmostEqual(outline.angles[0], -math.pi / z)
            self.assertAlmostEqual(outline.angles[-1], math.pi / z)
            self.assertEqual(outline.angles, sorted(outline.angles))
            self.assertAlmostEqual(outline.radii[0], outline.radii[-1])

    def test_a_tooth_stands_in_the_partner_s_gap(self) -> None:
        """Along the pitch circles, a tooth of one is half a pitch from a tooth of the other where they touch."""
        for internal in (False, True):
            row = drawn({f"{GEAR}.idlers": [23, 31], f"{GEAR}.internal": internal})
            gears = [w for w in row.wheels if w.path == "drive.branches[0].stages[0]"]
            for first, second in pairwise(gears):
                ring = second.form == "ring"
                contact = math.pi if ring else 0.0
                along = (first.phase - contact) * first.pitch_radius
                back = (second.phase - math.pi) * second.pitch_radius * (1.0 if ring else -1.0)
                pitch = math.pi * 0.001
                self.assertAlmostEqual(((along - back) / pitch) % 1.0, 0.5, places=9)

    def test_a_tooth_phase_is_independent_of_full_turns(self) -> None:
        spot = wheels.Spot("p", "driver", "p.driver_teeth", 0, 0.0, 0.0, 1)
        first, second = (
            wheels.wheel(spot, forms.GEAR, 0.001, 20, angle=0.35, phase=phase)
            for phase in (0.1, 0.1 + 2.0 * math.pi / 20)
        )
        self.assertAlmostEqual(
            wheels.meshing_phase(first, 30, ring=False), wheels.meshing_phase(second, 30, ring=False)
        )
