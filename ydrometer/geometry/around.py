"""A taut loop around any number of wheels, each touched on its inside or its outside: idlers and tensioners.

Between two circles the common tangent has the length sqrt(d² − (s2·r2 − s1·r1)²), d being the distance of the
centres and s = +1 where the loop goes round a wheel with its inside, −1 where a wheel presses on its outside
(plane geometry of tangents). The loop is gone round anticlockwise.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np


@dataclass(frozen=True, slots=True)
class Round:
    """A wheel that a loop touches.

    Attributes:
        x, y: its centre, m; arrays of the same shape, (n,), for n loops at once. radius: at which the loop runs, m.
        outside: whether it presses on the loop's outside.
    """

    x: Any
    y: Any
    radius: float
    outside: bool = False

    @property
    def signed(self) -> float:
        """The radius, negative on the outside."""
        return -self.radius if self.outside else self.radius

    def touched(self, heading: Any) -> tuple[Any, Any]:
        """Where a run of a heading, rad, comes on or leaves: going anticlockwise it has the wheel on its left."""
        return self.x + self.signed * np.sin(heading), self.y - self.signed * np.cos(heading)


@dataclass(frozen=True, slots=True)
class Taut:
    """A loop pulled tight: its length, m, the run behind each wheel as its ends, m, and the wrap on each, rad.

    All of it as numbers, or as arrays, (n,), of n loops.
    """

    length: Any
    runs: list[tuple[tuple[Any, Any], tuple[Any, Any]]]
    wraps: list[Any]

    @property
    def longest(self) -> float:
        """Length of the longest free run, m."""
        return max(math.dist(*run) for run in self.runs)


def taut(wheels: Sequence[Round]) -> Taut:
    """The loop around wheels in the order in which it meets them, anticlockwise.

    Args:
        wheels: at least two, each in one place.

    Raises:
        ValueError: fewer than two, or two that follow each other overlap so that no run goes between them.
    """
    if len(wheels) < 2:
        raise ValueError(f"{len(wheels)} wheels given, a loop needs two or more")
    for first, second in _followed(wheels):
        distance, step = math.hypot(second.x - first.x, second.y - first.y), abs(second.signed - first.signed)
        if not distance > step:
            raise ValueError(f"wheels {distance:g} m apart leave no run: more than {step:g} m is needed")
    loop = many_taut(wheels)
    runs = [((float(a), float(b)), (float(c), float(d))) for (a, b), (c, d) in loop.runs]
    return Taut(float(loop.length), runs, [float(wrap) for wrap in loop.wraps])


def many_taut(wheels: Sequence[Round]) -> Taut:
    """Loops around wheels that stand in n places each, (n,); NaN where two overlap so that no run goes between them.

    Args:
        wheels: at least two, in the order in which all of the loops meet them, anticlockwise.
    """
    pairs = _followed(wheels)
    headings = [_heading(first, second) for first, second in pairs]
    runs = [(first.touched(way), second.touched(way)) for (first, second), way in zip(pairs, headings, strict=True)]
    wraps = []
    for i, wheel in enumerate(wheels):
        turned = (headings[i] - headings[i - 1]) % (2.0 * math.pi)
        wraps.append((-turned) % (2.0 * math.pi) if wheel.outside else turned)
    arcs = sum(wheel.radius * wrap for wheel, wrap in zip(wheels, wraps, strict=True))
    free = sum(np.hypot(end[0] - start[0], end[1] - start[1]) for start, end in runs)
    return Taut(free + arcs, runs, wraps)


def _followed(wheels: Sequence[Round]) -> list[tuple[Round, Round]]:
    """Each wheel with the next one."""
    return [(wheel, wheels[(i + 1) % len(wheels)]) for i, wheel in enumerate(wheels)]


def _heading(first: Round, second: Round) -> Any:
    """Heading, rad, of the run from one wheel to the next; NaN where they overlap so that there is none."""
    across, up = second.x - first.x, second.y - first.y
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.arctan2(up, across) - np.arcsin((second.signed - first.signed) / np.hypot(across, up))
