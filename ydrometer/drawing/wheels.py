"""Wheels of each form, with the phase at which they mesh."""

from __future__ import annotations

import math

from ydrometer.drawing import teeth as outlines
from ydrometer.drawing.shapes import Wheel
from ydrometer.fit.chains import pitch_diameter
from ydrometer.fit.loops import pitch_radius

BELT_LINE = 0.11
"""How far a belt pulley's rim lies inside its pitch circle, relative to the pitch (ISO 13050, middle of the range)."""
ROLLER = 0.625
"""Roller diameter of a chain relative to its pitch (ISO 606, common sizes); half of it stands over the pitch circle."""
RIM = 2.25
"""Thickness of a ring outside its pitch circle, in modules."""


def gear(
    path: str, member: str, shaft: int, x: float, teeth: int, size: float, angle: float, *, ring: bool, sense: int,
    phase: float,
) -> Wheel:  # fmt: skip
    """A spur gear or a ring of module `size`, m, and pressure angle `angle`, rad."""
    radius = 0.5 * size * teeth
    outer = radius + (RIM * size if ring else size)
    tooth = outlines.involute(teeth, size, angle, internal=ring)
    return Wheel(path, member, "ring" if ring else "gear", shaft, x, 0.0, radius, outer, teeth, tooth, phase, sense)


def meshing_phase(before: Wheel, teeth: int, *, ring: bool) -> float:
    """The phase of the next gear to the right, so that one of its gaps takes the tooth of `before` nearest to it.

    Arcs along both pitch circles are equal at the contact. A gear is met to the right; a ring, whose middle lies to the
    right, to the left, and its angles run the same way.
    """
    assert before.teeth is not None  # only gears have a next one in the row
    contact = math.pi if ring else 0.0
    each = 2.0 * math.pi / before.teeth
    past = (before.phase - contact + 0.5 * each) % each - 0.5 * each
    turned = past * before.teeth / teeth
    gap = contact + turned if ring else math.pi - turned
    return gap + math.pi / teeth


def pulley(path: str, member: str, shaft: int, x: float, teeth: int, pitch: float, sense: int) -> Wheel:
    """A pulley on its pitch circle z·p/(2·π)."""
    radius = pitch_radius(pitch, teeth)
    rim = radius - BELT_LINE * pitch
    tooth = outlines.pulley(teeth, pitch, rim)
    return Wheel(path, member, "pulley", shaft, x, 0.0, radius, rim, teeth, tooth, 0.5 * math.pi, sense)


def sprocket(path: str, member: str, shaft: int, x: float, teeth: int, pitch: float, sense: int) -> Wheel:
    """A sprocket on its pitch circle p/(2·sin(π/z))."""
    radius = 0.5 * pitch_diameter(pitch, teeth)
    tooth = outlines.sprocket(teeth, pitch)
    outer = radius + 0.5 * ROLLER * pitch
    return Wheel(path, member, "sprocket", shaft, x, 0.0, radius, outer, teeth, tooth, 0.5 * math.pi, sense)
