"""A taut loop around any number of wheels, each touched on its inside or its outside: idlers and tensioners.

Between two circles the common tangent has the length sqrt(d² − (s2·r2 − s1·r1)²), d being the distance of the
centres and s = +1 where the loop goes round a wheel with its inside, −1 where a wheel presses on its outside
(plane geometry of tangents). The loop is gone round anticlockwise.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ydrometer.geometry.loops import Point, Run


@dataclass(frozen=True, slots=True)
class Round:
    """A wheel that a loop touches.

    Attributes:
        x, y: its centre, m. radius: at which the loop runs, m.
        outside: whether it presses on the loop's outside.
    """

    x: float
    y: float
    radius: float
    outside: bool = False

    @property
    def signed(self) -> float:
        """The radius, negative on the outside."""
        return -self.radius if self.outside else self.radius

    def touched(self, heading: float) -> Point:
        """Where a run of a heading, rad, comes on or leaves: going anticlockwise it has the wheel on its left."""
        return self.x + self.signed * math.sin(heading), self.y - self.signed * math.cos(heading)


@dataclass(frozen=True, slots=True)
class Taut:
    """A loop pulled tight: its length, m, the run behind each wheel as its ends, m, and the wrap on each, rad."""

    length: float
    runs: list[Run]
    wraps: list[float]

    @property
    def longest(self) -> float:
        """Length of the longest free run, m."""
        return max(math.dist(*run) for run in self.runs)


def taut(wheels: Sequence[Round]) -> Taut:
    """The loop around wheels in the order in which it meets them, anticlockwise.

    Args:
        wheels: at least two.

    Raises:
        ValueError: fewer than two, or two that follow each other overlap so that no run goes between them.
    """
    if len(wheels) < 2:
        raise ValueError(f"{len(wheels)} wheels given, a loop needs two or more")
    pairs = [(wheel, wheels[(i + 1) % len(wheels)]) for i, wheel in enumerate(wheels)]
    headings = [heading(first, second) for first, second in pairs]
    runs = [(first.touched(way), second.touched(way)) for (first, second), way in zip(pairs, headings, strict=True)]
    wraps = []
    for i, wheel in enumerate(wheels):
        turned = (headings[i] - headings[i - 1]) % (2.0 * math.pi)
        wraps.append((-turned) % (2.0 * math.pi) if wheel.outside else turned)
    arcs = sum(wheel.radius * wrap for wheel, wrap in zip(wheels, wraps, strict=True))
    return Taut(sum(math.dist(*run) for run in runs) + arcs, runs, wraps)


def heading(first: Round, second: Round) -> float:
    """Heading, rad, of the run from one wheel to the next.

    Raises:
        ValueError: they overlap so that there is none.
    """
    across, up = second.x - first.x, second.y - first.y
    distance = math.hypot(across, up)
    step = second.signed - first.signed
    if not distance > abs(step):
        raise ValueError(f"wheels {distance:g} m apart leave no run: more than {abs(step):g} m is needed")
    return math.atan2(up, across) - math.asin(step / distance)
