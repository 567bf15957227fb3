from rest_framework.test import APIClient

from server.accounts.models import User
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

    def test_guessing_passwords_is_slowed(self) -> None:
        client = APIClient()
        tries = [
            client.post("/api/accounts/sign-in/", {"username": "viewer", "password": str(n)}, format="json").status_code
            for n in range(31)
        ]
        self.assertEqual(tries[-1], 429)


class Members(WorkshopCase):
    def address(self, name: str = "") -> str:
        members = f"/api/workshops/{self.workshop.id}/members/"
        return members + (f"{self.workshop.memberships.get(user=self.people[name]).id}/" if name else "")

    def test_somebody_is_let_in_and_taken_out(self) -> None:
        owner = self.as_("owner")
        self.assertEqual(self.as_("stranger").get(f"/api/vehicles/{self.vehicle.id}/").status_code, 404)
        added = owner.post(self.address(), {"username": "Stranger", "role": "editor"}, format="json")
        self.assertEqual(added.status_code, 201)
        self.assertEqual(self.as_("stranger").get(f"/api/vehicles/{self.vehicle.id}/").json()["role"], "editor")
        twice = owner.post(self.address(), {"username": "stranger", "role": "viewer"}, format="json")
        self.assertIn("member already", twice.json()["detail"])
        self.assertEqual(owner.delete(self.address("stranger")).status_code, 204)
        self.assertEqual(self.as_("stranger").get(f"/api/vehicles/{self.vehicle.id}/").status_code, 404)

    def test_nobody_of_that_name(self) -> None:
        answer = self.as_("owner").post(self.address(), {"username": "ghost", "role": "viewer"}, format="json")
        self.assertIn('no account named "ghost"', answer.json()["fields"]["username"][0])

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
        self.assertEqual(self.as_("viewer").get(address).json(), {
            "id": str(self.workshop.id), "name": "Estuary", "role": "viewer",
        })  # fmt: skip
