"""People and workshops to test with."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from typing import Any
from unittest import mock

from rest_framework.test import APIClient, APITestCase

from server.accounts.models import User
from server.designs.actions import add_vehicle
from server.designs.models import Vehicle
from server.workshops.actions import create_workshop
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import PLAIN

PASSWORD = "rivets-and-rope-7"


@contextmanager
def small_pieces(size: int) -> Iterator[None]:
    """Searches cut into pieces of so many stage combinations, and begun in this process, where that is known."""
    here = mock.patch("server.searches.actions.aside", lambda work, *args: work(*args))
    with here, mock.patch("ydrometer.search.run.CHUNK", size):
        yield


@contextmanager
def small_parts(size: int) -> Iterator[None]:
    """Files that come, or go, in pieces of so many bytes."""
    with ExitStack() as stack:
        for module in ("server.pieces.store", "server.archive.api", "server.runs.log_files_api"):
            stack.enter_context(mock.patch(f"{module}.PIECE", size))
        yield


def send_in_pieces(client: APIClient, address: str, begun: dict[str, Any], data: bytes) -> None:
    """Send a file that was begun."""
    for number, at in enumerate(range(0, len(data), begun["piece"])):
        piece = data[at : at + begun["piece"]]
        answer = client.put(f"{address}pieces/{number}/", piece, content_type="application/octet-stream")
        assert answer.status_code == 204, answer.content


def beginning(name: str) -> dict[str, Any]:
    """What is sent to put a vehicle of this name on a bench."""
    return {"beginning": {"start": "empty", "answers": {"name": name}}}


class WorkshopCase(APITestCase):
    """A workshop with an owner, an editor, a viewer and a vehicle, and a stranger with a workshop of their own."""

    workshop: Workshop
    vehicle: Vehicle
    people: dict[str, User]

    @classmethod
    def setUpTestData(cls) -> None:
        names = ("owner", "editor", "viewer", "stranger")
        cls.people = {name: User.objects.create_user(name, password=PASSWORD) for name in names}
        cls.workshop = create_workshop(cls.people["owner"], "Saltmarsh Workshop")
        for role in (Role.EDITOR, Role.VIEWER):
            Membership.objects.create(workshop=cls.workshop, user=cls.people[role.value], role=role)
        create_workshop(cls.people["stranger"], "Elsewhere")
        cls.vehicle = add_vehicle(cls.people["owner"], cls.workshop, PLAIN)

    def as_(self, name: str) -> APIClient:
        """A client signed in as one of the people; "nobody" is signed out."""
        client = APIClient()
        if name != "nobody":
            client.force_login(self.people[name])
        return client

    def save(self, name: str, base: int, document: dict[str, Any]) -> Any:
        address = f"/api/vehicles/{self.vehicle.id}/revisions/"
        return self.as_(name).post(address, {"base": base, "document": document}, format="json")
