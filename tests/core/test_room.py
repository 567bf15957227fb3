"""Options that go on the plate: pairs left out are just those that stand-alone geometry refuses."""

from __future__ import annotations

import itertools
import math
from typing import Any
from unittest import TestCase

import numpy as np

from tests.core.designs import changed
from tests.core.plates import AXLE, JACK, MOTOR, PLATE, at, shaft
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.fit import placing
from ydrometer.fit.places import as_problem
from ydrometer.fit.problem import Problem
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.stock import stock_of
from ydrometer.geometry import loops
from ydrometer.screens.mounted import mounted
from ydrometer.search import read_request
from ydrometer.search.answer import answer
from ydrometer.search.choices import NO_PART, Head, StageSlot, slots
from ydrometer.search.compose import compose
from ydrometer.search.mount import together
from ydrometer.search.on_plate import OnPlate
from ydrometer.search.option import Option
from ydrometer.search.request import SearchRequest

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
    *(
        {"kind": "pulley", "id": f"p{t}", "teeth": t, "pitch": p, "owned": 1}
        for p in ("5 mm", "3 mm")
        for t in ((14, 18, 24, 36) if p == "5 mm" else (20, 30, 60))
    ),
    *({"kind": "belt", "id": f"b{t}", "teeth": t, "pitch": "5 mm", "owned": n} for t, n in ((84, 1), (80, 0), (90, 1))),
]


def pairs(requires: dict[str, Any], stages: Any = None, fit: Any = None) -> list[set[tuple[str, str]]]:
    base = {**changed({}), **({} if fit == {} else {"fit": fit or FIT})}
    raw = {
        "format": "ydrometer-search",
        "version": 1,
        "design": base,
        "layouts": [{"stages": stages or STAGES}],
        **({"requires": requires} if requires else {}),
    }
    request = read_request(compose(raw, PARTS))
    names = [part.id for part in request.body.parts]
    return [{(names[a], names[b]) for a, b in slot.parts.tolist()} for slot in slots(request, request.body.layouts[0])]


class Room(TestCase):
    def test_gears_go_where_the_slot_reaches(self) -> None:
        every, _ = pairs({})
        left, _ = pairs({"standing": True})
        wanted = {(a, b) for a, b in every if 34 - 0.1 <= (int(a[1:]) + int(b[1:])) / 2 <= 40}
        self.assertEqual(left, wanted)
        self.assertTrue(0 < len(left) < len(every))

    def test_belts_need_a_whole_number_of_teeth_at_that_distance(self) -> None:
        _, every = pairs({})
        _, left = pairs({"standing": True})
        self.assertEqual(left, {pair for pair in every if self.some_belt(*pair)})
        self.assertTrue(0 < len(left) < len(every))

    def some_belt(self, a: str, b: str) -> bool:
        pitch = 3e-3 if int(a[1:]) in (20, 30, 60) else 5e-3
        radii = [loops.pitch_radius(pitch, int(p[1:])) for p in (a, b)]
        rows = [loops.centre_distance(n * pitch, radii[0], radii[1]) for n in range(40, 200)]
        return any(c is not None and abs(c - 0.144) <= 3e-4 for c in rows)

    def test_lengths_at_hand_have_the_pitch_and_are_long_enough(self) -> None:
        _, left = pairs({"lengths_at_hand": True})
        self.assertEqual({a for a, _ in left} | {b for _, b in left}, {"p14", "p18", "p24", "p36"})
        _, both = pairs({"lengths_at_hand": True, "standing": True})
        for a, b in both:
            radii = [loops.pitch_radius(5e-3, int(p[1:])) for p in (a, b)]
            apart = [loops.centre_distance(n * 5e-3, radii[0], radii[1]) or math.inf for n in (84, 90)]
            self.assertTrue(any(abs(c - 0.144) <= 3e-4 for c in apart))

    def test_what_cannot_be_asked_is_told(self) -> None:
        for requires, stages, words in (
            ({"standing": True}, [STAGES[1]], "other stages"),
            ({"plates": True}, None, "unknown key"),
            ({"plate": "yes"}, None, "true or false"),
        ):
            with self.subTest(words), self.assertRaises(DocumentError) as raised:
                pairs(requires, stages)
            self.assertIn(words, str(raised.exception))


