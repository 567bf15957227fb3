"""Engines alone: between two bends of their torque curve, the acceleration is a quadratic function of speed.

A torque curve is straight between its points, resistance and traction are quadratics of speed; so a(v) is one too,
until the torque bends or the tyres take over. Its roots are known in closed form, where motors, whose current depends
on the supply, need looks and bisection.

In all kernels v is the speed a stretch begins at, m/s, and u what comes on top of it; a quadratic is
rest + line·u + square·u², in m/s².
"""

from __future__ import annotations

import math
from typing import NamedTuple

from ydrometer.base.jit import kernel, leaf, over
from ydrometer.motion import currents, forces, speeds
from ydrometer.motion.plant import Plant, turning

TIED = 1e-12
"""Relative difference below which two quadratics are taken to begin at the same acceleration."""
ABOVE = 1.0 + 4.0 * TIED
"""Factor for a speed just beyond a bend."""
TURNS = 4
"""Largest number of sign changes of two quadratics on one stretch."""

engine_torque, drive_force, FULL = currents.engine_torque, currents.drive_force, currents.FULL
coast, resistance, next_bend = forces.coast, forces.resistance, speeds.next_bend


class Quadratic(NamedTuple):
    """rest + line·u + square·u²."""

    rest: float
    line: float
    square: float


@leaf
def engines_alone(p: Plant) -> bool:
    """Whether all sources are engines."""
    alone = True
    for j in range(len(p.sources)):
        alone = alone and p.sources[j].engine != 0.0
    return alone


@leaf
def value(q: Quadratic, u: float) -> float:
    """The quadratic at u."""
    return q.rest + u * (q.line + u * q.square)


@leaf
def minus(q: Quadratic, other: Quadratic) -> Quadratic:
    """The difference of two quadratics."""
    return Quadratic(q.rest - other.rest, q.line - other.line, q.square - other.square)


@kernel
def falls(q: Quadratic, room: float) -> float:
    """Least u ≥ 0 beyond which a quadratic is negative; infinite if there is none. A rest within `room` counts as 0."""
    if q.rest == math.inf:
        return math.inf
    if q.rest < -room:
        return 0.0
    if abs(q.rest) <= room and (q.line < 0.0 or (q.line == 0.0 and q.square < 0.0)):
        return 0.0
    inner = q.line * q.line - 4.0 * q.rest * q.square
    if inner < 0.0 or (q.line >= 0.0 and q.square >= 0.0):
        return math.inf
    # The root that is reached falling, in the form that loses no digits.
    if q.line < 0.0:
        return over(2.0 * q.rest, math.sqrt(inner) - q.line)
    return over(q.line + math.sqrt(inner), -2.0 * q.square)


@kernel
def torque_slope(p: Plant, k: int, j: int, v: float) -> float:
    """Slope of the torque of branch j's engine over the speed of the vehicle, just above v, N·m per m/s."""
    ratio, curve = turning(p, k, j), p.curves[j]
    w, last = ratio * v * ABOVE, len(curve) - 1
    if w < max(p.sources[j].engagement, curve[0].speed) or w >= curve[last].speed:
        return 0.0
    c = 1
    while curve[c].speed <= w:
        c += 1
    return ratio * (curve[c].torque - curve[c - 1].torque) / (curve[c].speed - curve[c - 1].speed)


@kernel
def by_drive(p: Plant, k: int, v: float) -> Quadratic:
    """Acceleration that the drive allows in gear k, from v to the next bend."""
    slope = 0.0
    for j in range(len(p.sources)):
        slope += torque_slope(p, k, j, v) * p.sources[j].number * p.sources[j].ratio * p.sources[j].efficiency
    slope *= p.gears[k].ratio / p.vehicle[0].radius * p.vehicle[0].trunk_efficiency
    air, mass = p.vehicle[0].air, p.gears[k].inertial_mass
    rest = drive_force(p, k, v * ABOVE, 0.0, FULL) - resistance(p, v)
    return Quadratic(rest / mass, (slope - 2.0 * air * v) / mass, -air / mass)


