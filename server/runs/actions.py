"""Changes to runs; each is told who acts. A run is changed only by who knows its newest state, and never deleted."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID, uuid5

import orjson
from django.db import transaction

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import MOST_RUNS
from server.api.quotas import need_room
from server.api.stale import Stale
from server.designs.models import Vehicle
from server.runs.models import Origin, Run, Tried
from server.workshops.access import EDITORS, allowed
from ydrometer.document.changes import changes
from ydrometer.trials import runs_file
from ydrometer.trials.prediction import Predicted, all_predicted, predicted, with_its_day
from ydrometer.trials.tried import essence

MOST_AT_ONCE = 400
"""Runs that are read out of one file."""


@dataclass(frozen=True, slots=True)
class NewRun:
    """A run as it comes: its id, the run as in a runs file but for the design, who read it, and when it was made.

    `changed` is what was other than in the run before, where that is known; `put_away` whether it was put away.
    """

    id: UUID
    document: Mapping[str, Any]
    origin: Origin = Origin.TYPED
    made_at: datetime | None = None
    changed: Sequence[str] | None = None
    put_away: bool = False


def tried(vehicle: Vehicle, document: Mapping[str, Any], revision: int | None = None) -> Tried:
    """A design as one that is run: the same one where it has been run before.

    Args:
        vehicle: whose design it is.
        document: the design, valid.
        revision: its number when it was first run; that of the present design where it is that.
    """
    digest = _digest(document)
    known = Tried.objects.filter(vehicle=vehicle, digest=digest).first()
    if known is not None:
        return known
    present = vehicle.revisions.first()
    is_present = present is not None and _digest(present.document) == digest
    number = present.number if present is not None and is_present and revision is None else revision
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


def log_run(user: User, vehicle: Vehicle, new: NewRun, of: Tried) -> Run:
    """Write down a run, see `log_runs`."""
    (run,) = log_runs(user, vehicle, [(new, of)])
    return run


@allowed(EDITORS)
@transaction.atomic
def log_runs(user: User, vehicle: Vehicle, new: Sequence[tuple[NewRun, Tried]]) -> list[Run]:
    """Write down runs, each of a design; one that has come already is left as it stands.

    Raises:
        DocumentError: a run has faults.
        Refused: another vehicle has a run of this id.
        Full: there are too many.
    """
    vehicle.lock()
    known = Run.objects.in_bulk([run.id for run, _ in new])
    if any(run.vehicle_id != vehicle.pk for run in known.values()):
        raise Refused("A run belongs to another vehicle: give it an id of its own.")
    count = vehicle.runs.count() + len(new) - len(known)
    need_room("runs", count - 1, MOST_RUNS, "put the vehicle away and start with a copy of it")
    last = vehicle.runs.filter(put_away=False).select_related("tried").order_by("made_at", "pk").last()
    before, written = last.tried if last else None, {}
    for run, of in new:
        if run.id in known or run.id in written:
            continue
        written[run.id] = _run(user, vehicle, run, of, before)
        before = before if run.put_away else of
    _judge_all(list(written.values()))
    Run.objects.bulk_create(written.values())
    return [known.get(run.id) or written[run.id] for run, _ in new]


def _run(user: User, vehicle: Vehicle, new: NewRun, of: Tried, before: Tried | None) -> Run:
    """A run that is not written down yet."""
    document = with_its_day(new.document, of.document)
    run = Run(id=new.id, vehicle=vehicle, tried=of, document=document, origin=new.origin, author=user)
    run.made_at, run.put_away = new.made_at or run.made_at, new.put_away
    if new.changed is not None:
        run.changed = list(new.changed)
    elif before is not None and before.pk != of.pk:
        run.changed = changes(essence(before.document), essence(of.document))
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
        runs.append((NewRun(key, document, Origin.FILE), of))
    return log_runs(user, vehicle, runs)


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
        _judge(locked, predicted(locked.document, locked.tried.document))
    if put_away is not None:
        locked.put_away = put_away
    locked.version += 1
    locked.save()
    return locked


def _judge_all(runs: Sequence[Run]) -> None:
    """Note what was measured and predicted of runs, those of a design together."""
    by_design: dict[int, list[Run]] = {}
    for run in runs:
        by_design.setdefault(run.tried_id, []).append(run)
    for alike in by_design.values():
        design = alike[0].tried.document
        if len(alike) == 1:  # what is wrong with one run is told without its place among others
            _judge(alike[0], predicted(alike[0].document, design))
            continue
        for run, prediction in zip(alike, all_predicted([run.document for run in alike], design), strict=True):
            _judge(run, prediction)


def _judge(run: Run, prediction: Predicted) -> None:
    """Note what was measured and predicted."""
    run.words, run.dimension = prediction.words, prediction.dimension
    run.measured, run.predicted, run.off = prediction.measured, prediction.predicted, prediction.off
