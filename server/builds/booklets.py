"""Booklets: asked for in the page, written by a worker chapter by chapter, fetched when done."""

from __future__ import annotations

import logging
from functools import partial
from uuid import UUID

from django.db import transaction
from procrastinate.contrib.django import app

from server.accounts.models import User
from server.api.files import faces_folder
from server.builds.models import Booklet, BookletState
from server.builds.pictures import thumbnail
from server.builds.site import Clock, present, site_of
from server.designs.models import Vehicle
from server.searches.queue import QUEUE
from server.workshops.access import READERS, allowed
from ydrometer.drawing import draw_line
from ydrometer.files.booklet import Content, booklet
from ydrometer.screens.build_shown import build_shown
from ydrometer.screens.parts_shown import parts_shown

WRITE = "server.builds.tasks.write_booklet"
FIRST = 10_000
"""Priority: somebody waits for it."""
KEPT = 3
"""Booklets of a vehicle that somebody has asked for; older ones go."""
log = logging.getLogger(__name__)


@allowed(READERS)
@transaction.atomic
def ask(user: User, vehicle: Vehicle) -> Booklet:
    """Have a booklet written of the newest design as far as it is built; one's own older ones go."""
    old = list(vehicle.booklets.filter(author=user).values_list("pk", flat=True)[KEPT - 1 :])
    Booklet.objects.filter(pk__in=old).delete()
    row = Booklet.objects.create(vehicle=vehicle, author=user)
    app.configure_task(WRITE, queue=QUEUE, priority=FIRST).defer(booklet=str(row.pk))
    return row


def write(key: UUID) -> None:
    """Write one that waits. Doing it twice does no harm: it is written once."""
    if not Booklet.objects.filter(pk=key, state=BookletState.WAITING).update(state=BookletState.WRITING):
        return
    try:
        data = booklet(
            content_of(Booklet.objects.select_related("vehicle__workshop").get(pk=key)),
            faces_folder(),
            lambda done, of: _going(key, done, of),
        )
    except Exception:
        log.exception("booklet %s", key)
        trouble = "It could not be written: try again."
        Booklet.objects.filter(pk=key).update(state=BookletState.FAILED, trouble=trouble)
    else:
        Booklet.objects.filter(pk=key).update(state=BookletState.DONE, data=data)


def content_of(row: Booklet) -> Content:
    """What is written in it."""
    vehicle, document = row.vehicle, present(row.vehicle)
    site = site_of(vehicle, Clock(None))
    built, parts = build_shown(document, site), parts_shown(document, site.bench)
    return Content(vehicle.name, built, parts, draw_line(document.design), partial(_photo, vehicle))


def _photo(vehicle: Vehicle, photo: str) -> bytes:
    """A photo for paper; nothing of one that was removed meanwhile."""
    kept = vehicle.photos.filter(pk=photo).values_list("data", flat=True).first()
    return thumbnail(bytes(kept)) if kept else b""


def _going(key: UUID, written: int, chapters: int) -> None:
    Booklet.objects.filter(pk=key).update(written=written, chapters=chapters)
