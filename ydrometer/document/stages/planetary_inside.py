"""A cut through a planetary stack: each step end on, side by side though they share one axis."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

from ydrometer.document.stages.inside import WALL, BoxPart, Inside

LEAST_FOR_PLANETS = 2.15
"""A step's reduction 1 + z_ring/z_sun below which there is no room for planets between sun and ring."""


def inside(reductions: Sequence[float], height: float) -> Inside:
    """Each step with its ring held: sun, planets and ring in the proportion i = 1 + z_ring/z_sun.

    Args:
        reductions: of the steps, from the motor on.
        height: of the case, m.
    """
    ring = 0.5 * height / WALL
    parts = tuple(p for step, i in enumerate(reductions) for p in _step(step, i, ring, height * (step + 0.5)))
    return Inside(height * len(reductions), height, parts, tuple(reductions))


def _step(step: int, reduction: float, ring: float, x: float) -> Iterable[BoxPart]:
    yield BoxPart("rim", step, x, 0.0, ring)
    if reduction < LEAST_FOR_PLANETS:
        yield BoxPart("solid", step, x, 0.0, 0.5 * ring)
        return
    sun = ring / (reduction - 1.0)
    planet, orbit = 0.5 * (ring - sun), 0.5 * (ring + sun)
    yield BoxPart("solid", step, x, 0.0, sun)
    # As many planets, three at most, as pass each other.
    count = 3 if orbit * math.sin(math.pi / 3.0) > planet else 2
    for k in range(count):
        turn = 0.5 * math.pi + 2.0 * math.pi * k / count
        yield BoxPart("roller", step, x + orbit * math.cos(turn), orbit * math.sin(turn), planet)