HEAD = Head(NO_PART, NO_PART, NO_PART, 1)
SMALL = {"hole_pitch": "12 mm", "across": 14, "up": 3}
COARSE = {
    "tolerance": "1.5 mm",
    "loop_tolerance": "1.5 mm",
    "frame": [{"name": "rail", "start": at(20, -26), "end": at(60, -26)}],
}
SLOT = {"start": at(80, 24), "end": at(86, 24)}
FAR = {"start": at(140, 24), "end": at(146, 24)}
MOUNTS: dict[str, list[dict[str, Any]]] = {
    "one on holes": [shaft(MOTOR, 0, 0), {"shaft": JACK}, shaft(AXLE, 142, 24)],
    "two on holes": [shaft(MOTOR, 12, 12), {"shaft": JACK}, {"shaft": AXLE}],
    "a slot at the end": [{"shaft": MOTOR, "mount": "slot", "slot": SLOT}, {"shaft": JACK}, shaft(AXLE, 0, 0)],
    "a slot in the middle": [shaft(MOTOR, 170, 24), {"shaft": JACK, "mount": "slot", "slot": FAR}, {"shaft": AXLE}],
}

FEW = [
    {"kind": "gear", "driver": ["g12", "g18"], "driven": [f"g{t}" for t in range(30, 60, 6)]},
    {"kind": "belt", "ratio": [0.5, 100]},
]


class Hostile(TestCase):
    """A mount that comes with a request is read like everything else."""

    def refused(self, mount: Any) -> str:
        raw = {
            "format": "ydrometer-search",
            "version": 1,
            "design": changed({}),
            "parts": [],
            "layouts": [{"stages": STAGES, "mount": mount}],
        }
        with self.assertRaises(DocumentError) as raised:
            read_request(raw)
        return str(raised.exception)

    def test_what_is_wrong_is_told(self) -> None:
        one, give = {"at": [[0, 0]]}, {"tolerance": 0, "loop_tolerance": 0}
        many = {"at": [[0.01 * i, 0.01 * j] for i in range(30) for j in range(30)]}
        for shafts, words in (
            ([one], "1 entries given"),
            ([one, one], "2 shafts of 2 pairs: give 3"),
            ([one, many, many], "900 places of one shaft and 900 of the next"),
            ([one, {"at": [[0, 0]], "slot": True}, one], "1 places of a slot"),
            ([one, {"at": [["far", 0]]}, one], "at[0][0]"),
            ([one, {"at": [[1e9, 0]]}, one], "at[0][0]"),
        ):
            with self.subTest(words):
                self.assertIn(words, self.refused({"shafts": shafts, **give}).replace(", give", ": give"))
        self.assertIn("tolerance", self.refused({"shafts": [one, one, one]}))
        self.assertIn("mount", self.refused([]))


