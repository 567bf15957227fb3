"""A stretch of stage combinations behind each head: judged by classes, counted, and the best of them kept.

Combinations are gone through twice: first they are counted by class, and once it is known how the classes stand, those
of the best classes are written down.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import astuple, dataclass
from typing import Any, NamedTuple

import numpy as np

from ydrometer.motion.measures import WORDS
from ydrometer.search import classes
from ydrometer.search.choices import NO_PART, Floats, Head, Ints, StageSlot, trunk_from
from ydrometer.search.classes import Known, Standing
from ydrometer.search.cost import prices, stage_mass
from ydrometer.search.drives import Drive, Drives, drives, unique
from ydrometer.search.mount import together
from ydrometer.search.option import Entry, Option
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import SearchRequest
from ydrometer.search.walk import Bounds, Walk, WalkRows, digits
from ydrometer.search.ways import MOST_KEPT, MOST_SHOWN, Ways, best_of

ROUNDED = 1e-9
"""Step to which the first two keys of the ranking are rounded."""
SAME_RATIO = 1e-12
SAME_DRIVE = 1e-9
"""Relative step in which overall ratios and losses are told apart when ways are counted."""
NO_LIMIT = 1 << 62
"""Parts to buy, where there may be as many as one likes."""
STEP = 1.05
"""Relative step between the overall ratios whose best combinations are kept for the field."""


class Ranked(NamedTuple):
    """Classes that have combinations within the limits, with what they are ranked by.

    Attributes:
        head: of all of them. sizes: how many combinations each has.
        first, second: the first two keys. stretch: of overall ratios.
        ratio, left: overall, and what is left after all losses, in whole steps.
    """

    head: Head
    sizes: Ints
    first: Ints
    second: Ints
    stretch: Ints
    ratio: Ints
    left: Ints


@dataclass(frozen=True, slots=True)
class _Rank:
    """How the id of the part at one end of a stage ranks, worked out for the combinations that it is asked of.

    Attributes:
        place: of the combinations in the layout. stride: combinations from one option of the stage to the next.
        of_option: the rank, of each option of the stage.
    """

    place: Ints
    stride: int
    of_option: Ints

    def __getitem__(self, rows: Ints) -> Ints:
        return np.asarray(self.of_option[self.place[rows] // self.stride % len(self.of_option)])


class SearchBlock:
    """A stretch of the stage combinations of one layout.

    Args:
        request: what is looked through.
        number: of the layout.
        options: of its slots.
        stretch: the place of the first combination, and the one after the last.
        known: what other stretches have found out.
    """

    def __init__(
        self, request: SearchRequest, number: int, options: list[StageSlot], stretch: tuple[int, int], known: Known
    ) -> None:
        self.request, self.number, self.layout, self.known = request, number, request.body.layouts[number], known
        self.options, self.lengths = options, [len(slot) for slot in options]
        self.rank = _id_rank(request)
        self.drive, which = self._drives(stretch)
        units = request.document.design.drive.units
        self.walk = Walk(options, stretch, prices(request), units, which, self._placed(stretch))
        self.within = self._of_ratio()
        self._sizes: tuple[Bounds, Ints] | None = None

    def _drives(self, stretch: tuple[int, int]) -> tuple[Drive, Drives | Ints]:
        """The distinct drives of the stretch, or of the whole layout, and which of them each combination is."""
        drive = self.known.drives(self.request, self.number, self.options)
        if drive is not None:
            return drive.drive, drive
        chosen = digits(np.arange(*stretch), self.lengths)
        mass = stage_mass(self.request, prices(self.request), self.options, chosen)
        weighs = self.request.body.add_part_masses
        return unique(drives(self.options, trunk_from(self.layout), chosen, mass if weighs else np.zeros_like(mass)))

    def _placed(self, stretch: tuple[int, int]) -> Any:
        """For which combinations the shafts have places, None where all have."""
        if all(slot.places is None for slot in self.options):
            return None
        chosen = digits(np.arange(*stretch), self.lengths)
        pairs = [(slot.places, option) for slot, option in zip(self.options, chosen, strict=True) if slot.places]
        return together([places for places, _ in pairs], [option for _, option in pairs])

    def _of_ratio(self) -> Any:
        """Whether the overall ratio of each drive is within the limits."""
        limits, overall = self.request.body.limits, self.drive.overall
        if limits.overall_ratio is None:
            return np.ones(len(overall), np.bool_)
        low, high = limits.overall_ratio
        return (overall >= low * (1.0 - SAME_RATIO)) & (overall <= high * (1.0 + SAME_RATIO))

    def look(self, head: Head, head_cost: tuple[float, int, float], outcome: Outcome) -> None:
        """Count the combinations of a head, and keep the best."""
        bounds = self._bounds(head_cost)
        sizes = self._sizes_within(bounds)
        # Of classes that no combination within the limits has, nothing is asked.
        usable = np.flatnonzero(sizes)
        if not len(usable):
            return
        stands = self._standing(head, head_cost[2], usable)
        drive, sizes, rows = self.drive.at(usable), sizes[usable], None
        if any(target.measure == "price" for target in self.request.targets):
            every = self._rows(bounds, usable, np.ones(len(usable), np.bool_))
            stands, of_class, which = self._by_price(stands, every.drive, every.price)
            rows, drive, sizes = every._replace(drive=which), drive.at(of_class), np.bincount(which)
        self._count(stands, sizes, outcome)
        ranked = Ranked(head, sizes, *self._keys(stands), _stretch(drive), _steps(drive.overall), _steps(drive.left))
        leading, leaders, first = _leading(ranked, self.request.body.keep), _leaders(ranked), _first(ranked)
        if rows is None:
            wanted = leading | leaders
            wanted[first] = True
            rows = self._rows(bounds, usable, wanted)
        self._keep(ranked, rows.at(leading[rows.drive]), outcome)
        self._represent(ranked, rows.at(leaders[rows.drive]), outcome)
        self._count_ways(ranked, rows, first, outcome)

    def _bounds(self, head_cost: tuple[float, int, float]) -> Bounds:
        limits = self.request.body.limits
        price_at_most = math.inf if limits.price_at_most is None else limits.price_at_most
        buy_at_most = NO_LIMIT if limits.parts_to_buy_at_most is None else limits.parts_to_buy_at_most
        return Bounds(*head_cost[:2], price_at_most, 0 if limits.owned_only else buy_at_most)

    def _sizes_within(self, bounds: Bounds) -> Ints:
        """How many combinations within the limits each drive has; without limits on cost all heads leave the same."""
        unlimited = bounds.price_at_most == math.inf and bounds.buy_at_most == NO_LIMIT
        limits = Bounds(0.0, 0, math.inf, NO_LIMIT) if unlimited else bounds
        if self._sizes is None or self._sizes[0] != limits:
            sizes = self.walk.sizes(limits, len(self.drive.mass))
            self._sizes = limits, np.where(self.within, sizes, 0)
        return self._sizes[1]

    def _rows(self, bounds: Bounds, usable: Ints, wanted: Any) -> WalkRows:
        """The combinations of wanted classes, which are some of the `usable` drives."""
        sizes, which = self._sizes_within(bounds), np.zeros(len(self.drive.mass), np.int64)
        which[usable] = np.arange(len(usable))
        of_drive = np.zeros(len(which), np.bool_)
        of_drive[usable[wanted]] = True
        rows = self.walk.rows(bounds, sizes, of_drive)
        return rows._replace(drive=which[rows.drive])

    def _standing(self, head: Head, head_mass: float, usable: Ints) -> Standing:
        if self.known.drives(self.request, self.number, self.options) is None:
            return classes.standing(self.request, self.layout, head, head_mass, self.drive.at(usable))
        return self.known.standing(self.request, self.number, head, self.drive, usable)

    def _by_price(self, stands: Standing, which: Ints, price: Floats) -> tuple[Standing, Ints, Ints]:
        """Classes split by price if a target is about it, and what they were split from; else as they are."""
        targets = self.request.targets
        columns = [column for column, target in enumerate(targets) if target.measure == "price"]
        if not columns:
            return stands, np.arange(len(stands.held_by)), which
        known, code = np.unique(price, return_inverse=True)
        pairs, finer = np.unique(which * len(known) + code, return_inverse=True)
        whole, cost = pairs // len(known), known[pairs % len(known)]
        margins, met = stands.margins[whole], stands.met[whole]
        for column in columns:
            margins[:, column], met[:, column] = classes.price_standing(targets[column], cost)
        return Standing(margins, met, stands.held_by[whole]), whole, finer

    def _count(self, stands: Standing, sizes: Ints, outcome: Outcome) -> None:
        """Add up classes by how many combinations each has."""
        meeting = stands.met.all(axis=1)
        outcome.combinations += int(sizes.sum())
        outcome.meeting += int(sizes[meeting].sum())
        failing = np.where(meeting, 0, sizes)
        for column, target in enumerate(self.request.targets):
            missed = int(failing[~stands.met[:, column]].sum())
            if missed:
                outcome.failing[target.measure] += missed
        for code in np.unique(stands.held_by[(stands.held_by > 0) & (failing > 0)]):
            outcome.failing[f"held by {WORDS[code]}"] += int(failing[stands.held_by == code].sum())

    def _keys(self, stands: Standing) -> tuple[Ints, Ints]:
        """Shortfall and negative margin of each class, weighted and rounded."""
        weights = np.array([self.request.weight(t.measure) for t in self.request.targets])
        short = np.maximum(0.0, -stands.margins)
        first = np.round((short**2 * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        second = np.round(-(stands.margins * weights).sum(axis=1) / ROUNDED).astype(np.int64)
        return first, second

    def _keep(self, ranked: Ranked, rows: WalkRows, outcome: Outcome) -> None:
        """The best of these combinations."""
        keep = self.request.body.keep
        keys = [ranked.first[rows.drive], ranked.second[rows.drive], rows.price, rows.buy, *self._ranks(rows)]
        outcome.best += [self._entry(ranked, rows, place) for place in smallest(keys, keep)]
        outcome.best.sort(key=lambda entry: entry[0])
        del outcome.best[keep:]

    def _represent(self, ranked: Ranked, rows: WalkRows, outcome: Outcome) -> None:
        """The best of each stretch of overall ratios, of combinations whose class leads its stretch."""
        stretches, codes = np.unique(ranked.stretch[rows.drive], return_inverse=True)
        for row in self._best(rows, codes, len(stretches), np.arange(len(codes))).tolist():
            outcome.represent(int(stretches[codes[row]]), self._entry(ranked, rows, row))

    def _count_ways(self, ranked: Ranked, rows: WalkRows, first: Ints, outcome: Outcome) -> None:
        """Count the ways to each of the first classes, and keep the best few of each."""
        size = len(ranked.first)
        kept = np.zeros(size, np.bool_)
        kept[first] = True
        rows = rows.at(kept[rows.drive])
        owned = np.bincount(rows.drive[rows.buy == 0], minlength=size)
        price = np.full(size, np.inf)
        np.minimum.at(price, rows.drive, rows.price)
        best = self._best_ways(ranked, rows)
        for code in first.tolist():
            ways = Ways(int(ranked.sizes[code]), int(owned[code]), float(price[code]), best[code])
            outcome.ways.setdefault(_drive(ranked, code), Ways()).add(ways)
        outcome.ways = best_of(outcome.ways)

    def _best_ways(self, ranked: Ranked, rows: WalkRows) -> dict[int, list[Entry]]:
        """The best few combinations of each class, of these rows."""
        best: dict[int, list[Entry]] = defaultdict(list)
        left = np.ones(len(rows.drive), np.bool_)
        for _ in range(MOST_SHOWN):
            of_each = self._best(rows, rows.drive, len(ranked.first), np.flatnonzero(left))
            for row in of_each.tolist():
                best[int(rows.drive[row])].append(self._entry(ranked, rows, row))
            left[of_each] = False
        return best

    def _best(self, rows: WalkRows, groups: Ints, count: int, left: Ints) -> Ints:
        """The best row of each group among those that are left, by price, parts to buy and ids."""
        keys: list[Any] = [rows.price, rows.buy, *self._ranks(rows)]
        for values in keys:
            left = _least(values[left], groups[left], count, left)
        return left

    def _ranks(self, rows: WalkRows) -> list[_Rank]:
        """For each place of a stage, how its part's id ranks among all as text."""
        strides = [math.prod(self.lengths[place + 1 :]) for place in range(len(self.lengths))]
        return [
            _Rank(rows.place, stride, self.rank[slot.parts[:, end]])
            for slot, stride in zip(self.options, strides, strict=True)
            for end in (0, 1)
        ]

    def _entry(self, ranked: Ranked, rows: WalkRows, row: int) -> Entry:
        """A combination with its whole key."""
        price, buy, of_class = float(rows.price[row]), int(rows.buy[row]), rows.drive[row]
        chosen = tuple(int(option) for option in digits(rows.place[row], self.lengths))
        option = Option(self.number, ranked.head, chosen, price, buy)
        names = tuple(ids(self.request, self.options, option))
        first, second = int(ranked.first[of_class]), int(ranked.second[of_class])
        return (first, second, price, buy, self.number, ranked.head.count, names), option


