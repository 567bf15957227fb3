"""Quadrature over the speeds of one gear: time, distance and energy without stepping through time.

In one gear the acceleration depends on speed alone, so t = ∫dv/a, x = ∫v·dv/a, E = ∫P·dv/a. Towards the speed
`end` at which a → 0 the integrands grow without bound; in s, with v = end − (end − start)·e^−s, they stay smooth:
dt/ds = (end − v)/a. Panels end where a(v) bends, and are halved until the Gauss-Kronrod pair agrees
(7 and 15 points: Piessens and others, QUADPACK, chapter 2).
"""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.jit import inner, kernel, leaf, over
from ydrometer.motion import forces, speeds, stretches
from ydrometer.motion.plant import Plant
from ydrometer.motion.stretches import Quadratic

TAIL = 18.0
"""Largest s: speed is then within 2e-8 of its end, and the rest is cruising."""
PANELS = (3.0, 8.0, TAIL)
MOST_PANELS = 240
AGREEMENT = 1e-5
"""Relative difference of 7 and 15 points at which a panel is good; the error of the latter is far smaller."""
LEAST_PANEL = 1e-4
SPARE = 60
"""Panels left for the legs to come, below which none is halved any more."""
GENTLE = 0.2
"""Relative change of an acceleration within which points over speed do, and none over s are needed."""
CORNER_LOOKS = 20
"""Looks for corners over the speeds of one gear."""

# Columns of a panel. Of a coast GEAR is −1 − gear, START the speed it starts at, HIGH its time.
GEAR, END, START, LOW, HIGH, TIME, DISTANCE, ENERGY = range(8)

# Non-negative Kronrod nodes with their weights, and the Gauss weights of every second one: Laurie, "Calculation of
# Gauss-Kronrod quadrature rules", Mathematics of Computation 66 (1997).
_NODES = (
    0.0,
    0.207784955007898467600689403773245,
    0.405845151377397166906606412076961,
    0.586087235467691130294144691693550,
    0.741531185599394439863864773280788,
    0.864864423359769072789712788640926,
    0.949107912342758524526189684047851,
    0.991455371120812639206854697526329,
)
_KRONROD = (
    0.209482141084727828012999174891714,
    0.204432940075298892414161999234649,
    0.190350578064785409913256402421014,
    0.169004726639267902826583426598550,
    0.140653259715525918745189590510238,
    0.104790010322250183839876322541518,
    0.063092092629978553290700663189204,
    0.022935322010529224963732008058970,
)
_GAUSS = (
    0.417959183673469387755102040816327,
    0.0,
    0.381830050505118944950369775488975,
    0.0,
    0.279705391489276667901467771423780,
    0.0,
    0.129484966168869693270611432679082,
    0.0,
)

as_driven = forces.as_driven
next_bend, next_corner, regime = speeds.next_bend, speeds.next_corner, speeds.regime
engines_alone, value = stretches.engines_alone, stretches.value
quadratic, stretch = stretches.quadratic, stretches.stretch
NONE = Quadratic(0.0, 0.0, 0.0)


@inner
def rates(p: Plant, k: int, end: float, start: float, s: float) -> tuple[float, float, float]:
    """dt/ds, dx/ds, dE/ds at s."""
    gap = (end - start) * math.exp(-s)
    v = end - gap
    a, _, bus, drawn, _ = as_driven(p, k, v)
    dt = gap / max(a, 1e-300)
    return dt, dt * v, dt * bus * drawn


@kernel
def engines_rates(q: Quadratic, at: float, end: float, start: float, s: float) -> tuple[float, float, float]:
    """The same of engines alone, on the stretch that a speed lies on; they draw no current."""
    gap = (end - start) * math.exp(-s)
    v = end - gap
    dt = gap / max(value(q, v - at), 1e-300)
    return dt, dt * v, 0.0


@kernel
def over_speeds(q: Quadratic, at: float, half: float) -> tuple[float, float, float, float, float]:
    """As `integrals`, over the speeds around one, by seven points: good to 1e-9 where the acceleration is `gentle`."""
    t, x = 0.0, 0.0
    for i in range(-3, 4):
        u = half * _NODES[2 * abs(i)] * (1.0 if i > 0 else -1.0)
        dt = over(_GAUSS[2 * abs(i)], value(q, u))
        t, x = t + dt, x + dt * (at + u)
    return half * t, half * x, 0.0, 0.0, 0.0