class Together(TestCase):
    """Combinations that go on the plate are those for which the placing solver finds a way, one by one."""

    def asked(self, mount: str, *, plate: bool) -> SearchRequest:
        raw = {
            "format": "ydrometer-search",
            "version": 1,
            "keep": 1000,
            "layouts": [{"stages": FEW}],
            "design": {**changed({}), "fit": {"plate": SMALL, "shafts": MOUNTS[mount], **COARSE}},
            "requires": {"plate": plate, "lengths_at_hand": True},
        }
        return read_request(compose(raw, PARTS))

    def goes(self, mount: str, teeth: tuple[int, ...]) -> bool:
        gear = {"kind": "gear", "module": "1 mm", "driver_teeth": teeth[0], "driven_teeth": teeth[1]}
        belt = {"kind": "belt", "pitch": "5 mm", "driver_teeth": teeth[2], "driven_teeth": teeth[3]}
        raw = changed({"drive.branches.0.stages.0": gear, "drive.stages.0": belt})
        raw["fit"] = {"plate": SMALL, "shafts": MOUNTS[mount], **COARSE}
        problem = as_problem(set_up(design.read(raw).design, stock_of(PARTS)))
        reaching = len(problem.pairs) == len(FEW)
        # Only the frame is kept clear of before an option is put on the bench.
        return reaching and bool(
            placing.placements(Problem(problem.shafts, problem.pairs, frames=problem.frames), most=1).placements
        )

    def test_all_that_placing_each_design_finds(self) -> None:
        for mount in MOUNTS:
            with self.subTest(mount):
                rows = [entry["design"] for entry in answer(self.asked(mount, plate=True))["options"]]
                going = {teeth_of(raw) for raw in rows}
                every = {teeth_of(entry["design"]) for entry in answer(self.asked(mount, plate=False))["options"]}
                self.assertEqual(going, {teeth for teeth in every if self.goes(mount, teeth)})
                self.assertTrue(0 < len(going) < len(every), (len(going), len(every)))

    def test_what_is_found_stands_where_it_goes(self) -> None:
        for mount in MOUNTS:
            found = answer(self.asked(mount, plate=True))["options"]
            with self.subTest(mount):
                self.assertEqual(len(found), len({teeth_of(entry["design"]) for entry in found}))
                for entry in found[::7]:
                    stages = entry["design"]["drive"]["branches"][0]["stages"]
                    self.assertIn(stages[1]["belt_teeth"], (84, 90))
                    off = [
                        c.text
                        for c in mounted(design.read(entry["design"])).plates[0].clashes
                        if "apart" in c.text or "beyond" in c.text
                    ]
                    self.assertEqual(off, [])


def teeth_of(raw: dict[str, Any]) -> tuple[int, ...]:
    stages = raw["drive"]["branches"][0]["stages"]
    return tuple(stage[key] for stage in stages for key in ("driver_teeth", "driven_teeth"))


class NotAsked(TestCase):
    """Where a search was not asked for what goes on the plate, a look at single options says it all the same."""

    def test_a_look_at_each_option_finds_just_those_that_a_search_for_the_plate_keeps(self) -> None:
        base = {**changed({}), "fit": {**COARSE, "plate": SMALL, "shafts": MOUNTS["one on holes"]}}
        raw = {"format": "ydrometer-search", "version": 1, "design": base, "layouts": [{"stages": STAGES}]}
        free = read_request(compose(raw, PARTS))
        options = slots(free, free.body.layouts[0])
        plate = OnPlate(free, [options])
        chosen = list(itertools.product(*(range(len(slot)) for slot in options)))[::7]
        rows = {pick for pick in chosen if plate.goes(Option(0, HEAD, pick, 0.0, 0))}
        bound = read_request(compose({**raw, "requires": {"plate": True}}, PARTS))
        kept = slots(bound, bound.body.layouts[0])
        left = [{tuple(pair): i for i, pair in enumerate(slot.parts.tolist())} for slot in kept]
        wanted = set()
        for pick in chosen:
            places = [
                known.get(tuple(slot.parts[i].tolist()), -1) for known, slot, i in zip(left, options, pick, strict=True)
            ]
            if -1 not in places and all_at_once(kept, places):
                wanted.add(pick)
        self.assertEqual(rows, wanted)
        self.assertTrue(0 < len(rows) < len(chosen))

    def test_without_a_plate_or_with_other_stages_nothing_is_said_against_any(self) -> None:
        for fit, stages in (({}, STAGES), (FIT, STAGES[1:])):
            base = {**changed({}), **({"fit": fit} if fit else {})}
            raw = {"format": "ydrometer-search", "version": 1, "design": base, "layouts": [{"stages": stages}]}
            request = read_request(compose(raw, PARTS))
            plate = OnPlate(request, [slots(request, request.body.layouts[0])])
            self.assertTrue(plate.goes(Option(0, HEAD, (0,) * len(stages), 0.0, 0)))


def all_at_once(kept: list[StageSlot], places: list[int]) -> bool:
    rows = together([slot.places for slot in kept if slot.places], [np.array([i]) for i in places])
    return rows is None or bool(rows[0])
