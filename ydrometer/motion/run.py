"""The run from rest, by quadrature: time, distance and energy without stepping through time.

In one gear the acceleration depends on speed alone, so t = ∫dv/a, x = ∫v·dv/a, E = ∫P·dv/a. Towards the top
speed a → 0 and the integrands grow without bound; in s, with v = vtop·(1 − e^−s), they stay smooth:
dt/ds = (vtop − v)/a. The curve a(v) has corners (current limits, grip); panels end there. In each panel
the integrand is interpolated at Gauss points by Legendre polynomials, whose integrals are known at every
point, not only at the panel's end (P'_{k+1} − P'_{k−1} = (2k+1)·P_k: any handbook of special functions).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.polynomial import legendre
from numpy.typing import NDArray

from ydrometer.driveline import Array, Plant
from ydrometer.motion import currents, forces
from ydrometer.motion.roots import find_root

ORDER = 8
"""Gauss points a panel; smooth integrands are exact to about 1e-10 with the panels below."""

TAIL = 18.0
"""Largest s: speed is then within 1.5e-8 of the top speed, and the rest is cruising."""

PANELS = np.array([0.0, 0.5, 1.0, 1.5, 2.0, 3.0, 4.0, 6.0, 9.0, 13.0, TAIL])
LOOKS = np.linspace(0.0, 1.0, 33)
"""Where corners are looked for, as shares of the top speed, before they are pinned down."""

Panels = NDArray[np.intp]

_NODES, _WEIGHTS = legendre.leggauss(ORDER)
_DEGREES = np.arange(ORDER)
# Values at the Gauss points to Legendre coefficients: c_k = (2k+1)/2 · Σ w_i f(x_i) P_k(x_i).
_TO_LEGENDRE = (legendre.legvander(_NODES, ORDER - 1) * _WEIGHTS[:, None] * (2 * _DEGREES + 1) / 2.0).T


@dataclass(frozen=True, slots=True)
class Moment:
    """Where the run stands, arrays of one shape: speed m/s, time s, distance m, energy J from the supply."""

    speed: Array
    time: Array
    distance: Array
    energy: Array


@dataclass(frozen=True, slots=True)
class Profile:
    """The run of n designs from rest to top speed, and cruising from there.

    Attributes:
        plant: the n designs, all of which start.
        top_speed: (n, 1).
        edges: ends of the panels in s, (n, p+1).
        coefficients: Legendre coefficients of dt/ds, dx/ds, dE/ds on each panel, (3, n, p, ORDER).
        sums: t, x, E at the edges, (3, n, p+1).
        top_power: what the supply gives while cruising, W, (n, 1).
        peak_bus_current: largest over the run to 0.99 of top speed, (n,).
        corners: speeds at which a(v) bends, (n, c), padded with 0.
    """

    plant: Plant
    top_speed: Array
    edges: Array
    coefficients: Array
    sums: Array
    top_power: Array
    peak_bus_current: Array
    corners: Array

    def take(self, row: int) -> Profile:
        """The run of one of the designs."""
        one = slice(row, row + 1)
        return Profile(
            self.plant.take(np.array([row])), self.top_speed[one], self.edges[one], self.coefficients[:, one],
            self.sums[:, one], self.top_power[one], self.peak_bus_current[one], self.corners[one],
        )  # fmt: skip

    def at_s(self, s: Array) -> Moment:
        """The run at s ≥ 0, shape (n, k)."""
        inner = np.clip(s, 0.0, TAIL)
        panel = np.clip((self.edges[:, None, :] <= inner[..., None]).sum(axis=-1) - 1, 0, self._panels - 1)
        time, distance, energy = self._integrals(inner, panel)
        return Moment(-self.top_speed * np.expm1(-s), time, distance, energy)

    def at_speed(self, speed: Array) -> Moment:
        """The run when it reaches `speed` (n, k); NaN where it never does."""
        with np.errstate(divide="ignore", invalid="ignore"):
            s = -np.log1p(-speed / self.top_speed)
        reached = speed < self.top_speed
        made = self.at_s(np.where(reached, s, 0.0))
        return Moment(*(np.where(reached, v, np.nan) for v in (speed, made.time, made.distance, made.energy)))

    def at_distance(self, distance: Array) -> Moment:
        """The run when it has covered `distance`, (n, k)."""
        return self._where(1, distance)

    def at_time(self, time: Array) -> Moment:
        """The run after `time`, (n, k)."""
        return self._where(0, time)

    def braking_point(self, distance: Array, deceleration: Array) -> Moment:
        """The run at the moment from which braking at `deceleration` (n, 1) stops it just at `distance` (n, k)."""

        def stop(s: Array) -> Array:
            made: Array = (self.top_speed * np.expm1(-s)) ** 2 / (2.0 * deceleration)
            return made

        covered = self.sums[1] + stop(self.edges)
        s = self._solve(covered, distance, lambda at, panel: self._integrals(at, panel)[1] + stop(at))
        rest = distance - covered[:, -1:]
        return self._choose(rest > 0.0, self._cruise(rest, 1), self.at_s(s))

    def _where(self, quantity: int, wanted: Array) -> Moment:
        """The run where t (0) or x (1) has the wanted value."""
        sums = self.sums[quantity]
        s = self._solve(sums, wanted, lambda at, panel: self._integrals(at, panel)[quantity])
        rest = wanted - sums[:, -1:]
        return self._choose(rest > 0.0, self._cruise(rest, quantity), self.at_s(s))

    def _solve(self, at_edges: Array, wanted: Array, value: Callable[[Array, Panels], Array]) -> Array:
        """The s at which a rising quantity, known at the edges, has the wanted value."""
        panel = np.clip((at_edges[:, None, :] <= wanted[..., None]).sum(axis=-1) - 1, 0, self._panels - 1)
        low, high = self._edge(panel), self._edge(panel + 1)
        return find_root(lambda s: value(s, panel) - wanted, low, high, 1e-14)

    def _cruise(self, rest: Array, quantity: int) -> Moment:
        seconds = rest if quantity == 0 else rest / self.top_speed
        time, distance, energy = (total[:, -1:] for total in self.sums)
        return Moment(
            np.broadcast_to(self.top_speed, rest.shape),
            time + seconds,
            distance + seconds * self.top_speed,
            energy + seconds * self.top_power,
        )

    @staticmethod
    def _choose(where: NDArray[np.bool_], one: Moment, other: Moment) -> Moment:
        pairs = zip(
            (one.speed, one.time, one.distance, one.energy),
            (other.speed, other.time, other.distance, other.energy),
            strict=True,
        )
        return Moment(*(np.where(where, a, b) for a, b in pairs))

    @property
    def _panels(self) -> int:
        return int(self.edges.shape[1]) - 1

    @property
    def _rows(self) -> Panels:
        return np.arange(len(self.plant))[:, None]

    def _edge(self, index: Panels) -> Array:
        made: Array = self.edges[self._rows, index]
        return made

    def _integrals(self, s: Array, panel: Panels) -> Array:
        """t, x, E at s within the given panels, shape (3, n, k)."""
        low, high = self._edge(panel), self._edge(panel + 1)
        half = 0.5 * (high - low)
        with np.errstate(divide="ignore", invalid="ignore"):
            place = np.where(half > 0.0, (s - low) / half - 1.0, -1.0)
        coefficients, start = self.coefficients[:, self._rows, panel], self.sums[:, self._rows, panel]
        made: Array = start + half * (coefficients * _legendre_integrals(place)).sum(axis=-1)
        return made


def _legendre_integrals(x: Array) -> Array:
    """∫ from −1 to x of P_k, for k < ORDER, along a new last axis."""
    values = legendre.legvander(x, ORDER)
    made = np.empty((*x.shape, ORDER))
    made[..., 0] = x + 1.0
    made[..., 1:] = (values[..., 2:] - values[..., :-2]) / (2 * _DEGREES[1:] + 1)
    return made


def final_speeds(plant: Plant) -> tuple[Array, Array]:
    """No-load speed and top speed, m/s, each (n, 1), found together.

    The one is the lowest v > 0 at which F_drive ceases to be positive, the other where a(v) comes down to 0.
    Each is 0 where it is not positive at standstill.
    """
    bend = (plant.trunk_efficiency * plant.branch_efficiency.prod(axis=0)) ** 2

    def falling(speed: Array) -> Array:
        state = forces.at_speed(plant, speed)
        drive, acceleration = state.drive[:, :1], state.acceleration[:, 1:]
        # Losses bend the force just where it changes sign; undone on one side, the root is found in half the steps.
        return np.concatenate([np.where(drive < 0.0, drive * bend, drive), acceleration], axis=1)

    ceiling = np.concatenate([_motors_end(plant), _motors_end(plant) + _downhill(plant)], axis=1)
    still = np.zeros_like(ceiling)
    found = np.where(falling(still) > 0.0, find_root(falling, still, ceiling), 0.0)
    return found[:, :1], found[:, 1:]


def _motors_end(plant: Plant) -> Array:
    """The speed from which on no motor drives any more: back-EMF at open-circuit voltage, m/s, (n, 1)."""
    made: Array = (plant.voltage / plant.back_emf).max(axis=0)
    return made


def _downhill(plant: Plant) -> Array:
    """How much faster, at most, a slope can push: where any one branch's motors alone hold it back, m/s, (n, 1)."""
    pull = np.maximum(-forces.grade(plant), 0.0)
    current = pull * plant.radius / (plant.count * plant.kt * plant.branch_ratio * plant.trunk_ratio)
    made: Array = (current * (plant.resistance + plant.supply_resistance * plant.count) / plant.back_emf).max(axis=0)
    return made


