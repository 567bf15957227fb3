"""What motors draw and what voltage is left at a given speed, at full throttle, at a duty, or eased off to a force.

Everything hangs on the applied voltage u = d·Vb. A motor with back-EMF E carries I(u) = min(Ilim, (u − E)/R),
so the power all motors take, P(u) = Σ N·I·(I·R + E), is piecewise quadratic in u, with a joint at each
u = Ilim·R + E. On each piece of P and each straight piece of the supply's law p·V + q·I = s the circuit closes by
a quadratic. (Steady-state DC motor behind a loss-free converter: any text on electric drives.)

In all kernels: p the design, k its gear, v the speed of the vehicle in m/s, u the voltage applied to its motors.
"""

from __future__ import annotations

import math

from ydrometer.jit import compiled
from ydrometer.motion.plant import Plant

EDGE = 1e-9
"""Relative room at the ends of a piece, so that a root just on a joint is not lost between two pieces."""
LEAST_VOLTAGE = 1e-9
"""Stands for a bus voltage that is not there, V."""
FULL = 1.0
DUTY_STEPS = 100


@compiled
def back_emf(p: Plant, k: int, j: int, v: float) -> float:
    """E = ke·w of one motor of branch j, V."""
    return p.ke[j] * p.turning[k][j] * v


@compiled
def motor_current(p: Plant, k: int, j: int, v: float, u: float) -> float:
    """I = min(Ilim, (u − E)/R) of one motor of branch j, A."""
    return min(p.current_limit[j], (u - back_emf(p, k, j, v)) / p.resistance[j])


@compiled
def power(p: Plant, k: int, v: float, u: float) -> float:
    """What all motors take, P(u), W."""
    total = 0.0
    for j in range(len(p.engine)):
        if p.engine[j] == 0.0:
            current = motor_current(p, k, j, v, u)
            total += p.count[j] * current * (current * p.resistance[j] + back_emf(p, k, j, v))
    return total


@compiled
def highest_root(
    p: Plant, k: int, v: float, a: float, b: float, c: float, w: float, low: float, high: float
) -> float:
    """The highest u in [low, high] with a·u² + b·P(u) − c·u − w = 0; NaN where there is none.

    Walks the pieces of P from the highest voltages down: at the top every motor that has a limit is at it.
    """
    top = math.inf
    while top > low:
        joint = -math.inf
        for j in range(len(p.engine)):
            if p.engine[j] == 0.0:
                at = p.current_limit[j] * p.resistance[j] + back_emf(p, k, j, v)
                if joint < at < top:
                    joint = at
        square, line, rest = a, -c, -w
        for j in range(len(p.engine)):
            if p.engine[j] == 0.0:
                e = back_emf(p, k, j, v)
                if p.current_limit[j] * p.resistance[j] + e >= top:
                    square += b * p.count[j] / p.resistance[j]
                    line -= b * p.count[j] * e / p.resistance[j]
                else:
                    limit = p.current_limit[j]
                    rest += b * p.count[j] * limit * (limit * p.resistance[j] + e)
        u = upper_root(square, line, rest)
        least, most = max(joint, low), min(top, high)
        if least - EDGE * abs(least) <= u <= most + EDGE * abs(most):
            return u
        top = joint
    return math.nan


@compiled
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


@compiled
def bus_voltage(p: Plant, k: int, v: float, duty: float) -> float:
    """The highest Vb at which motors at `duty` draw what the supply gives, V.

    In u = d·Vb the law p·V + q·P/V = s reads p·u² + q·d²·P(u) − s·d·u = 0.
    """
    high = math.inf
    for i in range(len(p.law)):
        piece = p.law[i]
        low = piece[3]
        if math.isnan(low):
            break
        u = highest_root(
            p, k, v, piece[0], piece[1] * duty * duty, piece[2] * duty, 0.0, low * duty, high * duty
        )
        if not math.isnan(u):
            return u / duty
        high = low
    return LEAST_VOLTAGE


@compiled
def bus_voltage_for_power(p: Plant, watts: float) -> float:
    """The highest Vb at which the supply gives a power, V; the most it can where it cannot."""
    high = math.inf
    for i in range(len(p.law)):
        piece = p.law[i]
        low = piece[3]
        if math.isnan(low):
            break
        voltage = upper_root(piece[0], -piece[2], piece[1] * watts)
        if math.isnan(voltage):
            voltage = 0.5 * piece[2] / piece[0] if piece[0] > 0.0 else low
        if voltage >= low - EDGE * abs(low) and voltage <= high * (1.0 + EDGE):
            return voltage
        high = low
    return high


