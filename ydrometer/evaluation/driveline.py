"""From designs to the arrays that motion works on: ratios, efficiencies and masses put together."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document.design import Design
from ydrometer.document.drive import Branch
from ydrometer.document.sources import Engine, motor_line
from ydrometer.document.vehicle import Vehicle
from ydrometer.evaluation.train import Overall, overall
from ydrometer.motion.plant import PIECES, Array, Batch, Gear, Law, Point, Source, record
from ydrometer.motion.plant import Vehicle as Body

Shape = tuple[int, int]
_NO_PIECE = (0.0, 0.0, 0.0, math.nan)
# An engine among motors has no motor's figures, and the other way round; these never reach a result.
_NO_MOTOR = {"ke": 1.0, "kt": 0.0, "no_load_current": 0.0, "resistance": 1.0, "current_limit": math.inf}


def shape(design: Design) -> Shape:
    """What designs must share to be evaluated as one batch: numbers of branches and of gears."""
    box = design.drive.box
    return len(design.drive.branches), len(box.gears) if box else 1


def assemble(designs: Sequence[Design]) -> Batch:
    """The batch of the given designs, in their order.

    Args:
        designs: at least one; all of one `shape`.

    Raises:
        ValueError: none, or shapes that differ.
    """
    shapes = {shape(design) for design in designs}
    if len(shapes) != 1:
        raise ValueError(f"designs of one shape are wanted, shapes given: {sorted(shapes)}")
    vehicles = _records([_vehicle_row(design) for design in designs], Body)
    sources = _records([[_source_row(d, b) for b in d.drive.branches] for d in designs], Source)
    ratios = np.array([gear_ratios(design) for design in designs])
    trunk = Overall(*np.array([overall(design.drive.stages) for design in designs]).T)
    gears = np.zeros(ratios.shape, record(Gear))
    units = np.array([d.drive.units for d in designs])
    wheels = np.array([d.vehicle.wheels_inertia for d in designs])
    _put_trunk(gears, trunk, ratios, vehicles["radius"], units, wheels)
    batch = Batch(vehicles[:, None], _laws(designs), gears, sources, _curves(designs))
    gears["inertial_mass"] = inertial_mass(batch)
    return batch


def with_ratios(batch: Batch, design: Design, branch: Overall, trunk: Overall) -> Batch:
    """A batch of one branch with other stages, everything else as it is.

    Args:
        batch: of n designs.
        design: one of them; what turns in the others besides, and their box of several speeds, are its own.
        branch: the stages of the branch, (n,) each.
        trunk: the stages of the trunk, likewise.
    """
    vehicle, gears, sources = batch.vehicle.copy(), batch.gears.copy(), batch.sources.copy()
    sources["ratio"], sources["speed_ratio"] = branch.torque[:, None], branch.speed[:, None]
    sources["efficiency"] = branch.efficiency[:, None]
    rotor = design.drive.branches[0].source.rotor_inertia
    sources["inertia"] = (rotor * branch.speed**2 + branch.inertia)[:, None]
    vehicle["trunk_efficiency"] = trunk.efficiency[:, None]
    units, wheels = design.drive.units, design.vehicle.wheels_inertia
    _put_trunk(gears, trunk, np.array([gear_ratios(design)]), vehicle["radius"][:, 0], units, wheels)
    changed = batch._replace(vehicle=vehicle, gears=gears, sources=sources)
    gears["inertial_mass"] = inertial_mass(changed)
    return changed


def _put_trunk(gears: Any, trunk: Overall, ratios: Array, radius: Array, units: Any, wheels: Any) -> None:
    """What the trunk is in each gear.

    Args:
        gears: records to be filled, (n, K).
        trunk: in the lowest gear, (n,) each.
        ratios: of the gears, (n, K) or (1, K). radius: of the wheels, m, (n,).
        units: drive units, (n,) or a number. wheels: inertia of all wheels, kg·m², likewise.
    """
    lower = ratios / ratios[:, :1]
    gears["ratio"] = trunk.torque[:, None] * lower
    gears["turning"] = trunk.speed[:, None] * lower / radius[:, None]
    fixed, geared = wheels + units * trunk.inertia, units * trunk.geared
    gears["inertia"] = fixed[:, None] + geared[:, None] * lower**2


def inertial_mass(batch: Batch) -> Array:
    """m_eff = m + J_trunk/r² + Σ count·J_b·(G_trunk/r)²: what turns, reduced to the wheels' rim, (n, K)."""
    sources = (batch.sources["number"] * batch.sources["inertia"]).sum(axis=1)
    radius, gears = batch.vehicle["radius"], batch.gears
    mass: Array = batch.vehicle["mass"] + gears["inertia"] / radius**2 + sources[:, None] * gears["turning"] ** 2
    return mass


