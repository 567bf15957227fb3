"""Loops as they are drawn: runs and arcs around two wheels."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ydrometer.drawing.shapes import Segment
from ydrometer.geometry.around import Round, taut
from ydrometer.geometry.loops import Point, crossed_wraps, runs, wraps


def path(c1: Point, r1: float, c2: Point, r2: float) -> list[Segment]:
    """The loop as upper run, arc, lower run, arc: clockwise around both wheels."""
    (a, b), (d, c) = runs(c1, r1, c2, r2)
    wrap1, wrap2 = wraps(r1, r2, math.dist(c1, c2))
    return [
        Segment(*a, *b, 0.0, 0.0),
        Segment(*b, *c, r2, wrap2),
        Segment(*c, *d, 0.0, 0.0),
        Segment(*d, *a, r1, wrap1),
    ]


def crossed_path(c1: Point, r1: float, c2: Point, r2: float) -> list[Segment]:
    """A crossed loop: falling run, arc anticlockwise, the other run, arc clockwise."""
    (a, b), (d, c) = runs(c1, r1, c2, r2, crossed=True)
    wrap1, wrap2 = crossed_wraps(r1, r2, math.dist(c1, c2))
    return [
        Segment(*a, *b, 0.0, 0.0),
        Segment(*b, *c, r2, -wrap2),
        Segment(*c, *d, 0.0, 0.0),
        Segment(*d, *a, r1, wrap1),
    ]


def around_path(wheels: Sequence[Round]) -> list[Segment]:
    """A loop around wheels in the order in which it meets them anticlockwise: a run, then the arc on the next wheel.

    Raises:
        ValueError: as `geometry.around.taut`.
    """
    loop = taut(wheels)
    pieces = []
    for i, (start, end) in enumerate(loop.runs):
        place = (i + 1) % len(wheels)
        wrap = loop.wraps[place] if wheels[place].outside else -loop.wraps[place]
        pieces += [
            Segment(*start, *end, 0.0, 0.0),
            Segment(*end, *loop.runs[place][0], wheels[place].radius, wrap),
        ]
    return pieces
