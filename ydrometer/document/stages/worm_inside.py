"""A cut through a worm drive."""

from __future__ import annotations

from ydrometer.document.stages.inside import BoxPart, Inside


def inside(height: float) -> Inside:
    """The worm's axis lies in the plane, its wheel is seen end on and touches it.

    Args:
        height: of the case, m.
    """
    thick, wheel = 0.12 * height, 0.36 * height
    worm = BoxPart("worm", 0, thick, 0.0, thick)
    driven = BoxPart("thick wheel", 0, 2 * thick + wheel, 0.0, wheel)
    return Inside(2.0 * (thick + wheel), height, (worm, driven))
