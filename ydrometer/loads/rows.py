"""A row: a demand on one part held against what it stands, and how that is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal, get_args

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.stages.strain import NEAR, WHOLE, Strain

State = Literal["ok", "near", "over", "unknown"]
STATES = get_args(State)
JUDGED_DIGITS = 4
"""Decimals to which a use is rounded before it is judged."""
SAME = 1.0 - 1e-9
"""Of two moments with the same use the first one is told."""
DIMENSIONS = {
    "A": "current",
    "K": "temperature rise",
    "rad/s": "angular speed",
    "V": "voltage",
    "Pa": "stress",
    "N": "force",
    "N·m": "torque",
    "m": "distance",
    "rad": "angle",
    "": "ratio",
}
"""Of the units of rows."""


@dataclass(frozen=True, slots=True)
class UseRow:
    """One row.

    Attributes:
        check: its name. path: of the part. member: wheel or step; None where it is the whole. moment: of the largest
        use; None where it belongs to none. demand, capacity: in `unit`, SI; None where they cannot be known. use: one
        over the other. state. assumed: what stands for the maker's figures. needs: paths that would settle it. remarks.
        told: other numbers of it. marks: the largest use in each moment, by its name. at: the place of the moment among
        all; None where it belongs to none. strain: as its stage told it; None of a row of anything else.
    """

    check: str
    path: str
    member: str | None
    moment: str | None
    demand: float | None
    capacity: float | None
    unit: str
    use: float | None
    state: State
    assumed: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    remarks: tuple[str, ...] = ()
    shown: dict[str, float] = field(default_factory=dict)
    marks: tuple[tuple[str, float], ...] = ()
    at: int | None = field(default=None, compare=False)
    strain: Strain | None = field(default=None, compare=False, repr=False)


def judged(use: float) -> State:
    """How a use is: ok, near from 0.8 on, over above 1."""
    rounded = round(use, JUDGED_DIGITS)
    return "over" if rounded > 1.0 else "near" if rounded >= NEAR else "ok"


def row(
    check: str,
    path: str,
    unit: str,
    demand: float | None,
    capacity: float | None,
    *,
    moment: str | None = None,
    assumed: Sequence[str] = (),
    needs: Sequence[str] = (),
    remarks: Sequence[str] = (),
    marks: tuple[tuple[str, float], ...] = (),
    at: int | None = None,
) -> UseRow:
    """A row of one demand and one capacity."""
    use: float | None = None
    state: State = "unknown"
    if demand is not None and capacity is not None:
        use = demand / capacity if capacity > 0.0 else None
        state = "over" if use is None else judged(use)
    return UseRow(
        check,
        path,
        None,
        moment,
        demand,
        capacity,
        unit,
        use,
        state,
        tuple(assumed),
        tuple(needs),
        tuple(remarks),
        marks=marks,
        at=at,
    )


def by_moment(uses: Floats, moments: Sequence[str]) -> tuple[tuple[str, float], ...]:
    """The largest use in each moment, in their order.

    Args:
        uses: (m,).
        moments: their names, (m,).
    """
    names = np.array(moments)
    return tuple((name, float(uses[names == name].max())) for name in dict.fromkeys(moments))


def largest(values: Floats) -> int:
    """The first of the moments that reach the largest value."""
    most = float(values.max())
    return int(np.argmax(values >= (most * SAME if most > 0.0 else most)))


def strained(path: str, strain: Strain, moments: Sequence[str], prefix: Sequence[str] = ()) -> UseRow:
    """The row of what a stage says of one of its parts.

    Args:
        path: of the stage.
        strain: as it says.
        moments: their names, (m,).
        prefix: what is assumed besides.
    """
    needs = tuple(key if key.startswith(WHOLE) else f"{path}.{key}" for key in strain.needs)
    member = strain.member or None
    assumed = (*prefix, *strain.assumed)
    shown = {name: float(np.max(strain.of.known[symbol])) for name, symbol in strain.shown.items()}

    marks: tuple[tuple[str, float], ...] = ()

    def row_of(at: int | None, demand: float | None, capacity: float | None, use: float | None, state: State) -> UseRow:
        moment = None if at is None or strain.demand is None or strain.demand.size == 1 else moments[at]
        return UseRow(
            strain.check,
            path,
            member,
            moment,
            demand,
            capacity,
            strain.unit,
            use,
            state,
            assumed,
            needs,
            strain.remarks,
            shown,
            marks,
            None if moment is None else at,
            strain,
        )

    if strain.demand is None or strain.capacity is None:
        state: State = "unknown" if strain.settled is None else "ok" if strain.settled else "over"
        at = None if strain.demand is None else largest(strain.demand)
        demand = None if strain.demand is None or at is None else float(strain.demand[at])
        known = None if strain.capacity is None or np.ndim(strain.capacity) else float(strain.capacity)
        return row_of(at, demand, known, None, state)
    capacity = np.broadcast_to(strain.capacity, strain.demand.shape)
    if (capacity <= 0.0).any():
        at = int(np.argmin(capacity))
        return row_of(at, float(strain.demand[at]), float(capacity[at]), None, "over")
    uses = strain.demand / capacity
    marks = by_moment(uses, moments) if uses.size > 1 else ()
    at = largest(uses)
    return row_of(at, float(strain.demand[at]), float(capacity[at]), float(uses[at]), judged(float(uses[at])))
