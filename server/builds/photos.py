"""Photos of steps: what comes is made anew as a JPEG of bounded size, without what a camera adds to it."""

from __future__ import annotations

import io
from uuid import UUID

from django.db import transaction
from PIL import Image, ImageOps, UnidentifiedImageError

from server.accounts.models import User
from server.api.errors import Refused
from server.api.quotas import MOST_PHOTOS, need_room
from server.builds.models import Photo
from server.designs.models import Vehicle
from server.workshops.access import EDITORS, allowed

LARGEST = 2_000_000
"""Bytes of a photo that is kept."""
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600
QUALITIES = (82, 70, 55, 40)
FORMATS = ("JPEG", "PNG")


@allowed(EDITORS)
@transaction.atomic
def keep(user: User, vehicle: Vehicle, step: str, id_: UUID, data: bytes) -> Photo:
    """Keep a photo of a step; one that has come already is left as it is.

    Raises:
        Refused: it cannot be read as a JPEG or PNG, or another vehicle has one of this id.
        Full: there are too many.
    """
    known = Photo.objects.filter(pk=id_).defer("data").first()
    if known is not None:
        if known.vehicle_id != vehicle.pk:
            raise Refused("This photo belongs to another vehicle: give it an id of its own.")
        return known
    need_room("photos", vehicle.photos.count(), MOST_PHOTOS)
    return Photo.objects.create(id=id_, vehicle=vehicle, step=step, data=made_anew(data), author=user)


@allowed(EDITORS)
def remove(user: User, photo: Photo) -> None:
    """Take a photo away for good."""
    photo.delete()


def made_anew(data: bytes) -> bytes:
    """A picture as a JPEG of at most `LONGEST_SIDE` pixels and `LARGEST` bytes, upright, with nothing but its pixels.

    Args:
        data: a JPEG or PNG.

    Raises:
        Refused: it is none, or has too many pixels.
    """
    if data[4:12] in (b"ftypheic", b"ftypheix", b"ftypmif1", b"ftyphevc"):
        raise Refused("This is a HEIC picture, which not every browser shows: send it as JPEG or PNG.")
    try:
        picture = Image.open(io.BytesIO(data), formats=FORMATS)
        if picture.width * picture.height > MOST_PIXELS:
            raise Refused(f"The picture has {picture.width * picture.height:,} pixels; {MOST_PIXELS:,} are read.")
        upright = ImageOps.exif_transpose(picture).convert("RGB")
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError, Image.DecompressionBombError):
        raise Refused("This cannot be read as a picture: send it as JPEG or PNG.") from None
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    for quality in QUALITIES:
        stream = io.BytesIO()
        # A picture made anew from pixels has no metadata: neither where nor by whom it was taken.
        Image.frombytes("RGB", upright.size, upright.tobytes()).save(stream, "JPEG", quality=quality)
        if stream.tell() <= LARGEST:
            break
    return stream.getvalue()
