"""Shapes in the plane: identities, inverses, closed forms, and brute force where something is searched for."""

from __future__ import annotations

import itertools
import json
import math
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.designs import PLAIN, changed
from ydrometer.document import design
from ydrometer.document.mounting import Tensioner
from ydrometer.document.stages.forms import GROOVED
from ydrometer.document.stages.v_belt import VBelt
from ydrometer.files.fit_report import report
from ydrometer.fit import bores, hands, mounts, stack
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.idlers import idlers
from ydrometer.fit.running import Running
from ydrometer.geometry import chains, gears, loops
from ydrometer.geometry.around import Round, taut

ANGLE = math.radians(20.0)
TEETH = st.integers(8, 120)


class Pairs(TestCase):
    def test_known_distances(self) -> None:
        self.assertAlmostEqual(gears.centre_distance(1e-3, 15, 56, ANGLE), 35.5e-3)
        self.assertAlmostEqual(gears.centre_distance(1e-3, 15, 56, ANGLE, internal=True), 20.5e-3)
        self.assertAlmostEqual(gears.outside_diameter(25.4e-3 / 32, 30), 25.4e-3)
        with self.assertRaises(ValueError):
            gears.centre_distance(1e-3, 56, 15, ANGLE, internal=True)

    @given(TEETH, TEETH, st.floats(0.0, 3e-4), st.booleans())
    def test_play_is_the_distance_turned_round(self, driver: int, more: int, play: float, internal: bool) -> None:
        driven = driver + more
        distance = gears.centre_distance(1e-3, driver, driven, ANGLE, internal=internal, backlash=play)
        self.assertAlmostEqual(gears.backlash(distance, 1e-3, driver, driven, ANGLE, internal=internal), play, 12)

    def test_play_grows_with_the_radius_and_with_the_paper(self) -> None:
        self.assertAlmostEqual(gears.rocking(1e-4, 0.028, 0.1), 1e-4 * 0.1 / 0.028)
        self.assertAlmostEqual(2.0 * hands.paper_for(1e-4, ANGLE) / math.cos(ANGLE), 1e-4)


RADIUS = st.floats(0.005, 0.2)


class Loops(TestCase):
    @given(RADIUS, RADIUS, st.floats(1.01, 10.0))
    def test_a_length_gives_its_distance_back_open_and_crossed(self, r1: float, r2: float, factor: float) -> None:
        distance = (r1 + r2) * factor
        for of, back in ((loops.length, loops.centre_distance), (loops.crossed_length, loops.crossed_centre_distance)):
            self.assertAlmostEqual(back(of(r1, r2, distance), r1, r2) or 0.0, distance, 9)

    @given(RADIUS, RADIUS, st.floats(1.01, 10.0))
    def test_two_wheels_of_a_general_loop_are_the_closed_forms(self, r1: float, r2: float, factor: float) -> None:
        distance = (r1 + r2) * factor
        opened = taut([Round(0.0, 0.0, r1), Round(distance, 0.0, r2)])
        self.assertAlmostEqual(opened.length, loops.length(r1, r2, distance), 10)
        for wrap, known in zip(opened.wraps, loops.wraps(r1, r2, distance), strict=True):
            self.assertAlmostEqual(wrap, known, 9)
        crossed = taut([Round(0.0, 0.0, r1), Round(distance, 0.0, r2, outside=True)])
        self.assertAlmostEqual(crossed.length, loops.crossed_length(r1, r2, distance), 10)

    def test_a_rolling_pin_under_a_square_of_wheels(self) -> None:
        corners = [Round(x, y, 0.1) for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))]
        self.assertAlmostEqual(taut(corners).length, 4.0 + 0.2 * math.pi)

    def test_an_idler_outside_adds_to_the_wraps_inside_alike(self) -> None:
        plain = taut([Round(0.0, 0.0, 0.05), Round(0.4, 0.0, 0.05)])
        pressed = taut([Round(0.0, 0.0, 0.05), Round(0.4, 0.0, 0.05), Round(0.2, 0.055, 0.02, outside=True)])
        self.assertGreater(pressed.length, plain.length)
        self.assertGreater(pressed.wraps[0], plain.wraps[0])
        self.assertAlmostEqual(sum(pressed.wraps[:2]) - pressed.wraps[2], 2.0 * math.pi)

    def test_what_overlaps_has_no_run(self) -> None:
        with self.assertRaises(ValueError):
            taut([Round(0.0, 0.0, 0.3), Round(0.1, 0.0, 0.05)])
        with self.assertRaises(ValueError):
            taut([Round(0.0, 0.0, 0.3)])

    def test_teeth_in_mesh(self) -> None:
        self.assertEqual(loops.in_mesh(18, math.pi), 9)
        self.assertEqual(loops.in_mesh(18, math.pi - 1e-6), 8)

    def test_chains_run_on_polygons(self) -> None:
        self.assertAlmostEqual(chains.pitch_diameter(12.7e-3, 6), 25.4e-3)
        self.assertAlmostEqual(chains.ripple(6), 1.0 - math.sqrt(0.75))


