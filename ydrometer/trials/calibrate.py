"""All that a runs file teaches: the fit, each run before and after, what is asked, and what to measure next."""

from __future__ import annotations

import dataclasses
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm, qmc

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.supply import Battery
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.trials import scatter
from ydrometer.trials.case import at_voltage
from ydrometer.trials.differences import Difference, compared
from ydrometer.trials.fit import Data, Fit, fitted
from ydrometer.trials.measure import Measure, asked_of
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.runs_file import AUTO, AskedPrediction, RunsFile
from ydrometer.trials.trial import Trial
from ydrometer.trials.unknowns import Unknown, unknowns

SAMPLES, SEED = 512, 20_261_129
LOW, HIGH = 10.0, 90.0
"""Percentiles of bands."""
MOST_SAMPLED = 200
"""Runs up to which their bands are sampled; beyond they are linearised."""
Flags = NDArray[np.bool_]
LOOKS = (-2.0, -1.0, 1.0, 2.0)
"""Standard deviations at which it is looked whether anything depends on an unknown."""
CHANGED = 1e-9
VOLTAGE_STEP = 1e-3
TIED = 0.9
"""Correlation from which on two unknowns cannot be told apart."""
SILENT = 0.1
"""Share of what was not known that runs must tell of an unknown, or they say nothing of it."""


@dataclass(frozen=True, slots=True)
class Answer:
    """A value with its 10th and 90th percentile; NaN where there is none."""

    value: float
    low: float
    high: float


