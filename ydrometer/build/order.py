"""The order of steps: a partial order without a circle, told as a list that can be followed."""

from __future__ import annotations

import heapq
from collections.abc import Iterable, Mapping, Sequence
from graphlib import CycleError, TopologicalSorter
from typing import Protocol, TypeVar

from ydrometer.base.errors import DocumentError, Fault


class Needing(Protocol):
    """Something with an id that comes behind others."""

    @property
    def id(self) -> str:
        """Its id."""

    @property
    def needs(self) -> tuple[str, ...]:
        """Ids of what comes before it."""


T = TypeVar("T", bound=Needing)


def in_order(steps: Sequence[T]) -> list[T]:
    """Steps with each behind all that it needs; where several could be next, the one that was given first.

    Args:
        steps: needs that are not among them are taken as met.

    Raises:
        DocumentError: some need each other in a circle.
    """
    place = {step.id: number for number, step in enumerate(steps)}
    graph = TopologicalSorter({step.id: [need for need in step.needs if need in place] for step in steps})
    try:
        graph.prepare()
    except CycleError as error:
        circle = " → ".join(error.args[1])
        raise DocumentError(
            [Fault("steps", f"they need each other in a circle: {circle}", "take one need out")]
        ) from None
    ordered: list[T] = []
    open_: list[int] = []
    while graph.is_active():
        for id in graph.get_ready():
            heapq.heappush(open_, place[id])
        step = steps[heapq.heappop(open_)]
        ordered.append(step)
        graph.done(step.id)
    return ordered


def before(steps: Iterable[Needing]) -> Mapping[str, frozenset[str]]:
    """For each step the ids of all that come before it, by whatever way.

    Args:
        steps: in an order that can be followed.
    """
    behind: dict[str, frozenset[str]] = {}
    for step in steps:
        known = [need for need in step.needs if need in behind]
        behind[step.id] = frozenset(known).union(*(behind[need] for need in known))
    return behind