class Mounts(TestCase):
    def test_an_eccentric_turned_by_its_angle_shifts_as_asked(self) -> None:
        angle = mounts.eccentric_angle(3e-3, 0.034, 0.035) or 0.0
        self.assertAlmostEqual(mounts.eccentric_distance(3e-3, 0.034, angle), 0.035)
        # The shaft goes round a middle that lies 37 mm from the partner.
        shaft = (0.037 - 3e-3 * math.cos(angle), 3e-3 * math.sin(angle))
        self.assertAlmostEqual(math.hypot(*shaft), 0.035)
        self.assertIsNone(mounts.eccentric_angle(3e-3, 0.034, 0.041))

    def test_which_pinions_a_slot_allows_and_what_the_next_ones_want(self) -> None:
        found = mounts.pinions(1e-3, 56, 35e-3, 36.2e-3, ANGLE)
        self.assertEqual([p.teeth for p in found if p.missing == 0.0], [14, 15, 16])
        self.assertEqual([(p.teeth, round(p.missing * 1e3, 6)) for p in found if p.missing], [(13, 0.5), (17, 0.3)])


SPACERS = st.dictionaries(st.sampled_from([0.5, 1.0, 2.0, 3.0, 5.0]), st.integers(1, 2), min_size=1, max_size=3)


class Stacks(TestCase):
    def test_exactly_with_fewest_pieces(self) -> None:
        (one,) = stack.fill([8e-3], {5e-3: 2, 3e-3: 1, 2e-3: 4, 1e-3: 4}).fillings
        self.assertEqual((one.pieces, one.error), ((5e-3, 3e-3), 0.0))

    def test_the_nearest_with_its_error_where_nothing_is_exact(self) -> None:
        (one,) = stack.fill([7.3e-3], {5e-3: 1, 2e-3: 1}).fillings
        self.assertEqual(one.pieces, (5e-3, 2e-3))
        self.assertAlmostEqual(one.error, -0.3e-3)
        self.assertEqual(stack.fill([4e-3], {}).fillings[0].error, -4e-3)

    def test_eight_of_a_thirtysecond_of_an_inch_fill_a_quarter(self) -> None:
        found = stack.fill([25.4e-3 / 4], {25.4e-3 / 32: 8})
        self.assertEqual((len(found.fillings[0].pieces), found.fillings[0].error, found.best), (8, 0.0, True))

    @settings(max_examples=40, deadline=None)
    @given(st.lists(st.integers(0, 12), min_size=1, max_size=2), SPACERS)
    def test_as_good_as_trying_everything(self, gaps: list[int], at_hand: dict[float, int]) -> None:
        rows = stack.fill([g * 1e-3 for g in gaps], {t * 1e-3: n for t, n in at_hand.items()}).fillings
        made = sum(abs(f.error) for f in rows), sum(len(f.pieces) for f in rows)
        best = min(self.every(gaps, sorted(at_hand), tuple(at_hand[t] for t in sorted(at_hand))))
        self.assertAlmostEqual(made[0] * 1e3, best[0], 6)
        self.assertEqual(made[1], best[1])

    def every(self, gaps: list[int], sizes: list[float], stock: tuple[int, ...]) -> list[tuple[float, int]]:
        if not gaps:
            return [(0.0, 0)]
        found = []
        for counts in itertools.product(*(range(n + 1) for n in stock)):
            off = abs(sum(n * s for n, s in zip(counts, sizes, strict=True)) - gaps[0])
            left = tuple(n - used for n, used in zip(stock, counts, strict=True))
            found += [
                (round(off + rest, 9), sum(counts) + pieces) for rest, pieces in self.every(gaps[1:], sizes, left)
            ]
        return found


class Hands(TestCase):
    @given(st.floats(20.0, 2000.0), st.floats(0.05, 1.0), st.floats(0.02, 0.5))
    def test_a_note_gives_its_tension_back(self, tension: float, span: float, mass: float) -> None:
        sounded = 4.0 * mass * span**2 * hands.note(tension, span, mass) ** 2
        self.assertAlmostEqual(sounded / tension, 1.0)

    def test_a_push_at_mid_span(self) -> None:
        self.assertAlmostEqual(hands.push(100.0, 0.4, 0.004), 4.0)


