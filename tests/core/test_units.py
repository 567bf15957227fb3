import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from ydrometer.base import units
from ydrometer.base.errors import QuantityError
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.tables.usual_units import USUAL


class TypedQuantities(unittest.TestCase):
    def test_as_people_type_them(self) -> None:
        for text, dimension, si in (
            ("3 1/4 in", "length", 0.08255),
            ('3 1/4"', "length", 0.08255),
            ("7/8 in", "length", 0.022225),
            ("3-1/4 in", "length", 0.08255),
            ("14.8V", "voltage", 14.8),
            ("12 mph", "speed", 5.36448),
            ("18 km/h", "speed", 5.0),
            ("35 oz·in", "torque", 0.2471543135),
            ("35 ozf*in", "torque", 0.2471543135),
            ("0.9 Nm", "torque", 0.9),
            ("12 lbf*in", "torque", 1.3558179483),
            ("100 gf*cm", "torque", 0.00980665),
            ("12 kg", "force", 117.6798),
            ("8 %", "ratio", 0.08),
            ("18%", "grade", 0.18),
            ("420 rpm/V", "speed constant", 420 * 2 * math.pi / 60),
            ("38 mohm", "resistance", 0.038),
            ("38 mΩ", "resistance", 0.038),
            ("5 Ah", "charge", 18000.0),
            ("2200 mA*h", "charge", 7920.0),
            ("25 degC", "temperature", 298.15),
            ("77 °F", "temperature", 298.15),
            ("42 g*cm^2", "inertia", 4.2e-6),
            ("32 1/in", "diametral pitch", 32 / 0.0254),
            ("0,5 kg", "mass", 0.5),
            ("−5 %", "grade", -0.05),
            ("2 hp", "power", 1491.3997431),
            ("250 ms", "time", 0.25),
            ("0.5 ft²", "area", 0.04645152),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(units.parse(text, dimension) / si, 1.0, places=9)

    def test_what_no_computer_divides_by_is_nothing(self) -> None:
        self.assertEqual((units.parse("5e-324 kg", "mass"), units.parse(5e-324, "mass")), (0.0, 0.0))
        self.assertEqual(units.parse("1e-20 kg", "mass"), 1e-20)

    def test_a_bare_number_is_si(self) -> None:
        self.assertEqual(units.parse(3, "length"), 3.0)

    def test_what_is_no_quantity_says_what_would_be(self) -> None:
        for text, dimension, complaint in (
            ("5", "mass", "has no unit"),
            ("5 s", "mass", "is not a unit of mass"),
            ("5 furlongs", "mass", "is not a unit of mass"),
            ("heavy", "mass", "is not a number with a unit"),
            ("1,200 kg", "mass", "is not a unit of mass"),
            ("1/0 kg", "mass", "is not a finite number"),
            ("1e999 kg", "mass", "is not a finite number"),
            ("1e301 kg", "mass", "is beyond all sizes"),
            ("5 kg^9999", "mass", "is not a unit of mass"),
            ("9" * 500 + " kg", "mass", "is too long"),
            ("5 kg; import os", "mass", "is not a unit of mass"),
            ("", "mass", "is not a number with a unit"),
        ):
            with self.subTest(text[:20]):
                with self.assertRaises(QuantityError) as caught:
                    units.parse(text, dimension)
                self.assertIn(complaint, str(caught.exception))
                self.assertIn("12.5 kg", caught.exception.remedy)

    def test_numbers_that_are_none(self) -> None:
        for value in (math.nan, math.inf, True, 10**400):
            with self.subTest(repr(value)[:10]), self.assertRaises(QuantityError):
                units.parse(value, "mass")

    def test_every_example_reads_as_its_own_kind(self) -> None:
        for dimension in DIMENSIONS.values():
            for example in dimension.example.split(" or "):
                with self.subTest(example):
                    self.assertTrue(math.isfinite(units.parse(example, dimension.name)))

    def test_every_display_unit_converts(self) -> None:
        for dimension in DIMENSIONS.values():
            for unit in (dimension.si, dimension.metric, dimension.inch):
                with self.subTest(dimension.name, unit=unit):
                    self.assertGreater(units.scale(unit, dimension.name)[0], 0.0)

    @given(st.text(max_size=90), st.sampled_from(sorted(DIMENSIONS)))
    def test_any_text_is_read_or_refused(self, text: str, dimension: str) -> None:
        try:
            self.assertTrue(math.isfinite(units.parse(text, dimension)))
        except QuantityError as error:
            self.assertTrue(error.remedy)


class UsualUnits(unittest.TestCase):
    def test_have_the_scales_of_the_units_library(self) -> None:
        for dimension, scales in USUAL.items():
            for unit, scale in scales.items():
                with self.subTest(dimension, unit=unit):
                    self.assertEqual(units.library_scale(unit, dimension), scale)

    def test_are_all_that_the_page_shows(self) -> None:
        for name, dimension in DIMENSIONS.items():
            for unit in {dimension.metric, dimension.inch} - {dimension.si}:
                self.assertIn(unit, USUAL[name])
