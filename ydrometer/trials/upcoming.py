"""What to measure next: which three readings would cut the doubt in what is aimed at most."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.sources import Engine
from ydrometer.document.supply import Panel
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.moments import SHOVE, TOP
from ydrometer.trials import kinds
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.measure import targets_of
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.scatter import FLOOR
from ydrometer.trials.trial import Trial

READINGS = 3
"""Of a measurement that is proposed."""
MOST = 3
FROM, TO = 0.8, 0.3
"""Shares of the top speed between which it would be left to roll."""


@dataclass(frozen=True, slots=True)
class Proposal:
    """A measurement: of which kind, with which design, and the share that it cuts of the variance of the most doubtful
    target.
    """

    run: Trial
    design: str
    cuts: float


def upcoming(calibration: Calibration) -> list[Proposal]:
    """The three best, the best first; none where nothing is left to be learnt."""
    names = [question.design for question, _ in calibration.predictions] or list(calibration.designs)
    ground = calibration.predictions[0][1] if calibration.predictions else calibration.usual_ground
    targets = [
        PosedQuestion(measure, name, ground)
        for name in names
        for measure in targets_of(calibration.designs[name].design)
    ]
    if not targets or not calibration.chosen:
        return []
    _, slopes = Model(calibration.designs, targets).slopes(calibration.chosen, calibration.fit.theta)
    variances = np.einsum("ku,uv,kv->k", slopes, calibration.fit.covariance, slopes)
    most = int(np.argmax(variances))
    if variances[most] <= 0.0:
        return []
    candidates = [run for name, document in calibration.designs.items() for run in _candidates(name, document)]
    posed = [PosedQuestion(run, run.design, ground, run.conditions) for run in candidates]
    here, theirs = Model(calibration.designs, posed).slopes(calibration.chosen, calibration.fit.theta)
    cuts = [
        _cut(calibration.fit.covariance, slopes[most], slope, run.scatter) if np.isfinite(value) else 0.0
        for run, slope, value in zip(candidates, theirs, here, strict=True)
    ]
    best = sorted(range(len(cuts)), key=lambda k: -cuts[k])[:MOST]
    return [Proposal(candidates[k], candidates[k].design, cuts[k]) for k in best if cuts[k] > 0.0]


def _cut(covariance: Floats, target: Floats, slope: Floats, scatter: float) -> float:
    """Share of a target's variance that one more measurement takes away (Kalman update of a linear model)."""
    doubt = scatter**2 / READINGS + FLOOR**2
    through = covariance @ slope
    gain = float(target @ through) ** 2 / (float(slope @ through) + doubt)
    return gain / float(target @ covariance @ target)


def _candidates(name: str, document: Document) -> Iterator[Trial]:
    """Every kind of run that a design can make."""
    design = document.design
    base: dict[str, Any] = {"design": name, "readings": (1.0,)}
    drive, run = design.drive, design.run
    yield kinds.Spin(**base, of="wheel")
    yield kinds.TopSpeed(**base)
    yield kinds.Push(**base)
    yield kinds.Tow(**base)
    if run.distance:
        yield kinds.DistanceTime(**base, distance=run.distance)
        yield kinds.SpeedAt(**base, distance=run.distance)
    if run.speed:
        yield kinds.SpeedTime(**base, speed=run.speed)
    motors = not any(isinstance(branch.source, Engine) for branch in drive.branches)
    fast = _top(document)
    if fast:
        yield kinds.Stop(**base, begun=fast)
        for how in ("free", "attached") if motors else ("free",):
            yield kinds.Coast(**base, begun=FROM * fast, ended=TO * fast, drive=how)
    if motors and drive.supply is not None:
        for moment in (SHOVE, TOP):
            yield kinds.SupplyCurrent(**base, moment=moment)
            for b in range(len(drive.branches)):
                yield kinds.MotorCurrent(**base, moment=moment, branch=b)
            if not isinstance(drive.supply, Panel):
                yield kinds.VoltageUnderLoad(**base, moment=moment)


def _top(document: Document) -> float | None:
    speed: float | None = evaluate([document]).value("top_speed", 0)
    return speed
