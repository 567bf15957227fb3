"""Asking for a search, going through its pieces, and ending it; each is told who acts."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from server.accounts.models import User
from server.api.heavy import aside
from server.api.limits import MOST_OPEN_SEARCHES
from server.api.quotas import need_room
from server.designs.models import Vehicle
from server.parts.models import documents
from server.searches import queue
from server.searches.aside import begun_as_json
from server.searches.models import Piece, Search, State
from server.workshops.access import EDITORS, allowed
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.search import SearchRequest, read_request
from ydrometer.search.classes import Known
from ydrometer.search.compose import compose
from ydrometer.search.layouts import words_of
from ydrometer.search.outcome import Outcome
from ydrometer.search.run import SearchPiece as Stretch
from ydrometer.search.run import search_piece

AT_ONCE = 20_000
"""Combinations up to which a search is answered without a worker."""
MOST = 2_000_000_000
"""Combinations that a worker is sent through: about half an hour of one."""
KEPT = 40
"""Searches that a workshop keeps; older ones go."""
OPEN = (State.WAITING, State.RUNNING)


@dataclass(frozen=True, slots=True)
class AskedSearch:
    """A search as it was written, and what was found where it was small, as JSON."""

    search: Search
    options: bytes | None


@allowed(EDITORS)
def ask(user: User, workshop: Workshop, vehicle: Vehicle | None, raw: dict[str, Any]) -> AskedSearch:
    """Search now where that takes no time, else put the search into the workshop's row.

    Args:
        user: who asks.
        workshop: whose bin is searched.
        vehicle: what the search is for.
        raw: a search request without parts.

    Raises:
        DocumentError: faults in the request, or too many combinations.
    """
    open_ones = Search.objects.filter(author=user, state__in=OPEN).count()
    need_room("searches under way", open_ones, MOST_OPEN_SEARCHES, "wait for one of them, or end it")
    whole = compose(raw, documents(workshop))
    begun, options = aside(begun_as_json, whole, AT_ONCE, MOST)
    if begun.combinations > MOST:
        fault = Fault("layouts", f"{begun.combinations} combinations", f"choose fewer stages or parts: at most {MOST}")
        raise DocumentError([fault])
    outcome, now = begun.outcome, timezone.now()
    with transaction.atomic():
        search = Search.objects.create(
            workshop=workshop,
            vehicle=vehicle,
            author=user,
            request=whole,
            words=_words(raw),
            combinations=begun.combinations,
            state=State.DONE if outcome else State.WAITING,
            found=outcome.as_json() if outcome else None,
            meeting=outcome.meeting if outcome else None,
            started_at=now if outcome else None,
            ended_at=now if outcome else None,
        )
        stretches = enumerate(begun.pieces)
        Piece.objects.bulk_create(Piece(search=search, number=i, **stretch._asdict()) for i, stretch in stretches)
        _forget_old(workshop)
        advance(workshop)
    if outcome is None:
        # It may have been the one to begin with.
        search.refresh_from_db(fields=["state", "started_at"])
    return AskedSearch(search, options)


def _words(raw: dict[str, Any]) -> str:
    return "; ".join(dict.fromkeys(words_of(layout.get("stages", [])) for layout in raw["layouts"]))[:400]


def _forget_old(workshop: Workshop) -> None:
    old = workshop.searches.exclude(state__in=OPEN).values_list("pk", flat=True)[KEPT:]
    Search.objects.filter(pk__in=list(old)).delete()


@transaction.atomic
def advance(workshop: Workshop) -> None:
    """Where none of the workshop's searches runs, begin with the one that has waited longest."""
    Workshop.objects.select_for_update().get(pk=workshop.pk)
    if workshop.searches.filter(state=State.RUNNING).exists():
        return
    # One account's searches take turns, in however many workshops they wait.
    busy = Search.objects.filter(state=State.RUNNING, author__isnull=False).values("author")
    following = workshop.searches.filter(state=State.WAITING).exclude(author__in=busy).order_by("created_at").first()
    if following is None:
        return
    following.state, following.started_at = State.RUNNING, timezone.now()
    following.save(update_fields=["state", "started_at"])
    for number in following.pieces.values_list("number", flat=True):
        queue.put(following.pk, number)


def go_through_piece(search_id: UUID, number: int) -> None:
    """Do one piece of a search, unless that has been done or nobody wants it any more."""
    piece = Piece.objects.select_related("search").filter(search_id=search_id, number=number).first()
    if piece is None or piece.found is not None or piece.search.state != State.RUNNING:
        return
    request, known = _at_work(search_id)
    outcome = search_piece(request, Stretch(piece.layout, piece.low, piece.high), known)
    _keep(piece, outcome)


@lru_cache(maxsize=2)
def _at_work(search_id: UUID) -> tuple[SearchRequest, Known]:
    """The request, which never changes once it has been written, and the classes that this worker has computed."""
    return read_request(Search.objects.values_list("request", flat=True).get(pk=search_id)), Known()


@transaction.atomic
def _keep(piece: Piece, outcome: Outcome) -> None:
    """Write down what was found, once; the last piece ends the search."""
    whole = Search.objects.select_for_update().get(pk=piece.search_id)
    fresh = Piece.objects.filter(pk=piece.pk, found__isnull=True).update(found=outcome.as_json())
    if not fresh or whole.state != State.RUNNING or whole.pieces.filter(found__isnull=True).exists():
        return
    total = Outcome()
    for part in whole.pieces.values_list("found", flat=True):
        total.add(Outcome.from_json(part or {}), _at_work(whole.pk)[0].body.keep)
    whole.found, whole.meeting = total.as_json(), total.meeting
    _end(whole, State.DONE)


@allowed(EDITORS)
def cancel(user: User, search: Search) -> None:
    """End a search that is waiting or running; the pieces under way come to nothing."""
    with transaction.atomic():
        locked = Search.objects.select_for_update().get(pk=search.pk)
        if locked.state in OPEN:
            _end(locked, State.CANCELLED)


def fail(search_id: UUID, trouble: str) -> None:
    """End a search that cannot be gone through, with the reason."""
    with transaction.atomic():
        locked = Search.objects.select_for_update().filter(pk=search_id, state__in=OPEN).first()
        if locked is not None:
            locked.trouble = trouble[:400]
            _end(locked, State.FAILED)


def _end(search: Search, state: State) -> None:
    search.state, search.ended_at = state, timezone.now()
    search.save(update_fields=["state", "ended_at", "found", "meeting", "trouble"])
    search.pieces.all().delete()
    advance(search.workshop)
    waiting = Search.objects.filter(state=State.WAITING, author=search.author_id).exclude(workshop=search.workshop)
    for workshop in Workshop.objects.filter(pk__in=waiting.values("workshop")):
        advance(workshop)
