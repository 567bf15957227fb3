"""How warm a motor gets over a day: two nodes, winding and case, solved in closed form from piece to piece.

Cw·dTw/dt = I²·R(Tw) − (Tw − Tc)/Rwc and Cc·dTc/dt = kt·I0·w + (Tw − Tc)/Rwc − (Tc − Ta)/Rca, with R(T) = R25·(1 +
α·(T − 25 °C)): linear in the temperatures while current and speed stay (two-node thermal network: Hendershot and
Miller, Design of Brushless Permanent-Magnet Motors, chapter Cooling). So each piece of constant current is an affine
map of the temperatures at its start, and a day is a product of maps. Such maps keep order: a second heat starts warmer
than the first, so every later one does, and the last is the hottest.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from ydrometer.base.solving import root
from ydrometer.base.tables.strengths import ZERO_CELSIUS
from ydrometer.document.sources import Motor, motor_line

Floats = NDArray[np.float64]

COPPER = 0.00385
"""Rise of a winding's resistance, 1/K, from 25 °C on (IEC 60034-1, Rotating electrical machines: Rating and
performance, temperature by resistance)."""
WARM = ZERO_CELSIUS + 25.0
"""K at which a winding's resistance is given."""
METAL = 400.0
"""J/(kg·K) of a whole motor, copper and iron."""
RISE, RISE_RESISTANCE = 75.0, 1.29
"""K by which a motor warms at its continuous current, and its resistance then relative to that at 25 °C (usual)."""
DOUBT = {1: 0.3, 2: 0.15}
"""Share by which thermal resistances and heat capacities are usually mistaken, by the number of nodes: as they are
guessed from a continuous current, and as they are measured."""
RUNAWAY = 1000.0
"""K beyond which a temperature is told as this: thermal runaway."""
LOOKS = 12
"""Temperatures looked at in each piece, ever farther apart."""
FARTHEST = 1e7
"""s that are looked ahead."""


@dataclass(frozen=True, slots=True)
class Network:
    """One motor as n nodes, of which the first is its winding and the last its case; n is 1 or 2.

    Attributes:
        capacities: J/K, (n,). flow: what heat flows per kelvin, W/K, (n, n): −C·dT/dt of the passive part. to_air: W/K
        from each node to the air, (n,). resistance: of the winding at 25 °C, ohm. friction: what the turning motor
        loses besides per speed, kt·I0, W·s. ambient: K.
    """

    capacities: Floats
    flow: Floats
    to_air: Floats
    resistance: float
    friction: float
    ambient: float

    @property
    def nodes(self) -> int:
        """1 or 2."""
        return len(self.capacities)


def network(motor: Motor, ambient: float, *, moving_air: bool = False, hotter: float = 0.0) -> Network | None:
    """The nodes of a motor; None where too little is known of it.

    Args:
        motor: its `thermal` gives two nodes; else mass and continuous current one, good for minutes, not for seconds.
        ambient: K.
        moving_air: whether air is blown over it: the case then loses twice the heat.
        hotter: by which share heat flows harder, and less of it is held, than said, see `DOUBT`.
    """
    line = motor_line(motor)
    friction, easier = line.kt * line.no_load_current, (0.5 if moving_air else 1.0) * (1.0 + hotter)
    if motor.thermal is not None:
        t = motor.thermal
        inside, outside = 1.0 / (t.winding_to_case * (1.0 + hotter)), 1.0 / (easier * t.case_to_air)
        flow = np.array([[inside, -inside], [-inside, inside + outside]])
        capacities = np.array([t.winding_capacity, t.case_capacity]) / (1.0 + hotter)
        return Network(capacities, flow, np.array([0.0, outside]), line.resistance, friction, ambient)
    if motor.mass is None or motor.continuous_current is None:
        return None
    to_air = motor.continuous_current**2 * line.resistance * RISE_RESISTANCE / RISE / easier
    held = np.array([METAL * motor.mass / (1.0 + hotter)])
    return Network(held, np.array([[to_air]]), np.array([to_air]), line.resistance, friction, ambient)


