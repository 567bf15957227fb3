"""The search: all combinations counted, the best kept, in pieces that any process can go through."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from multiprocessing import get_context
from typing import NamedTuple

from ydrometer.search.block import SearchBlock
from ydrometer.search.choices import StageSlot, heads, slots, total
from ydrometer.search.classes import Known
from ydrometer.search.cost import head_cost, prices
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import SearchRequest

CHUNK = 8_000_000
"""Stage combinations of a piece, at most."""
CHUNK_APART = 1_000_000
"""Stage combinations of a piece, at most, where something is held of each of them."""


class SearchPiece(NamedTuple):
    """A stretch of the stage combinations of one layout."""

    layout: int
    low: int
    high: int


def pieces(request: SearchRequest) -> list[SearchPiece]:
    """The whole search in pieces that can be gone through by themselves, in any order."""
    cut = []
    for number, layout in enumerate(request.body.layouts):
        options = slots(request, layout)
        size, step = total([len(slot) for slot in options]), _chunk(request, options)
        # All of them alike: so several processes end at about the same time.
        count = -(-size // step)
        ends = [size * i // count for i in range(count + 1)] if count else []
        cut += [SearchPiece(number, low, high) for low, high in pairwise(ends)]
    return cut


def _chunk(request: SearchRequest, options: Sequence[StageSlot]) -> int:
    priced = any(target.measure == "price" for target in request.targets)
    placed = any(slot.places is not None for slot in options)
    return min(CHUNK, CHUNK_APART) if priced or placed or request.body.add_part_masses else CHUNK


def sizes(request: SearchRequest) -> list[int]:
    """How many combinations each layout describes, before the limits."""
    return [
        total([len(slot) for slot in slots(request, layout)]) * len(heads(request, layout))
        for layout in request.body.layouts
    ]


def search(request: SearchRequest, processes: int = 1) -> Outcome:
    """Go through every combination that the limits leave.

    The list is that of evaluating each combination by itself, in the same order (see the format's ranking).

    Args:
        request: what to look through.
        processes: how many share the work.
    """
    outcome, work = Outcome(), pieces(request)
    if processes == 1 or len(work) == 1:
        known = Known()
        for piece in work:
            outcome.add(search_piece(request, piece, known), request.body.keep)
        return outcome
    with get_context("fork").Pool(processes, _remember, (request,)) as pool:
        for part in pool.imap_unordered(_search_remembered, work):
            outcome.add(part, request.body.keep)
    return outcome


_remembered: list[tuple[SearchRequest, Known]] = []
"""In a process of a pool, the request it works on, and the classes that it has computed."""


def _remember(request: SearchRequest) -> None:
    _remembered[:] = [(request, Known())]


def _search_remembered(piece: SearchPiece) -> Outcome:
    request, known = _remembered[0]
    return search_piece(request, piece, known)


def search_piece(request: SearchRequest, piece: SearchPiece, known: Known) -> Outcome:
    """What one piece of a search holds.

    Args:
        request: what is looked through.
        piece: the stretch of it.
        known: classes that other pieces of the same request have computed; new ones are added.
    """
    outcome, table, layout = Outcome(), prices(request), request.body.layouts[piece.layout]
    options = slots(request, layout)
    step = CHUNK_APART if known.drives(request, piece.layout, options) is None else CHUNK
    for low in range(piece.low, piece.high, step):
        block = SearchBlock(request, piece.layout, options, (low, min(low + step, piece.high)), known)
        for head in heads(request, layout):
            block.look(head, head_cost(request, table, head), outcome)
    return outcome
