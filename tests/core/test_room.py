"""Options that go on the plate: pairs left out are just those that stand-alone geometry refuses."""

from __future__ import annotations

import math
from typing import Any
from unittest import TestCase

from tests.core.designs import changed
from tests.core.plates import AXLE, JACK, MOTOR, PLATE, at, shaft
from ydrometer.errors import DocumentError
from ydrometer.fit import loops
from ydrometer.search import read_request
from ydrometer.search.choices import slots
from ydrometer.search.compose import compose

STAGES = [{"kind": "gear", "ratio": [0, 100]}, {"kind": "belt", "ratio": [0, 100]}]
FIT: dict[str, Any] = {
    "plate": PLATE,
    "shafts": [
        {"shaft": MOTOR, "mount": "slot", "slot": {"start": at(80, 48), "end": at(86, 48)}},
        shaft(JACK, 120, 48),
        shaft(AXLE, 264, 48),
    ],
}
PARTS: list[dict[str, Any]] = [
    *({"kind": "gear", "id": f"g{t}", "teeth": t, "module": "1 mm", "owned": 1} for t in range(12, 60, 3)),
    *({"kind": "pulley", "id": f"p{t}", "teeth": t, "pitch": p, "owned": 1}
      for p in ("5 mm", "3 mm") for t in ((14, 18, 24, 36) if p == "5 mm" else (20, 30, 60))),
    *({"kind": "belt", "id": f"b{t}", "teeth": t, "pitch": "5 mm", "owned": n} for t, n in ((84, 1), (80, 0), (90, 1))),
]  # fmt: skip


def pairs(requires: dict[str, Any], stages: Any = None, fit: Any = None) -> list[set[tuple[str, str]]]:
    base = {**changed({}), **({} if fit == {} else {"fit": fit or FIT})}
    raw = {"format": "ydrometer-search", "version": 1, "design": base, "layouts": [{"stages": stages or STAGES}],
           **({"requires": requires} if requires else {})}  # fmt: skip
    request = read_request(compose(raw, PARTS))
    names = [part.id for part in request.body.parts]
    return [{(names[a], names[b]) for a, b in slot.parts.tolist()} for slot in slots(request, request.body.layouts[0])]


class Room(TestCase):
    def test_gears_go_where_the_slot_reaches(self) -> None:
        every, _ = pairs({})
        left, _ = pairs({"plate": True})
        wanted = {(a, b) for a, b in every if 34 - 0.1 <= (int(a[1:]) + int(b[1:])) / 2 <= 40}
        self.assertEqual(left, wanted)
        self.assertTrue(0 < len(left) < len(every))

    def test_belts_need_a_whole_number_of_teeth_at_that_distance(self) -> None:
        _, every = pairs({})
        _, left = pairs({"plate": True})
        self.assertEqual(left, {pair for pair in every if self.some_belt(*pair)})
        self.assertTrue(0 < len(left) < len(every))

    def some_belt(self, a: str, b: str) -> bool:
        pitch = 3e-3 if int(a[1:]) in (20, 30, 60) else 5e-3
        radii = [loops.pitch_radius(pitch, int(p[1:])) for p in (a, b)]
        found = [loops.centre_distance(n * pitch, radii[0], radii[1]) for n in range(40, 200)]
        return any(c is not None and abs(c - 0.144) <= 3e-4 for c in found)

    def test_lengths_at_hand_have_the_pitch_and_are_long_enough(self) -> None:
        _, left = pairs({"lengths_at_hand": True})
        self.assertEqual({a for a, _ in left} | {b for _, b in left}, {"p14", "p18", "p24", "p36"})
        _, both = pairs({"lengths_at_hand": True, "plate": True})
        for a, b in both:
            radii = [loops.pitch_radius(5e-3, int(p[1:])) for p in (a, b)]
            apart = [loops.centre_distance(n * 5e-3, radii[0], radii[1]) or math.inf for n in (84, 90)]
            self.assertTrue(any(abs(c - 0.144) <= 3e-4 for c in apart))

    def test_what_cannot_be_asked_is_told(self) -> None:
        for requires, stages, words in (
            ({"plate": True}, [STAGES[1]], "other stages"),
            ({"plates": True}, None, "unknown key"),
            ({"plate": "yes"}, None, "true or false"),
        ):
            with self.subTest(words), self.assertRaises(DocumentError) as raised:
                pairs(requires, stages)
            self.assertIn(words, str(raised.exception))