def scaled(net: Network, resistance: float, friction: float) -> Network:
    """A motor of which winding and friction are so many times as large."""
    return replace(net, resistance=net.resistance * resistance, friction=net.friction * friction)


@dataclass(frozen=True, slots=True)
class Map:
    """Temperatures, K, after some time from those before: A·T + b, (n, n) and (n,)."""

    a: Floats
    b: Floats

    def after(self, other: Map) -> Map:
        """This one after another one."""
        return Map(self.a @ other.a, self.a @ other.b + self.b)

    def times(self, n: int) -> Map:
        """This one n times, by repeated squaring."""
        power, square = Map(np.eye(len(self.b)), np.zeros(len(self.b))), self
        while n:
            power = square.after(power) if n & 1 else power
            square, n = square.after(square), n >> 1
        return power


def maps(net: Network, square: Floats, speed: Floats, times: Floats) -> tuple[Floats, Floats]:
    """Maps over times at constant current and speed: A (k, n, n) and b (k, n).

    The matrix of the rates is M = −C⁻¹·flow with I²·R25·α/Cw on the winding. Its eigenvalues are real, since heat flows
    both ways alike; with its projectors P, exp(M·t) = Σ exp(λ·t)·P, and a constant heat adds Σ expm1(λ·t)/λ·P.

    Args:
        net: n nodes.
        square: of the current, A², (k,).
        speed: of the motor, rad/s, (k,).
        times: s, (k,).
    """
    n, k = net.nodes, len(times)
    rates = np.broadcast_to(-net.flow / net.capacities[:, None], (k, n, n)).copy()
    heat = np.broadcast_to(net.to_air * net.ambient / net.capacities, (k, n)).copy()
    rates[:, 0, 0] += square * net.resistance * COPPER / net.capacities[0]
    heat[:, 0] += square * net.resistance * (1.0 - COPPER * WARM) / net.capacities[0]
    heat[:, -1] += net.friction * np.abs(speed) / net.capacities[-1]
    a, b = np.zeros((k, n, n)), np.zeros((k, n))
    for value, projector in _eigen(rates):
        # A runaway is told as such; what comes behind it need not be finite.
        grown = np.minimum(value * times, LARGEST)
        added = np.where(np.abs(grown) < TINY, times, np.expm1(grown) / np.where(value == 0.0, 1.0, value))
        a += np.exp(grown)[:, None, None] * projector
        b += added[:, None] * np.einsum("kij,kj->ki", projector, heat)
    return a, b


LARGEST, TINY = 200.0, 1e-12


def _eigen(rates: Floats) -> list[tuple[Floats, Floats]]:
    """Eigenvalues (k,) with their projectors (k, n, n); n is 1 or 2."""
    k, n, _ = rates.shape
    if n == 1:
        return [(rates[:, 0, 0], np.ones((k, 1, 1)))]
    mean = 0.5 * (rates[:, 0, 0] + rates[:, 1, 1])
    apart = np.sqrt((0.5 * (rates[:, 0, 0] - rates[:, 1, 1])) ** 2 + rates[:, 0, 1] * rates[:, 1, 0])
    lean = (rates - mean[:, None, None] * np.eye(2)) / apart[:, None, None]
    return [(mean + apart, 0.5 * (np.eye(2) + lean)), (mean - apart, 0.5 * (np.eye(2) - lean))]


@dataclass(frozen=True, slots=True)
class Pieces:
    """Some time as pieces of constant current: squares A², speeds rad/s, times s, (k,) each."""

    square: Floats
    speed: Floats
    time: Floats

    @property
    def seconds(self) -> float:
        """All of it, s."""
        return float(self.time.sum())


@dataclass(frozen=True, slots=True)
class HeatBlock:
    """Pieces that are gone through `count` times, one after the other."""

    pieces: Pieces
    count: int = 1