def _drive(ranked: Ranked, code: int) -> tuple[Any, ...]:
    keys = (ranked.first, ranked.second, ranked.ratio, ranked.left)
    return (*(int(key[code]) for key in keys), *astuple(ranked.head))


def _leading(ranked: Ranked, count: int) -> Any:
    """Of each class whether it may be among the first `count` combinations: those before it are fewer."""
    order = np.lexsort((ranked.second, ranked.first))
    enough = np.searchsorted(np.cumsum(ranked.sizes[order]), count)
    if enough >= len(order):
        return np.ones(len(order), np.bool_)
    last = order[enough]
    return (ranked.first < ranked.first[last]) | (
        (ranked.first == ranked.first[last]) & (ranked.second <= ranked.second[last])
    )


def _leaders(ranked: Ranked) -> Any:
    """Of each class whether none is better by the first two keys in its stretch of overall ratios."""
    stretches, code = np.unique(ranked.stretch, return_inverse=True)
    best = np.arange(len(code))
    for key in (ranked.first, ranked.second):
        best = _least(key[best], code[best], len(stretches), best)
    leaders = np.zeros(len(code), np.bool_)
    leaders[best] = True
    return leaders


def _least(values: Any, groups: Ints, count: int, entries: Ints) -> Ints:
    """Entries whose value is the smallest of their group."""
    largest = np.inf if values.dtype.kind == "f" else np.iinfo(values.dtype).max
    least = np.full(count, largest, values.dtype)
    np.minimum.at(least, groups, values)
    smallest_ones: Ints = entries[values == least[groups]]
    return smallest_ones


