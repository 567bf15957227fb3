"""What a roller chain asks for beyond the length of its loop: whole links, an even number, and the polygon's ripple."""

from __future__ import annotations

import math


def pitch_diameter(pitch: float, teeth: float) -> float:
    """Diameter of the circle on which the pins run, m: p/sin(π/z) (ISO 606, Short-pitch transmission
    precision roller and bush chains).

    Args:
        pitch: m.
        teeth: at least 3.
    """
    return pitch / math.sin(math.pi / teeth)


def ripple(teeth: int) -> float:
    """Share by which the chain's speed falls between two teeth: 1 − cos(π/z).

    Args:
        teeth: at least 3.
    """
    return 1.0 - math.cos(math.pi / teeth)
