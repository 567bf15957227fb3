"""The most likely losses: least squares over all runs with what was known beforehand, odd runs set aside.

Minimise Σ (y − ln f(θ))²/σ_y² + Σ θ²/σ² (maximum a posteriori with normal errors: Gelman and others, Bayesian Data
Analysis, chapter Introduction to regression models; the covariance at the least is that of the linearised model,
(JᵀWJ + P)⁻¹). A push is held by torque or by grip, so there can be two valleys: the least is looked for from several
places.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import least_squares, minimize

from ydrometer.base.reckoning import Floats
from ydrometer.trials.model import Model
from ydrometer.trials.unknowns import Unknown

ODD = 3.5
"""Standard deviations from which on a run is odd."""
MOST_ODD = 4
"""Of so many runs at most one is set aside; with fewer none is."""
OTHER_VALLEY = 1.5
"""Standard deviations of grip at which the other valleys are looked for."""
SEED, SEEDED = 20_261_129, 2
"""Of the places drawn, and how many there are."""
FAR = 1e3
"""Residual of a run that has no value: no step goes there."""
TOLERANCE, ROUGH = 1e-8, 1e-3
"""Relative changes at which a way down ends: to the bottom, and to see whether a valley is lower."""
LOWER = 1e-3
"""How much lower a valley has to be."""
MOST_STEPS = 60
"""Of one way down."""
FLAT = 1e-3
"""Slope of the whole sum over θ/σ at which the least is reached."""


@dataclass(frozen=True, slots=True)
class Data:
    """What was measured: ln of the means above what is taken off, their variances, and which runs take part; (m,)."""

    y: Floats
    variance: Floats
    takes_part: np.ndarray[tuple[int], np.dtype[np.bool_]]

    def without(self, place: int) -> Data:
        """One run fewer."""
        left = self.takes_part.copy()
        left[place] = False
        return replace(self, takes_part=left)


@dataclass(frozen=True, slots=True)
class Fit:
    """Unknowns at the least.

    Attributes:
        chosen: the unknowns. theta: ln of their factors, (U,). covariance: (U, U). data: with the runs that took part.
        logs: ln of the model's values there, (m,). slopes: (m, U). chi_square: the whole minimum. converged. steps.
        odd: runs that are further off than they should be, set aside or not.
    """

    chosen: tuple[Unknown, ...]
    theta: Floats
    covariance: Floats
    data: Data
    logs: Floats
    slopes: Floats
    chi_square: float
    converged: bool
    steps: int
    odd: frozenset[int] = frozenset()

    @property
    def spread(self) -> Floats:
        """Variance of ln of the model's values, as far as the unknowns are not known, (m,)."""
        variance: Floats = np.einsum("ku,uv,kv->k", self.slopes, self.covariance, self.slopes)
        return variance

    @property
    def z(self) -> Floats:
        """How far each run is off, in its own doubt, (m,): less that of the fit it took part in, else more of it."""
        doubt = self.data.variance + np.where(self.data.takes_part, -self.spread, self.spread)
        scores: Floats = (self.data.y - self.logs) / np.sqrt(np.maximum(doubt, 1e-300))
        return scores


def fitted(model: Model, chosen: Sequence[Unknown], data: Data, kept: frozenset[int] = frozenset()) -> Fit:
    """Fit the unknowns to the runs, and set aside one odd run after the other.

    Args:
        model: of the runs.
        chosen: unknowns.
        data: what was measured.
        kept: runs that are never set aside.
    """
    most = int(data.takes_part.sum()) // MOST_ODD
    fit = _least(model, chosen, data)
    odd: set[int] = set()
    while True:
        off = np.where(fit.data.takes_part, np.abs(fit.z), 0.0)
        off[list(kept)] = 0.0
        worst = int(np.argmax(off)) if len(off) else 0
        if not len(off) or off[worst] <= ODD or len(odd) >= most:
            break
        odd.add(worst)
        fit = _least(model, chosen, fit.data.without(worst))
    named = {int(k) for k in np.flatnonzero(fit.data.takes_part & (np.abs(fit.z) > ODD))}
    return replace(fit, odd=frozenset(odd | named))


