"""The moments at which loads are looked at: hard start, shove, turn on the spot, the run, top speed."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.document.supply import Panel
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.loads.turning import SIDES, Turn, turn_on_the_spot
from ydrometer.motion import states
from ydrometer.motion.plant import Array, Batch
from ydrometer.motion.states import States

HARD_START, SHOVE, TURN, RUN, RUN_PEAK, TOP, REVERSAL = (
    "hard start",
    "shove",
    "turn on the spot",
    "run",
    "run peak",
    "top speed",
    "reversal",
)
LOW = ", low"
"""What names of moments near the battery's end have behind them."""
RUN_SHARE = 0.99
"""Share of the top speed up to which the run counts."""
SAME_POWER = 1e-6
"""Relative difference within which two moments of the run have the same power."""
PEAK_STEPS = 24
GOLDEN = 0.5 * (math.sqrt(5.0) - 1.0)


@dataclass(frozen=True, slots=True)
class Moments:
    """All that is looked at of one design.

    Attributes:
        names: of the m states, in the order hard start, shove, turn on the spot, run (many), top speed, reversal.
        states.
        run: all of it, None without one.
        turn: None of a design that cannot be asked. airborne: speed of one source of each branch with the wheels in the
        air, rad/s, (J,). in_the_air: the speed of the wheels' rims then, m/s.
    """

    names: list[str]
    states: States
    run: States | None
    turn: Turn | None
    airborne: Array
    in_the_air: float


def moments(evaluation: Evaluation, index: int = 0) -> Moments:
    """The moments of one design.

    Args:
        evaluation: holds the design.
        index: its place there.
    """
    group, row = evaluation.group(index)
    batch, design = group.batch, evaluation.documents[index].design
    turn, state = turn_on_the_spot(design, batch, row)
    single = [(HARD_START, states.hard_start(batch, row)), (SHOVE, states.shove(batch, row))]
    single += [(TURN, state)] if state is not None else []
    run = None
    top = float(evaluation.raw("top_speed", index))
    if evaluation.starts(index) and math.isfinite(top):
        run = states.along_the_run(batch, row)
        single.append((RUN, states.taken(run, run.speed <= RUN_SHARE * top)))
        gear = int(evaluation.raw("last_gear", index))
        single.append((TOP, states.driving(batch, row, gear, top)))
        if reverses(design):
            single.append((REVERSAL, states.reversal(batch, row, gear, RUN_SHARE * top)))
    last = batch.gears.shape[1] - 1
    air = float(evaluation.raw("no_load_speed", index))
    airborne = air * batch.gears["turning"][row, last] * batch.sources["speed_ratio"][row]
    names = [name for name, part in single for _ in part.time]
    return Moments(names, states.joined([part for _, part in single]), run, turn, airborne, air)


def reverses(design: Design) -> bool:
    """Whether a design is thrown from full speed into full reverse: as it says; else what turns by two sides of motors
    is, but on a panel, which takes no current back.
    """
    said = design.loads.reverses if design.loads else None
    drive = design.drive
    motors = all(isinstance(branch.source, Motor) for branch in drive.branches)
    return drive.units == SIDES and motors and not isinstance(drive.supply, Panel) if said is None else said


def near_the_end(moments: Moments) -> Moments:
    """Of a design whose battery is nearly empty the moments that are looked at, by their names."""
    kept = np.isin(moments.names, (HARD_START, SHOVE, RUN))
    names = [f"{name}{LOW}" for name, is_kept in zip(moments.names, kept, strict=True) if is_kept]
    return replace(moments, names=names, states=states.taken(moments.states, kept))


def together(first: Moments, second: Moments) -> Moments:
    """All moments of one design, and then of it in another state."""
    return replace(first, names=first.names + second.names, states=states.joined([first.states, second.states]))


def run_peak(evaluation: Evaluation, index: int, moments: Moments) -> States | None:
    """The moment of the run with the largest power at the wheels; None without a run.

    Args:
        evaluation: holds the design.
        index: its place there.
        moments: of it.
    """
    if moments.run is None:
        return None
    group, row = evaluation.group(index)
    return _most_power(group.batch, row, states.taken(moments.states, np.array(moments.names) == RUN))


def most_power(batch: Batch, row: int, fastest: float) -> States:
    """The same of a row of a batch, of its run up to a speed, m/s."""
    run = states.along_the_run(batch, row)
    return _most_power(batch, row, states.taken(run, run.speed <= fastest))


def _most_power(batch: Batch, row: int, run: States) -> States:
    """The first moment of a run with the largest power at the wheels: of looks the best, improved by golden section
    (Press and others, Numerical Recipes, section Golden section search in one dimension).
    """
    power = run.force * run.speed
    best = int(np.argmax(power >= (1.0 - SAME_POWER) * power.max()))
    gear = int(run.gear[best])
    same = np.flatnonzero(run.gear == gear)
    left = run.speed[max(best - 1, int(same[0]))]
    right = run.speed[min(best + 1, int(same[-1]))]
    fastest, most = run.speed[best], float(power[best])

    def at(speed: float) -> float:
        state = states.driving(batch, row, gear, speed)
        return float(state.force[0] * state.speed[0])

    low, high = float(left), float(right)
    for _ in range(PEAK_STEPS):
        a, b = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
        if at(a) >= at(b):
            high = b
        else:
            low = a
    middle = 0.5 * (low + high)
    if at(middle) > (1.0 + SAME_POWER) * most:
        fastest = middle
    return states.driving(batch, row, gear, float(fastest))
