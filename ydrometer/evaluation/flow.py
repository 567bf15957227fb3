"""Speed, torque and power on each shaft of the line, and what each stage loses, at chosen moments."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from ydrometer.document.design import Design
from ydrometer.document.stages import Stage, power_lost, stage_efficiency
from ydrometer.document.walk import own_stages, shaft_numbers, trunk_stages
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.motion import states, trace
from ydrometer.motion.plant import Batch
from ydrometer.motion.trace import Sources

MomentName = Literal["hard start", "shove", "top speed", "picked"]


@dataclass(frozen=True, slots=True)
class ShaftFlow:
    """On one shaft of one drive unit: speed rad/s, torque N·m, power W; `shaft` as in `design.shaft_numbers`."""

    shaft: int
    speed: float
    torque: float
    power: float


@dataclass(frozen=True, slots=True)
class StageFlow:
    """A stage between two shafts.

    Attributes:
        title: in words. ratio: driver turns per driven turn.
        efficiency: share of the torque that gets through. assumed: whether that was not given.
        slip: share of the speed that does not get through. lost: share of the power lost by both. loss: that in W.
    """

    path: str
    title: str
    driver_shaft: int
    driven_shaft: int
    ratio: float
    efficiency: float
    assumed: bool
    slip: float
    lost: float
    loss: float


@dataclass(frozen=True, slots=True)
class Flow:
    """The line at one moment.

    Attributes:
        vehicle_speed: m/s. gear: engaged, from 0.
        currents: of one motor of each branch, A, None for an engine. bus_current, bus_voltage: of the supply, A and V.
        shafts: by their number. stages: of the branches, then of the trunk.
    """

    moment: MomentName
    vehicle_speed: float
    gear: int
    currents: list[float | None]
    bus_current: float
    bus_voltage: float
    shafts: list[ShaftFlow]
    stages: list[StageFlow]


def flows(evaluation: Evaluation, index: int = 0, picked: float | None = None) -> list[Flow]:
    """The line of one design in the hard start, in the shove and, where it has one, at top speed.

    Powers and torques are those of one drive unit; a source's shaft carries all sources of its branch.

    Args:
        evaluation: holds the design.
        index: its place there.
        picked: a speed of the run, m/s, to add as a moment of its own; above the top speed that is meant.
    """
    group, row = evaluation.group(index)
    design = evaluation.documents[index].design
    stage_flows = [
        _flow(design, "hard start", 0.0, _hard_start(group.batch, row)),
        _flow(design, "shove", 0.0, trace.standing(group.batch, row, pushing=True)),
    ]
    top = evaluation.value("top_speed", index)
    if top:
        last = int(evaluation.raw("last_gear", index))
        stage_flows.append(_flow(design, "top speed", top, trace.driving(group.batch, row, last, top)))
        if picked is not None:
            speed = min(picked, top)
            gear = _gear_at(trace.points(group.batch, row), speed, last)
            stage_flows.append(_flow(design, "picked", speed, trace.driving(group.batch, row, gear, speed)))
    return stage_flows


def _hard_start(batch: Batch, row: int) -> Sources:
    """The first moment of the run, eased off to what the tyres hold; its duty is not asked for."""
    at = states.hard_start(batch, row)
    return Sources(
        int(at.gear[0]),
        math.nan,
        float(at.bus_voltage[0]),
        float(at.bus_current[0]),
        math.nan,
        at.source_speed[0],
        at.torque[0],
        at.current[0],
        at.behind[0],
    )


def _gear_at(points: trace.Points, speed: float, last: int) -> int:
    """The gear in which the run first has a speed."""
    reached = np.flatnonzero((points.speed >= speed) & (points.gear >= 0))
    return int(points.gear[reached[0]]) if len(reached) else last


def _flow(design: Design, moment: MomentName, vehicle_speed: float, sources: Sources) -> Flow:
    numbers, trunk = shaft_numbers(design)
    shafts: dict[int, ShaftFlow] = {}
    stages: list[StageFlow] = []
    joined = 0.0
    for b, branch in enumerate(design.drive.branches):
        torque = branch.count * float(sources.torque[b])
        # While a clutch slips its first stage turns slower than the engine.
        speeds = (float(sources.speed[b]), float(sources.behind[b]))
        joined += _walk(own_stages(design, b), numbers[b], torque, speeds, sources.gear, shafts, stages)
    turning = float(sources.behind[0]) / math.prod(s.speed_ratio for s in design.drive.branches[0].stages)
    alone = len(design.drive.branches) == 1 and not design.drive.branches[0].stages
    outer = float(sources.speed[0]) if alone else turning
    _walk(trunk_stages(design), trunk, joined, (outer, turning), sources.gear, shafts, stages)
    currents = [None if math.isnan(current) else float(current) for current in sources.current]
    return Flow(
        moment,
        vehicle_speed,
        sources.gear,
        currents,
        sources.bus_current,
        sources.bus_voltage,
        [shafts[number] for number in sorted(shafts)],
        stages,
    )


def _walk(
    stages: Iterable[tuple[str, Stage]],
    numbers: list[int],
    torque: float,
    speeds: tuple[float, float],
    gear: int,
    shafts: dict[int, ShaftFlow],
    stage_flows: list[StageFlow],
) -> float:
    """Follow power through stages in a row; notes shafts and stages, returns the torque behind the last.

    `speeds`: of the first shaft itself, and of what drives the first stage.
    """
    speed, behind = speeds
    shafts[numbers[0]] = _shaft(numbers[0], speed, torque)
    for (path, stage), (before, number) in zip(stages, pairwise(numbers), strict=True):
        ratio = stage.ratio_in(gear)
        speed_ratio = ratio / (1.0 - stage.slip)
        entering = speed * torque
        behind /= speed_ratio
        torque, speed = _stage_torque(stage, ratio, torque), behind
        shafts[number] = _shaft(number, speed, torque)
        stage_flows.append(
            StageFlow(
                path,
                stage.title,
                before,
                number,
                speed_ratio,
                stage_efficiency(stage),
                stage.efficiency is None,
                stage.slip,
                power_lost(stage),
                entering - speed * torque,
            )
        )
    return torque


def _shaft(number: int, speed: float, torque: float) -> ShaftFlow:
    return ShaftFlow(number, speed, torque, speed * torque)


def _stage_torque(stage: Stage, ratio: float, torque: float) -> float:
    """Torque behind a stage; one that brakes takes the loss the other way."""
    efficiency = stage_efficiency(stage)
    return torque * ratio * (efficiency if torque >= 0.0 else 1.0 / efficiency)
