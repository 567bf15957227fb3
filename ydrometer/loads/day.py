"""The day of a design as stretches of current and speed over time: what heats motors, what fuses and ratings see."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ydrometer.base.errors import Fault
from ydrometer.base.jit import entry
from ydrometer.base.tables.strengths import FUSE
from ydrometer.document.loads import USUAL_DAY, USUAL_HEATS, Cruise, Loads, Phase, Rest, Runs, Shove, Turns
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.loads.heat import HeatBlock, Pieces
from ydrometer.loads.moments import SHOVE, TOP, TURN, Moments
from ydrometer.motion import states, trace
from ydrometer.motion.states import States

Floats = NDArray[np.float64]

USUAL_DISTANCE = 10.0
"""m of a run where none is given."""
LONG_WAIT = 60.0
"""s of standing still that a continuous rating does not count."""
MOST_PIECES = 24
"""Of a run, for its heat: each is short against what a winding takes to warm."""
LEVEL_STEPS = 40


@dataclass(frozen=True, slots=True)
class Stretch:
    """Some time, `count` times over: k states with their times, straight between; then a wait, s, without any."""

    states: States
    wait: float = 0.0
    count: int = 1

    @property
    def time(self) -> Floats:
        """Of its states, s, (k,)."""
        return self.states.time

    @property
    def current(self) -> Floats:
        """Of one motor of each branch, A, (k, J)."""
        return self.states.current

    @property
    def speed(self) -> Floats:
        """Of one source of each branch, rad/s, (k, J)."""
        return self.states.source_speed

    @property
    def bus(self) -> Floats:
        """The supply's current, A, (k,)."""
        return self.states.bus_current

    @property
    def seconds(self) -> float:
        """Once, with the wait."""
        return float(self.time[-1] - self.time[0]) + self.wait


@dataclass(frozen=True, slots=True)
class Heats:
    """Stretches of one heat, how many heats there are, whether day or heats had to be assumed, and faults of phases
    that cannot be done.
    """

    stretches: list[Stretch]
    count: int
    assumed: bool
    left_out: tuple[Fault, ...]


def heats(evaluation: Evaluation, index: int, moments: Moments) -> Heats:
    """The day of one design; phases that it cannot do are left out and told. Where none is left, a usual day stands.

    Args:
        evaluation: holds it.
        index: its place there.
        moments: of it.
    """
    said = evaluation.documents[index].design.loads or Loads()
    # The same phase comes again and again in a long day, and each run of it is the same run.
    known: dict[Phase, Stretch | str] = {}
    run = _run(evaluation, index, moments)
    given = _stretches(moments, run, said.day, known)
    faults = tuple(
        Fault(f"loads.day[{k}]", f'"{phase.do}" given: {stretch}', "leave this phase out")
        for k, (phase, stretch) in enumerate(zip(said.day, given, strict=True))
        if isinstance(stretch, str)
    )
    stretches = [stretch for stretch in given if isinstance(stretch, Stretch)]
    if stretches:
        return Heats(stretches, said.heats or 1, assumed=False, left_out=faults)
    usual = _stretches(moments, run, USUAL_DAY, known)
    kept = [stretch for stretch in usual if isinstance(stretch, Stretch)]
    return Heats(kept, said.heats or USUAL_HEATS, assumed=True, left_out=faults)


def _stretches(
    moments: Moments, run: States | None, phases: Sequence[Phase], known: dict[Phase, Stretch | str]
) -> list[Stretch | str]:
    for phase in phases:
        if phase not in known:
            known[phase] = _stretch(moments, run, phase)
    return [known[phase] for phase in phases]


def _stretch(moments: Moments, run: States | None, phase: Phase) -> Stretch | str:
    """A phase; why it cannot be, where it cannot."""
    match phase:
        case Runs(count=count, every=every):
            if run is None:
                return "the design does not start, or its run has no end"
            return Stretch(run, max(0.0, every - float(run.time[-1])), count)
        case Cruise(lasts=lasts):
            return _steady(moments, TOP, lasts) or "the design has no top speed"
        case Shove(lasts=lasts):
            return _steady(moments, SHOVE, lasts) or "it does not push"
        case Turns(lasts=lasts):
            return _steady(moments, TURN, lasts) or "the design does not turn on the spot"
        case Rest(lasts=lasts):
            first = states.taken(moments.states, np.arange(1))
            return Stretch(states.mapped(np.zeros_like, first), lasts)


def _steady(moments: Moments, name: str, lasts: float) -> Stretch | None:
    if name not in moments.names:
        return None
    twice = np.repeat(moments.names.index(name), 2)
    return Stretch(replace(states.taken(moments.states, twice), time=np.array([0.0, lasts])))


