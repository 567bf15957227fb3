"""Speeds at which something ends or changes: driving force, acceleration, or the regime that limits it."""

from __future__ import annotations

import math

from ydrometer.base.jit import kernel, leaf
from ydrometer.motion import currents, forces
from ydrometer.motion.plant import Plant, turning

LOOKS = 32
"""Points over the speeds of a gear at which a change is looked for before it is located exactly."""
MOST_DOUBLINGS = 40
"""Doublings of speed: downhill there may be no top speed, and 10¹² times the first guess counts as none."""
CORNER_STEPS = 20
"""Bisection steps that locate a corner of a(v) to 5e-8 of the speeds of a gear. The error of an integral is of the same
size across a jump, and its square across a bend."""
ROOT_STEPS = 200

FULL = currents.FULL
drive_force, electric, acceleration = currents.drive_force, currents.electric, forces.acceleration
resistance, traction = forces.resistance, forces.traction
motor_current = currents.motor_current


@kernel
def left(p: Plant, k: int, on_ground: bool, v: float) -> float:
    """What remains at speed v: the acceleration on the ground, m/s², or the driving force with wheels in the air, N."""
    if on_ground:
        return acceleration(p, k, v)
    return drive_force(p, k, v, electric(p, k, v, FULL)[0], FULL)


@kernel
def sources_end(p: Plant, k: int) -> float:
    """The speed above which no source drives, m/s."""
    piece = p.law[0]
    open_circuit = piece.s / piece.p if piece.p > 0.0 else piece.low
    end = 0.0
    for j in range(len(p.sources)):
        if p.sources[j].engine != 0.0:
            curve = p.curves[j]
            end = max(end, curve[len(curve) - 1].speed / turning(p, k, j))
        else:
            end = max(end, open_circuit / (p.sources[j].ke * turning(p, k, j)))
    return end


@kernel
def next_bend(p: Plant, k: int, v: float) -> float:
    """The next speed above v at which the torque of an engine bends: its clutch engages, or a point of its curve; m/s.

    Infinite where there is none.
    """
    after, bend = v * (1.0 + 1e-12), math.inf
    for j in range(len(p.sources)):
        if p.sources[j].engine != 0.0:
            ratio, curve, c = turning(p, k, j), p.curves[j], 0
            engaged = p.sources[j].engagement
            if engaged <= after * ratio:
                while c < len(curve) and curve[c].speed <= after * ratio:
                    c += 1
                engaged = curve[c].speed if c < len(curve) else math.inf
            bend = min(bend, engaged / ratio)
    return bend


@kernel
def mixed(p: Plant) -> bool:
    """Whether motors and engines drive together."""
    engines = 0
    for j in range(len(p.sources)):
        engines += 1 if p.sources[j].engine != 0.0 else 0
    return 0 < engines < len(p.sources)


@kernel
def end_speed(p: Plant, k: int, on_ground: bool, start: float) -> float:
    """Lowest speed above `start`, m/s, at which `left` stops being positive; still on the positive side.

    Returns `start` if it is not positive there, and infinity if it never stops being positive. The torque of motors
    only falls with speed, so there is one such speed. That of an engine may dip and rise again; between two bends of
    its curve `left` is concave, so a dip shows at a bend. With motors and engines together neither holds, and `left` is
    sampled instead.
    """
    if not left(p, k, on_ground, start) > 0.0:
        return start
    ceiling = max(sources_end(p, k) * (1.0 + 1e-9), start * 1.01)
    step = (ceiling - start) / LOOKS if mixed(p) else math.inf
    positive = start
    while positive < ceiling:
        at = min(next_bend(p, k, positive), positive + step, ceiling)
        if not left(p, k, on_ground, at) > 0.0:
            return _root(p, k, on_ground, positive, at)
        positive = at
    for _ in range(MOST_DOUBLINGS):
        if not left(p, k, on_ground, 2.0 * positive) > 0.0:
            return _root(p, k, on_ground, positive, 2.0 * positive)
        positive *= 2.0
    return math.inf


