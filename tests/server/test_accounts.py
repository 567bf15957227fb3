from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import mock

from django.test import TransactionTestCase
from django.utils import timezone
from rest_framework.exceptions import ValidationError
from rest_framework.test import APIClient

from server.accounts import patience
from server.accounts.models import Attempts, User
from server.entrance.actions import sign_up
from server.workshops.models import Workshop
from tests.server.people import PASSWORD, WorkshopCase


class Accounts(WorkshopCase):
    def test_sign_up_gives_a_workshop_of_ones_own(self) -> None:
        client = APIClient()
        answer = client.post("/api/accounts/", {"username": "newcomer", "password": PASSWORD}, format="json")
        self.assertEqual(answer.status_code, 201)
        (workshop,) = client.get("/api/workshops/").json()
        self.assertEqual((workshop["name"], workshop["role"]), ("newcomer's workshop", "owner"))

    def test_a_taken_name_and_a_weak_password_are_told(self) -> None:
        for body, field, words in (
            ({"username": "Owner", "password": PASSWORD}, "username", "taken"),
            ({"username": "fresh", "password": "1234"}, "password", "too short"),
            ({"username": "no spaces", "password": PASSWORD}, "username", "valid username"),
            ({"username": "fresh"}, "password", "required"),
        ):
            with self.subTest(field, words=words):
                answer = APIClient().post("/api/accounts/", body, format="json")
                self.assertEqual(answer.status_code, 400)
                self.assertIn(words, " ".join(answer.json()["fields"][field]))
        self.assertFalse(User.objects.filter(username="fresh").exists())

    def test_in_out_and_another_password(self) -> None:
        client = APIClient()
        self.assertIsNone(client.get("/api/session/").json()["username"])
        wrong = client.post("/api/accounts/sign-in/", {"username": "viewer", "password": "no"}, format="json")
        self.assertEqual(wrong.status_code, 400)
        client.post("/api/accounts/sign-in/", {"username": "viewer", "password": PASSWORD}, format="json")
        self.assertEqual(client.get("/api/session/").json()["username"], "viewer")
        change = {"current": PASSWORD, "password": "other-rivets-8"}
        self.assertEqual(client.post("/api/accounts/password/", change, format="json").status_code, 204)
        self.assertEqual(client.get("/api/session/").json()["username"], "viewer", "still signed in")
        again = client.post("/api/accounts/password/", change, format="json")
        self.assertIn("not the present password", again.json()["fields"]["current"][0])
        client.post("/api/accounts/sign-out/")
        self.assertIsNone(client.get("/api/session/").json()["username"])
        self.assertTrue(User.objects.get(username="viewer").check_password("other-rivets-8"))

    def test_writing_wants_the_pages_token(self) -> None:
        client = APIClient(enforce_csrf_checks=True)
        for address in ("/api/accounts/sign-in/", "/api/accounts/"):
            answer = client.post(address, {"username": "viewer", "password": PASSWORD}, format="json")
            self.assertEqual(answer.status_code, 403)
        client.force_login(self.people["owner"])
        self.assertEqual(client.post("/api/workshops/", {"name": "x"}, format="json").status_code, 403)


class Names(TransactionTestCase):
    def test_one_account_a_name_whatever_its_case(self) -> None:
        sign_up("Wren", PASSWORD)
        with self.assertRaisesRegex(ValidationError, "taken"):
            sign_up("wren", PASSWORD)
        self.assertEqual((User.objects.count(), Workshop.objects.count()), (1, 1))


