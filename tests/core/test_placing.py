"""Placing shafts on a plate: complete against trying every hole; slots, clearances, and what would help."""

from __future__ import annotations

import itertools
import math
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ydrometer.fit.along import NOISE, Frame, Reach, best_settings
from ydrometer.fit.placing import placements, relaxations
from ydrometer.fit.problem import MOST_IN_ALL, Clear, Effort, PlacedPair, PlacedShaft, Problem
from ydrometer.geometry.segments import off_line

PITCH = 12e-3
MICROMETRES = st.integers(12_000, 50_000)


def holes(across: int, up: int, pitch: float = PITCH) -> tuple[tuple[float, float], ...]:
    return tuple((i * pitch, j * pitch) for j in range(up) for i in range(across))


def gear(one: str, other: str, distance: float, tolerance: float = 1e-4) -> PlacedPair:
    return PlacedPair(one, other, (Reach(distance, distance + tolerance, distance, "gears"),))


FIXED = PlacedShaft("motor", ((0.0, 0.0),))


class OnHoles(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(MICROMETRES, MICROMETRES, st.integers(0, 4000), st.integers(0, 30_000))
    def test_all_that_trying_every_hole_finds(self, one: int, other: int, more: int, apart: int) -> None:
        a, b, give, least = (n * 1e-6 for n in (one, other, more, apart))
        grid = holes(5, 4)
        plate = Problem(
            (FIXED, PlacedShaft("middle", grid), PlacedShaft("axle", grid)),
            (gear("motor", "middle", a, give), gear("middle", "axle", b, give)),
            (Clear("motor", "axle", least),),
        )
        rows = {(p.at["middle"], p.at["axle"]) for p in placements(plate).placements}
        every = {
            (middle, axle)
            for middle, axle in itertools.product(grid, grid)
            if -NOISE <= math.dist((0.0, 0.0), middle) - a <= give + NOISE
            and -NOISE <= math.dist(middle, axle) - b <= give + NOISE
            and math.dist((0.0, 0.0), axle) >= least - NOISE
        }
        self.assertEqual(rows, every)

    def test_the_least_error_stands_first_and_says_which_length_it_has(self) -> None:
        belts = PlacedPair(
            "motor", "axle", tuple(Reach(d - 2e-3, d, d - 1e-3, f"{n}") for n, d in ((84, 0.061), (90, 0.0735)))
        )
        first, *others = placements(Problem((FIXED, PlacedShaft("axle", holes(8, 8))), (belts,))).placements
        self.assertEqual(first.reaches[0].name, "84")
        self.assertAlmostEqual(first.error, 0.0, 6)
        self.assertTrue(all(p.error >= first.error for p in others))

    def test_a_frame_line_keeps_clear(self) -> None:
        plate = Problem((FIXED, PlacedShaft("axle", holes(6, 6))), (gear("motor", "axle", 0.06),))
        free = {p.at["axle"] for p in placements(plate).placements}
        low = Frame("axle", (-1.0, 0.0), (1.0, 0.0), 0.02)
        kept = {p.at["axle"] for p in placements(Problem(plate.shafts, plate.pairs, (), (low,))).placements}
        self.assertEqual(kept, {spot for spot in free if spot[1] >= 0.02})
        self.assertLess(len(kept), len(free))


class InSlots(unittest.TestCase):
    def test_a_slot_takes_the_shaft_to_its_distance_and_tells_the_room(self) -> None:
        slot = PlacedShaft("axle", ((0.05, 0.0), (0.08, 0.0)), slot=True)
        belts = PlacedPair("motor", "axle", (Reach(0.05, 0.0625, 0.0625, "84"), Reach(0.05, 0.07, 0.07, "90")))
        placed = placements(Problem((FIXED, slot), (belts,))).placements
        self.assertEqual(sorted(p.reaches[0].name for p in placed), ["84", "90"])
        rooms = {p.reaches[0].name: p.room for p in placed}
        self.assertAlmostEqual(rooms["84"], 0.0125, 4)
        self.assertAlmostEqual(rooms["90"], 0.01, 4)
        self.assertEqual(placed[0].reaches[0].name, "84")

    @given(
        st.lists(st.tuples(st.floats(-0.05, 0.1), st.floats(-0.06, 0.06)), min_size=1, max_size=2),
        st.lists(st.floats(0.01, 0.09), min_size=1, max_size=2, unique=True),
        st.floats(1e-6, 4e-3),
        st.tuples(st.floats(0.0, 0.05), st.floats(-0.02, 0.02)),
        st.floats(0.0, 0.02),
        st.floats(-1.0, 0.9),
    )
    def test_as_good_as_trying_all_along_it(
        self,
        partners: list[tuple[float, float]],
        bests: list[float],
        give: float,
        post: tuple[float, float],
        keep: float,
        inside: float,
    ) -> None:
        within = inside * keep
        reaches = [Reach(best - give, best + give, best, f"{n}") for n, best in enumerate(bests)]
        edge = Frame("axle", (post[0] + 0.03, post[1]), (post[0] + 0.04, post[1] + 0.005), keep)
        rows = best_settings(
            ((0.0, 0.0), (0.05, 0.0)), [(p, reaches) for p in partners], [(post, (within, keep))], [edge]
        )
        tried = np.stack([np.linspace(0.0, 0.05, 20_001), np.zeros(20_001)], axis=1)
        ends = np.array(edge.start), np.array(edge.end)
        from_post = np.hypot(*(tried - np.array(post)).T)
        free = (off_line(tried, *ends) >= keep) & ((from_post >= keep) | (from_post <= within))
        apart = [np.hypot(*(tried - np.array(p)).T) for p in partners]
        for chosen in itertools.product(reaches, repeat=len(partners)):
            good, error = free.copy(), np.zeros(len(tried))
            for distance, reach in zip(apart, chosen, strict=True):
                good &= (distance >= reach.low) & (distance <= reach.high)
                error += np.abs(distance - reach.best)
            if good.any():
                self.assertLess(min(e for _, e in rows), error[good].min() + 1e-7)
        for spot, _ in rows:
            self.assertGreaterEqual(float(off_line(np.array([spot]), *ends)[0]), keep - 1e-8)
            self.assertTrue(all(min(r.off(math.dist(spot, p)) for r in reaches) < 1e-8 for p in partners))

    def test_a_way_that_lies_between_two_fiftieths_of_a_millimetre_is_found(self) -> None:
        slot = PlacedShaft("axle", ((0.05, 0.0), (0.09, 0.0)), slot=True)
        fine = PlacedPair("motor", "axle", (Reach(0.0612345, 0.0612346, 0.0612345),))
        (way,) = placements(Problem((FIXED, slot), (fine,))).placements
        self.assertAlmostEqual(way.at["axle"][0], 0.0612345, 9)

    def test_two_slots_that_face_each_other_are_refused(self) -> None:
        slots = [PlacedShaft(name, ((0.0, y), (0.05, y)), slot=True) for name, y in (("one", 0.0), ("other", 0.06))]
        with self.assertRaises(ValueError):
            placements(Problem(tuple(slots), (gear("one", "other", 0.06),)))
        with self.assertRaises(ValueError):
            placements(Problem((FIXED,), (gear("motor", "axle", 0.06),)))


class Helping(unittest.TestCase):
    def test_the_least_give_that_would_do(self) -> None:
        plate = Problem((FIXED, PlacedShaft("axle", holes(8, 1))), (gear("motor", "axle", 0.0587, 1e-4),))
        self.assertEqual(placements(plate), ([], True))
        (one,) = relaxations(plate)
        self.assertAlmostEqual(one.extra, 0.06 - 0.0588, 5)

    def test_teeth_are_not_pushed_into_each_other(self) -> None:
        row = PlacedShaft("axle", holes(8, 1))
        near = PlacedPair("motor", "axle", (Reach(0.0605, 0.0606, 0.0605),), nearer=False)
        self.assertEqual(relaxations(Problem((FIXED, row), (near,))), [])
        self.assertEqual(relaxations(Problem((FIXED, row), (replace(near, nearer=True),)))[0].pair, 0)

    def test_where_two_stand_in_the_way_no_one_helps(self) -> None:
        pairs = (gear("motor", "middle", 0.0587), gear("middle", "axle", 0.0587))
        row = holes(12, 1)
        plate = Problem((FIXED, PlacedShaft("middle", row), PlacedShaft("axle", row)), pairs)
        self.assertEqual(relaxations(plate), [])


class Large(unittest.TestCase):
    def test_forty_by_twelve_holes_three_free_shafts_thirty_lengths(self) -> None:
        grid = holes(40, 12)
        lengths = tuple(Reach(d, d + 2e-4, d, str(n)) for n, d in enumerate(0.06 + 0.0025 * k for k in range(30)))
        plate = Problem(
            (
                PlacedShaft("motor", ((0.0, 0.0),)),
                PlacedShaft("first", grid),
                PlacedShaft("second", grid),
                PlacedShaft("axle", grid),
            ),
            (gear("motor", "first", 0.06), PlacedPair("first", "second", lengths), gear("second", "axle", 0.06)),
            (Clear("motor", "second", 0.05), Clear("first", "axle", 0.05), Clear("motor", "axle", 0.08)),
        )
        found, complete = placements(plate)
        self.assertTrue(complete)
        self.assertGreater(len(found), 100)
        self.assertEqual(len({tuple(sorted(p.at.items())) for p in found}), len(found))

    def test_what_is_too_much_is_bounded_and_told(self) -> None:
        grid = holes(200, 200, 0.01)
        shafts = [PlacedShaft("s0", ((1.0, 1.0),)), *(PlacedShaft(f"s{i}", grid) for i in range(1, 6))]
        chain = tuple(gear(f"s{i}", f"s{i + 1}", 0.05, 0.0) for i in range(5))
        effort = Effort()
        found, complete = placements(Problem(tuple(shafts), chain), 500, effort)
        self.assertEqual((len(found), complete), (500, False))
        self.assertLess(MOST_IN_ALL - effort.left, 2 * MOST_IN_ALL)
