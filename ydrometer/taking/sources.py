"""What a motor or an engine of the bin brings to its branch: of a design as typed, and of one as read.

A motor brings its controller where it has one and takes a clutch away; an engine brings its clutch likewise and takes a
controller away. The two forms of the rule stand side by side: a search reads its parts once and needs the second.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from ydrometer.document.drive import Branch
from ydrometer.parts.kinds import EnginePart, MotorPart


def source_values(branch: Mapping[str, Any], part: Mapping[str, Any]) -> dict[str, Any]:
    """What changes in a branch as typed, by its keys; None takes a value out.

    Args:
        branch: of a design document.
        part: a document of the bin, of kind motor or engine, read before.
    """
    engine = part["kind"] == EnginePart.kind
    named = {"name": part["name"]} if part.get("name") and not part["source"].get("name") else {}
    # How warm it gets depends on what it weighs, which the bin knows as it does of any part.
    weighed = {"mass": part["mass"]} if part.get("mass") is not None else {}
    values: dict[str, Any] = {"source": {**weighed, **part["source"], **named}}
    for key, belongs in (("controller", not engine), ("clutch", engine)):
        brought = part.get(key) if belongs else None
        if brought is not None or (not belongs and branch.get(key) is not None):
            values[key] = brought
    return values


def branch_with(branch: Mapping[str, Any], part: Mapping[str, Any]) -> dict[str, Any]:
    """A branch as typed with another source.

    Args:
        branch, part: see `source_values`.
    """
    changed = {**branch, **source_values(branch, part)}
    return {key: value for key, value in changed.items() if value is not None}


def with_source(branch: Branch, part: MotorPart | EnginePart) -> Branch:
    """A branch as read with another source.

    Args:
        branch: of a design.
        part: of the bin.
    """
    if isinstance(part, EnginePart):
        return replace(branch, source=part.source, clutch=part.clutch or branch.clutch, controller=None)
    return replace(branch, source=part.source, controller=part.controller or branch.controller, clutch=None)
