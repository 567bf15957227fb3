"""Keeping files in pieces, and reading and writing them as if they were whole.

A file on its way in says first how large it is. No more of it is kept than that, each piece has the size that its place
asks for, and what went no further is forgotten after an hour. So a strange file costs no more than it has announced.
"""

from __future__ import annotations

import io
from collections.abc import Iterator
from datetime import timedelta
from typing import BinaryIO, cast
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import F, Sum
from django.utils import timezone

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import HELD, MOST_HELD, PIECE
from server.api.quotas import Full, need_room
from server.pieces.models import HeldFile, HeldPiece

COMING_FOR = timedelta(hours=1)
"""How long the next piece of a file is waited for."""
HELD_FOR = timedelta(days=1)
"""How long a file that is whole is kept for whoever wants to read or fetch it."""


def begin(author: User, size: int) -> HeldFile:
    """A file that is about to come.

    Raises:
        Full: they have too many on their way, or everybody together has.
    """
    clear_old()
    need_room("files on their way", HeldFile.objects.filter(author=author).count(), MOST_HELD, "finish or end one")
    need_room("bytes on their way", held() + size, HELD, "others are sending too: try again later")
    return HeldFile.objects.create(author=author, size=size)


def held() -> int:
    """Bytes of all that is on its way."""
    return int(HeldFile.objects.aggregate(all=Sum("came"))["all"] or 0)


def count(size: int) -> int:
    """Pieces of a file of so many bytes."""
    return -(-size // PIECE)


def add(file: HeldFile, number: int, data: bytes) -> None:
    """Keep a piece; one that comes again changes nothing.

    Raises:
        Refused: the file has no such piece, or it has another length.
    """
    last = count(file.size) - 1
    if number > last:
        raise Refused(f"Piece {number} given: the file has {file.size:,} bytes, so its last piece is {last}.")
    length = PIECE if number < last else file.size - last * PIECE
    if len(data) != length:
        raise Refused(f"Piece {number} has {len(data):,} bytes: send {length:,}.")
    _keep(file, number, data)


def _keep(file: HeldFile, number: int, data: bytes) -> None:
    try:
        with transaction.atomic():
            HeldPiece.objects.create(file=file, number=number, data=data)
    except IntegrityError:
        return
    HeldFile.objects.filter(pk=file.pk).update(came=F("came") + len(data), touched_at=timezone.now())


def missing(file: HeldFile) -> list[int]:
    """Numbers of pieces that have not come."""
    came = set(file.pieces.values_list("number", flat=True))
    return [number for number in range(count(file.size)) if number not in came]


def forget(key: UUID | None) -> None:
    """Let go of a file, if there is one."""
    if key is not None:
        HeldFile.objects.filter(pk=key).delete()


def clear_old() -> None:
    """Forget files that went no further, and those that were whole for long enough."""
    now = timezone.now()
    HeldFile.objects.filter(came__lt=F("size"), touched_at__lt=now - COMING_FOR).delete()
    HeldFile.objects.filter(touched_at__lt=now - HELD_FOR).delete()


def pieces_of(file: HeldFile) -> Iterator[bytes]:
    """What a file holds, one piece after the other."""
    for number in file.pieces.values_list("number", flat=True):
        yield bytes(HeldPiece.objects.values_list("data", flat=True).get(file=file, number=number))


def opened(file: HeldFile) -> BinaryIO:
    """A whole file, to be read anywhere in it; no more than a piece of it is in memory."""
    return cast(BinaryIO, io.BufferedReader(_Reading(file)))


class _Reading(io.RawIOBase):
    """A file in pieces that can be read from anywhere."""

    def __init__(self, file: HeldFile) -> None:
        self._file, self._at = file, 0
        self._number, self._data = -1, b""

    def readable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def seek(self, offset: int, whence: int = io.SEEK_SET) -> int:
        base = {io.SEEK_SET: 0, io.SEEK_CUR: self._at, io.SEEK_END: self._file.size}[whence]
        if base + offset < 0:
            raise ValueError("before the beginning of the file")
        self._at = base + offset
        return self._at

    def readinto(self, buffer: bytearray | memoryview) -> int:  # type: ignore[override]  # any buffer, in practice
        if self._at >= self._file.size:
            return 0
        number, within = divmod(self._at, PIECE)
        if number != self._number:
            self._data = bytes(HeldPiece.objects.values_list("data", flat=True).get(file=self._file, number=number))
            self._number = number
        data = self._data[within : within + len(buffer)]
        buffer[: len(data)] = data
        self._at += len(data)
        return len(data)


class Writing(io.RawIOBase):
    """A file that is written from beginning to end, and kept in pieces.

    Args:
        file: a new one.
        most: bytes that it may have.
    """

    def __init__(self, file: HeldFile, most: int) -> None:
        self._file, self._most = file, most
        self._rest, self._number = bytearray(), 0

    def writable(self) -> bool:
        return True

    def write(self, data: bytes | memoryview) -> int:  # type: ignore[override]  # any buffer, in practice
        """Add bytes.

        Raises:
            Full: there are more than it may have.
        """
        self._rest += data
        while len(self._rest) >= PIECE:
            self._put(bytes(self._rest[:PIECE]))
            del self._rest[:PIECE]
        return len(data)

    def finish(self) -> None:
        """Keep the last piece."""
        if self._rest:
            self._put(bytes(self._rest))
            self._rest.clear()

    def _put(self, data: bytes) -> None:
        size = self._number * PIECE + len(data)
        if size > self._most:
            raise Full(
                f"It has more than {self._most // 1_000_000:,} MB: put vehicles away into workshops of their own."
            )
        HeldFile.objects.filter(pk=self._file.pk).update(size=size)
        _keep(self._file, self._number, data)
        self._number += 1
