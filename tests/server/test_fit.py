"""Fit over the API: with the bin of the workshop, and templates as files."""

from __future__ import annotations

import base64
import io
from typing import Any

from ezdxf import recover

from server.parts.models import Part
from tests.core.designs import PLAIN
from tests.core.plates import JACK, MOTOR, PLATE, shaft
from tests.server.people import WorkshopCase

FIT: dict[str, Any] = {
    "plate": {**PLATE, "hole": "5 mm"},
    "shafts": [shaft(MOTOR, 12, 24, diameter="5 mm"), shaft(JACK, 48, 24)],
}


class Fit(WorkshopCase):
    def ask(self, what: str = "", fit: Any = None, who: str = "viewer", **more: Any) -> Any:
        body = {"document": {**PLAIN, "fit": FIT if fit is None else fit}, **more}
        return self.as_(who).post(f"/api/workshops/{self.workshop.id}/fit/{what}", body, format="json")

    def bore(self, across: str) -> None:
        document = {"kind": "gear", "id": "g15", "teeth": 15, "module": "1 mm", "bore": across}
        Part.objects.update_or_create(
            workshop=self.workshop, ref="g15", defaults={"document": document}, create_defaults={"document": document}
        )

    def texts(self) -> str:
        return " ".join(clash["text"] for clash in self.ask().json()["plates"][0]["clashes"])

    def test_the_bin_is_read_again_when_a_part_of_it_has_changed(self) -> None:
        self.assertNotIn("sleeve", self.texts())
        self.bore("8 mm")
        self.assertIn("a sleeve of 5 mm inside and 8 mm outside", self.texts())
        Part.objects.filter(ref="g15").update(version=2)
        self.bore("5 mm")
        self.assertNotIn("sleeve", self.texts())

    def test_a_faulty_section_is_told_by_its_paths(self) -> None:
        answer = self.ask(fit={"plate": {"hole_pitch": "much", "across": 0, "up": 8}})
        self.assertEqual(answer.status_code, 400)
        paths = [fault["path"] for fault in answer.json()["faults"]]
        self.assertEqual(paths, ["fit.plate.hole_pitch", "fit.plate.across"])

    def test_places_need_a_plate(self) -> None:
        self.assertIn("no plate", str(self.ask("places/", fit={}).json()))
        self.assertIn("helps", self.ask("places/").json())

    def test_templates_come_as_files(self) -> None:
        kinds = {"pdf": (b"%PDF", "application/pdf"), "svg": (b"<svg", "image/svg+xml"), "dxf": (b"", "image/vnd.dxf")}
        for suffix, (start, kind) in kinds.items():
            with self.subTest(suffix):
                answer = self.ask(f"template/{suffix}/", sheet="letter").json()
                self.assertEqual((answer["type"], answer["holes"]), (kind, 301))
                self.assertTrue(base64.b64decode(answer["data"]).startswith(start))
        dxf = base64.b64decode(self.ask("template/dxf/").json()["data"])
        document, _ = recover.read(io.BytesIO(dxf))
        self.assertEqual(len([e for e in document.modelspace() if e.dxf.layer == "HOLES"]), 300)

    def test_what_cannot_be_made_is_refused_with_a_remedy(self) -> None:
        self.assertEqual(self.ask("template/exe/").status_code, 404)
        self.assertIn("give the hole", str(self.ask("template/pdf/", shaft=JACK).json()))
        huge = {"plate": {"hole_pitch": "100 mm", "across": 100, "up": 100}}
        self.assertIn("take SVG or DXF", str(self.ask("template/pdf/", fit=huge).json()))
        huge["plate"] |= {"across": 200, "up": 200, "hole": "5 mm"}
        self.assertIn("40,000 holes", str(self.ask("template/dxf/", fit=huge).json()))
        self.assertEqual(self.ask("template/pdf/", sheet="a5").status_code, 400)