@dataclass(frozen=True, slots=True)
class Looks:
    """Temperatures at looks within some time, from those at its start: G (k, n, n), h (k, n), at times s, (k,); up to
    each look flows a current of a square, A², at a speed, rad/s, (k,).
    """

    a: Floats
    b: Floats
    time: Floats
    square: Floats
    speed: Floats


@dataclass(frozen=True, slots=True)
class Heat:
    """A day of one motor, K and s.

    Attributes:
        nodes. winding, case: at its end. hottest_winding, at, hottest_case, hottest_case_at. curve: time, winding and
        case, at most `MOST_POINTS` rows.
    """

    nodes: int
    winding: float
    case: float
    hottest_winding: float
    at: float
    hottest_case: float
    hottest_case_at: float
    curve: Floats


MOST_POINTS = 2000
LOOKED = tuple(f.name for f in fields(Looks))


class HeatDay:
    """The blocks of one heat, ready to be gone through again and again."""

    def __init__(self, net: Network, blocks: list[HeatBlock]) -> None:
        self.net = net
        self.seconds = 0.0
        whole = Map(np.eye(net.nodes), np.zeros(net.nodes))
        parts: list[Looks] = []
        # The same phase comes again and again in a long day.
        known: dict[int, tuple[Map, Looks]] = {}
        for block in blocks:
            if id(block.pieces) not in known:
                known[id(block.pieces)] = _through(net, block.pieces)
            once, seen = known[id(block.pieces)]
            for _ in range(block.count):
                here = self.seconds + seen.time
                parts.append(Looks(seen.a @ whole.a, seen.a @ whole.b + seen.b, here, seen.square, seen.speed))
                whole = once.after(whole)
                self.seconds += block.pieces.seconds
        self.map = whole
        self.parts = Looks(*(np.concatenate([getattr(p, key) for p in parts]) for key in LOOKED))

    @property
    def cold(self) -> Floats:
        """All nodes at ambient, K."""
        return np.full(self.net.nodes, self.net.ambient)

    def starts(self, heats: int) -> Floats:
        """Temperatures at the start of each heat, K, (heats, n)."""
        temperatures = np.empty((heats, self.net.nodes))
        at = self.cold
        for heat in range(heats):
            temperatures[heat] = at
            at = np.minimum(self.map.a @ at + self.map.b, RUNAWAY)
        return temperatures

    def within(self, start: Floats) -> Floats:
        """Temperatures at all looks of a heat from those at its start, K, (k, n)."""
        temperatures: Floats = np.minimum(self.parts.a @ start + self.parts.b, RUNAWAY)
        return temperatures

    def hottest(self, heats: int, rest: float = 0.0) -> tuple[float, float]:
        """The hottest winding and case of all heats, K, with a rest behind each: those of the last one."""
        once = self.map
        if rest > 0.0:
            a, b = maps(self.net, np.zeros(1), np.zeros(1), np.array([rest]))
            once = Map(a[0], b[0]).after(once)
        before = once.times(heats - 1)
        start = np.nan_to_num(before.a @ self.cold + before.b, nan=RUNAWAY, posinf=RUNAWAY)
        last = self.within(np.minimum(start, RUNAWAY))
        return float(max(last[:, 0].max(), min(start[0], RUNAWAY))), float(last[:, -1].max())


def _through(net: Network, pieces: Pieces) -> tuple[Map, Looks]:
    """Some pieces as one map, and as looks: at the end of each piece, and within long ones."""
    shares = _shares(pieces)
    times = np.concatenate([share * t for share, t in zip(shares, pieces.time, strict=True)])
    number = np.repeat(np.arange(len(pieces.time)), [len(share) for share in shares])
    a, b = maps(net, pieces.square[number], pieces.speed[number], times)
    begun = np.concatenate([[0.0], np.cumsum(pieces.time)[:-1]])[number]
    at = Map(np.eye(net.nodes), np.zeros(net.nodes))
    g, h = np.empty_like(a), np.empty_like(b)
    ends = np.cumsum([len(share) for share in shares])
    first = 0
    for end in ends:
        g[first:end] = a[first:end] @ at.a
        h[first:end] = a[first:end] @ at.b + b[first:end]
        at = Map(g[end - 1], h[end - 1])
        first = int(end)
    return at, Looks(g, h, begun + times, pieces.square[number], pieces.speed[number])


