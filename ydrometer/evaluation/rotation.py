"""Which way things turn: whether the branches pull together and the vehicle runs forwards, and what helps if not.

Each outside mesh reverses; an internal mesh, a belt and a chain keep the sense; a crossed belt reverses. Behind a
bevel or a worm the mounting decides.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from ydrometer.document.design import Design, own_stages, trunk_stages
from ydrometer.document.sources import Motor
from ydrometer.document.stages import Bevel, Gear, Stage, VBelt, Worm

IDLER = 20
"""Teeth of an idler that is offered."""


@dataclass(frozen=True, slots=True)
class Change:
    """A value to put into the document: a flag, or teeth; false and an empty list take it out."""

    path: str
    flag: bool | None = None
    teeth: list[int] | None = None


@dataclass(frozen=True, slots=True)
class Remedy:
    """Something that turns the wheels, or one branch, the other way."""

    words: str
    changes: list[Change]


@dataclass(frozen=True, slots=True)
class Senses:
    """How the line turns.

    Attributes:
        forwards: whether the wheels roll forwards. known: False where the mounting of a bevel or worm decides.
        against: branches that turn their common shaft against the first one.
        remedies: what helps where it runs backwards or a branch works against the first; the first one is quickest.
    """

    forwards: bool
    known: bool
    against: list[int]
    remedies: list[Remedy]


def senses(design: Design) -> Senses:
    """How the line of a design turns."""
    ends = [_end(design, b) for b in range(len(design.drive.branches))]
    trunk = [stage for _, stage in trunk_stages(design)]
    own = [stage for branch in design.drive.branches for stage in branch.stages]
    known = not any(isinstance(stage, Bevel | Worm) for stage in (*own, *trunk))
    against = [b for b, sense in enumerate(ends) if sense != ends[0]]
    forwards = ends[0] * math.prod(stage.sense for stage in trunk) > 0
    remedies: list[Remedy] = []
    if known and against:
        remedies = [remedy for b in against for remedy in _turn_branch(design, b)]
    elif known and not forwards:
        remedies = list(_turn_all(design))
    return Senses(forwards, known, against, remedies)


def _end(design: Design, branch: int) -> int:
    own = design.drive.branches[branch]
    return (-1 if own.source.reversed else 1) * math.prod(stage.sense for stage in own.stages)


def _turn_all(design: Design) -> Iterator[Remedy]:
    branches = range(len(design.drive.branches))
    turned = [_turned_source(design, b) for b in branches]
    if all(turned):
        yield Remedy(
            "Swap two leads of the motor, or turn it round." if len(branches) == 1 else
            "Swap two leads of every motor, or turn them round.",
            [change for change in turned if change],
        )  # fmt: skip
    yield from _turn_stages(trunk_stages(design))
    if len(branches) == 1:
        yield from _turn_stages(own_stages(design, 0))


def _turn_branch(design: Design, b: int) -> Iterator[Remedy]:
    change = _turned_source(design, b)
    if change:
        yield Remedy(f"Swap two leads of motor {b + 1}, or turn it round.", [change])
    yield from _turn_stages(own_stages(design, b))


def _turned_source(design: Design, b: int) -> Change | None:
    """An engine runs one way."""
    source = design.drive.branches[b].source
    return Change(f"drive.branches[{b}].source.reversed", not source.reversed) if isinstance(
        source, Motor) else None  # fmt: skip


def _turn_stages(stages: Iterable[tuple[str, Stage]]) -> Iterator[Remedy]:
    for path, stage in stages:
        if isinstance(stage, Gear):
            if stage.idlers:
                fewer = list(stage.idlers[:-1])
                yield Remedy("Take one idler out between the gears.", [Change(f"{path}.idlers", teeth=fewer)])
            else:
                yield Remedy(
                    "Put one idler between the gears; it changes only turning sense and distance, and costs one mesh.",
                    [Change(f"{path}.idlers", teeth=[IDLER])],
                )
        elif isinstance(stage, VBelt):
            yield Remedy(
                "Uncross the V-belt." if stage.crossed else "Cross the V-belt.",
                [Change(f"{path}.crossed", not stage.crossed)],
            )
