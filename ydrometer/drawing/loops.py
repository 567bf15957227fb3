"""Loops as they are drawn: runs and arcs around two wheels."""

from __future__ import annotations

import math

from ydrometer.drawing.shapes import Segment
from ydrometer.fit.loops import crossed_lean, crossed_wraps, lean, wraps

Point = tuple[float, float]


def path(c1: Point, r1: float, c2: Point, r2: float) -> list[Segment]:
    """The loop as upper run, arc, lower run, arc: clockwise around both wheels."""
    distance = math.dist(c1, c2)
    towards = math.atan2(c2[1] - c1[1], c2[0] - c1[0])
    half = math.pi / 2.0 + lean(r1, r2, distance)
    upper, lower = towards + half, towards - half
    wrap1, wrap2 = wraps(r1, r2, distance)
    a, b = _on(c1, r1, upper), _on(c2, r2, upper)
    c, d = _on(c2, r2, lower), _on(c1, r1, lower)
    return [
        Segment(*a, *b, 0.0, 0.0),
        Segment(*b, *c, r2, wrap2),
        Segment(*c, *d, 0.0, 0.0),
        Segment(*d, *a, r1, wrap1),
    ]


def crossed_path(c1: Point, r1: float, c2: Point, r2: float) -> list[Segment]:
    """A crossed loop: falling run, arc anticlockwise, the other run, arc clockwise."""
    distance = math.dist(c1, c2)
    towards = math.atan2(c2[1] - c1[1], c2[0] - c1[0])
    half = math.pi / 2.0 - crossed_lean(r1, r2, distance)
    wrap1, wrap2 = crossed_wraps(r1, r2, distance)
    a, d = _on(c1, r1, towards + half), _on(c1, r1, towards - half)
    b, c = _on(c2, r2, towards + half + math.pi), _on(c2, r2, towards - half + math.pi)
    return [
        Segment(*a, *b, 0.0, 0.0),
        Segment(*b, *c, r2, -wrap2),
        Segment(*c, *d, 0.0, 0.0),
        Segment(*d, *a, r1, wrap1),
    ]


def _on(centre: Point, radius: float, angle: float) -> Point:
    return centre[0] + radius * math.cos(angle), centre[1] + radius * math.sin(angle)
