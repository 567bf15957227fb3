"""Loading the invented scenario: repeatable, and confined to the demo's own workshop."""

from __future__ import annotations

import json
from pathlib import Path
from uuid import UUID

from django.db import transaction

from server.accounts.models import User
from server.designs.actions import add_vehicle, name_revision, save_revision
from server.designs.models import Vehicle
from server.parts.actions import Change, change_parts
from server.workshops.models import Membership, Role, Workshop
from ydrometer.parts import files, sheet

VISITOR = "saltmarsh-visitor"
WORKSHOP = UUID("5a17a45b-0000-4000-8000-00000000d3a0")
NAMES = ("As first built", "Second gearing", "Third gearing")
VEHICLES = Path(__file__).parent / "vehicles"
"""A folder a vehicle, holding its revisions as design files in their order."""
PARTS = Path(__file__).parent / "parts"
"""Lists of parts, read as any list that somebody brings."""


def load_if_missing() -> None:
    """Load the demo into a database that has none; what visitors have changed since stays."""
    workshop = Workshop.objects.filter(id=WORKSHOP).first()
    if workshop is None:
        load()
    elif not workshop.parts.exists():
        # Of a version that had no bin yet.
        _fill_bin(User.objects.get(username=VISITOR), workshop)


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
    _fill_bin(visitor, workshop)
    for folder in sorted(VEHICLES.iterdir()):
        first, *later = (json.loads(file.read_text()) for file in sorted(folder.glob("*.json")))
        vehicle = add_vehicle(visitor, workshop, first)
        for number, document in enumerate(later, start=1):
            save_revision(visitor, vehicle, number, document)
        for revision in vehicle.revisions.order_by("number"):
            name_revision(visitor, revision, NAMES[revision.number - 1])
    return workshop


def _fill_bin(visitor: User, workshop: Workshop) -> None:
    workshop.searches.all().delete()
    workshop.parts.all().delete()
    tables = [table for file in sorted(PARTS.iterdir()) for table in files.tables_in(file.name, file.read_bytes())]
    parts, faults = sheet.parts_of(tables)
    assert not faults, faults
    change_parts(visitor, workshop, [Change(part["id"], 0, part) for part in parts])
