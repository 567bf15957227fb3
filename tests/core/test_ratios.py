"""Ratios as fractions, in both directions, with what is asked and remarked about them."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from tests.core.designs import GEAR, read
from ydrometer.evaluation.ratios import question, ratio_views

STAGE = "drive.branches[0].stages[0]"


class Views(unittest.TestCase):
    @given(driver=st.integers(5, 200), driven=st.integers(5, 200))
    def test_fractions_are_reduced_and_exact(self, driver: int, driven: int) -> None:
        views = ratio_views(read({f"{GEAR}.driver_teeth": driver, f"{GEAR}.driven_teeth": driven}).design)
        gears, belt, overall = views
        assert gears.terms and belt.terms and overall.terms
        self.assertEqual(math.gcd(*gears.terms), 1)
        for view in views:
            assert view.terms
            self.assertAlmostEqual(view.terms[0] / view.terms[1], view.ratio)
        self.assertAlmostEqual(overall.ratio, gears.ratio * belt.ratio)
        self.assertEqual("multiples" in gears.remark, math.gcd(driver, driven) > 1)
        self.assertEqual(belt.remark, "")

    def test_what_has_no_teeth_has_no_fraction(self) -> None:
        *_, box, overall = ratio_views(read({"drive.stages": [{"kind": "gearbox", "ratio": 5}]}).design)
        self.assertEqual((box.terms, overall.terms), (None, None))

    def test_an_idler_is_told_to_change_nothing(self) -> None:
        view = ratio_views(read({f"{GEAR}.idlers": [20]}).design)[0]
        self.assertIn("nothing but turning sense and distance", view.remark)

    def test_each_gear_has_its_overall(self) -> None:
        views = ratio_views(read({"drive.stages": [{"kind": "speeds", "ratios": [3, 2, 1]}]}).design)
        self.assertEqual([v.gear for v in views if v.path == "drive.branches[0]"], [0, 1, 2])


class Questions(unittest.TestCase):
    def ask(self, told: float) -> str:
        return question(read().design, STAGE, told)

    def test_what_is_asked(self) -> None:
        for told, words in (
            (56 / 15, "agrees"),
            (3.73, "agrees"),
            (15 / 56, "the other way round"),
            (2 * 56 / 15, "whole line"),
            (4.2, "63 driven teeth would make 4.2"),
        ):
            with self.subTest(told):
                self.assertIn(words, self.ask(told))

    def test_a_stage_without_teeth_and_one_that_is_not_there(self) -> None:
        box = read({"drive.stages": [{"kind": "gearbox", "ratio": 5}]}).design
        self.assertIn("Which of the two", question(box, "drive.stages[0]", 7.0))
        self.assertEqual(question(box, "drive.stages[3]", 7.0), "")
