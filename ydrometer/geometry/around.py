"""A taut loop around any number of wheels, each touched on its inside or its outside: idlers and tensioners.

Between two circles the common tangent has the length sqrt(d² − (s2·r2 − s1·r1)²), d being the distance of the
centres and s = +1 where the loop goes round a wheel with its inside, −1 where a wheel presses on its outside
(plane geometry of tangents). The loop is gone round anticlockwise.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass


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


@dataclass(frozen=True, slots=True)
class Taut:
    """A loop pulled tight: its length, m, the length of the run behind each wheel, m, and the wrap on each, rad."""

    length: float
    runs: list[float]
    wraps: list[float]


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
    runs, headings = zip(*(run(one, other) for one, other in pairs), strict=True)
    wraps = []
    for i, wheel in enumerate(wheels):
        turned = (headings[i] - headings[i - 1]) % (2.0 * math.pi)
        wraps.append((-turned) % (2.0 * math.pi) if wheel.outside else turned)
    arcs = sum(wheel.radius * wrap for wheel, wrap in zip(wheels, wraps, strict=True))
    return Taut(sum(runs) + arcs, list(runs), wraps)


def in_order(first: Round, second: Round, third: Round) -> list[Round]:
    """Two wheels and an idler in the order in which a loop meets them, anticlockwise from the first.

    Args:
        first: of the loop's own.
        second: the other one.
        third: on either side of the line through both.
    """
    left = (second.x - first.x) * (third.y - first.y) - (second.y - first.y) * (third.x - first.x) > 0.0
    return [first, second, third] if left else [first, third, second]


def run(one: Round, other: Round) -> tuple[float, float]:
    """Length, m, and heading, rad, of the run from one wheel to the next.

    Raises:
        ValueError: they overlap so that there is none.
    """
    across, up = other.x - one.x, other.y - one.y
    distance = math.hypot(across, up)
    step = other.signed - one.signed
    if not distance > abs(step):
        raise ValueError(f"wheels {distance:g} m apart leave no run: more than {abs(step):g} m is needed")
    return math.sqrt(distance**2 - step**2), math.atan2(up, across) - math.asin(step / distance)
