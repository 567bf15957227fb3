"""What a design needs besides its wheels: everything that a hand puts in, by number and size."""

import unittest
from typing import Any

from tests.core.designs import changed
from tests.core.lines import ADAPTER
from tests.core.plates import AXLE, JACK, MOTOR, at, shaft
from tests.core.test_parts_list import PINION, line, listed
from ydrometer.base.tables.keys import KEYS, key_for, length_in
from ydrometer.build.parts_list import PartsList
from ydrometer.fit.bores import in_gear, seat
from ydrometer.starting.starts import BY_KEY, design_of

PLATE = {"hole_pitch": "12 mm", "across": 30, "up": 10, "thickness": "3 mm"}
SLOT = {"mount": "slot", "slot": {"start": at(60, 48), "end": at(90, 48)}}
BOLTS = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": "8 mm"}


def of(*bin_: dict[str, Any], **edits: Any) -> PartsList:
    return listed(changed({"drive.units": 1, **edits}), *bin_)


def counts(parts: PartsList, kind: str) -> dict[str, int]:
    return {entry.need.words: entry.need.number for entry in parts.lines if entry.need.kind == kind}


class Small(unittest.TestCase):
    def test_collars_guards_switches_straps_and_washers_at_slots(self) -> None:
        parts = of(fit={"shafts": [{"shaft": MOTOR, **SLOT, "bolts": BOLTS}, shaft(AXLE, 200, 48, diameter="12 mm")]})
        self.assertEqual(counts(parts, "collar"), {"collar": 2, "collar on 12 mm": 2})
        self.assertEqual(counts(parts, "washer"), {"washer for 3.2 mm holes": 4})
        self.assertEqual(counts(parts, "guard"), {"guard over the belt, with its screws": 1})
        self.assertEqual(
            (counts(parts, "switch"), counts(parts, "strap")), ({"off switch": 1}, {"strap for the battery": 2})
        )

    def test_lock_nuts_only_where_they_go_on_a_thread(self) -> None:
        shafts = [{"shaft": MOTOR, "mount": "free", "bolts": BOLTS}]
        parts = of(fit={"shafts": shafts}, build={"locking": "lock nuts"})
        self.assertEqual(counts(parts, "lock washer"), {"lock washer for screws in 3.2 mm holes": 4})
        self.assertEqual(sum(counts(parts, "lock nut").values()), 16, "two shafts, two bearings, four screws")
        self.assertEqual(counts(parts, "locker"), {})

    def test_keys_have_their_section_and_the_length_that_the_hub_takes(self) -> None:
        stack = {"between": "60 mm", "items": [{"name": "gear", "width": "19 mm", "wheel": f"{JACK} driven"}]}
        jack = shaft(JACK, 90, 48, diameter="15 mm", shape="keyway", stack=stack)
        parts = of(fit={"shafts": [jack]})
        self.assertEqual(counts(parts, "key"), {"key 5 × 5 mm, 18 mm long": 1, "key 5 × 5 mm": 1})
        asks = {entry.need.words: entry.need.asks for entry in parts.lines if entry.need.kind == "key"}
        self.assertEqual(asks, {"key 5 × 5 mm, 18 mm long": "", "key 5 × 5 mm": "length"})

    def test_sections_are_those_of_the_standard(self) -> None:
        self.assertEqual([key.shaft for key in KEYS], sorted(key.shaft for key in KEYS))
        section = {d: key_for(1e-3 * d) for d in (6, 8, 19, 25, 50, 120)}
        sizes = {d: (round(1e3 * k.width), round(1e3 * k.height), k.in_hub) for d, k in section.items() if k}
        self.assertEqual(sizes, {8: (2, 2, 1e-3), 19: (6, 6, 2.8e-3), 25: (8, 7, 3.3e-3), 50: (14, 9, 3.8e-3)})
        self.assertAlmostEqual(length_in(0.019) or 0.0, 0.018)
        self.assertIsNone(length_in(0.004))

    def test_an_adapter_brings_plates_screws_dowels_coupling_and_keys(self) -> None:
        parts = of(fit={"adapters": [ADAPTER]})
        self.assertEqual(counts(parts, "plate"), {"adapter plate motor to axle, 80 mm across": 2})
        self.assertEqual(counts(parts, "dowel"), {"dowel, 4 mm": 2})
        self.assertEqual(counts(parts, "coupling"), {"coupling, 30 mm long, 20 mm across": 1})
        self.assertEqual(counts(parts, "screws")["screws for 4.3 mm holes, 12 mm long"], 4)
        self.assertEqual(counts(parts, "key"), {"key for the coupling of the adapter motor to axle": 2})

    def test_a_shaft_that_slides_brings_its_plates_and_their_screws(self) -> None:
        parts = of(fit={"shafts": [shaft(MOTOR, 10, 48), {"shaft": JACK, **SLOT, "opening": "22 mm"}]})
        plates = {words: n for words, n in counts(parts, "plate").items() if words.startswith("bearing plate")}
        self.assertEqual(plates, {"bearing plate, bored 22 mm, for the shaft of the 56-tooth gear": 2})
        self.assertEqual(line(parts, "bearing plate").make[0].what, "make")

    def test_gaps_of_a_stack_are_spacers_and_only_what_is_said_to_carry_is_a_bearing(self) -> None:
        items = [
            {"name": "bearing", "width": "7 mm"},
            {"name": "idle", "width": "7 mm", "bearing": True, "at": "12 mm"},
        ]
        stack = {"between": "19 mm", "items": items}
        parts = of(fit={"shafts": [shaft(JACK, 90, 48, diameter="8 mm", stack=stack)]})
        self.assertEqual(counts(parts, "bearing"), {"bearing, on 8 mm, 7 mm wide": 1, "bearing": 2})
        self.assertEqual(counts(parts, "spacer"), {"spacer 5 mm, on 8 mm": 1})


