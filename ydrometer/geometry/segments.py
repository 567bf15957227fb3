"""Straight lines between two places: what of them is nearest to something."""

from __future__ import annotations

import math

from ydrometer.geometry.loops import Point, Run


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
