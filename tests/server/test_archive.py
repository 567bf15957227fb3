"""A workshop goes out as one file and comes in again; what is no archive changes nothing."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

from server.demo.load import load
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import PLAIN, changed
from tests.server.people import WorkshopCase


def packed(files: dict[str, Any]) -> bytes:
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as archive:
        for name, content in files.items():
            archive.writestr(name, content if isinstance(content, bytes | str) else json.dumps(content))
    return made.getvalue()


def archive(*vehicles: dict[str, Any], **files: Any) -> bytes:
    head = {"format": "ydrometer-archive", "version": 1, "name": "Sent", "vehicles": list(vehicles)}
    return packed({"workshop.json": head, "parts.json": [], **files})


class Archive(WorkshopCase):
    def send(self, data: bytes) -> Any:
        return self.as_("stranger").post("/api/archives/", data, content_type="application/octet-stream")

    def fault(self, data: bytes) -> str:
        before = Workshop.objects.count()
        answer = self.send(data)
        self.assertEqual((answer.status_code, Workshop.objects.count()), (400, before), answer.content)
        return str(answer.json()["faults"][0]["path"])

    def test_the_demo_goes_out_and_comes_in_the_same(self) -> None:
        demo = load()
        Membership.objects.create(workshop=demo, user=self.people["viewer"], role=Role.VIEWER)
        out = self.as_("viewer").get(f"/api/workshops/{demo.id}/archive/")
        self.assertEqual(out["Content-Type"], "application/zip")
        made = Workshop.objects.get(pk=self.send(out.content).json()["id"])
        self.assertEqual(made.name, demo.name)
        self.assertEqual(made.memberships.get().user, self.people["stranger"])
        for column in ("document", "ref"):
            self.assertEqual(*(list(one.parts.values_list(column, flat=True)) for one in (made, demo)))
        for mine, theirs in zip(made.vehicles.all(), demo.vehicles.all(), strict=True):
            revisions = [[(r.name, r.document) for r in one.revisions.order_by("number")] for one in (mine, theirs)]
            self.assertEqual(*revisions)
            self.assertEqual(mine.runs.count(), theirs.runs.count())
            readings = [sorted(str(run.document["readings"]) for run in one.runs.all()) for one in (mine, theirs)]
            self.assertEqual(*readings)

    def test_what_is_put_away_comes_so(self) -> None:
        vehicle = {"name": "x", "put_away": True, "revisions": [{"file": "a.json", "name": ""}]}
        made = Workshop.objects.get(pk=self.send(archive(vehicle, **{"a.json": PLAIN})).json()["id"])
        self.assertTrue(made.vehicles.get().put_away)

    def test_nonsense_is_told_and_leaves_nothing(self) -> None:
        lone = {"revisions": [{"file": "a.json"}]}
        self.assertEqual(self.fault(b"no zip"), "$")
        self.assertEqual(self.fault(packed({"other.txt": "x"})), "workshop.json")
        self.assertEqual(self.fault(packed({"workshop.json": {"format": "x"}})), "workshop.json")
        self.assertEqual(self.fault(packed({"workshop.json": "{"})), "workshop.json: $")
        self.assertEqual(self.fault(archive(lone)), "a.json")
        self.assertEqual(self.fault(archive({})), "workshop.json: vehicles[0]")
        heavy = changed({"vehicle.mass": "much"})
        self.assertEqual(self.fault(archive(lone, **{"a.json": heavy})), "a.json: vehicle.mass")
        self.assertEqual(self.fault(archive({**lone, "runs": "r.json"}, **{"a.json": PLAIN, "r.json": {}})),
                         "r.json: designs")  # fmt: skip
        self.assertEqual(self.fault(archive(**{"parts.json": 3})), "parts.json")