def gear_ratios(design: Design) -> tuple[float, ...]:
    """Ratios of the box of several speeds, or 1 where there is none."""
    box = design.drive.box
    return box.gears if box else (1.0,)


def overall_ratios(design: Design) -> list[tuple[int, int, float]]:
    """G as branch, gear, motor turns per wheel turn."""
    lowest = gear_ratios(design)[0]
    trunk = overall(design.drive.stages).speed
    return [
        (b, g, overall(branch.stages).speed * trunk * ratio / lowest)
        for b, branch in enumerate(design.drive.branches)
        for g, ratio in enumerate(gear_ratios(design))
    ]


def _records(rows: Any, kind: type[Any]) -> Any:
    """Rows of values by name as an array of records of the same nesting."""
    if isinstance(rows[0], dict):
        return np.array([tuple(kind(**entry)) for entry in rows], dtype=record(kind))
    return np.stack([_records(inner, kind) for inner in rows])


def _vehicle_row(design: Design) -> dict[str, float]:
    vehicle, drive, conditions = design.vehicle, design.drive, design.conditions
    slope = math.atan(conditions.grade)
    weight = vehicle.total_mass * STANDARD_GRAVITY * math.cos(slope)
    return {
        "mass": vehicle.total_mass,
        "radius": vehicle.wheel_diameter / 2.0,
        "weight": weight,
        "rolling": vehicle.rolling_resistance * weight + vehicle.fixed_drag,
        "rolling_coefficient": vehicle.rolling_resistance,
        "grade": vehicle.total_mass * STANDARD_GRAVITY * math.sin(slope),
        "air": 0.5 * conditions.air_density * vehicle.drag_area,
        "grip": vehicle.grip,
        **_axles(vehicle),
        "brake_force": _or(vehicle.brake_force, math.inf),
        "braked_share": vehicle.braked_share,
        "supply_limit": _or(drive.supply.current_limit if drive.supply else None, math.inf),
        "trunk_efficiency": overall(drive.stages).efficiency,
        "shift_time": drive.box.shift_time if drive.box else 0.0,
    }


def _axles(vehicle: Vehicle) -> dict[str, float]:
    """Where the weight sits, and how it moves between the axles."""
    geometry = vehicle.geometry
    share = 1.0 if vehicle.driven_share is None else vehicle.driven_share
    if geometry is None:
        return {"share": share, "transfer": 0.0, "lift": math.inf, "rear_lift": math.inf}
    base, ahead, height = geometry
    rear_share = (base - ahead) / base
    return {
        "share": {"all": share, "rear": rear_share, "front": 1.0 - rear_share}[vehicle.driven],
        "transfer": {"all": 0.0, "rear": height / base, "front": -height / base}[vehicle.driven],
        "lift": math.inf if vehicle.driven == "front" else ahead / height,
        "rear_lift": (base - ahead) / height,
    }


def _laws(designs: Sequence[Design]) -> Any:
    """The straight pieces of each supply's law, (n, PIECES)."""
    laws = []
    for design in designs:
        pieces: list[tuple[float, ...]] = [*design.drive.supply.pieces] if design.drive.supply else []
        laws.append([*pieces, *([_NO_PIECE] * (PIECES - len(pieces)))])
    return np.array(laws, dtype=record(Law))


def _source_row(design: Design, branch: Branch) -> dict[str, float]:
    source = branch.source
    stages = overall(branch.stages)
    row = {
        "engine": float(isinstance(source, Engine)),
        "number": float(design.drive.units * branch.count),
        "inertia": source.rotor_inertia * stages.speed**2 + stages.inertia,
        "ratio": stages.torque,
        "speed_ratio": stages.speed,
        "efficiency": stages.efficiency,
        "max_speed": _or(source.max_speed, math.inf),
        "engagement": branch.clutch.engagement_speed if branch.clutch else 0.0,
    }
    if isinstance(source, Engine):
        return row | _NO_MOTOR
    line, controller = motor_line(source), branch.controller
    return row | {
        "ke": line.ke,
        "kt": line.kt,
        "no_load_current": line.no_load_current,
        "resistance": line.resistance + (controller.resistance if controller else 0.0),
        "current_limit": _or(controller.current_limit if controller else None, math.inf),
    }


def _curves(designs: Sequence[Design]) -> Any:
    """Torque curves of one length, the last point repeated; one point at rest stands for a motor."""
    curves = [
        [b.source.torque_curve if isinstance(b.source, Engine) else ((0.0, 0.0),) for b in design.drive.branches]
        for design in designs
    ]
    longest = max(len(curve) for row in curves for curve in row)
    return np.array([[[*c, *([c[-1]] * (longest - len(c)))] for c in row] for row in curves], dtype=record(Point))


def _or(value: float | None, otherwise: float) -> float:
    return otherwise if value is None else value
