"""The moments at which loads are looked at: hard start, shove, turn on the spot, the run, top speed."""

from __future__ import annotations

import math
from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.loads.turning import Turn, turn_on_the_spot
from ydrometer.motion import states
from ydrometer.motion.plant import Array, Batch
from ydrometer.motion.states import States

HARD_START, SHOVE, TURN, RUN, RUN_PEAK, TOP = (
    "hard start",
    "shove",
    "turn on the spot",
    "run",
    "run peak",
    "top speed",
)
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
        names: of the m states, in the order hard start, shove, turn on the spot, run (many), top speed. states.
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
        single.append((RUN, _rows(run, run.speed <= RUN_SHARE * top)))
        single.append((TOP, states.driving(batch, row, int(evaluation.raw("last_gear", index)), top)))
    last = batch.gears.shape[1] - 1
    air = float(evaluation.raw("no_load_speed", index))
    airborne = air * batch.gears["turning"][row, last] * batch.sources["speed_ratio"][row]
    names = [name for name, part in single for _ in part.time]
    return Moments(names, _joined([part for _, part in single]), run, turn, airborne, air)


def _rows(of: States, wanted: NDArray[np.bool_]) -> States:
    return States(*(getattr(of, f.name)[wanted] for f in fields(States)))


def _joined(parts: list[States]) -> States:
    return States(*(np.concatenate([getattr(part, f.name) for part in parts]) for f in fields(States)))


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
    return _most_power(group.batch, row, _rows(moments.states, np.array(moments.names) == RUN))


def most_power(batch: Batch, row: int, fastest: float) -> States:
    """The same of a row of a batch, of its run up to a speed, m/s."""
    run = states.along_the_run(batch, row)
    return _most_power(batch, row, _rows(run, run.speed <= fastest))


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
