"""Speed, torque and power on each shaft of the line, and what each stage loses, at chosen moments."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ydrometer.design import Design, stages_with_paths
from ydrometer.driveline import Plant
from ydrometer.evaluate import Evaluation
from ydrometer.motion import currents, forces
from ydrometer.motion.currents import Electric
from ydrometer.stages import stage_efficiency

MomentName = Literal["hard start", "shove", "top speed"]


@dataclass(frozen=True, slots=True)
class ShaftFlow:
    """On one shaft of one drive unit: speed rad/s, torque N·m, power W."""

    shaft: int
    speed: float
    torque: float
    power: float


@dataclass(frozen=True, slots=True)
class StageFlow:
    """A stage: its ratio, its efficiency, whether that was assumed, and what it loses, W."""

    path: str
    ratio: float
    efficiency: float
    assumed: bool
    loss: float


@dataclass(frozen=True, slots=True)
class Flow:
    """The line at one moment. `current`: of one motor, A; `bus_current`: of the supply, A."""

    moment: MomentName
    current: float
    bus_current: float
    bus_voltage: float
    shafts: list[ShaftFlow]
    stages: list[StageFlow]


def flows(evaluation: Evaluation, index: int = 0) -> list[Flow]:
    """The line of one design with one branch in the hard start, in the shove and, where it starts, at top speed.

    Powers and torques are those of one drive unit; the first shaft carries all motors of its branch.
    """
    chosen = np.array([index])
    plant = evaluation.analysis.plant.take(chosen)
    design = evaluation.documents[index].design
    still = np.zeros((1, 1))
    rest = forces.at_speed(plant, still)
    wall = forces.wall_traction(plant)
    shove = currents.eased_off(plant, still, wall) if wall[0, 0] < rest.drive[0, 0] else rest.electric
    made = [
        _flow(design, plant, "hard start", still, rest.electric),
        _flow(design, plant, "shove", still, shove),
    ]
    if evaluation.starts(index):
        top = evaluation.analysis.top[chosen]
        cruise = forces.as_driven(plant, top, forces.at_speed(plant, top))
        made.append(_flow(design, plant, "top speed", top, cruise))
    return made


def _flow(
    design: Design, plant: Plant, moment: MomentName, speed: np.ndarray, electric: Electric
) -> Flow:
    branch = design.drive.branches[0]
    turning = float((speed / plant.radius * plant.ratio)[0, 0, 0])
    current = float(electric.currents[0, 0, 0])
    torque = branch.count * float((plant.kt * (electric.currents - plant.no_load_current))[0, 0, 0])
    shafts = [ShaftFlow(0, turning, torque, torque * turning)]
    stages: list[StageFlow] = []
    for step, (path, stage) in enumerate(stages_with_paths(design)):
        efficiency = stage_efficiency(stage)
        before = shafts[-1]
        turning = before.speed / stage.ratio
        torque = before.torque * stage.ratio * (efficiency if before.torque >= 0.0 else 1.0 / efficiency)
        shafts.append(ShaftFlow(step + 1, turning, torque, torque * turning))
        assumed = stage.efficiency is None
        stages.append(StageFlow(path, stage.ratio, efficiency, assumed, before.power - torque * turning))
    return Flow(moment, current, float(electric.bus_current[0, 0]), float(electric.bus_voltage[0, 0]), shafts, stages)
