"""Where one is signed in, handing a workshop over, and passwords that were forgotten."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from io import StringIO
from typing import Any

from django.core import mail
from django.core.management import CommandError, call_command
from django.db import transaction
from django.test import Client
from django.utils import timezone

from server.accounts.models import ResetCode
from server.builds.actions import keep_template
from server.designs.actions import add_vehicle
from server.entrance.devices import device_of
from server.practice.actions import make_set
from server.workshops.actions import accept, change_role, create_workshop, invite
from server.workshops.models import Membership, Role
from tests.core.designs import PLAIN
from tests.server.people import PASSWORD, WorkshopCase, beginning

NEW = "gaskets-and-glue-9"
PHONE = "Mozilla/5.0 (Linux; Android 15) Mobile"


class Devices(WorkshopCase):
    def device(self, agent: str = "") -> Client:
        """A browser that somebody signs in with."""
        client = Client(headers={"user-agent": agent})
        entered = {"username": "owner", "password": PASSWORD}
        self.assertEqual(client.post("/api/accounts/sign-in/", entered, "application/json").status_code, 200)
        return client

    def listed(self, client: Client) -> list[Any]:
        answer: list[Any] = client.get("/api/accounts/devices/").json()
        return answer

    def test_what_a_browser_says_of_itself(self) -> None:
        expected = {PHONE: "phone", "Mozilla/5.0 (X11; Linux)": "computer", "": "computer", "(iPad; like)": "tablet"}
        self.assertEqual({agent: device_of(agent) for agent in expected}, expected)

    def test_one_is_ended_and_then_all_others(self) -> None:
        here, phone, third = self.device(), self.device(PHONE), self.device()
        shown = self.listed(here)
        self.assertEqual(len(shown), 3)
        self.assertEqual(sorted(row["device"] for row in shown if not row["here"]), ["computer", "phone"])
        (there,) = [row["id"] for row in shown if row["device"] == "phone"]
        self.assertEqual(here.delete(f"/api/accounts/devices/{there}/").status_code, 204)
        self.assertEqual(phone.get("/api/workshops/").status_code, 401)
        self.assertEqual(third.get("/api/workshops/").status_code, 200)
        self.assertEqual(here.delete("/api/accounts/devices/").status_code, 204)
        self.assertEqual(third.get("/api/workshops/").status_code, 401)
        self.assertEqual([one["here"] for one in self.listed(here)], [True])

    def test_signing_out_and_another_password_end_them(self) -> None:
        here, phone = self.device(), self.device(PHONE)
        phone.post("/api/accounts/sign-out/")
        self.assertEqual(len(self.listed(here)), 1)
        phone = self.device(PHONE)
        here.post("/api/accounts/password/", {"current": PASSWORD, "password": NEW}, "application/json")
        self.assertEqual(phone.get("/api/workshops/").status_code, 401)
        self.assertEqual([one["here"] for one in self.listed(here)], [True])

    def test_the_demos_visitors_see_nothing_of_each_other(self) -> None:
        user = self.people["owner"]
        user.set_unusable_password()
        user.save()
        first, second = Client(), Client()
        first.force_login(user)
        second.force_login(user)
        self.assertEqual([len(self.listed(client)) for client in (first, second)], [1, 1])
        self.assertEqual(first.delete("/api/accounts/devices/").status_code, 204)
        self.assertEqual(second.get("/api/workshops/").status_code, 200)


class Reach(WorkshopCase):
    """Where a phone finds the server."""

    def reach(self, **how: Any) -> Any:
        with self.settings(**how):
            return self.as_("editor").get("/api/reach/").json()

    def test_nowhere_while_this_computer_alone_is_served(self) -> None:
        self.assertEqual(self.reach(), {"addresses": [], "qr": "", "local": True, "fingerprint": ""})

    def test_in_the_local_network_by_its_addresses(self) -> None:
        lines = self.reach(LAN_ORIGINS=["http://10.0.0.7:8000"])
        self.assertEqual((lines["addresses"], lines["local"]), (["http://10.0.0.7:8000/"], True))
        self.assertTrue(lines["qr"].startswith("data:image/svg+xml"))

    def test_on_a_host_by_the_name_it_was_asked_under(self) -> None:
        lines = self.reach(IS_PUBLIC=True)
        self.assertEqual((lines["addresses"], lines["local"]), (["http://testserver/"], False))


class HandingOver(WorkshopCase):
    def test_another_becomes_owner_and_one_stays(self) -> None:
        member = Membership.objects.get(workshop=self.workshop, user=self.people["editor"])
        address = f"/api/workshops/{self.workshop.pk}/handing-over/"
        self.assertEqual(self.as_("owner").post(address, {"member": member.pk}, format="json").status_code, 204)
        roles = dict(self.workshop.memberships.values_list("user__username", "role"))
        self.assertEqual((roles["editor"], roles["owner"]), ("owner", "editor"))
        mine = Membership.objects.get(workshop=self.workshop, user=self.people["owner"])
        self.assertEqual(self.as_("editor").post(address, {"member": 0}, format="json").status_code, 400)
        self.assertEqual(self.as_("editor").post(address, {"member": mine.pk}, format="json").status_code, 204)


class Forgotten(WorkshopCase):
    def code(self) -> Any:
        member = Membership.objects.get(workshop=self.workshop, user=self.people["editor"])
        return self.as_("owner").post(f"/api/workshops/{self.workshop.pk}/members/{member.pk}/reset/")

    def use(self, code: str, password: str = NEW) -> Any:
        return Client().post("/api/accounts/reset/", {"code": code, "password": password}, "application/json")

    def test_an_owners_link_is_good_once(self) -> None:
        there = Client()
        there.force_login(self.people["editor"])
        first, code = self.code().json()["code"], self.code().json()["code"]
        self.assertEqual(self.use(first).status_code, 400)
        self.assertEqual(self.use(code, "123").status_code, 400)
        self.assertEqual(self.use(code).status_code, 204)
        self.assertEqual(there.get("/api/workshops/").status_code, 401)
        self.assertIn("ask for another", self.use(code).json()["fields"]["code"][0])
        entered = {"username": "editor", "password": NEW}
        self.assertEqual(Client().post("/api/accounts/sign-in/", entered, "application/json").status_code, 200)

    def test_it_stands_for_a_day(self) -> None:
        code = self.code().json()["code"]
        ResetCode.objects.update(expires_at=timezone.now())
        self.assertEqual(self.use(code).status_code, 400)

    def test_nobody_is_let_into_what_is_not_theirs(self) -> None:
        """An owner may not come by the workshop of a member in this way."""
        own = create_workshop(self.people["editor"], "Mine alone")
        self.assertEqual(self.code().status_code, 201)
        self.as_("editor").post(f"/api/workshops/{own.pk}/vehicles/", beginning("Dunlin"), format="json")
        refused = self.code()
        self.assertGreaterEqual(refused.status_code, 400)
        self.assertIn("./ydro reset-password editor", refused.json()["detail"])

    def test_it_ends_once_the_account_has_more_than_the_owner_sees(self) -> None:
        """A link that was made for somebody who had nothing of their own opens nothing that came later."""
        editor = self.people["editor"]
        own = create_workshop(editor, "Mine alone")
        elsewhere = create_workshop(self.people["stranger"], "Elsewhere")

        def exercises() -> None:
            wanted = {"name": "a", "ideas": ["ratio"], "levels": [1], "count": 1, "own_numbers": False}
            make_set(editor, own, {**wanted, "units": "metric"})

        def join() -> None:
            accept(editor, invite(self.people["stranger"], elsewhere, Role.VIEWER, "editor")[0])

        def lose() -> None:
            Membership.objects.filter(workshop=self.workshop, user=editor).delete()

        comes: list[Callable[[], object]] = [
            lambda: add_vehicle(editor, own, PLAIN),
            lambda: keep_template(editor, own, "evening", [{"id": "a", "title": "Sweep"}]),
            exercises,
            lambda: invite(editor, own, Role.VIEWER),
            lambda: create_workshop(editor, "Another"),
            join,
            lambda: change_role(
                self.people["owner"], Membership.objects.get(workshop=self.workshop, user=editor), Role.OWNER
            ),
            lose,
        ]
        for number, more in enumerate(comes):
            with self.subTest(number), transaction.atomic():
                code = self.code().json()["code"]
                more()
                self.assertEqual(self.use(code).status_code, 400)
                transaction.set_rollback(True)
        self.assertEqual(self.use(self.code().json()["code"]).status_code, 204)

    def test_by_mail_where_the_server_can_send_any(self) -> None:
        address = {"email": "editor@gears.example.org"}
        ask = partial(Client().post, "/api/accounts/forgotten/", address, "application/json")
        self.assertEqual(ask().status_code, 404)
        entered = {**address, "password": PASSWORD}
        keep = partial(self.as_("editor").post, "/api/accounts/email/", format="json")
        self.assertEqual(keep({**entered, "password": "x"}).status_code, 400)
        self.assertEqual(keep(entered).status_code, 204)
        with self.settings(EMAIL_HOST="mail.example.org"):
            self.assertEqual(ask().status_code, 204)
            self.assertEqual(len(mail.outbox), 1)
            answer = Client().post("/api/accounts/forgotten/", {"email": "nobody@example.org"}, "application/json")
            self.assertEqual((answer.status_code, len(mail.outbox)), (204, 1))
        code = str(mail.outbox[0].body).split("/reset#")[1].split()[0]
        self.assertEqual(self.use(code[:-1] + "x").status_code, 400)
        self.assertEqual(self.use(code).status_code, 204)
        self.assertEqual(self.use(code, NEW + "1").status_code, 400)

    def test_on_the_machine(self) -> None:
        lines = StringIO()
        call_command("reset_password", "EDITOR", stdout=lines)
        self.assertEqual(self.use(lines.getvalue().strip()).status_code, 204)
        with self.assertRaisesRegex(CommandError, "there are: .*owner"):
            call_command("reset_password", "nobody")
