"""What motors draw and what voltage is left, at a given speed: full throttle, or eased off to a force.

Everything hangs on the applied voltage u = d·Vb. A motor with back-EMF E carries
I(u) = min(Ilim, (u − E)/R), so the power all motors take, P(u) = Σ N·I·(I·R + E), is piecewise quadratic
in u, with a joint at each u = Ilim·R + E. The supply's law closes the circle on each piece by a quadratic.
(Steady-state DC motor behind a loss-free converter: any text on electric drives.)
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from ydrometer.driveline import Array, Plant


@dataclass(frozen=True, slots=True)
class Electric:
    """State of motors and supply at speeds of shape (n, k).

    Attributes:
        currents: of one motor of each branch, A, shape (J, n, k).
        bus_voltage: Vb, V. bus_current: Ibus, A. Both (n, k).
        demand: the bus current as it would be without the supply's current limit, (n, k).
    """

    currents: Array
    bus_voltage: Array
    bus_current: Array
    demand: Array


@dataclass(frozen=True, slots=True)
class _Piece:
    """One piece of P(u) = a·u² + b·u + c, which holds from u = start up to the next piece's start."""

    start: Array
    a: Array
    b: Array
    c: Array


def full_throttle(plant: Plant, speed: Array) -> Electric:
    """State at full throttle; a battery's current limit lowers the duty of all motors alike.

    Args:
        plant: n designs.
        speed: of the vehicle, m/s, shape (n, k), not negative.
    """
    emf = plant.back_emf * speed
    pieces = list(_pieces(plant, emf))
    voltage = _bus_voltage(plant, pieces)
    bus_current = _power(plant, emf, voltage) / voltage
    limited = bus_current > plant.supply_limit
    if not limited.any():
        return Electric(motor_currents(plant, emf, voltage), voltage, bus_current, bus_current)
    # At the limit the bus voltage is known, and with it the power that may be taken.
    limit = np.where(limited, plant.supply_limit, 0.0)
    held = np.where(limited, plant.voltage - plant.supply_resistance * limit, voltage)
    applied = np.where(limited, _voltage_for_power(pieces, held * limit), voltage)
    drawn = np.where(limited, limit, bus_current)
    return Electric(motor_currents(plant, emf, applied), held, drawn, bus_current)


def eased_off(plant: Plant, speed: Array, force: Array) -> Electric:
    """State at the duty at which the drive gives just `force`.

    Args:
        plant: n designs.
        speed: m/s, shape (n, k).
        force: N at the wheels' rim, shape (n, k), not above what full throttle gives.
    """
    emf = plant.back_emf * speed
    currents = motor_currents(plant, emf, _voltage_for_force(plant, emf, force))
    power = (plant.count * currents * (currents * plant.resistance + emf)).sum(axis=0)
    # Vb² − Voc·Vb + Rb·P = 0, the upper root; eased off, the supply can always give the power.
    root = np.sqrt(np.maximum(plant.voltage**2 - 4.0 * plant.supply_resistance * power, 0.0))
    voltage = 0.5 * (plant.voltage + root)
    return Electric(currents, voltage, power / voltage, power / voltage)


def drive_force(plant: Plant, currents: Array) -> Array:
    """Force at the rim of all driven wheels, N, shape (n, k).

    A negative torque passes the losses the other way: it is divided by the efficiency.
    """
    return _through(_joined(plant, currents), plant.trunk_ratio, plant.trunk_efficiency) / plant.radius


def _joined(plant: Plant, currents: Array) -> Array:
    """Torque of all branches of the whole vehicle where they join, N·m, (n, k)."""
    torque = plant.kt * (currents - plant.no_load_current)
    made: Array = (plant.count * _through(torque, plant.branch_ratio, plant.branch_efficiency)).sum(axis=0)
    return made


def controller_margin(plant: Plant, speed: Array) -> Array:
    """Positive where a branch's controller holds its current at full throttle, shape (J, n, k), V.

    It is what the supply would have to spare at the voltage at which the limit begins, u = Ilim·R + E:
    Voc − u − Rb·P(u)/u. Unlike the current itself it is smooth where it changes sign.
    """
    emf = plant.back_emf * speed
    joint = plant.current_limit * plant.resistance + emf
    finite = np.where(np.isfinite(joint), joint, 1.0)
    drawn = np.stack([_power(plant, emf, u) / u for u in finite])
    return np.where(np.isfinite(joint), plant.voltage - finite - plant.supply_resistance * drawn, -1.0)


