"""A workshop goes out as one file and comes in again; what is no archive changes nothing."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

from PIL import Image

from server.builds.actions import keep_template
from server.builds.models import Photo
from server.demo.load import load
from server.designs.models import Vehicle
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import PLAIN, changed
from tests.server.people import WorkshopCase


def packed(files: dict[str, Any]) -> bytes:
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:
        for name, content in files.items():
            archive.writestr(name, content if isinstance(content, bytes | str) else json.dumps(content))
    return stream.getvalue()


def archive(*vehicles: dict[str, Any], **files: Any) -> bytes:
    head = {"format": "ydrometer-archive", "version": 1, "name": "Sent", "vehicles": list(vehicles)}
    return packed({"workshop.json": head, "parts.json": [], **files})


def built(vehicle: Vehicle) -> tuple[Any, ...]:
    """All that is kept of a vehicle's building, but the ids."""
    build = getattr(vehicle, "build", None)
    return (
        build and build.book,
        [*vehicle.step_entries.values_list("step", "doing", "at", "minutes", "value", "note", "reason", "title")],
        [*vehicle.part_entries.values_list("key", "state", "at", "expected", "paid")],
        [*vehicle.inspections.values_list("at", "document")],
    )


def picture() -> bytes:
    stream = io.BytesIO()
    Image.new("RGB", (20, 10), "white").save(stream, "JPEG")
    return stream.getvalue()


OWN = [{"id": "paint", "title": "Paint it"}]


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
        answer = Workshop.objects.get(pk=self.send(out.content).json()["id"])
        self.assertEqual(answer.name, demo.name)
        self.assertEqual(answer.memberships.get().user, self.people["stranger"])
        for column in ("document", "ref"):
            self.assertEqual(*(list(one.parts.values_list(column, flat=True)) for one in (answer, demo)))
        for mine, theirs in zip(answer.vehicles.all(), demo.vehicles.all(), strict=True):
            revisions = [[(r.name, r.document) for r in one.revisions.order_by("number")] for one in (mine, theirs)]
            self.assertEqual(*revisions)
            self.assertEqual(mine.runs.count(), theirs.runs.count())
            readings = [sorted(str(run.document["readings"]) for run in one.runs.all()) for one in (mine, theirs)]
            self.assertEqual(*readings)
            self.assertEqual(*(built(one) for one in (mine, theirs)))
        self.assertTrue(any(vehicle.step_entries.exists() for vehicle in answer.vehicles.all()))

    def test_photos_and_own_steps_come_too(self) -> None:
        photo = Photo.objects.create(vehicle=self.vehicle, step="own/1", data=picture())
        keep_template(self.people["owner"], self.workshop, "paint", OWN)
        out = self.as_("owner").get(f"/api/workshops/{self.workshop.id}/archive/")
        answer = Workshop.objects.get(pk=self.send(out.content).json()["id"])
        copied = Photo.objects.get(vehicle__workshop=answer)
        self.assertEqual((copied.step, copied.taken_at), (photo.step, photo.taken_at))
        self.assertEqual(
            [(step_template.name, step_template.steps) for step_template in answer.step_templates.all()],
            [("paint", OWN)],
        )

    def test_what_is_put_away_comes_so(self) -> None:
        vehicle = {"name": "x", "put_away": True, "revisions": [{"file": "a.json", "name": ""}]}
        answer = Workshop.objects.get(pk=self.send(archive(vehicle, **{"a.json": PLAIN})).json()["id"])
        self.assertTrue(answer.vehicles.get().put_away)

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
        self.assertEqual(
            self.fault(archive({**lone, "runs": "r.json"}, **{"a.json": PLAIN, "r.json": {}})), "r.json: designs"
        )
        missing = {"step": "x", "taken_at": "2026-01-01T00:00Z", "file": "a.json"}
        for build, path in (
            ({}, "format"),
            ({"book": {"steps": 3}}, "steps"),
            ({"steps": [{"step": "x"}]}, "steps[0].doing"),
            ({"photos": [missing]}, "photos[0]"),
            ({"parts": 3}, "parts"),
        ):
            expected = {"format": "ydrometer-build", "version": 1, **build} if build else {}
            files = {"a.json": PLAIN, "b.json": expected}
            self.assertEqual(self.fault(archive({**lone, "build": "b.json"}, **files)), f"b.json: {path}")
        self.assertEqual(self.fault(archive(**{"workshop.json": 3})), "workshop.json")
        self.assertEqual(self.fault(archive(**{"parts.json": 3})), "parts.json")
