"""Speeds at which something ends or changes: no drive left, no acceleration left, another regime."""

from __future__ import annotations

import math

from ydrometer.base.jit import kernel, leaf
from ydrometer.motion import currents, forces
from ydrometer.motion.plant import Plant, turning

LOOKS = 32
"""Looks over the speeds of a gear, before what was seen is pinned down."""
MOST_DOUBLINGS = 40
"""A slope may push beyond what the drive does; a speed 10¹² times higher stands for no end at all."""
CORNER_STEPS = 20
"""Halvings by which a corner is pinned down, to 5e-8 of the speeds of a gear; an integral over a bend errs by the
square of that, over a jump by that itself."""
ROOT_STEPS = 200

FULL = currents.FULL
drive_force, electric, acceleration = currents.drive_force, currents.electric, forces.acceleration
resistance, traction = forces.resistance, forces.traction
motor_current = currents.motor_current


@kernel
def left(p: Plant, k: int, on_ground: bool, v: float) -> float:
    """What is still there at v: on the ground the acceleration, m/s², else the driving force, N."""
    if on_ground:
        return acceleration(p, k, v)
    return drive_force(p, k, v, electric(p, k, v, FULL)[0], FULL)


@kernel
def sources_end(p: Plant, k: int) -> float:
    """The speed beyond which no source drives any more, m/s."""
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
    """The lowest speed above `start` at which `left` ceases to be positive, m/s, taken on its positive side.

    `start` itself where it is not positive there; infinite where it never ceases. Motors pull ever less as they turn
    faster, so what is left ends once. An engine may dip and rise again; between two bends of its torque what is left
    is concave, so that a dip shows at a bend. Of both together neither holds, and looks have to do.
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
    """Where from a towards b Chandrupatla's method (1997) looks next: inverse quadratic interpolation where it is safe,
    bisection where it is not.

    a and b hold the root between them, c is the end that was given up last; fa, fb, fc are the values there.
    """
    xi, phi = (a - b) / (c - b), (fa - fb) / (fc - fb) if fc != fb else 0.5
    if phi * phi < xi and (1.0 - phi) * (1.0 - phi) < 1.0 - xi and (fc - fa) * (fc - fb) != 0.0:
        return fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
    return 0.5


@kernel
def _root(p: Plant, k: int, on_ground: bool, low: float, high: float) -> float:
    """Where `left` changes sign between low (positive) and high, by Chandrupatla's method, on the positive side.

    Ends at the last bit, also at a jump.
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
    """Whether an engine that still pulls is cut off at the speed v, which is the end of its curve."""
    for j in range(len(p.sources)):
        if p.sources[j].engine != 0.0:
            last = p.curves[j][len(p.curves[j]) - 1]
            if last.torque > 0.0 and abs(v * turning(p, k, j) - last.speed) <= 1e-6 * last.speed:
                return True
    return False


@kernel
def regime(p: Plant, k: int, v: float) -> int:
    """A number that changes wherever a(v) may bend but for an engine's own bends: limits, grip, lifting, pieces of the
    supply's law, braking motors.
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
    """The first speed in (low, high) at which the regime is no longer `here`, that of low, though it is at high not."""
    for _ in range(CORNER_STEPS):
        middle = 0.5 * (low + high)
        if regime(p, k, middle) == here:
            low = middle
        else:
            high = middle
    return high
