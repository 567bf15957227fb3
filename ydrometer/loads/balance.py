"""Where the heat of a motor comes from and goes to, up to its hottest moment: what its working adds up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.loads.heat import COPPER, WARM, HeatDay, Network


@dataclass(frozen=True, slots=True)
class Balance:
    """The heat of one node from the start of the last heat to its hottest moment.

    Attributes:
        start: its temperature at the start, K. capacity: J/K. seconds, taken, given: a row for each phase that was
        begun by then: how long, s, and the heat that came to the node and left it, J, (k,) each.
    """

    start: float
    capacity: float
    seconds: Floats
    taken: Floats
    given: Floats


def balance(day: HeatDay, heats: int, ends: Floats, node: int) -> Balance:
    """Add up what comes to a node and leaves it.

    Between two looks current and speed stay, so C·(T₂ − T₁) = −Λ·∫T dt + q·t, with the winding's rise of resistance in
    Λ: that gives the integrals of the temperatures, and they give what flowed.

    Args:
        day: one heat.
        heats: how many.
        ends: of its phases, s, (k,).
        node: 0 is the winding, −1 the case; of a motor of one node both are the same.
    """
    net, looks = day.net, day.parts
    start = day.starts(heats)[-1]
    warm = day.within(start)
    last = int(np.argmax(warm[:, node])) + 1
    before = np.vstack([start, warm[:-1]])[:last]
    lasts = np.diff(looks.time, prepend=0.0)[:last]
    square, speed = looks.square[:last], np.abs(looks.speed[:last])
    area = _areas(net, warm[:last] - before, square, speed, lasts)
    copper = square * net.resistance * (lasts + COPPER * (area[:, 0] - WARM * lasts))
    friction = net.friction * speed * lasts
    air = net.to_air[-1] * (area[:, -1] - net.ambient * lasts)
    between = -net.flow[0, -1] * (area[:, 0] - area[:, -1]) if net.nodes > 1 else np.zeros_like(air)
    taken, given = (copper + friction, air) if net.nodes == 1 else (copper, between)
    if net.nodes > 1 and node != 0:
        taken, given = between + friction, air
    phase = np.searchsorted(ends * (1.0 - 1e-12), looks.time[:last])
    rows = int(phase[-1]) + 1

    def summed(part: Floats) -> Floats:
        return np.bincount(phase, weights=part, minlength=rows).astype(float)

    return Balance(float(start[node]), float(net.capacities[node]), summed(lasts), summed(taken), summed(given))


def _areas(net: Network, change: Floats, square: Floats, speed: Floats, lasts: Floats) -> Floats:
    """∫T dt between looks, K·s, (k, n)."""
    flow = np.broadcast_to(net.flow, (len(lasts), net.nodes, net.nodes)).copy()
    flow[:, 0, 0] -= square * net.resistance * COPPER
    heat = np.broadcast_to(net.to_air * net.ambient, (len(lasts), net.nodes)).copy()
    heat[:, 0] += square * net.resistance * (1.0 - COPPER * WARM)
    heat[:, -1] += net.friction * speed
    right = heat * lasts[:, None] - net.capacities * change
    return np.asarray(np.linalg.solve(flow, right[:, :, None])[:, :, 0], dtype=np.float64)
