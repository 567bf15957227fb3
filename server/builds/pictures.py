"""A picture made anew as a JPEG of bounded size, without what a camera adds to it.

It stands alone, so that the process for heavy work can do it without the rest of the server.
"""

from __future__ import annotations

import io

from PIL import Image, ImageOps, UnidentifiedImageError

LARGEST = 2_000_000
"""Bytes of a picture that is kept."""
MOST_PIXELS = 40_000_000
WIDEST = 12_000
"""Pixels of one side. A file of a few bytes may claim any size, and takes as much memory as it claims."""
LONGEST_SIDE = 1600
ON_PAPER = 480
"""Pixels of the longest side of one in a booklet, at most 45 mm."""
QUALITIES = (82, 70, 55, 40)
FORMATS = ("JPEG", "PNG")


class PictureError(ValueError):
    """It cannot be read as a picture, in words for whoever has sent it."""


def made_anew(data: bytes) -> bytes:
    """A picture as a JPEG of at most `LONGEST_SIDE` pixels and `LARGEST` bytes, upright, with nothing but its pixels.

    Args:
        data: a JPEG or PNG.

    Raises:
        PictureError: it is none, or has too many pixels.
    """
    if data[4:12] in (b"ftypheic", b"ftypheix", b"ftypmif1", b"ftyphevc"):
        raise PictureError("This is a HEIC picture, which not every browser shows: send it as JPEG or PNG.")
    try:
        upright = _small(data)
    except (UnidentifiedImageError, OSError, SyntaxError, Image.DecompressionBombError) as error:
        raise PictureError("This cannot be read as a picture: send it as JPEG or PNG.") from error
    for quality in QUALITIES:
        stream = io.BytesIO()
        # A picture made anew from pixels has no metadata: neither where nor by whom it was taken.
        Image.frombytes("RGB", upright.size, upright.tobytes()).save(stream, "JPEG", quality=quality)
        if stream.tell() <= LARGEST:
            break
    return stream.getvalue()


def thumbnail(data: bytes) -> bytes:
    """A kept picture, small enough to be printed beside a step.

    Args:
        data: as `made_anew` has left it.
    """
    picture = Image.open(io.BytesIO(data), formats=FORMATS)
    picture.draft("RGB", (ON_PAPER, ON_PAPER))
    picture.thumbnail((ON_PAPER, ON_PAPER))
    stream = io.BytesIO()
    picture.save(stream, "JPEG", quality=QUALITIES[0])
    return stream.getvalue()


def _small(data: bytes) -> Image.Image:
    """Upright and small; its size is looked at before any of its pixels."""
    picture = Image.open(io.BytesIO(data), formats=FORMATS)
    wide, high = picture.size
    if max(wide, high) > WIDEST or wide * high > MOST_PIXELS:
        most = f"at most {WIDEST:,} on a side and {MOST_PIXELS // 1_000_000} million in all are read"
        raise PictureError(f"The picture has {wide:,} by {high:,} pixels; {most}.")
    # A JPEG is decoded at the size that is wanted, or twice that.
    picture.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
    plain = picture if picture.mode in ("RGB", "L") else picture.convert("RGB")
    plain.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    turned = ImageOps.exif_transpose(plain)
    return turned.convert("RGB")
