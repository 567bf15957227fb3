"""Loggers' files: they come in pieces, a worker reads them, and what was found is kept; each is told who acts."""

from __future__ import annotations

import codecs
import logging
import tempfile
from collections.abc import Iterator
from dataclasses import asdict
from itertools import islice
from typing import Any
from uuid import UUID

from django.db import transaction
from procrastinate.contrib.django import app

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import MOST_LOG_FILES
from server.designs.models import Vehicle
from server.pieces import store
from server.runs.models import FileState, LogFile
from server.searches.queue import QUEUE
from server.workshops.access import EDITORS, allowed
from ydrometer.base.errors import DocumentError
from ydrometer.instruments.columns import HEAD, LogLayout, guess
from ydrometer.instruments.table import rows_of_sheet
from ydrometer.screens.logged_file import file_shown, layout_of

READ = "server.runs.tasks.read_log_file"
FIRST = 10_000
"""Priority of reading: somebody waits for it."""
TELL_EVERY = 100_000
"""Rows after which it is written down how far it has come."""
SHEET = ".xlsx"
NOT_LOOKED_AT = LogLayout(",", ".", 0, ())
"""Of a sheet: it is no text that could be looked at before all of it has come."""
OPEN = (FileState.COMING, FileState.WAITING, FileState.READING)
log = logging.getLogger(__name__)


class CancelledReadingError(Exception):
    """Nobody wants it any more."""


@allowed(EDITORS)
@transaction.atomic
def begin(user: User, vehicle: Vehicle, name: str, size: int, head: str) -> LogFile:
    """A file that is about to come, with a guess of its columns, or what was said of the last one with this header.

    Raises:
        DocumentError: there are no rows of numbers in its first lines.
        Full: they have too many on their way.
    """
    present = vehicle.revisions.first()
    assert present is not None  # a vehicle is created with its first revision
    sheet = name.lower().endswith(SHEET)
    layout, header = (asdict(NOT_LOOKED_AT), "") if sheet else _looked_at(vehicle, head.splitlines())
    old = vehicle.log_files.exclude(state__in=OPEN).values_list("pk", flat=True)[MOST_LOG_FILES:]
    LogFile.objects.filter(pk__in=list(old)).delete()
    return LogFile.objects.create(
        vehicle=vehicle,
        name=name,
        size=size,
        held=store.begin(user, size),
        header=header,
        layout=layout,
        document=present.document,
        author=user,
    )


def _looked_at(vehicle: Vehicle, head: list[str]) -> tuple[dict[str, Any], str]:
    """What the columns of a file probably hold, or what was said of the last one with this header; and the header."""
    lines = [line for line in head if line.strip()]
    layout = guess("\n".join(lines))
    header = lines[layout.skip - 1] if layout.skip else ""
    done = LogFile.objects.filter(vehicle__workshop=vehicle.workshop_id, header=header, state=FileState.DONE)
    before = done.exclude(header="").first()
    return (before.layout if before else asdict(layout)), header


@allowed(EDITORS)
def look(user: User, file: LogFile) -> None:
    """What the columns of a sheet hold, once it has come.

    Raises:
        DocumentError: there are no rows of numbers in its first lines.
    """
    file.layout, file.header = _looked_at(file.vehicle, list(islice(_lines(file), HEAD)))
    file.save(update_fields=["layout", "header"])


@allowed(EDITORS)
def add_piece(user: User, file: LogFile, number: int, data: bytes) -> None:
    """Keep a piece; one that comes again changes nothing.

    Raises:
        Refused: it is being read already, or the piece is none of it.
    """
    if file.state != FileState.COMING or file.held is None:
        raise Refused("The file has come already, or was waited for too long: begin with it anew.")
    store.add(file.held, number, data)


@allowed(EDITORS)
def read_it(user: User, file: LogFile, layout: dict[str, Any]) -> None:
    """Have a worker read it, now that its columns are confirmed.

    Raises:
        DocumentError: something is wrong with the columns.
        Refused: pieces are missing.
    """
    layout_of(layout)
    if file.held is None or file.held.came != file.size:
        raise Refused("Not all of the file has come: send it once more.")
    with transaction.atomic():
        file.layout, file.state = layout, FileState.WAITING
        file.save(update_fields=["layout", "state"])
        app.configure_task(READ, queue=QUEUE, priority=FIRST).defer(file=str(file.pk))


@allowed(EDITORS)
def cancel(user: User, file: LogFile) -> None:
    """Nobody wants it any more; nothing of it is kept."""
    LogFile.objects.filter(pk=file.pk, state__in=OPEN).update(state=FileState.CANCELLED)
    store.forget(file.held_id)


def read_file(key: UUID) -> None:
    """Read a file that waits; what cannot be read is told in it, and nothing is half imported."""
    if not LogFile.objects.filter(pk=key, state=FileState.WAITING).update(state=FileState.READING):
        return
    file = LogFile.objects.get(pk=key)
    try:
        shown = file_shown(_lines(file), layout_of(file.layout), file.document, lambda rows: _going(key, rows))
    except CancelledReadingError:
        return
    except DocumentError as error:
        _end(
            key,
            FileState.FAILED,
            trouble="; ".join(f"{fault.path} {fault.problem}: {fault.remedy}" for fault in error.faults),
        )
    except Exception:
        log.exception("file %s", key)
        _end(key, FileState.FAILED, trouble="It cannot be read: is it a table of numbers?")
    else:
        _end(key, FileState.DONE, rows=shown.rows, found=asdict(shown))
    finally:
        store.forget(file.held_id)


def _end(key: UUID, state: FileState, **more: Any) -> None:
    LogFile.objects.filter(pk=key, state=FileState.READING).update(state=state, **more)


def _going(key: UUID, rows: int) -> None:
    if rows % TELL_EVERY == 0 and not LogFile.objects.filter(pk=key, state=FileState.READING).update(rows=rows):
        raise CancelledReadingError


def _lines(file: LogFile) -> Iterator[str]:
    """The lines of a file, one piece of it at a time."""
    if file.held is None:
        return
    if file.name.lower().endswith(SHEET):
        with tempfile.TemporaryFile() as whole:
            whole.writelines(store.pieces_of(file.held))
            whole.seek(0)
            yield from rows_of_sheet(whole)
        return
    decode = codecs.getincrementaldecoder("utf-8-sig")(errors="replace")
    rest = ""
    for piece in store.pieces_of(file.held):
        lines = (rest + decode.decode(piece)).split("\n")
        rest = lines.pop()
        yield from lines
    if rest:
        yield rest