@leaf
def next_share(a: float, b: float, c: float, fa: float, fb: float, fc: float) -> float:
    """Next trial point between a and b, as a share of the way: inverse quadratic interpolation if safe, else bisection.

    Chandrupatla, "A new hybrid quadratic/bisection algorithm for finding the zero of a nonlinear function without using
    derivatives", Advances in Engineering Software 28 (1997).

    The root lies between a and b; c is the end point dropped last; fa, fb, fc are the function values there.
    """
    xi, phi = (a - b) / (c - b), (fa - fb) / (fc - fb) if fc != fb else 0.5
    if phi * phi < xi and (1.0 - phi) * (1.0 - phi) < 1.0 - xi and (fc - fa) * (fc - fb) != 0.0:
        return fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
    return 0.5


@kernel
def _root(p: Plant, k: int, on_ground: bool, low: float, high: float) -> float:
    """Root of `left` between low, where it is positive, and high, by Chandrupatla's method; on the positive side.

    Converges to the last bit, also where `left` jumps.
    """
    a, b, c = high, low, high
    fa, fb = left(p, k, on_ground, a), left(p, k, on_ground, b)
    fc = fa
    share = 0.5
    for _ in range(ROOT_STEPS):
        x = a + share * (b - a)
        f = left(p, k, on_ground, x)
        if (f > 0.0) == (fa > 0.0):
            c, fc = a, fa
        else:
            c, b, fc, fb = b, a, fb, fa
        a, fa = x, f
        least = 4e-16 * max(abs(a), abs(b)) / abs(b - a) if b != a else 1.0
        if least > 0.5 or fa == 0.0:
            break
        share = min(max(next_share(a, b, c, fa, fb, fc), least), 1.0 - least)
    return a if fa >= 0.0 or not fb > 0.0 else b


@kernel
def cut_off(p: Plant, k: int, v: float) -> bool:
    """Whether v is the end of the curve of an engine that still has torque there, and so is cut off."""
    for j in range(len(p.sources)):
        if p.sources[j].engine != 0.0:
            last = p.curves[j][len(p.curves[j]) - 1]
            if last.torque > 0.0 and abs(v * turning(p, k, j) - last.speed) <= 1e-6 * last.speed:
                return True
    return False


@kernel
def regime(p: Plant, k: int, v: float) -> int:
    """Code of the regime at speed v: current limits, grip, lifting front wheels, pieces of the supply's law, braking.

    It differs on both sides of each corner of a(v), but for those that come from an engine's own curve.
    """
    u, bus, drawn = electric(p, k, v, FULL)
    number = 1 if drawn >= p.vehicle[0].supply_limit else 0
    for i in range(len(p.law)):
        number = 2 * number + (1 if bus >= p.law[i].low else 0)
    for j in range(len(p.sources)):
        if p.sources[j].engine == 0.0:
            current = motor_current(p, k, j, v, u)
            number = number * 3 + (
                2 if current >= p.sources[j].current_limit else 1 if current > p.sources[j].no_load_current else 0
            )
    against, tyres = resistance(p, v), traction(p, v)
    by_drive = (drive_force(p, k, v, u, FULL) - against) / p.gears[k].inertial_mass
    lifting = tyres - against >= p.vehicle[0].weight * p.vehicle[0].lift - p.vehicle[0].grade
    slipping = (tyres - against) / p.vehicle[0].mass < by_drive
    return (number % 1000003) * 4 + (2 if slipping else 0) + (1 if lifting else 0)


@kernel
def next_corner(p: Plant, k: int, here: int, low: float, high: float) -> float:
    """Lowest speed in (low, high) whose regime differs from `here`, the regime at low; that at high must differ."""
    for _ in range(CORNER_STEPS):
        middle = 0.5 * (low + high)
        if regime(p, k, middle) == here:
            low = middle
        else:
            high = middle
    return high