def _shares(pieces: Pieces) -> list[Floats]:
    """Where in each piece is looked: at its end, and where it stands alone among few, ever farther apart before."""
    if len(pieces.time) > LOOKS:
        return [np.ones(1)] * len(pieces.time)
    return [np.linspace(0.0, 1.0, LOOKS + 1)[1:] ** 2] * len(pieces.time)


def gone_through(day: HeatDay, heats: int) -> Heat:
    """A day of some heats from ambient.

    Args:
        day: one heat of it.
        heats: how many.
    """
    starts = day.starts(heats)
    last = day.within(starts[-1])
    offset = (heats - 1) * day.seconds
    hot, case = int(np.argmax(last[:, 0])), int(np.argmax(last[:, -1]))
    return Heat(
        nodes=day.net.nodes,
        winding=float(last[-1, 0]),
        case=float(last[-1, -1]),
        hottest_winding=float(last[hot, 0]),
        at=offset + float(day.parts.time[hot]),
        hottest_case=float(last[case, -1]),
        hottest_case_at=offset + float(day.parts.time[case]),
        curve=_curve(day, starts),
    )


def _curve(day: HeatDay, starts: Floats) -> Floats:
    """Time, winding and case over all heats, thinned to what a chart shows."""
    heats, looks = len(starts), len(day.parts.time)
    each = max(1, (MOST_POINTS - 1) // heats)
    kept = np.unique(np.linspace(0, looks - 1, min(each, looks)).round().astype(int))
    a, b = day.parts.a[kept], day.parts.b[kept]
    warm = np.minimum(np.einsum("kij,hj->hki", a, starts) + b, RUNAWAY)
    times = np.arange(heats)[:, None] * day.seconds + day.parts.time[kept]
    rows = np.stack([times, warm[:, :, 0], warm[:, :, -1]], axis=2).reshape(-1, 3)
    return np.concatenate([[[0.0, day.net.ambient, day.net.ambient]], rows])


def rest_needed(day: HeatDay, heats: int, limit: float) -> float | None:
    """The least rest behind every heat with which the hottest winding stays under a limit, s.

    Args:
        day: one heat of it.
        heats: how many.
        limit: K.

    Returns:
        0 where it does without; None where even the first heat does not.
    """
    if day.hottest(heats)[0] <= limit:
        return 0.0
    if day.hottest(1)[0] > limit or day.hottest(heats, FARTHEST)[0] > limit:
        return None
    return root(lambda rest: day.hottest(heats, rest)[0] - limit, 0.0, FARTHEST, absolute=1e-3, relative=1e-9)


def until(net: Network, square: float, limit: float) -> float | None:
    """How long a current is carried from ambient until the winding is at a limit, s; None where it never gets there.

    From ambient the winding only warms, so there is one such time.

    Args:
        net: the motor, standing still.
        square: of the current, A².
        limit: K.
    """

    def warmth(seconds: float) -> float:
        a, b = maps(net, np.array([square]), np.zeros(1), np.array([seconds]))
        return float((a[0] @ np.full(net.nodes, net.ambient) + b[0])[0])

    if warmth(FARTHEST) < limit:
        return None
    low = 1e-6
    while warmth(2.0 * low) < limit:
        low *= 2.0
    moment = root(lambda t: warmth(t) - limit, low, 2.0 * low, absolute=1e-9, relative=1e-12)
    return moment if math.isfinite(moment) else None
