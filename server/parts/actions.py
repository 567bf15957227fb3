"""Changes to a bin; each is told who acts. All of a change are made, or none."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from server.accounts.models import User
from server.api.stale import Stale
from server.parts.models import Part
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import Reading
from ydrometer.parts.read import read_part
from ydrometer.search.layout import MOST_PARTS


@dataclass(frozen=True, slots=True)
class Change:
    """A part put into the bin in the place of version `base`, 0 for a new one; without a document it is taken out."""

    ref: str
    base: int
    document: dict[str, Any] | None


@allowed(EDITORS)
@transaction.atomic
def change_parts(user: User, workshop: Workshop, changes: Sequence[Change]) -> list[Part] | Stale[list[Part]]:
    """Make all changes, unless one was made from a version that is no longer there.

    Raises:
        DocumentError: a part has faults, or there would be too many.
    """
    _read(changes)
    # The workshop is locked, so that two people adding a part of one id do not meet.
    Workshop.objects.select_for_update().get(pk=workshop.pk)
    present = {part.ref: part for part in workshop.parts.filter(ref__in=[change.ref for change in changes])}
    stale = [c.ref for c in changes if (present[c.ref].version if c.ref in present else 0) != c.base]
    if stale:
        return Stale([present[ref] for ref in stale if ref in present])
    room = MOST_PARTS - workshop.parts.count()
    if sum(change.base == 0 for change in changes) > room:
        raise DocumentError([Fault("changes", f"room for {room} parts more", f"a bin holds at most {MOST_PARTS}")])
    return _write(workshop, changes, present)


def _read(changes: Sequence[Change]) -> None:
    reading = Reading()
    seen: set[str] = set()
    for number, change in enumerate(changes):
        if change.ref in seen:
            reading.fault(f"changes[{number}]", f'"{change.ref[:40]}" a second time', "change a part once")
        seen.add(change.ref)
        try:
            if change.document is not None:
                read_part(change.document)
        except DocumentError as error:
            reading.take(error, f"changes[{number}]")
    reading.refuse()


def _write(workshop: Workshop, changes: Sequence[Change], present: dict[str, Part]) -> list[Part]:
    new = [Part(workshop=workshop, ref=c.ref, document=c.document) for c in changes if c.base == 0 and c.document]
    changed = []
    for change in changes:
        if change.base and change.document is not None:
            part = present[change.ref]
            part.document, part.version = change.document, part.version + 1
            changed.append(part)
    gone = [change.ref for change in changes if change.document is None]
    workshop.parts.filter(ref__in=gone).delete()
    Part.objects.bulk_update(changed, ["document", "version"])
    return [*Part.objects.bulk_create(new), *changed]
