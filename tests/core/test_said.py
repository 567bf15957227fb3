"""Whatever is said of the mounting of a design, it is answered, or refused with words."""

from __future__ import annotations

import contextlib
import random
from typing import Any
from unittest import TestCase

from tests.core.plates import AXLE, JACK, MOTOR, PLATE, at, read
from tests.core.test_flanges import adapter
from ydrometer.base.errors import DocumentError
from ydrometer.files.fit_report import report
from ydrometer.files.sheets.outline import plate_outline
from ydrometer.fit.setting_up import set_up

GEARS = {"kind": "gear", "module": "1 mm", "driver_teeth": 20, "driven_teeth": 60}
FIRST = (
    GEARS,
    {**GEARS, "idlers": [31]},
    {**GEARS, "internal": True},
    {"kind": "v_belt", "driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "150 mm", "crossed": True},
    {"kind": "bevel", "driver_teeth": 16, "driven_teeth": 32},
)
CASES = 150


class Saying:
    """Draws designs by a fixed seed."""

    def __init__(self, seed: int) -> None:
        self.draw = random.Random(seed)

    def often(self, share: float) -> bool:
        return self.draw.random() < share

    def place(self) -> list[str]:
        return at(self.draw.choice([0, 12, 24, 60, 100, -5, 300]), self.draw.choice([0, 12, 48, 60, -20]))

    def mount(self, path: str) -> dict[str, Any]:
        document: dict[str, Any] = {"shaft": path, "mount": self.draw.choice(["fixed", "holes", "free", "slot"])}
        if document["mount"] == "slot":
            document["slot"] = {"start": self.place(), "end": self.place()}
        elif document["mount"] == "fixed" or self.often(0.6):
            document["at"] = self.place()
            document |= {"eccentric": "3 mm"} if self.often(0.2) else {}
        document |= {"body": "30 mm"} if self.often(0.3) else {}
        if self.often(0.3):
            wheel = self.draw.choice([f"{JACK} driver", f"{JACK} driven", f"{AXLE} driver", f"{JACK} driver 2"])
            document["stack"] = {"between": "30 mm", "items": [{"width": "10 mm", "wheel": wheel, "at": "4 mm"}]}
        return document

    def fit(self) -> dict[str, Any]:
        paths = (MOTOR, JACK, AXLE, f"{MOTOR}[1]", f"{JACK}.idlers[0]")
        tensioner = {"at": self.place(), "diameter": self.draw.choice(["20 mm", "90 mm"]), "outside": self.often(0.5)}
        plate = {**PLATE, "across": self.draw.choice([3, 12, 30]), "up": self.draw.choice([1, 4, 10])}
        return {
            "shafts": [self.mount(path) for path in paths if self.often(0.7)],
            **(adapter() if self.often(0.2) else {}),
            **({"plate": plate} if self.often(0.7) else {}),
            **({"loops": [{"stage": AXLE, "tensioner": tensioner}]} if self.often(0.5) else {}),
            **({"frame": [{"start": self.place(), "end": self.place()}]} if self.often(0.4) else {}),
        }

    def line(self) -> dict[str, Any]:
        return {
            "drive.branches.0.stages": [self.draw.choice(FIRST)],
            "drive.branches.0.count": self.draw.choice([1, 1, 2, 3, 4, 5]),
        }


class Said(TestCase):
    def test_it_is_answered_or_refused_with_words(self) -> None:
        answered = 0
        for seed in range(CASES):
            saying = Saying(seed)
            with self.subTest(seed), contextlib.suppress(DocumentError):
                document = read(saying.fit(), **saying.line())
                self.assertEqual(report(document)["format"], "ydrometer-fit")
                plate_outline(set_up(document.design))
                answered += 1
        self.assertGreater(answered, CASES // 2)

    def test_two_slots_that_wait_for_each_other_are_told_beside_the_rest(self) -> None:
        slots = [
            {"shaft": path, "mount": "slot", "slot": {"start": at(x, 0), "end": at(x + 9, 0)}}
            for path, x in ((MOTOR, 0), (JACK, 40))
        ]
        reported = report(read({"plate": PLATE, "shafts": slots}, **{"drive.stages": []}))
        self.assertIn("both in slots", reported["placements"]["refused"])
        self.assertEqual((reported["placements"]["count"], len(reported["shafts"])), (0, 2))
