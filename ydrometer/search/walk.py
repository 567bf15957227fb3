"""Going through stage combinations: what each costs, which the limits leave, and how many of them drive alike.

Millions of combinations are gone through in a second, so they are never held as arrays: the last stages run fastest,
what the others cost is worked out once for all that follows them, and only those that are asked for are written down.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import astuple, dataclass
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ydrometer.base import jit
from ydrometer.search.choices import NO_PART, Floats, Ints, StageSlot
from ydrometer.search.cost import Prices
from ydrometer.search.drives import Drives

AT_ONCE = 1_000_000
"""Combinations that are gone through in one call, about."""
FASTEST = 200
"""Combinations of the last stages that run fastest, at least, where there are as many."""
STEPS = 1e9
"""Prices are rounded to so many parts of one: the same parts cost the same in whatever order they are added up."""
Bools = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Bounds:
    """What stages may cost besides a head of this price and parts to buy: both together at most so much."""

    price: float
    buy: int
    price_at_most: float
    buy_at_most: int


class WalkRows(NamedTuple):
    """Combinations that are written down: their places in the layout, their drives, prices and parts to buy, (n,)."""

    place: Ints
    drive: Ints
    price: Floats
    buy: Ints

    def at(self, places: Any) -> WalkRows:
        """Some of them."""
        return WalkRows(*(column[places] for column in self))


class Walk:
    """The stage combinations of a layout from one place up to another, the last stage running fastest.

    Args:
        slots: of the layout.
        stretch: the first place, and the one after the last.
        table: prices. units: how many drive units are built.
        which: the drive of each combination of the stretch, or how to find it.
        placed: for which of them the shafts have places, None where all have.
    """

    def __init__(
        self,
        slots: Sequence[StageSlot],
        stretch: tuple[int, int],
        table: Prices,
        units: int,
        which: Drives | Ints,
        placed: Bools | None,
    ) -> None:
        self.stretch, self.which, self.placed = stretch, which, placed
        self.lengths = [len(slot) for slot in slots]
        self.parts = [np.where(slot.parts == NO_PART, len(table.price) - 1, slot.parts) for slot in slots]
        # Of no part there is always enough.
        owned = np.append(table.owned[:-1], 1 << 40)
        self.costs = (owned, table.price, units)
        self.split = len(slots)
        while self.split and math.prod(self.lengths[self.split :]) < FASTEST:
            self.split -= 1
        self.fastest = math.prod(self.lengths[self.split :])

    def sizes(self, bounds: Bounds, count: int) -> Ints:
        """How many combinations within the bounds each of `count` drives has."""
        sizes, nothing = np.zeros(count, np.int64), _room(0)
        for call in self._calls():
            _go(*(*call, *astuple(bounds), sizes, np.zeros(count, np.bool_), *nothing, 0))
        return sizes

    def rows(self, bounds: Bounds, sizes: Ints, wanted: Bools) -> WalkRows:
        """The combinations within the bounds that have a wanted drive, with what they cost.

        Args:
            bounds: what they may cost.
            sizes: how many combinations each drive has, (d,), as `sizes` tells.
            wanted: drives, (d,).
        """
        rows, done = _room(int(sizes[wanted].sum())), 0
        for call in self._calls():
            done = _go(*(*call, *astuple(bounds), np.zeros_like(sizes), wanted, *rows, done))
        return rows

    def _calls(self) -> Iterator[tuple[Any, ...]]:
        """Arguments of the kernel, for some values of the slower stages after the other."""
        low, high = self.stretch
        inner = digits(np.arange(self.fastest), self.lengths[self.split :])
        fast = self._columns(self.split, inner, self.fastest)
        first, last = low // self.fastest, -(-high // self.fastest)
        step = max(1, AT_ONCE // self.fastest)
        for begin in range(first, last, step):
            outer = np.arange(begin, min(begin + step, last))
            chosen = digits(outer, self.lengths[: self.split])
            slow = self._columns(0, chosen, len(outer))
            base = begin * self.fastest
            span = (max(low, base), min(high, base + len(outer) * self.fastest))
            yield (base, *span, slow, fast, *self.costs, *self._told(chosen, inner, base, span))

    def _columns(self, first: int, chosen: Sequence[Any], size: int) -> Ints:
        """The parts of slots from `first` on, (size, columns); the last entry of the prices stands for no part."""
        columns = [
            self.parts[place][option, end]
            for place, option in enumerate(chosen, start=first)
            for end in (0, 1)
            if (self.parts[place][:, end] != len(self.costs[0]) - 1).any()
        ]
        return np.stack(columns, axis=1) if columns else np.zeros((size, 0), np.int64)

    def _told(self, chosen: list[Any], inner: list[Any], base: int, span: tuple[int, int]) -> tuple[Any, ...]:
        """The drive of each combination, and whether it has places (empty where all have), both from `span[0]` on."""
        low, high = span
        begin, end = low - self.stretch[0], high - self.stretch[0]
        placed = np.zeros(0, np.bool_) if self.placed is None else self.placed[begin:end]
        if isinstance(self.which, Drives):
            before = self.which.of([option[:, None] for option in chosen])
            every = self.which.onward(before, self.split, [option[None, :] for option in inner])
            shape = (len(chosen[0]) if chosen else 1, self.fastest)
            return np.broadcast_to(every, shape).ravel()[low - base : high - base], placed
        return self.which[begin:end], placed


def digits(place: Ints, lengths: Sequence[int]) -> list[Ints]:
    """The option of each slot, of combinations at these places; the last slot runs fastest."""
    return [np.asarray(i) for i in np.unravel_index(place, lengths)] if lengths else []


def _room(size: int) -> WalkRows:
    return WalkRows(np.zeros(size, np.int64), np.zeros(size, np.int64), np.zeros(size), np.zeros(size, np.int64))


@jit.entry
def _go(
    base: int,
    low: int,
    high: int,
    slow: Ints,
    fast: Ints,
    owned: Ints,
    price_of: Floats,
    units: int,
    which: Ints,
    placed: Bools,
    head_price: float,
    head_buy: int,
    price_at_most: float,
    buy_at_most: int,
    sizes: Ints,
    wanted: Bools,
    place: Ints,
    drive: Ints,
    price: Floats,
    buy: Ints,
    done: int,
) -> int:
    """Go through combinations `low` up to `high`: count those within the bounds by their drive, and write down those
    whose drive is wanted from entry `done` on. Returns the entry after the last one written.

    `base` is the place of the first combination of `slow` with the first of `fast`. What is owned of a part covers the
    first places where it stands: `stands` counts those among the slower stages, and `inside` those before a column
    among the faster ones.
    """
    stands = np.zeros(len(owned), np.int64)
    inside = _times_before(fast, len(owned) - 1)
    most = price_at_most * STEPS + 0.5
    for s in range(slow.shape[0]):
        slow_price, slow_buy = head_price, head_buy
        for column in range(slow.shape[1]):
            part = slow[s, column]
            more = _bought(owned[part], units, stands[part])
            slow_price += more * price_of[part]
            slow_buy += more
            stands[part] += 1
        stands[len(owned) - 1] = 0
        start = base + s * fast.shape[0]
        for f in range(max(low - start, 0), min(high - start, fast.shape[0])):
            whole_price, whole_buy = slow_price, slow_buy
            for column in range(fast.shape[1]):
                part = fast[f, column]
                more = _bought(owned[part], units, stands[part] + inside[f, column])
                whole_price += more * price_of[part]
                whole_buy += more
            steps = np.floor(whole_price * STEPS + 0.5)
            if steps > most or whole_buy > buy_at_most or (len(placed) and not placed[start + f - low]):
                continue
            option = which[start + f - low]
            sizes[option] += 1
            if wanted[option]:
                place[done], drive[done] = start + f, option
                price[done], buy[done] = steps / STEPS, whole_buy
                done += 1
        for column in range(slow.shape[1]):
            stands[slow[s, column]] = 0
    return done


@jit.leaf
def _bought(owned: int, units: int, before: int) -> int:
    """How many more of a part are bought for one more place, where it stands in some before."""
    return max(0, (before + 1) * units - owned) - max(0, before * units - owned)


@jit.maker
def _times_before(fast: Ints, none: int) -> Ints:
    """In how many columns before a part stands, of each row and column; 0 for no part."""
    times = np.zeros(fast.shape, np.int64)
    for f in range(fast.shape[0]):
        for column in range(fast.shape[1]):
            for other in range(column):
                times[f, column] += fast[f, other] == fast[f, column] != none
    return times
