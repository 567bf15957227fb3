"""What a worker does with archives: writing one whole, opening one step by step.

An archive is opened into a workshop that nobody sees before all of it is there. Each step is kept together with the
count of steps, so that whoever goes on after a worker has died goes on with the next one; and after a few seconds of
steps others have their turn.
"""

from __future__ import annotations

import logging
import time
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from datetime import timedelta
from uuid import UUID

from django.db import transaction
from django.http import Http404
from django.utils import timezone
from procrastinate.contrib.django import app
from rest_framework.exceptions import APIException

from server.api import limits
from server.archive import pack, reading, unpack
from server.archive.models import Archive, ArchiveState, Direction
from server.pieces import store
from server.pieces.models import HeldFile
from server.searches.queue import QUEUE
from server.workshops.access import READERS, need
from server.workshops.actions import create_workshop
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault

WORK = "server.archive.tasks.work_on_archive"
OPEN = (ArchiveState.COMING, ArchiveState.WAITING, ArchiveState.WORKING)
AT_A_TIME_S = 3.0
"""After so long others have their turn."""
TOLD_FOR = timedelta(days=7)
"""How long it is known how an archive ended."""
log = logging.getLogger(__name__)


class NotWantedError(Exception):
    """Somebody has cancelled it, or has done this step already."""


def defer(row: Archive) -> None:
    """Put it into the row of workers: behind the first pieces of a search that is as far."""
    app.configure_task(WORK, queue=QUEUE, priority=-row.done).defer(archive=str(row.pk))


def work(key: UUID) -> None:
    """Write an archive, or do some steps of opening one; how it ends is kept in it."""
    row = Archive.objects.select_related("user", "workshop", "held").filter(pk=key).first()
    if row is None:
        return
    if row.state in (ArchiveState.WAITING, ArchiveState.WORKING):
        with _ending(row):
            Archive.objects.filter(pk=key, state=ArchiveState.WAITING).update(state=ArchiveState.WORKING)
            (_write if row.direction == Direction.OUT else _open)(row)
    row.refresh_from_db()
    if row.state in (ArchiveState.CANCELLED, ArchiveState.FAILED):
        _undo(row)


@contextmanager
def _ending(row: Archive) -> Iterator[None]:
    """What goes wrong ends it, in words."""
    try:
        yield
    except NotWantedError:
        return
    except DocumentError as error:
        _fail(row, [asdict(fault) for fault in error.faults])
    except Http404:
        _fail(row, [_fault("You are no longer in this workshop.")])
    except APIException as error:
        _fail(row, [_fault(str(error.detail))])
    except Exception:
        log.exception("archive %s", row.pk)
        _fail(row, [_fault("Something went wrong here: try again, and tell whoever looks after the server.")])


def _fault(problem: str) -> dict[str, str]:
    return asdict(Fault("", problem, ""))


def _fail(row: Archive, faults: list[dict[str, str]]) -> None:
    Archive.objects.filter(pk=row.pk, state__in=OPEN).update(state=ArchiveState.FAILED, faults=faults)


def _write(row: Archive) -> None:
    """Write the archive of a workshop anew, from its first byte."""
    if row.workshop is None:
        raise Http404
    need(row.user, row.workshop, READERS)
    store.forget(row.held_id)
    row.held = HeldFile.objects.create(author=row.user, size=0)
    row.save(update_fields=["held"])
    stream = store.Writing(row.held, limits.ARCHIVE)
    pack.pack(row.user, row.workshop, stream, lambda done, steps: _told(row, done=done, steps=steps))
    stream.finish()
    _told(row, state=ArchiveState.DONE)


def _told(row: Archive, **said: int | str) -> None:
    """Say how far it is.

    Raises:
        NotWantedError: it was cancelled.
    """
    if not Archive.objects.filter(pk=row.pk, state=ArchiveState.WORKING).update(**said):
        raise NotWantedError


def _open(row: Archive) -> None:
    """Do steps of opening an archive for a while."""
    if row.held is None:
        raise DocumentError([Fault("$", "no longer here", "send the archive once more")])
    until = time.monotonic() + AT_A_TIME_S
    with store.opened(row.held) as stream:
        archive = reading.opened(stream)
        steps = unpack.steps_of(archive)
        workshop = row.workshop or _begun(row, archive, len(steps))
        filling = unpack.Filling(row.user, workshop, archive, row.vehicles)
        while row.done < len(steps):
            if time.monotonic() > until:
                return defer(row)
            _step(row, steps[row.done], filling)
    _finish(row)
    return None


@transaction.atomic
def _begun(row: Archive, archive: zipfile.ZipFile, steps: int) -> Workshop:
    """A workshop for what is in the archive, out of sight."""
    row.workshop = create_workshop(row.user, unpack.name_of(archive))
    row.workshop.coming = True
    row.workshop.save(update_fields=["coming"])
    row.save(update_fields=["workshop"])
    _told(row, steps=steps)
    return row.workshop


@transaction.atomic
def _step(row: Archive, step: unpack.Step, filling: unpack.Filling) -> None:
    """Do one step, and count it with what it has written."""
    step(filling)
    fresh = Archive.objects.filter(pk=row.pk, state=ArchiveState.WORKING, done=row.done)
    if not fresh.update(done=row.done + 1, vehicles=filling.vehicles):
        raise NotWantedError
    row.done += 1


@transaction.atomic
def _finish(row: Archive) -> None:
    """Let the workshop be seen."""
    _told(row, state=ArchiveState.DONE)
    Workshop.objects.filter(archives=row).update(coming=False)
    store.forget(row.held_id)


def _undo(row: Archive) -> None:
    """Take away what was written of one that came to nothing."""
    if row.direction == Direction.IN and row.workshop is not None and row.workshop.coming:
        row.workshop.delete()
    store.forget(row.held_id)


def forget_old() -> None:
    """Forget archives that ended long ago."""
    Archive.objects.filter(begun_at__lt=timezone.now() - TOLD_FOR).exclude(state__in=OPEN).delete()
