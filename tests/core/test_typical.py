"""Typical values, as they are offered and kept."""

from __future__ import annotations

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
        ranges += [span for s in tables.MOTOR_SIZES for span in (s.constant, s.drag, s.mass)]
        ranges += [kind.resistance for kind in tables.CELL_KINDS]
        for low, high in ranges:
            self.assertTrue(0.0 < low < high < 8.0 * low, (low, high))

    def test_what_is_offered_can_be_kept_and_lies_in_the_middle(self) -> None:
        cells = {"series": 6, "cell_voltage": "4.2 V", "cell_capacity": "5 A*h"}
        by_cells = changed({"drive.supply": {"kind": "battery", "cells": cells}}, PLAIN)
        whole = changed({"drive.supply.capacity": "5 A*h"}, PLAIN)
        for place in OFFERED:
            path = place.replace("[]", "[0]")
            design = by_cells if "cells" in path else whole
            found = offers(design, path)
            self.assertGreater(len(found), 5, path)
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
        self.assertAlmostEqual(km, size.constant[0])

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