class Guessing(WorkshopCase):
    """Time stands still unless a test moves it."""

    def setUp(self) -> None:
        super().setUp()
        self.now = timezone.now()
        patch = mock.patch("django.utils.timezone.now", lambda: self.now)
        patch.start()
        self.addCleanup(patch.stop)

    def sign_in(self, password: str, address: str = "192.0.2.1", name: str = "viewer", **headers: str) -> int:
        body = {"username": name, "password": password}
        answer = APIClient(REMOTE_ADDR=address).post("/api/accounts/sign-in/", body, format="json", headers=headers)
        return int(answer.status_code)

    def test_each_try_waits_longer(self) -> None:
        self.assertEqual([self.sign_in("no") for _ in range(7)], [400] * 5 + [429] * 2)
        self.assertEqual(self.sign_in(PASSWORD), 429)
        self.now += timedelta(seconds=3)
        self.assertEqual([self.sign_in("no"), self.sign_in("no")], [400, 429])
        self.now += timedelta(seconds=3)
        self.assertEqual(self.sign_in("no"), 429, "the next one waits twice as long")
        self.now += timedelta(seconds=2)
        self.assertEqual(self.sign_in(PASSWORD), 200)
        self.assertEqual([self.sign_in("no") for _ in range(5)], [400] * 5, "forgotten once it went well")

    def test_what_a_client_says_of_its_address_is_not_believed(self) -> None:
        tries = [self.sign_in("no", **{"X-Forwarded-For": f"198.51.100.{n}"}) for n in range(7)]
        self.assertEqual(tries[-1], 429)

    def test_many_addresses_slow_each_other_but_not_the_owners(self) -> None:
        self.assertEqual(self.sign_in(PASSWORD, "192.0.2.77"), 200)
        tries = [self.sign_in("no", f"198.51.100.{n}") for n in range(25)]
        self.assertEqual(tries[18:20], [400, 429])
        self.assertEqual(self.sign_in(PASSWORD, "192.0.2.77"), 200)

    def test_one_address_cannot_go_through_all_names(self) -> None:
        self.assertEqual([self.sign_in("no", name=f"n{n}") for n in range(61)][-2:], [400, 429])

    def test_other_things_that_can_be_guessed_wait_too(self) -> None:
        owner = self.as_("owner")
        invitations = f"/api/workshops/{self.workshop.id}/invitations/"
        for address, body, free in (
            ("/api/accounts/password/", {"current": "no", "password": PASSWORD}, 5),
            ("/api/joining/", {"code": "no"}, 10),
            (invitations, {"username": "nobody", "role": "viewer"}, 30),
        ):
            with self.subTest(address):
                tries = [owner.post(address, body, format="json").status_code for _ in range(free + 1)]
                self.assertEqual(tries, [400] * free + [429])
        body = {"username": "viewer", "password": PASSWORD}
        tries = [APIClient().post("/api/accounts/", body, format="json").status_code for _ in range(61)]
        self.assertEqual(tries[-2:], [400, 429])

    def test_a_clock_that_is_put_back_locks_nobody_out_for_long(self) -> None:
        self.assertEqual([self.sign_in("no") for _ in range(6)], [400] * 5 + [429])
        self.now -= timedelta(hours=3)
        self.assertEqual(self.sign_in("no"), 429)
        self.now += timedelta(seconds=3)
        self.assertEqual(self.sign_in(PASSWORD), 200)

    def test_who_comes_at_the_same_moment_does_not_wait_for_it(self) -> None:
        """Thirty pupils sign up at once, and the first one was counted a little after the second one's clock."""
        key = (patience.SIGN_UP, "192.0.2.7")
        patience.count(key)
        Attempts.objects.update(last_at=timezone.now() + timedelta(seconds=5))
        patience.count(key)
        self.assertEqual(Attempts.objects.get().count, 2)


