"""Rows in words: the part that each is about, and the one sentence that matters."""

from __future__ import annotations

from ydrometer.document.design import Design
from ydrometer.document.stages import Stage
from ydrometer.document.walk import branch_of, stages_with_paths
from ydrometer.loads.check_words import CHECKS
from ydrometer.loads.rows import UseRow

TWICE = 1.995
"""Use from which on it is told as "twice" or so many times with one digit."""


def part_title(design: Design, row: UseRow) -> str:
    """The part that a row is about: "15-tooth gear", "motor", "toothed belt"."""
    stage = dict(stages_with_paths(design)).get(row.path)
    if stage is not None:
        return _of_stage(stage, row)
    if row.path.endswith(".source"):
        kind = _kind(design, row.path)
        return f"{kind}'s shaft" if row.check in SHAFTS_OWN else kind
    if row.path.startswith("drive.branches") and row.check not in SHAFTS_OWN:
        return _kind(design, row.path)
    return {"drive.supply": "supply", "vehicle": "vehicle"}.get(row.path, "shaft of an idler")


SHAFTS_OWN = ("shaft_stress", "shaft_fatigue", "bearing_life")
"""Checks of a shaft, at the path of what turns it."""


def _of_stage(stage: Stage, row: UseRow) -> str:
    """A wheel or a step of a stage, the shaft that it turns, or the stage as a whole."""
    member = _member(row)
    wheel = next((m for m in stage.members if m.name == member), None)
    if row.check in SHAFTS_OWN and stage.members:
        driven = stage.members[-1]
        return f"shaft of the {driven.form.words(driven.measure)}"
    if wheel is not None:
        return wheel.form.words(wheel.measure)
    if row.member and row.member.startswith("steps["):
        return f"step {int(row.member[6:-1]) + 1} of the {stage.noun}"
    return f"shaft of the {stage.noun}" if row.check in SHAFTS_OWN else stage.noun


def _member(row: UseRow) -> str | None:
    """A member as a stage names it: "idlers[0]" is its "idler 1"."""
    if row.member and row.member.startswith("idlers["):
        return f"idler {int(row.member[7:-1]) + 1}"
    return row.member


def _kind(design: Design, path: str) -> str:
    branches = design.drive.branches
    b = branch_of(path)
    kind: str = branches[b].source.kind
    return kind if len(branches) == 1 else f"{kind} of branch {b + 1}"


def sentence(design: Design, row: UseRow | None) -> str:
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
    return {
        "run": "in the run",
        "top speed": "at top speed",
        "wheels in the air": "with the wheels in the air",
        "turn on the spot": "turning on the spot",
    }.get(moment, f"in the {moment}")
