"""Motor currents and bus voltage at a given speed: at full throttle, at a given duty, or eased off to a given force.

Everything depends on the applied voltage u = d·Vb. A motor with back-EMF E carries I(u) = min(Ilim, (u − E)/R),
so the power all motors take, P(u) = Σ N·I·(I·R + E), is piecewise quadratic in u, with a joint at each
u = Ilim·R + E. On each piece of P and each straight piece of the supply's law p·V + q·I = s the circuit closes by
a quadratic. (Steady-state DC motor behind a loss-free converter: Hughes
and Drury, Electric Motors and Drives, chapter 3, Conventional d.c. motors, and chapter 4, D.c. motor drives.)

In all kernels: p the design, k its gear, v the speed of the vehicle in m/s, u the voltage applied to its motors.
"""

from __future__ import annotations

import math

from ydrometer.base.jit import inner, kernel, leaf, over
from ydrometer.motion.plant import Plant, turning

EDGE = 1e-9
"""Relative room at the ends of a piece, so that a root just on a joint is not lost between two pieces."""
LEAST_VOLTAGE = 1e-9
"""Stands for a bus voltage where there is none, V."""
FULL = 1.0
DUTY_STEPS = 100


@leaf
def back_emf(p: Plant, k: int, j: int, v: float) -> float:
    """E = ke·w of one motor of branch j, V."""
    return p.sources[j].ke * turning(p, k, j) * v


@leaf
def motor_current(p: Plant, k: int, j: int, v: float, u: float) -> float:
    """I = min(Ilim, (u − E)/R) of one motor of branch j, A."""
    return min(p.sources[j].current_limit, (u - back_emf(p, k, j, v)) / p.sources[j].resistance)


@leaf
def power(p: Plant, k: int, v: float, u: float) -> float:
    """Electric power of all motors together, P(u), W."""
    total = 0.0
    for j in range(len(p.sources)):
        if p.sources[j].engine == 0.0:
            current = motor_current(p, k, j, v, u)
            total += p.sources[j].number * current * (current * p.sources[j].resistance + back_emf(p, k, j, v))
    return total


@inner
def highest_root(p: Plant, k: int, v: float, a: float, b: float, c: float, w: float, low: float, high: float) -> float:
    """The highest u in [low, high] with a·u² + b·P(u) − c·u − w = 0; NaN where there is none.

    Tries the pieces of P from the highest voltage down: at the top, every motor with a current limit is at its limit.
    """
    top = math.inf
    while top > low:
        joint = -math.inf
        for j in range(len(p.sources)):
            if p.sources[j].engine == 0.0:
                at = p.sources[j].current_limit * p.sources[j].resistance + back_emf(p, k, j, v)
                if joint < at < top:
                    joint = at
        square, line, rest = a, -c, -w
        for j in range(len(p.sources)):
            if p.sources[j].engine == 0.0:
                e = back_emf(p, k, j, v)
                if p.sources[j].current_limit * p.sources[j].resistance + e >= top:
                    square += b * p.sources[j].number / p.sources[j].resistance
                    line -= b * p.sources[j].number * e / p.sources[j].resistance
                else:
                    limit = p.sources[j].current_limit
                    rest += b * p.sources[j].number * limit * (limit * p.sources[j].resistance + e)
        u = upper_root(square, line, rest)
        least, most = max(joint, low), min(top, high)
        if least - EDGE * abs(least) <= u <= most + EDGE * abs(most):
            return u
        top = joint
    return math.nan


@leaf
def upper_root(a: float, b: float, c: float) -> float:
    """The larger root of a·x² + b·x + c with a ≥ 0, without losing digits; NaN where there is none."""
    if a == 0.0:
        return -c / b if b != 0.0 else math.nan
    inner = b * b - 4.0 * a * c
    if inner < 0.0:
        return math.nan
    if b <= 0.0:
        return (-b + math.sqrt(inner)) / (2.0 * a)
    return -2.0 * c / (b + math.sqrt(inner))


