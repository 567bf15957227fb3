"""Asking for an archive, and bringing one; each is told who acts. An archive belongs to whoever has begun with it."""

from __future__ import annotations

from django.db import transaction
from django.http import Http404

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import HELD, MOST_HELD
from server.api.quotas import need_room
from server.archive.models import Archive, ArchiveState, Direction
from server.archive.work import OPEN, defer
from server.pieces import store
from server.workshops.access import READERS, allowed
from server.workshops.actions import need_room_for_another
from server.workshops.models import Workshop

KEPT = 3
"""Finished archives of an account, each way."""


@allowed(READERS)
@transaction.atomic
def ask(user: User, workshop: Workshop) -> Archive:
    """Have the archive of a workshop written.

    Raises:
        Full: they have too many on their way.
    """
    _forget_finished(user, Direction.OUT)
    need_room("archives on their way", user.archives.filter(state__in=OPEN).count(), MOST_HELD, "end one")
    need_room("bytes on their way", store.held(), HELD, "others are sending too: try again later")
    row = Archive.objects.create(
        user=user,
        direction=Direction.OUT,
        workshop=workshop,
        name=f"{workshop.name}.zip",
        state=ArchiveState.WAITING,
    )
    defer(row)
    return row


@transaction.atomic
def begin(user: User, name: str, size: int) -> Archive:
    """An archive that is about to come, in pieces.

    Raises:
        Full: they own too many workshops, or have too much on its way.
    """
    need_room_for_another(user)
    _forget_finished(user, Direction.IN)
    need_room("archives on their way", user.archives.filter(state__in=OPEN).count(), MOST_HELD, "end one")
    return Archive.objects.create(
        user=user,
        direction=Direction.IN,
        held=store.begin(user, size),
        name=name,
        state=ArchiveState.COMING,
    )


def _forget_finished(user: User, direction: Direction) -> None:
    """A few are kept for whoever has asked, who may be several people on one account: older ones go."""
    finished = user.archives.filter(direction=direction).exclude(state__in=OPEN)
    for row in finished[KEPT - 1 :]:
        store.forget(row.held_id)
        row.delete()


def _own(user: User, archive: Archive) -> None:
    if archive.user_id != user.pk:
        raise Http404


def add_piece(user: User, archive: Archive, number: int, data: bytes) -> None:
    """Keep a piece of one that comes; sent again it changes nothing.

    Raises:
        Refused: it has come already, or was waited for too long, or the piece is none of it.
    """
    _own(user, archive)
    if archive.state != ArchiveState.COMING or archive.held is None:
        raise Refused("The archive has come already, or was waited for too long: begin with it anew.")
    store.add(archive.held, number, data)


@transaction.atomic
def open_it(user: User, archive: Archive) -> None:
    """Have a worker make a workshop of it, now that all of it has come.

    Raises:
        Refused: pieces are missing.
        Full: they own too many workshops.
    """
    _own(user, archive)
    need_room_for_another(user)
    if archive.held is None or archive.held.came != archive.held.size:
        raise Refused("Not all of the archive has come: send what is missing.")
    if Archive.objects.filter(pk=archive.pk, state=ArchiveState.COMING).update(state=ArchiveState.WAITING):
        defer(archive)


def cancel(user: User, archive: Archive) -> None:
    """Nobody wants it any more; a worker takes away what there is of it."""
    _own(user, archive)
    if Archive.objects.filter(pk=archive.pk, state__in=OPEN).update(state=ArchiveState.CANCELLED):
        defer(archive)
