"""What every stage and shaft of the line passes at each moment.

A motor's torque goes through the stages with their losses; what speeds up its rotor and what turns in the stages
before, J·dw/dt, is taken off it at every shaft by the ratios of speed, without losses, so that the last stage passes
what the ground takes and what turns the wheels (the effective mass of `motion`, seen from inside).
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.document.stages import Stage, stage_efficiency
from ydrometer.document.walk import own_stages, trunk_stages
from ydrometer.evaluation import driveline
from ydrometer.motion.plant import Array
from ydrometer.motion.states import States


@dataclass(frozen=True, slots=True)
class Through:
    """A stage at m moments, SI, (m,) each, with signs.

    Attributes:
        path, stage. branch: whose own it is, None of the trunk. torque_in, torque_out: of one source in a branch, of a
        whole unit in the trunk. speed_in, speed_out.
    """

    path: str
    stage: Stage
    branch: int | None
    torque_in: Array
    torque_out: Array
    speed_in: Array
    speed_out: Array


@dataclass(frozen=True, slots=True)
class OnShaft:
    """A shaft of one unit at m moments: the path of what turns it, speed and torque of all that come together on it."""

    path: str
    speed: Array
    torque: Array


@dataclass(frozen=True, slots=True)
class PowerPath:
    """All stages and all shafts, in the order of power."""

    stages: list[Through]
    shafts: list[OnShaft]


@dataclass(frozen=True, slots=True)
class _Carried:
    """Torque of the sources, what of it speeds up what turns before the shaft, speed of the shaft, how fast that grows;
    (m,) each.
    """

    torque: Array
    rotors: Array
    speed: Array
    growth: Array

    @property
    def passed(self) -> Array:
        return self.torque - self.rotors


def line(design: Design, states: States) -> PowerPath:
    """What goes through a design.

    Args:
        design: as evaluated.
        states: at m moments.
    """
    gear = np.where(states.gear < 0, -1 - states.gear, states.gear)
    power_path = PowerPath([], [])
    ends = []
    for b, branch in enumerate(design.drive.branches):
        source = branch.source
        turning = _turning(design, b, gear)
        inertia = source.rotor_inertia if isinstance(source, Motor) else 0.0
        growth = states.acceleration * turning
        at = _Carried(states.passed * states.torque[:, b], inertia * growth, states.source_speed[:, b], growth)
        path = f"drive.branches[{b}].source"
        power_path.shafts.append(OnShaft(path, at.speed, branch.count * at.passed))
        behind = _Carried(at.torque, at.rotors, states.behind[:, b], growth)
        ends.append(_walk(power_path, own_stages(design, b), behind, gear, b, branch.count))
    # Where branches join is one shaft: it stands under the last stage of the first one.
    joint = _together([(end, branch.count) for end, branch in zip(ends, design.drive.branches, strict=True)])
    _join(power_path, design, joint)
    _walk(power_path, trunk_stages(design), joint, gear, None, 1)
    return power_path


def _turning(design: Design, branch: int, gear: Array) -> Array:
    """Source turns per metre of the vehicle, times 2π, in the gear of each moment: G/r, rad/m."""
    ratios = np.array([g for b, _, g in driveline.overall_ratios(design) if b == branch])
    turning: Array = ratios[gear] / (0.5 * design.vehicle.wheel_diameter)
    return turning


def _walk(
    power_path: PowerPath,
    stages: Iterable[tuple[str, Stage]],
    at: _Carried,
    gear: Array,
    branch: int | None,
    count: int,
) -> _Carried:
    for path, stage in stages:
        ratio = np.array(stage.gears)[gear] if stage.several_speeds else stage.ratio
        by_speed = ratio / (1.0 - stage.slip)
        efficiency = stage_efficiency(stage)
        driven = np.where(at.torque >= 0.0, efficiency, 1.0 / efficiency)
        rotors = (at.rotors + stage.inertia * at.growth) * by_speed
        after = _Carried(at.torque * ratio * driven, rotors, at.speed / by_speed, at.growth / by_speed)
        power_path.stages.append(Through(path, stage, branch, at.passed, after.passed, at.speed, after.speed))
        power_path.shafts.append(OnShaft(path, after.speed, count * after.passed))
        at = after
    return at


def _together(ends: list[tuple[_Carried, int]]) -> _Carried:
    torque = sum((count * end.torque for end, count in ends), np.zeros_like(ends[0][0].torque))
    rotors = sum((count * end.rotors for end, count in ends), np.zeros_like(torque))
    return _Carried(torque, rotors, ends[0][0].speed, ends[0][0].growth)


def _join(path: PowerPath, design: Design, joint: _Carried) -> None:
    """One shaft where branches join, in place of the last one of each."""
    if len(design.drive.branches) == 1:
        return
    last = [
        (f"drive.branches[{b}].stages[{len(branch.stages) - 1}]" if branch.stages else f"drive.branches[{b}].source")
        for b, branch in enumerate(design.drive.branches)
    ]
    kept = [shaft for shaft in path.shafts if shaft.path not in last[1:] or shaft.path.endswith("source")]
    path.shafts[:] = [
        OnShaft(shaft.path, joint.speed, joint.passed) if shaft.path == last[0] else shaft for shaft in kept
    ]


def speeds_in(design: Design, airborne: Array) -> dict[str, float]:
    """Input speed of every stage with the wheels in the air, rad/s, by path.

    Args:
        design: as evaluated.
        airborne: speed of one source of each branch then, rad/s.
    """
    speeds: dict[str, float] = {}
    joint = math.inf
    for b in range(len(design.drive.branches)):
        speed = float(airborne[b])
        for path, stage in own_stages(design, b):
            speeds[path] = speed
            speed /= stage.speed_ratio
        joint = min(joint, speed)
    last = len(driveline.gear_ratios(design)) - 1
    for path, stage in trunk_stages(design):
        speeds[path] = joint
        joint /= stage.ratio_in(last) / (1.0 - stage.slip)
    return speeds