def profile(plant: Plant, top: Array) -> Profile:
    """The run from rest of designs that start.

    Args:
        plant: n designs with a(0) > 0.
        top: their top speeds, m/s, (n, 1).
    """
    corners = _corners(plant, top)
    with np.errstate(divide="ignore"):
        bends = np.clip(-np.log1p(-corners / top), 0.0, TAIL)
    fixed = np.broadcast_to(PANELS, (len(plant), PANELS.size))
    edges = np.sort(np.concatenate([fixed, bends], axis=1), axis=1)
    s = (edges[:, :-1, None] + 0.5 * np.diff(edges)[..., None] * (_NODES + 1.0)).reshape(len(plant), -1)
    speed = -top * np.expm1(-s)
    state = forces.at_speed(plant, speed)
    electric = forces.as_driven(plant, speed, state)
    slowness = top * np.exp(-s) / state.acceleration
    power = electric.bus_voltage * electric.bus_current
    rates = np.stack([slowness, slowness * speed, slowness * power])
    shape = (3, len(plant), edges.shape[1] - 1, ORDER)
    coefficients = rates.reshape(shape) @ _TO_LEGENDRE.T
    steps = np.diff(edges) * coefficients[..., 0]
    sums = np.concatenate([np.zeros((3, len(plant), 1)), np.cumsum(steps, axis=-1)], axis=-1)
    cruise = forces.as_driven(plant, top, forces.at_speed(plant, top))
    return Profile(
        plant, top, edges, coefficients, sums, cruise.bus_voltage * cruise.bus_current,
        _peak_bus_current(plant, top, corners), corners,
    )  # fmt: skip


