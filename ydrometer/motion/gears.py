"""Which gear it starts in, and when it changes up."""

from __future__ import annotations

import math

from ydrometer.base.jit import kernel
from ydrometer.motion import forces, speeds, stretches
from ydrometer.motion.plant import Plant, turning

EARLY = 0.99
"""Share of a gear's end speed at which it changes up in any case, because the end speed itself is never reached."""
STEPS = 100
CLOSE = 1e-12
"""Relative tolerance to which the beginning of a change is located."""
ALIKE = 1e-9
"""Changes whose beginnings differ by less than this share begin together."""

acceleration, coast = forces.acceleration, forces.coast
cut_off, next_share, LOOKS = speeds.cut_off, speeds.next_share, speeds.LOOKS
engines_alone, first_better_of_engines = stretches.engines_alone, stretches.first_better


@kernel
def starting_gear(p: Plant) -> int:
    """The gear with the largest a(0); of equal ones the lowest."""
    best, most = 0, acceleration(p, 0, 0.0)
    for k in range(1, len(p.gears)):
        a = acceleration(p, k, 0.0)
        if a > most:
            best, most = k, a
    return best


@kernel
def pulls(p: Plant, g: int, v: float) -> bool:
    """Whether gear g still accelerates after the coast that starts at v."""
    after, _ = coast(p, g, v, p.vehicle[0].shift_time)
    return after > 0.0 and acceleration(p, g, after) > 0.0


@kernel
def advantage(p: Plant, k: int, g: int, v: float) -> float:
    """How much more gear g accelerates after a change that begins at v than gear k does at the same speed, m/s².

    Not positive if g is not better. When both gears are at the limit of grip, a change would only lose time.
    """
    after, _ = coast(p, g, v, p.vehicle[0].shift_time)
    kept = max(acceleration(p, k, after), 0.0)
    return acceleration(p, g, after) - kept if after > 0.0 else -kept


@kernel
def first_better(p: Plant, k: int, g: int, start: float, end: float) -> float:
    """Lowest speed from `start` to `end` at which gear g is better; NaN if there is none."""
    if engines_alone(p):
        return first_better_of_engines(p, k, g, start, end)
    before, least = start, advantage(p, k, g, start)
    if least > 0.0:
        return start
    for look in range(1, LOOKS + 1):
        at = start + (end - start) * (look - 1e-9) / LOOKS
        more = advantage(p, k, g, at)
        if more > 0.0:
            return _begin(p, k, g, before, least, at, more)
        before, least = at, more
    return math.nan


@kernel
def _begin(p: Plant, k: int, g: int, low: float, f_low: float, high: float, f_high: float) -> float:
    """Speed between low and high at which gear g becomes better, by Chandrupatla's method; there it is better."""
    a, b, c, fa, fb, fc = high, low, high, f_high, f_low, f_high
    share = 0.5
    for _ in range(STEPS):
        x = a + share * (b - a)
        f = advantage(p, k, g, x)
        if (f > 0.0) == (fa > 0.0):
            c, fc = a, fa
        else:
            c, b, fc, fb = b, a, fb, fa
        a, fa = x, f
        least = CLOSE * high / abs(b - a)
        if least > 0.5:
            break
        share = min(max(next_share(a, b, c, fa, fb, fc), least), 1.0 - least)
    return a if fa > 0.0 else b


@kernel
def over_speed(p: Plant, k: int, start: float, end: float) -> float:
    """Speed from `start` to `end` at which a source reaches its `max_speed`; infinite if none does."""
    at = math.inf
    for j in range(len(p.sources)):
        at = min(at, max(p.sources[j].max_speed / turning(p, k, j), start))
    return at if at < end else math.inf


@kernel
def change(p: Plant, k: int, g: int, start: float, end: float) -> float:
    """Speed at which the change from gear k, entered at `start`, to gear g begins; infinite if it never does.

    `end` is the end speed of gear k. The change begins at the first of these: g is better; a source reaches its
    `max_speed`; if g is never better, 0.99 of `end`, or `end` itself if the engine is cut off there. For the
    latter two g must still pull.
    """
    begins = first_better(p, k, g, start, end)
    if math.isnan(begins):
        last = end if cut_off(p, k, end) else max(start, EARLY * end)
        begins = last if pulls(p, g, last) else math.inf
    fast = over_speed(p, k, start, min(end, begins))
    return fast if fast < begins and pulls(p, g, fast) else begins


@kernel
def next_change(p: Plant, k: int, start: float, end: float) -> tuple[float, int]:
    """Speed at which the first change begins, and the gear it leads to; (end, −1) if there is none.

    Gears that the tyres hold push alike, so that their changes begin together: then the lowest is next.
    """
    begins, to = math.inf, -1
    for g in range(k + 1, len(p.gears)):
        at = change(p, k, g, start, end)
        if at < begins * (1.0 - ALIKE):
            begins, to = at, g
    return (begins, to) if to >= 0 else (end, -1)
