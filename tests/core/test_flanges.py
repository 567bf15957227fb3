"""An adapter between two flanges: holes of its plates, thickness, clashes, and templates read back."""

from __future__ import annotations

import math
from io import StringIO
from typing import Any
from unittest import TestCase

from ezdxf.filemanagement import read as read_dxf

from tests.core.designs import changed
from tests.core.plates import about, look, read
from ydrometer.base.errors import DocumentError
from ydrometer.files.fit_report import report
from ydrometer.files.sheets.dxf import dxf
from ydrometer.files.sheets.outline import flange_outline
from ydrometer.files.sheets.template import TemplateWish, template
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.stock import NOTHING

MOTOR_SIDE = {
    "name": "motor",
    "bolts": {"count": 4, "circle": "25 mm", "hole": "3.2 mm"},
    "head": "5.5 mm",
    "centring": "13 mm",
    "stands_out": "12 mm",
}
AXLE_SIDE = {
    "name": "axle",
    "bolts": {"count": 3, "circle": "44 mm", "hole": "4.3 mm", "angle": "30 deg"},
    "head": "7 mm",
    "centring": "16 mm",
    "stands_out": "9 mm",
}
JOINT = {"count": 3, "circle": "56 mm", "hole": "4.3 mm", "angle": "-30 deg"}
DOWELS = {"count": 2, "circle": "56 mm", "hole": "4 mm", "angle": "0 deg"}


def adapter(**more: Any) -> dict[str, Any]:
    document = {
        "name": "bought axle",
        "sides": [MOTOR_SIDE, AXLE_SIDE],
        "plates": 2,
        "outside": "70 mm",
        "first_plate": "6 mm",
        "dowels": DOWELS,
        "joint": JOINT,
        "coupling": "20 mm",
        "coupling_diameter": "12 mm",
    }
    return {"adapters": [{key: value for key, value in {**document, **more}.items() if value is not None}]}


def plate(fit: dict[str, Any], number: int) -> dict[str, Any]:
    reported: dict[str, Any] = report(read(fit))["adapters"][0]["plates"][number]
    return reported