class Invitations(WorkshopCase):
    def setUp(self) -> None:
        super().setUp()
        self.address = f"/api/workshops/{self.workshop.id}/invitations/"
        self.thing = f"/api/vehicles/{self.vehicle.id}/"

    def invite(self, **body: str) -> Any:
        return self.as_("owner").post(self.address, {"role": "editor", **body}, format="json")

    def join(self, code: str, person: str = "stranger", accept: bool = True) -> Any:
        return self.as_(person).post("/api/joining/", {"code": code, "accept": accept}, format="json")

    def test_by_code_once(self) -> None:
        code = self.invite().json()["code"]
        self.assertEqual(self.join(code, accept=False).json()["workshop"], "Saltmarsh Workshop")
        self.assertEqual(self.as_("stranger").get(self.thing).status_code, 404, "looking is not joining")
        self.assertEqual(self.join(code).status_code, 200)
        self.assertEqual(self.as_("stranger").get(self.thing).json()["role"], "editor")
        self.assertEqual(self.join(code, "viewer").status_code, 400, "used up")
        self.assertNotIn("code", str(self.as_("owner").get(self.address).json()))

    def test_by_name_as_a_request(self) -> None:
        self.assertEqual(self.invite(username="Stranger").status_code, 201)
        stranger = self.as_("stranger")
        self.assertEqual(stranger.get(self.thing).status_code, 404, "asked, not added")
        (asked,) = stranger.get("/api/invitations/").json()
        self.assertEqual((asked["workshop"], asked["author"]), ("Saltmarsh Workshop", "owner"))
        answer = f"/api/invitations/{asked['id']}/"
        self.assertEqual(self.as_("viewer").post(answer, {"accept": True}, format="json").status_code, 404)
        self.assertEqual(stranger.post(answer, {"accept": True}, format="json").status_code, 204)
        self.assertEqual(stranger.get(self.thing).json()["role"], "editor")
        self.assertIn("member already", self.invite(username="stranger").json()["detail"])

    def test_declined_taken_back_too_late_and_nobody_of_that_name(self) -> None:
        self.invite(username="stranger")
        stranger = self.as_("stranger")
        (answer,) = stranger.get("/api/invitations/").json()
        stranger.post(f"/api/invitations/{answer['id']}/", {"accept": False}, format="json")
        self.assertEqual(self.as_("owner").get(self.address).json(), [])
        made = self.invite().json()
        self.assertEqual(self.as_("owner").delete(f"{self.address}{made['id']}/").status_code, 204)
        self.assertEqual(self.join(made["code"]).status_code, 400)
        late = self.invite().json()["code"]
        with mock.patch("django.utils.timezone.now", lambda: datetime.now(UTC) + timedelta(days=15)):
            self.assertEqual(self.join(late).status_code, 400)
        self.assertIn('no account named "ghost"', self.invite(username="ghost").json()["fields"]["username"][0])

    def test_a_strangers_workshop_never_becomes_ones_bench(self) -> None:
        vandal = self.as_("stranger")
        bait = vandal.post("/api/workshops/", {"name": "!"}, format="json").json()["id"]
        answer = vandal.post(
            f"/api/workshops/{bait}/invitations/", {"role": "owner", "username": "owner"}, format="json"
        )
        self.assertEqual(answer.status_code, 201)
        owner = self.as_("owner")
        self.assertEqual([w["name"] for w in owner.get("/api/workshops/").json()], ["Saltmarsh Workshop"])
        owner.post(f"/api/invitations/{answer.json()['id']}/", {"accept": True}, format="json")
        self.assertEqual(owner.get("/api/workshops/").json()[0]["name"], "Saltmarsh Workshop", "one's own comes first")
        self.assertEqual(owner.patch("/api/session/", {"workshop": bait}, format="json").status_code, 204)
        self.assertEqual(owner.get("/api/workshops/").json()[0]["name"], "!", "the one used last")
        self.assertEqual(owner.post(f"/api/workshops/{bait}/leaving/").status_code, 204)
        self.assertEqual([w["name"] for w in owner.get("/api/workshops/").json()], ["Saltmarsh Workshop"])

    def test_the_last_owner_closes_it_and_can_open_it_again(self) -> None:
        home = f"/api/workshops/{self.workshop.id}/"
        owner = self.as_("owner")
        self.assertIn("needs an owner", owner.post(f"{home}leaving/").json()["detail"])
        self.assertIn("type its name", owner.post(f"{home}closing/", {"name": "x"}, format="json").json()["detail"])
        self.assertEqual(owner.post(f"{home}closing/", {"name": "Saltmarsh Workshop"}, format="json").status_code, 204)
        for address in (home, self.thing, f"{home}vehicles/"):
            self.assertEqual(owner.get(address).status_code, 404)
        self.assertEqual(self.as_("viewer").get("/api/workshops/").json(), [])
        self.assertIsNotNone(owner.get("/api/workshops/").json()[0]["closed_at"])
        self.assertEqual(owner.delete(f"{home}closing/").status_code, 204)
        self.assertEqual(self.as_("viewer").get(self.thing).status_code, 200)


class Members(WorkshopCase):
    def address(self, name: str = "") -> str:
        members = f"/api/workshops/{self.workshop.id}/members/"
        return members + (f"{self.workshop.memberships.get(user=self.people[name]).id}/" if name else "")

    def test_somebody_is_taken_out(self) -> None:
        self.assertEqual(self.as_("owner").delete(self.address("editor")).status_code, 204)
        self.assertEqual(self.as_("editor").get(f"/api/vehicles/{self.vehicle.id}/").status_code, 404)

    def test_the_last_owner_stays(self) -> None:
        for answer in (
            self.as_("owner").delete(self.address("owner")),
            self.as_("owner").patch(self.address("owner"), {"role": "viewer"}, format="json"),
        ):
            self.assertEqual(answer.status_code, 400)
            self.assertIn("needs an owner", answer.json()["detail"])

    def test_a_workshop_is_renamed(self) -> None:
        address = f"/api/workshops/{self.workshop.id}/"
        self.assertEqual(self.as_("owner").patch(address, {"name": "Estuary"}, format="json").json()["name"], "Estuary")
        self.assertEqual(
            self.as_("viewer").get(address).json(),
            {
                "id": str(self.workshop.id),
                "name": "Estuary",
                "role": "viewer",
                "closed_at": None,
            },
        )
