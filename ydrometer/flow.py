"""Speed, torque and power on each shaft of the line, and what each stage loses, at chosen moments."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ydrometer.design import Design, first_line
from ydrometer.evaluate import Evaluation
from ydrometer.motion import trace
from ydrometer.motion.trace import Sources
from ydrometer.stages import Speeds, Stage, stage_efficiency

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
    """The line at one moment. `current`: of one motor, A, None for an engine; `bus_current`: of the supply, A."""

    moment: MomentName
    current: float | None
    bus_current: float
    bus_voltage: float
    shafts: list[ShaftFlow]
    stages: list[StageFlow]


def flows(evaluation: Evaluation, index: int = 0) -> list[Flow]:
    """The line of one design in the hard start, in the shove and, where it has one, at top speed.

    The shafts are those of the first branch and the trunk; torque of further branches joins at the trunk's first
    shaft. Powers and torques are those of one drive unit; the first shaft carries all sources of its branch.
    """
    group, row = evaluation.group(index)
    design = evaluation.documents[index].design
    made = [
        _flow(design, "hard start", trace.standing(group.batch, row, pushing=False)),
        _flow(design, "shove", trace.standing(group.batch, row, pushing=True)),
    ]
    top = evaluation.value("top_speed", index)
    if top:
        gear = int(evaluation.raw("last_gear", index))
        made.append(_flow(design, "top speed", trace.driving(group.batch, row, gear, top)))
    return made


def _flow(design: Design, moment: MomentName, sources: Sources) -> Flow:
    branches = design.drive.branches
    own = len(branches[0].stages)
    shafts = [_shaft(0, float(sources.speed[0]), branches[0].count * float(sources.torque[0]))]
    joining = sum(
        _through(branch.stages, branch.count * float(sources.torque[b])) for b, branch in enumerate(branches) if b
    )
    stages: list[StageFlow] = []
    for step, (path, stage) in enumerate(first_line(design)):
        before = shafts[-1]
        if step == own and joining:
            before = shafts[-1] = _shaft(step, before.speed, before.torque + joining)
        ratio, speed_ratio = _engaged(stage, sources.gear)
        # While a clutch slips the first stage turns slower than the engine.
        speed = (float(sources.behind[0]) if step == 0 else before.speed) / speed_ratio
        shafts.append(_shaft(step + 1, speed, _stage_torque(stage, ratio, before.torque)))
        loss = before.power - shafts[-1].power
        assumed = stage.efficiency is None
        stages.append(StageFlow(path, speed_ratio, stage_efficiency(stage), assumed, loss))
    current = float(sources.current[0])
    return Flow(
        moment, None if math.isnan(current) else current, sources.bus_current, sources.bus_voltage, shafts, stages
    )


def _shaft(number: int, speed: float, torque: float) -> ShaftFlow:
    return ShaftFlow(number, speed, torque, speed * torque)


def _engaged(stage: Stage, gear: int) -> tuple[float, float]:
    """Torque and speed ratio of a stage, of a box of several speeds in the gear engaged."""
    if isinstance(stage, Speeds):
        return stage.ratios[gear], stage.ratios[gear]
    return stage.ratio, stage.speed_ratio


def _stage_torque(stage: Stage, ratio: float, torque: float) -> float:
    """Torque behind a stage; one that brakes takes the loss the other way."""
    efficiency = stage_efficiency(stage)
    return torque * ratio * (efficiency if torque >= 0.0 else 1.0 / efficiency)


def _through(stages: Iterable[Stage], torque: float) -> float:
    for stage in stages:
        torque = _stage_torque(stage, stage.ratio, torque)
    return torque
