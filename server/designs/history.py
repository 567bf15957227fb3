"""Who changed what about a vehicle, and who is at it now."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, NamedTuple
from uuid import UUID

from django.utils import timezone
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import User
from server.api.errors import BAD, HIDDEN
from server.api.requests import answer_of, whole_number
from server.designs.models import AtVehicle, Vehicle
from server.workshops import access
from server.workshops.access import acting
from ydrometer.document.changes import summary

SITTING = timedelta(minutes=15)
"""What one person saves without a longer pause is one entry."""
LOOKED_AT = 300
"""Revisions that are looked through for one page of the history."""
SHOWN = 30
"""Entries of a page."""
HERE_FOR = timedelta(seconds=20)
"""Who has not been heard of for so long is at the vehicle no more."""
NEWS = timedelta(seconds=8)
"""How old what is known of somebody may be before it is written anew."""


@dataclass(frozen=True, slots=True)
class HistoryEntry:
    """What one person changed at a sitting.

    Attributes:
        number: of the revision that it led to. before: of the one that it began from, None of the first there is.
        author: None where the account is gone. began, ended: when. words: what was changed. name: of the revision.
    """

    number: int
    before: int | None
    author: str | None
    began: datetime
    ended: datetime
    words: str
    name: str


class Saved(NamedTuple):
    """A revision without its document."""

    number: int
    author: str | None
    at: datetime
    name: str


class HistoryView(APIView):
    @extend_schema(
        parameters=[OpenApiParameter("before", int)],
        responses={200: answer_of(HistoryEntry)(many=True), **BAD, **HIDDEN},
    )
    def get(self, request: Request, vehicle: UUID) -> Response:
        """The newest first; `before` asks for what came before an entry's number."""
        vehicle_row = access.belonging(Vehicle.objects.all(), acting(request), pk=vehicle)
        before = whole_number(request.query_params.get("before", ""))
        return Response(entries(vehicle_row, before))


def entries(vehicle: Vehicle, before: int | None = None) -> list[HistoryEntry]:
    """A page of the history, the newest first.

    Args:
        vehicle: whose.
        before: only what led to revisions before this number.
    """
    kept = vehicle.revisions.all() if before is None else vehicle.revisions.filter(number__lt=before)
    rows = kept.values_list("number", "author__username", "saved_at", "name")[:LOOKED_AT]
    sittings = list(sat([Saved(*row) for row in rows]))[:SHOWN]
    starts = [_start(vehicle, sitting[-1].number) for sitting in sittings]
    wanted = {number for number in starts if number is not None} | {sitting[0].number for sitting in sittings}
    documents = dict(vehicle.revisions.filter(number__in=wanted).values_list("number", "document"))
    return [_entry(sitting, start, documents) for sitting, start in zip(sittings, starts, strict=True)]


def sat(rows: Sequence[Saved]) -> Iterator[list[Saved]]:
    """Revisions, the newest first, as sittings of one person each. One with a name ends a sitting."""
    sitting: list[Saved] = []
    for row in rows:
        later = sitting[-1] if sitting else None
        if later and (row.author != later.author or later.at - row.at > SITTING or row.name):
            yield sitting
            sitting = []
        sitting.append(row)
    if sitting:
        yield sitting


def _start(vehicle: Vehicle, first: int) -> int | None:
    """The revision from which a sitting began: the newest before its first one."""
    number: int | None = vehicle.revisions.filter(number__lt=first).values_list("number", flat=True).first()
    return number


def _entry(sitting: list[Saved], start: int | None, documents: dict[int, Any]) -> HistoryEntry:
    last = sitting[0]
    words = "put on the bench" if start is None else summary(documents[start], documents[last.number])
    words = words or "nothing, in the end"
    return HistoryEntry(last.number, start, last.author, sitting[-1].at, last.at, words, last.name)


def be_at(user: User, vehicle: Vehicle, station: str) -> None:
    """Write down that the user is at a vehicle, unless that is known."""
    now = timezone.now()
    known = AtVehicle.objects.filter(vehicle=vehicle, user=user, station=station, at__gt=now - NEWS)
    if not known.exists():
        AtVehicle.objects.update_or_create(vehicle=vehicle, user=user, defaults={"station": station, "at": now})


def others_at(user: User, vehicle: Vehicle) -> list[AtVehicle]:
    """Who else is at the vehicle now."""
    here = vehicle.at_it.filter(at__gt=timezone.now() - HERE_FOR).exclude(user=user)
    return list(here.select_related("user").order_by("user__username"))
