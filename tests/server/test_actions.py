"""Every action checks who acts by itself: whoever calls it cannot forget to."""

from __future__ import annotations

import importlib
import inspect
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from django.db.models import Model
from django.http import Http404
from rest_framework.exceptions import PermissionDenied

from server.accounts.models import User
from server.builds.actions import change_book
from server.designs.actions import put_away, save_revision
from server.workshops import access, actions
from server.workshops.models import Invitation, Membership, Role
from tests.core.designs import PLAIN
from tests.server.people import WorkshopCase

SERVER = Path(__file__).parents[2] / "server"
OWN = {
    ("server.entrance.actions", "stand_at"): "only where one stands oneself",
    ("server.workshops.actions", "accept"): "whoever has the code",
    ("server.workshops.actions", "withdraw"): "an owner, or the one who is asked",
    ("server.workshops.actions", "remove_member"): "an owner, or the member",
    ("server.designs.copying", "copy_vehicle"): "what is copied was read; the copy is checked by what it calls",
    ("server.designs.copying", "with_revision"): "the same",
    ("server.archive.actions", "add_piece"): "whoever has begun with the archive, no role in a workshop",
    ("server.archive.actions", "open_it"): "the same",
    ("server.archive.actions", "cancel"): "the same",
    ("server.archive.pack", "stays"): "looks only",
    ("server.archive.pack", "pack"): "reads only, for who was let in by the worker that asks for it",
    ("server.runs.actions", "log_run"): "by what it calls",
    ("server.demo.afternoons", "log"): "the demo fills its own workshop",
    ("server.demo.builds", "tell"): "the same",
    ("server.designs.history", "be_at"): "who looks at a vehicle, which they were let in to look at",
    ("server.designs.history", "others_at"): "looks only",
}
"""What checks in another way, and how."""


def changing() -> Iterator[tuple[str, str, Callable[..., Any]]]:
    """Functions of the server that are told who acts, and on what."""
    for file in sorted(SERVER.rglob("*.py")):
        if "def " not in file.read_text() or "migrations" in file.parts:
            continue
        name = ".".join(file.relative_to(SERVER.parent).with_suffix("").parts)
        if not (SERVER / file.relative_to(SERVER).parts[0] / "__init__.py").exists():
            continue
        if "user: User," not in file.read_text():
            continue
        module = importlib.import_module(name)
        for key, found in vars(module).items():
            if inspect.isfunction(found) and found.__module__ == name and not key.startswith("_"):
                yield name, key, found


def acts_on_a_row(action: Callable[..., Any]) -> bool:
    """Whether a user acts on something that is kept."""
    lines = list(inspect.signature(inspect.unwrap(action), eval_str=True).parameters.values())
    kinds = [entry.annotation for entry in lines[:2]]
    return len(kinds) == 2 and kinds[0] is User and inspect.isclass(kinds[1]) and issubclass(kinds[1], Model)


class EveryAction(WorkshopCase):
    def test_checks_its_actor(self) -> None:
        looked_at, missing = 0, []
        for module, name, action in changing():
            if module.startswith("server.workshops.access") or not acts_on_a_row(action):
                continue
            looked_at += 1
            if not hasattr(action, "__wrapped__") and (module, name) not in OWN:
                missing.append((module, name))
        self.assertEqual(missing, [])
        self.assertGreater(looked_at, 40)

    def test_is_refused_before_anything_is_done(self) -> None:
        for person, refusal in (("viewer", PermissionDenied), ("stranger", Http404)):
            user = self.people[person]
            with self.subTest(person):
                self.assertRaises(refusal, put_away, user, self.vehicle, True)
                self.assertRaises(refusal, save_revision, user, self.vehicle, 1, PLAIN)
                self.assertRaises(refusal, change_book, user, self.vehicle, 0, {})
                self.assertRaises(refusal, actions.rename_workshop, user, self.workshop, "Mine")
        self.vehicle.refresh_from_db()
        self.assertEqual((self.vehicle.put_away, self.vehicle.revisions.count()), (False, 1))

    def test_owners_alone_open_a_closed_workshop_again(self) -> None:
        actions.close_workshop(self.people["owner"], self.workshop, self.workshop.name)
        self.assertRaises(PermissionDenied, actions.open_again, self.people["editor"], self.workshop)
        self.assertRaises(Http404, actions.rename_workshop, self.people["owner"], self.workshop, "Closed")
        actions.open_again(self.people["owner"], self.workshop)
        self.assertIsNone(self.workshop.closed_at)

    def test_a_member_leaves_alone_and_is_taken_out_by_owners(self) -> None:
        viewer = Membership.objects.get(workshop=self.workshop, user=self.people["viewer"])
        self.assertRaises(PermissionDenied, actions.remove_member, self.people["editor"], viewer)
        actions.remove_member(self.people["viewer"], viewer)
        self.assertFalse(self.workshop.memberships.filter(user=self.people["viewer"]).exists())

    def test_an_invitation_is_declined_by_whom_it_is_for(self) -> None:
        stranger = self.people["stranger"]
        made, _ = actions.invite(self.people["owner"], self.workshop, Role.VIEWER, stranger.username)
        self.assertRaises(PermissionDenied, actions.withdraw, self.people["editor"], made)
        actions.withdraw(stranger, made)
        self.assertEqual(Invitation.objects.count(), 0)

    def test_what_goes_on_by_itself_asks_again(self) -> None:
        editor = self.people["editor"]
        self.assertTrue(access.may(editor, self.vehicle, access.EDITORS))
        Membership.objects.filter(user=editor).update(role=Role.VIEWER)
        self.assertFalse(access.may(editor, self.vehicle, access.EDITORS))
        self.assertFalse(access.may(None, self.vehicle, access.READERS))
