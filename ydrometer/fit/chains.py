"""What a roller chain asks for beyond the length of its loop: whole links, an even number, and the polygon's ripple."""

from __future__ import annotations

import math

from ydrometer.fit import loops


def pitch_diameter(pitch: float, teeth: int) -> float:
    """Of the circle on which the pins run, m: p/sin(π/z) (ISO 606).

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


def links(pitch: float, driver: int, driven: int, distance: float) -> float:
    """How many links the loop has for shafts `distance` apart: rarely a whole number.

    Args:
        pitch: m.
        driver, driven: teeth.
        distance: m.
    """
    return loops.length(loops.pitch_radius(pitch, driver), loops.pitch_radius(pitch, driven), distance) / pitch


def even_links(pitch: float, driver: int, driven: int, least: float) -> tuple[int, float]:
    """The shortest chain of an even number of links for shafts at least so far apart, and their distance then, m.

    An odd number needs an offset link, which carries less.

    Args:
        pitch: m.
        driver, driven: teeth.
        least: distance, m, at which the sprockets do not touch.
    """
    count = 2 * math.ceil(links(pitch, driver, driven, least) / 2.0 - 1e-9)
    found = loops.centre_distance(count * pitch, loops.pitch_radius(pitch, driver), loops.pitch_radius(pitch, driven))
    return count, least if found is None else found
