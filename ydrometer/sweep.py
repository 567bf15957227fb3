"""Trying a wheel in sizes below and above its own: the same design, one tooth count changed."""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Mapping
from typing import Any

from ydrometer.design import Design, Document
from ydrometer.errors import YdrometerError
from ydrometer.stages import Stage
from ydrometer.stages.common import LEAST_TEETH, MOST_TEETH

SPAN = 6
"""Sizes tried on either side."""

_PATH = re.compile(r"drive(?:\.branches\[(\d+)\])?\.stages\[(\d+)\]")


class PathError(YdrometerError):
    """A path that leads to no wheel of the design."""

    code = "path"


def variants(document: Document, path: str, member: str) -> list[tuple[int, Document | None]]:
    """The design with one wheel in 2·SPAN + 1 sizes, the present one in the middle.

    Args:
        document: the design.
        path: of a stage, such as "drive.branches[0].stages[0]".
        member: "driver", "driven" or "idler 1", "idler 2" ….

    Returns:
        Pairs of tooth count and design; None for a size that cannot be (too few teeth, a ring too small).

    Raises:
        PathError: no such wheel.
    """
    stage = stage_at(document.design, path)
    try:
        present = _teeth(stage, member)
    except (IndexError, AttributeError, ValueError):
        raise PathError(f'there is no wheel "{member}" at "{path}"', path=path, member=member) from None
    sizes = range(present - SPAN, present + SPAN + 1)
    return [(teeth, with_wheels(document, path, {member: teeth})) for teeth in sizes]


def stage_at(design: Design, path: str) -> Stage | None:
    """The stage at a path of the document; None where there is none."""
    try:
        branch, index = _place(path)
        return (design.drive.stages if branch is None else design.drive.branches[branch].stages)[index]
    except (IndexError, ValueError):
        return None


def with_wheels(document: Document, path: str, teeth: Mapping[str, int]) -> Document | None:
    """The design with other tooth counts of one stage, by member; None where that cannot be.

    Args:
        document: the design.
        path: of a stage that is there.
        teeth: by "driver", "driven", "idler 1" ….
    """
    stage: Any = stage_at(document.design, path)
    for member, count in teeth.items():
        if not LEAST_TEETH <= count <= MOST_TEETH:
            return None
        stage = _with(stage, member, count)
    if any(getattr(stage, "faults", tuple)()):
        return None
    # Its values by path are those of the design it came from: nothing that is asked of a variant needs them.
    return dataclasses.replace(document, design=_put(document.design, path, stage))


def _place(path: str) -> tuple[int | None, int]:
    match = _PATH.fullmatch(path)
    if match is None:
        raise ValueError(path)
    return (None if match[1] is None else int(match[1])), int(match[2])


def _put(design: Design, path: str, stage: Stage) -> Design:
    branch, index = _place(path)
    drive = design.drive
    if branch is None:
        drive = dataclasses.replace(drive, stages=_swapped(drive.stages, index, stage))
    else:
        own = drive.branches[branch]
        changed = dataclasses.replace(own, stages=_swapped(own.stages, index, stage))
        drive = dataclasses.replace(drive, branches=_swapped(drive.branches, branch, changed))
    return dataclasses.replace(design, drive=drive)


def _swapped(items: tuple[Any, ...], index: int, item: Any) -> tuple[Any, ...]:
    return (*items[:index], item, *items[index + 1 :])


def _teeth(stage: Any, member: str) -> int:
    if member.startswith("idler "):
        return int(stage.idlers[int(member[6:]) - 1])
    return int(getattr(stage, f"{member}_teeth"))


def _with(stage: Any, member: str, teeth: int) -> Any:
    if member.startswith("idler "):
        return dataclasses.replace(stage, idlers=_swapped(stage.idlers, int(member[6:]) - 1, teeth))
    return dataclasses.replace(stage, **{f"{member}_teeth": teeth})