class Bores(TestCase):
    def test_what_would_make_it_go(self) -> None:
        answers = {
            (8e-3, "round", 8e-3, "round"): "fits",
            (8e-3, "round", 8e-3, "flat"): "fits",
            (12e-3, "round", 8e-3, "round"): "sleeve",
            (8e-3, "round", 12e-3, "keyway"): "bore out",
            (8e-3, "flat", 8e-3, "round"): "bore out",
            (12e-3, "hexagon", 8e-3, "round"): "adapter",
            (12e-3, "hexagon", 12e-3, "round"): "another",
            (10e-3, "square", 12e-3, "hexagon"): "another",
            (12e-3, "hexagon", 12e-3, "hexagon"): "fits",
        }
        for (bore, shape, shaft, other), answer in answers.items():
            self.assertEqual(bores.seat(bore, shape, shaft, other).answer, answer)


class Report(TestCase):
    def told(self, **edits: object) -> list[dict[str, object]]:
        stages: list[dict[str, object]] = report(design.read(changed(edits)))["stages"]
        return stages

    def test_sizes_and_what_to_mind(self) -> None:
        gear, belt = self.told()
        self.assertIn("centre_distance", str(gear["sizes"]))
        self.assertIn("span", str(belt["sizes"]))
        chain = {"kind": "chain", "driver_teeth": 12, "driven_teeth": 40, "pitch": "9.525 mm", "links": 81}
        small = {"kind": "belt", "driver_teeth": 10, "driven_teeth": 60, "pitch": "5 mm", "belt_teeth": 70}
        for stage, words in (
            (chain, "offset link"),
            (small, "fewer than 6"),
            ({**small, "belt_teeth": 40}, "too short"),
        ):
            with self.subTest(words):
                self.assertIn(words, str(report(design.read(changed({"drive.stages": [stage]})))["clashes"]))

    def test_a_plate_has_placements(self) -> None:
        fit = {"plate": {"hole_pitch": "12 mm", "across": 20, "up": 8}}
        pair = {"kind": "gear", "driver_teeth": 60, "driven_teeth": 60, "module": "1 mm"}
        lines = report(design.read({**changed({"drive.branches.0.stages": [pair], "drive.stages": []}), "fit": fit}))
        self.assertEqual(lines["placements"]["count"], len(lines["placements"]["best"]))
        self.assertGreater(lines["placements"]["count"], 3)

    def test_on_the_command_line(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "design.json"
            file.write_text(json.dumps(PLAIN))
            command = [sys.executable, "-m", "ydrometer", "fit", str(file)]
            done = subprocess.run(command, capture_output=True, text=True, check=True)
        self.assertEqual(json.loads(done.stdout)["format"], "ydrometer-fit")


RADII = st.floats(0.01, 0.1)


class Idlers(TestCase):
    @settings(suppress_health_check=[HealthCheck.too_slow], deadline=None)
    @given(RADII, RADII, st.floats(1.1, 4.0), st.floats(0.001, 0.15), st.floats(0.0, 6.0))
    def test_an_idler_takes_up_what_the_loop_is_too_long(
        self, r1: float, r2: float, apart: float, more: float, turned: float
    ) -> None:
        distance = apart * (r1 + r2)
        other = (0.3 + distance * math.cos(turned), -0.1 + distance * math.sin(turned))
        wheels = [Wheel("v", m, m, m, GROOVED, 2.0 * r, 0.0, r, r) for m, r in (("driver", r1), ("driven", r2))]
        stage = VBelt(driver_pitch_diameter=2 * r1, driven_pitch_diameter=2 * r2)
        coupling = Coupling("v", stage, wheels[0], wheels[1], (), r1 + r2)
        length = (1.0 + more) * loops.length(r1, r2, distance)
        for idler in idlers(coupling, (0.3, -0.1), other, length):
            third = Tensioner(at=idler.at, diameter=idler.diameter, outside=idler.outside)
            loop = Running((0.3, -0.1), other, (r1, r2), crossed=False, tensioner=third)
            self.assertTrue(loop.reached)
            self.assertAlmostEqual(loop.taut.length, length, 6)
            self.assertEqual(idler.diameter, 2.0 * min(r1, r2))

    def test_one_may_be_had_on_either_side_of_either_run(self) -> None:
        wheels = [Wheel("v", m, m, m, GROOVED, 0.06, 0.0, 0.03, 0.03) for m in ("driver", "driven")]
        coupling = Coupling(
            "v", VBelt(driver_pitch_diameter=0.06, driven_pitch_diameter=0.06), wheels[0], wheels[1], (), 0.06
        )
        found = list(idlers(coupling, (0.0, 0.0), (0.3, 0.0), 1.01 * loops.length(0.03, 0.03, 0.3)))
        self.assertEqual(
            [(i.outside, i.at[1] > 0.0) for i in found], [(True, True), (True, False), (False, True), (False, False)]
        )
        # Where an outside one would come to the other run, only those inside are left.
        far = idlers(coupling, (0.0, 0.0), (0.3, 0.0), 1.3 * loops.length(0.03, 0.03, 0.3))
        self.assertEqual({idler.outside for idler in far}, {False})
