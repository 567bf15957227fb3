"""Race boards of a workshop: changed only by who knows the newest state, with what each vehicle was at each start."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from typing import Any
from uuid import UUID

from django.db import transaction

from server.accounts.models import User
from server.api.limits import MOST_RACES
from server.api.moments import date_back
from server.api.quotas import need_room
from server.designs.models import Revision, Vehicle
from server.practice.models import RaceBoard
from server.runs.models import Run
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.practice import races
from ydrometer.practice.races import Board, NextHeat, Place

MOST_BETWEEN = 10
"""Changes of a team that are told."""


@dataclass(frozen=True, slots=True)
class Between:
    """What a team has changed from one start to the next, in builders' words; starts are counted from 1."""

    before: int
    after: int
    changes: list[str]


@dataclass(frozen=True, slots=True)
class EntryShown:
    """A team: what its vehicle is called, what is predicted for it over the distance, s, what it last ran over that
    distance by Runs, s, and what was changed between its starts.
    """

    id: str
    name: str
    vehicle: str
    vehicle_name: str
    predicted: float | None
    last_run: float | None
    log: list[Between]


@dataclass(frozen=True, slots=True)
class BoardShown:
    """A board with who runs next, None where it is over, and how everybody stands."""

    id: UUID
    workshop: UUID
    version: int
    document: dict[str, Any]
    next: NextHeat | None
    standings: list[Place]
    entries: list[EntryShown]


@allowed(EDITORS)
@transaction.atomic
def make(user: User, workshop: Workshop, document: Mapping[str, Any], made_at: datetime | None = None) -> RaceBoard:
    """Keep a new board, or one that was made elsewhere, then.

    Raises:
        DocumentError: it has faults.
        Full: there are too many.
    """
    races.read(document)
    need_room("races", workshop.races.count(), MOST_RACES)
    board = RaceBoard.objects.create(workshop=workshop, document=dict(document), author=user)
    date_back(board, "made_at", made_at)
    return board


@allowed(EDITORS)
@transaction.atomic
def change(user: User, board: RaceBoard, base: int, document: Mapping[str, Any]) -> RaceBoard | None:
    """Put another document in the place of version `base`; None where somebody has changed it since.

    Raises:
        DocumentError: it has faults.
    """
    read_board = races.read(document)
    locked = RaceBoard.objects.select_for_update().get(pk=board.pk)
    if locked.version != base:
        return None
    locked.document = {**document, "heats": _with_revisions(locked, read_board, list(document.get("heats", ())))}
    locked.author, locked.version = user, locked.version + 1
    locked.save()
    return locked


@allowed(EDITORS)
def delete(user: User, board: RaceBoard) -> None:
    """Take a race away for good."""
    board.delete()


def _with_revisions(board: RaceBoard, read_board: Board, heats: list[Any]) -> list[Any]:
    """Heats that are new know which revision each vehicle was."""
    vehicles = _vehicles(board, read_board)
    newest = {key: vehicle.revisions.latest("number").number for key, vehicle in vehicles.items()}
    known = {entry.id: newest.get(entry.vehicle) for entry in read_board.entries}
    return [
        heat if heat.get("revisions") else {**heat, "revisions": [known.get(entry) for entry in heat["entries"]]}
        for heat in heats
    ]


def _vehicles(board: RaceBoard, read_board: Board) -> dict[str, Vehicle]:
    """Vehicles of the board's own workshop, by id."""
    wanted = {entry.vehicle for entry in read_board.entries if _is_id(entry.vehicle)}
    return {str(vehicle.pk): vehicle for vehicle in board.workshop.vehicles.filter(pk__in=wanted)}


def _is_id(text: str) -> bool:
    try:
        UUID(text)
    except ValueError:
        return False
    return True


def shown(board: RaceBoard) -> BoardShown:
    """A board as it is looked at."""
    read_board = races.read(board.document)
    vehicles = _vehicles(board, read_board)
    predicted = _predicted(vehicles, read_board.distance)
    entries = [
        EntryShown(
            entry.id,
            entry.name,
            entry.vehicle,
            vehicle.name if (vehicle := vehicles.get(entry.vehicle)) else "",
            predicted.get(entry.vehicle),
            _last_run(vehicle, read_board.distance),
            _log(vehicle, read_board, entry.id),
        )
        for entry in read_board.entries
    ]
    return BoardShown(
        board.pk,
        board.workshop_id,
        board.version,
        board.document,
        races.next_heat(read_board),
        races.standings(read_board),
        entries,
    )


def _predicted(vehicles: Mapping[str, Vehicle], distance: float) -> dict[str, float | None]:
    """Time over the distance of each vehicle's present design."""
    read = {}
    for key, vehicle in vehicles.items():
        raw = vehicle.revisions.latest("number").document
        try:
            read[key] = design.read({**raw, "run": {**raw.get("run", {}), "distance": distance}})
        except DocumentError:
            continue
    if not read:
        return {}
    evaluation = evaluate(list(read.values()))
    return {key: evaluation.value("time_to_distance", k) for k, key in enumerate(read)}


def _last_run(vehicle: Vehicle | None, distance: float) -> float | None:
    """What an instrument, or somebody, has logged last over that distance."""
    if vehicle is None:
        return None
    words = f"Time over {distance:.4g} m"
    run = Run.objects.filter(vehicle=vehicle, put_away=False, words=words).order_by("-made_at").first()
    return run.measured if run else None


def _log(vehicle: Vehicle | None, board: Board, entry: str) -> list[Between]:
    """What was changed from each of its starts to the next, the last times that anything was."""
    if vehicle is None:
        return []
    starts = [
        (k, heat.revisions[heat.entries.index(entry)])
        for k, heat in enumerate(board.heats, 1)
        if entry in heat.entries and heat.revisions
    ]
    changed = [
        ((before, after), (old, new))
        for (before, old), (after, new) in pairwise(starts)
        if old is not None and new is not None and old != new
    ][-MOST_BETWEEN:]
    return [
        Between(before, after, changes(_as_of(vehicle, old), _as_of(vehicle, new)))
        for (before, after), (old, new) in changed
    ]


def _as_of(vehicle: Vehicle, number: int) -> dict[str, Any]:
    """The document of a revision; where it is no longer kept, of the one before it."""
    revision: Revision | None = vehicle.revisions.filter(number__lte=number).order_by("-number").first()
    return dict((revision or vehicle.revisions.earliest("number")).document)


def cards(boards: Sequence[RaceBoard]) -> list[dict[str, Any]]:
    """Boards in a list."""
    return [
        {
            "id": board.pk,
            "name": board.document["name"],
            "made_at": board.made_at,
            "entries": len(board.document["entries"]),
            "heats": len(board.document.get("heats", ())),
        }
        for board in boards
    ]
