"""What charts and drawings ask of one design: forces over speed, points of the run, states at chosen moments."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.jit import entry, kernel
from ydrometer.motion import currents, forces, gears, moments, panels, run
from ydrometer.motion.plant import Array, Batch, Plant, for_kernels, row, turning

A_PANEL = 5
"""Points of the run in each of its panels."""

electric, drive_force, FULL = currents.electric, currents.drive_force, currents.FULL
eased_off, motor_current, source_torque = currents.eased_off, currents.motor_current, currents.source_torque
engine_speed, resistance, traction = currents.engine_speed, forces.resistance, forces.traction
as_driven, wall_traction, starting_gear = forces.as_driven, forces.wall_traction, gears.starting_gear
set_in_motion, inside, find, MOST_PANELS, GEAR, LOW, HIGH, TIME, DISTANCE, ENERGY = (
    run.run,
    moments.inside,
    moments.find,
    panels.MOST_PANELS,
    panels.GEAR,
    panels.LOW,
    panels.HIGH,
    panels.TIME,
    panels.DISTANCE,
    panels.ENERGY,
)


@dataclass(frozen=True, slots=True)
class Points:
    """Points of the run from rest, all (m,), SI; the gear is −1 during a change. `energy` is what was drawn."""

    time: Array
    speed: Array
    distance: Array
    energy: Array
    bus_current: Array
    motor_current: Array
    gear: Array


@dataclass(frozen=True, slots=True)
class Sources:
    """State of the sources at one moment: gear, bus, and per branch speed, torque and current of one, SI.

    Attributes:
        applied: voltage of the motors, duty times bus voltage. throttle: of engines.
        behind: the speed behind the clutch, that of the source where it does not slip. backwards: whether motors are
        thrown into reverse; the limit of a controller then holds that current too.
    """

    gear: int
    applied: float
    bus_voltage: float
    bus_current: float
    throttle: float
    speed: Array
    torque: Array
    current: Array
    behind: Array
    backwards: bool = False


def single(batch: Batch, i: int) -> Batch:
    """The batch of the design at `i` alone."""
    return for_kernels(Batch(*(field[i : i + 1] for field in batch)))


def forces_over(batch: Batch, i: int, gear: int, speed: Array) -> Array:
    """F_drive at full throttle, F_res and F_trac of one design in one gear over speeds (m,): N, (4, m).

    The last row is 1 where a limit of a controller or of the supply holds the motors back, else 0.
    """
    out = np.empty((4, len(speed)))
    _forces_over(single(batch, i), gear, speed, out)
    return out


def points(batch: Batch, i: int) -> Points:
    """The run from rest of one design that starts; no points where it has no end."""
    out = np.empty((MOST_PANELS * A_PANEL + 1, 7))
    count = _points(single(batch, i), out)
    return Points(*out[:count].T)


def standing(batch: Batch, i: int, *, pushing: bool) -> Sources:
    """Sources at standstill in the lowest gear: at full throttle, or with the push that the tyres hold."""
    out = np.empty((4, batch.sources.shape[1]))
    return Sources(0, *_standing(single(batch, i), pushing, out), *out)


def driving(batch: Batch, i: int, gear: int, speed: float) -> Sources:
    """Sources at a speed of the run."""
    out = np.empty((4, batch.sources.shape[1]))
    return Sources(gear, *_driving(single(batch, i), gear, speed, out), *out)


def moment(batch: Batch, i: int, what: int, wanted: float, rate: float = 1.0) -> tuple[float, float, float, float]:
    """Time, speed, distance and energy of the run of one design that starts, when something has a value.

    Args:
        batch: holds the design.
        i: its row.
        what: 0 the time, s; 1 the distance, m; 2 the place where it would stand when braking from here, m.
        wanted: the value.
        rate: of that braking, m/s².
    """
    v, t, x, e = _moment(single(batch, i), what, wanted, rate)
    return t, v, x, e


@entry
def _moment(batch: Batch, what: int, wanted: float, rate: float) -> tuple[float, float, float, float]:
    p = row(batch, 0)
    panels = np.empty((MOST_PANELS + 1, 8))
    count, k, top, _ = set_in_motion(p, panels)
    _, _, bus, drawn, _ = as_driven(p, k, top)
    return find(p, panels, count, top, bus * drawn, what, wanted, rate)


@entry
def _forces_over(batch: Batch, k: int, speed: Array, out: Any) -> None:
    p = row(batch, 0)
    for m in range(len(speed)):
        v = speed[m]
        u, _, drawn = electric(p, k, v, FULL)
        out[0, m] = drive_force(p, k, v, u, FULL)
        out[1, m], out[2, m] = resistance(p, v), traction(p, v)
        out[3, m] = 1.0 if drawn >= p.vehicle[0].supply_limit else 0.0
        for j in range(len(p.sources)):
            if p.sources[j].engine == 0.0 and motor_current(p, k, j, v, u) >= p.sources[j].current_limit:
                out[3, m] = 1.0


@entry
def _points(batch: Batch, out: Any) -> int:
    p = row(batch, 0)
    panels = np.empty((MOST_PANELS + 1, 8))
    panels_made, _, top, _ = set_in_motion(p, panels)
    count = 0
    for i in range(panels_made):
        panel = panels[i]
        for step in range(A_PANEL):
            at = panel[LOW] + (panel[HIGH] - panel[LOW]) * step / A_PANEL
            v, t, x, e, _ = inside(p, panel, at)
            count = _point(p, out, count, int(panel[GEAR]), v, t, x, e)
    if panels_made > 0:
        t, x, e = panels[panels_made, TIME], panels[panels_made, DISTANCE], panels[panels_made, ENERGY]
        count = _point(p, out, count, int(panels[panels_made - 1, GEAR]), top, t, x, e)
    return count


@kernel
def _point(p: Plant, out: Any, count: int, gear: int, v: float, t: float, x: float, e: float) -> int:
    drawn, current = 0.0, 0.0
    if gear >= 0:
        _, u, _, drawn, _ = as_driven(p, gear, v)
        for j in range(len(p.sources)):
            if p.sources[j].engine == 0.0:
                current = max(current, motor_current(p, gear, j, v, u))
    out[count, 0], out[count, 1], out[count, 2], out[count, 3] = t, v, x, e
    out[count, 4], out[count, 5], out[count, 6] = drawn, current, max(gear, -1)
    return count + 1


@entry
def _standing(batch: Batch, pushing: bool, out: Any) -> tuple[float, float, float, float]:
    p = row(batch, 0)
    u, bus, drawn = electric(p, 0, 0.0, FULL)
    throttle = FULL
    held = wall_traction(p)
    if pushing and held < drive_force(p, 0, 0.0, u, FULL):
        u, bus, drawn, throttle = eased_off(p, 0, 0.0, held)
    _sources(p, 0, 0.0, u, throttle, out)
    return u, bus, drawn, throttle


@entry
def _driving(batch: Batch, k: int, v: float, out: Any) -> tuple[float, float, float, float]:
    p = row(batch, 0)
    _, u, bus, drawn, throttle = as_driven(p, k, v)
    _sources(p, k, v, u, throttle, out)
    return u, bus, drawn, throttle


@kernel
def _sources(p: Plant, k: int, v: float, u: float, throttle: float, out: Any) -> None:
    for j in range(len(p.sources)):
        out[3, j] = turning(p, k, j) * v
        out[0, j] = engine_speed(p, k, j, v) if p.sources[j].engine != 0.0 else out[3, j]
        out[1, j] = source_torque(p, k, j, v, u, throttle)
        out[2, j] = motor_current(p, k, j, v, u) if p.sources[j].engine == 0.0 else math.nan
