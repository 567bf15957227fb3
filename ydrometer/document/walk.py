"""Going along the line of a design: its stages with their paths, and the shafts between them."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Protocol

from ydrometer.document.drive import Drive
from ydrometer.document.stages import Stage

MOST_AROUND = 4
"""Motors of one branch that have places of their own around one gear."""


class HasDrive(Protocol):
    """A design, as far as its line is concerned."""

    @property
    def drive(self) -> Drive:
        """The drive."""


def stages_with_paths(design: HasDrive) -> Iterator[tuple[str, Stage]]:
    """Every stage in the order power meets them, with its path in the document."""
    for b in range(len(design.drive.branches)):
        yield from own_stages(design, b)
    yield from trunk_stages(design)


_STAGE = re.compile(r"drive(?:\.branches\[(\d+)\])?\.stages\[(\d+)\]")
_BRANCH = re.compile(r"drive\.branches\[\d+\]")


def place_of(path: str) -> tuple[int | None, int]:
    """The branch of a stage, None of one of the trunk, and its place there.

    Args:
        path: such as "drive.branches[0].stages[1]".

    Raises:
        ValueError: it leads to no stage.
    """
    match = _STAGE.fullmatch(path)
    if match is None:
        raise ValueError(path)
    return (None if match[1] is None else int(match[1])), int(match[2])


def stage_at(design: HasDrive, path: str) -> Stage | None:
    """The stage at a path of the document; None where there is none."""
    try:
        branch, index = place_of(path)
        return (design.drive.stages if branch is None else design.drive.branches[branch].stages)[index]
    except (IndexError, ValueError):
        return None


def in_trunk(path: str) -> bool:
    """Whether a path leads to a stage that all branches share."""
    return path.startswith("drive.stages[")


def branch_path(path: str) -> str:
    """The path of the branch that a path leads into, of the first one where it leads into none."""
    match = _BRANCH.match(path)
    return match[0] if match else "drive.branches[0]"


def branch_of(path: str) -> int:
    """The number of the branch that a path in the document leads into, such as 1 for "drive.branches[1].source"."""
    return int(path.split("[", 1)[1].split("]", 1)[0])


def on_drum(design: HasDrive, shaft: str) -> bool:
    """Whether what sits on a shaft sits on the drum of a clutch, which turns without the engine.

    Args:
        design: of which it is.
        shaft: its path.
    """
    return ".source" in shaft and design.drive.branches[branch_of(shaft)].clutch is not None


def shaft_numbers(design: HasDrive) -> tuple[list[list[int]], list[int]]:
    """Numbers of the shafts of each branch, from its source to where it joins, and of the trunk, from there on.

    The first branch and the trunk count from 0 on, the other branches after them; where they join is one shaft.
    """
    first, *others = (len(branch.stages) for branch in design.drive.branches)
    last = first + len(design.drive.stages)
    branches, free = [list(range(first + 1))], last + 1
    for own in others:
        branches.append([*range(free, free + own), first])
        free += own
    return branches, list(range(first, last + 1))


def shaft_paths(design: HasDrive) -> list[str]:
    """A name for each shaft: the path of what turns it, a source, a stage or one of its idlers; in the order of power.

    Where branches join, the stages of several turn the same shaft.
    """
    paths = []
    for b in range(len(design.drive.branches)):
        source = f"drive.branches[{b}].source"
        paths += [source, *(shaft for shaft, _ in further_motors(source, design.drive.branches[b].count))]
        paths += [path for stage in own_stages(design, b) for path in _turned(*stage)]
    return paths + [path for stage in trunk_stages(design) for path in _turned(*stage)]


def further_motors(source: str, count: int) -> list[tuple[str, str]]:
    """Shafts of a branch's motors but the first, and what the first stage's gears on them are called there.

    Args:
        source: path of the branch's source.
        count: of its motors; of more than `MOST_AROUND` none has a name.
    """
    return [(f"{source}[{k}]", f"driver {k + 1}") for k in range(1, count)] if count <= MOST_AROUND else []


def _turned(path: str, stage: Stage) -> list[str]:
    return [*(f"{path}.{member.key}" for member in stage.members if member.idle), path]


def wheel_names(design: HasDrive) -> set[str]:
    """Names of all wheels, as an item of a stack names one: the path of its stage and what it is there."""
    known = {f"{path} {member.name}" for path, stage in stages_with_paths(design) for member in stage.members}
    for b, branch in enumerate(design.drive.branches):
        known |= {f"drive.branches[{b}].stages[0] {driver}" for _, driver in further_motors("", branch.count)}
    return known


def own_stages(design: HasDrive, branch: int) -> Iterator[tuple[str, Stage]]:
    """The stages of one branch, with their paths."""
    for s, stage in enumerate(design.drive.branches[branch].stages):
        yield f"drive.branches[{branch}].stages[{s}]", stage


def trunk_stages(design: HasDrive) -> Iterator[tuple[str, Stage]]:
    """The stages that all branches share, with their paths."""
    for s, stage in enumerate(design.drive.stages):
        yield f"drive.stages[{s}]", stage
