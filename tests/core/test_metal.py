"""What Fit says of a plate's metal, and of screws that no key reaches."""

import math
import unittest
from typing import Any
from unittest.mock import patch

import numpy as np

from tests.core.plates import JACK, MOTOR, PLATE, about, at, look, read, shaft
from ydrometer.fit.metal import Opening, _around, thin_places
from ydrometer.fit.screws import head
from ydrometer.fit.setting_up import set_up
from ydrometer.geometry.segments import off_line

THICK = {**PLATE, "thickness": "3 mm"}
BOLTS = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "angle": "45 deg"}


def told(plate: dict[str, Any], *shafts: dict[str, Any], words: str) -> list[float]:
    """By how much each place with these words falls short, mm."""
    shown = look({"plate": plate, "shafts": list(shafts)})
    return [round(1e3 * clash.amount, 2) for clash in about(shown, words) if clash.level == "clash"]


class Metal(unittest.TestCase):
    def test_between_two_openings_is_a_millimetre_and_a_half_or_half_the_thickness(self) -> None:
        # Holes of 28 and 22 mm, 26 mm apart, leave 1 mm; of 24 mm apart they break into each other by 1 mm.
        first, second = shaft(MOTOR, 60, 48, opening="28 mm"), shaft(JACK, 86, 48, opening="22 mm")
        self.assertEqual(told(THICK, first, second, words="leave 1.00 mm of metal"), [0.5])
        self.assertEqual(told({**PLATE, "thickness": "8 mm"}, first, second, words="leave 1.00 mm of metal"), [3.0])
        near = shaft(JACK, 84, 48, opening="22 mm")
        self.assertEqual(told(THICK, first, near, words="break into each other by 1.00 mm"), [2.5])
        far = shaft(JACK, 87, 48, opening="22 mm")
        self.assertEqual(told(THICK, first, far, words="of metal"), [])

    def test_holes_of_the_grid_are_broken_into_or_swallowed(self) -> None:
        grid = {**THICK, "hole": "5 mm"}
        # Around a hole the next ones stand 12 mm away, and reach from 9.5 to 14.5 mm.
        for across, words in ((16, []), (18, ["leaves 0.50 mm of metal to 4 holes"]), (22, ["breaks into 4 holes"])):
            opening = shaft(MOTOR, 60, 48, opening=f"{across} mm")
            shown = about(look({"plate": grid, "shafts": [opening]}), "of the grid")
            self.assertEqual([next(w for w in words if w in clash.text) for clash in shown], words, across)
        swallowing = shaft(MOTOR, 60, 48, opening="29.1 mm")
        self.assertIn(
            "breaks into 4 holes", about(look({"plate": grid, "shafts": [swallowing]}), "of the grid")[0].text
        )

    def test_to_the_edge_and_along_a_slot(self) -> None:
        motor = {"shaft": MOTOR, "mount": "slot", "slot": {"start": at(10, 48), "end": at(40, 48)}, "opening": "30 mm"}
        self.assertEqual(told(THICK, motor, words="leaves 1.00 mm to the edge"), [0.5])
        beside = shaft(JACK, 66, 48, opening="20 mm")
        self.assertEqual(told(THICK, motor, beside, words="leave 1.00 mm of metal"), [0.5])

    def test_bolts_of_a_motor_beside_its_own_hub(self) -> None:
        hub = shaft(MOTOR, 60, 48, opening="20 mm", bolts=BOLTS)
        # 12.5 mm less half of 20 and of 3.2 mm.
        self.assertEqual(told(THICK, hub, words="leave 0.90 mm of metal"), [0.6])

    def test_two_kinds_are_told_once_however_often_they_meet(self) -> None:
        crowd = {**BOLTS, "count": 64}
        shown = about(look({"plate": THICK, "shafts": [shaft(MOTOR, 60, 48, bolts=crowd)]}), "a bolt around")
        texts = [clash.text for clash in shown]
        self.assertEqual(len(texts), len(set(texts)))
        self.assertEqual(sum("break into each other" in text for text in texts), 1)

    def test_what_nobody_drills_is_not_looked_at(self) -> None:
        wide = {**THICK, "hole": "5 mm", "across": 80, "up": 80}
        opening = shaft(MOTOR, 60, 48, opening="22 mm")
        self.assertEqual(about(look({"plate": wide, "shafts": [opening]}), "of the grid"), [])
        many = {**BOLTS, "count": 64}
        crowded = set_up(read({"plate": THICK, "shafts": [shaft(MOTOR, 60, 48, bolts=many)]}).design)
        with patch("ydrometer.fit.metal.MOST_OPENINGS", 1):
            self.assertEqual([clash.text for clash in thin_places(crowded)], [])

    def test_windows_of_the_grid_find_what_looking_at_all_of_it_does(self) -> None:
        plate = set_up(read({"plate": {**THICK, "hole": "5 mm"}}).design).mounting.plate
        assert plate is not None
        for x, y, across in ((0.0, 0.0, 30.0), (59.0, 50.0, 7.0), (348.0, 108.0, 22.0), (-40.0, 20.0, 60.0)):
            opening = Opening("it", MOTOR, (1e-3 * x, 1e-3 * y), (1e-3 * (x + 30.0), 1e-3 * y), 0.5e-3 * across)
            rows, columns = _around(plate, opening, 4e-3)
            grid = np.array(plate.holes()).reshape(plate.up, plate.across, 2)
            away = off_line(grid, np.array(opening.start), np.array(opening.end))
            inside = np.zeros(away.shape, bool)
            inside[rows, columns] = True
            self.assertFalse((away[~inside] < opening.radius + 4e-3).any(), (x, y))


class Keys(unittest.TestCase):
    def test_heads_are_those_of_the_standard(self) -> None:
        for hole, across in ((3.2, 5.5), (4.3, 7.0), (5.3, 8.5), (6.4, 10.0), (8.4, 13.0)):
            self.assertTrue(math.isclose(head(1e-3 * hole), 1e-3 * across, rel_tol=0.03), hole)

    def test_reach_the_screws_of_a_motor_that_is_moved_or_it_is_told(self) -> None:
        slot = {"start": at(60, 48), "end": at(90, 48)}
        moved = {"shaft": MOTOR, "mount": "slot", "slot": slot, "bolts": BOLTS}
        fixed = shaft(JACK, 110, 48)
        over = about(look({"plate": THICK, "shafts": [moved, fixed]}), "no key reaches")
        self.assertIn("the 56-tooth gear stands over them", over[0].text)
        wide = {**moved, "bolts": {**BOLTS, "circle": "90 mm", "angle": "45 deg"}}
        self.assertEqual(about(look({"plate": THICK, "shafts": [wide, fixed]}), "no key reaches"), [])
        held = shaft(MOTOR, 74.5, 48, bolts=BOLTS)
        self.assertEqual(about(look({"plate": THICK, "shafts": [held, fixed]}), "no key reaches"), [])
