"""Loading the invented scenario: repeatable, and confined to the demo's own workshop."""

from __future__ import annotations

import json
from datetime import timedelta
from functools import cache
from pathlib import Path
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from server.accounts.models import User
from server.demo import afternoons, builds
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
FOLDERS = sorted(folder.name for folder in VEHICLES.iterdir())
PARTS = Path(__file__).parent / "parts"
"""Lists of parts, read as any list that somebody brings."""


LEFT = "As visitors left it"
KEPT_FOR = timedelta(days=1)
"""How long what visitors have made is kept beside the demo."""


@transaction.atomic
def repair(*, fresh: bool = False) -> None:
    """Put the demo's workshop back to what it was; what visitors have made of it is kept beside it for a day.

    Args:
        fresh: keep nothing of what visitors have made.
    """
    left = Workshop.objects.filter(memberships__user__username=VISITOR, name__startswith=LEFT)
    (left if fresh else left.filter(created_at__lt=timezone.now() - KEPT_FOR)).delete()
    workshop = Workshop.objects.filter(id=WORKSHOP).first()
    if workshop is not None and not _changed(workshop):
        _let_in(workshop)
        for vehicle, folder in zip(workshop.vehicles.filter(scratch=False), FOLDERS, strict=True):
            builds.renew(vehicle, folder)
        return
    if workshop is not None and not fresh:
        _put_aside(workshop)
    load()


def _changed(workshop: Workshop) -> bool:
    """Whether its designs, runs, builds or bin are other than as they were loaded."""
    vehicles = list(workshop.vehicles.filter(scratch=False))
    designs = [[revision.document for revision in vehicle.revisions.order_by("number")] for vehicle in vehicles]
    parts = list(workshop.parts.values_list("document", flat=True))
    if designs != list(_designs()) or parts != _parts() or workshop.vehicles.filter(put_away=True).exists():
        return True
    whole = zip(vehicles, FOLDERS, designs, strict=True)
    return not all(
        builds.untouched(vehicle, folder) and afternoons.untouched(vehicle, folder, own[-1])
        for vehicle, folder, own in whole
    )


def _put_aside(workshop: Workshop) -> None:
    """Give all that is in it to a workshop of its own, which visitors can look into."""
    copy = Workshop.objects.create(name=f"{LEFT}, {timezone.now():%Y-%m-%d %H:%M}")
    visitor = User.objects.get(username=VISITOR)
    Membership.objects.create(workshop=copy, user=visitor, role=Role.VIEWER)
    for things in (workshop.vehicles, workshop.parts, workshop.searches):
        things.update(workshop=copy)


def _let_in(workshop: Workshop) -> User:
    """The visitor, as the one member: they change what stands in it, and not who belongs to it."""
    visitor, _ = User.objects.get_or_create(username=VISITOR)
    visitor.set_unusable_password()
    visitor.is_active = True
    visitor.save()
    workshop.memberships.exclude(user=visitor).delete()
    Membership.objects.update_or_create(workshop=workshop, user=visitor, defaults={"role": Role.EDITOR})
    return visitor


@transaction.atomic
def load() -> Workshop:
    """Put the demo's workshop into its first state; no other is touched."""
    workshop, _ = Workshop.objects.update_or_create(id=WORKSHOP, defaults={"name": "Saltmarsh Workshop"})
    visitor = _let_in(workshop)
    Vehicle.objects.filter(workshop=workshop).delete()
    workshop.searches.all().delete()
    workshop.parts.all().delete()
    change_parts(visitor, workshop, [Change(part["id"], 0, part) for part in _parts()])
    for folder, (first, *later) in zip(FOLDERS, _designs(), strict=True):
        vehicle = add_vehicle(visitor, workshop, first)
        for number, document in enumerate(later, start=1):
            save_revision(visitor, vehicle, number, document)
        for revision in vehicle.revisions.order_by("number"):
            name_revision(visitor, revision, NAMES[revision.number - 1])
        afternoons.log(visitor, vehicle, folder, [first, *later][-1])
        builds.tell(visitor, vehicle, folder)
    return workshop


@cache
def _designs() -> tuple[list[dict[str, Any]], ...]:
    """The revisions of each vehicle."""
    return tuple(
        [json.loads(file.read_text()) for file in sorted((VEHICLES / folder).glob("*.json"))] for folder in FOLDERS
    )


@cache
def _parts() -> list[dict[str, Any]]:
    tables = [table for file in sorted(PARTS.iterdir()) for table in files.tables_in(file.name, file.read_bytes())]
    parts, faults = sheet.parts_of(tables)
    assert not faults, faults
    return parts
