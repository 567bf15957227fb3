"""From designs to arrays: everything that motion needs of many designs at once.

A `Plant` holds n designs of one structure (the same number of branches). Arrays of the vehicle have
the shape (n, 1), so that they meet speeds of shape (n, k); arrays of branches have the shape (J, n, 1).
A single design is a plant with n = 1.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ydrometer.design import Branch, Design
from ydrometer.sources import motor_line
from ydrometer.stages import Stage, stage_efficiency

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Plant:
    """Arrays of n designs with J branches each, all SI; see the module for shapes.

    Attributes:
        mass: all-up mass m.
        inertial_mass: m_eff, with wheels and rotors.
        radius: loaded rolling radius r.
        rolling: Crr. fixed_drag: F_fixed. air: ½·rho·CdA, so that F_air = air·v².
        slope: th, rad. grip: mu.
        lift: b/h, infinite where the geometry is not given; rear_lift: (L − b)/h, likewise.
        brake_force: infinite where not given. braked_share: of the weight.
        voltage, supply_resistance, supply_limit (infinite where none), capacity (NaN where none).
        trunk_ratio, trunk_efficiency: of the stages all branches share. units: drive units.
        ratio: overall ratio G. back_emf: of one motor per speed of the vehicle, V·s/m.
        count: motors of the branch in the whole vehicle (units × count).
        branch_ratio, branch_efficiency: of the branch's own stages.
        kt, no_load_current: of one motor. resistance: winding and controller together.
        current_limit: of the controller, infinite where none.
    """

    mass: Array
    inertial_mass: Array
    radius: Array
    rolling: Array
    fixed_drag: Array
    air: Array
    slope: Array
    grip: Array
    lift: Array
    rear_lift: Array
    brake_force: Array
    braked_share: Array
    voltage: Array
    supply_resistance: Array
    supply_limit: Array
    capacity: Array
    units: Array
    trunk_ratio: Array
    trunk_efficiency: Array
    count: Array
    branch_ratio: Array
    branch_efficiency: Array
    ratio: Array
    back_emf: Array
    kt: Array
    no_load_current: Array
    resistance: Array
    current_limit: Array

    def take(self, chosen: NDArray[np.bool_] | NDArray[np.intp]) -> Plant:
        """The plant of the chosen designs alone."""
        return Plant(**{f.name: getattr(self, f.name)[..., chosen, :] for f in dataclasses.fields(self)})

    def __len__(self) -> int:
        return int(self.mass.shape[0])


def overall(stages: Iterable[Stage]) -> tuple[float, float]:
    """Ratio and efficiency of stages in a row."""
    chain = tuple(stages)
    return math.prod(s.ratio for s in chain), math.prod(stage_efficiency(s) for s in chain)


def assemble(designs: Sequence[Design]) -> Plant:
    """The plant of the given designs, in their order.

    Args:
        designs: at least one; all with the same number of branches.

    Raises:
        ValueError: none, or numbers of branches that differ.
    """
    branch_counts = {len(design.drive.branches) for design in designs}
    if len(branch_counts) != 1:
        raise ValueError(f"designs of one structure are wanted, branch counts given: {sorted(branch_counts)}")
    rows = [_vehicle_row(design) for design in designs]
    columns = {name: _column([row[name] for row in rows]) for name in rows[0]}
    by_branch = [
        [_branch_row(design, design.drive.branches[j]) for design in designs] for j in range(branch_counts.pop())
    ]
    for name in by_branch[0][0]:
        columns[name] = np.stack([_column([row[name] for row in rows]) for rows in by_branch])
    ratio = columns["branch_ratio"] * columns["trunk_ratio"]
    back_emf = columns.pop("ke") * ratio / columns["radius"]
    inertial_mass = _inertial_mass(designs, columns, ratio)
    return Plant(**columns, ratio=ratio, back_emf=back_emf, inertial_mass=inertial_mass)


def _vehicle_row(design: Design) -> dict[str, float]:
    vehicle, supply, conditions = design.vehicle, design.drive.supply, design.conditions
    trunk_ratio, trunk_efficiency = overall(design.drive.stages)
    geometry = vehicle.geometry
    return {
        "mass": vehicle.total_mass,
        "radius": vehicle.wheel_diameter / 2.0,
        "rolling": vehicle.rolling_resistance,
        "fixed_drag": vehicle.fixed_drag,
        "air": 0.5 * conditions.air_density * vehicle.drag_area,
        "slope": math.atan(conditions.grade),
        "grip": vehicle.grip,
        "lift": geometry.ahead_of_rear / geometry.height if geometry else math.inf,
        "rear_lift": (geometry.wheelbase - geometry.ahead_of_rear) / geometry.height if geometry else math.inf,
        "brake_force": _or(vehicle.brake_force, math.inf),
        "braked_share": vehicle.braked_share,
        "voltage": supply.open_circuit_voltage,
        "supply_resistance": supply.resistance,
        "supply_limit": _or(supply.current_limit, math.inf),
        "capacity": _or(supply.capacity, math.nan),
        "units": float(design.drive.units),
        "trunk_ratio": trunk_ratio,
        "trunk_efficiency": trunk_efficiency,
    }


def _branch_row(design: Design, branch: Branch) -> dict[str, float]:
    line = motor_line(branch.source)
    ratio, efficiency = overall(branch.stages)
    return {
        "count": float(design.drive.units * branch.count),
        "branch_ratio": ratio,
        "branch_efficiency": efficiency,
        "ke": line.ke,
        "kt": line.kt,
        "no_load_current": line.no_load_current,
        "resistance": line.resistance + branch.controller.resistance,
        "current_limit": _or(branch.controller.current_limit, math.inf),
    }


def _inertial_mass(designs: Sequence[Design], columns: dict[str, Array], ratio: Array) -> Array:
    """m_eff = m + J_wheels/r² + units·Σ count·J·G²/r² (rotating masses reduced to the wheel's rim)."""
    wheels = _column([design.vehicle.wheels_inertia for design in designs])
    rotors = np.stack(
        [_column([design.drive.branches[j].source.rotor_inertia for design in designs]) for j in range(len(ratio))]
    )
    turning = columns["count"] * rotors * ratio**2
    made: Array = columns["mass"] + (wheels + turning.sum(axis=0)) / columns["radius"] ** 2
    return made


def _column(values: Sequence[float]) -> Array:
    return np.array(values, dtype=float)[:, None]


def _or(value: float | None, otherwise: float) -> float:
    return otherwise if value is None else value
