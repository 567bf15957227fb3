"""The bin as an XLSX file: asked for in the page, written by a worker, kept until the bin changes."""

from __future__ import annotations

from datetime import timedelta
from uuid import UUID

from django.db.models import Count, Max, Sum
from django.utils import timezone
from procrastinate.contrib.django import app
from rest_framework import status
from rest_framework.exceptions import APIException

from server.parts.models import BinBook, documents
from server.searches.queue import QUEUE
from server.workshops.models import Workshop
from ydrometer.parts import files, sheet

WRITE = "server.parts.tasks.write_book"
FIRST = 10_000
"""Priority: somebody waits for it."""
ASKED_AGAIN = timedelta(minutes=1)
"""After which it is asked for once more: the worker may have died over it."""


class BeingWritten(APIException):
    """A worker is at it: whoever asks again in a moment gets the file."""

    status_code = status.HTTP_503_SERVICE_UNAVAILABLE
    default_detail = "The file is being written: try again in a few seconds."
    wait = 2


def book_of(workshop: Workshop, kind: str) -> bytes:
    """The file of the bin as it is now.

    Args:
        workshop: whose bin.
        kind: of parts; empty for all of them.

    Raises:
        BeingWritten: it is not there yet; a worker has been asked for it.
    """
    row, is_new = BinBook.objects.get_or_create(workshop=workshop, kind=kind, bin_was=_state(workshop))
    if row.data is not None:
        return bytes(row.data)
    if is_new or timezone.now() - row.asked_at > ASKED_AGAIN:
        BinBook.objects.filter(workshop=workshop, kind=kind).exclude(pk=row.pk).delete()
        BinBook.objects.filter(pk=row.pk).update(asked_at=timezone.now())
        app.configure_task(WRITE, queue=QUEUE, priority=FIRST).defer(book=str(row.pk))
    raise BeingWritten


def write(key: UUID) -> None:
    """Write one that is asked for. Doing it twice does no harm; one that the bin has left behind is gone."""
    row = BinBook.objects.filter(pk=key, data=None).select_related("workshop").first()
    if row is None:
        return
    parts = [part for part in documents(row.workshop) if row.kind in ("", part["kind"])]
    data = files.WRITE["xlsx"](sheet.sheets_of(parts))
    BinBook.objects.filter(pk=key, bin_was=_state(row.workshop)).update(data=data)


def _state(workshop: Workshop) -> str:
    """What changes with every change of a bin: how many parts, of how many versions, the newest."""
    count, versions, newest = workshop.parts.aggregate(Count("pk"), Sum("version"), Max("pk")).values()
    return f"{count} {versions} {newest}"
