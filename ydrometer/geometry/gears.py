"""Gear pairs in the plane: centre distance, backlash and outside diameter.

Involute gears without profile shift (ISO 21771, Cylindrical involute gears: Concepts and geometry): the reference
diameter is m·z. A backlash j at the pitch circle moves the centres of an external pair apart by j/(2·tan(phi)), and
those of an internal pair together by as much.
"""

from __future__ import annotations

import math


def centre_distance(
    module: float, driver: int, driven: int, pressure_angle: float, *, internal: bool = False, backlash: float = 0.0
) -> float:
    """Distance of the shafts, m.

    Args:
        module: m, above 0.
        driver, driven: teeth.
        pressure_angle: rad, above 0 and below a right angle.
        internal: whether the driven gear is a ring around the driver; then driven must be larger.
        backlash: at the pitch circle, m, at least 0.

    Raises:
        ValueError: a ring that is not larger than what is inside it.
    """
    if internal and driven <= driver:
        raise ValueError(f"a ring of {driven} teeth holds no gear of {driver}")
    gap = backlash / (2.0 * math.tan(pressure_angle))
    if internal:
        return module * (driven - driver) / 2.0 - gap
    return module * (driver + driven) / 2.0 + gap


def backlash(
    distance: float, module: float, driver: int, driven: int, pressure_angle: float, *, internal: bool = False
) -> float:
    """Backlash at the pitch circle, m, for shafts `distance` apart; negative where they are too close to go together.

    Args:
        distance: of the shafts, m.
        module, driver, driven, pressure_angle, internal: as for `centre_distance`.
    """
    free = centre_distance(module, driver, driven, pressure_angle, internal=internal)
    return 2.0 * math.tan(pressure_angle) * (free - distance if internal else distance - free)


def rocking(backlash: float, pitch_radius: float, radius: float) -> float:
    """How far a point at `radius` of a wheel moves to and fro, m, with its mate held: backlash·radius/pitch radius.

    Args:
        backlash: at the pitch circle, m.
        pitch_radius: of the wheel, m.
        radius: where it is felt, m.
    """
    return backlash * radius / pitch_radius


def outside_diameter(module: float, teeth: int) -> float:
    """Over the tips of an external gear, m: m·(z + 2).

    Args:
        module: m.
        teeth: of the gear.
    """
    return module * (teeth + 2)