def _peak_bus_current(plant: Plant, top: Array, corners: Array) -> Array:
    """The largest bus current up to 0.99 of top speed.

    Between corners the current rises or falls throughout or has one flat extreme; the corners and the
    looks between them find it.
    """
    speed = np.concatenate([0.99 * top * LOOKS, np.minimum(corners, 0.99 * top)], axis=1)
    made: Array = forces.as_driven(plant, speed, forces.at_speed(plant, speed)).bus_current.max(axis=1)
    return made


def _corners(plant: Plant, top: Array) -> Array:
    """Speeds below `top` at which a(v) bends, (n, c); 0 where there is none.

    Bends are where a controller comes to its limit, where the battery does, and where grip does. Each is a
    change of sign of one indicator; the first and the last change on a grid are pinned down.
    """
    looks = top * LOOKS
    signs = _indicators(plant, looks) > 0.0
    changed = signs[..., 1:] != signs[..., :-1]
    first = changed.argmax(axis=-1)
    last = changed.shape[-1] - 1 - changed[..., ::-1].argmax(axis=-1)
    index = np.stack([first, last], axis=-1)
    rows = np.arange(len(plant))[None, :, None]
    count = index.shape[0]

    def indicator(speed: Array) -> Array:
        flat = speed.transpose(1, 0, 2).reshape(len(plant), -1)
        values = _indicators(plant, flat).reshape(count, len(plant), count, 2)
        own = np.arange(count)
        return values[own, :, own]

    found = find_root(indicator, looks[rows, index], looks[rows, index + 1], 1e-10)
    kept = np.where(changed.any(axis=-1)[..., None], found, 0.0)
    return np.concatenate(list(kept), axis=1)


def _indicators(plant: Plant, speed: Array) -> Array:
    """One row for each thing that can begin or cease to hold the vehicle back, (J + 2, n, k)."""
    state = forces.at_speed(plant, speed)
    demand = state.electric.demand - plant.supply_limit
    battery = np.where(np.isfinite(demand), demand, -1.0)
    grip = state.drive_acceleration - state.grip_acceleration
    return np.concatenate([currents.controller_margin(plant, speed), [battery, grip]])
