"""What is inside a stage whose sizes are not given: cuts with the right proportions."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from ydrometer.drawing.shapes import BoxPart

CLEAR = 0.5
"""Gap between a wheel's shaft and the case behind it, relative to the road wheel's radius."""
WALL = 1.12
"""Room of a step relative to the circle in it."""
LEAST_FOR_PLANETS = 2.15
"""A step's reduction 1 + z_ring/z_sun below which there is no room for planets between sun and ring."""


@dataclass(frozen=True, slots=True)
class Inner:
    """A case of this length and height, and its parts from x = 0 at its near face."""

    length: float
    height: float
    parts: tuple[BoxPart, ...]

    def placed(self, near: float) -> list[BoxPart]:
        """The parts where the near face of the case stands at x = near."""
        return [replace(part, x=part.x + near) for part in self.parts]


def closed(length: float, height: float) -> Inner:
    """A case that shows nothing."""
    return Inner(length, height, ())


def planetary(reductions: Sequence[float], height: float) -> Inner:
    """Each step end on, ring held: sun, planets and ring in the proportion i = 1 + z_ring/z_sun."""
    ring = 0.5 * height / WALL
    each = height
    parts = tuple(p for step, i in enumerate(reductions) for p in _step(step, i, ring, each * (step + 0.5)))
    return Inner(each * len(reductions), height, parts)


def _step(step: int, reduction: float, ring: float, x: float) -> Iterable[BoxPart]:
    yield BoxPart("ring", step, x, 0.0, ring)
    if reduction < LEAST_FOR_PLANETS:
        yield BoxPart("sun", step, x, 0.0, 0.5 * ring)
        return
    sun = ring / (reduction - 1.0)
    planet, orbit = 0.5 * (ring - sun), 0.5 * (ring + sun)
    yield BoxPart("sun", step, x, 0.0, sun)
    # As many planets, three at most, as pass each other.
    count = 3 if orbit * math.sin(math.pi / 3.0) > planet else 2
    for k in range(count):
        turn = 0.5 * math.pi + 2.0 * math.pi * k / count
        yield BoxPart("planet", step, x + orbit * math.cos(turn), orbit * math.sin(turn), planet)


def speeds(ratios: Sequence[float], height: float) -> Inner:
    """Each gear as a pair whose circles touch, the driver above; all at one centre distance."""
    between = 0.5 * height / WALL
    each = 2.0 * WALL * between * max(max(i, 1.0) / (1.0 + i) for i in ratios)
    parts = []
    for step, i in enumerate(ratios):
        driver, driven = between / (1.0 + i), between * i / (1.0 + i)
        x = each * (step + 0.5)
        top = 0.5 * height / WALL
        parts += [BoxPart("driver", step, x, top - driver, driver), BoxPart("driven", step, x, -top + driven, driven)]
    return Inner(each * len(ratios), height, tuple(parts))


def worm(height: float) -> Inner:
    """The worm's axis lies in the plane, its wheel is seen end on and touches it."""
    thick, wheel = 0.12 * height, 0.36 * height
    worm_part = BoxPart("worm", 0, thick, 0.0, thick)
    wheel_part = BoxPart("worm wheel", 0, 2 * thick + wheel, 0.0, wheel)
    return Inner(2.0 * (thick + wheel), height, (worm_part, wheel_part))