class Calibration:
    """A runs file, worked out as far as it is asked for."""

    def __init__(self, file: RunsFile) -> None:
        self.file = file
        self.runs = file.runs
        self.designs = dict(file.designs)

    @cached_property
    def grounds(self) -> list[str]:
        """Of each run."""
        return [self.file.ground(run) for run in self.runs]

    @cached_property
    def predictions(self) -> list[tuple[AskedPrediction, str]]:
        """Designs that are asked for, each with its ground: that of most runs, the first at a tie."""
        return [
            (question, self.usual_ground if question.ground is None else question.ground) for question in self.file.ask
        ]

    @cached_property
    def usual_ground(self) -> str:
        """That of most runs, the first at a tie."""
        return Counter(self.grounds).most_common(1)[0][0] if self.runs else ""

    @cached_property
    def model(self) -> Model:
        """Of the runs."""
        return Model(
            self.designs,
            [
                PosedQuestion(run, run.design, ground, run.conditions)
                for run, ground in zip(self.runs, self.grounds, strict=True)
            ],
        )

    @cached_property
    def questions(self) -> list[PosedQuestion]:
        """What is asked, in the order of the asked designs."""
        return [
            PosedQuestion(measure, question.design, ground)
            for question, ground in self.predictions
            for measure in asked_of(self.designs[question.design].design)
        ]

    @cached_property
    def asked_model(self) -> Model:
        """Of what is asked."""
        return Model(self.designs, self.questions)

    @cached_property
    def unknowns(self) -> list[Unknown]:
        """All that is only guessed of the designs that were run or are asked for."""
        pairs = [(run.design, ground) for run, ground in zip(self.runs, self.grounds, strict=True)]
        return unknowns(self.designs, [*pairs, *((question.design, ground) for question, ground in self.predictions)])

    @cached_property
    def chosen(self) -> list[Unknown]:
        """Those in the fit."""
        if self.file.fit != AUTO:
            return [unknown for unknown in self.unknowns if unknown.kind.name in self.file.fit]
        matters = [self._depends(model) for model in (self.model, self.asked_model)]
        return [unknown for u, unknown in enumerate(self.unknowns) if any(informed[u] for informed in matters)]

    def _depends(self, model: Model) -> Flags:
        """Whether anything that a model is asked depends on each unknown, (U,)."""
        sigma = np.diag([unknown.sigma for unknown in self.unknowns])
        theta = np.concatenate([np.zeros((1, len(sigma))), *(look * sigma for look in LOOKS)])
        values = model.values(self.unknowns, theta)
        same = np.isclose(values[1:], values[0], rtol=CHANGED, atol=0.0, equal_nan=True)
        depends: Flags = ~same.reshape(len(LOOKS), len(sigma), values.shape[1]).all(axis=(0, 2))
        return depends

    @cached_property
    def before(self) -> Floats:
        """What the model said of each run as designed, SI, (m,)."""
        values: Floats = self.model.values(self.chosen, np.zeros((1, len(self.chosen))))[0]
        return values

    @cached_property
    def scatter(self) -> dict[str, float]:
        """Of one reading, relative, by kind."""
        return scatter.pooled(self.runs, self.model.zeros)

    @cached_property
    def data(self) -> Data:
        """What was measured, and how sure that is."""
        means = np.array([scatter.mean(run) for run in self.runs]) - self.model.zeros
        part = np.isfinite(self.before) & (means > 0.0) & np.array([bool(run.counted) for run in self.runs], bool)
        pairs = zip(self.runs, self.model.zeros, strict=True)
        variance = np.array([scatter.variance(run, zero, self.scatter) for run, zero in pairs])
        y = np.log(np.where(means > 0.0, means, 1.0))
        return Data(y, np.where(part, variance + self._of_voltage**2, 1.0), part)

    @cached_property
    def _of_voltage(self) -> Floats:
        """What an unmeasured voltage at rest does to ln of each value, (m,)."""
        powers = np.zeros(len(self.runs))
        doubtful = [k for k, run in enumerate(self.runs) if run.supply_voltage is None and self._battery(run)]
        moved = [self._model_at(doubtful, 1.0 + side * VOLTAGE_STEP) for side in (-1.0, 1.0)]
        if doubtful:
            none = np.zeros((1, len(self.chosen)))
            low, high = (model.logs(self.chosen, none)[0] for model in moved)
            slope = (high - low) / (2.0 * VOLTAGE_STEP)
            powers[doubtful] = scatter.VOLTAGE_DOUBT * np.where(np.isfinite(slope), slope, 0.0)
        return powers

    def _battery(self, run: Trial) -> Battery | None:
        supply = run.supply or self.designs[run.design].design.drive.supply
        return supply if isinstance(supply, Battery) else None

    def _model_at(self, places: Sequence[int], share: float) -> Model:
        """Of some runs with their battery at another voltage."""
        posed = []
        for k in places:
            run = self.runs[k]
            battery = self._battery(run)
            assert battery is not None  # only such runs are asked about
            supply = at_voltage(battery, battery.voltage * share)
            posed.append(
                PosedQuestion(run, run.design, self.grounds[k], dataclasses.replace(run.conditions, supply=supply))
            )
        return Model(self.designs, posed)

    @cached_property
    def fit(self) -> Fit:
        """The most likely unknowns."""
        kept = frozenset(k for k, run in enumerate(self.runs) if run.keep)
        return fitted(self.model, self.chosen, self.data, kept)

    @cached_property
    def after(self) -> Floats:
        """What the fitted model says of each run, SI, (m,)."""
        return np.exp(self.fit.logs) + self.model.zeros

    @cached_property
    def _drawn(self) -> Floats:
        """ln of the factors of all unknowns, drawn within what is known now, (SAMPLES, U); those in the fit first; and
        one more column of standard normal numbers.

        Sobol points turned normal (Owen, Scrambling Sobol' and Niederreiter-Xing points).
        """
        points = qmc.Sobol(len(self.unknowns) + 1, scramble=True, seed=SEED).random(SAMPLES)
        normal = norm.ppf(np.clip(points, 1e-12, 1.0 - 1e-12))
        fitted_ones = len(self.chosen)
        root = np.linalg.cholesky(self.fit.covariance) if fitted_ones else np.eye(0)
        known = self.fit.theta + normal[:, :fitted_ones] @ root.T
        prior = normal[:, fitted_ones:-1] * np.array([unknown.sigma for unknown in self._in_order[fitted_ones:]])
        return np.column_stack([known, prior, normal[:, -1]])

    @cached_property
    def _in_order(self) -> list[Unknown]:
        """Unknowns as they are drawn."""
        return [*self.chosen, *(unknown for unknown in self.unknowns if unknown not in self.chosen)]

    @cached_property
    def bands(self) -> tuple[Floats, Floats]:
        """Between which values one reading of each run lies in 80 of 100, SI, (m,) each."""
        if len(self.runs) > MOST_SAMPLED:
            return self.linear_bands
        logs = self.model.logs(self._in_order, self._drawn[:, :-1]) + self._drawn[:, -1:] * self._of_one
        low, high = _percentiles(np.exp(logs))
        return low + self.model.zeros, high + self.model.zeros

    @cached_property
    def linear_bands(self) -> tuple[Floats, Floats]:
        """The same, linearised: of many runs, or where somebody waits for them."""
        half = norm.ppf(HIGH / 100.0) * np.sqrt(self.fit.spread + self._of_one**2)
        rise = np.exp(self.fit.logs)
        return rise * np.exp(-half) + self.model.zeros, rise * np.exp(half) + self.model.zeros

    @cached_property
    def _of_one(self) -> Floats:
        """Relative scatter of one reading of each run, (m,)."""
        pairs = zip(self.runs, self.model.zeros, strict=True)
        return np.array([scatter.of_one(run, zero, self.scatter) for run, zero in pairs])

    @cached_property
    def answers(self) -> list[Answer]:
        """Of the questions, in their order."""
        if not self.questions:
            return []
        value = self.asked_model.values(self.chosen, self.fit.theta[None, :])[0]
        low, high = _percentiles(self.asked_model.values(self._in_order, self._drawn[:, :-1]))
        return [Answer(float(v), float(a), float(b)) for v, a, b in zip(value, low, high, strict=True)]

    @cached_property
    def informed(self) -> Floats:
        """Share of what was not known of each unknown that the runs tell, (U,)."""
        sigma = np.array([unknown.sigma for unknown in self.chosen])
        shares: Floats = 1.0 - np.diag(self.fit.covariance) / sigma**2
        return shares

    @cached_property
    def correlations(self) -> list[tuple[int, int, float]]:
        """Pairs of unknowns that cannot be told apart, by their places in the fit."""
        sd = np.sqrt(np.diag(self.fit.covariance))
        matrix = self.fit.covariance / np.outer(sd, sd)
        pairs = zip(*np.triu_indices(len(sd), 1), strict=True)
        return [(int(a), int(b), float(matrix[a, b])) for a, b in pairs if abs(matrix[a, b]) > TIED]

    @cached_property
    def differences(self) -> list[Difference]:
        """Which of two designs is better in what was measured of both."""
        voltages = [run.supply_voltage or getattr(self._battery(run), "voltage", None) for run in self.runs]
        return compared(self.runs, self.grounds, voltages, self.after, self.scatter)

    def why(self, k: int) -> str:
        """Why a run that is above what is taken off takes no part: left out, or without a value of the model."""
        run = self.runs[k]
        if not run.counted:
            return "every reading of it is left out"
        design = run.conditions.applied(self.designs[run.design].design)
        evaluation = evaluate([Document(design, {}, ())])
        if not evaluation.starts(0) and run.moving:
            return "the design does not start"
        return "the model has no value for it under these conditions"

    def measure_of(self, k: int) -> Measure:
        """The measure that a question is about."""
        question = self.questions[k].question
        assert isinstance(question, Measure)  # all that is asked are measures
        return question


def _percentiles(values: Floats) -> tuple[Floats, Floats]:
    """10th and 90th percentile of each column, as far as it has values."""
    known = np.isfinite(values).any(axis=0)
    percentiles = np.full((2, values.shape[1]), np.nan)
    if known.any():
        percentiles[:, known] = np.nanpercentile(
            np.where(np.isfinite(values), values, np.nan)[:, known], (LOW, HIGH), axis=0
        )
    return percentiles[0], percentiles[1]
