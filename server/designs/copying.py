"""Copies of vehicles: the design with its named revisions; what was run and built stays with the one it was done to."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from server.accounts.models import User
from server.designs.actions import add_vehicle, name_revision, save_revision
from server.designs.models import Revision, Vehicle
from server.workshops.models import Workshop

MOST_COPIES = 1000
"""Names that are tried before giving up on a free one."""


@transaction.atomic
def copy_vehicle(user: User, vehicle: Vehicle, workshop: Workshop) -> Vehicle:
    """Put a copy of a vehicle on a workshop's bench, under a name that is free there.

    Args:
        user: who acts; they may see the vehicle and change the workshop.
        vehicle: what is copied.
        workshop: where to, its own or another.
    """
    name = _free_name(vehicle.name, workshop)
    first, *later = [(entry, {**entry.document, "name": name}) for entry in _revisions(vehicle)]
    made = add_vehicle(user, workshop, first[1])
    for number, (_, document) in enumerate(later, start=1):
        save_revision(user, made, number, document)
    _name(user, made, [first, *later])
    return made


def _revisions(vehicle: Vehicle) -> list[Revision]:
    """Those with a name, and the newest, in their order."""
    newest = vehicle.revisions.first()
    assert newest is not None  # a vehicle is created with its first revision
    named = vehicle.revisions.exclude(name="").exclude(pk=newest.pk).order_by("number")
    return [*named, newest]


def _name(user: User, made: Vehicle, copied: list[tuple[Revision, dict[str, Any]]]) -> None:
    """Give the copies their names; two that are alike are one revision, which has the later name."""
    for entry, document in copied:
        same = made.revisions.filter(document=document).order_by("-number").first()
        if same is not None and entry.name:
            name_revision(user, same, entry.name)


def _free_name(name: str, workshop: Workshop) -> str:
    taken = set(workshop.vehicles.values_list("name", flat=True))
    tried = (name if n == 0 else f"{name}, copy" if n == 1 else f"{name}, copy {n}" for n in range(MOST_COPIES))
    return next((one for one in tried if one not in taken), name)
