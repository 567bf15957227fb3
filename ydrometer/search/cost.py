"""What combinations cost: what is not owned is bought, the same part in two places twice."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.search.choices import NO_PART, Floats, Head, Ints, StageSlot
from ydrometer.search.request import SearchRequest


@dataclass(frozen=True, slots=True)
class Prices:
    """Of the request's parts, each array over them and one entry more, all 0, for no part."""

    price: Floats
    owned: Ints
    mass: Floats

    def bought(self, place: Ints, needed: Ints) -> Ints:
        """How many of a part have to be bought."""
        missing: Ints = np.where(place == NO_PART, 0, np.maximum(0, needed - self.owned[place]))
        return missing


def prices(request: SearchRequest) -> Prices:
    """The table; what has no price counts 0."""
    parts = request.body.parts
    return Prices(
        np.array([*(part.price or 0.0 for part in parts), 0.0]),
        np.array([*(part.owned for part in parts), 0], np.int64),
        np.array([*(part.mass or 0.0 for part in parts), 0.0]),
    )


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


def stage_mass(request: SearchRequest, table: Prices, slots: Sequence[StageSlot], chosen: Sequence[Ints]) -> Floats:
    """Mass of the parts of stage combinations, kg, (m,).

    Args:
        request: for the number of drive units.
        table: prices, with the masses.
        slots: of the layout.
        chosen: for each slot the option of each combination, (m,).
    """
    units = request.document.design.drive.units
    mass = np.zeros(len(chosen[0]) if chosen else 1)
    for slot, option in zip(slots, chosen, strict=True):
        mass += (table.mass[slot.parts] * units).sum(axis=1)[option]
    return mass
