"""A cut through a box of several speeds."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.document.stages.inside import WALL, BoxPart, Inside


def inside(ratios: Sequence[float], height: float) -> Inside:
    """Each gear as a pair whose circles touch, the driver above; all at one centre distance.

    Args:
        ratios: from the lowest gear up.
        height: of the case, m.
    """
    between = 0.5 * height / WALL
    each = 2.0 * WALL * between * max(max(i, 1.0) / (1.0 + i) for i in ratios)
    parts = []
    for step, i in enumerate(ratios):
        driver, driven = between / (1.0 + i), between * i / (1.0 + i)
        x = each * (step + 0.5)
        top = 0.5 * height / WALL
        parts += [BoxPart("wheel", step, x, top - driver, driver), BoxPart("wheel", step, x, -top + driven, driven)]
    return Inside(each * len(ratios), height, tuple(parts), tuple(ratios))
