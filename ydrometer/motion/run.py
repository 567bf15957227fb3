"""The run from rest, by quadrature: time, distance and energy without stepping through time.

In one gear the acceleration depends on speed alone, so t = ∫dv/a, x = ∫v·dv/a, E = ∫P·dv/a. Towards the speed
`end` at which a → 0 the integrands grow without bound; in s, with v = end − (end − start)·e^−s, they stay smooth:
dt/ds = (end − v)/a. Panels end where a(v) bends, and are halved until the Gauss-Kronrod pair agrees
(7 and 15 points: any handbook of numerical integration). Between two gears lies a coast, known in closed form.
"""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.jit import kernel, leaf
from ydrometer.motion import forces, gears, speeds, stretches
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
STEPS = 60
GENTLE = 0.2
"""Relative change of an acceleration within which points over speed do, and none over s are needed."""
SHORT = 0.25
"""Share of a panel over which five points are as good as fifteen over the whole."""
CLOSE = 1e-7
"""Relative closeness at which a place in the run is found; a step of Newton's further it would be 1e-14."""
PEAK_SHARE = 0.99
"""The largest current is looked for up to this share of the top speed."""
CORNER_LOOKS = 20
"""Looks for corners over the speeds of one gear."""
PEAK_LOOKS = 16
PEAK_STEPS = 8
"""Golden steps from one look to its neighbours: a smooth peak is then within 1e-5 of its height."""
GOLDEN = 0.5 * (math.sqrt(5.0) - 1.0)

# Columns of a panel. Of a coast GEAR is −1 − gear, START the speed it starts at, HIGH its time.
GEAR, END, START, LOW, HIGH, TIME, DISTANCE, ENERGY = range(8)

# Non-negative Kronrod nodes with their weights, and the Gauss weights of every second one (Laurie 1997).
_NODES = (
    0.0, 0.207784955007898467600689403773245, 0.405845151377397166906606412076961,
    0.586087235467691130294144691693550, 0.741531185599394439863864773280788, 0.864864423359769072789712788640926,
    0.949107912342758524526189684047851, 0.991455371120812639206854697526329,
)  # fmt: skip
_KRONROD = (
    0.209482141084727828012999174891714, 0.204432940075298892414161999234649, 0.190350578064785409913256402421014,
    0.169004726639267902826583426598550, 0.140653259715525918745189590510238, 0.104790010322250183839876322541518,
    0.063092092629978553290700663189204, 0.022935322010529224963732008058970,
)  # fmt: skip
_FIVE = ((-0.906179845938663993, 0.236926885056189088), (-0.538469310105683091, 0.478628670499366468),
         (0.0, 0.568888888888888889), (0.538469310105683091, 0.478628670499366468),
         (0.906179845938663993, 0.236926885056189088))  # fmt: skip
"""Nodes and weights of Gauss's five points (Abramowitz and Stegun, table 25.4)."""
_GAUSS = (
    0.417959183673469387755102040816327, 0.0, 0.381830050505118944950369775488975, 0.0,
    0.279705391489276667901467771423780, 0.0, 0.129484966168869693270611432679082, 0.0,
)  # fmt: skip

acceleration, as_driven, coast, resistance = forces.acceleration, forces.as_driven, forces.coast, forces.resistance
end_speed, next_bend, next_corner, regime = speeds.end_speed, speeds.next_bend, speeds.next_corner, speeds.regime
starting_gear, next_change = gears.starting_gear, gears.next_change
engines_alone, value = stretches.engines_alone, stretches.value
quadratic, stretch = stretches.quadratic, stretches.stretch
NONE = Quadratic(0.0, 0.0, 0.0)


@kernel
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
        dt = _GAUSS[2 * abs(i)] / value(q, u)
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


@kernel
def run(p: Plant, panels: Any) -> tuple[int, int, float, float]:
    """The run from rest of a design that starts: number of panels, last gear, top speed, largest bus current.

    Args:
        p: the design.
        panels: empty, (MOST_PANELS + 1, 8); filled with the panels, the sums at the end of the last one after it.

    A top speed that has no end is infinite; there are no panels then. Without a motor there is no current, NaN.
    """
    panels[0, TIME] = panels[0, DISTANCE] = panels[0, ENERGY] = 0.0
    count, k, start, peak = 0, starting_gear(p), 0.0, 0.0
    leg = 0
    while True:
        end = end_speed(p, k, True, start)
        if math.isinf(end):
            return 0, k, end, math.nan
        stop, to = next_change(p, k, start, end)
        # The rows from the end on note the legs, until the largest current has been looked for.
        note = MOST_PANELS - leg
        panels[note, GEAR], panels[note, START], panels[note, END] = k, start, stop
        leg += 1
        if stop > start:
            count = add_leg(p, panels, count, k, end, start, stop)
        if to < 0:
            break
        after, covered = coast(p, to, stop, p.vehicle[0].shift_time)
        count = add_panel(
            panels, count, -1 - to, end, stop, 0.0, p.vehicle[0].shift_time, p.vehicle[0].shift_time, covered, 0.0
        )
        k, start = to, after
    if engines_alone(p):
        return count, k, end, math.nan
    for i in range(count):
        # Corners, where panels begin, are where the current peaks if not between them.
        panel = panels[i]
        if panel[GEAR] >= 0.0:
            v = panel[END] - (panel[END] - panel[START]) * math.exp(-panel[LOW])
            if v <= PEAK_SHARE * end:
                peak = max(peak, as_driven(p, int(panel[GEAR]), v)[3])
    for i in range(leg):
        note = MOST_PANELS - i
        most = min(panels[note, END], PEAK_SHARE * end)
        peak = max(peak, peak_current(p, int(panels[note, GEAR]), panels[note, START], most))
    return count, k, end, peak


@kernel
def peak_current(p: Plant, k: int, low: float, high: float) -> float:
    """The largest bus current between two speeds of one gear, of looks the best one improved by golden section."""
    if high < low:
        return 0.0
    best, at = -math.inf, low
    for look in range(PEAK_LOOKS + 1):
        v = low + (high - low) * look / PEAK_LOOKS
        drawn = as_driven(p, k, v)[3]
        if drawn > best:
            best, at = drawn, v
    step = (high - low) / PEAK_LOOKS
    left, right = max(low, at - step), min(high, at + step)
    a, b = right - GOLDEN * (right - left), left + GOLDEN * (right - left)
    at_a, at_b = as_driven(p, k, a)[3], as_driven(p, k, b)[3]
    for _ in range(PEAK_STEPS):
        best = max(best, at_a, at_b)
        if at_a > at_b:
            right, b, at_b = b, a, at_a
            a = right - GOLDEN * (right - left)
            at_a = as_driven(p, k, a)[3]
        else:
            left, a, at_a = a, b, at_b
            b = left + GOLDEN * (right - left)
            at_b = as_driven(p, k, b)[3]
    return best


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
    return t if what == 0 else x if what == 1 else x + 0.5 * v * v / rate


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
            slope = dt * (1.0 if what == 0 else v if what == 1 else v + v * a / rate)
            following = at - off / slope if slope > 0.0 else 0.5 * (low + high)
            if not low < following < high:
                following = 0.5 * (low + high)
            v, t, x, e, a = onward(p, panel, at, t, x, e, following)
            at = following
        return v, t, x, e
    t, x, e = panels[count, TIME], panels[count, DISTANCE], panels[count, ENERGY]
    rest = wanted - reading_of(top, t, x, what, rate)
    seconds = rest if what == 0 else rest / top
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