def _first(ranked: Ranked) -> Ints:
    """The first classes in the order of drives, as many as have their ways counted."""
    return np.asarray(np.lexsort((ranked.left, ranked.ratio, ranked.second, ranked.first))[:MOST_KEPT])


def _stretch(drive: Drive) -> Ints:
    """In which stretch of overall ratios each drive lies."""
    return np.asarray(np.round(np.log(drive.overall) / np.log(STEP)), np.int64)


def _steps(values: Floats) -> Ints:
    """Positive numbers in whole steps that tell apart what is told apart in the classes."""
    return np.round(np.log(values) / SAME_DRIVE).astype(np.int64)


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


def ids(request: SearchRequest, options: Sequence[StageSlot], option: Option) -> Iterator[str]:
    """The ids of an option's parts: source, supply, wheel, then driver and driven of each stage."""
    parts = request.body.parts
    head = option.head
    places = [head.source, head.supply, head.wheel]
    for slot, chosen in zip(options, option.chosen, strict=True):
        places += slot.parts[chosen].tolist()
    return (parts[place].id for place in places if place != NO_PART)


def _id_rank(request: SearchRequest) -> Ints:
    """How the id of each part ranks among all as text; the last entry is that of no part."""
    order = sorted(range(len(request.body.parts)), key=lambda i: request.body.parts[i].id)
    rank = np.zeros(len(order) + 1, np.int64)
    rank[order] = np.arange(len(order))
    return rank
