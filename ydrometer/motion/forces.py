"""Forces between wheels and ground, and the acceleration they leave.

Longitudinal model of a vehicle: Gillespie, Fundamentals of Vehicle Dynamics, chapter 1 (dynamic axle loads), chapter 2
(acceleration limited by power and by traction), chapter 4 (road loads). Symbols as in `currents`.
"""

from __future__ import annotations

import math

from ydrometer.base.jit import inner, kernel, leaf
from ydrometer.motion import currents
from ydrometer.motion.plant import Plant

FULL = currents.FULL
drive_force, eased_off, electric = currents.drive_force, currents.eased_off, currents.electric


@leaf
def resistance(p: Plant, v: float) -> float:
    """F_res = F_rr + F_air + F_grade of a moving vehicle, N."""
    return p.vehicle[0].rolling + p.vehicle[0].air * v * v + p.vehicle[0].grade


@leaf
def traction(p: Plant, v: float) -> float:
    """Traction limit F_trac, N: with the load transfer between the axles, and at most the force that lifts the front.

    mu·(W·share − t·(F_rr + F_air))/(1 − mu·t), with t = h/L where the rear wheels drive and −h/L where the front do.
    """
    against = p.vehicle[0].rolling + p.vehicle[0].air * v * v
    lifting = p.vehicle[0].weight * p.vehicle[0].lift + against
    rest = 1.0 - p.vehicle[0].grip * p.vehicle[0].transfer
    if rest <= 0.0:
        return lifting
    return min(
        p.vehicle[0].grip * (p.vehicle[0].weight * p.vehicle[0].share - p.vehicle[0].transfer * against) / rest, lifting
    )


@kernel
def wall_traction(p: Plant) -> float:
    """Traction limit while pushing against a wall, N: nothing accelerates, and a push at ground level lifts nothing."""
    held = p.vehicle[0].grip * (p.vehicle[0].weight * p.vehicle[0].share + p.vehicle[0].transfer * p.vehicle[0].grade)
    return max(0.0, min(held, p.vehicle[0].grip * p.vehicle[0].weight))


@kernel
def holding_back(p: Plant, v: float) -> float:
    """What the ground holds of driven wheels that are turned backwards at a speed, N: `traction` turned round.

    mu·(W·share − t·(F_rr + F_air))/(1 + mu·t); where other wheels than the rear ones drive, at most the force that
    lifts the rear.
    """
    against = p.vehicle[0].rolling + p.vehicle[0].air * v * v
    rest = 1.0 + p.vehicle[0].grip * p.vehicle[0].transfer
    held = math.inf
    if rest > 0.0:
        held = p.vehicle[0].grip * (p.vehicle[0].weight * p.vehicle[0].share - p.vehicle[0].transfer * against) / rest
    if p.vehicle[0].transfer <= 0.0:
        held = min(held, p.vehicle[0].weight * p.vehicle[0].rear_lift - against)
    return max(0.0, held)


@kernel
def braking(p: Plant) -> float:
    """Constant deceleration F_brake/m + g·sin(th), m/s²; not positive where the slope beats the brakes."""
    held = min(
        p.vehicle[0].grip * p.vehicle[0].weight * p.vehicle[0].braked_share,
        p.vehicle[0].brake_force,
        p.vehicle[0].weight * p.vehicle[0].rear_lift,
    )
    return (held + p.vehicle[0].grade) / p.vehicle[0].mass


@inner
def accelerations(p: Plant, k: int, v: float) -> tuple[float, float]:
    """Acceleration allowed by the drive at full throttle, and by the tyres, m/s²; the vehicle has the smaller one."""
    drive = drive_force(p, k, v, electric(p, k, v, FULL)[0], FULL)
    against = resistance(p, v)
    return (drive - against) / p.gears[k].inertial_mass, (traction(p, v) - against) / p.vehicle[0].mass


@inner
def acceleration(p: Plant, k: int, v: float) -> float:
    """a(v) in gear k, m/s²."""
    by_drive, by_grip = accelerations(p, k, v)
    return min(by_drive, by_grip)


