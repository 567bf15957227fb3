"""Photos of steps."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from django.db import transaction
from django.db.models import Sum
from django.db.models.functions import Length

from server.accounts.models import User
from server.api.errors import Refused
from server.api.heavy import aside
from server.api.limits import MOST_PHOTO_BYTES, MOST_PHOTOS
from server.api.moments import date_back
from server.api.quotas import need_room
from server.builds.models import Photo
from server.builds.pictures import PictureError, made_anew
from server.designs.models import Vehicle
from server.workshops.access import EDITORS, allowed


@allowed(EDITORS)
@transaction.atomic
def keep(user: User, vehicle: Vehicle, step: str, id_: UUID, jpeg: bytes, taken_at: datetime | None = None) -> Photo:
    """Keep a photo of a step, see `picture`; one that has come already is left as it is.

    Args:
        user: who acts.
        vehicle: whose build it is of.
        step: its key.
        id_: of the photo.
        jpeg: as `picture` has made it anew.
        taken_at: where that was not now.

    Raises:
        Refused: another vehicle has one of this id.
        Full: there are too many.
    """
    vehicle.lock()
    known = Photo.objects.filter(pk=id_).defer("data").first()
    if known is not None:
        if known.vehicle_id != vehicle.pk:
            raise Refused("This photo belongs to another vehicle: give it an id of its own.")
        return known
    need_room("photos", vehicle.photos.count(), MOST_PHOTOS)
    need_room("bytes of photos", bytes_of(vehicle.workshop_id) + len(jpeg), MOST_PHOTO_BYTES)
    photo = Photo.objects.create(id=id_, vehicle=vehicle, step=step, data=jpeg, author=user)
    date_back(photo, "taken_at", taken_at)
    return photo


def bytes_of(workshop: UUID) -> int:
    """What all photos of a workshop take."""
    photos = Photo.objects.filter(vehicle__workshop_id=workshop)
    return int(photos.aggregate(all=Sum(Length("data")))["all"] or 0)


@allowed(EDITORS)
def remove(user: User, photo: Photo) -> None:
    """Take a photo away for good."""
    photo.delete()


def picture(data: bytes) -> bytes:
    """A picture that somebody has sent, made anew where it holds nobody up.

    Raises:
        Refused: it cannot be read as a JPEG or PNG. Busy, TooLong: see `heavy.aside`.
    """
    try:
        return aside(made_anew, data)
    except PictureError as error:
        raise Refused(str(error)) from None
