"""Changes to runs; each is told who acts. A run is changed only by who knows its newest state, and never deleted."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID, uuid5

import orjson
from django.db import transaction

from server.accounts.models import User
from server.api.errors import Refused
from server.api.quotas import MOST_RUNS, need_room
from server.api.stale import Stale
from server.designs.models import Vehicle
from server.runs.models import Origin, Run, Tried
from server.workshops.access import EDITORS, allowed
from ydrometer.document.changes import changes
from ydrometer.trials import runs_file
from ydrometer.trials.prediction import predicted, with_its_day
from ydrometer.trials.tried import essence

MOST_AT_ONCE = 400
"""Runs that are read out of one file."""


@dataclass(frozen=True, slots=True)
class NewRun:
    """A run as it comes: its id, the run as in a runs file but for the design, who read it, and when it was made."""

    id: UUID
    document: Mapping[str, Any]
    origin: Origin = Origin.TYPED
    made_at: datetime | None = None


def tried(vehicle: Vehicle, document: Mapping[str, Any]) -> Tried:
    """A design as one that is run: the same one where it has been run before.

    Args:
        vehicle: whose design it is.
        document: the design, valid.
    """
    digest = _digest(document)
    known = Tried.objects.filter(vehicle=vehicle, digest=digest).first()
    if known is not None:
        return known
    present = vehicle.revisions.first()
    number = present.number if present is not None and _digest(present.document) == digest else None
    tried_row, _ = Tried.objects.get_or_create(
        vehicle=vehicle, digest=digest, defaults={"document": document, "revision": number}
    )
    return tried_row


def present_design(vehicle: Vehicle) -> Tried:
    """The newest revision of a vehicle as a design that is run."""
    present = vehicle.revisions.first()
    assert present is not None  # a vehicle is created with its first revision
    return tried(vehicle, present.document)


def _digest(document: Mapping[str, Any]) -> str:
    return hashlib.sha256(orjson.dumps(essence(document), option=orjson.OPT_SORT_KEYS)).hexdigest()


@allowed(EDITORS)
@transaction.atomic
def log_run(user: User, vehicle: Vehicle, new: NewRun, of: Tried) -> Run:
    """Write down a run; one that has come already is left as it stands.

    Raises:
        DocumentError: the run has faults.
        Refused: another vehicle has a run of this id.
        Full: there are too many.
    """
    vehicle.lock()
    known = Run.objects.filter(pk=new.id).first()
    if known is not None:
        if known.vehicle_id != vehicle.pk:
            raise Refused("This run belongs to another vehicle: give it an id of its own.")
        return known
    need_room("runs", vehicle.runs.count(), MOST_RUNS, "put the vehicle away and start with a copy of it")
    run = Run(
        id=new.id,
        vehicle=vehicle,
        tried=of,
        document=with_its_day(new.document, of.document),
        origin=new.origin,
        author=user,
    )
    if new.made_at is not None:
        run.made_at = new.made_at
    before = vehicle.runs.filter(put_away=False).select_related("tried").order_by("made_at", "pk").last()
    if before is not None and before.tried_id != of.pk:
        run.changed = changes(essence(before.tried.document), essence(of.document))
    _judge(run)
    run.save(force_insert=True)
    return run


@allowed(EDITORS)
@transaction.atomic
def log_file(user: User, vehicle: Vehicle, raw: dict[str, Any]) -> list[Run]:
    """Write down the runs of a file, each with the design that it names; all of them or none.

    Raises:
        DocumentError: the file has faults.
        Refused: it has more runs than are read at once.
    """
    file = runs_file.read(raw)
    if len(file.runs) > MOST_AT_ONCE:
        raise Refused(f"The file has {len(file.runs):,} runs; {MOST_AT_ONCE} are read at once: cut it into several.")
    designs = {name: tried(vehicle, document) for name, document in file.raw.items()}
    runs = []
    for run in raw["runs"]:
        of = designs[run["design"]]
        document = {key: value for key, value in run.items() if key != "design"}
        # The same run of the same design is the same one, however often the file is opened.
        key = uuid5(vehicle.pk, f"{of.pk} {orjson.dumps(document, option=orjson.OPT_SORT_KEYS).decode()}")
        runs.append(log_run(user, vehicle, NewRun(key, document, Origin.FILE), of))
    return runs


@allowed(EDITORS)
@transaction.atomic
def change_run(
    user: User, run: Run, base: int, *, document: Mapping[str, Any] | None = None, put_away: bool | None = None
) -> Run | Stale[Run]:
    """Change a run that is still in the state `base`: correct it, or put it away or back.

    Raises:
        DocumentError: the run has faults.
    """
    locked = Run.objects.select_for_update().select_related("tried").get(pk=run.pk)
    if locked.version != base:
        return Stale(locked)
    if document is not None:
        locked.document = with_its_day(document, locked.tried.document)
        _judge(locked)
    if put_away is not None:
        locked.put_away = put_away
    locked.version += 1
    locked.save()
    return locked


def _judge(run: Run) -> None:
    """Note what was measured and predicted."""
    prediction = predicted(run.document, run.tried.document)
    run.words, run.dimension = prediction.words, prediction.dimension
    run.measured, run.predicted, run.off = prediction.measured, prediction.predicted, prediction.off
