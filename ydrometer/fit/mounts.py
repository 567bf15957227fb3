"""Where shafts can stand: on the holes of a grid, in a slot, on an eccentric."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.fit import pairs

NOISE = 1e-9
"""m; distances are compared with this much give."""
TOLERANCE = 1e-4
"""How much further apart than without play two gears on a grid may stand, m; for metal ones."""


@dataclass(frozen=True, slots=True)
class Spot:
    """Two holes that suit a pair: `across` and `up` holes apart, that is `distance` m, `error` m more than wanted."""

    across: int
    up: int
    distance: float
    error: float


def spots(wanted: float, hole_pitch: float, tolerance: float = TOLERANCE) -> list[Spot]:
    """Places on a hole grid for a pair, never closer than without play: 0 ≤ q·sqrt(i² + j²) − a ≤ tolerance.

    Args:
        wanted: distance of the pair without play, m, above 0.
        hole_pitch: of the grid, m, above 0.
        tolerance: m, at least 0.

    Returns:
        The pairs of holes with across ≥ up ≥ 0, the closest fit first.
    """
    most = math.floor((wanted + tolerance) / hole_pitch + 1e-9)
    return sorted(_spots(wanted, hole_pitch, tolerance, most), key=lambda spot: (spot.error, spot.across))


def _spots(wanted: float, hole_pitch: float, tolerance: float, most: int) -> Iterator[Spot]:
    for across in range(most + 1):
        for up in range(across + 1):
            distance = hole_pitch * math.hypot(across, up)
            if -NOISE <= distance - wanted <= tolerance + NOISE:
                yield Spot(across, up, distance, max(0.0, distance - wanted))


@dataclass(frozen=True, slots=True)
class Room:
    """What an adjustable mount leaves around a working distance, m: below it to put a loop on, above it to tighten."""

    below: float
    above: float


def room(distance: float, low: float, high: float) -> Room | None:
    """The room around a working distance in a slot; None where it lies outside.

    Args:
        distance: at which the loop is taut, m.
        low, high: ends of the slot as distances, m.
    """
    return Room(distance - low, high - distance) if low <= distance <= high else None


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
    module: float, spur: int, low: float, high: float, pressure_angle: float, play: float = 0.0
) -> list[Pinion]:
    """Which pinions a slot allows with a spur, and the next one on either side with what the slot lacks for it.

    Args:
        module: m.
        spur: teeth.
        low, high: ends of the slot as distances, m.
        pressure_angle: rad.
        play: at the pitch circle, m.
    """

    def pinion(teeth: int) -> Pinion:
        distance = pairs.centre_distance(module, teeth, spur, pressure_angle, play=play)
        return Pinion(teeth, distance, max(0.0, low - distance, distance - high))

    gap = play / (2.0 * math.tan(pressure_angle))
    first = math.ceil(2.0 * (low - gap) / module - spur - 1e-9)
    last = math.floor(2.0 * (high - gap) / module - spur + 1e-9)
    return [pinion(teeth) for teeth in range(max(5, first - 1), max(5, last + 1) + 1)]
