"""The measures of designs, drawn from their run from rest and their states at standstill and top speed."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ydrometer.driveline import Array, Plant
from ydrometer.motion import currents, forces, run
from ydrometer.motion.currents import Electric
from ydrometer.motion.forces import State
from ydrometer.motion.roots import find_root
from ydrometer.motion.run import Profile

GEARING_SHARE = 0.90
"""From this share of the no-load speed up, it is the gearing that limits the top speed."""

Texts = NDArray[np.str_]


@dataclass(frozen=True, slots=True)
class Analysis:
    """Everything known of n designs; NaN where a measure has no meaning.

    Attributes:
        plant: the designs.
        starts: whether they start at all, (n,).
        no_load, top: speeds, (n, 1); top is 0 where a design does not start.
        profile: the runs of those that start, or None where none does.
        rest, at_top: forces at standstill and at top speed.
        cruise: motors and supply at top speed. shove: the same while pushing at a wall with the force `push`.
    """

    plant: Plant
    starts: NDArray[np.bool_]
    no_load: Array
    top: Array
    profile: Profile | None
    rest: State
    at_top: State
    cruise: Electric
    push: Array
    shove: Electric

    @property
    def held_by(self) -> Texts:
        """What holds those that do not start; empty where they do."""
        reason = np.where(self.rest.drive_acceleration[:, 0] <= 0.0, "torque", "grip")
        return np.where(self.starts, "", reason)

    def spread_out(self, values: Array) -> Array:
        """Values (m, …) of the starting designs as (n, …), NaN for the others."""
        made = np.full((len(self.plant), *values.shape[1:]), np.nan)
        made[self.starts] = values
        return made


def analyse(plant: Plant) -> Analysis:
    """Set n designs in motion.

    Args:
        plant: the designs, all of one structure.
    """
    still = np.zeros((len(plant), 1))
    rest = forces.at_speed(plant, still)
    no_load, top = run.final_speeds(plant)
    starts = rest.acceleration[:, 0] > 0.0
    profile = None
    if starts.any():
        moving = plant if starts.all() else plant.take(starts)
        profile = run.profile(moving, top[starts])
    at_top = forces.at_speed(plant, top)
    cruise = forces.as_driven(plant, top, at_top)
    push = np.minimum(rest.drive, forces.wall_traction(plant))
    shove = currents.eased_off(plant, still, push) if (push < rest.drive).any() else rest.electric
    shove = forces.choose(push < rest.drive, shove, rest.electric)
    return Analysis(plant, starts, no_load, top, profile, rest, at_top, cruise, push, shove)


def standing(analysis: Analysis) -> dict[str, Array | Texts]:
    """Measures that need no distance, speed or time: arrays (n,), or (J, n) where there is one a branch."""
    plant, rest, top, cruise, shove = (
        analysis.plant, analysis.rest, analysis.top, analysis.cruise, analysis.shove,
    )  # fmt: skip
    moving = np.where(analysis.starts, 1.0, np.nan)
    decelerate = forces.braking(plant)
    cruise_current = cruise.bus_current[:, 0] * moving
    endurance = plant.capacity[:, 0] / cruise_current
    return {
        "overall_ratio": plant.ratio[..., 0],
        "no_load_speed": analysis.no_load[:, 0],
        "no_load_wheel_rpm": (analysis.no_load / plant.radius)[:, 0],
        "top_speed": top[:, 0],
        "limited_by": _limited_by(analysis),
        "launch_acceleration": np.where(analysis.starts, rest.acceleration[:, 0], 0.0),
        "stopping_distance": np.where(analysis.starts, (top**2 / (2.0 * decelerate))[:, 0], 0.0),
        "stall_wheel_torque": (rest.drive * plant.radius)[:, 0],
        "pushing_force": analysis.push[:, 0],
        "pushing_limit": np.where((analysis.push < rest.drive)[:, 0], "grip", "torque"),
        "pushing_motor_current": shove.currents[..., 0],
        "pushing_bus_current": shove.bus_current[:, 0],
        "launch_motor_current": rest.electric.currents[..., 0],
        "launch_bus_current": rest.electric.bus_current[:, 0],
        "peak_bus_current": (
            analysis.spread_out(analysis.profile.peak_bus_current) if analysis.profile else moving * np.nan
        ),
        "cruise_motor_current": cruise.currents[..., 0] * moving,
        "max_grade": max_grade(plant),
        "motor_speed_at_top": (top / plant.radius * plant.ratio)[..., 0] * moving,
        "cruise_bus_current": cruise_current,
        "endurance_at_top": endurance,
        "range_at_top": endurance * top[:, 0],
    }


def over_distance(analysis: Analysis, distance: Array) -> dict[str, Array]:
    """Measures of the run over distances (n, k), m, as arrays (n, k)."""
    names = ("time_to_distance", "speed_at_distance", "energy_per_run", "sprint_and_stop")
    if analysis.profile is None:
        return dict.fromkeys(names, np.full(distance.shape, np.nan))
    wanted = distance[analysis.starts]
    end = analysis.profile.at_distance(wanted)
    rate = forces.braking(analysis.profile.plant)
    brake = analysis.profile.braking_point(wanted, np.where(np.isnan(rate), 1.0, rate))
    parts = (end.time, end.speed, end.energy, brake.time + brake.speed / rate)
    return {name: analysis.spread_out(part) for name, part in zip(names, parts, strict=True)}


def to_speed(analysis: Analysis, speed: Array) -> dict[str, Array]:
    """Time to reach speeds (n, k), m/s; NaN where they are never reached."""
    if analysis.profile is None:
        return {"time_to_speed": np.full(speed.shape, np.nan)}
    return {"time_to_speed": analysis.spread_out(analysis.profile.at_speed(speed[analysis.starts]).time)}


def in_time(analysis: Analysis, time: Array) -> dict[str, Array]:
    """Distance covered in times (n, k), s."""
    if analysis.profile is None:
        return {"distance_in_time": np.full(time.shape, np.nan)}
    return {"distance_in_time": analysis.spread_out(analysis.profile.at_time(time[analysis.starts]).distance)}


def max_grade(plant: Plant) -> Array:
    """The steepest slope, rise over run, on which a design still starts, (n,); NaN where not even on the level."""
    level = dataclasses.replace(plant, slope=np.zeros_like(plant.slope))
    drive = forces.at_speed(level, np.zeros_like(plant.slope)).drive

    def margin(slope: Array) -> Array:
        tilted = dataclasses.replace(plant, slope=slope)
        still = np.zeros_like(slope)
        against = forces.resistance(tilted, still)
        return np.minimum(drive, forces.traction(tilted, still)) - against

    flat = np.zeros_like(plant.slope)
    steepest = find_root(margin, flat, np.full_like(flat, np.pi / 2.0))
    return np.where(margin(flat) > 0.0, np.tan(steepest), np.nan)[:, 0]


def _limited_by(analysis: Analysis) -> Texts:
    top, no_load = analysis.top[:, 0], analysis.no_load[:, 0]
    at_top = analysis.at_top
    by_grip = (at_top.grip_acceleration < at_top.drive_acceleration)[:, 0]
    limit = np.where(top >= GEARING_SHARE * no_load, "gearing", np.where(by_grip, "grip", "power"))
    return np.where(analysis.starts, limit, "")
