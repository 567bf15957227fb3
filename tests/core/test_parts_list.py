import unittest
from collections.abc import Mapping
from typing import Any

import jsonschema
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import PLAIN, changed
from tests.core.lines import PLATE, lines
from ydrometer.base.errors import DocumentError
from ydrometer.build.bin import bin_of
from ydrometer.build.making import drills
from ydrometer.build.matching import differences, match, nearest
from ydrometer.build.needs import needs
from ydrometer.build.parts_list import PartsList, PartsListLine, parts_list
from ydrometer.build.workshop import workshop
from ydrometer.document import design
from ydrometer.files.answer_schemas import parts_list as schema
from ydrometer.files.parts_report import report
from ydrometer.parts.read import read_bin

PINION = {
    "kind": "gear",
    "id": "g15",
    "teeth": 15,
    "module": "1 mm",
    "bore": "5 mm",
    "owned": 2,
    "price": 3.5,
    "mass": "13 g",
}
BELT = {"kind": "belt", "id": "b84", "teeth": 84, "pitch": "5 mm", "owned": 1, "price": 7, "lead_time": "3 days"}


def listed(document: dict[str, Any], *bin_: dict[str, Any], taken: Mapping[str, int] | None = None) -> PartsList:
    return parts_list(workshop(design.read(document)), bin_of(bin_), taken)


def line(listing: PartsList, words: str) -> PartsListLine:
    return next(line for line in listing.lines if line.need.words.startswith(words))


class ByColumns(unittest.TestCase):
    """Many parts at once are told apart as one by one."""

    GEARS = st.fixed_dictionaries(
        {
            "teeth": st.integers(14, 17),
            "module": st.sampled_from(["1 mm", "1.0000001 mm", "1.25 mm"]),
            "bore": st.sampled_from([None, "5 mm", "5.01 mm"]),
            "owned": st.integers(0, 3),
        }
    )

    @given(st.lists(GEARS, min_size=1, max_size=12))
    @settings(max_examples=40, deadline=None, derandomize=True)
    def test_by_columns_as_one_by_one(self, gears: list[dict[str, Any]]) -> None:
        typed = [
            {"kind": "gear", "id": f"g{k}", **{key: value for key, value in gear.items() if value is not None}}
            for k, gear in enumerate(gears)
        ]
        bin_ = bin_of(typed)
        for need in needs(workshop(design.read(changed()))):
            if need.kind != "gear":
                continue
            same = [owned for owned in bin_ if not differences(need, owned.part)]
            matched = match(need, bin_)
            self.assertEqual(matched is None, not same)
            self.assertTrue(matched is None or matched in same)
            close = nearest(need, bin_)
            self.assertTrue(not same or {near.id for near in close} & {owned.part.id for owned in same})


class Walls(unittest.TestCase):
    """A gear keeps a module and a half of metal between its bore and the roots of its teeth."""

    def test_one_that_would_be_bored_to_its_teeth_is_no_match(self) -> None:
        mounts = [{"shaft": "drive.branches[0].source", "mount": "fixed", "at": [0, 0], "diameter": "10 mm"}]
        document = changed({"fit": {"shafts": mounts}})
        pinion = line(listed(document, PINION), "15-tooth")
        self.assertIsNone(pinion.part)
        self.assertIn("a bore of 10 mm leaves 1.25 mm below its teeth", pinion.nearest[0].differs)
        eight = [{**mounts[0], "diameter": "8 mm"}]
        self.assertIsNotNone(line(listed(changed({"fit": {"shafts": eight}}), PINION), "15-tooth").part)


