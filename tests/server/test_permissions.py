"""Who may do what: one table for every address and verb. An address it does not know fails the test."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import UUID

from django.contrib.sessions.models import Session
from django.db import transaction
from django.test import override_settings
from django.utils import timezone
from rest_framework.test import APITestCase

from server.accounts.models import SignedIn, User
from server.archive.models import Archive
from server.builds.actions import keep_template
from server.builds.models import Booklet, Photo, StepTemplate
from server.config.urls import api
from server.demo.load import load
from server.designs.models import Share
from server.pieces.models import HeldFile, HeldPiece
from server.practice import racing
from server.practice.actions import make_set
from server.practice.models import ExerciseSet, RaceBoard
from server.runs.actions import NewRun, log_run, present_design
from server.runs.log_files import begin
from server.runs.models import LogFile, Run
from server.runs.rig import order
from server.searches.actions import ask
from server.searches.models import Search
from server.workshops import tokens
from server.workshops.actions import create_workshop, invite
from server.workshops.models import Invitation, Membership, Role, Token
from tests.core.designs import PLAIN
from tests.server.people import WorkshopCase, beginning

REQUEST = {"format": "ydrometer-search", "version": 1, "design": PLAIN, "layouts": [{"stages": []}]}
PIECE = b"t,v"
WHEEL = {"id": "w", "kind": "wheel", "diameter": "125 mm"}
NEW_ID = "00000000-0000-4000-8000-00000000000c"
RUNS_FILE = {"format": "ydrometer-runs", "version": 1, "designs": {"plain": PLAIN}, "runs": []}
PLAN = {
    "format": "ydrometer-plan",
    "version": 1,
    "gearings": [{"name": "plain", "design": PLAIN}],
    "measures": [{"kind": "push"}],
}
PUSH = {"kind": "push", "readings": ["90 N", "92 N"]}
OPEN, MEMBERS, EDITORS, OWNERS, SIGNED_IN, ASKED = "open", "members", "editors", "owners", "signed in", "asked"
DEMO = "demo"
"""For everybody signed in, where the demo is served: elsewhere there is no such address."""
TOKENS = "tokens"
"""For instruments with a token alone: nobody who is signed in."""
OWN = "own"
"""What is the owner's account's alone."""
THE_WORKSHOP = {"workshop": "filled in by the test"}
WHICH = {"kind": "ratio", "level": 1, "seed": 7, "units": "metric"}
RACE = {
    "format": "ydrometer-race",
    "version": 1,
    "name": "Corridor",
    "distance": "12 m",
    "mode": "everyone",
    "entries": [],
}
A_SET = {"name": "Tuesday", "ideas": ["ratio"], "levels": [1], "count": 2}

# address -> {verb: (who, body)}; {…} are filled in by the test.
TABLE: dict[str, dict[str, tuple[str, Any]]] = {
    "session/": {"get": (OPEN, None), "patch": (MEMBERS, THE_WORKSHOP)},
    "vocabulary/": {"get": (OPEN, None)},
    "accounts/": {"post": (OPEN, {"username": "new", "password": "x"})},
    "accounts/sign-in/": {"post": (OPEN, {"username": "new", "password": "x"})},
    "accounts/sign-out/": {"post": (SIGNED_IN, None)},
    "accounts/password/": {"post": (SIGNED_IN, {"current": "a", "password": "b"})},
    "demo/": {"post": (OPEN, None)},
    "demo/vehicles/": {"get": (DEMO, None)},
    "demo/vehicles/<uuid:vehicle>/copies/": {"post": (DEMO, {})},
    "live/": {"post": (SIGNED_IN, {"document": PLAIN})},
    "changes/part/": {"post": (SIGNED_IN, {"document": PLAIN, "part": WHEEL})},
    "changes/kind/": {"post": (SIGNED_IN, {"document": PLAIN, "path": "drive.stages[0]", "kind": "chain"})},
    "loads/": {"post": (SIGNED_IN, {"document": PLAIN})},
    "loads/day/": {"post": (SIGNED_IN, {"document": PLAIN})},
    "loads/helps/": {"post": (SIGNED_IN, {"document": PLAIN, "check": "gear_tooth", "path": "drive.stages[0]"})},
    "loads/working/": {"post": (SIGNED_IN, {"document": PLAIN, "check": "brakes", "path": "vehicle"})},
    "sweep/": {"post": (SIGNED_IN, {"document": PLAIN, "path": "drive.stages[0]", "member": "driver"})},
    "typical/": {"post": (SIGNED_IN, {"document": PLAIN, "path": "vehicle.grip"})},
    "starts/": {"get": (SIGNED_IN, None)},
    "uncertainties/": {"post": (SIGNED_IN, {"document": PLAIN})},
    "working/": {"post": (SIGNED_IN, {"document": PLAIN, "measure": "top_speed"})},
    "aids/": {"post": (SIGNED_IN, {"aid": "rolled_distance", "given": {"x": "1 m", "n": "3"}})},
    "compare/": {"post": (SIGNED_IN, {"documents": [PLAIN, PLAIN]})},
    "grid/": {
        "post": (SIGNED_IN, {"document": PLAIN, "path": "drive.stages[0]", "drivers": [18], "drivens": [30, 36]})
    },
    "instruments/lines/": {"post": (SIGNED_IN, {"lines": ['{"t": 1, "newton": 9}']})},
    "turned-down/": {"post": (SIGNED_IN, {"document": PLAIN})},
    "practice/": {"get": (OPEN, None), "post": (OPEN, {**WHICH, "went": "well"})},
    "practice/exercise/": {"post": (OPEN, WHICH)},
    "practice/judge/": {"post": (OPEN, {**WHICH, "answer": "2"})},
    "practice/solved/": {"post": (OPEN, WHICH)},
    "practice/open/": {"post": (EDITORS, {**WHICH, **THE_WORKSHOP})},
    "workshops/<uuid:workshop>/sets/": {"get": (OWNERS, None), "post": (OWNERS, A_SET)},
    "sets/<uuid:which>/": {"get": (OWNERS, None), "delete": (OWNERS, None)},
    "sets/<uuid:which>/pupils/": {"delete": (OWNERS, None)},
    "sets/<uuid:which>/wall/<int:place>/": {"get": (OWNERS, None), "post": (OWNERS, None)},
    "sets/<uuid:which>/sheet/": {"get": (OWNERS, None)},
    "workshops/<uuid:workshop>/races/": {"get": (MEMBERS, None), "post": (EDITORS, {"document": RACE})},
    "races/<uuid:race>/": {
        "get": (MEMBERS, None),
        "put": (EDITORS, {"base": 1, "document": RACE}),
        "delete": (EDITORS, None),
    },
    "class/": {"get": (OPEN, None), "delete": (OPEN, None)},
    "class/joining/": {"post": (OPEN, {"code": "ABCDEF", "nickname": "Wren"})},
    "class/exercises/<int:place>/": {"get": (OPEN, None), "post": (OPEN, {"answer": "2"})},
    "workshops/": {"get": (SIGNED_IN, None), "post": (SIGNED_IN, {"name": "Another"})},
    "workshops/<uuid:workshop>/": {"get": (MEMBERS, None), "patch": (OWNERS, {"name": "Renamed"})},
    "archives/": {"post": (SIGNED_IN, {"name": "a.zip", "size": 3})},
    "archives/<uuid:archive>/": {"get": (OWN, None), "patch": (OWN, {"do": "cancel"})},
    "archives/<uuid:archive>/pieces/<int:number>/": {"get": (OWN, None), "put": (OWN, PIECE)},
    "workshops/<uuid:workshop>/archives/": {"post": (MEMBERS, None)},
    "workshops/<uuid:workshop>/closing/": {
        "post": (OWNERS, {"name": "Saltmarsh Workshop"}),
        "delete": (OWNERS, None),
    },
    "workshops/<uuid:workshop>/leaving/": {"post": (MEMBERS, None)},
    "workshops/<uuid:workshop>/invitations/": {"get": (OWNERS, None), "post": (OWNERS, {"role": "viewer"})},
    "workshops/<uuid:workshop>/invitations/<uuid:invitation>/": {"delete": (OWNERS, None)},
    "invitations/": {"get": (SIGNED_IN, None)},
    "vehicles/<uuid:vehicle>/shares/": {"get": (EDITORS, None), "post": (EDITORS, {"days": 7})},
    "vehicles/<uuid:vehicle>/shares/<uuid:share>/": {"delete": (EDITORS, None)},
    "shared/": {"post": (OPEN, {"code": "none"})},
    "shared/working/": {"post": (OPEN, {"code": "none", "measure": "top_speed"})},
    "accounts/deleting/": {"post": (SIGNED_IN, {"password": "another-one-3"})},
    "workshops/<uuid:workshop>/erasing/": {"post": (OWNERS, {"name": "Shed"})},
    "vehicles/<uuid:vehicle>/history/": {"get": (MEMBERS, None)},
    "accounts/forgotten/": {"post": (OPEN, {"email": "ada@gears.example.org"})},
    "accounts/email/": {"get": (SIGNED_IN, None), "post": (SIGNED_IN, {"email": "", "password": "another-one-3"})},
    "reach/": {"get": (SIGNED_IN, None)},
    "accounts/devices/": {"get": (SIGNED_IN, None), "delete": (SIGNED_IN, None)},
    "accounts/devices/<uuid:device>/": {"delete": (OWN, None)},
    "accounts/reset/": {"post": (OPEN, {"code": "none", "password": "rivets-and-rope-8"})},
    "workshops/<uuid:workshop>/members/<int:member>/reset/": {"post": (OWNERS, None)},
    "workshops/<uuid:workshop>/handing-over/": {"post": (OWNERS, {"member": 0})},
    "invitations/<uuid:invitation>/": {"post": (ASKED, {"accept": True})},
    "joining/": {"post": (SIGNED_IN, {"code": "none"})},
    "workshops/<uuid:workshop>/tokens/": {"get": (OWNERS, None), "post": (OWNERS, {"name": "gates"})},
    "workshops/<uuid:workshop>/tokens/<uuid:token>/": {"delete": (OWNERS, None)},
    "workshops/<uuid:workshop>/members/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/members/<int:member>/": {
        "patch": (OWNERS, {"role": "viewer"}),
        "delete": (OWNERS, None),
    },
    "workshops/<uuid:workshop>/usage/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/cards/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/vehicles/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, beginning("Dunlin")),
    },
    "workshops/<uuid:workshop>/parts/": {
        "get": (MEMBERS, None),
        "post": (
            EDITORS,
            {
                "changes": [
                    {"id": "g", "base": 0, "document": {"id": "g", "kind": "gear", "teeth": 12, "module": "1 mm"}}
                ]
            },
        ),
    },
    "workshops/<uuid:workshop>/parts/bulk/": {"post": (EDITORS, {"kind": "gear", "text": "module 1: 12 13"})},
    "workshops/<uuid:workshop>/parts/fits/": {"post": (MEMBERS, {"document": PLAIN, "path": "drive.stages[0]"})},
    "workshops/<uuid:workshop>/parts/file/": {"post": (EDITORS, {"name": "a.csv", "data": "a2luZA=="})},
    "workshops/<uuid:workshop>/parts/export/<str:suffix>/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/searches/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"request": REQUEST}),
    },
    "workshops/<uuid:workshop>/searches/survey/": {"post": (MEMBERS, {"request": REQUEST})},
    "workshops/<uuid:workshop>/fit/": {"post": (MEMBERS, {"document": PLAIN})},
    "workshops/<uuid:workshop>/fit/places/": {
        "post": (MEMBERS, {"document": {**PLAIN, "fit": {"plate": {"hole_pitch": "12 mm", "across": 20, "up": 8}}}}),
    },
    "workshops/<uuid:workshop>/fit/template/<str:kind>/": {
        "post": (MEMBERS, {"document": {**PLAIN, "fit": {"plate": {"hole_pitch": "12 mm", "across": 20, "up": 8}}}}),
    },
    "workshops/<uuid:workshop>/runs/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/orders/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/orders/export/<str:suffix>/": {"get": (MEMBERS, None)},
    "workshops/<uuid:workshop>/step-templates/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"name": "pit", "steps": [{"id": "a", "title": "Charge the radio"}]}),
    },
    "workshops/<uuid:workshop>/step-templates/<int:template>/": {"delete": (EDITORS, None)},
    "workshops/<uuid:workshop>/inverse/": {
        "post": (
            MEMBERS,
            {"document": PLAIN, "unknown": "mass", "path": "", "target": {"measure": "top_speed", "at_least": "5 m/s"}},
        ),
    },
    "searches/<uuid:search>/": {"get": (MEMBERS, None), "patch": (EDITORS, {"state": "cancelled"})},
    "searches/<uuid:search>/export/<str:suffix>/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/": {"get": (MEMBERS, None), "patch": (EDITORS, {"put_away": True})},
    "vehicles/<uuid:vehicle>/sheet/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/copies/": {"post": (EDITORS, {})},
    "vehicles/<uuid:vehicle>/newest/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/revisions/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"base": 1, "document": PLAIN}),
    },
    "vehicles/<uuid:vehicle>/revisions/<int:number>/": {
        "get": (MEMBERS, None),
        "patch": (EDITORS, {"name": "First"}),
    },
    "vehicles/<uuid:vehicle>/runs/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"id": "00000000-0000-4000-8000-00000000000a", "document": PUSH}),
    },
    "vehicles/<uuid:vehicle>/runs/file/": {"get": (MEMBERS, None), "post": (EDITORS, {"file": RUNS_FILE})},
    "vehicles/<uuid:vehicle>/runs/<uuid:run>/": {"patch": (EDITORS, {"base": 1, "put_away": True})},
    "vehicles/<uuid:vehicle>/readings/": {"post": (TOKENS, {"document": PUSH})},
    "vehicles/<uuid:vehicle>/plan/": {"get": (MEMBERS, None), "put": (EDITORS, {"base": 0, "document": PLAN})},
    "vehicles/<uuid:vehicle>/plan/choices/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/files/": {"post": (EDITORS, {"name": "a.csv", "size": 9, "head": "t,v\n1,2\n2,3\n"})},
    "vehicles/<uuid:vehicle>/files/<uuid:file>/": {
        "get": (MEMBERS, None),
        "patch": (EDITORS, {"do": "cancel"}),
    },
    "vehicles/<uuid:vehicle>/files/<uuid:file>/pieces/<int:number>/": {"put": (EDITORS, PIECE)},
    "vehicles/<uuid:vehicle>/parts-list/": {"post": (MEMBERS, {"document": PLAIN})},
    "vehicles/<uuid:vehicle>/parts-list/working/": {"post": (MEMBERS, {"document": PLAIN})},
    "vehicles/<uuid:vehicle>/parts-list/entries/": {"post": (EDITORS, {"entries": []})},
    "vehicles/<uuid:vehicle>/parts-list/file/": {"post": (EDITORS, {"name": "a.csv", "data": "a2V5"})},
    "vehicles/<uuid:vehicle>/parts-list/export/<str:suffix>/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/book/": {"get": (MEMBERS, None), "put": (EDITORS, {"base": 0, "book": {}})},
    "vehicles/<uuid:vehicle>/build/entries/": {"post": (EDITORS, {"entries": []})},
    "vehicles/<uuid:vehicle>/build/pulse/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/calendar/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/booklets/": {"post": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/booklets/<uuid:booklet>/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/booklets/<uuid:booklet>/file/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/build/photos/": {"post": (EDITORS, PIECE)},
    "vehicles/<uuid:vehicle>/build/photos/<uuid:photo>/": {"get": (MEMBERS, None), "delete": (EDITORS, None)},
    "vehicles/<uuid:vehicle>/build/inspections/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"id": NEW_ID, "at": "2027-05-03T18:00:00Z", "document": {}}),
    },
    "vehicles/<uuid:vehicle>/rig/": {
        "get": (MEMBERS, None),
        "post": (EDITORS, {"action": "spin"}),
        "patch": (EDITORS, {"do": "charge"}),
    },
    "vehicles/<uuid:vehicle>/rig/stream/": {"get": (MEMBERS, None)},
    "vehicles/<uuid:vehicle>/learnt/": {"get": (MEMBERS, None), "post": (EDITORS, None)},
}
VERBS = ("get", "post", "put", "patch", "delete")
ALLOWED = {
    OPEN: {"nobody", "stranger", "viewer", "editor", "owner"},
    SIGNED_IN: {"stranger", "viewer", "editor", "owner"},
    MEMBERS: {"viewer", "editor", "owner"},
    EDITORS: {"editor", "owner"},
    OWNERS: {"owner"},
    ASKED: {"stranger"},
    OWN: {"owner"},
    DEMO: set(),
    TOKENS: set(),
}


def refusal(person: str, who: str) -> int:
    """The status that somebody not allowed gets: what they may not see is not there."""
    if person == "nobody" or who == TOKENS:
        return 401
    return 404 if person == "stranger" or who in (ASKED, DEMO, OWN) else 403


class Permissions(WorkshopCase):
    search: Search
    invitation: Invitation
    token: Token
    run_of_it: Run
    file: LogFile
    photo: Photo
    template: StepTemplate
    booklet: Booklet
    exercises: ExerciseSet
    race: RaceBoard
    device: SignedIn
    share: Share
    archive: Archive

    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        cls.invitation, _ = invite(cls.people["owner"], cls.workshop, Role.VIEWER, "stranger")
        cls.token, _ = tokens.make(cls.people["owner"], cls.workshop, "gates")
        new = NewRun(UUID("00000000-0000-4000-8000-00000000000b"), PUSH)
        cls.run_of_it = log_run(cls.people["owner"], cls.vehicle, new, present_design(cls.vehicle))
        cls.file = begin(cls.people["owner"], cls.vehicle, "a.csv", 9, "t,v\n1,2\n2,3\n")
        cls.photo = Photo.objects.create(vehicle=cls.vehicle, step="fit:mark_out", data=b"jpeg")
        cls.booklet = Booklet.objects.create(vehicle=cls.vehicle, state="done", data=b"pdf")
        cls.template = keep_template(cls.people["owner"], cls.workshop, "evening", [{"id": "a", "title": "Sweep"}])
        order(cls.people["owner"], cls.vehicle, "spin", 1, present_design(cls.vehicle))
        cls.exercises = make_set(cls.people["owner"], cls.workshop, {**A_SET, "own_numbers": False, "units": "metric"})
        cls.race = racing.make(cls.people["owner"], cls.workshop, RACE)
        until = timezone.now() + timedelta(days=1)
        Session.objects.create(session_key="a" * 32, session_data="", expire_date=until)
        about = {"session_key": "a" * 32, "device": "phone", "last_at": timezone.now()}
        cls.device = SignedIn.objects.create(user=cls.people["owner"], **about)
        cls.share = Share.objects.create(vehicle=cls.vehicle, document=PLAIN, code_hash="a", expires_at=until)
        held = HeldFile.objects.create(author=cls.people["owner"], size=3)
        HeldPiece.objects.create(file=held, number=1, data=PIECE)
        about = {"workshop": cls.workshop, "held": held, "direction": "out", "state": "done"}
        cls.archive = Archive.objects.create(user=cls.people["owner"], **about)
        cls.search = ask(cls.people["owner"], cls.workshop, cls.vehicle, REQUEST).search

    def address(self, route: str) -> str:
        member = Membership.objects.get(workshop=self.workshop, user=self.people["viewer"])
        filled = route.replace("<uuid:workshop>", str(self.workshop.id)).replace("<uuid:vehicle>", str(self.vehicle.id))
        filled = filled.replace("<uuid:search>", str(self.search.id))
        filled = filled.replace("<uuid:invitation>", str(self.invitation.id))
        filled = filled.replace("<uuid:token>", str(self.token.id)).replace("<uuid:run>", str(self.run_of_it.id))
        filled = filled.replace("<uuid:file>", str(self.file.id)).replace("<uuid:photo>", str(self.photo.id))
        filled = filled.replace("<uuid:which>", str(self.exercises.pk)).replace("<int:place>", "0")
        filled = filled.replace("<uuid:archive>", str(self.archive.pk))
        filled = filled.replace("<uuid:share>", str(self.share.pk))
        filled = filled.replace("<uuid:device>", str(self.device.pk))
        filled = filled.replace("<uuid:race>", str(self.race.pk))
        filled = filled.replace("<uuid:booklet>", str(self.booklet.pk))
        filled = filled.replace("<int:template>", str(self.template.pk))
        return "/api/" + filled.replace("<int:member>", str(member.id)).replace("<int:number>", "1").replace(
            "<str:kind>", "svg"
        ).replace("<str:suffix>", "csv")

    def test_the_table_knows_every_address_and_verb(self) -> None:
        routes: dict[str, Any] = {str(route.pattern): getattr(route.callback, "view_class", None) for route in api}
        self.assertEqual(set(routes), set(TABLE))
        for route, view in routes.items():
            with self.subTest(route):
                self.assertEqual({verb for verb in VERBS if hasattr(view, verb)}, set(TABLE[route]))

    def test_each_person_at_each_address_with_each_verb(self) -> None:
        for route, verbs in TABLE.items():
            for verb, (who, body) in verbs.items():
                for person in ("nobody", "stranger", "viewer", "editor", "owner"):
                    with self.subTest(route, verb=verb, person=person), transaction.atomic():
                        self.check(route, verb, who, body, person)
                        transaction.set_rollback(True)

    def check(self, route: str, verb: str, who: str, body: Any, person: str) -> None:
        if isinstance(body, dict) and body.get("workshop") == THE_WORKSHOP["workshop"]:
            body = {**body, "workshop": str(self.workshop.id)}
        sent = {"content_type": "application/octet-stream"} if body is PIECE else {"format": "json"}
        answer = getattr(self.as_(person), verb)(self.address(route), body, **sent)
        if person in ALLOWED[who]:
            self.assertNotIn(answer.status_code, (401, 403, 500))
            if who != OPEN:
                self.assertNotEqual(answer.status_code, 404)
        else:
            self.assertEqual(answer.status_code, refusal(person, who))
            self.assertIn("detail", answer.json())

    def test_what_does_not_exist_looks_the_same(self) -> None:
        nowhere = "00000000-0000-4000-8000-000000000000"
        for route in (f"workshops/{nowhere}/", f"vehicles/{nowhere}/", f"vehicles/{self.vehicle.id}/revisions/9/"):
            self.assertEqual(self.as_("owner").get(f"/api/{route}").status_code, 404)


class Demo(APITestCase):
    def test_its_button_works_in_the_demo_alone(self) -> None:
        load()
        self.assertEqual(self.client.post("/api/demo/").status_code, 404)
        with override_settings(DEMO=True):
            answer = self.client.post("/api/demo/")
        self.assertEqual(answer.json(), {"username": "saltmarsh-visitor", "demo": True, "mail": False, "visitor": True})

    def test_its_vehicles_are_copied_to_a_bench_of_ones_own_and_nowhere_else(self) -> None:
        load()
        user = User.objects.create_user("newcomer")
        mine = create_workshop(user, "Mine")
        self.client.force_login(user)
        with override_settings(DEMO=True):
            cards = self.client.get("/api/demo/vehicles/").json()
            knot = next(card for card in cards if card["name"] == "Knot")
            address = f"/api/demo/vehicles/{knot['id']}/copies/"
            self.assertEqual(self.client.post(address, {}, format="json").status_code, 404)
            answer = self.client.post(address, {"workshop": str(mine.id)}, format="json")
        self.assertEqual((answer.status_code, answer.json()["name"]), (201, "Knot"))
        self.assertEqual(mine.vehicles.get().revisions.latest("number").document, {**knot["document"], "name": "Knot"})
