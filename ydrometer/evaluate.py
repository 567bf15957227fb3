"""From design documents to results: all measures, how the targets stand, and what deserves a word."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer import driveline, targets
from ydrometer.design import Design, Document, Run, Target
from ydrometer.driveline import Array
from ydrometer.motion import forces, measures
from ydrometer.motion.measures import Analysis, Texts
from ydrometer.sources import DISAGREEMENT, motor_line
from ydrometer.tables.measures import MEASURES

RPM = 60.0 / (2.0 * math.pi)
"""Revolutions per minute in one rad/s."""


@dataclass(frozen=True, slots=True)
class Message:
    """Something the builder should know, and what it is about."""

    level: str
    path: str
    text: str


@dataclass(frozen=True, slots=True)
class TargetResult:
    """A target, the value it was compared with (SI) and how that stands."""

    target: Target
    verdict: targets.Verdict


@dataclass(frozen=True, slots=True)
class Evaluation:
    """Designs evaluated together, and one result for each, by the same index.

    `own_runs` holds what targets with a distance, speed or time of their own ask for, by measure and value.
    """

    documents: tuple[Document, ...]
    analysis: Analysis
    values: dict[str, Array | Texts]
    own_runs: dict[tuple[str, float], Array]

    def starts(self, index: int) -> bool:
        """Whether this design starts at all."""
        return bool(self.analysis.starts[index])

    def value(self, name: str, index: int) -> Any:
        """A measure in SI: a number, a text, a list of one a branch, or None where it has no meaning."""
        column = self.values[name]
        if column.ndim == 2:
            return [_plain(entry) for entry in column[:, index]]
        return _plain(column[index])

    def target_results(self, index: int) -> list[TargetResult]:
        """How each target of this design stands."""
        design = self.documents[index].design
        return [self.judge(target, index) for target in design.targets]

    def judge(self, target: Target, index: int) -> TargetResult:
        """How a target stands for the design at `index`, at the target's own distance, speed or time."""
        key = MEASURES[target.measure].run
        own = getattr(target.run, key) if key else None
        value = self.value(target.measure, index) if own is None else self._over(target.measure, own, index)
        return TargetResult(target, targets.judge(target, value, runs=self.starts(index)))

    def _over(self, measure: str, own: float, index: int) -> float | None:
        made: float | None = _plain(self.own_runs[measure, own][index])
        return made


_RUN_MEASURES = {
    "distance": measures.over_distance,
    "speed": measures.to_speed,
    "time": measures.in_time,
}


def evaluate(documents: Sequence[Document]) -> Evaluation:
    """Evaluate designs in one batch.

    Args:
        documents: at least one, all of one structure (the same number of branches).
    """
    designs = [document.design for document in documents]
    analysis = measures.analyse(driveline.assemble(designs))
    values: dict[str, Array | Texts] = {**measures.standing(analysis)}
    own_runs: dict[tuple[str, float], Array] = {}
    for key, measure in _RUN_MEASURES.items():
        own = sorted({getattr(t.run, key) for d in designs for t in d.targets} - {None})
        wanted = np.array([[_wanted(design.run, key), *own] for design in designs])
        if np.isnan(wanted).all():
            values |= dict.fromkeys((name for name, row in MEASURES.items() if row.run == key), wanted[:, 0])
            continue
        # A value nobody gave stands in as 1 and its results are dropped: arrays have no holes.
        for name, columns in measure(analysis, np.where(np.isnan(wanted), 1.0, wanted)).items():
            known = np.where(np.isnan(wanted), np.nan, columns)
            values[name] = known[:, 0]
            own_runs |= {(name, value): known[:, 1 + place] for place, value in enumerate(own)}
    return Evaluation(tuple(documents), analysis, values, own_runs)


