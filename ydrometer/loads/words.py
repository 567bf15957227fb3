"""Rows in words: what each check is about, and the one sentence that matters."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.document.design import Design
from ydrometer.document.stages import Stage
from ydrometer.document.walk import stages_with_paths
from ydrometer.loads.rows import Row

TWICE = 1.995
"""Use from which on it is told as "twice" or so many times with one digit."""


@dataclass(frozen=True, slots=True)
class Check:
    """A check in words: its title, and what is told of a part, with {} for how much."""

    title: str
    clause: str


CHECKS = {
    "motor_peak_current": Check("current for a moment", "carries {} the current that it stands for a moment"),
    "winding_temperature": Check("winding over the day", "warms its winding by {} what that stands"),
    "mount_softening": Check("mount by the case's heat", "warms its mount by {} what that stands"),
    "source_speed": Check("speed", "turns at {} the speed that it may"),
    "controller_peak": Check("controller for a moment", "asks of its controller {} what that carries for a moment"),
    "controller_continuous": Check("controller for long", "asks of its controller {} what that carries for long"),
    "supply_peak": Check("current for a moment", "gives {} the current that it stands for a moment"),
    "supply_continuous": Check("current for long", "gives {} the current that it stands for long"),
    "supply_voltage": Check("voltage left", "has electronics that drop out at {} the lowest voltage"),
    "fuse": Check("fuse", "sends through its fuse {} what that is sure to carry"),
    "gear_tooth": Check("teeth", "carries {} what its teeth stand"),
    "belt_force": Check("pull", "pulls {} what its width carries"),
    "belt_jump": Check("teeth held down", "needs {} the tension that it has, or its teeth jump"),
    "v_belt_slip": Check("grip", "pulls {} what it holds before it slips"),
    "chain_force": Check("pull", "pulls {} what it is allowed"),
    "chain_teeth": Check("teeth of the small sprocket", "has fewer teeth than a chain runs well on"),
    "box_torque": Check("torque", "passes {} the torque that it is rated for"),
    "box_speed": Check("input speed", "is turned at {} the speed that it is rated for"),
    "shaft_stress": Check("bending and twist", "bears {} what it is allowed"),
    "brakes": Check("stopping", "takes {} the distance in which it has to stop"),
    "order_of_steps": Check("order of the steps", "has a weak step where most is carried"),
}


def part_title(design: Design, row: Row) -> str:
    """The part that a row is about: "15-tooth gear", "motor", "toothed belt"."""
    stage = dict(stages_with_paths(design)).get(row.path)
    if stage is not None:
        return _of_stage(stage, row)
    if row.path.endswith(".source"):
        kind = _kind(design, row.path)
        return f"{kind}'s shaft" if row.check == SHAFT else kind
    if row.path.startswith("drive.branches") and row.check != SHAFT:
        return _kind(design, row.path)
    return {"drive.supply": "supply", "vehicle": "vehicle"}.get(row.path, "shaft of an idler")


SHAFT = "shaft_stress"


def _of_stage(stage: Stage, row: Row) -> str:
    """A wheel or a step of a stage, the shaft that it turns, or the stage as a whole."""
    member = _member(row)
    wheel = next((m for m in stage.members if m.name == member), None)
    if row.check == SHAFT and stage.members:
        driven = stage.members[-1]
        return f"shaft of the {driven.form.words(driven.measure)}"
    if wheel is not None:
        return wheel.form.words(wheel.measure)
    if row.member and row.member.startswith("steps["):
        return f"step {int(row.member[6:-1]) + 1} of the {stage.noun}"
    return f"shaft of the {stage.noun}" if row.check == SHAFT else stage.noun


def _member(row: Row) -> str | None:
    """A member as a stage names it: "idlers[0]" is its "idler 1"."""
    if row.member and row.member.startswith("idlers["):
        return f"idler {int(row.member[7:-1]) + 1}"
    return row.member


def _kind(design: Design, path: str) -> str:
    branches = design.drive.branches
    b = int(path.split("[")[1].split("]", maxsplit=1)[0])
    kind: str = branches[b].source.kind
    return kind if len(branches) == 1 else f"{kind} of branch {b + 1}"


def sentence(design: Design, row: Row | None) -> str:
    """The one sentence that matters, of the worst row."""
    if row is None or row.use is None:
        return "Nothing is known yet of what its parts stand."
    clause = CHECKS[row.check].clause.format(_share(row.use))
    part = part_title(design, row)
    moment = f", {_when(row.moment)}" if row.moment else ""
    return f"The {part} {clause}{moment}."


def _share(use: float) -> str:
    return f"{100.0 * use:.0f} % of" if use <= 1.0 else f"{use:.2g} times" if use < TWICE else f"{use:.3g} times"


def _when(moment: str) -> str:
    return {"run": "in the run", "top speed": "at top speed", "wheels in the air": "with the wheels in the air",
            "turn on the spot": "turning on the spot"}.get(moment, f"in the {moment}")  # fmt: skip
