"""Straight lines between two places: what of them is nearest to something."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from ydrometer.geometry.loops import Point, Run

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
Runs = tuple[Floats, Floats]


def nearest_on(start: Point, end: Point, at: Point) -> Point:
    """The point of a segment that is nearest to another point."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = dx * dx + dy * dy
    share = min(1.0, max(0.0, ((at[0] - start[0]) * dx + (at[1] - start[1]) * dy) / length)) if length else 0.0
    return start[0] + share * dx, start[1] + share * dy


def closest(first: Run, second: Run) -> tuple[Point, Point]:
    """The nearest points of two segments, given by their ends: one on each.

    Where they cross that is one place; else an end of one of them is nearest.
    """
    crossing = _crossing(first, second)
    if crossing is not None:
        return crossing, crossing
    pairs_ = [(end, nearest_on(*second, end)) for end in first] + [(nearest_on(*first, end), end) for end in second]
    return min(pairs_, key=lambda pair: math.dist(*pair))


def _crossing(first: Run, second: Run) -> Point | None:
    (ax, ay), (bx, by) = first
    (cx, cy), (dx, dy) = second
    across = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    if across == 0.0:
        return None
    s = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / across
    t = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / across
    return (ax + s * (bx - ax), ay + s * (by - ay)) if 0.0 <= s <= 1.0 and 0.0 <= t <= 1.0 else None


def off_line(points: Floats, start: Floats, end: Floats) -> Floats:
    """Distances of points from straight line segments, m, (…).

    Args:
        points: the places, m, (…, 2).
        start: of each line, m, broadcast against the points.
        end: of each line.
    """
    along = end - start
    length = np.maximum((along**2).sum(axis=-1), 1e-30)
    share = np.clip(((points - start) * along).sum(axis=-1) / length, 0.0, 1.0)
    return np.asarray(np.hypot(*np.moveaxis(points - start - share[..., None] * along, -1, 0)))


def apart(first: Runs, second: Runs) -> Floats:
    """How far straight lines are from each other, m, (n,); 0 where they cross.

    Args:
        first: the lines by their ends, m, (n, 2) each.
        second: those that they are held against, likewise.
    """
    off = np.minimum.reduce(
        [
            off_line(second[0], *first),
            off_line(second[1], *first),
            off_line(first[0], *second),
            off_line(first[1], *second),
        ]
    )
    return np.where(_cross(*first, *second), 0.0, off)


def _cross(a: Floats, b: Floats, c: Floats, d: Floats) -> Bools:
    """Whether the lines from a to b and from c to d cross, all (n, 2); (n,)."""

    def side(first: Floats, second: Floats, at: Floats) -> Floats:
        step, off = second - first, at - first
        return np.asarray(step[:, 0] * off[:, 1] - step[:, 1] * off[:, 0])

    return np.asarray((side(a, b, c) * side(a, b, d) < 0.0) & (side(c, d, a) * side(c, d, b) < 0.0))