def result(evaluation: Evaluation, index: int = 0) -> dict[str, Any]:
    """The result document of one design, as the command line prints it."""
    state: dict[str, Any] = {"state": "ok"}
    if not evaluation.starts(index):
        state = {"state": "will not start", "held_by": str(evaluation.analysis.held_by[index])}
    return {
        "format": "ydrometer-result",
        "version": 1,
        **state,
        "measures": {name: _measure(evaluation, name, index) for name in MEASURES},
        "assumed": list(evaluation.documents[index].assumed),
        "messages": [{"level": m.level, "path": m.path, "text": m.text} for m in messages(evaluation, index)],
        "targets": [_target(entry) for entry in evaluation.target_results(index)],
    }


def _measure(evaluation: Evaluation, name: str, index: int) -> dict[str, Any]:
    row = MEASURES[name]
    value = evaluation.value(name, index)
    if row.shape == "ratios":
        value = [{"branch": branch, "gear": 0, "value": ratio} for branch, ratio in enumerate(value)]
    if row.unit == "rpm":
        value = [in_rpm(entry) for entry in value] if isinstance(value, list) else in_rpm(value)
    return {"value": value, "unit": row.unit}


def _target(entry: TargetResult) -> dict[str, Any]:
    verdict, row = entry.verdict, MEASURES[entry.target.measure]
    return {
        "measure": row.name,
        "wanted": entry.target.wanted,
        "value": in_rpm(verdict.value) if row.unit == "rpm" else verdict.value,
        "met": verdict.met,
        "margin": verdict.margin,
    }


def in_rpm(speed: float | None) -> float | None:
    """rad/s as revolutions per minute."""
    return None if speed is None else speed * RPM


def messages(evaluation: Evaluation, index: int = 0) -> list[Message]:
    """What deserves a word about this design, the weightiest first."""
    found: list[Message] = []
    design = evaluation.documents[index].design
    if not evaluation.starts(index):
        found.append(_held(str(evaluation.analysis.held_by[index])))
    plant = evaluation.analysis.plant
    if np.isnan(forces.braking(plant)[index, 0]):
        found.append(Message("warning", "vehicle.brake_force", "The slope beats the brakes: it will not stop."))
    tyres = plant.grip * forces.weight_on_ground(plant)
    if evaluation.analysis.rest.traction[index, 0] < tyres[index, 0]:
        found.append(Message("warning", "vehicle.cg_height", "The front wheels lift before the tyres slip."))
    for b in range(len(design.drive.branches)):
        found += _motor_messages(design, b, evaluation.value("motor_speed_at_top", index)[b])
    return found


def _held(reason: str) -> Message:
    if reason == "torque":
        return Message("warning", "drive", "It will not start: the drive is too weak for the resistance.")
    return Message("warning", "vehicle.grip", "It will not start: the tyres hold too little for the resistance.")


def _motor_messages(design: Design, branch: int, speed: float | None) -> list[Message]:
    path = f"drive.branches[{branch}].source"
    motor = design.drive.branches[branch].source
    line = motor_line(motor)
    found = []
    if line.disagreement > DISAGREEMENT:
        found.append(
            Message(
                "warning",
                f"{path}.bench_points",
                f"The five figures do not agree: they make torque per ampere {line.kt:.4g} N·m/A but volts per "
                f"rad/s {line.ke:.4g}, and the two should be equal. Check nominal_voltage, free_speed, "
                "free_current, stall_torque and stall_current.",
            )
        )
    if motor.max_speed is not None and speed is not None and speed > motor.max_speed:
        found.append(
            Message(
                "warning",
                f"{path}.max_speed",
                f"At top speed the motor turns {speed * RPM:.0f} rpm, above its {motor.max_speed * RPM:.0f} rpm. "
                "Stay below what its maker allows.",
            )
        )
    return found


def _wanted(run: Run, key: str) -> float:
    value = getattr(run, key)
    return math.nan if value is None else float(value)


def _plain(entry: Any) -> Any:
    if isinstance(entry, str):
        return str(entry) or None
    number = float(entry)
    return number if math.isfinite(number) else None
