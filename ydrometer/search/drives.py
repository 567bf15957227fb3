"""What stage combinations drive like: the distinct drives of a layout, found stage by stage, not by combination."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from ydrometer.evaluation.train import Overall, Train
from ydrometer.search.choices import Floats, Ints, StageSlot

MOST = 4_000_000
"""Ways on from what the stages before a stage make, at most, that are gone through at once."""


class Drive(NamedTuple):
    """What matters for motion in each of m stage combinations, (m,) each: the stages of branch and trunk as one, and
    the mass of the parts.
    """

    branch: Overall
    trunk: Overall
    mass: Floats

    def at(self, places: Any) -> Drive:
        """Some of them."""
        branch, trunk = (Overall(*(column[places] for column in side)) for side in (self.branch, self.trunk))
        return Drive(branch, trunk, self.mass[places])

    @property
    def columns(self) -> list[Floats]:
        """All of it, column by column."""
        return [*self.branch, *self.trunk, self.mass]

    @property
    def overall(self) -> Floats:
        """The ratio of speeds from the source to the wheel."""
        return np.asarray(self.branch.speed * self.trunk.speed)

    @property
    def left(self) -> Floats:
        """What is left of the power after all losses."""
        return np.asarray(self.branch.efficiency * self.trunk.efficiency)


def _bare(size: int) -> list[Train]:
    """Branch and trunk without stages, as columns of so many rows."""
    train = Train.without_stages(np.ones(size, np.int64), np.ones(size))
    return [train, train]


def drives(slots: Sequence[StageSlot], trunk: int, chosen: Sequence[Ints], mass: Floats) -> Drive:
    """The drives of stage combinations.

    Args:
        slots: of the layout.
        trunk: the slot from which on stages belong to the trunk.
        chosen: for each slot the option of each combination, (m,).
        mass: of the parts, to be added to the vehicle's, (m,).
    """
    sides = _bare(len(mass))
    for place, (slot, option) in enumerate(zip(slots, chosen, strict=True)):
        sides[place >= trunk] = sides[place >= trunk].on(slot.figures(option))
    return Drive(sides[0].overall, sides[1].overall, mass)


def unique(drive: Drive) -> tuple[Drive, Ints]:
    """The distinct drives, and for each combination which one it is."""
    first, which = _distinct(drive.columns)
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


def drives_of(slots: Sequence[StageSlot], trunk: int) -> Drives | None:
    """The distinct drives of all combinations of these slots; None if there are too many on the way.

    Many options of a stage drive alike, and what some stages make is made by many of their combinations. So each
    distinct thing that the stages so far make is put together with each distinct option of the next one.

    Args:
        slots: of the layout.
        trunk: the slot from which on stages belong to the trunk.
    """
    sides = _bare(1)
    kinds, steps = [], []
    for place, slot in enumerate(slots):
        example, kind = _distinct((slot.driven / slot.driver, slot.torque, slot.speed, slot.efficiency, slot.inertia))
        shape = (len(sides[0].driver), len(example))
        if math.prod(shape) > MOST:
            return None
        before, option = (np.ravel(i) for i in np.indices(shape))
        sides = [side.at(before) for side in sides]
        sides[place >= trunk] = sides[place >= trunk].on(slot.figures(example[option]))
        first, which = _distinct([column for side in sides for column in (side.teeth, *side[2:])])
        sides = [side.at(first) for side in sides]
        kinds.append(kind)
        steps.append(which.reshape(shape))
    drive, which = unique(Drive(sides[0].overall, sides[1].overall, np.zeros(len(sides[0].driver))))
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
    varying: list[Floats] = []
    for column in columns:
        if (column != column[:1]).any() and not any(np.array_equal(column, other) for other in varying):
            varying.append(column)
    return varying
