"""The same thing sent several times at once is written down once, and each time answered alike."""

import io
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from uuid import uuid4

from django.db import connection
from django.test import TransactionTestCase
from django.utils import timezone
from PIL import Image
from rest_framework.test import APIClient

from server.accounts.models import User
from server.designs.actions import add_vehicle
from server.workshops.actions import create_workshop
from tests.core.designs import PLAIN

TIMES = 6


class AtOnce(TransactionTestCase):
    def setUp(self) -> None:
        self.user = User.objects.create_user("owner", password="gears-and-belts")
        self.vehicle = add_vehicle(self.user, create_workshop(self.user, "Bench"), PLAIN)

    def send(self, rest: str, body: Any, kind: str = "") -> int:
        client = APIClient()
        client.force_login(self.user)
        address = f"/api/vehicles/{self.vehicle.pk}/{rest}"
        answer = client.post(address, body, content_type=kind) if kind else client.post(address, body, format="json")
        connection.close()
        return int(answer.status_code)

    def statuses(self, *asked: Any) -> set[int]:
        with ThreadPoolExecutor(TIMES) as pool:
            return set(pool.map(lambda _: self.send(*asked), range(TIMES)))

    def test_runs_inspections_entries_and_photos(self) -> None:
        now, id_ = timezone.now().isoformat(), str(uuid4())
        run = {"kind": "push", "readings": ["90 N"]}
        self.assertEqual(self.statuses("runs/", {"id": id_, "document": run}), {201})
        inspection = {"id": id_, "document": {"hours": 0.5}, "at": now}
        self.assertEqual(self.statuses("build/inspections/", inspection), {201})
        step = {"id": id_, "step": "fit:mark_out", "doing": "done", "at": now}
        self.assertEqual(self.statuses("build/entries/", {"entries": [step]}), {201})
        part = {"id": id_, "key": "belt", "state": "here", "at": now}
        self.assertEqual(self.statuses("parts-list/entries/", {"entries": [part]}), {201})
        picture = io.BytesIO()
        Image.new("RGB", (8, 8)).save(picture, "JPEG")
        photo = f"build/photos/?step=fit:mark_out&id={id_}", picture.getvalue(), "application/octet-stream"
        self.assertEqual(self.statuses(*photo), {201})
        rows = (self.vehicle.runs, self.vehicle.inspections, self.vehicle.step_entries, self.vehicle.part_entries)
        self.assertEqual([row.count() for row in (*rows, self.vehicle.photos)], [1] * 5)
