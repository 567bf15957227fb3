"""What a mount allows: how far an eccentric moves a shaft, and which pinions a slot takes."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ydrometer.geometry import gears


def eccentric_shift(throw: float, angle: float, *, from_dead_centre: bool) -> float:
    """By how much an eccentric mount moves the distance, m: e·(1 − cos(psi)) from dead centre, else e·sin(psi).

    Args:
        throw: of the eccentric, m.
        angle: turned from its zero, rad.
        from_dead_centre: whether zero is where it stands in line with the shafts.
    """
    return throw * (1.0 - math.cos(angle)) if from_dead_centre else throw * math.sin(angle)


def eccentric_angle(throw: float, shift: float, *, from_dead_centre: bool) -> float | None:
    """The angle, rad, that moves the distance by `shift`; None where the eccentric cannot.

    Args:
        throw: m.
        shift: m.
        from_dead_centre: as for `eccentric_shift`.
    """
    share = 1.0 - shift / throw if from_dead_centre else shift / throw
    if abs(share) > 1.0:
        return None
    return math.acos(share) if from_dead_centre else math.asin(share)


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
