"""The search: all combinations counted, the best kept, by classes that are each computed once."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import astuple, dataclass, field
from multiprocessing import get_context
from typing import Any, NamedTuple

import numpy as np

from ydrometer.motion.measures import WORDS
from ydrometer.search import classes
from ydrometer.search.choices import NO_PART, Floats, Head, Ints, Slot, heads, slots, total, trunk_from
from ydrometer.search.classes import Drive, Standing
from ydrometer.search.cost import Cost, head_cost, prices, stage_costs
from ydrometer.search.request import Layout, SearchRequest

CHUNK = 1_000_000
"""Stage combinations gone through at a time."""
ROUNDED = 1e-9
"""To which the first two keys of the ranking are rounded."""
SAME_RATIO = 1e-12

Key = tuple[Any, ...]


@dataclass(frozen=True, slots=True)
class Option:
    """One combination: its layout, its head, the option of each slot, its price and what has to be bought."""

    layout: int
    head: Head
    chosen: tuple[int, ...]
    price: float
    buy: int


@dataclass(slots=True)
class Found:
    """What a search has seen so far; `best` in the order of their keys."""

    combinations: int = 0
    meeting: int = 0
    failing: Counter[str] = field(default_factory=Counter)
    best: list[tuple[Key, Option]] = field(default_factory=list)

    def add(self, other: Found, keep: int) -> None:
        """Take in what was seen elsewhere."""
        self.combinations += other.combinations
        self.meeting += other.meeting
        self.failing.update(other.failing)
        self.best = sorted([*self.best, *other.best], key=lambda entry: entry[0])[:keep]

    def as_json(self) -> dict[str, Any]:
        """As it can be kept and sent."""
        best = [[*key[:-1], list(key[-1]), option.layout, list(astuple(option.head)), list(option.chosen)]
                for key, option in self.best]  # fmt: skip
        return {"combinations": self.combinations, "meeting": self.meeting, "failing": dict(self.failing), "best": best}

    @classmethod
    def from_json(cls, raw: dict[str, Any]) -> Found:
        """What `as_json` has made."""
        best = []
        for *key, names, layout, head, chosen in raw["best"]:
            option = Option(layout, Head(*head), tuple(chosen), price=key[2], buy=key[3])
            best.append(((*key, tuple(names)), option))
        return cls(raw["combinations"], raw["meeting"], Counter(raw["failing"]), best)


class Piece(NamedTuple):
    """A stretch of the stage combinations of one layout."""

    layout: int
    low: int
    high: int


def pieces(request: SearchRequest) -> list[Piece]:
    """The whole search in pieces that can be gone through by themselves, in any order."""
    found = []
    for number, layout in enumerate(request.body.layouts):
        size = total([len(slot) for slot in slots(request, layout)])
        found += [Piece(number, low, min(low + CHUNK, size)) for low in range(0, size, CHUNK)]
    return found


def sizes(request: SearchRequest) -> list[int]:
    """How many combinations each layout describes, before the limits."""
    return [
        total([len(slot) for slot in slots(request, layout)]) * len(heads(request, layout))
        for layout in request.body.layouts
    ]


def search(request: SearchRequest, processes: int = 1) -> Found:
    """Go through every combination that the limits leave.

    The list is that of evaluating each combination by itself, in the same order (see the format's ranking).

    Args:
        request: what to look through.
        processes: how many share the work.
    """
    found, work = Found(), pieces(request)
    if processes == 1 or len(work) == 1:
        parts = (search_piece(request, piece) for piece in work)
        for part in parts:
            found.add(part, request.body.keep)
        return found
    with get_context("fork").Pool(processes, _remember, (request,)) as pool:
        for part in pool.imap_unordered(_search_remembered, work):
            found.add(part, request.body.keep)
    return found


_remembered: list[SearchRequest] = []
"""In a process of a pool, the request it works on."""


def _remember(request: SearchRequest) -> None:
    _remembered[:] = [request]


def _search_remembered(piece: Piece) -> Found:
    return search_piece(_remembered[0], piece)


def search_piece(request: SearchRequest, piece: Piece) -> Found:
    """What one piece of a search holds."""
    found, table, layout = Found(), prices(request), request.body.layouts[piece.layout]
    options = slots(request, layout)
    chosen = _chosen([len(slot) for slot in options], piece.low, piece.high)
    block = _Block(request, piece.layout, layout, options, chosen, stage_costs(request, table, options, chosen))
    for head in heads(request, layout):
        block.look(head, head_cost(request, table, head), found)
    return found


def _chosen(lengths: Sequence[int], low: int, high: int) -> list[Ints]:
    """The options of each slot for combinations `low` up to `high`, the last slot running fastest."""
    return [np.asarray(i) for i in np.unravel_index(np.arange(low, high), lengths)] if lengths else []


class _Block:
    """A stretch of stage combinations, to be put behind each head."""

    def __init__(
        self, request: SearchRequest, number: int, layout: Layout, options: list[Slot], chosen: list[Ints], cost: Cost
    ) -> None:
        self.request, self.number, self.layout = request, number, layout
        self.options, self.chosen, self.cost = options, chosen, cost
        mass = cost.mass if request.body.add_part_masses else np.zeros(len(cost.mass))
        every = classes.drives(options, trunk_from(layout), chosen, mass)
        self.drive, self.which = classes.unique(every)
        self.ranks = _id_ranks(request, options, chosen)

    def look(self, head: Head, head_cost: tuple[float, int, float], found: Found) -> None:
        """Count the combinations of a head, and keep the best."""
        price, buy = self.cost.price + head_cost[0], self.cost.buy + head_cost[1]
        rows = np.flatnonzero(self._within(price, buy))
        if not len(rows):
            return
        # Of classes that no combination within the limits has, nothing is asked.
        asked, which = _present(self.which[rows], len(self.drive.mass))
        drive = Drive(*(column[asked] for column in self.drive))
        stands = classes.standing(self.request, self.layout, head, head_cost[2], drive)
        margins, met = self._judged(stands, which, price[rows])
        self._count(stands, which, met, found)
        self._keep(head, rows, margins, price[rows], buy[rows], found)

    def _within(self, price: Floats, buy: Ints) -> Any:
        limits = self.request.body.limits
        within = np.ones(len(price), bool)
        if limits.owned_only:
            within &= buy == 0
        if limits.price_at_most is not None:
            within &= price <= limits.price_at_most
        if limits.parts_to_buy_at_most is not None:
            within &= buy <= limits.parts_to_buy_at_most
        if limits.overall_ratio is not None:
            low, high = limits.overall_ratio
            overall = (self.drive.speed * self.drive.trunk_speed)[self.which]
            within &= (overall >= low * (1.0 - SAME_RATIO)) & (overall <= high * (1.0 + SAME_RATIO))
        return within

    def _judged(self, stands: Standing, which: Ints, price: Floats) -> tuple[Floats, Any]:
        margins, met = stands.margins[which], stands.met[which]
        for column, target in enumerate(self.request.document.design.targets):
            if target.measure == "price":
                margins[:, column], met[:, column] = classes.price_standing(target, price)
        return margins, met

    def _count(self, stands: Standing, which: Ints, met: Any, found: Found) -> None:
        meeting = met.all(axis=1)
        found.combinations += len(which)
        found.meeting += int(meeting.sum())
        failing = ~meeting
        for column, target in enumerate(self.request.document.design.targets):
            missed = int((failing & ~met[:, column]).sum())
            if missed:
                found.failing[target.measure] += missed
        held = stands.held_by[which][failing]
        for code in np.unique(held[held > 0]):
            found.failing[f"held by {WORDS[code]}"] += int((held == code).sum())

    def _keep(self, head: Head, rows: Ints, margins: Floats, price: Floats, buy: Ints, found: Found) -> None:
        keep = self.request.body.keep
        weights = np.array([self.request.weight(t.measure) for t in self.request.document.design.targets])
        short = np.maximum(0.0, -margins)
        first = np.round((short**2 * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        second = np.round(-(margins * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        ranks = [rank[rows] for rank in self.ranks]
        for row in smallest([first, second, price, buy, *ranks], keep):
            place = rows[row]
            option = Option(
                self.number, head, tuple(int(c[place]) for c in self.chosen), float(price[row]), int(buy[row])
            )
            key = (int(first[row]), int(second[row]), float(price[row]), int(buy[row]), self.number, head.count,
                   tuple(ids(self.request, self.options, option)))  # fmt: skip
            found.best.append((key, option))
        found.best.sort(key=lambda entry: entry[0])
        del found.best[keep:]


def _present(codes: Ints, count: int) -> tuple[Ints, Ints]:
    """The codes from 0 to count − 1 that occur, and for each entry the place of its own among them."""
    occurs = np.bincount(codes, minlength=count) > 0
    place = np.cumsum(occurs) - 1
    return np.flatnonzero(occurs), place[codes]


def smallest(keys: Sequence[Any], count: int) -> list[int]:
    """The places of the `count` smallest rows by several keys, the first weighing most; in no particular order.

    Key by key, rows below the one that is `count`th are taken, rows equal to it are told apart by the next key.
    """
    left, taken, missing = np.arange(len(keys[0])), [], count
    for key in keys:
        if len(left) <= missing:
            break
        values = key[left]
        bound = np.partition(values, missing - 1)[missing - 1]
        taken.append(left[values < bound])
        missing -= len(taken[-1])
        left = left[values == bound]
    return [int(i) for i in np.concatenate([*taken, left[:missing]])]


def ids(request: SearchRequest, options: Sequence[Slot], option: Option) -> Iterator[str]:
    """The ids of an option's parts: source, supply, wheel, then driver and driven of each stage."""
    parts = request.body.parts
    head = option.head
    places = [head.source, head.supply, head.wheel]
    for slot, chosen in zip(options, option.chosen, strict=True):
        places += slot.parts[chosen].tolist()
    return (parts[place].id for place in places if place != NO_PART)


def _id_ranks(request: SearchRequest, options: Sequence[Slot], chosen: Sequence[Ints]) -> list[Ints]:
    """For each place of a stage, how its part's id ranks among all as text."""
    order = sorted(range(len(request.body.parts)), key=lambda i: request.body.parts[i].id)
    rank = np.zeros(len(order) + 1, np.int64)
    rank[order] = np.arange(len(order))
    return [rank[slot.parts[option, end]] for slot, option in zip(options, chosen, strict=True) for end in (0, 1)]
