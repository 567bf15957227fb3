"""Curves for the charts: force over speed, and the run from rest over time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ydrometer.evaluate import Evaluation
from ydrometer.motion import forces
from ydrometer.motion.run import TAIL

POINTS = 49
"""Enough for a smooth line across half a screen, with the corners added."""

SETTLED = 0.98
"""Share of the top speed from which on the run is only cruising."""

# Points of the run in its own parameter (see motion.run): dense while it gathers speed, sparse while it cruises.
_PLACES = np.concatenate([np.linspace(0.0, 2.0, 30, endpoint=False), np.linspace(2.0, TAIL, 30)])


@dataclass(frozen=True, slots=True)
class ForceCurve:
    """Forces in N over speeds in m/s, up to the no-load speed."""

    speed: list[float]
    drive: list[float]
    resistance: list[float]
    traction: list[float]


@dataclass(frozen=True, slots=True)
class RunCurve:
    """The run from rest: time s, speed m/s, distance m, supply current A."""

    time: list[float]
    speed: list[float]
    distance: list[float]
    bus_current: list[float]


def force_curve(evaluation: Evaluation, index: int = 0) -> ForceCurve:
    """Force over speed at full throttle; corners of the curve are among the points."""
    analysis = evaluation.analysis
    plant = analysis.plant.take(np.array([index]))
    end = float(analysis.no_load[index, 0]) or 1.0
    speed = np.linspace(0.0, end, POINTS)
    if analysis.profile is not None and evaluation.starts(index):
        speed = np.union1d(speed, analysis.profile.corners[_row(evaluation, index)])
    state = forces.at_speed(plant, speed[None, :])
    return ForceCurve(speed.tolist(), state.drive[0].tolist(), state.resistance[0].tolist(), state.traction[0].tolist())


def run_curve(evaluation: Evaluation, index: int = 0) -> RunCurve | None:
    """The run until the distance of the run is covered and the speed settled; None where it does not start."""
    analysis = evaluation.analysis
    if analysis.profile is None or not evaluation.starts(index):
        return None
    row = _row(evaluation, index)
    profile = analysis.profile.take(row)
    grown = profile.at_s(_PLACES[None, :])
    settled = float(np.interp(SETTLED, grown.speed[0] / profile.top_speed[0, 0], grown.time[0]))
    end = 1.15 * max(settled, evaluation.value("time_to_distance", index) or 0.0)
    last = profile.at_time(np.array([[end]]))
    shown = grown.time[0] < end
    time, speed, distance = (
        np.append(part[0][shown], final[0])
        for part, final in (
            (grown.time, last.time),
            (grown.speed, last.speed),
            (grown.distance, last.distance),
        )
    )
    state = forces.at_speed(profile.plant, speed[None, :])
    drawn = forces.as_driven(profile.plant, speed[None, :], state).bus_current
    return RunCurve(time.tolist(), speed.tolist(), distance.tolist(), drawn[0].tolist())


def _row(evaluation: Evaluation, index: int) -> int:
    """Where the design stands among those that start."""
    return int(evaluation.analysis.starts[:index].sum())