def motor_currents(plant: Plant, emf: Array, applied: Array) -> Array:
    """I = min(Ilim, (u − E)/R), shape (J, n, k)."""
    return np.minimum(plant.current_limit, (applied - emf) / plant.resistance)


def _through(torque: Array, ratio: Array, efficiency: Array) -> Array:
    """Torque behind stages; one that brakes takes the losses the other way."""
    made: Array = torque * ratio * np.where(torque < 0.0, 1.0 / efficiency, efficiency)
    return made


def _power(plant: Plant, emf: Array, applied: Array) -> Array:
    currents = motor_currents(plant, emf, applied)
    taken: Array = (plant.count * currents * (currents * plant.resistance + emf)).sum(axis=0)
    return taken


def _pieces(plant: Plant, emf: Array) -> Iterator[_Piece]:
    """The pieces of P(u) from the highest voltages down: first all motors at their limit, last none."""
    joint = plant.current_limit * plant.resistance + emf
    rank = np.argsort(np.argsort(joint, axis=0), axis=0)
    ordered = np.sort(joint, axis=0)
    conductance = plant.count / plant.resistance
    finite = np.isfinite(plant.current_limit)
    at_limit = plant.count * np.where(finite, plant.current_limit, 0.0) * np.where(np.isfinite(joint), joint, 0.0)
    for limited_motors in range(len(joint), -1, -1):
        free = rank >= limited_motors
        start = ordered[limited_motors - 1] if limited_motors else np.full(emf.shape[1:], -np.inf)
        yield _Piece(
            start,
            np.where(free, conductance, 0.0).sum(axis=0),
            -np.where(free, conductance * emf, 0.0).sum(axis=0),
            np.where(free, 0.0, at_limit).sum(axis=0),
        )


def _bus_voltage(plant: Plant, pieces: list[_Piece]) -> Array:
    """The highest Vb with Vb = Voc − Rb·P(Vb)/Vb, at duty 1."""
    rb, voltage = plant.supply_resistance, plant.voltage

    def root(piece: _Piece) -> Array:
        half = 0.5 * (voltage - rb * piece.b)
        lead = rb * piece.a + 1.0
        with np.errstate(invalid="ignore"):
            made: Array = (half + np.sqrt(half**2 - lead * rb * piece.c)) / lead
        return made

    return _first_valid(pieces, root)


def _voltage_for_power(pieces: list[_Piece], power: Array) -> Array:
    """The highest u with P(u) = power, where full throttle would take more."""

    def root(piece: _Piece) -> Array:
        with np.errstate(invalid="ignore", divide="ignore"):
            spread = np.sqrt(piece.b**2 - 4.0 * piece.a * (piece.c - power))
            made: Array = (spread - piece.b) / (2.0 * piece.a)
        # With every motor at its limit P no longer depends on u: no root there.
        return np.where(piece.a > 0.0, made, np.nan)

    return _first_valid(pieces, root)


def _first_valid(pieces: list[_Piece], root: Callable[[_Piece], Array]) -> Array:
    """The root on the highest piece on which it lies; P is continuous, so the pieces above have none."""
    found = root(pieces[0])
    missing = ~(found >= pieces[0].start)
    for piece in pieces[1:]:
        if not missing.any():
            break
        value = root(piece)
        found = np.where(missing, value, found)
        missing &= ~(value >= piece.start)
    return found


def _voltage_for_force(plant: Plant, emf: Array, force: Array) -> Array:
    """The u at which the drive gives `force`.

    The joined torque is piecewise linear in u, bent where a motor reaches its limit and where its own torque
    changes sign, so it is inverted by linear interpolation between those points.
    """
    wanted = _through(force * plant.radius, 1.0 / plant.trunk_ratio, 1.0 / plant.trunk_efficiency)
    free = plant.no_load_current * plant.resistance + emf
    limit = plant.current_limit * plant.resistance + emf
    full = np.where(np.isfinite(limit), limit, free + plant.voltage)
    points = np.sort(np.concatenate([free, full, free.min(axis=0, keepdims=True) - plant.voltage]), axis=0)
    torques = np.stack([_joined(plant, motor_currents(plant, emf, u)) for u in points])
    applied: Array = points[0]
    for low in range(len(points) - 1):
        rise = torques[low + 1] - torques[low]
        with np.errstate(divide="ignore", invalid="ignore"):
            share = (wanted - torques[low]) / rise
        inside = (rise > 0.0) & ((wanted >= torques[low]) | (low == 0))
        applied = np.where(inside, points[low] + share * (points[low + 1] - points[low]), applied)
    return applied
