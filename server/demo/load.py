"""Loading the invented scenario: repeatable, and confined to the demo's own workshop."""

from __future__ import annotations

import json
from pathlib import Path
from uuid import UUID

from django.db import transaction

from server.accounts.models import User
from server.designs.actions import add_vehicle, name_revision, save_revision
from server.designs.models import Vehicle
from server.workshops.models import Membership, Role, Workshop

VISITOR = "saltmarsh-visitor"
WORKSHOP = UUID("5a17a45b-0000-4000-8000-00000000d3a0")
NAMES = ("As first built", "Second gearing", "Third gearing")
VEHICLES = Path(__file__).parent / "vehicles"
"""A folder a vehicle, holding its revisions as design files in their order."""


def load_if_missing() -> None:
    """Load the demo into a database that has none; what visitors have changed since stays."""
    if not Workshop.objects.filter(id=WORKSHOP).exists():
        load()


@transaction.atomic
def load() -> Workshop:
    """Put the demo's workshop into its first state; no other is touched."""
    visitor, created = User.objects.get_or_create(username=VISITOR)
    if created:
        visitor.set_unusable_password()
        visitor.save()
    workshop, _ = Workshop.objects.update_or_create(id=WORKSHOP, defaults={"name": "Saltmarsh Workshop"})
    Membership.objects.update_or_create(workshop=workshop, user=visitor, defaults={"role": Role.OWNER})
    Vehicle.objects.filter(workshop=workshop).delete()
    for folder in sorted(VEHICLES.iterdir()):
        first, *later = (json.loads(file.read_text()) for file in sorted(folder.glob("*.json")))
        vehicle = add_vehicle(visitor, workshop, first)
        for number, document in enumerate(later, start=1):
            save_revision(visitor, vehicle, number, document)
        for revision in vehicle.revisions.order_by("number"):
            name_revision(visitor, revision, NAMES[revision.number - 1])
    return workshop
