"""The fit of losses: against closed forms, against what is drawn again and again, and with hidden losses."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from unittest import TestCase

import numpy as np

from tests.bench.calibrate import driven, vehicle
from tests.core.designs import PLAIN
from ydrometer.base.reckoning import Floats
from ydrometer.document import design
from ydrometer.trials import runs_file
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.fit import Data, Fit, fitted
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.rows import TrialRows
from ydrometer.trials.unknowns import Unknown, unknowns

DOUBT = 0.02


@dataclass(frozen=True)
class Made:
    """A question whose answer follows from the factors alone."""

    of: Callable[[TrialRows], Floats]
    moving: bool = False

    def refers_to(self, key: str) -> tuple[float, ...]:
        return ()

    def zero(self, ambient: float) -> float:
        return 0.0

    def values(self, rows: TrialRows) -> Floats:
        return self.of(rows)


def two(*of: Callable[[TrialRows], Floats]) -> tuple[Model, list[Unknown]]:
    """A model of grip and drag alone."""
    read = {"plain": design.read(PLAIN)}
    wanted = [u for u in unknowns(read, [("plain", "")]) if u.kind.name in {"grip", "drag_area"}]
    return Model(read, [PosedQuestion(Made(one), "plain", "") for one in of]), wanted


def fit(model: Model, chosen: list[Unknown], y: list[float]) -> Fit:
    return fitted(model, chosen, Data(np.array(y), np.full(len(y), DOUBT**2), np.full(len(y), fill_value=True)))


class ClosedForms(TestCase):
    def test_two_unknowns_that_only_appear_as_a_product(self) -> None:
        # y = a + b + noise: what is known beforehand decides who gets which part of it, and they cannot be told apart.
        model, chosen = two(lambda rows: rows.factors.grip * rows.factors.air)
        found = fit(model, chosen, [0.1])
        s = np.array([one.sigma for one in chosen])
        exact = np.linalg.inv(np.ones((2, 2)) / DOUBT**2 + np.diag(1.0 / s**2))
        np.testing.assert_allclose(found.theta, exact @ np.full(2, 0.1 / DOUBT**2), rtol=1e-6)
        np.testing.assert_allclose(found.covariance, exact, rtol=1e-6)
        self.assertLess(found.covariance[0, 1] / np.sqrt(np.prod(np.diag(found.covariance))), -0.9)

    def test_the_lower_of_two_valleys(self) -> None:
        # A push that grip holds below some factor, and something else above it.
        model, chosen = two(lambda rows: np.minimum(rows.factors.grip**4, 1.0 + 0.05 * (rows.factors.grip - 1.0)))
        self.assertLess(fit(model, chosen, [-0.5]).theta[0], -0.1)

    def test_an_odd_run_is_set_aside_and_one_that_is_kept_is_not(self) -> None:
        model, chosen = two(*[lambda rows: rows.factors.grip] * 5)
        y = [0.01, 0.0, -0.01, 0.005, 0.5]
        found = fit(model, chosen, y)
        self.assertEqual(found.odd, {4})
        self.assertFalse(found.data.takes_part[4])
        self.assertGreater(found.z[4], 10.0)
        data = Data(np.array(y), np.full(5, DOUBT**2), np.full(5, fill_value=True))
        self.assertTrue(fitted(model, chosen, data, frozenset({4})).data.takes_part[4])

    def test_with_three_runs_none_is_set_aside(self) -> None:
        model, chosen = two(*[lambda rows: rows.factors.grip] * 3)
        found = fit(model, chosen, [0.0, 0.0, 0.5])
        self.assertTrue(found.data.takes_part.all())
        self.assertTrue(found.odd)


class Drawn(TestCase):
    def test_the_covariance_is_that_of_fits_to_data_drawn_again(self) -> None:
        model, chosen = two(lambda rows: rows.factors.grip**2 * rows.factors.air, lambda rows: rows.factors.grip)
        random = np.random.default_rng(5)
        s = np.array([one.sigma for one in chosen])
        off = []
        for _ in range(150):
            hidden = random.normal(size=2) * s
            y = model.logs(chosen, hidden[None, :])[0] + random.normal(0.0, DOUBT, 2)
            off.append(fit(model, chosen, list(y)).theta - hidden)
        exact = fit(model, chosen, [0.0, 0.0]).covariance
        np.testing.assert_allclose(np.cov(np.array(off).T), exact, atol=0.25 * exact.max())

    def test_hidden_losses_are_found_within_their_doubt(self) -> None:
        squares, number = 0.0, 0
        for seed in range(4):
            random = np.random.default_rng([11, seed])
            afternoon = driven(vehicle(random), random)
            made = Calibration(runs_file.read(afternoon.file))
            hidden = np.array([afternoon.hidden[one.kind.name] for one in made.chosen])
            off = made.fit.theta - hidden
            squares += float(off @ np.linalg.solve(made.fit.covariance, off))
            number += len(off)
        self.assertLess(squares / number, 2.0)