@kernel
def by_grip(p: Plant, v: float) -> tuple[Quadratic, Quadratic]:
    """Accelerations at which the tyres slip and at which the front wheels lift; see `forces.traction`."""
    mass, air = p.vehicle[0].mass, p.vehicle[0].air
    lifting = Quadratic((p.vehicle[0].weight * p.vehicle[0].lift - p.vehicle[0].grade) / mass, 0.0, 0.0)
    grip, transfer = p.vehicle[0].grip, p.vehicle[0].transfer
    rest = 1.0 - grip * transfer
    if rest <= 0.0:
        return lifting, lifting
    held = grip * (p.vehicle[0].weight * p.vehicle[0].share - transfer * (p.vehicle[0].rolling + air * v * v)) / rest
    lost = -air * (grip * transfer / rest + 1.0) / mass
    return Quadratic((held - resistance(p, v)) / mass, 2.0 * v * lost, lost), lifting


@kernel
def undercut(q: Quadratic, other: Quadratic) -> float:
    """Least u ≥ 0 beyond which the other quadratic is smaller; infinite if there is none."""
    return falls(minus(other, q), TIED * (abs(other.rest) + abs(q.rest)))


@kernel
def least(first: Quadratic, two: Quadratic) -> tuple[Quadratic, float]:
    """The smaller of two quadratics from u = 0 on, and the u up to which it stays the smaller one."""
    end = undercut(first, two)
    return (two, undercut(two, first)) if end == 0.0 else (first, end)


@kernel
def quadratic(p: Plant, k: int, v: float) -> tuple[Quadratic, float]:
    """Acceleration of engines alone in gear k around v, and the u up to which drive or tyres keep limiting it."""
    slipping, lifting = by_grip(p, v)
    tyres, until = least(slipping, lifting)
    q, end = least(by_drive(p, k, v), tyres)
    return q, min(until, end)


@kernel
def stretch(p: Plant, k: int, v: float) -> tuple[Quadratic, float]:
    """Acceleration of engines alone in gear k from v on, and the u up to which this quadratic holds."""
    q, until = quadratic(p, k, v)
    return q, min(until, next_bend(p, k, v) - v)


@kernel
def first_better(p: Plant, k: int, g: int, start: float, end: float) -> float:
    """`gears.first_better` for engines alone.

    Gears are compared at the speed after the change, and there both are quadratics; coasting back from where g
    begins to pull more than k, and to pull at all, tells where the change began.
    """
    time = p.vehicle[0].shift_time
    first, last = coast(p, g, start, time)[0], coast(p, g, end * (1.0 - TIED), time)[0]
    v = first
    while v < last:
        kept, for_k = stretch(p, k, v)
        gained, for_g = stretch(p, g, v)
        length, room = min(for_k, for_g, last - v), TIED * (abs(kept.rest) + abs(gained.rest))
        u = both_rise(minus(gained, kept), gained, length, room)
        # Where a gain only begins at the end of the stretch, the next one tells whether there is any: both may have
        # come to what the tyres hold.
        if u + TIED * last < length:
            return start if v + u == first > 0.0 else max(start, coast(p, g, max(v + u, TIED * last), -time)[0])
        v += max(length, TIED * last)
    return math.nan


@kernel
def both_rise(first: Quadratic, two: Quadratic, length: float, room: float) -> float:
    """Least u below a length beyond which both quadratics are positive; infinite if there is none."""
    u = 0.0
    for _ in range(TURNS):
        if u >= length:
            break
        a, b = rises(first, u, room), rises(two, u, room)
        if a == u and b == u:
            return u
        u = max(a, b)
    return math.inf


@leaf
def rises(q: Quadratic, u: float, room: float) -> float:
    """Least place from u on beyond which a quadratic is positive; infinite if there is none."""
    return u + falls(Quadratic(-value(q, u), -q.line - 2.0 * u * q.square, -q.square), room)
