"""Moments of a run that has been worked out: when a time, a distance or a speed is reached."""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.jit import kernel, over
from ydrometer.motion import forces, panels, stretches
from ydrometer.motion.plant import Plant

STEPS = 60
SHORT = 0.25
"""Share of a panel over which five points are as good as fifteen over the whole."""
CLOSE = 1e-7
"""Relative closeness at which a place in the run is found; a step of Newton's further it would be 1e-14."""
_FIVE = ((-0.906179845938663993, 0.236926885056189088), (-0.538469310105683091, 0.478628670499366468),
         (0.0, 0.568888888888888889), (0.538469310105683091, 0.478628670499366468),
         (0.906179845938663993, 0.236926885056189088))  # fmt: skip
"""Nodes and weights of Gauss's five points (Abramowitz and Stegun, Handbook of Mathematical Functions, table 25.4)."""

acceleration, coast, resistance = forces.acceleration, forces.coast, forces.resistance
integrals, rates, engines_alone = panels.integrals, panels.rates, stretches.engines_alone
GEAR, END, START, LOW, HIGH = panels.GEAR, panels.END, panels.START, panels.LOW, panels.HIGH
TIME, DISTANCE, ENERGY = panels.TIME, panels.DISTANCE, panels.ENERGY


@kernel
def inside(p: Plant, panel: Any, at: float) -> tuple[float, float, float, float, float]:
    """Within a panel, at its s or time: speed, time, distance, energy, and the acceleration there."""
    if panel[GEAR] < 0.0:
        k = int(-1.0 - panel[GEAR])
        v, x = coast(p, k, panel[START], at)
        a = -resistance(p, v) / p.gears[k].inertial_mass
        return v, panel[TIME] + at, panel[DISTANCE] + x, panel[ENERGY], a
    k, end, start = int(panel[GEAR]), panel[END], panel[START]
    t, x, e, _, _ = integrals(p, k, end, start, panel[LOW], at)
    v = end - (end - start) * math.exp(-at)
    return v, panel[TIME] + t, panel[DISTANCE] + x, panel[ENERGY] + e, acceleration(p, k, v)


@kernel
def onward(
    p: Plant, panel: Any, at: float, t: float, x: float, e: float, to: float
) -> tuple[float, float, float, float, float]:
    """What `inside` tells at `to`, from what it told at `at`: by five points where that is near, else afresh."""
    if panel[GEAR] < 0.0 or engines_alone(p) or abs(to - at) > SHORT * (panel[HIGH] - panel[LOW]):
        return inside(p, panel, to)
    k, end, start = int(panel[GEAR]), panel[END], panel[START]
    middle, half = 0.5 * (at + to), 0.5 * (to - at)
    for node, weight in _FIVE:
        dt, dx, de = rates(p, k, end, start, middle + half * node)
        t, x, e = t + half * weight * dt, x + half * weight * dx, e + half * weight * de
    v = end - (end - start) * math.exp(-to)
    return v, t, x, e, acceleration(p, k, v)


@kernel
def last_speed(p: Plant, panel: Any) -> float:
    """The speed at the end of a panel, m/s."""
    if panel[GEAR] < 0.0:
        return coast(p, int(-1.0 - panel[GEAR]), panel[START], panel[HIGH])[0]
    return panel[END] - (panel[END] - panel[START]) * math.exp(-panel[HIGH])


@kernel
def reading_of(v: float, t: float, x: float, what: int, rate: float) -> float:
    """The quantity asked for: 0 time, 1 distance, 2 where it would stand still when braking at `rate` from here."""
    return t if what == 0 else x if what == 1 else x + over(0.5 * v * v, rate)


@kernel
def find(
    p: Plant, panels: Any, count: int, top: float, cruise: float, what: int, wanted: float, rate: float
) -> tuple[float, float, float, float]:
    """The run when a quantity (see `reading_of`) has the wanted value: speed, time, distance, energy.

    `cruise` is the supply's power at top speed, W.
    """
    before = 0.0
    for i in range(count):
        panel = panels[i]
        after = reading_of(last_speed(p, panel), panels[i + 1, TIME], panels[i + 1, DISTANCE], what, rate)
        if after < wanted:
            before = after
            continue
        low, high = panel[LOW], panel[HIGH]
        at = low + (high - low) * (wanted - before) / (after - before)
        v, t, x, e, a = inside(p, panel, at)
        for _ in range(STEPS):
            off = reading_of(v, t, x, what, rate) - wanted
            if off < 0.0:
                low = at
            else:
                high = at
            if abs(off) <= CLOSE * wanted or high - low <= CLOSE * high:
                break
            dt = 1.0 if panel[GEAR] < 0.0 else (panel[END] - v) / max(a, 1e-300)
            slope = dt * (1.0 if what == 0 else v if what == 1 else v + over(v * a, rate))
            following = at - off / slope if slope > 0.0 else 0.5 * (low + high)
            if not low < following < high:
                following = 0.5 * (low + high)
            v, t, x, e, a = onward(p, panel, at, t, x, e, following)
            at = following
        return v, t, x, e
    t, x, e = panels[count, TIME], panels[count, DISTANCE], panels[count, ENERGY]
    rest = wanted - reading_of(top, t, x, what, rate)
    seconds = rest if what == 0 else over(rest, top)
    return top, t + seconds, x + seconds * top, e + seconds * cruise


@kernel
def time_to_speed(p: Plant, panels: Any, count: int, wanted: float) -> float:
    """The time at which the run first has a speed below its top speed, s."""
    for i in range(count):
        panel = panels[i]
        end, start = panel[END], panel[START]
        if panel[GEAR] >= 0.0:
            s = math.log((end - start) / (end - wanted)) if wanted < end else math.inf
            if s <= panel[HIGH]:
                return inside(p, panel, max(s, panel[LOW]))[1]
        elif last_speed(p, panel) >= wanted:
            low, high = 0.0, panel[HIGH]
            for _ in range(STEPS):
                middle = 0.5 * (low + high)
                if coast(p, int(-1.0 - panel[GEAR]), start, middle)[0] < wanted:
                    low = middle
                else:
                    high = middle
            return panel[TIME] + high
    return panels[count, TIME]