def _least(model: Model, chosen: Sequence[Unknown], data: Data) -> Fit:
    """The least of all valleys that are found from several starts."""
    if not chosen:
        return _Search(model, chosen, data).at(np.zeros(0), converged=True, steps=0)
    search = _Search(model, chosen, data)
    best = search.down(np.zeros(len(chosen)), TOLERANCE)
    for start in _starts(chosen):
        # Only a lower valley is worth going down to its bottom.
        other = search.down(start, ROUGH)
        if other.chi_square < best.chi_square - LOWER:
            best = search.down(other.theta, TOLERANCE)
    return search.polished(best)


def _starts(chosen: Sequence[Unknown]) -> list[Floats]:
    """Where else the least is looked for: at other grips, and at two places drawn."""
    sigma = np.array([unknown.sigma for unknown in chosen])
    grips = np.array([unknown.kind.name == "grip" for unknown in chosen])
    starts = []
    if grips.any():
        starts += [np.where(grips, side * OTHER_VALLEY * sigma, 0.0) for side in (-1.0, 1.0)]
    drawn = np.random.default_rng(SEED).normal(size=(SEEDED, len(chosen)))
    return [*starts, *(drawn * sigma)]


class _Search:
    """The way down from one place or another, over θ/σ."""

    def __init__(self, model: Model, chosen: Sequence[Unknown], data: Data) -> None:
        self.model, self.chosen, self.data = model, tuple(chosen), data
        self.sigma = np.array([unknown.sigma for unknown in chosen])
        self.weight = np.where(data.takes_part, 1.0 / np.sqrt(data.variance), 0.0)

    def residuals(self, logs: Floats, x: Floats) -> Floats:
        """Of the runs and of what was known beforehand, (m + U,)."""
        off = np.where(np.isfinite(logs), (self.data.y - logs) * self.weight, FAR)
        return np.concatenate([np.where(self.data.takes_part, off, 0.0), x])

    def down(self, start: Floats, tolerance: float) -> Fit:
        """Least squares with a region of trust (scipy's: Branch, Coleman and Li, A subspace, interior, and conjugate
        gradient method for large-scale bound-constrained minimization problems).
        """

        def logs(x: Floats) -> Floats:
            answer: Floats = self.model.logs(self.chosen, (x * self.sigma)[None, :])[0]
            return answer

        def jacobian(x: Floats) -> Floats:
            _, slopes = self.model.slopes(self.chosen, x * self.sigma, roughly=True)
            return np.vstack([-slopes * self.weight[:, None] * self.sigma, np.eye(len(x))])

        solved = least_squares(
            lambda x: self.residuals(logs(x), x),
            start / self.sigma,
            jac=jacobian,
            max_nfev=MOST_STEPS,
            xtol=tolerance,
            ftol=tolerance,
            gtol=tolerance,
        )
        return self.at(solved.x * self.sigma, converged=solved.status > 0, steps=solved.nfev)

    def polished(self, fit: Fit) -> Fit:
        """Where a run lies on the edge between torque and grip the slope jumps, and least squares stop beside the
        least: a quasi-Newton method goes on along the edge (Lewis and Overton, Nonsmooth optimization via
        quasi-Newton methods).
        """

        def cost(x: Floats) -> tuple[float, Floats]:
            logs, slopes = self.model.slopes(self.chosen, x * self.sigma)
            off = self.residuals(logs, x)
            down = (slopes * self.weight[:, None] * self.sigma).T @ off[: len(logs)]
            return float(off @ off), 2.0 * (x - down)

        if np.abs(cost(fit.theta / self.sigma)[1]).max() < FLAT:
            return fit
        better = minimize(cost, fit.theta / self.sigma, jac=True, method="BFGS", options={"maxiter": MOST_STEPS})
        if better.fun >= fit.chi_square:
            return fit
        return self.at(better.x * self.sigma, converged=fit.converged, steps=fit.steps + int(better.nfev))

    def at(self, theta: Floats, *, converged: bool, steps: int) -> Fit:
        """All that is told of one place."""
        logs, slopes = self.model.slopes(self.chosen, theta)
        known = self.weight**2
        covariance = np.linalg.inv((slopes.T * known) @ slopes + np.diag(1.0 / self.sigma**2))
        chi = float((self.residuals(logs, theta / self.sigma) ** 2).sum())
        return Fit(self.chosen, theta, covariance, self.data, logs, slopes, chi, bool(converged), int(steps))
