"""The measures of designs, from their run from rest and their states at standstill and at top speed."""

from __future__ import annotations

import math
import os
from concurrent.futures import ThreadPoolExecutor
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np

from ydrometer.base.jit import entry, kernel, over
from ydrometer.motion import currents, forces, gears, moments, panels, run, speeds
from ydrometer.motion.plant import Batch, Plant, for_kernels, row, turning

GEARING_SHARE = 0.90
"""Share of the no-load speed from which on the gearing counts as what limits the top speed."""

NOTHING, TORQUE, GRIP, GEARING, POWER = range(5)
WORDS = np.array(["", "torque", "grip", "gearing", "power"])

acceleration, accelerations, as_driven = forces.acceleration, forces.accelerations, forces.as_driven
braking, traction, wall_traction, steepest = forces.braking, forces.traction, forces.wall_traction, forces.max_grade
drive_force, eased_off, electric = currents.drive_force, currents.eased_off, currents.electric
engine_speed, motor_current, FULL = currents.engine_speed, currents.motor_current, currents.FULL
starting_gear, end_speed = gears.starting_gear, speeds.end_speed
find, time_to_speed, MOST_PANELS = moments.find, moments.time_to_speed, panels.MOST_PANELS
set_in_motion, peak_of_run = run.run, run.peak_of_run


class Wanted(NamedTuple):
    """What the run is asked for: distances (n, D) m, speeds (n, S) m/s, times (n, T) s; NaN asks for nothing. And
    whether its largest current is looked for, which takes a tenth to a third of the time.
    """

    distances: Any
    speeds: Any
    times: Any
    peak: bool = True


class Results(NamedTuple):
    """Measures of n designs in SI: (n,), or (n, J) one a branch, or (n, D), (n, S), (n, T) as in `Wanted`.

    NaN where one has no meaning. The names are those of the table of measures; besides, codes into `WORDS`:
    held_by (0 where the design starts), limited_by, pushing_limit; and the last gear, whether the front lifts at
    the start, and the no-load speed in the last gear.
    """

    held_by: Any
    last_gear: Any
    lifts: Any
    no_load_in_last: Any
    no_load_speed: Any
    top_speed: Any
    limited_by: Any
    launch_acceleration: Any
    stopping_distance: Any
    stall_wheel_torque: Any
    pushing_force: Any
    pushing_limit: Any
    pushing_bus_current: Any
    launch_bus_current: Any
    peak_bus_current: Any
    cruise_bus_current: Any
    max_grade: Any
    pushing_motor_current: Any
    launch_motor_current: Any
    cruise_motor_current: Any
    motor_speed_at_top: Any
    time_to_distance: Any
    speed_at_distance: Any
    energy_per_run: Any
    sprint_and_stop: Any
    time_to_speed: Any
    distance_in_time: Any


THREADS = int(os.environ.get("YDROMETER_THREADS", "1"))
"""Threads that share a large batch: a process that answers people may use more than one core."""
A_SHARE = 250
"""Designs that one thread evaluates at a time."""
BY_BRANCH = ("pushing_motor_current", "launch_motor_current", "cruise_motor_current", "motor_speed_at_top")
BY_DISTANCE = ("time_to_distance", "speed_at_distance", "energy_per_run", "sprint_and_stop")


def measure(batch: Batch, wanted: Wanted) -> Results:
    """Measure n designs of one shape.

    Args:
        batch: the designs.
        wanted: what is asked of their runs.
    """
    n = len(batch.vehicle)
    out, ready = _nothing(batch, wanted), for_kernels(batch)
    if THREADS == 1 or n < 2 * A_SHARE:
        _measure_all(ready, wanted, out)
        return out
    # More shares than threads: a core that somebody else uses as well takes fewer.
    edges = [*range(0, n - A_SHARE + 1, A_SHARE), n]
    with ThreadPoolExecutor(THREADS) as pool:
        for done in [pool.submit(_measure_all, *_rows(ready, wanted, out, a, b)) for a, b in pairwise(edges)]:
            done.result()
    return out


def measure_standing(batch: Batch) -> Results:
    """Measure n designs of one shape as far as they stand still or spin in the air; the run is left out.

    Args:
        batch: the designs.
    """
    n = len(batch.vehicle)
    none = np.full((n, 1), np.nan)
    out = _nothing(batch, Wanted(none, none, none))
    _measure_standing(for_kernels(batch), out)
    return out


def _nothing(batch: Batch, wanted: Wanted) -> Results:
    """Results without any value."""
    n = len(batch.vehicle)
    shapes: dict[str, tuple[int, ...]] = dict.fromkeys(BY_BRANCH, batch.sources.shape)
    shapes.update(dict.fromkeys(BY_DISTANCE, wanted.distances.shape))
    shapes.update(time_to_speed=wanted.speeds.shape, distance_in_time=wanted.times.shape)
    # Those of one number a design lie in one piece: an array of its own takes longer to make than to fill.
    alone = [name for name in Results._fields if name not in shapes]
    outputs = dict(zip(alone, np.full((len(alone), n), np.nan), strict=True))
    return Results(**outputs, **{name: np.full(shape, np.nan) for name, shape in shapes.items()})