@inner
def as_driven(p: Plant, k: int, v: float) -> tuple[float, float, float, float, float]:
    """State of the run at speed v: acceleration, u, Vb, Ibus, throttle. The driver eases off at the limit of grip.

    At that limit the drive force is F_trac + (m_eff − m)·a: the second term accelerates the rotating masses.
    """
    u, bus, drawn = electric(p, k, v, FULL)
    full = drive_force(p, k, v, u, FULL)
    against, tyres = resistance(p, v), traction(p, v)
    by_drive, by_grip = (full - against) / p.gears[k].inertial_mass, (tyres - against) / p.vehicle[0].mass
    if by_grip >= by_drive:
        return by_drive, u, bus, drawn, FULL
    wanted = tyres + (p.gears[k].inertial_mass - p.vehicle[0].mass) * by_grip
    u, bus, drawn, throttle = eased_off(p, k, v, min(wanted, full))
    return by_grip, u, bus, drawn, throttle


@kernel
def coast(p: Plant, k: int, v: float, time: float) -> tuple[float, float]:
    """Speed, m/s, and distance, m, after coasting for a time. Rolling resistance stops the vehicle, never pushes it.

    dv/dt = −α − β·v² (Riccati) with α = (F_rr + F_grade)/m_eff and β = air/m_eff has the solution
    v(t) = (v·C − α·S)/(C + β·v·S), x(t) = ln(C + β·v·S)/β, where C and S are cosine and sine of √(αβ)·t, the
    latter over √(αβ); hyperbolic where the slope drives it. A negative time tells the speed it had before.
    """
    alpha, beta = (
        (p.vehicle[0].rolling + p.vehicle[0].grade) / p.gears[k].inertial_mass,
        p.vehicle[0].air / p.gears[k].inertial_mass,
    )
    turn = math.sqrt(abs(alpha * beta))
    if alpha > 0.0:
        stop = math.atan(v * turn / alpha) / turn if turn * v > 1e-9 * alpha else v / alpha
        time = min(time, stop)
    angle = turn * time
    if abs(angle) < 1e-6:
        # The series of C − 1 and S, exact to the last digits here.
        cosine = -0.5 * alpha * beta * time * time
        sine = time * (1.0 - alpha * beta * time * time / 6.0)
    elif alpha > 0.0:
        cosine, sine = -2.0 * math.sin(0.5 * angle) ** 2, math.sin(angle) / turn
    else:
        cosine, sine = 2.0 * math.sinh(0.5 * angle) ** 2, math.sinh(angle) / turn
    grown = cosine + beta * v * sine
    speed = max(0.0, (v * (1.0 + cosine) - alpha * sine) / (1.0 + grown))
    if beta * v * time < 1e-9:
        return speed, v * time - 0.5 * alpha * time * time
    return speed, math.log1p(grown) / beta


@kernel
def max_grade(p: Plant) -> float:
    """The steepest slope on which the vehicle still starts, rise over run; NaN if it does not start on level ground.

    Each term of the start reads A·cos(th) − m·g·sin(th) + B = 0 and is solved in closed form; the least holds.
    """
    over_cos = 1.0 / math.cos(math.atan2(p.vehicle[0].grade, p.vehicle[0].weight))
    level = p.vehicle[0].weight * over_cos
    fixed = p.vehicle[0].rolling - p.vehicle[0].rolling_coefficient * p.vehicle[0].weight
    crr = p.vehicle[0].rolling_coefficient
    drive = drive_force(p, 0, 0.0, electric(p, 0, 0.0, FULL)[0], FULL)
    steepest = steepest_slope(-crr * level, level, drive - fixed)
    rest = 1.0 - p.vehicle[0].grip * p.vehicle[0].transfer
    if rest > 0.0:
        held = p.vehicle[0].grip * (p.vehicle[0].share - p.vehicle[0].transfer * crr) / rest - crr
        steepest = min(
            steepest,
            steepest_slope(held * level, level, -(p.vehicle[0].grip * p.vehicle[0].transfer / rest + 1.0) * fixed),
        )
    if not math.isinf(p.vehicle[0].lift):
        steepest = min(steepest, math.atan(p.vehicle[0].lift))
    return math.tan(steepest) if steepest > 0.0 else math.nan


@kernel
def steepest_slope(a: float, s: float, b: float) -> float:
    """The angle th in (0, π/2) at which a·cos(th) − s·sin(th) + b falls to 0; 0 if it is not positive at th = 0."""
    if a + b <= 0.0:
        return 0.0
    size = math.hypot(a, s)
    if b >= size:
        return 0.5 * math.pi
    return min(math.acos(-b / size) - math.atan2(s, a), 0.5 * math.pi)
