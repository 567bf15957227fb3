"""What taking a part of the bin changes in a design, as values by their paths."""

from __future__ import annotations

import copy
from collections.abc import Callable, Mapping
from typing import Any

from ydrometer.base import paths
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.stages import KINDS, Stage, whole_kinds
from ydrometer.document.stages.forms import OF_PART
from ydrometer.document.stages.plane import Loop
from ydrometer.document.walk import branch_path, in_trunk
from ydrometer.parts.read import read_part
from ydrometer.taking.sources import source_values
from ydrometer.taking.wheels import size_values, wheel_values

Changes = dict[str, Any]
"""Values as typed, by their paths in the document; None takes a value out."""


def changes(document: Mapping[str, Any], path: str, member: str, part: Mapping[str, Any]) -> Changes:
    """What a part changes where it is taken.

    Args:
        document: a design as typed; it may have faults elsewhere.
        path: of the stage or source that takes it; of what a vehicle has once (supply, road wheel) it is not looked at.
        member: the wheel of the stage that it becomes; empty of a whole stage, a loop or anything else.
        part: a document of the bin.

    Raises:
        DocumentError: the part has faults, or cannot be taken there.
    """
    read_part(part)
    kind = str(part["kind"])
    if kind in _ONCE:
        return once_values(part)
    if kind in _OF_A_BRANCH:
        return _OF_A_BRANCH[kind](document, path, part)
    stage = paths.value_at(document, path)
    of_kind = KINDS.get(str(stage.get("kind"))) if isinstance(stage, Mapping) else None
    if of_kind is None:
        raise _refused("path", f'no stage at "{path[:60]}"', "give the path of a stage")
    if whole_kinds(kind):
        return {path: _whole(path, part)}
    wheel = kind in OF_PART
    values = wheel_values(of_kind, stage, member, part) if wheel else _loop_values(of_kind, stage, part)
    return {f"{path}.{key}": value for key, value in values.items()}


_ONCE = {
    "battery": ("drive.supply", "supply"),
    "panel": ("drive.supply", "supply"),
    "wheel": ("vehicle.wheel_diameter", "diameter"),
}
"""Kinds of parts that a vehicle has once: where they go, and what of them."""


def once_values(part: Mapping[str, Any]) -> Changes:
    """What a supply or a road wheel changes.

    Args:
        part: a document of the bin, read before, of kind battery, panel or wheel.
    """
    path, key = _ONCE[str(part["kind"])]
    return {path: part[key]}


def applied(document: Mapping[str, Any], changed: Changes) -> dict[str, Any]:
    """A design, as typed, with values by their paths put in.

    Args:
        document: valid where the paths lead.
        changed: see `changes`.
    """
    copied = copy.deepcopy(dict(document))
    for path, value in changed.items():
        if value is None:
            paths.take_out(copied, path)
        else:
            paths.put(copied, path, value)
    return copied


def whole_stage(part: Mapping[str, Any]) -> dict[str, Any]:
    """A part that is a stage as a whole, as that stage is typed.

    Args:
        part: a document of the bin, read before, of a kind that some stages have as `whole_part`.
    """
    kind = next(kind for kind in whole_kinds(str(part["kind"])) if part.get(kind.ratio_key) not in (None, []))
    stage = {"kind": kind.kind, kind.ratio_key: part[kind.ratio_key]}
    brought = ((bring.to, bring.of(part)) for bring in kind.brings if bring.part == part["kind"])
    return stage | {key: value for key, value in brought if value is not None}


def _whole(path: str, part: Mapping[str, Any]) -> dict[str, Any]:
    stage = whole_stage(part)
    kind = KINDS[stage["kind"]]
    if kind.several_speeds and not in_trunk(path):
        remedy = "take it for a stage that all branches share, behind where they join"
        raise _refused("path", f"a {kind.noun} in a branch", remedy)
    return stage


def _loop_values(kind: type[Stage], stage: Mapping[str, Any], part: Mapping[str, Any]) -> Changes:
    """What runs around the wheels of a stage."""
    loop = kind.in_plane
    if not isinstance(loop, Loop) or loop.part != part["kind"]:
        raise _refused("part", f"a {part['kind']} for {kind.noun}", "take a part of the stage's own kind")
    values = {bring.to: bring.of(part) for bring in kind.brings if bring.part == loop.part}
    if loop.pieces_key:
        values[loop.pieces_key] = part.get(loop.part_key)
        values |= size_values(kind.form, stage, part) if kind.form else {}
    return values


def _refused(path: str, problem: str, remedy: str) -> DocumentError:
    return DocumentError([Fault(path, problem, remedy)])


def _source(document: Mapping[str, Any], path: str, part: Mapping[str, Any]) -> Changes:
    branch = branch_path(path)
    source = paths.value_at(document, branch)
    values = source_values(source if isinstance(source, Mapping) else {}, part)
    return {f"{branch}.{key}": value for key, value in values.items()}


def _controller(document: Mapping[str, Any], path: str, part: Mapping[str, Any]) -> Changes:
    return {f"{branch_path(path)}.controller": part["controller"]}


_OF_A_BRANCH: dict[str, Callable[[Mapping[str, Any], str, Mapping[str, Any]], Changes]] = {
    "motor": _source,
    "engine": _source,
    "controller": _controller,
}
"""What each branch has."""
