"""A stretch of stage combinations behind each head: judged by classes, counted, and the best of them kept."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import astuple
from typing import Any, NamedTuple

import numpy as np

from ydrometer.motion.measures import WORDS
from ydrometer.search import classes
from ydrometer.search.choices import NO_PART, Floats, Head, Ints, Slot, trunk_from
from ydrometer.search.classes import Drive, Known, Standing
from ydrometer.search.cost import Cost
from ydrometer.search.found import Found
from ydrometer.search.mount import together
from ydrometer.search.option import Entry, Option
from ydrometer.search.request import SearchRequest
from ydrometer.search.ways import MOST_KEPT, MOST_SHOWN, Ways, best_of

ROUNDED = 1e-9
"""Step to which the first two keys of the ranking are rounded."""
SAME_RATIO = 1e-12
SAME_DRIVE = 1e-9
"""Relative step in which overall ratios and losses are told apart when ways are counted."""
STEP = 1.05
"""Relative step between the overall ratios whose best combinations are kept for the field."""


class Ranked(NamedTuple):
    """Combinations within the limits, with what they are ranked by.

    Attributes:
        head: of all of them. rows: their places in the block. which: the class of each, as its place in `first`.
        first, second: the first two keys, of each class. stretch: of overall ratios, of each class.
        ratio, left: overall, and what is left after all losses, in whole steps, of each class.
        price, buy: of each combination.
    """

    head: Head
    rows: Ints
    which: Ints
    first: Ints
    second: Ints
    stretch: Ints
    ratio: Ints
    left: Ints
    price: Floats
    buy: Ints


class Block:
    """A stretch of stage combinations of one layout, `chosen` being the option of each slot for each of them.

    `placed` tells for which of them the shafts have places, None where all have.
    """

    def __init__(
        self, request: SearchRequest, number: int, options: list[Slot], chosen: list[Ints], cost: Cost, known: Known
    ) -> None:
        self.request, self.number, self.layout, self.known = request, number, request.body.layouts[number], known
        self.options, self.chosen, self.cost = options, chosen, cost
        mass = cost.mass if request.body.add_part_masses else np.zeros(len(cost.mass))
        self.drive, self.which = classes.distinct(options, trunk_from(self.layout), chosen, mass)
        self.ranks = _id_ranks(request, options, chosen)
        pairs = [(slot.places, option) for slot, option in zip(options, chosen, strict=True) if slot.places is not None]
        self.placed = together([places for places, _ in pairs], [option for _, option in pairs]) if pairs else None

    def look(self, head: Head, head_cost: tuple[float, int, float], found: Found) -> None:
        """Count the combinations of a head, and keep the best."""
        price, buy = self.cost.price + head_cost[0], self.cost.buy + head_cost[1]
        rows = np.flatnonzero(self._within(price, buy))
        if not len(rows):
            return
        # Of classes that no combination within the limits has, nothing is asked.
        asked, which = _present(self.which[rows], len(self.drive.mass))
        drive = Drive(*(column[asked] for column in self.drive))
        stands = self.known.standing(self.request, self.number, self.layout, head, head_cost[2], drive)
        overall, kept = drive.speed * drive.trunk_speed, drive.efficiency * drive.trunk_efficiency
        stands, of_class, which = self._by_price(stands, which, price[rows])
        overall, kept = overall[of_class], kept[of_class]
        sizes = np.bincount(which, minlength=len(overall))
        self._count(stands, sizes, found)
        first, second = self._keys(stands)
        stretch = np.round(np.log(overall) / np.log(STEP)).astype(np.int64)
        ratio, left = _steps(overall), _steps(kept)
        ranked = Ranked(head, rows, which, first, second, stretch, ratio, left, price[rows], buy[rows])
        self._keep(ranked, sizes, found)
        self._represent(ranked, found)
        self._count_ways(ranked, found)

    def _within(self, price: Floats, buy: Ints) -> Any:
        limits = self.request.body.limits
        within = np.ones(len(price), bool) if self.placed is None else self.placed.copy()
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

    def _by_price(self, stands: Standing, which: Ints, price: Floats) -> tuple[Standing, Ints, Ints]:
        """Classes split by price if a target is about it, and what they were split from; else as they are."""
        asked = self.request.asked
        columns = [column for column, target in enumerate(asked) if target.measure == "price"]
        if not columns:
            return stands, np.arange(len(stands.held_by)), which
        known, code = np.unique(price, return_inverse=True)
        pairs, finer = np.unique(which * len(known) + code, return_inverse=True)
        whole, cost = pairs // len(known), known[pairs % len(known)]
        margins, met = stands.margins[whole], stands.met[whole]
        for column in columns:
            margins[:, column], met[:, column] = classes.price_standing(asked[column], cost)
        return Standing(margins, met, stands.held_by[whole]), whole, finer

    def _count(self, stands: Standing, sizes: Ints, found: Found) -> None:
        """Add up classes by how many combinations each has."""
        meeting = stands.met.all(axis=1)
        found.combinations += int(sizes.sum())
        found.meeting += int(sizes[meeting].sum())
        failing = np.where(meeting, 0, sizes)
        for column, target in enumerate(self.request.asked):
            missed = int(failing[~stands.met[:, column]].sum())
            if missed:
                found.failing[target.measure] += missed
        for code in np.unique(stands.held_by[(stands.held_by > 0) & (failing > 0)]):
            found.failing[f"held by {WORDS[code]}"] += int(failing[stands.held_by == code].sum())

    def _keys(self, stands: Standing) -> tuple[Ints, Ints]:
        """Shortfall and negative margin of each class, weighted and rounded."""
        weights = np.array([self.request.weight(t.measure) for t in self.request.asked])
        short = np.maximum(0.0, -stands.margins)
        first = np.round((short**2 * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        second = np.round(-(stands.margins * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        return first, second

    def _keep(self, ranked: Ranked, sizes: Ints, found: Found) -> None:
        keep = self.request.body.keep
        rows = np.flatnonzero(_leading(ranked, sizes, keep)[ranked.which])
        which = ranked.which[rows]
        keys = [ranked.first[which], ranked.second[which], ranked.price[rows], ranked.buy[rows]]
        ranks = [rank[ranked.rows[rows]] for rank in self.ranks]
        found.best += [self._entry(ranked, int(rows[place])) for place in smallest([*keys, *ranks], keep)]
        found.best.sort(key=lambda entry: entry[0])
        del found.best[keep:]

    def _represent(self, ranked: Ranked, found: Found) -> None:
        """The best of each stretch of overall ratios: first among classes, then among the combinations of those."""
        stretches, code = np.unique(ranked.stretch, return_inverse=True)
        best = np.arange(len(code))
        for key in (ranked.first, ranked.second):
            best = _least(key[best], code[best], len(stretches), best)
        of_the_best = np.zeros(len(code), bool)
        of_the_best[best] = True
        left = np.flatnonzero(of_the_best[ranked.which])
        codes = code[ranked.which]
        for values in (ranked.price, ranked.buy):
            left = _least(values[left], codes[left], len(stretches), left)
        for rank in self.ranks:
            left = _least(rank[ranked.rows[left]], codes[left], len(stretches), left)
        for row in left.tolist():
            found.represent(int(stretches[codes[row]]), self._entry(ranked, row))

    def _count_ways(self, ranked: Ranked, found: Found) -> None:
        """Count the ways to each of the best drives, and keep the best few of each."""
        order = np.lexsort((ranked.left, ranked.ratio, ranked.second, ranked.first))[:MOST_KEPT]
        kept = np.zeros(len(ranked.first), bool)
        kept[order] = True
        rows = np.flatnonzero(kept[ranked.which])
        codes, size = ranked.which[rows], len(kept)
        counts = np.bincount(codes, minlength=size)
        owned = np.bincount(codes[ranked.buy[rows] == 0], minlength=size)
        price = np.full(size, np.inf)
        np.minimum.at(price, codes, ranked.price[rows])
        best = self._best_ways(ranked, rows)
        for code in order.tolist():
            ways = Ways(int(counts[code]), int(owned[code]), float(price[code]), best[code])
            found.ways.setdefault(self._drive(ranked, code), Ways()).add(ways)
        found.ways = best_of(found.ways)

    def _best_ways(self, ranked: Ranked, rows: Ints) -> dict[int, list[Entry]]:
        """The best few combinations of each class, of these rows."""
        best: dict[int, list[Entry]] = defaultdict(list)
        for _ in range(MOST_SHOWN):
            left = rows
            for values in (ranked.price, ranked.buy, *(rank[ranked.rows] for rank in self.ranks)):
                left = _least(values[left], ranked.which[left], len(ranked.first), left)
            for row in left.tolist():
                best[int(ranked.which[row])].append(self._entry(ranked, row))
            rows = np.setdiff1d(rows, left, assume_unique=True)
        return best

    def _drive(self, ranked: Ranked, code: int) -> tuple[Any, ...]:
        keys = (ranked.first, ranked.second, ranked.ratio, ranked.left)
        return (*(int(key[code]) for key in keys), *astuple(ranked.head))

    def _entry(self, ranked: Ranked, row: int) -> Entry:
        """A combination with its whole key."""
        place, price, buy = ranked.rows[row], float(ranked.price[row]), int(ranked.buy[row])
        option = Option(self.number, ranked.head, tuple(int(c[place]) for c in self.chosen), price, buy)
        names = tuple(ids(self.request, self.options, option))
        of_class = ranked.which[row]
        first, second = int(ranked.first[of_class]), int(ranked.second[of_class])
        return (first, second, price, buy, self.number, ranked.head.count, names), option


def _leading(ranked: Ranked, sizes: Ints, count: int) -> Any:
    """Of each class whether it may be among the first `count` combinations: those before it are fewer."""
    order = np.lexsort((ranked.second, ranked.first))
    enough = np.searchsorted(np.cumsum(sizes[order]), count)
    if enough >= len(order):
        return np.ones(len(order), bool)
    last = order[enough]
    return (ranked.first < ranked.first[last]) | (
        (ranked.first == ranked.first[last]) & (ranked.second <= ranked.second[last])
    )


def _least(values: Any, groups: Ints, count: int, entries: Ints) -> Ints:
    """Entries whose value is the smallest of their group."""
    largest = np.inf if values.dtype.kind == "f" else np.iinfo(values.dtype).max
    least = np.full(count, largest, values.dtype)
    np.minimum.at(least, groups, values)
    smallest_ones: Ints = entries[values == least[groups]]
    return smallest_ones


def _steps(values: Floats) -> Ints:
    """Positive numbers in whole steps that tell apart what is told apart in the classes."""
    return np.round(np.log(values) / SAME_DRIVE).astype(np.int64)


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