def _run(evaluation: Evaluation, index: int, moments: Moments) -> States | None:
    """The run up to its distance; beyond what is worked out of it, it goes on at top speed. None without one."""
    group, row = evaluation.group(index)
    run = moments.run
    if run is None:
        return None
    distance = evaluation.documents[index].design.run.distance or USUAL_DISTANCE
    end = trace.moment(group.batch, row, 1, distance)[0]
    if end > run.time[-1]:
        last = states.taken(moments.states, np.array([moments.names.index(TOP)]))
    else:
        last = states.between(run, end)
    kept = states.taken(run, run.time < end)
    return states.joined([kept, replace(last, time=np.array([end]))])


def block(stretch: Stretch, branch: int) -> HeatBlock:
    """What a stretch heats in one motor of a branch: pieces of the run, each with the mean square of its current."""
    steps = np.diff(stretch.time)
    current, speed = stretch.current[:, branch], stretch.speed[:, branch]
    square = (current[:-1] ** 2 + current[:-1] * current[1:] + current[1:] ** 2) / 3.0
    turning = 0.5 * (np.abs(speed[:-1]) + np.abs(speed[1:]))
    groups = np.array_split(np.arange(len(steps)), min(MOST_PIECES, max(1, len(steps))))
    pieces = [
        (steps[g] @ square[g] / steps[g].sum(), steps[g] @ turning[g] / steps[g].sum(), steps[g].sum())
        for g in groups
        if len(g) and steps[g].sum() > 0.0
    ]
    pieces += [(0.0, 0.0, stretch.wait)] if stretch.wait > 0.0 else []
    squares, speeds, times = np.array(pieces).T
    return HeatBlock(Pieces(squares, speeds, times), stretch.count)


def squares(day: Heats, of: Callable[[Stretch], Floats]) -> tuple[Floats, Floats]:
    """The square of a current over each stretch of one heat, A²·s, and how long that counts, s, (k,) each.

    Standing still for longer than a minute does not count.

    Args:
        day: its stretches.
        of: the current at the times of a stretch.
    """
    work, seconds = [], []
    for stretch in day.stretches:
        current, steps = of(stretch), np.diff(stretch.time)
        square = (current[:-1] ** 2 + current[:-1] * current[1:] + current[1:] ** 2) / 3.0
        wait = stretch.wait if stretch.wait <= LONG_WAIT else 0.0
        work.append(stretch.count * float(steps @ square))
        seconds.append(stretch.count * (float(steps.sum()) + wait))
    return np.array(work), np.array(seconds)


def root_mean_square(day: Heats, of: Callable[[Stretch], Floats]) -> float:
    """Of a current over the day, A; see `squares`."""
    work, seconds = squares(day, of)
    return float(np.sqrt(work.sum() / seconds.sum())) if seconds.sum() > 0.0 else 0.0


def bus_of(stretch: Stretch) -> Floats:
    """The supply's current over a stretch, A."""
    return stretch.bus


def longest_currents(day: Heats) -> list[float]:
    """For each row of the fuse's table the largest current, whichever way it flows, that is exceeded for longer than
    the row's time, A.
    """
    stretches = {id(stretch): stretch for stretch in day.stretches}.values()
    return [max((_exceeded(stretch, time) for stretch in stretches), default=0.0) for time, _ in FUSE]


def _exceeded(stretch: Stretch, time: float) -> float:
    """The largest current, out of the supply or back, above which a stretch stays for longer than a time without a
    break, A; 0 where none is.
    """
    if len(stretch.time) < len("ab") or stretch.time[-1] - stretch.time[0] <= time:
        return 0.0
    if time == 0.0:
        return float(np.abs(stretch.bus).max())
    return max(_level(stretch.time, bus, time) for bus in (stretch.bus, -stretch.bus))


def _level(t: Floats, current: Floats, time: float) -> float:
    """The largest level above which a current stays for longer than a time; 0 where it does so above none."""
    low, high = 0.0, float(current.max())
    if high <= 0.0:
        return 0.0
    if _above(t, current, high * (1.0 - 1e-9)) > time:
        return high
    for _ in range(LEVEL_STEPS):
        middle = 0.5 * (low + high)
        if _above(t, current, middle) > time:
            low = middle
        else:
            high = middle
    return low


@entry
def _above(t: Floats, current: Floats, level: float) -> float:
    """The longest time that a current stays above a level, s."""
    longest, begun, before = 0.0, t[0], current[0] - level
    for k in range(1, len(t)):
        over = current[k] - level
        if (over > 0.0) != (before > 0.0):
            at = t[k - 1] + (t[k] - t[k - 1]) * before / (before - over)
            if before > 0.0:
                longest = max(longest, at - begun)
            begun = at
        before = over
    if before > 0.0:
        longest = max(longest, t[-1] - begun)
    return longest
