"""Which revisions are kept: all of the last day, one an hour of the last week, one a day of what is older.

Those with a name and the newest one stay, however old.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import NamedTuple

from django.utils import timezone

from server.designs.models import Revision, Vehicle

WHOLE = timedelta(days=1)
HOURLY = timedelta(days=7)
EVERY = 20
"""A vehicle is gone through at every so many revisions."""


class Saved(NamedTuple):
    """A revision by its number, and when it was saved."""

    number: int
    at: datetime


def thin(vehicle: Vehicle) -> int:
    """Take away what need not be kept; returns how many revisions that were."""
    newest = vehicle.revisions.values_list("number", flat=True).first()
    loose = vehicle.revisions.filter(name="", number__lt=newest or 0).order_by("number")
    gone = superfluous((Saved(*row) for row in loose.values_list("number", "saved_at")), timezone.now())
    Revision.objects.filter(vehicle=vehicle, number__in=gone).delete()
    return len(gone)


def superfluous(saved: Iterable[Saved], now: datetime) -> list[int]:
    """Numbers of the revisions that need not be kept, of each hour or day all but the last.

    Args:
        saved: without names, in the order of their numbers.
        now: the time to reckon from.
    """
    last: dict[str, int] = {}
    gone = []
    for number, at in saved:
        if now - at <= WHOLE:
            continue
        slot = at.strftime("%Y-%m-%d %H" if now - at <= HOURLY else "%Y-%m-%d")
        if slot in last:
            gone.append(last[slot])
        last[slot] = number
    return gone
