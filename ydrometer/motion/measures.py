"""The measures of designs, drawn from their run from rest and their states at standstill and top speed."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ydrometer.driveline import Array, Plant
from ydrometer.motion import currents, forces, run
from ydrometer.motion.forces import State
from ydrometer.motion.roots import find_root
from ydrometer.motion.run import Moment, Profile

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
        rest: the state at standstill.
    """

    plant: Plant
    starts: NDArray[np.bool_]
    no_load: Array
    top: Array
    profile: Profile | None
    rest: State

    @property
    def held_by(self) -> Texts:
        """What holds those that do not start; empty where they do."""
        reason = np.where(self.rest.drive_acceleration[:, 0] <= 0.0, "torque", "grip")
        return np.where(self.starts, "", reason)

    def spread_out(self, values: Array) -> Array:
        """Values of the starting designs along the last axis, NaN for the others: (…, m) to (…, n)."""
        made = np.full((*values.shape[:-1], len(self.plant)), np.nan)
        made[..., self.starts] = values
        return made

    def moment(self, moment: Moment) -> Moment:
        """A moment (m, 1) of the runs as arrays (n,)."""
        parts = (moment.speed, moment.time, moment.distance, moment.energy)
        return Moment(*(self.spread_out(part[:, 0]) for part in parts))


def analyse(plant: Plant) -> Analysis:
    """Set n designs in motion.

    Args:
        plant: the designs, all of one structure.
    """
    standstill = np.zeros((len(plant), 1))
    rest = forces.at_speed(plant, standstill)
    starts = rest.acceleration[:, 0] > 0.0
    no_load = run.no_load_speed(plant)
    top = np.zeros_like(no_load)
    profile = None
    if starts.any():
        moving = plant if starts.all() else plant.take(starts)
        top[starts] = run.top_speed(moving, no_load[starts])
        profile = run.profile(moving, top[starts])
    return Analysis(plant, starts, no_load, top, profile, rest)


def standing(analysis: Analysis) -> dict[str, Array | Texts]:
    """Measures that need no distance, speed or time: arrays (n,), or (J, n) where there is one a branch."""
    plant, rest, top = analysis.plant, analysis.rest, analysis.top
    moving = np.where(analysis.starts, 1.0, np.nan)
    at_top = forces.at_speed(plant, top)
    cruise = forces.as_driven(plant, top, at_top)
    wall = forces.wall_traction(plant)
    push = np.clip(rest.drive, None, wall)
    slips = wall < rest.drive
    shove = currents.eased_off(plant, np.zeros_like(top), push) if slips.any() else rest.electric
    decelerate = forces.braking(plant)
    cruise_current = cruise.bus_current[:, 0] * moving
    endurance = plant.capacity[:, 0] / cruise_current
    return {
        "overall_ratio": plant.ratio[..., 0],
        "no_load_speed": analysis.no_load[:, 0],
        "no_load_wheel_rpm": (analysis.no_load / plant.radius)[:, 0],
        "top_speed": top[:, 0],
        "limited_by": _limited_by(analysis, at_top),
        "launch_acceleration": np.where(analysis.starts, rest.acceleration[:, 0], 0.0),
        "stopping_distance": np.where(analysis.starts, (top**2 / (2.0 * decelerate))[:, 0], 0.0),
        "stall_wheel_torque": (rest.drive * plant.radius)[:, 0],
        "pushing_force": push[:, 0],
        "pushing_limit": np.where(slips[:, 0], "grip", "torque"),
        "pushing_motor_current": np.where(slips, shove.currents, rest.electric.currents)[..., 0],
        "pushing_bus_current": np.where(slips, shove.bus_current, rest.electric.bus_current)[:, 0],
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
    """Measures of the run over a distance (n,), m, as arrays (n,)."""
    if analysis.profile is None:
        return dict.fromkeys(
            ("time_to_distance", "speed_at_distance", "energy_per_run", "sprint_and_stop"),
            np.full(len(analysis.plant), np.nan),
        )
    wanted = distance[analysis.starts][:, None]
    end = analysis.moment(analysis.profile.at_distance(wanted))
    rate = forces.braking(analysis.plant)
    known = np.where(np.isnan(rate), 1.0, rate)
    brake = analysis.moment(analysis.profile.braking_point(wanted, known[analysis.starts]))
    return {
        "time_to_distance": end.time,
        "speed_at_distance": end.speed,
        "energy_per_run": end.energy,
        "sprint_and_stop": brake.time + brake.speed / rate[:, 0],
    }


def to_speed(analysis: Analysis, speed: Array) -> dict[str, Array]:
    """Time to reach a speed (n,), m/s; NaN where it is never reached."""
    if analysis.profile is None:
        return {"time_to_speed": np.full(len(analysis.plant), np.nan)}
    moment = analysis.profile.at_speed(speed[analysis.starts][:, None])
    return {"time_to_speed": analysis.moment(moment).time}


def in_time(analysis: Analysis, time: Array) -> dict[str, Array]:
    """Distance covered in a time (n,), s."""
    if analysis.profile is None:
        return {"distance_in_time": np.full(len(analysis.plant), np.nan)}
    moment = analysis.profile.at_time(time[analysis.starts][:, None])
    return {"distance_in_time": analysis.moment(moment).distance}


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


def _limited_by(analysis: Analysis, at_top: State) -> Texts:
    top, no_load = analysis.top[:, 0], analysis.no_load[:, 0]
    by_grip = (at_top.grip_acceleration < at_top.drive_acceleration)[:, 0]
    limit = np.where(top >= GEARING_SHARE * no_load, "gearing", np.where(by_grip, "grip", "power"))
    return np.where(analysis.starts, limit, "")
