"""A design behind a link: what a stranger sees, and for how long."""

from __future__ import annotations

import json
from typing import Any

from django.test import Client
from django.utils import timezone

from server.designs.actions import delete, put_away
from server.designs.models import Share
from tests.server.people import WorkshopCase


class Sharing(WorkshopCase):
    def make(self, **asked: Any) -> Any:
        address = f"/api/vehicles/{self.vehicle.pk}/shares/"
        return self.as_("editor").post(address, {"days": 7, **asked}, format="json")

    def look(self, code: str, path: str = "", **more: Any) -> Any:
        return Client().post(f"/api/shared/{path}", {"code": code, **more}, "application/json")

    def test_a_stranger_sees_the_design_as_it_stood_and_nothing_else(self) -> None:
        answer = self.make().json()
        before = self.vehicle.revisions.latest("number").document
        changed = {**before, "name": "Another", "notes": "in the drawer under the bench"}
        self.as_("editor").post(
            f"/api/vehicles/{self.vehicle.pk}/revisions/", {"base": 1, "document": changed}, format="json"
        )
        seen = self.look(answer["code"])
        self.assertEqual(seen.status_code, 200)
        self.assertEqual(set(seen.json()), {"name", "made_at", "expires_at", "card"})
        self.assertEqual(seen.json()["name"], before["name"])
        self.assertNotIn(str(self.workshop.pk), json.dumps(seen.json()))
        top = next(g for g in seen.json()["card"]["gauges"] if g["measure"] == "top_speed")
        working = self.look(answer["code"], "working/", measure="top_speed").json()
        self.assertEqual(working["value"], top["value"])
        self.assertEqual(self.look(answer["code"], "working/", measure="colour").status_code, 400)

    def test_it_expires_is_taken_back_and_goes_with_its_workshop(self) -> None:
        codes = [self.make().json()["code"] for _ in range(3)]
        address = f"/api/vehicles/{self.vehicle.pk}/shares/"
        listed = self.as_("editor").get(address).json()
        self.assertEqual([row["code"] for row in listed], ["", "", ""])
        Share.objects.filter(pk=listed[2]["id"]).update(expires_at=timezone.now())
        self.assertEqual(self.look(codes[0]).status_code, 404)
        self.assertEqual(self.as_("editor").delete(f"{address}{listed[1]['id']}/").status_code, 204)
        self.assertEqual(self.look(codes[1]).status_code, 404)
        self.assertEqual(self.look(codes[2]).status_code, 200)
        self.assertEqual([one["opened"] for one in self.as_("editor").get(address).json()], [1])
        delete(self.people["owner"], self.vehicle)
        self.assertEqual(self.look(codes[2]).status_code, 404, "it sleeps with its vehicle")
        put_away(self.people["owner"], self.vehicle, False)
        self.assertEqual(self.look(codes[2]).status_code, 200)
        self.workshop.closed_at = timezone.now()
        self.workshop.save()
        self.assertEqual(self.look(codes[2]).status_code, 404)

    def test_how_long_and_how_many(self) -> None:
        self.assertEqual(self.make(days=400).status_code, 400)
        for _ in range(20):
            self.make()
        self.assertGreaterEqual(self.make().status_code, 400)

    def test_guessing_codes_is_slowed_down(self) -> None:
        for _ in range(20):
            self.assertEqual(self.look("none").status_code, 404)
        self.assertEqual(self.look("none").status_code, 429)
