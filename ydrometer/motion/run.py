"""The run from rest through all gears, and the largest current in it.

Between two gears lies a coast, known in closed form; within a gear see `motion.panels`.
"""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.jit import kernel
from ydrometer.motion import forces, gears, panels, speeds, stretches
from ydrometer.motion.plant import Plant

PEAK_SHARE = 0.99
"""The largest current is looked for up to this share of the top speed."""
PEAK_LOOKS = 16
PEAK_STEPS = 8
"""Golden steps from one look to its neighbours: a smooth peak is then within 1e-5 of its height."""
GOLDEN = 0.5 * (math.sqrt(5.0) - 1.0)

as_driven, coast, end_speed = forces.as_driven, forces.coast, speeds.end_speed
starting_gear, next_change, engines_alone = gears.starting_gear, gears.next_change, stretches.engines_alone
add_leg, add_panel, MOST_PANELS = panels.add_leg, panels.add_panel, panels.MOST_PANELS
GEAR, END, START, LOW = panels.GEAR, panels.END, panels.START, panels.LOW
TIME, DISTANCE, ENERGY = panels.TIME, panels.DISTANCE, panels.ENERGY


@kernel
def run(p: Plant, panels: Any) -> tuple[int, int, float, int]:
    """The run from rest of a design that starts: number of panels, last gear, top speed, number of legs.

    Args:
        p: the design.
        panels: empty, (MOST_PANELS + 1, 8); filled with the panels, the sums at the end of the last one after it. From
            its last row backwards the legs are noted, each in one gear.

    A top speed that has no end is infinite; there are no panels then.
    """
    panels[0, TIME] = panels[0, DISTANCE] = panels[0, ENERGY] = 0.0
    count, leg, k, start = 0, 0, starting_gear(p), 0.0
    while True:
        end = end_speed(p, k, True, start)
        if math.isinf(end):
            return 0, k, end, 0
        stop, to = next_change(p, k, start, end)
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
    return count, k, end, leg


@kernel
def peak_of_run(p: Plant, panels: Any, count: int, legs: int, top: float) -> float:
    """The largest bus current of a run nearly up to its top speed, A; NaN without a motor.

    Args:
        p: the design.
        panels: of the run; its legs are noted from the last row backwards.
        count: number of panels.
        legs: number of legs, each in one gear.
        top: the top speed, m/s.
    """
    if engines_alone(p):
        return math.nan
    peak, fastest = 0.0, PEAK_SHARE * top
    for i in range(count):
        # Corners, where panels begin, are where the current peaks if not between them.
        panel = panels[i]
        if panel[GEAR] >= 0.0:
            v = panel[END] - (panel[END] - panel[START]) * math.exp(-panel[LOW])
            if v <= fastest:
                peak = max(peak, as_driven(p, int(panel[GEAR]), v)[3])
    for i in range(legs):
        note = MOST_PANELS - i
        most = min(panels[note, END], fastest)
        peak = max(peak, peak_current(p, int(panels[note, GEAR]), panels[note, START], most))
    return peak


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
