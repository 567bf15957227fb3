"""What motion needs of a design: a `Batch` holds n of them as arrays, a `Plant` one of them for the kernels."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ydrometer.jit import compiled

Array = NDArray[np.float64]
PIECES = 3
"""Straight pieces of a supply's law, at most."""


class Batch(NamedTuple):
    """n designs of one shape: J branches, K gears, curves of C points; SI throughout.

    Attributes:
        mass: all-up, (n,), as is everything up to `shift_time`. radius: loaded rolling radius.
        weight: m·g·cos(th). rolling: F_rr. rolling_coefficient: Crr. grade: F_grade. air: ½·rho·CdA. grip: mu.
        share: of the weight on the driven wheels at rest. transfer: h/L where the rear wheels drive, −h/L where
            the front ones do, 0 where it does not matter.
        lift: b/h, infinite where front wheels cannot lift. rear_lift: (L − b)/h, infinite likewise.
        brake_force: infinite where not given. braked_share: of the weight.
        supply_limit: of a battery, infinite where none. trunk_efficiency. shift_time.
        law: the supply's pieces (p, q, s, low), (n, 3, 4); a piece that is not there has low = NaN.
        trunk_ratio, trunk_speed_ratio: per gear, (n, K). inertial_mass: m_eff, (n, K).
        engine: 1 for an engine, 0 for a motor, (n, J), as is all that follows but `turning` and the curves.
        count: of the whole vehicle. ke, kt, no_load_current, resistance, current_limit: of one motor with
            its controller, the limit infinite where none.
        branch_ratio: torque ratio of its own stages. branch_efficiency.
        engagement: speed of a clutch. max_speed: of the source, infinite where none.
        turning: speed of the source per speed of the vehicle, rad/m, (n, K, J).
        curve_speed, curve_torque: of engines, the last point repeated, (n, J, C).
    """

    mass: Any
    radius: Any
    weight: Any
    rolling: Any
    grade: Any
    air: Any
    grip: Any
    share: Any
    transfer: Any
    rolling_coefficient: Any
    lift: Any
    rear_lift: Any
    brake_force: Any
    braked_share: Any
    supply_limit: Any
    trunk_efficiency: Any
    shift_time: Any
    law: Any
    trunk_ratio: Any
    trunk_speed_ratio: Any
    inertial_mass: Any
    engine: Any
    count: Any
    ke: Any
    kt: Any
    no_load_current: Any
    resistance: Any
    current_limit: Any
    branch_ratio: Any
    branch_efficiency: Any
    engagement: Any
    max_speed: Any
    turning: Any
    curve_speed: Any
    curve_torque: Any


class Plant(NamedTuple):
    """One design of a `Batch`: the same fields without their first axis."""

    mass: Any
    radius: Any
    weight: Any
    rolling: Any
    grade: Any
    air: Any
    grip: Any
    share: Any
    transfer: Any
    rolling_coefficient: Any
    lift: Any
    rear_lift: Any
    brake_force: Any
    braked_share: Any
    supply_limit: Any
    trunk_efficiency: Any
    shift_time: Any
    law: Any
    trunk_ratio: Any
    trunk_speed_ratio: Any
    inertial_mass: Any
    engine: Any
    count: Any
    ke: Any
    kt: Any
    no_load_current: Any
    resistance: Any
    current_limit: Any
    branch_ratio: Any
    branch_efficiency: Any
    engagement: Any
    max_speed: Any
    turning: Any
    curve_speed: Any
    curve_torque: Any


@compiled
def row(batch: Batch, i: int) -> Plant:
    """The design at `i`."""
    return Plant(
        batch.mass[i], batch.radius[i], batch.weight[i], batch.rolling[i], batch.grade[i], batch.air[i],
        batch.grip[i], batch.share[i], batch.transfer[i], batch.rolling_coefficient[i], batch.lift[i], batch.rear_lift[i], batch.brake_force[i],
        batch.braked_share[i], batch.supply_limit[i], batch.trunk_efficiency[i], batch.shift_time[i], batch.law[i],
        batch.trunk_ratio[i], batch.trunk_speed_ratio[i], batch.inertial_mass[i], batch.engine[i], batch.count[i],
        batch.ke[i], batch.kt[i], batch.no_load_current[i], batch.resistance[i], batch.current_limit[i],
        batch.branch_ratio[i], batch.branch_efficiency[i], batch.engagement[i], batch.max_speed[i],
        batch.turning[i], batch.curve_speed[i], batch.curve_torque[i],
    )  # fmt: skip
