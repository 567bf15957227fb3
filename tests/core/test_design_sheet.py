"""A design on one page."""

from __future__ import annotations

import json
from pathlib import Path
from unittest import TestCase

import pypdfium2

from tests.core.designs import PLAIN, SIX_STAGES, changed
from ydrometer.files.design_sheet import Heading, design_sheet, sheet_html
from ydrometer.starting.starts import BY_KEY, design_of

HEADING = Heading("Third gearing", "3 May 2027", "Saltmarsh Workshop")
DEMO = Path(__file__).parents[2] / "server" / "demo" / "vehicles"
NOWHERE = Path("/nowhere")


class Sheet(TestCase):
    def test_it_says_what_a_judge_asks(self) -> None:
        text = sheet_html(design_of(BY_KEY["board"]), HEADING)
        for words in (
            "Third gearing",
            "3 May 2027",
            "toothed belt 15 : 54",
            "3.6 : 1",
            "time over the distance, 50 m",
            "between 7 m/s and 10 m/s",
            "the grip, typical of polyurethane wheel on dry asphalt",
            "54-tooth pulley",
            "<svg",
        ):
            self.assertIn(words, text)

    def test_units_are_those_that_were_asked_for(self) -> None:
        self.assertIn("78 kg", sheet_html(design_of(BY_KEY["board"]), HEADING))
        self.assertIn("172 lb", sheet_html(design_of(BY_KEY["board"]), HEADING, "inch"))

    def test_every_gear_of_a_box_is_told(self) -> None:
        file = sorted((DEMO / "4-turnstone").glob("*.json"))[-1]
        self.assertIn("32.5 / 19.3 / 12.2 : 1", sheet_html(json.loads(file.read_text()), HEADING))

    def test_words_of_others_are_no_markup(self) -> None:
        text = sheet_html(changed({"name": "<b>x", "notes": "<script>"}, PLAIN), HEADING)
        self.assertNotIn("<script>", text)
        self.assertNotIn("<b>x", text)

    def test_it_is_one_page(self) -> None:
        file = pypdfium2.PdfDocument(design_sheet(SIX_STAGES, HEADING, NOWHERE))
        self.addCleanup(file.close)
        self.assertEqual(len(file), 1)