@inner
def bus_voltage(p: Plant, k: int, v: float, duty: float) -> float:
    """The highest Vb, V, at which the motors at a given duty draw exactly the current that the supply gives.

    In u = d·Vb the law p·V + q·P/V = s reads p·u² + q·d²·P(u) − s·d·u = 0.
    """
    high = math.inf
    for i in range(len(p.law)):
        piece = p.law[i]
        low = piece.low
        if math.isnan(low):
            break
        u = highest_root(p, k, v, piece.p, piece.q * duty * duty, piece.s * duty, 0.0, low * duty, high * duty)
        if not math.isnan(u):
            return u / duty
        high = low
    return LEAST_VOLTAGE


@kernel
def bus_voltage_for_power(p: Plant, watts: float) -> float:
    """The highest Vb, V, at which the supply gives a power; the voltage of its largest power if it cannot give that."""
    high = math.inf
    for i in range(len(p.law)):
        piece = p.law[i]
        low = piece.low
        if math.isnan(low):
            break
        voltage = upper_root(piece.p, -piece.s, piece.q * watts)
        if piece.p == 0.0 and piece.s == 0.0:
            # Nothing flows on this piece: it gives no power, and takes none back.
            voltage = low if watts <= 0.0 else math.nan
        elif math.isnan(voltage):
            voltage = 0.5 * piece.s / piece.p if piece.p > 0.0 else low
        if voltage >= low - EDGE * abs(low) and voltage <= high * (1.0 + EDGE):
            return voltage
        high = low
    return high


@inner
def electric(p: Plant, k: int, v: float, duty: float) -> tuple[float, float, float]:
    """State at a duty d ≤ 1: applied voltage u, bus voltage Vb, bus current Ibus. A battery's current limit lowers u.

    Zeros where there is no motor.
    """
    motors = False
    for j in range(len(p.sources)):
        motors = motors or p.sources[j].engine == 0.0
    if not motors or duty <= 0.0:
        return 0.0, p.law[0].s if motors else 0.0, 0.0
    bus = bus_voltage(p, k, v, duty)
    drawn = power(p, k, v, duty * bus) / bus
    if drawn <= p.vehicle[0].supply_limit:
        return duty * bus, bus, drawn
    # At the limit the bus voltage is known, and with it the power that may be taken.
    held = p.law[0].s - p.law[0].q * p.vehicle[0].supply_limit
    u = highest_root(p, k, v, 0.0, 1.0, 0.0, held * p.vehicle[0].supply_limit, -math.inf, math.inf)
    return u, held, p.vehicle[0].supply_limit


@kernel
def engine_speed(p: Plant, k: int, j: int, v: float) -> float:
    """Speed of the engine of branch j, rad/s: it stands at the clutch's engagement while the shaft behind is slower."""
    return max(turning(p, k, j) * v, p.sources[j].engagement)


@kernel
def engine_torque(p: Plant, k: int, j: int, v: float) -> float:
    """Full-throttle torque of one engine, N·m: linear between points, level before the first, 0 beyond the last."""
    w = engine_speed(p, k, j, v)
    curve = p.curves[j]
    last = len(curve) - 1
    if w > curve[last].speed * (1.0 + 1e-12):
        return 0.0
    c = 0
    while c < last and curve[c].speed < w:
        c += 1
    if c == 0 or curve[c].speed <= curve[c - 1].speed:
        return curve[c].torque
    share = (w - curve[c - 1].speed) / (curve[c].speed - curve[c - 1].speed)
    return curve[c - 1].torque + (curve[c].torque - curve[c - 1].torque) * min(share, 1.0)


@leaf
def source_torque(p: Plant, k: int, j: int, v: float, u: float, duty: float) -> float:
    """Torque of one source of branch j, N·m: T = kt·(I − I0), or the engine's at a throttle `duty`."""
    if p.sources[j].engine != 0.0:
        return duty * engine_torque(p, k, j, v)
    return p.sources[j].kt * (motor_current(p, k, j, v, u) - p.sources[j].no_load_current)


