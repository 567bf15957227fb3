"""Open loops around two wheels: length, centre distance, tangents and wraps.

Exact open-belt geometry: L = 2·C·cos(be) + π·(r1 + r2) + 2·be·(r2 − r1), be = asin((r2 − r1)/C)
(ISO 5296, ISO 13050). A chain's length follows the same
formula with r = z·p/(2·π) (ISO 606).
"""

from __future__ import annotations

import math

from ydrometer.drawing.shapes import Segment

Point = tuple[float, float]


def lean(r1: float, r2: float, distance: float) -> float:
    """Angle be between a free run and the line of centres, rad; positive where the second wheel is larger.

    Raises:
        ValueError: the distance is too short for the run to exist.
    """
    if not distance > abs(r2 - r1):
        raise ValueError(f"a centre distance above {abs(r2 - r1):g} m is needed, {distance:g} m given")
    return math.asin((r2 - r1) / distance)


def length(r1: float, r2: float, distance: float) -> float:
    """Length of the loop, m, for centres `distance` apart."""
    be = lean(r1, r2, distance)
    return 2.0 * distance * math.cos(be) + math.pi * (r1 + r2) + 2.0 * be * (r2 - r1)


def centre_distance(loop: float, r1: float, r2: float) -> float | None:
    """Distance at which a loop of the given length is taut, m; None where the wheels would touch.

    The length grows with the distance (dL/dC = 2·cos(be)), so Newton's method from above settles in a few steps.
    """
    least = r1 + r2
    if loop <= length(r1, r2, least):
        return None
    distance = 0.5 * (loop - math.pi * least) + abs(r2 - r1)
    for _ in range(60):
        step = (length(r1, r2, distance) - loop) / (2.0 * math.cos(lean(r1, r2, distance)))
        distance -= step
        if abs(step) < 1e-15 * distance:
            break
    return distance


def wraps(r1: float, r2: float, distance: float) -> tuple[float, float]:
    """Angles of contact on the first and the second wheel, rad: π − 2·be and π + 2·be."""
    be = lean(r1, r2, distance)
    return math.pi - 2.0 * be, math.pi + 2.0 * be


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


def crossed_lean(r1: float, r2: float, distance: float) -> float:
    """Angle be between a crossed run and the line of centres, rad: be = asin((r1 + r2)/C).

    Raises:
        ValueError: the wheels would touch.
    """
    if not distance > r1 + r2:
        raise ValueError(f"a centre distance above {r1 + r2:g} m is needed, {distance:g} m given")
    return math.asin((r1 + r2) / distance)


def crossed_length(r1: float, r2: float, distance: float) -> float:
    """Length of a crossed round or V-belt, m: L = 2·C·cos(be) + (r1 + r2)·(π + 2·be)."""
    be = crossed_lean(r1, r2, distance)
    return 2.0 * distance * math.cos(be) + (r1 + r2) * (math.pi + 2.0 * be)


def crossed_wraps(r1: float, r2: float, distance: float) -> tuple[float, float]:
    """Angles of contact of a crossed belt, rad: π + 2·be on both wheels."""
    wrap = math.pi + 2.0 * crossed_lean(r1, r2, distance)
    return wrap, wrap


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
