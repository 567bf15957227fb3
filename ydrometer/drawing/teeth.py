"""Outlines of one tooth, as radii over angles: involute gears, pulleys of toothed belts, sprockets.

Involute: at the radius r the flank stands at inv(acos(r_b/r)) from its foot on the base circle r_b = r_p·cos(alpha),
with inv(a) = tan(a) − a; the tooth is π·m/2 thick on the pitch circle (ISO 53, ISO 54: head 1·m, foot 1.25·m).
"""

from __future__ import annotations

import math
from functools import lru_cache

from ydrometer.drawing.shapes import Tooth
from ydrometer.geometry.chains import pitch_diameter

HEAD = 1.0
FOOT = 1.25
"""Height over and depth under the pitch circle, in modules (ISO 53, Cylindrical gears: Standard basic rack)."""
FLANK_POINTS = 5
GROOVE_DEPTH = 0.36
"""Depth of a belt pulley's grooves relative to the pitch, middle of the usual profiles (ISO 13050, Synchronous belt
drives: Metric pitch, curvilinear profiles)."""
GROOVE_HALF = 0.33
"""Half the width of a groove at the rim, relative to the pitch."""
ROLLER_HALF = 0.3125
"""Half a roller's diameter relative to the chain's pitch (ISO 606, Short-pitch transmission precision roller and bush
chains, common sizes)."""
SEAT_POINTS = 7
CACHED = 512


@lru_cache(CACHED)
def involute(teeth: int, module: float, pressure_angle: float, *, internal: bool = False) -> Tooth:
    """A tooth of a spur gear; of a ring the gap of the same external gear, so that the tooth points inwards.

    Args:
        teeth: 5 or more. module: m. pressure_angle: rad, above 0.
    """
    pitch = 0.5 * teeth * module
    base = pitch * math.cos(pressure_angle)
    root, tip = pitch - FOOT * module, pitch + HEAD * module
    half = math.pi / (2.0 * teeth)
    if internal:
        root, tip = pitch - HEAD * module, pitch + FOOT * module
    low = max(root, base)
    flank = [low + (tip - low) * i / (FLANK_POINTS - 1) for i in range(FLANK_POINTS)]
    # Half the tooth's angle at r: that on the pitch circle, less what the involute has turned beyond it.
    angles = [max(0.0, half + _inv(pressure_angle) - _inv(math.acos(min(1.0, base / r)))) for r in flank]
    points = [(min(root, low), angles[0]), *zip(flank, angles, strict=True)]
    outline = _mirrored(points, math.pi / teeth)
    if not internal:
        return outline
    # The gap of the outline stands half a pitch further on; between two teeth lies what was the tip.
    each = math.pi / teeth
    turned = sorted((a + each if a < 0.0 else a - each, r) for r, a in zip(outline.radii, outline.angles, strict=True))
    return Tooth([tip, *(r for _, r in turned), tip], [-each, *(a for a, _ in turned), each])


def _inv(angle: float) -> float:
    return math.tan(angle) - angle


@lru_cache(CACHED)
def pulley(teeth: int, pitch: float, rim: float) -> Tooth:
    """A land of a toothed-belt pulley between two grooves.

    Args:
        teeth: number. pitch: of the belt, m. rim: outer radius, m.
    """
    each = math.pi / teeth
    edge, floor = each * (1.0 - 2.0 * GROOVE_HALF), each * (1.0 - 1.3 * GROOVE_HALF)
    deep = rim - GROOVE_DEPTH * pitch
    return _mirrored([(deep, floor), (rim, edge)], each)


@lru_cache(CACHED)
def sprocket(teeth: int, pitch: float) -> Tooth:
    """A tooth of a chain sprocket between two roller seats on the pitch circle p/(2·sin(π/z)) (ISO 606)."""
    radius = 0.5 * pitch_diameter(pitch, teeth)
    each = math.pi / teeth
    roller = ROLLER_HALF * pitch
    seat = []
    for i in range(SEAT_POINTS):
        turn = 0.5 * math.pi * i / (SEAT_POINTS - 1)
        # From the bottom of the seat, at half a pitch, round the roller to its flank.
        x, y = radius - roller * math.cos(turn), roller * math.sin(turn)
        seat.append((math.hypot(x, y), each - math.atan2(y, x)))
    tip = radius + 0.9 * roller
    return _mirrored([*seat, (tip, min(0.35 * each, 0.8 * seat[-1][1]))], each)


def _mirrored(half: list[tuple[float, float]], each: float) -> Tooth:
    """The whole outline from the points of one side, from the gap to the tip."""
    low = half[0][0]
    # With very few teeth a seat reaches round behind itself; the outline then goes straight up.
    side, last = [], each
    for r, a in half:
        last = min(last, a)
        side.append((r, last))
    points = [(low, -each), *((r, -a) for r, a in side), *((r, a) for r, a in reversed(side)), (low, each)]
    return Tooth([r for r, _ in points], [a for _, a in points])
