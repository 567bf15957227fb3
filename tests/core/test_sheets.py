"""Templates read back and measured: DXF by its own reader, SVG as XML, PDF by its pages and the lines on them."""

from __future__ import annotations

import io
import math
import subprocess
from tempfile import NamedTemporaryFile
from typing import Any
from unittest import TestCase
from xml.etree import ElementTree

import numpy as np
from ezdxf import recover
from pypdfium2 import PdfDocument

from tests.core.plates import AXLE, JACK, MOTOR, PLATE, at, read, shaft
from ydrometer.files.sheets.dxf import dxf
from ydrometer.files.sheets.outline import (
    CROSS,
    LAYERS,
    NOTES,
    Outline,
    StraightLine,
    Text,
    adapter_outline,
    box,
    plate_outline,
)
from ydrometer.files.sheets.pdf import EDGE, FOOT, SIZES, TileLayout, on_tiles, pdf, tiles_of, window
from ydrometer.files.sheets.svg import BAR, svg
from ydrometer.fit.setting_up import set_up

BOLTS = {"count": 4, "circle": "25 mm", "hole": "3.2 mm", "angle": "45 deg"}
FIT: dict[str, Any] = {
    "plate": {**PLATE, "hole": "5 mm", "edge": "8 mm"},
    "shafts": [
        {
            "shaft": MOTOR,
            "mount": "slot",
            "slot": {"start": at(74, 48), "end": at(92, 48)},
            "opening": "14 mm",
            "bolts": BOLTS,
        },
        shaft(JACK, 120, 48, opening="22 mm"),
        shaft(AXLE, 264, 48, "holes", diameter="12 mm", bolts=BOLTS),
    ],
    "frame": [{"name": "rail <&>", "start": at(0, 0), "end": at(300, 0)}],
}
SVG = "{http://www.w3.org/2000/svg}"


def outline() -> Outline:
    return plate_outline(set_up(read(FIT).design))


class AsDxf(TestCase):
    def setUp(self) -> None:
        self.document, auditor = recover.read(io.BytesIO(dxf(outline())))
        self.assertFalse(auditor.errors)

    def on(self, layer: str, kind: str) -> list[Any]:
        return [e for e in self.document.modelspace() if e.dxf.layer == layer and e.dxftype() == kind]

    def test_layers_are_named_and_units_set(self) -> None:
        self.assertEqual(self.document.header["$INSUNITS"], 4)
        self.assertTrue(set(LAYERS) <= {layer.dxf.name for layer in self.document.layers})

    def test_holes_are_where_and_as_wide_as_they_should_be(self) -> None:
        holes = self.on("HOLES", "CIRCLE")
        self.assertEqual(len(holes), 300)
        self.assertTrue(all(abs(hole.dxf.radius - 2.5) < 1e-9 for hole in holes))
        spots = {(round(h.dxf.center.x, 6), round(h.dxf.center.y, 6)) for h in holes}
        self.assertEqual(spots, {(12.0 * i, 12.0 * j) for i in range(30) for j in range(10)})
        widths = sorted(round(circle.dxf.radius, 6) for circle in self.on("SHAFTS", "CIRCLE"))
        self.assertEqual(widths, [6.0, 11.0])

    def test_a_slot_is_two_half_circles_and_two_sides(self) -> None:
        arcs, sides = self.on("SLOTS", "ARC"), self.on("SLOTS", "LINE")
        self.assertEqual((len(arcs), len(sides)), (2, 2))
        self.assertEqual({round(arc.dxf.radius, 6) for arc in arcs}, {7.0})
        for line in sides:
            self.assertAlmostEqual(line.dxf.start.distance(line.dxf.end), 18.0, 6)
        ends = {(round(p.x, 6), round(p.y, 6)) for line in sides for p in (line.dxf.start, line.dxf.end)}
        for arc in arcs:
            touched = {(round(p.x, 6), round(p.y, 6)) for p in (arc.start_point, arc.end_point)}
            self.assertTrue(touched <= ends)

    def test_bolts_move_with_a_slot_and_stand_on_their_circle_elsewhere(self) -> None:
        self.assertEqual(len(self.on("BOLTS", "ARC")), 8)
        for bolt in self.on("BOLTS", "CIRCLE"):
            distance = math.dist((bolt.dxf.center.x, bolt.dxf.center.y), (264.0, 48.0))
            self.assertAlmostEqual(distance, 12.5, 6)
            self.assertAlmostEqual(bolt.dxf.radius, 1.6, 6)

    def test_the_plate_is_as_large_as_it_is(self) -> None:
        lines = self.on("OUTLINE", "LINE")
        xs = [p.x for line in lines for p in (line.dxf.start, line.dxf.end)]
        ys = [p.y for line in lines for p in (line.dxf.start, line.dxf.end)]
        self.assertAlmostEqual(max(xs) - min(xs), 29 * 12 + 16, 6)
        self.assertAlmostEqual(max(ys) - min(ys), 9 * 12 + 16, 6)


