"""The bin over the API: changes all or nothing, nothing overwritten, files in and out."""

from __future__ import annotations

import base64
import importlib
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.apps import apps
from django.utils import timezone

from server.parts.books import write
from server.parts.models import BinBook, Part
from tests.server.people import WorkshopCase

GEAR = {"id": "g14", "kind": "gear", "teeth": 14, "module": "1 mm", "owned": 2}


class BinCase(WorkshopCase):
    def address(self, rest: str = "") -> str:
        return f"/api/workshops/{self.workshop.id}/parts/{rest}"

    def change(self, *changes: tuple[str, int, Any], who: str = "editor") -> Any:
        body = {"changes": [{"id": ref, "base": base, "document": document} for ref, base, document in changes]}
        return self.as_(who).post(self.address(), body, format="json")


class Migrating(BinCase):
    def test_a_rating_of_a_controller_goes_into_it_and_back(self) -> None:
        moved = importlib.import_module("server.parts.migrations.0002_controller_ratings")
        before = {
            "id": "c",
            "kind": "controller",
            "controller": {"current_limit": "40 A"},
            "continuous_current": "30 A",
        }
        part = Part.objects.create(workshop=self.workshop, ref="c", document=before)
        moved.inwards(apps, None)
        part.refresh_from_db()
        rated = {"current_limit": "40 A", "continuous_current": "30 A"}
        self.assertEqual(part.document, {"id": "c", "kind": "controller", "controller": rated})
        moved.outwards(apps, None)
        part.refresh_from_db()
        self.assertEqual(part.document, before)


class Changes(BinCase):
    def test_added_changed_and_taken_out(self) -> None:
        self.assertEqual(self.change(("g14", 0, GEAR)).json(), [{"version": 1, "document": GEAR}])
        changed = {**GEAR, "owned": 3}
        self.assertEqual(self.change(("g14", 1, changed)).json()[0]["version"], 2)
        self.assertEqual(self.as_("viewer").get(self.address()).json(), [{"version": 2, "document": changed}])
        self.assertEqual(self.change(("g14", 2, None)).status_code, 200)
        self.assertEqual(Part.objects.count(), 0)

    def test_what_somebody_else_changed_is_not_overwritten(self) -> None:
        self.change(("g14", 0, GEAR))
        self.change(("g14", 1, {**GEAR, "owned": 9}), who="owner")
        other = {**GEAR, "id": "g15", "teeth": 15}
        answer = self.change(("g14", 1, GEAR), ("g15", 0, other))
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["present"][0]["document"]["owned"], 9)
        self.assertEqual(Part.objects.count(), 1)
        for late in (("g14", 0, GEAR), ("g15", 1, other), ("g15", 1, None)):
            self.assertEqual(self.change(late).status_code, 409)

    def test_a_fault_in_one_leaves_all_unwritten(self) -> None:
        answer = self.change(("g14", 0, GEAR), ("g3", 0, {**GEAR, "id": "g3", "teeth": 3}))
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(answer.json()["faults"][0]["path"], "changes[1].teeth")
        self.assertEqual(Part.objects.count(), 0)
        self.assertEqual(self.change(("g14", 0, GEAR), ("g14", 0, GEAR)).status_code, 400)
        self.assertEqual(self.change(("other", 0, GEAR)).status_code, 400)

    def test_workshops_do_not_see_each_others_parts(self) -> None:
        self.change(("g14", 0, GEAR))
        elsewhere = self.as_("stranger").get("/api/workshops/").json()[0]["id"]
        self.assertEqual(self.as_("stranger").get(f"/api/workshops/{elsewhere}/parts/").json(), [])


class Lists(BinCase):
    def read(self, name: str, data: bytes, **more: str) -> Any:
        body = {"name": name, "data": base64.b64encode(data).decode(), **more}
        return self.as_("editor").post(self.address("file/"), body, format="json")

    def test_lines_become_parts_with_ids_that_are_free(self) -> None:
        self.change(("gear-14-module-1-mm", 0, {**GEAR, "id": "gear-14-module-1-mm"}))
        body = {"kind": "gear", "text": "module 1: 14 15 15"}
        answer = self.as_("editor").post(self.address("bulk/"), body, format="json")
        made = answer.json()
        self.assertEqual(
            [p["id"] for p in made["parts"]], ["gear-14-module-1-mm-2", "gear-15-module-1-mm", "gear-15-module-1-mm-2"]
        )
        self.assertEqual(made["faults"], [])
        self.assertEqual(Part.objects.count(), 1)

    def test_what_is_written_out_reads_back_as_the_same_parts(self) -> None:
        self.change(("g14", 0, GEAR))
        for suffix in ("csv", "xlsx"):
            file = self.exported(suffix)
            self.assertIn("attachment", file["Content-Disposition"])
            back = self.read(f"parts.{suffix}", file.content).json()
            self.assertEqual((back["faults"], back["versions"]), ([], [1]))
            self.assertEqual(back["parts"][0] | {"module": "1 mm"}, GEAR)
        self.assertEqual(self.as_("viewer").get(self.address("export/exe/")).status_code, 404)
        empty = self.as_("viewer").get(self.address("export/csv/?kind=motor"))
        self.assertEqual(len(empty.content.decode().splitlines()), 1)

    def exported(self, suffix: str, query: str = "") -> Any:
        """A file of the bin; one that a worker writes is written in between."""
        address = self.address(f"export/{suffix}/{query}")
        answer = self.as_("viewer").get(address)
        if answer.status_code == 503:
            self.assertEqual(answer["Retry-After"], "2")
            for book in BinBook.objects.filter(data=None):
                write(book.pk)
            answer = self.as_("viewer").get(address)
        return answer

    def test_a_book_is_written_once_for_each_state_of_the_bin(self) -> None:
        self.change(("g14", 0, GEAR))
        first = self.exported("xlsx").content
        again = self.as_("viewer").get(self.address("export/xlsx/"))
        self.assertEqual((again.status_code, again.content), (200, first))
        self.assertTrue(self.exported("xlsx", "?kind=gear").content.startswith(b"PK"))
        self.change(("g14", 1, {**GEAR, "teeth": 15}))
        self.assertEqual(self.as_("viewer").get(self.address("export/xlsx/")).status_code, 503)
        self.assertEqual(BinBook.objects.filter(kind="").count(), 1, "that of the bin as it was is gone")
        late = BinBook.objects.get(kind="")
        self.change(("g14", 2, {**GEAR, "teeth": 16}))
        write(late.pk)
        self.assertIsNone(BinBook.objects.get(pk=late.pk).data, "the bin has changed meanwhile")

    def test_one_whose_worker_has_died_is_asked_for_again(self) -> None:
        self.change(("g14", 0, GEAR))
        with patch("server.parts.books.app") as queue:
            for waited, asked in ((0, 1), (0, 1), (61, 2)):
                BinBook.objects.update(asked_at=timezone.now() - timedelta(seconds=waited))
                self.as_("viewer").get(self.address("export/xlsx/"))
                self.assertEqual(queue.configure_task.call_count, asked)

    def test_faults_come_with_row_and_column_and_nothing_is_written(self) -> None:
        answer = self.read("a.csv", b"teeth,module\n14,1\n3,1\n", kind="gear").json()
        self.assertEqual([(f["row"], f["column"]) for f in answer["faults"]], [(3, "teeth")])
        self.assertEqual(Part.objects.count(), 0)
        self.assertEqual(self.read("a.bin", b"\xff\xfe").status_code, 400)
        body = {"name": "a.csv", "data": "%%%"}
        self.assertEqual(self.as_("editor").post(self.address("file/"), body, format="json").status_code, 400)
