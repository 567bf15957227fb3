"""A design with the fitted values in it, as its document has them: marked measured, with how sure they are."""

from __future__ import annotations

import copy
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.paths import put
from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.sources import BenchPoints, Motor
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.case import LEAST_EFFICIENCY
from ydrometer.trials.written import typed

FITTED = "fitted to"
"""How the note of a fitted value begins."""
STEP = 1e-4
"""Of a difference quotient, in ln of a factor."""


@dataclass(frozen=True, slots=True)
class Fitted:
    """Values of a design that runs make most likely, and how they vary together.

    Attributes:
        paths: in the document. dimensions: of each. values: SI, (P,). together: relative change of each value with each
        of K independent standard normal numbers, (P, K): together·togetherᵀ is the covariance of ln of the values.
    """

    paths: tuple[str, ...]
    dimensions: tuple[str, ...]
    values: Floats
    together: Floats

    @property
    def spreads(self) -> Floats:
        """Standard deviation of each value, SI, (P,)."""
        doubts: Floats = self.values * np.sqrt((self.together**2).sum(axis=1))
        return doubts


def fitted_values(calibration: Calibration, name: str) -> Fitted:
    """What the runs make of a design's values.

    All that is in the fit is among them, also what the runs say little of: that varies against the rest.

    Args:
        calibration: of the runs.
        name: of the design.
    """
    here = list(_places(calibration, name, calibration.fit.theta))
    values = np.array([value for _, value, _ in here])
    slopes = np.zeros((len(here), len(calibration.chosen)))
    for u in range(len(calibration.chosen)):
        moved = calibration.fit.theta.copy()
        moved[u] += STEP
        there = np.array([value for _, value, _ in _places(calibration, name, moved)])
        # The end of a torque curve may be 0: that stays, whatever it is multiplied by.
        slopes[:, u] = np.divide(there - values, values * STEP, out=np.zeros(len(here)), where=values != 0.0)
    root = np.linalg.cholesky(calibration.fit.covariance) if calibration.chosen else np.zeros((0, 0))
    return Fitted(tuple(path for path, _, _ in here), tuple(kind for _, _, kind in here), values, slopes @ root)


def written(calibration: Calibration, fitted: Fitted) -> dict[str, dict[str, Any]]:
    """The values as they stand in a document, by path."""
    counted = int(calibration.fit.data.takes_part.sum())
    note = f"{FITTED} {counted} {'run' if counted == 1 else 'runs'}"
    rows = zip(fitted.paths, fitted.values, fitted.dimensions, fitted.spreads, strict=True)
    return {
        path: {"value": typed(float(value), kind, float(spread)), "origin": "measured", "note": note}
        for path, value, kind, spread in rows
    }


def fitted_design(calibration: Calibration, name: str) -> dict[str, Any]:
    """The document of a design with the values that the runs make most likely.

    Args:
        calibration: of the runs.
        name: of the design.
    """
    raw: dict[str, Any] = copy.deepcopy(dict(calibration.file.raw[name]))
    for path, entry in written(calibration, fitted_values(calibration, name)).items():
        put(raw, path, entry)
    return raw


def _ground(calibration: Calibration, name: str) -> str:
    """The ground that a design was run on most."""
    own = [ground for run, ground in zip(calibration.runs, calibration.grounds, strict=True) if run.design == name]
    own += [ground for question, ground in calibration.predictions if question.design == name]
    return Counter(own).most_common(1)[0][0] if own else ""


def _places(calibration: Calibration, name: str, theta: Floats) -> Iterator[tuple[str, float, str]]:
    """Paths with their values, SI, and dimensions at one set of unknowns."""
    document, ground = calibration.designs[name], _ground(calibration, name)
    motors: dict[int, dict[str, float]] = {}
    for unknown, of_it in zip(calibration.chosen, theta, strict=True):
        factor = float(np.exp(of_it))
        if not unknown.concerns(name, ground):
            continue
        if unknown.kind.name == "losses":
            for path, eta in zip(unknown.held.paths, unknown.held.values, strict=True):
                yield path, max(LEAST_EFFICIENCY, 1.0 - (1.0 - eta) * factor), "ratio"
        elif unknown.branch is not None and _by_points(document, unknown.branch):
            motors.setdefault(unknown.branch, {})[unknown.kind.name] = factor
        else:
            for path, value in zip(unknown.held.paths, unknown.held.values, strict=True):
                yield path, value * factor, document.values[path].dimension
    for b, factors in motors.items():
        yield from _points(document, b, factors)


def _by_points(document: Document, b: int) -> BenchPoints | None:
    source = document.design.drive.branches[b].source
    return source.bench_points if isinstance(source, Motor) else None


def _points(document: Document, b: int, factors: dict[str, float]) -> Iterator[tuple[str, float, str]]:
    """The points that make the fitted constants, at the same nominal voltage."""
    points = _by_points(document, b)
    assert points is not None  # the caller has looked
    kv, winding, no_load = (
        factors.get(name, 1.0) for name in ("motor_constant", "winding_resistance", "no_load_current")
    )
    resistance = points.nominal_voltage / points.stall_current
    kt = points.stall_torque / (points.stall_current - points.free_current) / kv
    ke = (points.nominal_voltage - points.free_current * resistance) / points.free_speed / kv
    resistance, free = resistance * winding, points.free_current * no_load
    stall = points.nominal_voltage / resistance
    path = f"drive.branches[{b}].source.bench_points"
    yield f"{path}.free_current", free, "current"
    yield f"{path}.free_speed", (points.nominal_voltage - free * resistance) / ke, "angular speed"
    yield f"{path}.stall_current", stall, "current"
    yield f"{path}.stall_torque", kt * (stall - free), "torque"
