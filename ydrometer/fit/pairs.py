"""Gear pairs in the plane: centre distance, play, outside diameter, and which gears mesh at all.

Involute gears without profile shift (ISO 21771): reference diameter m·z; a play j at the pitch circle moves the
centres of an external pair apart by j/(2·tan(phi)), those of an internal pair together.
"""

from __future__ import annotations

import math

SAME = 1e-6
"""Relative difference up to which modules and pressure angles are equal."""


def centre_distance(
    module: float, driver: int, driven: int, pressure_angle: float, *, internal: bool = False, play: float = 0.0
) -> float:
    """Distance of the shafts, m.

    Args:
        module: m, above 0.
        driver, driven: teeth.
        pressure_angle: rad, above 0 and below a right angle.
        internal: whether the driven gear is a ring around the driver; then driven must be larger.
        play: at the pitch circle, m, at least 0.

    Raises:
        ValueError: a ring that is not larger than what is inside it.
    """
    if internal and driven <= driver:
        raise ValueError(f"a ring of {driven} teeth holds no gear of {driver}")
    gap = play / (2.0 * math.tan(pressure_angle))
    if internal:
        return module * (driven - driver) / 2.0 - gap
    return module * (driver + driven) / 2.0 + gap


def play(
    distance: float, module: float, driver: int, driven: int, pressure_angle: float, *, internal: bool = False
) -> float:
    """Play at the pitch circle, m, for shafts `distance` apart; negative where they are too close to go together.

    Args:
        distance: of the shafts, m.
        module, driver, driven, pressure_angle, internal: as for `centre_distance`.
    """
    free = centre_distance(module, driver, driven, pressure_angle, internal=internal)
    return 2.0 * math.tan(pressure_angle) * (free - distance if internal else distance - free)


def rocking(play_: float, pitch_radius: float, radius: float) -> float:
    """How far a point at `radius` of a wheel moves to and fro, m, with its mate held: play·radius/pitch radius.

    Args:
        play_: at the pitch circle, m.
        pitch_radius: of the wheel, m.
        radius: where it is felt, m.
    """
    return play_ * radius / pitch_radius


def outside_diameter(module: float, teeth: int) -> float:
    """Over the tips of an external gear, m: m·(z + 2).

    Args:
        module: m.
        teeth: of the gear.
    """
    return module * (teeth + 2)


def mismatch(one: tuple[float, float], other: tuple[float, float]) -> str:
    """Why two gears do not mesh, empty where they do.

    Args:
        one, other: module, m, and pressure angle, rad, of each.
    """
    if abs(one[0] - other[0]) > SAME * one[0]:
        return f"modules {one[0] * 1e3:.4g} mm and {other[0] * 1e3:.4g} mm differ"
    if abs(one[1] - other[1]) > SAME * one[1]:
        return f"pressure angles {math.degrees(one[1]):.3g}° and {math.degrees(other[1]):.3g}° differ"
    return ""
