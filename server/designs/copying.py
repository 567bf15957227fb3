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
    copied: Vehicle | None = None
    for entry in kept_revisions(vehicle):
        copied = with_revision(user, workshop, copied, {**entry.document, "name": name}, entry.name)
    assert copied is not None  # a vehicle is created with its first revision
    return copied


def kept_revisions(vehicle: Vehicle) -> list[Revision]:
    """Those with a name, and the newest, in their order."""
    newest = vehicle.revisions.latest("number")
    return [*vehicle.revisions.exclude(name="").exclude(pk=newest.pk).order_by("number"), newest]


def with_revision(
    user: User, workshop: Workshop, vehicle: Vehicle | None, document: dict[str, Any], name: str
) -> Vehicle:
    """A vehicle with one revision more; without one yet, a new one on the workshop's bench.

    A document like the newest one's adds none: that one then has the name.

    Raises:
        DocumentError: the document has faults.
    """
    if vehicle is None:
        vehicle = add_vehicle(user, workshop, document)
    else:
        save_revision(user, vehicle, vehicle.revisions.latest("number").number, document)
    if name:
        name_revision(user, vehicle.revisions.latest("number"), name)
    return vehicle


def _free_name(name: str, workshop: Workshop) -> str:
    taken = set(workshop.vehicles.values_list("name", flat=True))
    tried = (name if n == 0 else f"{name}, copy" if n == 1 else f"{name}, copy {n}" for n in range(MOST_COPIES))
    return next((name for name in tried if name not in taken), name)
