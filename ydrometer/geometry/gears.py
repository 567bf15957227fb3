"""Gear pairs in the plane: centre distance, backlash, contact ratio and outside diameter.

Involute gears without profile shift (ISO 21771, Cylindrical involute gears: Concepts and geometry): the reference
diameter is m·z. A backlash j at the pitch circle moves the centres of an external pair apart by j/(2·tan(phi)), and
those of an internal pair together by as much.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

SMALLEST = 1e-9


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


def least_teeth(pressure_angle: float) -> float:
    """Teeth below which a rack undercuts an external gear without profile shift: 2/sin²(phi) (Budynas and Nisbett,
    Shigley's Mechanical Engineering Design, chapter 13, Interference).

    Args:
        pressure_angle: rad, above 0 and below a right angle.
    """
    return 2.0 / math.sin(pressure_angle) ** 2


def least_ring(pressure_angle: float) -> int:
    """Teeth of a ring from which on its tips, m·(z − 2) across, lie outside its base circle: 2/(1 − cos(phi)).

    Args:
        pressure_angle: rad, above 0 and below a right angle; of very small ones the number is cut.
    """
    return math.ceil(1.0 / max(SMALLEST, math.sin(0.5 * pressure_angle) ** 2))


def contact_ratio(
    module: float, driver: int, driven: int, pressure_angle: float, distance: float, *, internal: bool = False
) -> float:
    """How many pairs of teeth carry on average: the path of contact over the pitch along it (ISO 21771, Cylindrical
    involute gears: Concepts and geometry, transverse contact ratio); 0 or less where teeth do not reach each other.

    Args:
        module: m.
        driver, driven: teeth.
        pressure_angle: of the rack, rad.
        distance: of the shafts, m.
        internal: whether the driven gear is a ring around the driver.
    """
    reached, between = _path(module, driver, driven, pressure_angle, internal=internal)
    along = math.sqrt(max(0.0, distance**2 - between**2))
    return float((reached + along if internal else reached - along) / (math.pi * module * math.cos(pressure_angle)))


def distance_of_contact(
    module: Any, driver: Any, driven: Any, pressure_angle: float, ratio: float, *, internal: bool = False
) -> Any:
    """Distance at which a pair has a contact ratio, m: nearer, in a ring farther, it is more; numbers or arrays.

    Args:
        module, driver, driven, pressure_angle: as for `contact_ratio`.
        ratio: the contact ratio, above 0.
        internal: as for `contact_ratio`.
    """
    reached, between = _path(module, driver, driven, pressure_angle, internal=internal)
    wanted = ratio * math.pi * module * math.cos(pressure_angle)
    return np.hypot(between, np.maximum(0.0, wanted - reached if internal else reached - wanted))


def _path(module: Any, driver: Any, driven: Any, pressure_angle: float, *, internal: bool) -> tuple[Any, Any]:
    """How far both tips reach along the line of action, and the sum of the base radii, m; in a ring the differences."""
    radii = [0.5 * module * teeth for teeth in (driver, driven)]
    bases = [radius * math.cos(pressure_angle) for radius in radii]
    tips = [radii[0] + module, radii[1] + (-module if internal else module)]
    reaches = [np.sqrt(np.maximum(0.0, tip**2 - base**2)) for tip, base in zip(tips, bases, strict=True)]
    if internal:
        return reaches[0] - reaches[1], bases[1] - bases[0]
    return reaches[0] + reaches[1], bases[0] + bases[1]


def tips_foul(driver: int, ring: int, pressure_angle: float) -> bool:
    """Whether the tips of a gear and of the ring around it run into each other outside of the mesh.

    The tip of a tooth of the gear leaves the tip circle of the ring behind the mesh; by then the tooth of the ring must
    have gone on (Colbourne, The Geometry of Involute Gears, chapter 8, Internal gears, tip interference). Full-depth
    teeth without profile shift, at the distance without backlash; lengths in modules.

    Args:
        driver: teeth of the gear inside.
        ring: teeth of the ring, more than those.
        pressure_angle: rad, above 0 and below a right angle.
    """
    distance = 0.5 * (ring - driver)
    tip, inner = 0.5 * driver + 1.0, 0.5 * ring - 1.0
    leaving = (inner**2 - tip**2 - distance**2) / (2.0 * distance * tip)
    if leaving >= 1.0:
        # The gear stays inside the tip circle of the ring: they do not even meet.
        return False
    if leaving <= -1.0:
        return True
    gear_turn = math.acos(leaving) + _involute_at(tip, driver, pressure_angle) - _involute(pressure_angle)
    ring_angle = math.acos((distance**2 + inner**2 - tip**2) / (2.0 * distance * inner))
    ring_turn = ring_angle + _involute_at(inner, ring, pressure_angle) - _involute(pressure_angle)
    return gear_turn * driver / ring < ring_turn


def _involute(angle: float) -> float:
    """Involute function: tan(a) − a."""
    return math.tan(angle) - angle


def _involute_at(radius: float, teeth: int, pressure_angle: float) -> float:
    """Involute function at a radius, in modules; 0 inside the base circle, where teeth have no involute."""
    return _involute(math.acos(min(1.0, 0.5 * teeth * math.cos(pressure_angle) / radius)))