class Notes(TestCase):
    def test_a_name_stands_beside_its_shaft_clear_of_its_circle(self) -> None:
        notes = {shape.text: shape for shape in outline().shapes if isinstance(shape, Text)}
        axle = next(note for words, note in notes.items() if "axle" in words)
        self.assertAlmostEqual(axle.x, 0.264 + 0.7 * 0.006)
        self.assertGreater(axle.y, 0.048 + 0.006)
        motor = next(note for words, note in notes.items() if "motor" in words)
        self.assertAlmostEqual(motor.x, 0.092 + 0.7 * 0.007)

    def test_a_cross_stands_on_each_shaft(self) -> None:
        lines = [shape for shape in outline().shapes if isinstance(shape, StraightLine) and shape.layer == NOTES]
        on_axle = [
            (round(line.x2 - line.x1, 9), round(line.y2 - line.y1, 9))
            for line in lines
            if abs(0.5 * (line.x1 + line.x2) - 0.264) < 1e-9 and abs(0.5 * (line.y1 + line.y2) - 0.048) < 1e-9
        ]
        self.assertEqual(on_axle, [(2.0 * CROSS, 0.0), (0.0, 2.0 * CROSS)])


class AsSvg(TestCase):
    def test_a_unit_of_the_drawing_is_a_millimetre_of_paper(self) -> None:
        root = ElementTree.fromstring(svg(outline()))
        _, _, wide, high = (float(n) for n in root.attrib["viewBox"].split())
        self.assertEqual((root.attrib["width"], root.attrib["height"]), (f"{wide:.3f}mm", f"{high:.3f}mm"))
        left, bottom, right, top = (1e3 * m for m in outline().extent)
        self.assertAlmostEqual(wide, right - left, 2)
        self.assertAlmostEqual(high, top - bottom + 18.0, 2)
        bolts = root.findall(f"{SVG}g[@id='BOLTS']/{SVG}circle")
        self.assertEqual({c.attrib["r"] for c in bolts}, {"1.6000"})
        bar = root.find(f"{SVG}path[@id='SCALE']")
        assert bar is not None
        self.assertIn(f"h {BAR} ", bar.attrib["d"])

    def test_names_stay_text(self) -> None:
        named = read({**FIT, "plate": PLATE})
        made = Outline('<script>alert("x")</script>', plate_outline(set_up(named.design)).shapes)
        root = ElementTree.fromstring(svg(made))
        self.assertEqual(root.findtext(f"{SVG}title"), '<script>alert("x")</script>')


