"""What motion needs of a design: a `Batch` holds n of them as arrays of records, a `Plant` is one for the kernels."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ydrometer.base import jit
from ydrometer.base.jit import leaf, maker

Array = NDArray[np.float64]

PIECES = 3
"""Straight pieces of a supply's law, at most."""


class Vehicle(NamedTuple):
    """Mass, wheels, resistance and grip of a design, and what of its drive is one number.

    Attributes:
        mass: all-up. radius: loaded rolling radius. weight: m·g·cos(th). grade: F_grade.
        rolling: F_rr. rolling_coefficient: Crr. air: ½·rho·CdA. grip: mu.
        share: of the weight on the driven wheels at rest. transfer: h/L where the rear wheels drive, −h/L where
            the front ones do, 0 where it does not matter.
        lift: b/h, infinite where front wheels cannot lift. rear_lift: (L − b)/h, infinite likewise.
        brake_force: infinite where not given. braked_share: of the weight.
        supply_limit: of a battery, infinite where none. trunk_efficiency. shift_time.
    """

    mass: float
    radius: float
    weight: float
    rolling: float
    rolling_coefficient: float
    grade: float
    air: float
    grip: float
    share: float
    transfer: float
    lift: float
    rear_lift: float
    brake_force: float
    braked_share: float
    supply_limit: float
    trunk_efficiency: float
    shift_time: float


class Law(NamedTuple):
    """A straight piece of the supply's law, see `ydrometer.document.supply`; one that is not there has low = NaN."""

    p: float
    q: float
    s: float
    low: float


class Gear(NamedTuple):
    """Torque ratio of the trunk; speed of its first shaft per speed of the vehicle, rad/m; inertia of the wheels and of
    what turns in the trunk, about the wheels, kg·m²; m_eff.
    """

    ratio: float
    turning: float
    inertia: float
    inertial_mass: float


class Source(NamedTuple):
    """The sources of one branch.

    Attributes:
        engine: 1, or 0 for a motor. number: in the whole vehicle.
        ke, kt, no_load_current, resistance, current_limit: of one motor with its controller; infinite: no limit.
        inertia: of one source with what turns in its stages, about the shaft where they join, kg·m².
        ratio, speed_ratio, efficiency: of the branch's own stages.
        engagement: speed of a clutch. max_speed: infinite where not given.
    """

    engine: float
    number: float
    ke: float
    kt: float
    no_load_current: float
    resistance: float
    current_limit: float
    inertia: float
    ratio: float
    speed_ratio: float
    efficiency: float
    engagement: float
    max_speed: float


class Point(NamedTuple):
    """A point of an engine's curve; the last one is repeated up to the length of the longest."""

    speed: float
    torque: float


class Batch(NamedTuple):
    """n designs of one shape, SI: vehicle (n, 1), law (n, 3), gears (n, K), sources (n, J), curves (n, J, C)."""

    vehicle: Any
    law: Any
    gears: Any
    sources: Any
    curves: Any


class Plant(NamedTuple):
    """One design of a `Batch`: the same without the first axis."""

    vehicle: Sequence[Vehicle]
    law: Sequence[Law]
    gears: Sequence[Gear]
    sources: Sequence[Source]
    curves: Sequence[Sequence[Point]]


def record(kind: type[Any]) -> np.dtype[np.void]:
    """The numpy type of one of the tuples above."""
    return np.dtype([(name, np.float64) for name in kind._fields])


@maker
def row(batch: Batch, i: int) -> Plant:
    """The design at `i`."""
    return Plant(batch.vehicle[i], batch.law[i], batch.gears[i], batch.sources[i], batch.curves[i])


@leaf
def turning(p: Plant, k: int, j: int) -> float:
    """Speed of the sources of branch j per speed of the vehicle in gear k, rad/m: G/r."""
    return p.gears[k].turning * p.sources[j].speed_ratio


def for_kernels(batch: Batch) -> Batch:
    """The batch as the kernels read it fastest: arrays where they are compiled, tuples where they are not."""
    if not jit.INTERPRETED:
        return batch
    kinds = (Vehicle, Law, Gear, Source, Point)
    return Batch(*(_tuples(kind, part.tolist(), part.ndim) for kind, part in zip(kinds, batch, strict=True)))


def _tuples(kind: Any, nested: Any, depth: int) -> Any:
    return kind(*nested) if depth == 0 else [_tuples(kind, entry, depth - 1) for entry in nested]