class Numbers(unittest.TestCase):
    def test_units_and_motors_are_multiplied_out(self) -> None:
        listing = listed(changed({"drive.units": 3, "drive.branches.0.count": 2}))
        number = {line.need.words: line.need.number for line in listing.lines}
        self.assertEqual(number["15-tooth gear, module 1 mm"], 6, "one on each motor")
        self.assertEqual(number["56-tooth gear, module 1 mm"], 3, "one a unit")
        self.assertEqual(number["controller, 22 A"], 6)
        self.assertEqual(number["battery, 25.2 V"], 1)

    def test_a_part_used_twice_is_one_line_with_both_places(self) -> None:
        second = {"kind": "gear", "driver_teeth": 15, "driven_teeth": 30, "module": "1 mm"}
        found = line(listed(changed({"drive.stages": [second], "drive.units": 1})), "15-tooth")
        self.assertEqual(found.need.number, 2)
        self.assertEqual(found.need.where, ("drive.branches[0].stages[0] driver", "drive.stages[0] driver"))

    def test_an_odd_chain_needs_an_offset_link(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 61}
        odd = {one.need.kind: one.need for one in listed(changed({"drive.stages": [chain]})).lines}
        self.assertLessEqual({"offset link", "joining link"}, set(odd))
        self.assertEqual(odd["chain"].words, "chain, 60 links, pitch 6.35 mm")
        self.assertAlmostEqual(odd["chain"].sizes["around"], 60 * 6.35e-3)
        even = listed(changed({"drive.stages": [{**chain, "links": 60}]}))
        self.assertNotIn("offset link", {one.need.kind for one in even.lines})

    def test_a_longer_chain_is_parted_and_a_belt_without_a_length_is_no_part(self) -> None:
        chain = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 60}
        long = {"kind": "chain", "id": "long", "pitch": "6.35 mm", "links": 74, "owned": 1}
        metre, short = {**long, "id": "metre", "links": None}, {**long, "id": "short", "links": 48}
        document = changed({"drive.stages": [chain], "drive.units": 1})
        for part, fits in ((long, True), (metre, True), (short, False)):
            found = line(listed(document, {key: v for key, v in part.items() if v is not None}), "chain")
            self.assertEqual(found.to_buy == 0, fits, part["id"])
            self.assertEqual([making.what for making in found.make], ["part"] if fits else [])
        loose = {"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm"}
        self.assertIsNone(line(listed(changed({"drive.stages": [loose]}), BELT), "belt").part)

    @settings(max_examples=30, deadline=None, derandomize=True)
    @given(lines())
    def test_are_written_as_published(self, document: dict[str, Any]) -> None:
        jsonschema.validate(report(design.read(document), [PINION, BELT]), schema())


class Matching(unittest.TestCase):
    def test_what_is_owned_is_not_bought(self) -> None:
        listing = listed(PLAIN, PINION, BELT)
        self.assertEqual((line(listing, "15-tooth").to_buy, line(listing, "belt").to_buy), (0, 1))
        self.assertEqual((listing.price, line(listing, "belt").lead_days), (7.0, 3.0))
        self.assertAlmostEqual(listing.mass, 0.026)

    def test_an_owned_part_is_promised_once(self) -> None:
        found = line(listed(PLAIN, PINION, taken={"g15": 1}), "15-tooth")
        self.assertEqual((found.owned, found.taken, found.to_buy), (1, 1, 1))

    def test_the_nearest_say_what_differs(self) -> None:
        near = line(listed(PLAIN, {**PINION, "teeth": 16}), "15-tooth").nearest
        self.assertEqual([(near_part.id, near_part.differs) for near_part in near], [("g15", "16 teeth")])

    def test_a_part_that_fits_goes_before_one_to_be_bored(self) -> None:
        wide = {**PINION, "id": "wide", "bore": "8 mm", "owned": 1}
        shaft = {"shaft": "drive.branches[0].source", "mount": "free", "diameter": "8 mm"}
        found = line(listed(changed({"fit": {"shafts": [shaft]}}), PINION, wide), "15-tooth")
        assert found.part is not None
        self.assertEqual(found.part.part.id, "wide")

    def test_a_motor_brings_its_controller(self) -> None:
        branch = PLAIN["drive"]["branches"][0]
        motor = {"kind": "motor", "id": "m", "source": branch["source"], "controller": branch["controller"], "owned": 2}
        found = line(listed(PLAIN, motor), "controller")
        assert found.part is not None
        self.assertEqual((found.part.part.id, found.to_buy, found.price), ("m", 0, 0.0))

    def test_sundries_are_told_by_what_they_are_and_a_size(self) -> None:
        shaft = {"shaft": "drive.stages[0]", "mount": "free", "diameter": "12 mm"}
        document = changed({"fit": {"shafts": [shaft]}})
        for size, number in (("2 mm", 2), ("12 mm", 0), ("", 2)):
            rod = {"kind": "sundry", "id": "rod", "what": "shaft", "size": size, "owned": 4}
            self.assertEqual(line(listed(document, rod), "axle").to_buy, number, size)

    def test_all_in_the_bin_is_said(self) -> None:
        self.assertFalse(listed(PLAIN, PINION).from_the_bin)


