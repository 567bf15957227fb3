"""A change of a design that might relieve a row of Loads."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.document.design import Design
from ydrometer.document.drive import Branch
from ydrometer.document.walk import stage_at
from ydrometer.evaluation.sweep import put_stage


@dataclass(frozen=True, slots=True)
class Change:
    """A change: in words, how it is made, the values by path as typed, and whether the motion changes with it."""

    words: str
    apply: Callable[[Design], Design]
    values: dict[str, Any]
    moves: bool

    def with_(self, other: Change) -> Change:
        """Both at once; they must be about different values."""
        return Change(
            f"{self.words} and {other.words}",
            lambda design: other.apply(self.apply(design)),
            {**self.values, **other.values},
            self.moves or other.moves,
        )


def with_stage(path: str, change: Callable[[Any], Any]) -> Callable[[Design], Design]:
    """How a design gets another stage in place of one, made from that.

    Args:
        path: of the stage.
        change: what is made of it.
    """
    return lambda design: put_stage(design, path, change(stage_at(design, path)))


def put_branch(design: Design, b: int, branch: Branch) -> Design:
    """The design with another branch in place of one."""
    branches = design.drive.branches
    changed = (*branches[:b], branch, *branches[b + 1 :])
    return replace(design, drive=replace(design.drive, branches=changed))
