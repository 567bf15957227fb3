"""Curves for the charts: force over speed, and the run from rest over time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ydrometer.document.design import Design
from ydrometer.document.sources import Engine, motor_line
from ydrometer.document.supply import Panel
from ydrometer.evaluation import driveline
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.motion import trace

POINTS = 65
"""Enough for a smooth line across half a screen."""

SETTLED = 0.98
"""Share of the top speed from which on the run is only cruising."""


@dataclass(frozen=True, slots=True)
class GearForce:
    """The driving force at full throttle in one gear, N over m/s, up to where nothing drives.

    Attributes:
        ratio: overall.
        limited_to: speed up to which a current limit holds the motors back, 0 where none does.
    """

    ratio: float
    speed: list[float]
    drive: list[float]
    limited_to: float


@dataclass(frozen=True, slots=True)
class ForceCurve:
    """Forces in N over speeds in m/s: resistance and grip once, the drive once a gear, the lowest first."""

    speed: list[float]
    resistance: list[float]
    traction: list[float]
    gears: list[GearForce]


@dataclass(frozen=True, slots=True)
class GearChange:
    """Where the run changes up: time s, speed m/s, and the gear it leads to, from 0."""

    time: float
    speed: float
    gear: int


@dataclass(frozen=True, slots=True)
class RunCurve:
    """The run from rest: time s, speed m/s, distance m, supply current A, largest current of one motor A."""

    time: list[float]
    speed: list[float]
    distance: list[float]
    bus_current: list[float]
    motor_current: list[float]
    changes: list[GearChange]


@dataclass(frozen=True, slots=True)
class Characteristic:
    """What a source or a supply does, as a line: torque N·m over speed rad/s, or current A over voltage V."""

    x: list[float]
    y: list[float]


def source_curve(design: Design, branch: int = 0) -> Characteristic:
    """Torque over speed of one source: a motor at the supply's open-circuit voltage, an engine at full throttle."""
    own = design.drive.branches[branch]
    if isinstance(own.source, Engine):
        speeds, torques = zip(*own.source.torque_curve, strict=True)
        return Characteristic(list(speeds), list(torques))
    line, controller, supply = motor_line(own.source), own.controller, design.drive.supply
    assert supply is not None  # the reader refuses motors without one
    resistance = line.resistance + (controller.resistance if controller else 0.0)
    limit = controller.current_limit if controller and controller.current_limit else np.inf
    free = (supply.voltage - line.no_load_current * resistance) / line.ke
    corner = (supply.voltage - min(limit, supply.voltage / resistance) * resistance) / line.ke
    speed = np.array([0.0, corner, free])
    current = np.minimum(limit, (supply.voltage - line.ke * speed) / resistance)
    return Characteristic(speed.tolist(), (line.kt * (current - line.no_load_current)).tolist())


def supply_curve(design: Design) -> Characteristic | None:
    """Current over voltage of the supply, up to a fifth of what it would give shorted where it is stiff."""
    supply = design.drive.supply
    if supply is None:
        return None
    if isinstance(supply, Panel):
        points = [
            (0.0, supply.short_circuit_current),
            (supply.max_power_voltage, supply.max_power_current),
            (supply.open_circuit_voltage, 0.0),
        ]
        return Characteristic([v for v, _ in points], [i for _, i in points])
    piece = supply.pieces[0]
    low = 0.8 * supply.voltage
    return Characteristic([low, supply.voltage], [(piece.s - low) / piece.q if piece.q else 0.0, 0.0])


def force_curve(evaluation: Evaluation, index: int = 0) -> ForceCurve:
    """Force over speed at full throttle, one curve a gear."""
    group, row = evaluation.group(index)
    ratios = [r for branch, _, r in driveline.overall_ratios(evaluation.documents[index].design) if branch == 0]
    end = float(evaluation.raw("no_load_speed", index)) or 1.0
    speed = np.linspace(0.0, end, POINTS)
    gears = []
    for gear, ratio in enumerate(ratios):
        # Gears differ by their ratio alone, and with it by where their force ends.
        own = speed * ratios[-1] / ratio
        drive, _, _, limited = trace.forces_over(group.batch, row, gear, own)
        gears.append(GearForce(ratio, own.tolist(), drive.tolist(), float((own * limited).max())))
    _, resistance, traction, _ = trace.forces_over(group.batch, row, 0, speed)
    return ForceCurve(speed.tolist(), resistance.tolist(), traction.tolist(), gears)


def run_curve(evaluation: Evaluation, index: int = 0) -> RunCurve | None:
    """The run until the distance of the run is covered and the speed settled; None where there is none."""
    if not evaluation.starts(index):
        return None
    group, row = evaluation.group(index)
    points = trace.points(group.batch, row)
    if len(points.time) == 0:
        return None
    top = float(evaluation.raw("top_speed", index))
    settled = float(points.time[np.argmax(points.speed >= SETTLED * top)])
    end = 1.15 * max(settled, evaluation.value("time_to_distance", index) or 0.0)
    shown = points.time < end
    time = np.append(points.time[shown], end)
    beyond = max(0.0, end - float(points.time[-1]))
    distance = np.append(points.distance[shown], np.interp(end, points.time, points.distance) + top * beyond)
    speed, bus, motor = (
        np.append(part[shown], np.interp(end, points.time, part))
        for part in (points.speed, points.bus_current, points.motor_current)
    )
    return RunCurve(
        time.tolist(), speed.tolist(), distance.tolist(), bus.tolist(), motor.tolist(), _changes(points, end)
    )


def _changes(points: trace.Points, end: float) -> list[GearChange]:
    """Where a gear is left: the run coasts, as gear −1, until the next one is in."""
    changes = []
    for i in np.flatnonzero(np.diff((points.gear < 0).astype(int)) > 0) + 1:
        after = points.gear[i:]
        engaged = after[after >= 0]
        if len(engaged) and points.time[i] < end:
            changes.append(GearChange(float(points.time[i]), float(points.speed[i]), int(engaged[0])))
    return changes