class OnTheGround(unittest.TestCase):
    def test_wheels_are_as_many_as_the_vehicle_has_and_driven_ones_go_on_the_axle(self) -> None:
        rear = {"vehicle.driven": "rear", "vehicle.driven_share": 0.5, "vehicle.wheels": 6}
        parts = of(fit={"shafts": [shaft(AXLE, 200, 48, diameter="12 mm")]}, **rear)
        self.assertEqual(
            counts(parts, "wheel"),
            {"road wheel, 125 mm, driven": 3, "road wheel, 125 mm, free on a bearing of its own": 3},
        )
        self.assertEqual(line(parts, "road wheel, 125 mm, driven").need.shaft, (0.012, "round"))
        self.assertIsNone(line(parts, "road wheel, 125 mm, free").need.shaft)
        self.assertEqual(counts(of(), "wheel"), {"road wheel, 125 mm": 4})

    def test_a_tracked_vehicle_has_none(self) -> None:
        parts = listed(design_of(BY_KEY["sled"]))
        self.assertEqual((counts(parts, "wheel"), counts(parts, "track")), ({}, {"track": 1}))
        self.assertTrue(line(parts, "driving sprocket of the track").need.sizes)


class Sizes(unittest.TestCase):
    def test_what_has_no_size_matches_nothing_and_asks(self) -> None:
        bearing = {
            "kind": "bearing",
            "id": "b",
            "bore": "8 mm",
            "outside_diameter": "22 mm",
            "width": "7 mm",
            "owned": 9,
        }
        asked = line(of(bearing), "bearing")
        self.assertEqual((asked.part, asked.to_buy), (None, 4))
        self.assertEqual(asked.need.which, "Which? Nobody has given its bore and outside diameter.")
        told = of(bearing, fit={"shafts": [shaft(JACK, 90, 48, diameter="8 mm")]})
        self.assertIsNotNone(line(told, "bearing, on 8 mm").part)
        fuse = {"kind": "sundry", "id": "f", "what": "fuse", "size": "30 A", "owned": 1}
        self.assertIsNone(line(of(fuse), "fuse or breaker").part)

    def test_a_belt_of_another_width_is_another_belt(self) -> None:
        belt = {"kind": "belt", "id": "b", "teeth": 84, "pitch": "5 mm", "owned": 1}
        edits = {"drive.stages.0.belt_teeth": 84, "drive.stages.0.width": "15 mm"}
        for width, fits in (("15 mm", True), ("20 mm", False), ("9 mm", False), (None, False)):
            found = line(of({**belt, "width": width} if width else belt, **edits), "belt")
            self.assertEqual(found.part is not None, fits, width)
        self.assertIn("width not known", line(of(belt, **edits), "belt").nearest[0].differs)

    def test_a_pulley_is_no_narrower_than_its_belt(self) -> None:
        pulley = {"kind": "pulley", "id": "p", "teeth": 36, "pitch": "5 mm", "owned": 1}
        for width, fits in (("16 mm", True), ("11 mm", False)):
            found = line(of({**pulley, "width": width}, **{"drive.stages.0.width": "15 mm"}), "36-tooth")
            self.assertEqual(found.part is not None, fits, width)

    def test_a_ring_is_no_external_gear(self) -> None:
        gear = {**PINION, "id": "g60", "teeth": 60}
        ring = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 60, "module": "1 mm", "internal": True}
        stages = {"drive.branches.0.stages": [ring]}
        self.assertIsNone(line(of(gear, **stages), "60-tooth ring gear").part)
        outside = {"drive.branches.0.stages": [{**ring, "internal": False}]}
        self.assertIsNotNone(line(of(gear, **outside), "60-tooth gear").part)

    def test_keys_shafts_and_screws_are_told_by_all_their_sizes(self) -> None:
        stack = {"between": "60 mm", "items": [{"name": "gear", "width": "19 mm", "wheel": f"{JACK} driven"}]}
        jack = shaft(JACK, 90, 48, diameter="15 mm", shape="keyway", length="60 mm", stack=stack)
        for what, words, sizes in (
            ("key", "key 5 × 5 mm, 18", {"5 x 5 x 18": True, "5 x 5": False, "5 x 5 x 20": False, "": False}),
            (
                "shaft",
                "shaft, 15 mm",
                {"15 mm x 60 mm": True, "15 mm, 500 mm long": True, "15 x 40": False, "15": False},
            ),
        ):
            for size, fits in sizes.items():
                part = {"kind": "sundry", "id": "s", "what": what, "size": size, "owned": 4}
                found = line(of(part, fit={"shafts": [jack]}), words)
                self.assertEqual(found.part is not None, fits, (what, size))

    def test_a_clutch_belongs_to_its_engine(self) -> None:
        document = design_of(BY_KEY["ride_on_engine"])
        branch = document["drive"]["branches"][0]
        engine = {"kind": "engine", "id": "e", "source": branch["source"], "clutch": branch["clutch"], "owned": 1}
        other = {
            **engine,
            "id": "x",
            "source": {**branch["source"], "torque_curve": [["1000 rpm", "1 N*m"], ["3000 rpm", "1 N*m"]]},
        }
        bare = {key: value for key, value in engine.items() if key != "clutch"}
        self.assertEqual(line(listed(document, engine), "centrifugal").to_buy, 0)
        for bin_ in ((other,), (bare, other)):
            self.assertEqual(
                line(listed(document, *bin_), "centrifugal").to_buy, 1, "that of another engine is not its own"
            )


