"""A design with the fitted values in it, as its document has them: marked measured, with how sure they are."""

from __future__ import annotations

import copy
from collections import Counter
from collections.abc import Iterator
from typing import Any

import numpy as np

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.units import parse
from ydrometer.document.design import Document
from ydrometer.document.sources import BenchPoints, Motor
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.case import LEAST_EFFICIENCY

Place = tuple[str, float, float, str]
"""A path, its value and its spread, SI, and its dimension."""


def fitted_design(made: Calibration, name: str) -> dict[str, Any]:
    """The document of a design with the values that the runs make most likely.

    Args:
        made: of the runs.
        name: of the design.
    """
    raw: dict[str, Any] = copy.deepcopy(dict(made.file.raw[name]))
    counted = int(made.fit.data.takes_part.sum())
    note = f"fitted to {counted} {'run' if counted == 1 else 'runs'}"
    for path, value, spread, dimension in _places(made, name):
        _put(raw, path, {"value": _typed(value, spread, dimension), "origin": "measured", "note": note})
    return raw


def _ground(made: Calibration, name: str) -> str:
    """The ground that a design was run on most."""
    own = [ground for run, ground in zip(made.runs, made.grounds, strict=True) if run.design == name]
    own += [ground for one, ground in made.asked if one.design == name]
    return Counter(own).most_common(1)[0][0] if own else ""


def _places(made: Calibration, name: str) -> Iterator[Place]:
    document, ground = made.designs[name], _ground(made, name)
    sd = np.sqrt(np.diag(made.fit.covariance))
    motors: dict[int, dict[str, tuple[float, float]]] = {}
    for unknown, theta, doubt in zip(made.chosen, made.fit.theta, sd, strict=True):
        if not unknown.concerns(name, ground):
            continue
        factor = float(np.exp(theta))
        if unknown.kind.name == "losses":
            for path, eta in zip(unknown.held.paths, unknown.held.values, strict=True):
                value = max(LEAST_EFFICIENCY, 1.0 - (1.0 - eta) * factor)
                yield path, value, (1.0 - value) * doubt, "ratio"
        elif unknown.branch is not None and _by_points(document, unknown.branch):
            motors.setdefault(unknown.branch, {})[unknown.kind.name] = factor, float(doubt)
        else:
            for path, value in zip(unknown.held.paths, unknown.held.values, strict=True):
                yield path, value * factor, value * factor * doubt, document.values[path].dimension
    for b, factors in motors.items():
        yield from _points(document, b, factors)


def _by_points(document: Document, b: int) -> BenchPoints | None:
    source = document.design.drive.branches[b].source
    return source.bench_points if isinstance(source, Motor) else None


def _points(document: Document, b: int, factors: dict[str, tuple[float, float]]) -> Iterator[Place]:
    """The points that make the fitted constants, at the same nominal voltage."""
    points = _by_points(document, b)
    assert points is not None  # the caller has looked
    (kv, of_kv), (winding, of_winding), (no_load, of_no_load) = (
        factors.get(name, (1.0, 0.0)) for name in ("motor_constant", "winding_resistance", "no_load_current")
    )
    resistance = points.nominal_voltage / points.stall_current
    kt = points.stall_torque / (points.stall_current - points.free_current) / kv
    ke = (points.nominal_voltage - points.free_current * resistance) / points.free_speed / kv
    resistance, free = resistance * winding, points.free_current * no_load
    stall = points.nominal_voltage / resistance
    path = f"drive.branches[{b}].source.bench_points"
    speed = (points.nominal_voltage - free * resistance) / ke
    torque = kt * (stall - free)
    yield f"{path}.free_current", free, free * of_no_load, "current"
    yield f"{path}.free_speed", speed, speed * of_kv, "angular speed"
    yield f"{path}.stall_current", stall, stall * of_winding, "current"
    yield f"{path}.stall_torque", torque, torque * float(np.hypot(of_kv, of_winding)), "torque"


def _typed(value: float, spread: float, dimension: str) -> str | float:
    """As somebody would type it: with the unit of its kind, and how sure it is."""
    unit = DIMENSIONS[dimension].metric
    one = parse(f"1 {unit}".strip(), dimension) if unit else 1.0
    text = f"{value / one:.9g} +/- {spread / one:.3g}"
    return f"{text} {unit}".strip() if unit else text


def _put(raw: Any, path: str, value: Any) -> None:
    """Put a value at a path of a document; objects on the way are made."""
    keys: list[str | int] = []
    for piece in path.split("."):
        name, *places = piece.replace("]", "").split("[")
        keys += [name, *(int(place) for place in places)]
    for key in keys[:-1]:
        raw = raw[key] if isinstance(key, int) else raw.setdefault(key, {})
    raw[keys[-1]] = value