class Making(unittest.TestCase):
    def test_drills_rise_to_the_reamer(self) -> None:
        rows = [round(1e3 * size, 3) for size in drills(5e-3, 10e-3)]
        self.assertEqual(rows, [6.5, 8.0, 9.8, 10.0])
        self.assertEqual([round(1e3 * size, 3) for size in drills(7.9e-3, 8e-3)], [8.0])

    def test_a_narrow_bore_is_bored_out_in_a_step_of_its_own(self) -> None:
        shaft = {"shaft": "drive.branches[0].source", "mount": "free", "diameter": "8 mm"}
        found = line(listed(changed({"fit": {"shafts": [shaft]}}), PINION), "15-tooth")
        self.assertEqual([(m.what, m.start, m.end) for m in found.make], [("bore out", 0.005, 0.008)])
        self.assertIn("no gloves", found.make[0].caution)

    def test_a_wide_bore_asks_for_a_sleeve(self) -> None:
        shaft = {"shaft": "drive.branches[0].source", "mount": "free", "diameter": "3 mm"}
        found = line(listed(changed({"fit": {"shafts": [shaft]}}), PINION), "sleeve 3 mm to 5 mm")
        self.assertEqual((found.need.number, found.to_buy), (2, 2))

    def test_a_printed_mount_says_where_it_softens(self) -> None:
        found = line(listed(changed({"drive.branches.0.source.mount_material": "printed PETG"})), "motor")
        self.assertRegex(found.make[0].caution, r"soften near a hot motor: printed PETG from about \d\d degC")

    def test_screws_that_go_too_deep_are_cut(self) -> None:
        bolts = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": "12 mm", "depth": "4 mm"}
        shaft = {"shaft": "drive.branches[0].source", "bolts": bolts, "mount": "free"}
        found = line(listed(changed({"fit": {"plate": PLATE, "shafts": [shaft]}})), "screws")
        self.assertEqual(
            [(m.what, m.start, round(m.end or 0, 6)) for m in found.make], [("cut to length", 0.012, 0.007)]
        )

    def test_screws_of_the_bin_are_told_by_their_length_too(self) -> None:
        bolts = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "length": "12 mm", "depth": "4 mm"}
        document = changed(
            {
                "fit": {
                    "plate": PLATE,
                    "shafts": [{"shaft": "drive.branches[0].source", "bolts": bolts, "mount": "free"}],
                }
            }
        )
        for size, matched, cut in (
            ("M3 x 7", True, None),
            ("M3 x 12", True, 0.012),
            ("M3 x 20", False, 0.012),
            ("M3", False, 0.012),
            ("M4 x 7", False, 0.012),
            ("3.2 mm, 7 mm long", True, None),
        ):
            found = line(
                listed(document, {"kind": "sundry", "id": "s", "what": "screws", "size": size, "owned": 8}), "screws"
            )
            self.assertEqual(found.part is not None, matched, size)
            self.assertEqual([m.start for m in found.make], [] if cut is None else [cut], size)

    def test_a_belt_that_is_too_narrow_comes_after_one_that_is_wide_enough(self) -> None:
        narrow, wide = {**BELT, "id": "a", "width": "10 mm"}, {**BELT, "id": "b", "width": "15 mm", "owned": 0}
        document = changed({"drive.stages.0.width": "15 mm"})
        for order in ([narrow, wide], [wide, narrow]):
            part = line(listed(document, *order), "belt").part
            self.assertEqual(part and part.part.id, "b")


class BinFiles(unittest.TestCase):
    def test_are_a_list_or_an_object(self) -> None:
        self.assertEqual(read_bin([PINION]), read_bin({"parts": [PINION]}))

    def test_every_fault_has_its_path(self) -> None:
        with self.assertRaises(DocumentError) as caught:
            read_bin({"parts": [{**PINION, "teeth": 0}, BELT, BELT]})
        self.assertEqual([fault.path for fault in caught.exception.faults], ["parts[0].teeth", "parts[2].id"])
        with self.assertRaises(DocumentError):
            read_bin(7)
