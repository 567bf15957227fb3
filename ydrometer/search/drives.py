"""What stage combinations drive like: the distinct drives of a layout, found stage by stage, not by combination."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from ydrometer.search.choices import Floats, Ints, Slot

MOST = 4_000_000
"""Ways on from what the stages before a stage make, at most, that are gone through at once."""


class Drive(NamedTuple):
    """What matters for motion in each of m stage combinations, (m,) each: ratios and efficiencies of branch and trunk,
    and the mass of the parts.
    """

    torque: Floats
    speed: Floats
    efficiency: Floats
    trunk_torque: Floats
    trunk_speed: Floats
    trunk_efficiency: Floats
    mass: Floats

    def at(self, places: Any) -> Drive:
        """Some of them."""
        return Drive(*(column[places] for column in self))

    @property
    def overall(self) -> Floats:
        """The ratio of speeds from the source to the wheel."""
        return self.speed * self.trunk_speed

    @property
    def left(self) -> Floats:
        """What is left of the power after all losses."""
        return self.efficiency * self.trunk_efficiency


class _Side(NamedTuple):
    """What some stages of a branch, or of the trunk, make: products of what their options have, (m,) each."""

    driver: Ints
    driven: Ints
    torque: Floats
    speed: Floats
    efficiency: Floats

    @classmethod
    def without_stages(cls, size: int) -> _Side:
        whole, one = np.ones(size, np.int64), np.ones(size)
        return cls(whole, whole, one, one, one)

    def on(self, slot: Slot, option: Ints) -> _Side:
        """With an option of one more stage."""
        return _Side(
            self.driver * slot.driver[option],
            self.driven * slot.driven[option],
            self.torque * slot.torque[option],
            self.speed * slot.speed[option],
            self.efficiency * slot.efficiency[option],
        )

    def at(self, places: Any) -> _Side:
        return _Side(*(column[places] for column in self))

    @property
    def teeth(self) -> Floats:
        # One division of whole numbers: equal fractions are equal floats, in whatever order the stages stand.
        return np.asarray(self.driven / self.driver)

    @property
    def ratios(self) -> tuple[Floats, Floats, Floats]:
        """Of torque and of speed, and what is left after losses."""
        return self.teeth * self.torque, self.teeth * self.speed, self.efficiency


def drives(slots: Sequence[Slot], trunk: int, chosen: Sequence[Ints], mass: Floats) -> Drive:
    """The drives of stage combinations.

    Args:
        slots: of the layout.
        trunk: the slot from which on stages belong to the trunk.
        chosen: for each slot the option of each combination, (m,).
        mass: of the parts, to be added to the vehicle's, (m,).
    """
    sides = [_Side.without_stages(len(mass)), _Side.without_stages(len(mass))]
    for place, (slot, option) in enumerate(zip(slots, chosen, strict=True)):
        sides[place >= trunk] = sides[place >= trunk].on(slot, option)
    return Drive(*sides[0].ratios, *sides[1].ratios, mass)


def unique(drive: Drive) -> tuple[Drive, Ints]:
    """The distinct drives, and for each combination which one it is."""
    first, which = _distinct(drive)
    return drive.at(first), which


@dataclass(frozen=True, slots=True)
class Drives:
    """The distinct drives of a layout where the mass of the parts does not count, and how its options lead to them.

    Attributes:
        drive: the distinct ones, (d,).
        kinds: of each slot, to which of those that drive differently an option belongs, (options,).
        steps: of each slot, where its kinds lead from each of what the slots before it make, (before, kinds).
    """

    drive: Drive
    kinds: tuple[Ints, ...]
    steps: tuple[Ints, ...]

    def of(self, chosen: Sequence[Ints]) -> Ints:
        """Which drive each combination is, of the shape that the options of all slots have together."""
        return self.onward(np.zeros((), np.int64), 0, chosen)

    def onward(self, before: Ints, first: int, chosen: Sequence[Ints]) -> Ints:
        """What slots from `first` on make of what those before them have made.

        Args:
            before: what they have made.
            first: the slot whose options are the first of `chosen`.
            chosen: options; their shapes go together with that of `before`.
        """
        for place, option in enumerate(chosen, start=first):
            before = self.steps[place][before, self.kinds[place][option]]
        return before


def drives_of(slots: Sequence[Slot], trunk: int) -> Drives | None:
    """The distinct drives of all combinations of these slots; None if there are too many on the way.

    Many options of a stage drive alike, and what some stages make is made by many of their combinations. So each
    distinct thing that the stages so far make is put together with each distinct option of the next one.

    Args:
        slots: of the layout.
        trunk: the slot from which on stages belong to the trunk.
    """
    sides = [_Side.without_stages(1), _Side.without_stages(1)]
    kinds, steps = [], []
    for place, slot in enumerate(slots):
        example, kind = _distinct((slot.driven / slot.driver, slot.torque, slot.speed, slot.efficiency))
        shape = (len(sides[0].driver), len(example))
        if math.prod(shape) > MOST:
            return None
        before, option = (np.ravel(i) for i in np.indices(shape))
        sides = [side.at(before) for side in sides]
        sides[place >= trunk] = sides[place >= trunk].on(slot, example[option])
        first, which = _distinct([column for side in sides for column in (side.teeth, *side[2:])])
        sides = [side.at(first) for side in sides]
        kinds.append(kind)
        steps.append(which.reshape(shape))
    drive, which = unique(Drive(*sides[0].ratios, *sides[1].ratios, np.zeros(len(sides[0].driver))))
    if steps:
        steps[-1] = which[steps[-1]]
    return Drives(drive, tuple(kinds), tuple(steps))


def _distinct(columns: Sequence[Floats]) -> tuple[Ints, Ints]:
    """Where each distinct row of some columns stands first, and for each row which of the distinct ones it is."""
    varying = _varying(columns)
    if not varying:
        size = len(columns[0])
        return np.arange(min(size, 1)), np.zeros(size, np.int64)
    codes: Any = varying[0]
    for column in varying[1:]:
        values, inverse = np.unique(column, return_inverse=True)
        codes = np.unique(codes, return_inverse=True)[1] * len(values) + inverse
    _, first, inverse = np.unique(codes, return_index=True, return_inverse=True)
    return first, inverse


def _varying(columns: Sequence[Floats]) -> list[Floats]:
    """Columns that distinguish rows: neither constant nor equal to another column."""
    found: list[Floats] = []
    for column in columns:
        if (column != column[:1]).any() and not any(np.array_equal(column, other) for other in found):
            found.append(column)
    return found
