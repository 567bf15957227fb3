"""What combinations cost: what is not owned is bought, the same part in two places twice."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.search.choices import NO_PART, Floats, Head, Ints, Slot
from ydrometer.search.request import SearchRequest


@dataclass(frozen=True, slots=True)
class Prices:
    """Of the request's parts, each array over them and one entry more, all 0, for no part."""

    price: Floats
    owned: Ints
    mass: Floats

    def bought(self, place: Ints, needed: Ints) -> Ints:
        """How many of a part have to be bought."""
        made: Ints = np.where(place == NO_PART, 0, np.maximum(0, needed - self.owned[place]))
        return made


def prices(request: SearchRequest) -> Prices:
    """The table; what has no price counts 0."""
    parts = request.body.parts
    return Prices(
        np.array([*(part.price or 0.0 for part in parts), 0.0]),
        np.array([*(part.owned for part in parts), 0], np.int64),
        np.array([*(part.mass or 0.0 for part in parts), 0.0]),
    )


@dataclass(frozen=True, slots=True)
class Cost:
    """Price, parts to buy and mass of combinations."""

    price: Floats
    buy: Ints
    mass: Floats


def head_needs(request: SearchRequest, head: Head) -> list[tuple[int, int]]:
    """The places of source, supply and wheel, NO_PART for the design's own, and how many of each are needed."""
    units = request.document.design.drive.units
    return [(head.source, units * head.count), (head.supply, 1), (head.wheel, request.body.wheels_needed)]


def head_cost(request: SearchRequest, table: Prices, head: Head) -> tuple[float, int, float]:
    """Price, parts to buy and mass of source, supply and wheels."""
    place, needed = np.array(head_needs(request, head)).T
    buy = table.bought(place, needed)
    mass = np.where(place == NO_PART, 0.0, table.mass[place] * needed)
    return float((buy * table.price[place]).sum()), int(buy.sum()), float(mass.sum())


def stage_costs(request: SearchRequest, table: Prices, slots: Sequence[Slot], chosen: Sequence[Ints]) -> Cost:
    """Price, parts to buy and mass of stage combinations.

    Args:
        request: for the number of drive units.
        table: prices.
        slots: of the layout.
        chosen: for each slot the option of each combination, (m,).
    """
    units = request.document.design.drive.units
    size = len(chosen[0]) if chosen else 1
    price, buy, mass = np.zeros(size), np.zeros(size, np.int64), np.zeros(size)
    columns: list[tuple[Ints, Ints]] = []
    for slot, option in zip(slots, chosen, strict=True):
        for end in (0, 1):
            part = slot.parts[:, end]
            if (part == NO_PART).all():
                continue
            one = table.bought(part, np.full(len(part), units))
            price += (one * table.price[part])[option]
            buy += one[option]
            mass += np.where(part == NO_PART, 0.0, table.mass[part] * units)[option]
            columns.append((np.unique(part), part[option]))
    _correct_doubles(units, table, columns, price, buy)
    return Cost(price, buy, mass)


def _correct_doubles(units: int, table: Prices, columns: list[tuple[Ints, Ints]], price: Floats, buy: Ints) -> None:
    """Where a part stands in several places, what is owned covers only the first of them.

    `columns`: for each place of a part, all that can stand there, and what does in each combination.
    """
    doubled = np.zeros(len(price), bool)
    for i, (known, place) in enumerate(columns):
        for other_known, other in columns[i + 1 :]:
            if np.intersect1d(known, other_known).size:
                doubled |= (place == other) & (place != NO_PART)
    rows = np.flatnonzero(doubled)
    if not len(rows):
        return
    places = np.sort(np.stack([place[rows] for _, place in columns], axis=1), axis=1)
    first = np.ones(places.shape, bool)
    first[:, 1:] = places[:, 1:] != places[:, :-1]
    # At the first of each run of equal places: how long the run is.
    run = np.zeros(places.shape, np.int64)
    length = np.ones(len(rows), np.int64)
    for column in range(places.shape[1] - 1, -1, -1):
        run[:, column] = np.where(first[:, column], length, 0)
        length = np.where(first[:, column], 1, length + 1)
    needed = table.bought(places, run * units)
    needed[~first] = 0
    price[rows] = (needed * table.price[places]).sum(axis=1)
    buy[rows] = needed.sum(axis=1)