@compiled
def electric(p: Plant, k: int, v: float, duty: float) -> tuple[float, float, float]:
    """State at a duty d ≤ 1: applied voltage u, bus voltage Vb, bus current Ibus; a battery's limit lowers u.

    Zeros where there is no motor.
    """
    motors = False
    for j in range(len(p.engine)):
        motors = motors or p.engine[j] == 0.0
    if not motors or duty <= 0.0:
        return 0.0, p.law[0][2] if motors else 0.0, 0.0
    bus = bus_voltage(p, k, v, duty)
    drawn = power(p, k, v, duty * bus) / bus
    if drawn <= p.supply_limit:
        return duty * bus, bus, drawn
    # At the limit the bus voltage is known, and with it the power that may be taken.
    held = p.law[0][2] - p.law[0][1] * p.supply_limit
    u = highest_root(p, k, v, 0.0, 1.0, 0.0, held * p.supply_limit, -math.inf, math.inf)
    return u, held, p.supply_limit


@compiled
def engine_speed(p: Plant, k: int, j: int, v: float) -> float:
    """Speed of the engine of branch j, rad/s: it stands at the clutch's engagement while the shaft behind is slower."""
    return max(p.turning[k][j] * v, p.engagement[j])


@compiled
def engine_torque(p: Plant, k: int, j: int, v: float) -> float:
    """Full-throttle torque of one engine, N·m: linear between points, level before the first, 0 beyond the last."""
    w = engine_speed(p, k, j, v)
    speeds, torques = p.curve_speed[j], p.curve_torque[j]
    last = len(speeds) - 1
    if w > speeds[last] * (1.0 + 1e-12):
        return 0.0
    if w <= speeds[0]:
        return torques[0]
    c = 1
    while c < last and speeds[c] < w:
        c += 1
    if speeds[c] <= speeds[c - 1]:
        return torques[c]
    return torques[c - 1] + (torques[c] - torques[c - 1]) * (w - speeds[c - 1]) / (speeds[c] - speeds[c - 1])


@compiled
def source_torque(p: Plant, k: int, j: int, v: float, u: float, duty: float) -> float:
    """Torque of one source of branch j, N·m: T = kt·(I − I0), or the engine's at a throttle `duty`."""
    if p.engine[j] != 0.0:
        return duty * engine_torque(p, k, j, v)
    return p.kt[j] * (motor_current(p, k, j, v, u) - p.no_load_current[j])


@compiled
def drive_force(p: Plant, k: int, v: float, u: float, duty: float) -> float:
    """F_drive at the rim of all driven wheels, N; a torque that brakes takes the losses the other way."""
    joined = 0.0
    for j in range(len(p.engine)):
        torque = p.count[j] * source_torque(p, k, j, v, u, duty) * p.branch_ratio[j]
        joined += torque * p.branch_efficiency[j] if torque >= 0.0 else torque / p.branch_efficiency[j]
    force = joined * p.trunk_ratio[k] / p.radius
    return force * p.trunk_efficiency if force >= 0.0 else force / p.trunk_efficiency


@compiled
def voltage_for_force(p: Plant, k: int, v: float, force: float, full: float) -> float:
    """The u ≤ full at which motors alone give `force`, which is not above what they give at `full`.

    The force is piecewise linear in u, bent where a motor reaches its limit and where its torque changes sign.
    """
    high, at_high = full, drive_force(p, k, v, full, FULL)
    while True:
        low = -math.inf
        for j in range(len(p.engine)):
            e = back_emf(p, k, j, v)
            free = p.no_load_current[j] * p.resistance[j] + e
            bound = p.current_limit[j] * p.resistance[j] + e
            if low < free < high:
                low = free
            if low < bound < high:
                low = bound
        straight_down = low == -math.inf
        if straight_down:
            low = high - 1.0
        at_low = drive_force(p, k, v, low, FULL)
        if at_low <= force or straight_down:
            return low + (high - low) * (force - at_low) / (at_high - at_low) if at_high > at_low else high
        high, at_high = low, at_low


@compiled
def duty_for_force(p: Plant, k: int, v: float, force: float) -> float:
    """The common duty at which motors and engines together give `force`, by the Illinois method."""
    low, high = 0.0, FULL
    f_low = drive_force(p, k, v, electric(p, k, v, low)[0], low) - force
    f_high = drive_force(p, k, v, electric(p, k, v, high)[0], high) - force
    last = 0
    for _ in range(DUTY_STEPS):
        if f_low >= 0.0 or f_high <= 0.0 or high - low < 1e-14:
            break
        duty = high - f_high * (high - low) / (f_high - f_low)
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


@compiled
def eased_off(p: Plant, k: int, v: float, force: float) -> tuple[float, float, float, float]:
    """State at the largest duty at which the drive gives `force` ≤ full throttle: u, Vb, Ibus, throttle of engines."""
    engines, motors = False, False
    for j in range(len(p.engine)):
        engines = engines or p.engine[j] != 0.0
        motors = motors or p.engine[j] == 0.0
    if motors and not engines:
        u = voltage_for_force(p, k, v, force, electric(p, k, v, FULL)[0])
        watts = power(p, k, v, u)
        bus = bus_voltage_for_power(p, watts)
        return u, bus, watts / bus, FULL
    if not motors:
        return 0.0, 0.0, 0.0, force / drive_force(p, k, v, 0.0, FULL)
    duty = duty_for_force(p, k, v, force)
    u, bus, drawn = electric(p, k, v, duty)
    return u, bus, drawn, duty
