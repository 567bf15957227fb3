"""The plan: loops closed and as long as reckoned, gears in mesh whichever way they stand, the slack side, marks."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from tests.core.plates import AXLE, CHAIN, JACK, MOTOR, PLATE, V_BELT, at, look, read, shaft
from ydrometer.drawing.loops import around_path, crossed_path, path
from ydrometer.drawing.plan import PlanDrawing
from ydrometer.drawing.shapes import DrawnWheel, Segment
from ydrometer.fit.setting_up import set_up
from ydrometer.geometry.around import Round, taut
from ydrometer.geometry.loops import crossed_length, length

ANGLES = st.floats(-3.1, 3.1)
RADII = st.floats(0.005, 0.1)


def plan(fit: dict[str, Any], **edits: Any) -> PlanDrawing:
    return look(fit, **edits).plan


def run_length(segments: list[Segment]) -> float:
    return sum(s.radius * abs(s.wrap) if s.wrap else math.dist((s.x1, s.y1), (s.x2, s.y2)) for s in segments)


class Loops(TestCase):
    def closed(self, segments: list[Segment]) -> None:
        for first, second in pairwise([*segments, segments[0]]):
            self.assertAlmostEqual(math.dist((first.x2, first.y2), (second.x1, second.y1)), 0.0, 9)

    @given(RADII, RADII, st.floats(1.02, 5.0), ANGLES)
    def test_open_and_crossed_are_closed_and_as_long_as_reckoned(
        self, r1: float, r2: float, factor: float, angle: float
    ) -> None:
        distance = factor * (r1 + r2)
        other = distance * math.cos(angle), distance * math.sin(angle)
        for draw, reckon in ((path, length), (crossed_path, crossed_length)):
            segments = draw((0.0, 0.0), r1, other, r2)
            self.closed(segments)
            self.assertAlmostEqual(run_length(segments), reckon(r1, r2, distance), 9)

    @given(st.floats(-0.03, 0.03), st.floats(0.005, 0.02), st.booleans())
    def test_around_a_tensioner_too(self, y: float, radius: float, outside: bool) -> None:
        wheels = [Round(0.0, 0.0, 0.02), Round(0.15, y, radius, outside), Round(0.3, 0.0, 0.05)]
        if not outside:
            wheels[1] = Round(0.15, -0.1, radius)
        segments = around_path(wheels)
        self.closed(segments)
        self.assertAlmostEqual(run_length(segments), taut(wheels).length, 9)

    @given(st.floats(-0.02, 0.02), st.floats(0.005, 0.02), st.booleans())
    def test_every_run_touches_its_wheels_squarely(self, y: float, radius: float, outside: bool) -> None:
        wheels = [Round(0.0, 0.0, 0.02), Round(0.15, y, radius, outside), Round(0.3, 0.0, 0.05)]
        assume(outside)
        for i, run in enumerate(s for s in around_path(wheels) if not s.wrap):
            along = run.x2 - run.x1, run.y2 - run.y1
            for wheel, spot in ((wheels[i], (run.x1, run.y1)), (wheels[(i + 1) % 3], (run.x2, run.y2))):
                out = spot[0] - wheel.x, spot[1] - wheel.y
                self.assertAlmostEqual(math.hypot(*out), wheel.radius, 12)
                self.assertAlmostEqual(out[0] * along[0] + out[1] * along[1], 0.0, 12)

    def test_the_driver_pulls_one_run_and_the_other_is_slack(self) -> None:
        for mirrored in (False, True):
            source = {"drive.branches.0.source.reversed": mirrored}
            drawn = plan({}, **source, **{"drive.branches.0.stages": [V_BELT], "drive.stages": []})
            loop = drawn.loops[0]
            assert loop.slack is not None
            slack = loop.segments[loop.slack]
            # Clockwise the driver sends its upper run away from itself.
            self.assertEqual(slack.y1 > 0.0, not mirrored)

    def test_a_crossed_belt_is_reckoned_crossed_wherever_it_is_told(self) -> None:
        crossed = {**V_BELT, "crossed": True}
        edits: dict[str, Any] = {"drive.branches.0.stages": [crossed], "drive.stages": []}
        fit: dict[str, Any] = {"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 300, 0)]}
        plate = look(fit, **edits)
        expected = {s.name: s.value for s in plate.settings[0].settings}
        self.assertAlmostEqual(expected["length_here"], crossed_length(0.03, 0.075, 0.3), 12)
        self.assertAlmostEqual(run_length(plate.plan.loops[0].segments), expected["length_here"], 9)
        self.assertAlmostEqual(expected["driver_wrap"], expected["driven_wrap"], 12)
        # Where the runs cross, a shaft stands in the way; beside an open belt it would not.
        between = {"shafts": [*fit["shafts"], shaft(AXLE, 87, 0, "free")]}
        edits["drive.stages"] = [{"kind": "chain", "driver_teeth": 12, "driven_teeth": 12, "pitch": "9.525 mm"}]
        words = "the V-belt runs into the axle"
        self.assertTrue([c for c in look(between, **edits).clashes if words in c.text])
        edits["drive.branches.0.stages"] = [V_BELT]
        self.assertFalse([c for c in look(between, **edits).clashes if words in c.text])

    def test_wheels_that_touch_have_no_loop(self) -> None:
        drawn = plan({"shafts": [shaft(JACK, 0, 0), shaft(AXLE, 20, 0)]})
        self.assertEqual(drawn.loops[0].segments, [])


class Gears(TestCase):
    @given(ANGLES, st.integers(9, 40), st.integers(20, 80))
    def test_a_tooth_meets_a_gap_whichever_way_they_stand(self, angle: float, driver: int, driven: int) -> None:
        stage = {"kind": "gear", "driver_teeth": driver, "driven_teeth": driven, "module": "1 mm"}
        apart = 0.5 * (driver + driven)
        spot = shaft(JACK, apart * math.cos(angle), apart * math.sin(angle))
        drawn = plan({"shafts": [shaft(MOTOR, 0, 0), spot]}, **{"drive.branches.0.stages": [stage], "drive.stages": []})
        first, second = drawn.wheels
        # Along the line of centres one has the middle of a tooth as far off as the other that of a gap.
        self.assertAlmostEqual(
            self.past(first, angle) * driver, -self.past(second, angle + math.pi, gap=True) * driven, 6
        )

    def past(self, wheel: DrawnWheel, towards: float, *, gap: bool = False) -> float:
        """How far the nearest tooth, or gap, is past a direction, rad, as near as can be to none."""
        assert wheel.teeth is not None
        each = 2.0 * math.pi / wheel.teeth
        phase = wheel.phase + (0.5 * each if gap else 0.0)
        return (phase - towards + 0.5 * each) % each - 0.5 * each


class Shafts(TestCase):
    def test_is_drawn_as_wide_as_it_is_with_what_stands_around_it(self) -> None:
        said = {**shaft(JACK, 40, 0), "diameter": "8 mm", "opening": "22 mm", "body": "30 mm"}
        drawn = {entry.path: entry for entry in look({"shafts": [said]}).plan.shafts}
        self.assertEqual((drawn[JACK].diameter, drawn[JACK].opening, drawn[JACK].body), (0.008, 0.022, 0.03))
        self.assertEqual((drawn[AXLE].diameter, drawn[AXLE].opening, drawn[AXLE].body), (0.0, 0.0, 0.0))


class Whole(TestCase):
    def test_all_that_is_drawn_lies_within_its_extent(self) -> None:
        fit = {
            "plate": PLATE,
            "shafts": [shaft(MOTOR, 12, 12), shaft(AXLE, 200, 60)],
            "frame": [{"name": "rail", "start": at(-40, -90), "end": at(500, 300)}],
        }
        drawn = plan(fit)
        for wheel in drawn.wheels:
            self.assertLessEqual(drawn.left, wheel.x - wheel.outer_radius)
            self.assertGreaterEqual(drawn.top, wheel.y + wheel.outer_radius)
        self.assertLessEqual(drawn.bottom, -0.09)
        self.assertGreaterEqual(drawn.right, 0.5)

    def test_marks_carry_the_numbers_of_the_list(self) -> None:
        plate = look({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 30, 0)]}, **{"drive.stages": [{**CHAIN, "links": 81}]})
        for mark in plate.plan.marks:
            clash = plate.clashes[mark.number]
            self.assertEqual((mark.level, (mark.x, mark.y)), (clash.level, clash.at))
        self.assertTrue(any(mark.level == "mind" for mark in plate.plan.marks))

    def test_the_ground_lies_a_loaded_wheel_below_the_axle(self) -> None:
        drawn = plan({"shafts": [shaft(AXLE, 100, 80)]})
        assert drawn.ground is not None
        self.assertAlmostEqual(drawn.ground, 0.08 - 0.0625, 12)
        self.assertEqual(drawn.axle, AXLE)

    def test_shafts_carry_their_wheels_by_number(self) -> None:
        drawn = plan({})
        jack = drawn.shafts[1]
        self.assertEqual([drawn.wheels[i].member for i in jack.wheels], ["driven", "driver"])
        self.assertTrue(all(drawn.wheels[i].x == jack.x for i in jack.wheels))

    def test_idlers_have_shafts_of_their_own(self) -> None:
        stage = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 56, "idlers": [20, 24], "module": "1 mm"}
        setup = set_up(read({}, **{"drive.branches.0.stages": [stage]}).design)
        self.assertEqual(setup.plane.shafts[:4], [MOTOR, f"{JACK}.idlers[0]", f"{JACK}.idlers[1]", JACK])
        apart = [round(1e3 * setup.distance(coupling), 1) for coupling in setup.plane.couplings[:3]]
        self.assertEqual(apart, [17.6, 22.1, 40.1])

    def test_a_ring_holds_its_pinion_inside(self) -> None:
        stage = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "internal": True, "module": "1 mm"}
        edits = {"drive.branches.0.stages": [stage], "drive.stages": []}
        drawn = plan({}, **edits)
        self.assertAlmostEqual(
            drawn.shafts[1].x - drawn.shafts[0].x, 0.0225 - 0.04e-3 / (2 * math.tan(math.radians(20))), 9
        )
        tight = look({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 23, 0)]}, **edits)
        self.assertIn("too tight", tight.clashes[0].text)
        self.assertFalse(look({"shafts": [shaft(MOTOR, 0, 0), shaft(JACK, 22.45, 0)]}, **edits).clashes)

    def test_a_tooth_size_that_is_missing_is_said(self) -> None:
        bare = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 56}
        plate = look({}, **{"drive.branches.0.stages": [bare]})
        self.assertIn("no tooth size given", plate.clashes[0].text)
        self.assertEqual(plate.plan.marks, [])
