"""Typical values, as they are offered and kept."""

from __future__ import annotations

import itertools
import math
from unittest import TestCase

from tests.core.designs import MOTOR, PLAIN, changed
from ydrometer.base import units
from ydrometer.base.tables import typical as tables
from ydrometer.document.design import read
from ydrometer.questions.typical import OFFERED, offers, pattern

KV = f"{MOTOR}.constants.kv"


def _dotted(path: str) -> str:
    return path.replace("[0]", ".0")


class Typical(TestCase):
    def test_every_row_is_a_range_that_rises(self) -> None:
        ranges = [span for f in tables.FOOTINGS for span in (f.rolling, f.grip)]
        ranges += [span for _, span in (*tables.DRAG_AREAS, *tables.HEIGHTS)]
        ranges += [span for s in tables.MOTOR_SIZES for span in (s.constant_of(None), s.drag, s.mass)]
        ranges += [footing.rolling_of(d) for footing in tables.FOOTINGS for d in (0.06, 0.3, 0.45, 0.7)]
        ranges += [span for _, span in tables.RADIAL_RATINGS]
        ranges += [kind.resistance for kind in tables.CELL_KINDS]
        for low, high in ranges:
            self.assertTrue(0.0 < low < high < 8.0 * low, (low, high))

    def test_what_is_offered_can_be_kept_and_lies_in_the_middle(self) -> None:
        cells = {"series": 6, "cell_voltage": "4.2 V", "cell_capacity": "5 A*h"}
        by_cells = changed({"drive.supply": {"kind": "battery", "cells": cells}}, PLAIN)
        whole = changed({"drive.supply.capacity": "5 A*h", f"{MOTOR}.mass": "400 g"}, PLAIN)
        for place in OFFERED:
            path = place.replace("[]", "[0]")
            design = by_cells if "cells" in path else whole
            found = offers(design, path)
            self.assertGreater(len(found), 1, path)
            for offer in found:
                value = read(changed({_dotted(path): offer.value}, design)).values[path]
                self.assertEqual(value.origin, "assumed")
                self.assertIn(offer.of, value.note)
                self.assertTrue(math.isclose(value.si, (offer.low + offer.high) / 2, rel_tol=0.01), offer)
                self.assertTrue(math.isclose(value.uncertainty, (offer.high - offer.low) / tables.SIGMAS, rel_tol=0.06))

    def test_a_winding_of_twice_the_speed_constant_has_a_quarter_of_the_resistance(self) -> None:
        path = "drive.branches[0].source.constants.resistance"
        slow, fast = (offers(changed({KV: kv}, PLAIN), path)[0] for kv in ("300 rpm/V", "600 rpm/V"))
        self.assertAlmostEqual(slow.low / fast.low, 4.0)
        km = 1.0 / units.parse("300 rpm/V", "speed constant") / math.sqrt(slow.high)
        size = next(s for s in tables.MOTOR_SIZES if s.words == slow.of)
        self.assertAlmostEqual(km, size.constant_of(None)[0])

    def test_small_and_large_ends_of_each_table_are_consistent(self) -> None:
        """One law from the smallest motor to the largest; neighbouring sizes, and tyres and wheels, do not jump."""
        for build, least, most in ((tables.BRUSHED, 0.05, 0.10), (tables.OUTRUNNER, 0.30, 0.80)):
            sizes = sorted((size for size in tables.MOTOR_SIZES if size.build is build), key=lambda size: size.mass)
            for size in sizes:
                for mass in size.mass:
                    ends = [end / mass**0.83 for end in size.constant_of(mass)]
                    self.assertTrue(math.isclose(ends[0], least) and math.isclose(ends[1], most), (size.words, ends))
            for small, large in itertools.pairwise(sizes):
                self.assertLess(small.constant_of(small.mass[1])[1], large.constant_of(large.mass[1])[1])
        for footing in tables.FOOTINGS:
            spans = [footing.rolling_of(0.01 * d) for d in range(5, 80)]
            for smaller, larger in itertools.pairwise(spans):
                self.assertTrue(smaller[0] >= larger[0] > 0.7 * smaller[0] and smaller[1] >= larger[1], footing.words)
        asphalt = tables.FOOTINGS[0]
        for diameter, span in ((0.6, (0.006, 0.018)), (0.4, (0.015, 0.025)), (0.25, (0.020, 0.035))):
            for end, wanted in zip(asphalt.rolling_of(diameter), span, strict=True):
                self.assertAlmostEqual(end, wanted)
        for footing in tables.FOOTINGS:
            if footing.rolls == "hard wheel" and footing.ground != "carpet":
                arms = [0.5 * 0.08 * end for end in footing.rolling_of(0.08)]
                self.assertTrue(0.5e-3 - 1e-9 <= arms[0] < arms[1] <= 1.5e-3 + 1e-9, (footing.words, arms))
        for kind in tables.CELL_KINDS:
            self.assertTrue(kind.nominal < kind.full < 1.15 * kind.nominal, kind.words)

    def test_a_radial_rating_follows_from_the_mass(self) -> None:
        path = "drive.branches[0].source.radial_rating"
        found = offers(changed({f"{MOTOR}.mass": "400 g"}, PLAIN), path)
        self.assertEqual([(round(o.low, 6), round(o.high, 6)) for o in found], [(40.0, 120.0), (13.2, 40.0)])
        self.assertEqual(offers(PLAIN, path), [])

    def test_of_its_own_size_comes_first(self) -> None:
        path = "drive.branches[0].source.constants.no_load_current"
        heavy = changed({f"{MOTOR}.mass": "8 kg"}, PLAIN)
        self.assertEqual(offers(heavy, path)[0].of, "kart motor with brushes")

    def test_a_ground_that_is_named_elsewhere_comes_first(self) -> None:
        taken = next(o for o in offers(PLAIN, "vehicle.grip") if o.of == "rubber track on packed snow")
        design = changed({"vehicle.grip": taken.value}, PLAIN)
        self.assertEqual(offers(design, "vehicle.rolling_resistance")[0].of, taken.of)

    def test_without_what_it_needs_nothing_is_offered(self) -> None:
        source = "drive.branches[0].source.constants"
        for broken in ({}, {"drive": 3}, {"drive": {"branches": [None]}}, changed({KV: "quick"}, PLAIN)):
            self.assertEqual(offers(broken, f"{source}.resistance"), [])
        self.assertEqual(offers(PLAIN, "vehicle.mass"), [])
        self.assertEqual(pattern("a[12].b[0].c"), "a[].b[].c")
