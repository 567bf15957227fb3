"""What deserves a word about a design: warnings, notes, and the usual cautions."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base.units import RPM
from ydrometer.document.design import Design
from ydrometer.document.sources import DISAGREEMENT, Motor, motor_line
from ydrometer.document.walk import stages_with_paths
from ydrometer.evaluation.cautions import cautions
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.evaluation.flow import flows
from ydrometer.evaluation.rotation import rotation


@dataclass(frozen=True, slots=True)
class Message:
    """Something the builder should know, and what it is about."""

    level: str
    path: str
    text: str


def messages(evaluation: Evaluation, index: int = 0) -> list[Message]:
    """What deserves a word about this design, the weightiest first."""
    all_messages: list[Message] = []
    design = evaluation.documents[index].design
    if not evaluation.starts(index):
        all_messages.append(_held(evaluation.held_by(index)))
    elif math.isinf(evaluation.raw("top_speed", index)):
        all_messages.append(
            Message(
                "warning",
                "conditions.grade",
                "Nothing holds it back on this slope: it gathers speed without end, so the run has no figures.",
            )
        )
    if evaluation.starts(index) and math.isnan(evaluation.raw("stopping_distance", index)):
        all_messages.append(Message("warning", "vehicle.brake_force", "The slope beats the brakes: it will not stop."))
    all_messages += _turning(design)
    if evaluation.raw("lifts", index):
        all_messages.append(Message("warning", "vehicle.cg_height", "The front wheels lift before the tyres slip."))
    speeds = evaluation.value("motor_speed_at_top", index)
    for b, branch in enumerate(design.drive.branches):
        path = f"drive.branches[{b}].source"
        if isinstance(branch.source, Motor):
            all_messages += _disagreement(branch.source, path)
        all_messages += _over_speed(branch.source.max_speed, speeds[b], path)
    top, stop = (evaluation.value(name, index) for name in ("top_speed", "stopping_distance"))
    all_messages += _stages(evaluation, index)
    return all_messages + [Message("caution", c.path, c.text) for c in cautions(design, top, stop)]


def _stages(evaluation: Evaluation, index: int) -> Iterator[Message]:
    """What stages say of the largest torque that comes to them: at standstill, pulling away or pushing."""
    design = evaluation.documents[index].design
    if not any(stage.minds_torque for _, stage in stages_with_paths(design)):
        return
    torques: dict[str, float] = {}
    for moment in flows(evaluation, index):
        shafts = {shaft.shaft: shaft.torque for shaft in moment.shafts}
        for entry in moment.stages:
            torques[entry.path] = max(torques.get(entry.path, 0.0), shafts[entry.driver_shaft])
    for path, stage in stages_with_paths(design):
        for key, text in stage.cautions(torques[path]):
            yield Message("caution", f"{path}.{key}", text)


def _turning(design: Design) -> Iterator[Message]:
    turning = rotation(design)
    for b in turning.against:
        yield Message(
            "warning",
            f"drive.branches[{b}].source",
            f"Branch {b + 1} turns against branch 1 where they join: reverse one of them.",
        )
    if not turning.known:
        yield Message(
            "note",
            "drive",
            "Which way the wheels turn depends on how the bevel or worm is mounted: try it "
            "with the wheels off the ground.",
        )
    elif not turning.against and not turning.forwards:
        yield Message("warning", "drive", "As drawn the vehicle would run backwards.")


def _held(reason: str) -> Message:
    if reason == "torque":
        return Message("warning", "drive", "It will not start: the drive is too weak for the resistance.")
    return Message("warning", "vehicle.grip", "It will not start: the tyres hold too little for the resistance.")


def _disagreement(motor: Motor, path: str) -> Iterator[Message]:
    line = motor_line(motor)
    if line.disagreement > DISAGREEMENT:
        yield Message(
            "warning",
            f"{path}.bench_points",
            f"The five figures do not agree: they make torque per ampere {line.kt:.4g} N·m/A but volts per "
            f"rad/s {line.ke:.4g}, and the two should be equal. Check nominal_voltage, free_speed, "
            "free_current, stall_torque and stall_current.",
        )


def _over_speed(most: float | None, speed: float | None, path: str) -> Iterator[Message]:
    if most is not None and speed is not None and speed > most:
        yield Message(
            "warning",
            f"{path}.max_speed",
            f"At top speed it turns {speed * RPM:.0f} rpm, above its {most * RPM:.0f} rpm. "
            "Stay below what its maker allows.",
        )