KEYED = {"shafts": [shaft(MOTOR, 10, 48, diameter="8 mm", shape="keyway")]}


class Keyways(unittest.TestCase):
    def test_a_hub_that_is_bored_for_a_keyed_shaft_gets_its_keyway(self) -> None:
        wide = {**PINION, "teeth": 24}
        found = line(of(wide, fit=KEYED, **{"drive.branches.0.stages.0.driver_teeth": 24}), "24-tooth")
        self.assertEqual([making.what for making in found.make], ["bore out", "cut a keyway"])
        self.assertIn("2 mm wide and 1 mm deep", found.make[1].words)
        self.assertIn("clamps or a taper bush", found.make[1].words)

    def test_and_one_whose_teeth_it_would_reach_is_another(self) -> None:
        # 15 teeth of 1 mm: roots on 12.5 mm, 1.5 mm below them 9.5 mm; 8 mm and twice 1 mm are 10 mm.
        found = line(of(PINION, fit=KEYED), "15-tooth")
        self.assertIsNone(found.part)
        self.assertIn("with its keyway leaves 1.25 mm", found.nearest[0].differs)
        round_ = {"shafts": [shaft(MOTOR, 10, 48, diameter="8 mm")]}
        self.assertIsNotNone(line(of(PINION, fit=round_), "15-tooth").part)

    def test_a_keyed_bore_of_the_same_size_is_left_as_it_is(self) -> None:
        self.assertEqual(seat(8e-3, "keyway", 8e-3, "keyway").keyway, 0.0)
        cut = seat(8e-3, "round", 8e-3, "keyway")
        self.assertEqual((cut.answer, cut.keyway), ("fits", 1e-3))
        self.assertEqual(in_gear(cut, 15, 1e-3).answer, "another")