@leaf
def gentle(q: Quadratic, half: float) -> bool:
    """Whether an acceleration changes little over the speeds so far to both sides."""
    return half * (abs(q.line) - half * q.square) <= GENTLE * q.rest


@kernel
def integrals(
    p: Plant, k: int, end: float, start: float, low: float, high: float
) -> tuple[float, float, float, float, float]:
    """t, x, E gathered from s = low to high, and how far 7 and 15 points differ in t and in E."""
    alone, v, v_high = engines_alone(p), end - (end - start) * math.exp(-low), end - (end - start) * math.exp(-high)
    at = 0.5 * (v + v_high)
    q = quadratic(p, k, at)[0] if alone else NONE
    if alone and gentle(q, v_high - at):
        return over_speeds(q, at, v_high - at)
    middle, half = 0.5 * (low + high), 0.5 * (high - low)
    t, x, e, coarse_t, coarse_e = 0.0, 0.0, 0.0, 0.0, 0.0
    for i in range(15):
        place = i - 7
        node = abs(place)
        s = middle + (half if place > 0 else -half) * _NODES[node]
        dt, dx, de = engines_rates(q, at, end, start, s) if alone else rates(p, k, end, start, s)
        t += _KRONROD[node] * dt
        x += _KRONROD[node] * dx
        e += _KRONROD[node] * de
        coarse_t += _GAUSS[node] * dt
        coarse_e += _GAUSS[node] * de
    return half * t, half * x, half * e, half * abs(t - coarse_t), half * abs(e - coarse_e)


@kernel
def add_leg(p: Plant, panels: Any, count: int, k: int, end: float, start: float, stop: float) -> int:
    """Add the panels of gear k from speed `start` to `stop` ≤ end, after `count` others; returns their new number."""
    last = TAIL if stop >= end else min(TAIL, math.log((end - start) / (end - stop)))
    s, from_s = 0.0, 0
    while s < last:
        # To the next of: a fixed mark, a bend of a(v), the end of the leg.
        high = last
        while PANELS[from_s] <= s and from_s < len(PANELS) - 1:
            from_s += 1
        if s < PANELS[from_s] < high:
            high = PANELS[from_s]
        v, v_high = end - (end - start) * math.exp(-s), end - (end - start) * math.exp(-high)
        if engines_alone(p):
            bend = v + stretch(p, k, v)[1]
        else:
            bend = first_corner(p, k, v, min(v_high, next_bend(p, k, v)), (stop - start) / CORNER_LOOKS)
        if bend < v_high:
            high = min(high, max(s + 1e-12, math.log((end - start) / (end - bend))))
        count = add_panels(p, panels, count, k, end, start, s, high)
        s = high
    return count


@kernel
def first_corner(p: Plant, k: int, low: float, high: float, step: float) -> float:
    """The first corner of a(v) between two speeds, looked for at steps; high where there is none."""
    looks = max(1, math.ceil((high - low) / step))
    before, here = low, regime(p, k, low)
    for look in range(1, looks + 1):
        at = low + (high - low) * look / looks
        if regime(p, k, at) != here:
            return next_corner(p, k, here, before, at)
        before = at
    return high


@kernel
def add_panels(p: Plant, panels: Any, count: int, k: int, end: float, start: float, low: float, high: float) -> int:
    """Add one smooth stretch of s, halved until it is accurate."""
    while low < high:
        to = high
        t, x, e, error_t, error_e = integrals(p, k, end, start, low, to)
        while (
            (error_t > AGREEMENT * (t + panels[count, TIME]) or error_e > AGREEMENT * abs(e + panels[count, ENERGY]))
            and to - low > LEAST_PANEL
            and count < MOST_PANELS - SPARE
        ):
            to = 0.5 * (low + to)
            t, x, e, error_t, error_e = integrals(p, k, end, start, low, to)
        count = add_panel(panels, count, k, end, start, low, to, t, x, e)
        low = to
    return count


@kernel
def add_panel(
    panels: Any, count: int, gear: int, end: float, start: float, low: float, high: float, t: float, x: float, e: float
) -> int:
    """Write down a panel; the sums at its end are the start of the next."""
    if count >= MOST_PANELS:
        return count
    panels[count, GEAR], panels[count, END], panels[count, START] = gear, end, start
    panels[count, LOW], panels[count, HIGH] = low, high
    panels[count + 1, TIME] = panels[count, TIME] + t
    panels[count + 1, DISTANCE] = panels[count, DISTANCE] + x
    panels[count + 1, ENERGY] = panels[count, ENERGY] + e
    return count + 1
