"""Which way things turn: whether the branches pull together and the vehicle runs forwards, and what helps if not.

Each outside mesh reverses; an internal mesh, a belt and a chain keep the sense; a crossed belt reverses. Behind a
bevel or a worm the mounting decides.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import OtherPlane
from ydrometer.document.walk import own_stages, trunk_stages


@dataclass(frozen=True, slots=True)
class TurnChange:
    """A value to put into the document: a flag, or teeth; false and an empty list take it out."""

    path: str
    flag: bool | None = None
    teeth: list[int] | None = None


@dataclass(frozen=True, slots=True)
class Remedy:
    """Something that turns the wheels, or one branch, the other way."""

    words: str
    changes: list[TurnChange]


@dataclass(frozen=True, slots=True)
class Rotation:
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


def rotation(design: Design) -> Rotation:
    """How the line of a design turns."""
    ends = [_end(design, b) for b in range(len(design.drive.branches))]
    trunk = [stage for _, stage in trunk_stages(design)]
    own = [stage for branch in design.drive.branches for stage in branch.stages]
    known = not any(isinstance(stage.in_plane, OtherPlane) for stage in (*own, *trunk))
    against = [b for b, turning in enumerate(ends) if turning != ends[0]]
    forwards = ends[0] * math.prod(stage.rotation for stage in trunk) > 0
    remedies: list[Remedy] = []
    if known and against:
        remedies = [remedy for b in against for remedy in _turn_branch(design, b)]
    elif known and not forwards:
        remedies = list(_turn_all(design))
    return Rotation(forwards, known, against, remedies)


def _end(design: Design, branch: int) -> int:
    own = design.drive.branches[branch]
    return (-1 if own.source.reversed else 1) * math.prod(stage.rotation for stage in own.stages)


def _turn_all(design: Design) -> Iterator[Remedy]:
    branches = range(len(design.drive.branches))
    turned = [_turned_source(design, b) for b in branches]
    if all(turned):
        yield Remedy(
            "Swap two leads of the motor, or turn it round."
            if len(branches) == 1
            else "Swap two leads of every motor, or turn them round.",
            [change for change in turned if change],
        )
    yield from _turn_stages(trunk_stages(design))
    if len(branches) == 1:
        yield from _turn_stages(own_stages(design, 0))


def _turn_branch(design: Design, b: int) -> Iterator[Remedy]:
    change = _turned_source(design, b)
    if change:
        yield Remedy(f"Swap two leads of motor {b + 1}, or turn it round.", [change])
    yield from _turn_stages(own_stages(design, b))


def _turned_source(design: Design, b: int) -> TurnChange | None:
    """An engine runs one way."""
    source = design.drive.branches[b].source
    return (
        TurnChange(f"drive.branches[{b}].source.reversed", not source.reversed) if isinstance(source, Motor) else None
    )


def _turn_stages(stages: Iterable[tuple[str, Stage]]) -> Iterator[Remedy]:
    for path, stage in stages:
        for reversal in stage.reversals():
            place, value = f"{path}.{reversal.key}", reversal.value
            change = TurnChange(place, flag=value) if isinstance(value, bool) else TurnChange(place, teeth=value)
            yield Remedy(reversal.words, [change])
