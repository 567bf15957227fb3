"""States of a whole drive, one after the other: at standstill, along the run from rest, turning on the spot.

They are what loads are worked out from: the speed, torque and current of every source, and what the supply gives.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.base.jit import entry, kernel
from ydrometer.motion import currents, forces, gears, moments, panels, run, speeds
from ydrometer.motion.plant import Array, Batch, Plant, row, turning
from ydrometer.motion.trace import single

A_PANEL = 32
"""States of the run in each of its panels: between two of them a smooth peak is missed by less than 1e-3."""
BEFORE_CORNER = 1.0 - 1e-4
"""Share of a panel that counts as its end: of what jumps at a corner, such as the bus voltage, both sides are seen."""
STEPS = 80
"""Halvings when the speed of a turn on the spot is looked for."""

electric, drive_force, FULL = currents.electric, currents.drive_force, currents.FULL
eased_off, motor_current, source_torque = currents.eased_off, currents.motor_current, currents.source_torque
engine_speed, bus_voltage_for_power = currents.engine_speed, currents.bus_voltage_for_power
LEAST_VOLTAGE = currents.LEAST_VOLTAGE
as_driven, accelerations, traction, wall_traction, holding_back, resistance = (
    forces.as_driven,
    forces.accelerations,
    forces.traction,
    forces.wall_traction,
    forces.holding_back,
    forces.resistance,
)
coast, starting_gear, sources_end = forces.coast, gears.starting_gear, speeds.sources_end
set_in_motion, inside, MOST_PANELS = run.run, moments.inside, panels.MOST_PANELS
GEAR, END, START, LOW, HIGH = panels.GEAR, panels.END, panels.START, panels.LOW, panels.HIGH
TIME, DISTANCE = panels.TIME, panels.DISTANCE

# Columns of a state; SOURCES and what follows it come once a branch.
T, X, V, K, A, FORCE, BUS_V, BUS_I, PASSED, SOURCES = range(10)
SPEED, TORQUE, CURRENT, BEHIND = range(4)
PER_SOURCE = 4


@dataclass(frozen=True, slots=True)
class States:
    """m states, SI.

    Attributes:
        time, distance, speed, acceleration: of the vehicle, (m,). gear: (m,); of a change of gear −1 − the next one.
        force: at all driven wheels, (m,). passed: share of the sources' torque that is passed on, (m,): less than 1
        where wheels slide as they are reversed, and the rest of it only turns them. bus_voltage, bus_current: of the
        supply, (m,).
        source_speed, torque, current: of one source of each branch, (m, J); the current of an engine is NaN.
        behind: the speed behind its clutch, (m, J); that of the source where it does not slip.
    """

    time: Array
    distance: Array
    speed: Array
    gear: Array
    acceleration: Array
    force: Array
    bus_voltage: Array
    bus_current: Array
    passed: Array
    source_speed: Array
    torque: Array
    current: Array
    behind: Array


def mapped(change: Callable[..., Any], *of: States) -> States:
    """The same change done to every part of some states."""
    return States(*(change(*(getattr(each, f.name) for each in of)) for f in fields(States)))


def taken(of: States, wanted: NDArray[np.bool_] | NDArray[np.int_]) -> States:
    """Some of the states, by a mask or by their places."""
    return mapped(lambda part: part[wanted], of)


def joined(parts: Sequence[States]) -> States:
    """All states of several, one after the other."""
    return mapped(lambda *each: np.concatenate(each), *parts)


def between(of: States, time: float) -> States:
    """One state at a time between two of them, straight between; the gear is that of the one before.

    Args:
        of: rising in time.
        time: s, from the first to the last of theirs.
    """
    after = int(np.clip(np.searchsorted(of.time, time), 1, len(of.time) - 1))
    span = float(of.time[after] - of.time[after - 1])
    share = (time - float(of.time[after - 1])) / span if span > 0.0 else 1.0
    state = mapped(lambda part: (part[after - 1] + share * (part[after] - part[after - 1]))[None], of)
    return replace(state, gear=of.gear[after - 1 : after])


def _states(rows: Array, branches: int) -> States:
    plain = rows[:, :SOURCES].T
    each = rows[:, SOURCES:].reshape(len(rows), branches, PER_SOURCE)
    time, distance, speed, gear, acceleration, force, volts, amps, passed = plain
    return States(
        time,
        distance,
        speed,
        gear.astype(int),
        acceleration,
        force,
        volts,
        amps,
        passed,
        each[:, :, SPEED],
        each[:, :, TORQUE],
        each[:, :, CURRENT],
        each[:, :, BEHIND],
    )


def _width(batch: Batch) -> int:
    return SOURCES + PER_SOURCE * int(batch.sources.shape[1])


def hard_start(batch: Batch, i: int) -> States:
    """The first moment of the run; where the design does not start, the lowest gear eased off to what the tyres hold.

    One state.

    Args:
        batch: holds the design.
        i: its row.
    """
    out = np.empty((1, _width(batch)))
    _hard_start(single(batch, i), out)
    return _states(out, batch.sources.shape[1])


def shove(batch: Batch, i: int) -> States:
    """At full throttle against a wall in the lowest gear, eased off to what the tyres hold; one state."""
    out = np.empty((1, _width(batch)))
    _shove(single(batch, i), out)
    return _states(out, batch.sources.shape[1])


def driving(batch: Batch, i: int, gear: int, speed: float) -> States:
    """At a speed of the run; one state."""
    out = np.empty((1, _width(batch)))
    _driving(single(batch, i), gear, speed, out)
    return _states(out, batch.sources.shape[1])


def reversal(batch: Batch, i: int, gear: int, speed: float) -> States:
    """At a speed of the run thrown into full throttle backwards; one state, of motors alone.

    The circuit is that of full throttle at the same speed the other way round, with all currents turned. Where the
    ground cannot hold that, the wheels slide.

    Args:
        batch: holds the design.
        i: its row.
        gear: engaged, from 0.
        speed: forwards, m/s.
    """
    out = np.empty((1, _width(batch)))
    _reversal(single(batch, i), gear, speed, out)
    return _states(out, batch.sources.shape[1])


def along_the_run(batch: Batch, i: int) -> States:
    """The run from rest to its end, from one corner of it to the next; no states where it has no end."""
    out = np.empty((MOST_PANELS * (A_PANEL + 1) + 1, _width(batch)))
    count = _along(single(batch, i), out)
    return _states(out[:count], batch.sources.shape[1])


def at_force(batch: Batch, i: int, force: float) -> States | None:
    """The least speed above 0 at which motors alone at full throttle in the lowest gear give a force; one state.

    None where they give less at standstill.

    Args:
        batch: holds the design.
        i: its row.
        force: at all driven wheels, N.
    """
    out = np.empty((1, _width(batch)))
    state = _at_force(single(batch, i), force, out)
    return _states(out, batch.sources.shape[1]) if state else None


@kernel
def _fill(
    p: Plant, state: Any, k: int, v: float, a: float, u: float, bus: float, drawn: float, throttle: float
) -> None:
    """Write down a state in which gear k drives."""
    state[V], state[K], state[A], state[BUS_V], state[BUS_I], state[PASSED] = v, k, a, bus, drawn, FULL
    state[FORCE] = drive_force(p, k, v, u, throttle)
    for j in range(len(p.sources)):
        own = SOURCES + PER_SOURCE * j
        behind = turning(p, k, j) * v
        engine = p.sources[j].engine != 0.0
        state[own + SPEED] = engine_speed(p, k, j, v) if engine else behind
        state[own + TORQUE] = source_torque(p, k, j, v, u, throttle)
        state[own + CURRENT] = math.nan if engine else motor_current(p, k, j, v, u)
        state[own + BEHIND] = behind


@kernel
def _fill_change(p: Plant, state: Any, to: int, v: float) -> None:
    """Write down a state of a change of gear: nothing drives, and nothing flows."""
    state[V], state[K], state[A], state[FORCE], state[PASSED] = v, -1 - to, 0.0, 0.0, FULL
    state[BUS_V], state[BUS_I] = bus_voltage_for_power(p, 0.0) if p.law[0].low == p.law[0].low else 0.0, 0.0
    for j in range(len(p.sources)):
        own = SOURCES + PER_SOURCE * j
        behind = turning(p, to, j) * v
        engine = p.sources[j].engine != 0.0
        state[own + SPEED] = engine_speed(p, to, j, v) if engine else behind
        state[own + TORQUE] = 0.0
        state[own + CURRENT] = math.nan if engine else 0.0
        state[own + BEHIND] = behind


@entry
def _hard_start(batch: Batch, out: Any) -> None:
    p = row(batch, 0)
    out[0, T], out[0, X] = 0.0, 0.0
    k = starting_gear(p)
    by_drive, by_grip = accelerations(p, k, 0.0)
    if by_drive > 0.0 and by_grip > 0.0:
        a, u, bus, drawn, throttle = as_driven(p, k, 0.0)
        _fill(p, out[0], k, 0.0, a, u, bus, drawn, throttle)
        return
    u, bus, drawn = electric(p, 0, 0.0, FULL)
    throttle, held = FULL, traction(p, 0.0)
    if held < drive_force(p, 0, 0.0, u, FULL):
        u, bus, drawn, throttle = eased_off(p, 0, 0.0, held)
    _fill(p, out[0], 0, 0.0, 0.0, u, bus, drawn, throttle)


@entry
def _shove(batch: Batch, out: Any) -> None:
    p = row(batch, 0)
    out[0, T], out[0, X] = 0.0, 0.0
    u, bus, drawn = electric(p, 0, 0.0, FULL)
    throttle, held = FULL, wall_traction(p)
    if held < drive_force(p, 0, 0.0, u, FULL):
        u, bus, drawn, throttle = eased_off(p, 0, 0.0, held)
    _fill(p, out[0], 0, 0.0, 0.0, u, bus, drawn, throttle)


@entry
def _driving(batch: Batch, k: int, v: float, out: Any) -> None:
    p = row(batch, 0)
    out[0, T], out[0, X] = math.nan, math.nan
    a, u, bus, drawn, throttle = as_driven(p, k, v)
    _fill(p, out[0], k, v, a, u, bus, drawn, throttle)


@entry
def _reversal(batch: Batch, k: int, v: float, out: Any) -> None:
    p = row(batch, 0)
    u, bus, drawn = electric(p, k, -v, FULL)
    if not bus > 0.0:
        # The motors take more than the battery gives shorted: nothing is left of its voltage.
        u, bus, drawn = 0.0, LEAST_VOLTAGE, p.law[0].s / p.law[0].q
    state = out[0]
    state[T], state[X] = math.nan, math.nan
    state[V], state[K], state[BUS_V], state[BUS_I] = v, k, bus, drawn
    joined = 0.0
    for j in range(len(p.sources)):
        own = SOURCES + PER_SOURCE * j
        current = -motor_current(p, k, j, -v, u)
        torque = p.sources[j].kt * (current - p.sources[j].no_load_current)
        turned = p.sources[j].number * torque * p.sources[j].ratio
        joined += turned / p.sources[j].efficiency if torque < 0.0 else turned * p.sources[j].efficiency
        state[own + SPEED] = state[own + BEHIND] = turning(p, k, j) * v
        state[own + TORQUE], state[own + CURRENT] = torque, current
    force = joined * p.gears[k].ratio / (p.vehicle[0].radius * p.vehicle[0].trunk_efficiency)
    against, held = resistance(p, v), holding_back(p, v)
    by_drive, by_grip = (force - against) / p.gears[k].inertial_mass, -(held + against) / p.vehicle[0].mass
    if by_drive < by_grip:
        state[A], state[FORCE], state[PASSED] = 0.0, -held, held / abs(force)
    else:
        state[A], state[FORCE], state[PASSED] = by_drive, force, FULL


@entry
def _along(batch: Batch, out: Any) -> int:
    p = row(batch, 0)
    pieces = np.empty((MOST_PANELS + 1, 8))
    count, _, _, _ = set_in_motion(p, pieces)
    m = 0
    for i in range(count):
        panel = pieces[i]
        for step in range(A_PANEL + 1):
            at = panel[LOW] + (panel[HIGH] - panel[LOW]) * min(step / A_PANEL, BEFORE_CORNER)
            v, t, x, _, _ = inside(p, panel, at)
            out[m, T], out[m, X] = t, x
            k = int(panel[GEAR])
            if k < 0:
                _fill_change(p, out[m], -1 - k, v)
            else:
                a, u, bus, drawn, throttle = as_driven(p, k, v)
                _fill(p, out[m], k, v, a, u, bus, drawn, throttle)
            m += 1
    return m


@entry
def _at_force(batch: Batch, force: float, out: Any) -> bool:
    p = row(batch, 0)
    out[0, T], out[0, X] = 0.0, 0.0
    low, high = 0.0, sources_end(p, 0)
    if drive_force(p, 0, 0.0, electric(p, 0, 0.0, FULL)[0], FULL) <= force:
        return False
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        if drive_force(p, 0, middle, electric(p, 0, middle, FULL)[0], FULL) > force:
            low = middle
        else:
            high = middle
    u, bus, drawn = electric(p, 0, low, FULL)
    _fill(p, out[0], 0, low, 0.0, u, bus, drawn, FULL)
    return True