class Plates(TestCase):
    def test_each_plate_has_its_bolts_the_heads_of_the_other_and_what_is_common(self) -> None:
        for number, own, heads, bore in (
            (0, ("motor", 4, 1.6), ("axle", 3, 3.5), 6.5),
            (1, ("axle", 3, 2.15), ("motor", 4, 2.75), 8.0),
        ):
            holes = plate(adapter(), number)["holes"]
            for what, count, radius in (
                (f"bolt of {own[0]}", *own[1:]),
                (f"head of {heads[0]}", *heads[1:]),
                ("dowel", 2, 2.0),
                ("joint bolt", 3, 2.15),
                ("centring", 1, bore),
            ):
                rows = [round(1e3 * hole["radius"], 9) for hole in holes if hole["what"] == what]
                self.assertEqual(rows, [radius] * count, what)
        first = next(hole for hole in plate(adapter(), 1)["holes"] if hole["what"] == "bolt of axle")
        self.assertAlmostEqual(first["x"], 0.022 * math.cos(math.radians(30)))

    def test_the_thickness_follows_from_the_ends_of_the_shafts(self) -> None:
        reported = report(read(adapter()))["adapters"][0]
        self.assertAlmostEqual(reported["between"], 0.012 + 0.009 + 0.001)
        self.assertEqual([round(p["thickness"], 9) for p in reported["plates"]], [0.006, 0.016])
        one = plate(adapter(plates=1, first_plate=None, dowels=None, joint=None), 0)
        self.assertAlmostEqual(one["thickness"], 0.022)
        self.assertEqual(len(one["holes"]), 4 + 3 + 1)

    def test_what_does_not_go_is_told(self) -> None:
        self.assertEqual([c.text for c in about(look(adapter()), "bought axle")], [])
        for more, words in (
            ({"coupling": "26 mm"}, "does not go between the flanges"),
            ({"outside": "58 mm"}, "breaks the edge"),
            ({"dowels": {**DOWELS, "angle": "-30 deg"}}, "dowel and joint bolt run into each other"),
            ({"coupling_diameter": "23 mm"}, "bolt of motor and coupling"),
            ({"first_plate": "22 mm"}, "no thickness is left"),
            ({"sides": [{**MOTOR_SIDE, "spigot": True}, AXLE_SIDE]}, "leaves the spigot in motor no wall"),
        ):
            with self.subTest(words):
                self.assertEqual({c.level for c in about(look(adapter(**more)), words)}, {"clash"})

    def test_the_worst_of_many_pairs_is_told(self) -> None:
        """Each bolt with each dowel; none of the pairs has the least metal by being the first."""
        many = {**AXLE_SIDE, "bolts": {"count": 6, "circle": "44 mm", "hole": "4.3 mm"}}
        dowels = {"count": 7, "circle": "52 mm", "hole": "4 mm", "angle": "6 deg"}
        told = about(look(adapter(sides=[MOTOR_SIDE, many], dowels=dowels)), "plate of axle: bolt of axle and dowel")
        spots = [
            math.dist((22 * math.cos(a), 22 * math.sin(a)), (26 * math.cos(b), 26 * math.sin(b))) - 2.15 - 2.0
            for a in (k * math.pi / 3 for k in range(6))
            for b in (math.radians(6) + k * 2 * math.pi / 7 for k in range(7))
        ]
        self.assertEqual([round(1e3 * clash.amount, 6) for clash in told], [round(1.5 - min(spots), 6)])

    def test_one_plate_keeps_the_wider_centring_and_says_that_the_other_is_lost(self) -> None:
        single = {"plates": 1, "first_plate": None, "dowels": None, "joint": None}
        lost = about(look(adapter(**single)), "is lost")
        self.assertEqual([clash.level for clash in lost], ["mind"])
        self.assertIn("the centring of motor, 13.00 mm, is lost in a bore of 16.00 mm: turn a step", lost[0].text)
        same = adapter(**single, sides=[{**MOTOR_SIDE, "centring": "16 mm"}, AXLE_SIDE])
        self.assertEqual(about(look(same), "is lost"), [])
        both = adapter(**single, sides=[{**MOTOR_SIDE, "spigot": True}, {**AXLE_SIDE, "spigot": True}])
        made = plate({**both, "adapters": [{**both["adapters"][0], "coupling_diameter": "8 mm"}]}, 0)
        self.assertAlmostEqual(made["spigot"], 0.0065)
        self.assertAlmostEqual(made["other_spigot"], 0.008)

    def test_heads_count_against_the_other_flange(self) -> None:
        single = {"plates": 1, "first_plate": None, "dowels": None, "joint": None, "coupling": None}
        # Heads of 5.5 mm on 25 mm beside holes of 4.3 mm on 34 mm, all in line.
        near = {**AXLE_SIDE, "bolts": {"count": 4, "circle": "34 mm", "hole": "4.3 mm"}, "head": None}
        sides = [MOTOR_SIDE, {key: value for key, value in near.items() if value is not None}]
        told = about(look(adapter(**single, sides=sides)), "bolt of axle")
        self.assertTrue(any("head of motor" in clash.text and "by 0.40 mm" in clash.text for clash in told), told)
        flat = [{**MOTOR_SIDE, "stands_out": "2 mm"}, {**AXLE_SIDE, "stands_out": "1 mm"}]
        thin = about(look(adapter(**single, sides=flat)), "stand out against the flange of")
        # 4 mm of plate; the heads of the motor want 3.2 and 1.5 mm below them.
        self.assertEqual([round(1e3 * clash.amount, 6) for clash in thin], [1.8, 0.7])
        two = about(look(adapter(first_plate="4 mm")), "heads of axle stand out against the flange of motor")
        self.assertEqual([round(1e3 * clash.amount, 6) for clash in two], [0.3])

    def test_a_template_of_each_plate_reads_back_as_the_plate(self) -> None:
        setup = set_up(read(adapter()).design)
        for number in (0, 1):
            outline = flange_outline(setup, f"fit.adapters[0].plates[{number}]")
            drawing = read_dxf(StringIO(dxf(outline).decode()))
            drawn = sorted(
                (round(c.dxf.center.x, 3), round(c.dxf.center.y, 3), round(c.dxf.radius, 3))
                for c in drawing.modelspace().query("CIRCLE")
                if c.dxf.layer != "OUTLINE"
            )
            holes = plate(adapter(), number)["holes"]
            self.assertEqual(
                drawn, sorted(tuple(round(1e3 * h[key], 3) for key in ("x", "y", "radius")) for h in holes)
            )
        with self.assertRaises(ValueError):
            flange_outline(setup, "fit.adapters[0].plates[2]")
        wish = TemplateWish("svg", "a4", "fit.adapters[0].plates[1]")
        templates = template({**changed({}), "fit": adapter()}, NOTHING, wish, ())
        self.assertTrue(templates.name.endswith("-adapter-1-plate-2.svg"))
        self.assertEqual(templates.holes, len(plate(adapter(), 1)["holes"]))

    def test_faults_say_what_would_be_right(self) -> None:
        for more, path in (
            ({"sides": [MOTOR_SIDE]}, "fit.adapters[0].sides"),
            ({"plates": 1}, "fit.adapters[0].first_plate"),
            ({"sides": [{**MOTOR_SIDE, "head": "3 mm"}, AXLE_SIDE]}, "fit.adapters[0].sides[0].head"),
        ):
            with self.subTest(path), self.assertRaises(DocumentError) as raised:
                read(adapter(**more))
            self.assertIn(path, [fault.path for fault in raised.exception.faults])
