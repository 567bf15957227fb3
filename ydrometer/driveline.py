"""From designs to the arrays that motion works on: ratios, efficiencies and masses put together."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np

from ydrometer.design import Branch, Design
from ydrometer.motion.plant import PIECES, Array, Batch
from ydrometer.sources import Engine, motor_line
from ydrometer.stages import Stage, stage_efficiency
from ydrometer.units import STANDARD_GRAVITY
from ydrometer.vehicle import Vehicle

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
    columns = _columns([_row(design) for design in designs])
    branches = [[_branch_row(design, branch) for branch in design.drive.branches] for design in designs]
    columns |= {name: np.array([[b[name] for b in row] for row in branches]) for name in branches[0][0]}
    columns |= _curves(designs)
    own = columns.pop("branch_speed_ratio")
    turning = columns["trunk_speed_ratio"][:, :, None] * own[:, None, :] / columns["radius"][:, None, None]
    rotors = columns.pop("inertia") * columns["count"]
    wheels = columns.pop("wheels_inertia") / columns["radius"] ** 2
    # m_eff = m + J_wheels/r² + Σ count·J·G²/r²: rotating masses reduced to the wheel's rim.
    inertial = (columns["mass"] + wheels)[:, None] + (rotors[:, None, :] * turning**2).sum(axis=2)
    return Batch(**columns, turning=turning, inertial_mass=inertial)


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


def _columns(rows: Sequence[dict[str, object]]) -> dict[str, Array]:
    return {name: np.array([row[name] for row in rows], dtype=float) for name in rows[0]}


def _row(design: Design) -> dict[str, object]:
    vehicle, drive, conditions = design.vehicle, design.drive, design.conditions
    slope = math.atan(conditions.grade)
    weight = vehicle.total_mass * STANDARD_GRAVITY * math.cos(slope)
    ratio, speed_ratio, efficiency = overall(drive.stages)
    gears = np.array(gear_ratios(design)) / gear_ratios(design)[0]
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
        "wheels_inertia": vehicle.wheels_inertia,
        "supply_limit": _or(drive.supply and drive.supply.current_limit, math.inf),
        "law": _law(design),
        "trunk_ratio": ratio * gears,
        "trunk_speed_ratio": speed_ratio * gears,
        "trunk_efficiency": efficiency,
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


def _branch_row(design: Design, branch: Branch) -> dict[str, float]:
    source = branch.source
    ratio, speed_ratio, efficiency = overall(branch.stages)
    row = {
        "engine": float(isinstance(source, Engine)),
        "count": float(design.drive.units * branch.count),
        "branch_ratio": ratio,
        "branch_speed_ratio": speed_ratio,
        "branch_efficiency": efficiency,
        "inertia": source.rotor_inertia,
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
        "current_limit": _or(controller and controller.current_limit, math.inf),
    }


def _curves(designs: Sequence[Design]) -> dict[str, Array]:
    """Torque curves of one length, the last point repeated; one point at rest stands for a motor."""
    curves = [
        [b.source.torque_curve if isinstance(b.source, Engine) else ((0.0, 0.0),) for b in design.drive.branches]
        for design in designs
    ]
    longest = max(len(curve) for row in curves for curve in row)
    points = np.array([[[*c, *([c[-1]] * (longest - len(c)))] for c in row] for row in curves])
    return {
        "curve_speed": np.ascontiguousarray(points[..., 0]),
        "curve_torque": np.ascontiguousarray(points[..., 1]),
    }


def _or(value: float | None, otherwise: float) -> float:
    return otherwise if value is None else value


