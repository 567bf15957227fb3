"""Vehicles, workshops and accounts that go for good: when, what goes with them, and what stays."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.test import Client
from django.utils import timezone

from server.accounts.models import SignedIn, User
from server.accounts.tasks import clear_away as clear_accounts
from server.designs.models import Revision, Vehicle
from server.designs.tasks import clear_away
from server.workshops.actions import create_workshop
from server.workshops.models import Workshop
from tests.server.people import PASSWORD, WorkshopCase


class Vehicles(WorkshopCase):
    def patch(self, **asked: Any) -> Any:
        return self.as_("editor").patch(f"/api/vehicles/{self.vehicle.pk}/", asked, format="json")

    def card(self) -> Any:
        (card,) = self.as_("viewer").get(f"/api/workshops/{self.workshop.pk}/vehicles/").json()
        return card

    def test_one_stays_in_the_drawer_for_a_month(self) -> None:
        self.assertEqual(self.patch(delete=True).status_code, 200)
        self.assertTrue(self.card()["put_away"])
        self.assertIsNotNone(self.card()["gone_at"])
        clear_away(0)
        self.assertTrue(Vehicle.objects.filter(pk=self.vehicle.pk).exists())
        self.patch(put_away=False)
        self.assertEqual((self.card()["put_away"], self.card()["gone_at"]), (False, None))
        self.patch(delete=True)
        Vehicle.objects.update(gone_at=timezone.now() - timedelta(seconds=1))
        clear_away(0)
        self.assertFalse(Vehicle.objects.filter(pk=self.vehicle.pk).exists())
        self.assertFalse(Revision.objects.filter(vehicle_id=self.vehicle.pk).exists())


class Workshops(WorkshopCase):
    def test_only_a_closed_one_is_erased_and_only_by_its_name(self) -> None:
        address = f"/api/workshops/{self.workshop.pk}/erasing/"
        name = {"name": self.workshop.name}
        self.assertGreaterEqual(self.as_("owner").post(address, name, format="json").status_code, 400)
        self.as_("owner").post(f"/api/workshops/{self.workshop.pk}/closing/", name, format="json")
        self.assertEqual(self.as_("owner").post(address, {"name": "Another"}, format="json").status_code, 400)
        self.assertEqual(self.as_("editor").post(address, name, format="json").status_code, 403)
        self.assertEqual(self.as_("owner").post(address, name, format="json").status_code, 204)
        self.assertFalse(Workshop.objects.filter(pk=self.workshop.pk).exists())


class Accounts(WorkshopCase):
    def go(self, person: str, password: str = PASSWORD) -> Any:
        return self.as_(person).post("/api/accounts/deleting/", {"password": password}, format="json")

    def test_what_is_theirs_alone_goes_with_them_and_the_rest_stays(self) -> None:
        editor = self.people["editor"]
        alone = create_workshop(editor, "Mine alone")
        saved = {"base": 1, "document": {**self.vehicle.revisions.latest("number").document, "notes": "oiled"}}
        self.as_("editor").post(f"/api/vehicles/{self.vehicle.pk}/revisions/", saved, format="json")
        self.assertEqual(self.go("editor", "not this one").status_code, 400)
        self.assertEqual(self.go("editor").status_code, 204)
        self.assertFalse(User.objects.filter(pk=editor.pk).exists())
        self.assertFalse(Workshop.objects.filter(pk=alone.pk).exists())
        self.assertIsNone(self.vehicle.revisions.get(number=2).author)

    def test_others_are_not_left_without_an_owner(self) -> None:
        refused = self.go("owner")
        self.assertIn(f"Others work in {self.workshop.name}", refused.json()["detail"])
        self.assertTrue(User.objects.filter(pk=self.people["owner"].pk).exists())
        self.workshop.memberships.filter(user=self.people["editor"]).update(role="owner")
        self.assertEqual(self.go("owner").status_code, 204)

    def test_devices_are_forgotten_with_their_sessions(self) -> None:
        client = Client()
        client.force_login(self.people["owner"])
        client.get("/api/accounts/devices/")
        clear_accounts(0)
        self.assertEqual(SignedIn.objects.count(), 1)
        client.session.delete()
        clear_accounts(0)
        self.assertEqual(SignedIn.objects.count(), 0)
