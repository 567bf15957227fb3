"""What motion needs of a design: a `Batch` holds n of them as arrays of records, a `Plant` one of them for the kernels."""

from __future__ import annotations

from collections import namedtuple
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ydrometer import jit
from ydrometer.jit import kernel, maker

Array = NDArray[np.float64]


def _record(*names: str) -> np.dtype[np.void]:
    return np.dtype([(name, np.float64) for name in names])


VEHICLE = _record(
    "mass", "radius", "weight", "rolling", "rolling_coefficient", "grade", "air", "grip", "share", "transfer",
    "lift", "rear_lift", "brake_force", "braked_share", "supply_limit", "trunk_efficiency", "shift_time",
)  # fmt: skip
"""One a design.

mass: all-up. radius: loaded rolling radius. weight: m·g·cos(th). rolling: F_rr. rolling_coefficient: Crr.
grade: F_grade. air: ½·rho·CdA. grip: mu. share: of the weight on the driven wheels at rest. transfer: h/L where the
rear wheels drive, −h/L where the front ones do, 0 where it does not matter. lift: b/h, infinite where front wheels
cannot lift. rear_lift: (L − b)/h, infinite likewise. brake_force: infinite where not given. braked_share: of the
weight. supply_limit: of a battery, infinite where none.
"""
LAW = _record("p", "q", "s", "low")
"""Straight pieces of the supply's law, see `ydrometer.supply`; a piece that is not there has low = NaN."""
GEAR = _record("ratio", "turning", "inertial_mass")
"""One a gear: torque ratio of the trunk; speed of the trunk's first shaft per speed of the vehicle, rad/m; m_eff."""
SOURCE = _record(
    "engine", "count", "ke", "kt", "no_load_current", "resistance", "current_limit", "ratio", "speed_ratio",
    "efficiency", "engagement", "max_speed",
)  # fmt: skip
"""One a branch.

engine: 1, or 0 for a motor. count: in the whole vehicle. ke, kt, no_load_current, resistance, current_limit: of one
motor with its controller, the limit infinite where none. ratio, speed_ratio, efficiency: of the branch's own stages.
engagement: speed of a clutch. max_speed: infinite where not given.
"""
POINT = _record("speed", "torque")
"""Points of an engine's curve, the last one repeated up to the length of the longest."""

PIECES = 3
"""Straight pieces of a supply's law, at most."""


class Batch(NamedTuple):
    """n designs of one shape, SI: vehicle (n, 1), law (n, 3), gears (n, K), sources (n, J), curves (n, J, C)."""

    vehicle: Any
    law: Any
    gears: Any
    sources: Any
    curves: Any


class Plant(NamedTuple):
    """One design of a `Batch`: the same without the first axis."""

    vehicle: Any
    law: Any
    gears: Any
    sources: Any
    curves: Any


@maker
def row(batch: Batch, i: int) -> Plant:
    """The design at `i`."""
    return Plant(batch.vehicle[i], batch.law[i], batch.gears[i], batch.sources[i], batch.curves[i])


@kernel
def turning(p: Plant, k: int, j: int) -> float:
    """Speed of the sources of branch j per speed of the vehicle in gear k, rad/m: G/r."""
    made: float = p.gears[k].turning * p.sources[j].speed_ratio
    return made


def for_kernels(batch: Batch) -> Batch:
    """The batch as the kernels read it fastest: arrays where they are compiled, lists of tuples where they are not."""
    return Batch(*map(_listed, batch)) if jit.INTERPRETED else batch


def _listed(records: Any) -> Any:
    kind = namedtuple("kind", records.dtype.names)  # type: ignore[misc]  # noqa: PYI024  # its fields are the record's
    return _as(kind, records.tolist(), records.ndim)


def _as(kind: Any, nested: Any, depth: int) -> Any:
    return kind(*nested) if depth == 0 else [_as(kind, entry, depth - 1) for entry in nested]