class AsPdf(TestCase):
    def test_sheets_are_of_the_size_asked_for_and_enough(self) -> None:
        for sheet, size in SIZES.items():
            with self.subTest(sheet):
                made = PdfDocument(pdf(outline(), sheet))
                fewest = min(len(list(tiles_of(outline(), *window(*way)))) for way in (size, size[::-1]))
                self.assertEqual(len(made), fewest)
                for page in made:
                    for points, mm in zip(sorted(page.get_size()), size, strict=True):
                        self.assertAlmostEqual(points * 25.4 / 72.0, mm, 1)

    def test_tiles_cover_all_of_it_once(self) -> None:
        left, bottom, right, top = (1e3 * m for m in outline().extent)
        tiles = list(tiles_of(outline(), 100.0, 60.0))
        self.assertEqual(len({(tile.left, tile.bottom) for tile in tiles}), len(tiles))
        self.assertLessEqual(min(tile.left for tile in tiles), left)
        self.assertGreaterEqual(max(tile.left for tile in tiles) + 100.0, right)
        self.assertGreaterEqual(max(tile.bottom for tile in tiles) + 60.0, top)
        self.assertEqual(sorted({round(tile.bottom - bottom, 6) for tile in tiles})[:2], [0.0, 60.0])

    def test_a_sheet_draws_what_lies_on_it_and_nothing_else(self) -> None:
        layout = TileLayout((0.0, 0.0), (100.0, 60.0), tuple(tiles_of(outline(), 100.0, 60.0)))
        drawn = on_tiles(outline(), layout)
        holes = [s for shapes in drawn.values() for s in shapes if s.layer == "HOLES"]
        self.assertEqual(len({(s.x, s.y) for s in holes}), 300)  # type: ignore[union-attr]
        self.assertLess(len(holes), 400)
        for tile, shapes in drawn.items():
            for left, bottom, right, top in (np.multiply(box(shape), 1e3) for shape in shapes):
                self.assertTrue(left <= tile.left + 101.0 and right >= tile.left - 1.0)
                self.assertTrue(bottom <= tile.bottom + 61.0 and top >= tile.bottom - 1.0)

    def test_the_scale_bar_is_a_hundred_millimetres_long_on_paper(self) -> None:
        page = PdfDocument(pdf(outline(), "a4"))[0]
        dots_a_mm = 10.0
        picture = np.array(page.render(scale=dots_a_mm * 25.4 / 72.0, grayscale=True).to_numpy()) < 128
        foot = picture[-int((EDGE + FOOT - 2.0) * dots_a_mm) :]
        longest = max(foot, key=lambda row: row.sum())
        dots = np.flatnonzero(longest)
        self.assertAlmostEqual((dots[-1] - dots[0]) / dots_a_mm, BAR, delta=0.4)

    def test_another_program_reads_its_words(self) -> None:
        with NamedTemporaryFile(suffix=".pdf") as file:
            file.write(pdf(outline(), "a4"))
            file.flush()
            said = subprocess.run(["pdftotext", "-layout", file.name, "-"], capture_output=True, text=True, check=True)
        self.assertEqual(said.stderr, "", "no sign without its face")
        pages = said.stdout.split("\f")
        self.assertIn("it has to be 100 mm long", pages[0])
        self.assertIn("sheet 1 of 2; cut at the marks and join, right edge to sheet 2", pages[0])
        self.assertIn("sheet 2 of 2; cut at the marks and join, left edge to sheet 1", pages[1])
        self.assertIn("motor shaft", said.stdout, "what stands on the plate has its words too")

    def test_too_many_sheets_and_unknown_ones_are_refused(self) -> None:
        huge = read({"plate": {"hole_pitch": "100 mm", "across": 90, "up": 90}})
        with self.assertRaisesRegex(ValueError, "sheets would be needed"):
            pdf(plate_outline(set_up(huge.design)), "a4")
        with self.assertRaisesRegex(ValueError, "known are a4, letter"):
            pdf(outline(), "a5")


class Adapters(TestCase):
    def test_a_hub_its_bolts_and_a_rim_around_them(self) -> None:
        made = adapter_outline(set_up(read(FIT).design), MOTOR)
        circles = [(s.layer, round(1e3 * s.radius, 6)) for s in made.shapes if hasattr(s, "radius")]
        self.assertEqual(circles.count(("BOLTS", 1.6)), 4)
        self.assertIn(("SHAFTS", 7.0), circles)
        self.assertIn(("OUTLINE", 12.5 + 1.6 + 6.0), circles)

    def test_nothing_to_cut_is_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "give the hole"):
            adapter_outline(set_up(read({"shafts": [shaft(MOTOR, 0, 0)]}).design), MOTOR)
        with self.assertRaisesRegex(ValueError, "there is no shaft"):
            adapter_outline(set_up(read(FIT).design), "drive.stages[7]")