def _rows(batch: Batch, wanted: Wanted, out: Results, low: int, high: int) -> tuple[Batch, Wanted, Results]:
    """Views of some designs: writing to them writes to the arrays of the whole batch."""
    return (
        Batch(*(field[low:high] for field in batch)),
        Wanted(wanted.distances[low:high], wanted.speeds[low:high], wanted.times[low:high], wanted.peak),
        Results(*(field[low:high] for field in out)),
    )


@entry
def _measure_all(batch: Batch, wanted: Wanted, out: Results) -> None:
    panels = np.empty((MOST_PANELS + 1, 8))
    for i in range(len(batch.vehicle)):
        p = row(batch, i)
        _at_rest(p, i, out)
        by_drive, by_grip = accelerations(p, starting_gear(p), 0.0)
        if by_drive > 0.0 and by_grip > 0.0:
            _in_motion(p, i, panels, wanted, out)
        else:
            out.held_by[i] = TORQUE if by_drive <= 0.0 else GRIP
            out.top_speed[i] = out.launch_acceleration[i] = out.stopping_distance[i] = 0.0


@entry
def _measure_standing(batch: Batch, out: Results) -> None:
    for i in range(len(batch.vehicle)):
        _at_rest(row(batch, i), i, out)


@kernel
def _at_rest(p: Plant, i: int, out: Results) -> None:
    """Measures at standstill in the lowest gear, and with the wheels in the air."""
    u, _, drawn = electric(p, 0, 0.0, FULL)
    full = drive_force(p, 0, 0.0, u, FULL)
    held = wall_traction(p)
    out.held_by[i] = NOTHING
    out.no_load_speed[i] = end_speed(p, len(p.gears) - 1, False, 0.0)
    out.stall_wheel_torque[i] = full * p.vehicle[0].radius
    out.pushing_force[i] = min(full, held)
    out.pushing_limit[i] = GRIP if held < full else TORQUE
    out.max_grade[i] = steepest(p)
    out.lifts[i] = 1.0 if traction(p, 0.0) >= p.vehicle[0].weight * p.vehicle[0].lift + p.vehicle[0].rolling else 0.0
    pushing, pushing_drawn = u, drawn
    if held < full:
        pushing, _, pushing_drawn, _ = eased_off(p, 0, 0.0, held)
    electrical = False
    for j in range(len(p.sources)):
        if p.sources[j].engine == 0.0:
            electrical = True
            out.launch_motor_current[i, j] = motor_current(p, 0, j, 0.0, u)
            out.pushing_motor_current[i, j] = motor_current(p, 0, j, 0.0, pushing)
    if electrical:
        out.launch_bus_current[i] = drawn
        out.pushing_bus_current[i] = pushing_drawn


@kernel
def _in_motion(p: Plant, i: int, panels: Any, wanted: Wanted, out: Results) -> None:
    """The run from rest, and the state at its end."""
    count, k, top, legs = set_in_motion(p, panels)
    no_load = out.no_load_speed[i] if k == len(p.gears) - 1 else end_speed(p, k, False, 0.0)
    by_drive, by_grip = accelerations(p, k, top)
    _, u, bus, drawn, _ = as_driven(p, k, top)
    rate = braking(p)
    out.last_gear[i], out.top_speed[i], out.no_load_in_last[i] = k, top, no_load
    out.launch_acceleration[i] = acceleration(p, starting_gear(p), 0.0)
    out.limited_by[i] = GEARING if top >= GEARING_SHARE * no_load else GRIP if by_grip < by_drive else POWER
    if rate > 0.0:
        out.stopping_distance[i] = over(0.5 * top * top, rate)
    if math.isinf(top):
        return
    electrical = False
    for j in range(len(p.sources)):
        if p.sources[j].engine == 0.0:
            electrical = True
            out.cruise_motor_current[i, j] = motor_current(p, k, j, top, u)
            out.motor_speed_at_top[i, j] = top * turning(p, k, j)
        else:
            out.motor_speed_at_top[i, j] = engine_speed(p, k, j, top)
    if electrical:
        out.cruise_bus_current[i] = drawn
        if wanted.peak:
            out.peak_bus_current[i] = peak_of_run(p, panels, count, legs, top)
    _over_distances(p, i, panels, count, bus * drawn, wanted, out)
    for m in range(wanted.speeds.shape[1]):
        if wanted.speeds[i, m] < top:
            out.time_to_speed[i, m] = time_to_speed(p, panels, count, wanted.speeds[i, m])
    for m in range(wanted.times.shape[1]):
        if wanted.times[i, m] > 0.0:
            at = find(p, panels, count, top, bus * drawn, 0, wanted.times[i, m], 1.0)
            out.distance_in_time[i, m] = at[2]


@kernel
def _over_distances(p: Plant, i: int, panels: Any, count: int, cruise: float, wanted: Wanted, out: Results) -> None:
    top, rate = out.top_speed[i], braking(p)
    electrical = not math.isnan(out.cruise_bus_current[i])
    for m in range(wanted.distances.shape[1]):
        distance = wanted.distances[i, m]
        if not distance > 0.0:
            continue
        v, t, _, energy = find(p, panels, count, top, cruise, 1, distance, 1.0)
        out.speed_at_distance[i, m], out.time_to_distance[i, m] = v, t
        if electrical:
            out.energy_per_run[i, m] = energy
        if rate > 0.0:
            v, t, _, _ = find(p, panels, count, top, cruise, 2, distance, rate)
            out.sprint_and_stop[i, m] = t + over(v, rate)
