"""From designs to the arrays that motion works on: ratios, efficiencies and masses put together."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document.design import Design
from ydrometer.document.drive import Branch
from ydrometer.document.sources import Engine, motor_line
from ydrometer.document.stages import Stage, stage_efficiency
from ydrometer.document.vehicle import Vehicle
from ydrometer.motion.plant import PIECES, Array, Batch, Gear, Law, Point, Source, record
from ydrometer.motion.plant import Vehicle as Body

Shape = tuple[int, int]
_NO_PIECE = (0.0, 0.0, 0.0, math.nan)
# An engine among motors has no motor's figures, and the other way round; these never reach a result.
_NO_MOTOR = {"ke": 1.0, "kt": 0.0, "no_load_current": 0.0, "resistance": 1.0, "current_limit": math.inf}


def shape(design: Design) -> Shape:
    """What designs must share to be evaluated as one batch: numbers of branches and of gears."""
    box = design.drive.box
    return len(design.drive.branches), len(box.ratios) if box else 1


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
    trunk = np.array([overall(design.drive.stages) for design in designs])
    gears = np.zeros(ratios.shape, record(Gear))
    lower = ratios / ratios[:, :1]
    gears["ratio"] = trunk[:, :1] * lower
    gears["turning"] = trunk[:, 1:2] * lower / vehicles["radius"][:, None]
    wheels = np.array([d.vehicle.wheels_inertia for d in designs])
    rotors = np.array([[branch.source.rotor_inertia for branch in d.drive.branches] for d in designs])
    gears["inertial_mass"] = vehicles["mass"][:, None] + turning_mass(wheels, rotors, vehicles, sources, gears)
    law = np.array([_law(design) for design in designs], dtype=record(Law))
    return Batch(vehicles[:, None], law, gears, sources, _curves(designs))


def with_ratios(
    batch: Batch, design: Design, branch: tuple[Array, Array, Array], trunk: tuple[Array, Array, Array]
) -> Batch:
    """A batch of one branch with other ratios and efficiencies, everything else as it is.

    Args:
        batch: of n designs.
        design: one of them; what turns in the others, and their box of several speeds, are its own.
        branch: torque ratio, speed ratio and efficiency of the branch's stages, each (n,).
        trunk: the same of the trunk's, in the lowest gear.
    """
    vehicle, gears, sources = batch.vehicle.copy(), batch.gears.copy(), batch.sources.copy()
    for key, values in zip(("ratio", "speed_ratio", "efficiency"), branch, strict=True):
        sources[key] = values[:, None]
    torque, speed, efficiency = trunk
    vehicle["trunk_efficiency"] = efficiency[:, None]
    lower = np.array(gear_ratios(design)) / gear_ratios(design)[0]
    gears["ratio"] = torque[:, None] * lower
    gears["turning"] = speed[:, None] * lower / vehicle["radius"]
    wheels = np.full(len(torque), design.vehicle.wheels_inertia)
    rotors = np.full(sources.shape, design.drive.branches[0].source.rotor_inertia)
    gears["inertial_mass"] = vehicle["mass"] + turning_mass(wheels, rotors, vehicle[:, 0], sources, gears)
    return batch._replace(vehicle=vehicle, gears=gears, sources=sources)


def turning_mass(wheels: Array, rotors: Array, vehicles: Any, sources: Any, gears: Any) -> Array:
    """m_eff − m = J_wheels/r² + Σ count·J·G²/r²: rotating masses reduced to the wheel's rim, (n, K)."""
    reduced = (sources["number"] * rotors * sources["speed_ratio"] ** 2).sum(axis=1)
    made: Array = (wheels / vehicles["radius"] ** 2)[:, None] + reduced[:, None] * gears["turning"] ** 2
    return made


def overall(stages: Iterable[Stage]) -> tuple[float, float, float]:
    """Torque ratio, speed ratio and efficiency of stages in a row."""
    row = tuple(stages)
    return (
        math.prod(s.ratio for s in row),
        math.prod(s.speed_ratio for s in row),
        math.prod(stage_efficiency(s) for s in row),
    )


def gear_ratios(design: Design) -> tuple[float, ...]:
    """Ratios of the box of several speeds, or 1 where there is none."""
    box = design.drive.box
    return box.ratios if box else (1.0,)


def overall_ratios(design: Design) -> list[tuple[int, int, float]]:
    """G as branch, gear, motor turns per wheel turn."""
    lowest = gear_ratios(design)[0]
    trunk = overall(design.drive.stages)[1]
    return [
        (b, g, overall(branch.stages)[1] * trunk * ratio / lowest)
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
        "trunk_efficiency": overall(drive.stages)[2],
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


def _law(design: Design) -> list[tuple[float, ...]]:
    supply = design.drive.supply
    pieces: list[tuple[float, ...]] = [*supply.pieces] if supply else []
    return [*pieces, *([_NO_PIECE] * (PIECES - len(pieces)))]


def _source_row(design: Design, branch: Branch) -> dict[str, float]:
    source = branch.source
    ratio, speed_ratio, efficiency = overall(branch.stages)
    row = {
        "engine": float(isinstance(source, Engine)),
        "number": float(design.drive.units * branch.count),
        "ratio": ratio,
        "speed_ratio": speed_ratio,
        "efficiency": efficiency,
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
