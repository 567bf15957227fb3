"""What is measured over the reduction: the smooth curve on which gearings that were tried lie as points."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.stats import norm

from ydrometer.base.reckoning import Floats
from ydrometer.trials.calibrate import HIGH, Calibration
from ydrometer.trials.model import STEP, Model, PosedQuestion
from ydrometer.trials.trial import Trial
from ydrometer.trials.tried import reduction
from ydrometer.trials.unknowns import Held, Unknown, UnknownKind

POINTS = 33
BEYOND = 1.3
"""How far the curve goes on beyond the gearings that were tried."""
REDUCTION = UnknownKind("reduction", "reduction", 1.0, "", "", lambda document, branch: None)


@dataclass(frozen=True, slots=True)
class Curve:
    """A measure over the reduction, SI, (n,) each; NaN where there is no value.

    Attributes:
        reduction: motor turns per wheel turn. before: as designed. after: with what the runs tell.
        low, high: between which it lies in 80 of 100.
    """

    reduction: Floats
    before: Floats
    after: Floats
    low: Floats
    high: Floats


def over_reduction(calibration: Calibration, name: str, run: Trial, ground: str, tried: list[float]) -> Curve:
    """What the model says of a kind of run over the reduction, all else as in one design.

    The efficiency of the stages stays, as it does where another pinion is put on.

    Args:
        calibration: of the runs.
        name: of the design.
        run: says what is measured, and how.
        ground: that it runs on.
        tried: reductions that the curve has to reach, one at least.
    """
    own = reduction(calibration.designs[name].design)
    ratios = np.geomspace(min(tried) / BEYOND, max(tried) * BEYOND, POINTS)
    scaled = Unknown(REDUCTION, (name,), None, None, 1.0, Held((), ()))
    model = Model(calibration.designs, [PosedQuestion(run, name, ground, run.conditions)])
    steps = STEP * np.array([unknown.sigma for unknown in calibration.chosen])
    rows = np.concatenate([[np.zeros_like(steps), calibration.fit.theta], calibration.fit.theta + np.diag(steps)])
    theta = np.column_stack([np.tile(rows, (POINTS, 1)), np.repeat(np.log(ratios / own), len(rows))])
    logs = np.log(model.values([*calibration.chosen, scaled], theta)[:, 0]).reshape(POINTS, len(rows))
    before, after = np.exp(logs[:, 0]), np.exp(logs[:, 1])
    slopes = np.nan_to_num((logs[:, 2:] - logs[:, 1:2]) / steps)
    half = norm.ppf(HIGH / 100.0) * np.sqrt(np.einsum("nu,uv,nv->n", slopes, calibration.fit.covariance, slopes))
    return Curve(ratios, before, after, after * np.exp(-half), after * np.exp(half))
