"""What a mount allows: how far an eccentric moves a shaft, and which pinions a slot takes."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ydrometer.geometry import gears


def eccentric_distance(throw: float, least: float, angle: float) -> float:
    """Distance of a shaft on an eccentric from its partner, m: C² = (C0 + e)² + e² − 2·(C0 + e)·e·cos(psi).

    The shaft goes round the middle of the mount, which lies a throw e behind the nearest place (law of cosines).

    Args:
        throw: of the eccentric, e, m.
        least: distance where the shaft is nearest to its partner, C0, m.
        angle: turned from there, psi, rad.
    """
    middle = least + throw
    return math.sqrt(middle**2 + throw**2 - 2.0 * middle * throw * math.cos(angle))


def eccentric_angle(throw: float, least: float, distance: float) -> float | None:
    """The angle, rad, at which a shaft on an eccentric has a distance; None where it does not come there.

    Args:
        throw, least: as for `eccentric_distance`.
        distance: wanted, m.
    """
    middle = least + throw
    share = (middle**2 + throw**2 - distance**2) / (2.0 * middle * throw)
    return math.acos(share) if abs(share) <= 1.0 else None


@dataclass(frozen=True, slots=True)
class Pinion:
    """A pinion for a spur in a slot: its teeth, the distance it wants, m, and by how much the slot is too short, m."""

    teeth: int
    distance: float
    missing: float


def pinions(
    module: float, spur: int, low: float, high: float, pressure_angle: float, backlash: float = 0.0
) -> list[Pinion]:
    """Which pinions a slot allows with a spur, and the next one on either side with what the slot lacks for it.

    Args:
        module: m.
        spur: teeth.
        low, high: ends of the slot as distances, m.
        pressure_angle: rad.
        backlash: at the pitch circle, m.
    """

    def pinion(teeth: int) -> Pinion:
        distance = gears.centre_distance(module, teeth, spur, pressure_angle, backlash=backlash)
        return Pinion(teeth, distance, max(0.0, low - distance, distance - high))

    gap = backlash / (2.0 * math.tan(pressure_angle))
    first = math.ceil(2.0 * (low - gap) / module - spur - 1e-9)
    last = math.floor(2.0 * (high - gap) / module - spur + 1e-9)
    return [pinion(teeth) for teeth in range(max(5, first - 1), max(5, last + 1) + 1)]
