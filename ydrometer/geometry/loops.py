"""Loops around two wheels, open and crossed: length, centre distance and wraps.

Exact open-belt geometry: L = 2·C·cos(be) + π·(r1 + r2) + 2·be·(r2 − r1), be = asin((r2 − r1)/C)
(Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter 17, section on flat- and round-belt drives, open
and crossed belt). The length of a chain follows the same formula with r = z·p/(2·π).
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

Point = tuple[float, float]
Run = tuple[Point, Point]


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
    """Distance at which an open loop of the given length is taut, m; None where the wheels would touch.

    The length grows with the distance (dL/dC = 2·cos(be)), so Newton's method from above settles in a few steps.

    Args:
        loop: length, m.
        r1, r2: radii, m.
    """
    return _solved(loop, r1, r2, length, lean, 0.5 * (loop - math.pi * (r1 + r2)) + abs(r2 - r1))


def crossed_centre_distance(loop: float, r1: float, r2: float) -> float | None:
    """Distance at which a crossed loop of the given length is taut, m; None where the wheels would touch.

    Args:
        loop: length, m.
        r1, r2: radii, m.
    """
    return _solved(loop, r1, r2, crossed_length, crossed_lean, 0.5 * loop)


def _solved(
    loop: float,
    r1: float,
    r2: float,
    of: Callable[[float, float, float], float],
    leaning: Callable[[float, float, float], float],
    first: float,
) -> float | None:
    least = r1 + r2
    close = least * (1.0 + 1e-12)
    if loop <= of(r1, r2, close):
        return None
    distance = max(first, close)
    for _ in range(60):
        step = (of(r1, r2, distance) - loop) / (2.0 * math.cos(leaning(r1, r2, distance)))
        distance = max(distance - step, close)
        if abs(step) < 1e-15 * distance:
            break
    return distance


def pitch_radius(pitch: float, teeth: float) -> float:
    """Radius of the circle on which a loop's pieces are as long as its pitch, m: z·p/(2·π).

    It is the pitch radius of a pulley (ISO 5294, Synchronous belt drives: Pulleys), and the radius by
    which the length of a chain is computed (ISO 606, Short-pitch transmission precision roller and bush chains).

    Args:
        pitch: m.
        teeth: of the wheel.
    """
    return teeth * pitch / (2.0 * math.pi)


def in_mesh(teeth: int, wrap: float) -> int:
    """Whole teeth of a pulley that its belt holds: floor(z·wrap/(2·π)).

    Args:
        teeth: of the pulley.
        wrap: angle of contact, rad.
    """
    return math.floor(teeth * wrap / (2.0 * math.pi) + 1e-9)


def wraps(r1: float, r2: float, distance: float) -> tuple[float, float]:
    """Angles of contact on the first and the second wheel, rad: π − 2·be and π + 2·be."""
    be = lean(r1, r2, distance)
    return math.pi - 2.0 * be, math.pi + 2.0 * be


def runs(c1: Point, r1: float, c2: Point, r2: float, *, crossed: bool = False) -> tuple[Run, Run]:
    """The two free runs, each from the first wheel to the second: on the left of the line of centres, on its right.

    A crossed run leaves the second wheel on the other side, as an open one would of a wheel of negative radius.

    Args:
        c1: centre of the first wheel, m.
        r1: its radius, m.
        c2: centre of the second, m.
        r2: its radius, m.
        crossed: whether the runs cross.

    Raises:
        ValueError: the distance is too short for the runs to exist.
    """
    signed = -r2 if crossed else r2
    towards = math.atan2(c2[1] - c1[1], c2[0] - c1[0])
    half = 0.5 * math.pi + lean(r1, signed, math.dist(c1, c2))

    def run(angle: float) -> Run:
        across, up = math.cos(angle), math.sin(angle)
        return (c1[0] + r1 * across, c1[1] + r1 * up), (c2[0] + signed * across, c2[1] + signed * up)

    return run(towards + half), run(towards - half)


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


class Shape(NamedTuple):
    """The functions of one way to go around two wheels."""

    length: Callable[[float, float, float], float]
    lean: Callable[[float, float, float], float]
    wraps: Callable[[float, float, float], tuple[float, float]]
    centre_distance: Callable[[float, float, float], float | None]


OPEN = Shape(length, lean, wraps, centre_distance)
CROSSED = Shape(crossed_length, crossed_lean, crossed_wraps, crossed_centre_distance)
