"""Speed, torque and power on each shaft of the line, and what each stage loses, at chosen moments."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ydrometer.design import Design, stages_with_paths
from ydrometer.driveline import Plant
from ydrometer.evaluate import Evaluation
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
    analysis = evaluation.analysis
    line = _Line(evaluation.documents[index].design, analysis.plant.take(np.array([index])), index)
    made = [
        line.flow("hard start", 0.0, analysis.rest.electric),
        line.flow("shove", 0.0, analysis.shove),
    ]
    if evaluation.starts(index):
        made.append(line.flow("top speed", float(analysis.top[index, 0]), analysis.cruise))
    return made


@dataclass(frozen=True, slots=True)
class _Line:
    """One design of a batch, ready to be followed shaft by shaft."""

    design: Design
    plant: Plant
    index: int

    def flow(self, moment: MomentName, speed: float, electric: Electric) -> Flow:
        """Shafts and stages at a speed of the vehicle, with motors and supply in the given state."""
        plant, branch = self.plant, self.design.drive.branches[0]
        current = float(electric.currents[0, self.index, 0])
        turning = speed / float(plant.radius[0, 0]) * float(plant.ratio[0, 0, 0])
        torque = branch.count * float(plant.kt[0, 0, 0]) * (current - float(plant.no_load_current[0, 0, 0]))
        shafts = [ShaftFlow(0, turning, torque, torque * turning)]
        stages: list[StageFlow] = []
        for step, (path, stage) in enumerate(stages_with_paths(self.design)):
            efficiency = stage_efficiency(stage)
            before = shafts[-1]
            turning = before.speed / stage.ratio
            torque = before.torque * stage.ratio * (efficiency if before.torque >= 0.0 else 1.0 / efficiency)
            shafts.append(ShaftFlow(step + 1, turning, torque, torque * turning))
            loss = before.power - torque * turning
            stages.append(StageFlow(path, stage.ratio, efficiency, stage.efficiency is None, loss))
        bus = float(electric.bus_current[self.index, 0]), float(electric.bus_voltage[self.index, 0])
        return Flow(moment, current, *bus, shafts, stages)
