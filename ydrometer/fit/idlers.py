"""Where an idler takes up what a loop is too long: pressed on the middle of a run, from outside or from inside."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.document.mounting import Point, Tensioner
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.running import Running
from ydrometer.geometry import loops

CLOSE = 1e-7
"""m; to which the place of an idler is found."""


@dataclass(frozen=True, slots=True)
class Idler:
    """A wheel without a stage of its own on a loop: its stage, where it stands, its diameter, m, on which side."""

    stage: str
    at: Point
    diameter: float
    outside: bool


def idlers(coupling: Coupling, first: Point, second: Point, length: float) -> Iterator[Idler]:
    """Idlers as wide as the smaller wheel that make an open loop taut: first those on the outside.

    Args:
        coupling: of the loop.
        first: where its driver stands, m.
        second: where its driven wheel stands, m.
        length: of the loop, m, not less than the way around both.
    """
    radius = min(coupling.radii)
    for outside in (True, False):
        for run in loops.runs(first, coupling.radii[0], second, coupling.radii[1]):
            at = _pressed(coupling, first, second, run, radius, length, outside=outside)
            if at is not None:
                yield Idler(coupling.path, at, 2.0 * radius, outside)


def _pressed(
    coupling: Coupling, first: Point, second: Point, run: loops.Run, radius: float, length: float, *, outside: bool
) -> Point | None:
    """Where a wheel that is pressed on a run makes the loop taut, by bisection; None where it does not come so far."""
    (ax, ay), (bx, by) = run
    x, y = 0.5 * (ax + bx), 0.5 * (ay + by)
    # Away from the line of centres.
    middle = 0.5 * (first[0] + second[0]), 0.5 * (first[1] + second[1])
    off = math.hypot(x - middle[0], y - middle[1])
    nx, ny = (x - middle[0]) / off, (y - middle[1]) / off
    sign = 1.0 if outside else -1.0

    def at(pressed: float) -> Point:
        way = sign * (radius - pressed)
        return x + way * nx, y + way * ny

    def way_around(pressed: float) -> float:
        tensioner = Tensioner(at=at(pressed), diameter=2.0 * radius, outside=outside)
        loop = Running(first, second, coupling.radii, crossed=False, tensioner=tensioner)
        return float(loop.taut.length)

    # An outside wheel stays on its side of the line of centres.
    low, high = 0.0, off + radius if outside else math.dist(first, second)
    try:
        if way_around(high - CLOSE) < length:
            return None
        while high - low > CLOSE:
            half = 0.5 * (low + high)
            low, high = (half, high) if way_around(half) < length else (low, half)
    except ValueError:
        return None
    return at(low)
