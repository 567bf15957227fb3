"""Changes to vehicles; each is told who acts. A revision is added, never changed."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import UUID

import orjson
from django.db import transaction
from django.db.models import Sum
from django.utils import timezone

from server.accounts.models import User
from server.api.quotas import MOST_REVISION_BYTES, MOST_VEHICLES, need_room
from server.api.stale import Stale
from server.config.logs import security
from server.designs.models import Revision, Vehicle
from server.designs.thinning import EVERY, thin
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.document import design
from ydrometer.document.changes import summary

UNNAMED = "Unnamed vehicle"
IN_THE_DRAWER = timedelta(days=30)
"""How long a deleted vehicle can be taken back."""


@allowed(EDITORS)
@transaction.atomic
def add_vehicle(user: User, workshop: Workshop, document: dict[str, Any]) -> Vehicle:
    """Put a vehicle on the workshop's bench, with its first revision.

    Raises:
        DocumentError: the document has faults.
    """
    read = design.read(document)
    need_room("vehicles", workshop.vehicles.count(), MOST_VEHICLES, "start another workshop for more")
    vehicle = Vehicle.objects.create(workshop=workshop, name=read.design.name or UNNAMED)
    _write(user, vehicle, 1, document)
    return vehicle


def _write(user: User, vehicle: Vehicle, number: int, document: dict[str, Any]) -> Revision:
    used = bytes_of(vehicle.workshop_id)
    need_room("bytes of designs", used, MOST_REVISION_BYTES, "save an export and take vehicles away for good")
    return Revision.objects.create(
        vehicle=vehicle, number=number, document=document, author=user, size=len(orjson.dumps(document))
    )


def bytes_of(workshop: UUID) -> int:
    """What all revisions of a workshop's vehicles take."""
    size = Revision.objects.filter(vehicle__workshop_id=workshop).aggregate(all=Sum("size"))["all"]
    return int(size or 0)


@allowed(EDITORS)
@transaction.atomic
def save_revision(user: User, vehicle: Vehicle, base: int, document: dict[str, Any]) -> Revision | Stale[Revision]:
    """Add a revision made from revision `base`, unless another has come since.

    Raises:
        DocumentError: the document has faults.
    """
    read = design.read(document)
    locked = Vehicle.objects.select_for_update().get(pk=vehicle.pk)
    present = locked.revisions.select_related("author").first()
    assert present is not None  # a vehicle is created with its first revision
    if present.document == document:
        # Also where the answer to the same save never reached the page, and it saves once more.
        return present
    if present.number != base:
        return Stale(present)
    locked.name = read.design.name or UNNAMED
    locked.save(update_fields=["name"])
    revision = _write(user, locked, base + 1, document)
    if revision.number % EVERY == 0:
        thin(locked)
    return revision


@allowed(EDITORS)
def name_revision(user: User, revision: Revision, name: str) -> None:
    """Give a revision a name, with what was changed since the named one before it; an empty one takes it away."""
    revision.name = name.strip()
    revision.summary = ""
    if revision.name:
        earlier = Revision.objects.filter(vehicle=revision.vehicle, number__lt=revision.number)
        before = earlier.exclude(name="").first() or earlier.last()
        revision.summary = summary(before.document, revision.document) if before else ""
    revision.save(update_fields=["name", "summary"])


@allowed(EDITORS)
def keep(user: User, vehicle: Vehicle) -> None:
    """Put a scratch vehicle on the bench for good."""
    vehicle.scratch = False
    vehicle.save(update_fields=["scratch"])


@allowed(EDITORS)
def put_away(user: User, vehicle: Vehicle, away: bool) -> None:
    """Take a vehicle off the bench, or back onto it; nothing of it is lost."""
    vehicle.put_away, vehicle.gone_at = away, None
    vehicle.save(update_fields=["put_away", "gone_at"])


@allowed(EDITORS)
def delete(user: User, vehicle: Vehicle) -> None:
    """Have a vehicle go for good in a month, with its runs and its build; until then it can be taken back."""
    vehicle.put_away, vehicle.gone_at = True, timezone.now() + IN_THE_DRAWER
    vehicle.save(update_fields=["put_away", "gone_at"])
    security.info("account %s deleted vehicle %s; it goes at %s", user.pk, vehicle.pk, vehicle.gone_at)


def remove_gone() -> None:
    """Take away the vehicles whose month is over."""
    Vehicle.objects.filter(gone_at__lte=timezone.now()).delete()