@inner
def joined_torque(p: Plant, k: int, v: float, u: float, duty: float) -> float:
    """Torque of all sources where the branches join, N·m. A braking torque is divided by the efficiency instead."""
    joined = 0.0
    for j in range(len(p.sources)):
        torque = p.sources[j].number * source_torque(p, k, j, v, u, duty) * p.sources[j].ratio
        joined += torque * p.sources[j].efficiency if torque >= 0.0 else torque / p.sources[j].efficiency
    return joined


@inner
def drive_force(p: Plant, k: int, v: float, u: float, duty: float) -> float:
    """F_drive at the rim of all driven wheels, N."""
    force = joined_torque(p, k, v, u, duty) * p.gears[k].ratio / p.vehicle[0].radius
    efficiency = p.vehicle[0].trunk_efficiency
    return force * efficiency if force >= 0.0 else force / efficiency


@kernel
def voltage_for_force(p: Plant, k: int, v: float, force: float, full: float) -> float:
    """The applied voltage u ≤ full at which motors alone give `force`, which must not exceed the force at `full`.

    The joined torque is piecewise linear in u, bent where a motor reaches its limit and where its torque changes sign.
    """
    efficiency = p.vehicle[0].trunk_efficiency
    wanted = force / efficiency if force >= 0.0 else force * efficiency
    wanted *= p.vehicle[0].radius / p.gears[k].ratio
    high, at_high = full, joined_torque(p, k, v, full, FULL)
    while True:
        low = -math.inf
        for j in range(len(p.sources)):
            e = back_emf(p, k, j, v)
            free = p.sources[j].no_load_current * p.sources[j].resistance + e
            bound = p.sources[j].current_limit * p.sources[j].resistance + e
            if low < free < high:
                low = free
            if low < bound < high:
                low = bound
        straight_down = low == -math.inf
        if straight_down:
            low = high - 1.0
        at_low = joined_torque(p, k, v, low, FULL)
        if at_low <= wanted or straight_down:
            return low + (high - low) * (wanted - at_low) / (at_high - at_low) if at_high > at_low else high
        high, at_high = low, at_low


@kernel
def duty_for_force(p: Plant, k: int, v: float, force: float) -> float:
    """The duty at which motors and engines together give `force`, by the Illinois method.

    Dowell and Jarratt, "A modified regula falsi method for computing the root of an equation", BIT 11 (1971).
    """
    low, high = 0.0, FULL
    f_low = drive_force(p, k, v, electric(p, k, v, low)[0], low) - force
    f_high = drive_force(p, k, v, electric(p, k, v, high)[0], high) - force
    last = 0
    for _ in range(DUTY_STEPS):
        if f_low >= 0.0 or f_high <= 0.0 or high - low < 1e-14:
            break
        duty = high - over(f_high * (high - low), f_high - f_low)
        f = drive_force(p, k, v, electric(p, k, v, duty)[0], duty) - force
        if f > 0.0:
            high, f_high = duty, f
            f_low *= 0.5 if last > 0 else 1.0
            last = 1
        else:
            low, f_low = duty, f
            f_high *= 0.5 if last < 0 else 1.0
            last = -1
    return low if f_low >= 0.0 else high


@kernel
def eased_off(p: Plant, k: int, v: float, force: float) -> tuple[float, float, float, float]:
    """State when eased off to `force`, at most that of full throttle: u, Vb, Ibus, throttle of engines."""
    engines, motors = False, False
    for j in range(len(p.sources)):
        engines = engines or p.sources[j].engine != 0.0
        motors = motors or p.sources[j].engine == 0.0
    if motors and not engines:
        u = voltage_for_force(p, k, v, force, electric(p, k, v, FULL)[0])
        watts = power(p, k, v, u)
        bus = bus_voltage_for_power(p, watts)
        return u, bus, over(watts, bus), FULL
    if not motors:
        return 0.0, 0.0, 0.0, over(force, drive_force(p, k, v, 0.0, FULL))
    duty = duty_for_force(p, k, v, force)
    u, bus, drawn = electric(p, k, v, duty)
    return u, bus, drawn, duty
