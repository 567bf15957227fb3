"""Forces between wheels and ground, and the acceleration they leave.

Longitudinal model of a vehicle: any text on vehicle dynamics (resistance, axle loads).
"""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from ydrometer.driveline import Array, Plant
from ydrometer.motion import currents
from ydrometer.motion.currents import Electric
from ydrometer.units import STANDARD_GRAVITY


@dataclass(frozen=True, slots=True)
class State:
    """Forces in N and accelerations in m/s² at speeds of shape (n, k), at full throttle.

    Attributes:
        electric: motors and supply at full throttle.
        drive: F_drive. resistance: F_res. traction: F_trac.
        drive_acceleration: what the drive allows. grip_acceleration: what the tyres allow.
    """

    electric: Electric
    drive: Array
    resistance: Array
    traction: Array
    drive_acceleration: Array
    grip_acceleration: Array

    @property
    def acceleration(self) -> Array:
        """The lesser of the two: the run with the wheels held at the limit of grip."""
        return np.minimum(self.drive_acceleration, self.grip_acceleration)


def at_speed(plant: Plant, speed: Array) -> State:
    """Forces at full throttle.

    Args:
        plant: n designs.
        speed: m/s, shape (n, k), not negative.
    """
    electric = currents.full_throttle(plant, speed)
    drive = currents.drive_force(plant, electric.currents)
    against = resistance(plant, speed)
    tyres = traction(plant, speed)
    return State(
        electric,
        drive,
        against,
        tyres,
        (drive - against) / plant.inertial_mass,
        (tyres - against) / plant.mass,
    )


def weight_on_ground(plant: Plant) -> Array:
    """m·g·cos(th), N, shape (n, 1)."""
    return plant.mass * STANDARD_GRAVITY * np.cos(plant.slope)


def rolling(plant: Plant) -> Array:
    """F_rr = Crr·m·g·cos(th) + F_fixed, N, shape (n, 1)."""
    return plant.rolling * weight_on_ground(plant) + plant.fixed_drag


def grade(plant: Plant) -> Array:
    """F_grade = m·g·sin(th), N, shape (n, 1)."""
    return plant.mass * STANDARD_GRAVITY * np.sin(plant.slope)


def resistance(plant: Plant, speed: Array) -> Array:
    """F_res = F_rr + F_air + F_grade, N, of a moving vehicle."""
    return rolling(plant) + plant.air * speed**2 + grade(plant)


def traction(plant: Plant, speed: Array) -> Array:
    """F_trac, N: what the tyres hold, and no more than lifts the front wheels (m·g·cos(th)·b/h + F_rr + F_air)."""
    weight = weight_on_ground(plant)
    lift = weight * plant.lift + rolling(plant) + plant.air * speed**2
    return np.minimum(plant.grip * weight, lift)


def wall_traction(plant: Plant) -> Array:
    """What the tyres hold while pushing at a wall, N, (n, 1); taken at ground level, so it lifts nothing."""
    return plant.grip * weight_on_ground(plant)


def braking(plant: Plant) -> Array:
    """Constant deceleration F_brake/m + g·sin(th), m/s², (n, 1); NaN where the slope beats the brakes."""
    weight = weight_on_ground(plant)
    tyres = plant.grip * weight * plant.braked_share
    force = np.minimum(np.minimum(tyres, plant.brake_force), weight * plant.rear_lift)
    rate = force / plant.mass + STANDARD_GRAVITY * np.sin(plant.slope)
    return np.where(rate > 0.0, rate, np.nan)


def as_driven(plant: Plant, speed: Array, state: State) -> Electric:
    """Motors and supply during the run: eased off where grip holds the vehicle back.

    There the drive gives F_trac + (m_eff − m)·a, the second part for its own turning masses.
    """
    slipping = state.grip_acceleration < state.drive_acceleration
    if not slipping.any():
        return state.electric
    turning = (plant.inertial_mass - plant.mass) * state.grip_acceleration
    held = np.where(slipping, state.traction + turning, state.drive)
    eased = currents.eased_off(plant, speed, held)
    return choose(slipping, eased, state.electric)


def choose(where: NDArray[np.bool_], one: Electric, other: Electric) -> Electric:
    """The one state or the other, element by element."""
    return Electric(**{f.name: np.where(where, getattr(one, f.name), getattr(other, f.name)) for f in fields(Electric)})
