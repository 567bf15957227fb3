"""Changes to vehicles; each is told who acts. A revision is added, never changed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

import orjson
from django.db import transaction
from django.db.models import Max, Sum
from django.utils import timezone

from server.accounts.models import User
from server.api.limits import MOST_REVISION_BYTES, MOST_VEHICLES
from server.api.moments import date_back
from server.api.quotas import need_room
from server.api.stale import Stale
from server.config.logs import security
from server.designs.models import Revision, Vehicle
from server.designs.thinning import EVERY, thin
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.document.changes import summary

UNNAMED = "Unnamed vehicle"
MOST_REVISIONS = 1_000_000_000
"""To which they are counted."""
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


@dataclass(frozen=True, slots=True)
class KeptRevision:
    """A revision as it was kept elsewhere; None of what is not known of it."""

    document: dict[str, Any]
    name: str = ""
    number: int | None = None
    saved_at: datetime | None = None


@allowed(EDITORS)
@transaction.atomic
def take_revisions(user: User, workshop: Workshop, vehicle: Vehicle | None, kept: Sequence[KeptRevision]) -> Vehicle:
    """Add revisions that were kept elsewhere, in their order, with their numbers and moments.

    Args:
        user: who acts.
        workshop: where the vehicle stands, or is to stand.
        vehicle: it, None where it is new here.
        kept: at least one.

    Raises:
        DocumentError: a document has faults, or the numbers do not rise.
        Full: there is no room.
    """
    names = [design.read(revision.document).design.name for revision in kept]
    if vehicle is None:
        need_room("vehicles", workshop.vehicles.count(), MOST_VEHICLES, "start another workshop for more")
        vehicle = Vehicle(workshop=workshop)
    vehicle.name = names[-1] or UNNAMED
    vehicle.save()
    newest = vehicle.revisions.aggregate(number=Max("number"))["number"] or 0
    for revision in kept:
        number = revision.number or newest + 1
        if not newest < number <= MOST_REVISIONS:
            raise DocumentError([Fault("number", f"{number} after {newest}", "give rising numbers")])
        row, newest = _write(user, vehicle, number, revision.document), number
        date_back(row, "saved_at", revision.saved_at)
        if revision.name:
            name_revision(user, row, revision.name)
    return vehicle


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
