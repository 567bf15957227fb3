"""How sure a number is: the design drawn again and again within the uncertainties of its inputs."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from statistics import NormalDist
from typing import Any

import numpy as np

from ydrometer.base.paths import Keys, keys_of
from ydrometer.base.seen import Value
from ydrometer.base.tables import uncertainties
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.design import Document
from ydrometer.document.target import Target
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.result import Bands, measure
from ydrometer.motion.plant import Array

SAMPLES = 256
SEED = 20_261_124
LOW, HIGH = 10.0, 90.0
"""Percentiles shown."""
AS_FITTED = 1e-6
"""Relative difference up to which a value counts as the one that was fitted: it was written with nine digits."""
JUST_INSIDE = 1e-9
"""How far within a bound a draw stays that would fall beyond it, relative to the value."""


@dataclass(frozen=True, slots=True)
class Band:
    """Where a number probably lies: 10th and 90th percentile, and the share of each input in its variance."""

    low: float | None
    high: float | None
    spread_from: dict[str, float]


@dataclass(frozen=True, slots=True)
class Sample:
    """A design and its samples, evaluated as one batch; the design itself is the first.

    `inputs` are the paths that vary, `values` theirs, (SAMPLES, number of inputs).
    """

    evaluation: Evaluation
    inputs: tuple[str, ...]
    values: Array

    def band(self, values: Array) -> Band:
        """The band of a result, given for the design and each sample, (1 + SAMPLES,); NaN where it has none."""
        known = np.isfinite(values[1:])
        if not known.any():
            return Band(None, None, {})
        results = values[1:][known]
        low, high = np.percentile(results, (LOW, HIGH))
        return Band(float(low), float(high), self._shares(results, self.values[known]))

    def _shares(self, results: Array, varied: Array) -> dict[str, float]:
        """Shares of the variance by linear regression on the inputs, which are independent of each other."""
        scale = varied.std(axis=0)
        moving = scale > 0.0
        if len(results) <= len(self.inputs) or np.ptp(results) <= 1e-12 * abs(results).max() or not moving.any():
            return {}
        inputs = (varied[:, moving] - varied[:, moving].mean(axis=0)) / scale[moving]
        # In parts of the largest: the square of a huge result would be beyond what a number can hold.
        parts = results / abs(results).max()
        slopes = np.linalg.lstsq(inputs, parts - parts.mean(), rcond=None)[0] ** 2
        names = [name for name, moves in zip(self.inputs, moving, strict=True) if moves]
        return {name: float(s / slopes.sum()) for name, s in zip(names, slopes, strict=True)}


def uncertain(document: Document, *, assumed: bool) -> dict[str, Value]:
    """The inputs that are uncertain, by path.

    Args:
        document: a design.
        assumed: whether values marked as assumed count as uncertain where they do not say how much.
    """
    fields = {}
    for path, value in document.values.items():
        if path.startswith("targets["):
            continue
        if value.uncertainty > 0.0:
            fields[path] = value
        elif assumed and value.origin == "assumed":
            fields[path] = dataclasses.replace(value, uncertainty=usual_uncertainty(path, value.si))
    return fields


def usual_uncertainty(path: str, value: float) -> float:
    """How far an assumed value is usually off, in its own unit."""
    key = path.rpartition(".")[2]
    if key in uncertainties.OF_THE_LOSS:
        return uncertainties.OF_THE_LOSS[key] * (1.0 - value)
    return uncertainties.OF_THE_VALUE.get(key, uncertainties.OTHER) * abs(value)


@dataclass(frozen=True, slots=True)
class Together:
    """Inputs that were fitted to the same runs, and so are not independent of each other.

    Attributes:
        paths: in the document. values: as they were fitted, SI, (P,). factors: relative change of each with each of K
        independent standard normal numbers, (P, K).
    """

    paths: tuple[str, ...]
    values: Array
    factors: Array

    @classmethod
    def of(cls, raw: Mapping[str, Any]) -> Together:
        """As it was kept."""
        return cls(
            tuple(raw["paths"]), np.array(raw["values"]), np.array(raw["factors"]).reshape(len(raw["paths"]), -1)
        )

    def drawn(self, inputs: Mapping[str, Value], quantiles: Array, random: np.random.Generator) -> dict[str, Array]:
        """Samples of those inputs that still stand as they were fitted, by path, (SAMPLES,) each."""
        columns = [random.permutation(quantiles) for _ in range(self.factors.shape[1])]
        if not columns:
            return {}
        varied = self.values[:, None] * (1.0 + self.factors @ np.stack(columns))
        rows = zip(self.paths, self.values, varied, strict=True)
        return {path: row for path, value, row in rows if path in inputs and _stands(inputs[path], value)}


def _stands(value: Value, fitted: float) -> bool:
    return value.origin == "measured" and abs(value.si - fitted) <= AS_FITTED * abs(fitted)


def sample(document: Document, *, assumed: bool = False, together: Together | None = None) -> Sample | None:
    """The design drawn `SAMPLES` times from a fixed seed, None where nothing is uncertain.

    Normal distributions by Latin hypercube: each input takes every quantile once, in an order of its own.

    Args:
        document: a design.
        assumed: whether assumed values count as uncertain where they do not say how much.
        together: inputs that vary together.
    """
    inputs = uncertain(document, assumed=assumed)
    if not inputs:
        return None
    quantiles = np.array([NormalDist().inv_cdf((i + 0.5) / SAMPLES) for i in range(SAMPLES)])
    random = np.random.default_rng(SEED)
    drawn = {path: v.si + v.uncertainty * random.permutation(quantiles) for path, v in inputs.items()}
    if together is not None:
        drawn |= together.drawn(inputs, quantiles, random)
    varied = np.stack([_inside(drawn[path], value) for path, value in inputs.items()], axis=1)
    places = [keys_of(path) for path in inputs]
    variants = [replaced(document.design, dict(zip(places, row, strict=True))) for row in varied.tolist()]
    batch = [document, *(Document(variant, {}, ()) for variant in variants)]
    return Sample(evaluate(batch), tuple(inputs), varied)


def _inside(varied: Array, value: Value) -> Array:
    above, least, most = value.bounds
    room = JUST_INSIDE * max(abs(value.si), 1.0)
    inside: Array = np.clip(varied, max(above + room, least), most)
    return inside


def replaced(node: Any, changes: dict[Keys, float]) -> Any:
    """A design, or a part of one, with values at paths replaced."""
    if () in changes:
        return changes[()]
    inner: dict[str | int, dict[Keys, float]] = {}
    for (head, *rest), value in changes.items():
        inner.setdefault(head, {})[tuple(rest)] = value
    if isinstance(node, tuple):
        return tuple(replaced(entry, inner[i]) if i in inner else entry for i, entry in enumerate(node))
    return dataclasses.replace(node, **{str(k): replaced(getattr(node, str(k)), sub) for k, sub in inner.items()})


def bands(drawn: Sample) -> Bands:
    """What a result document says of each number: low, high, spread_from; lists where the value is one."""
    evaluation = drawn.evaluation
    columns = range(len(evaluation.documents))
    by_measure: Bands = {}
    for name, row in MEASURES.items():
        if row.shape == "text":
            continue
        values = [measure(evaluation, name, index)["value"] for index in columns]
        if row.shape == "number":
            by_measure[name] = dataclasses.asdict(drawn.band(_numbers(values)))
            continue
        plain = [[entry["value"] if isinstance(entry, dict) else entry for entry in row] for row in values]
        each = [dataclasses.asdict(drawn.band(_numbers(column))) for column in zip(*plain, strict=True)]
        by_measure[name] = {key: [entry[key] for entry in each] for key in ("low", "high", "spread_from")}
    return by_measure


def _numbers(values: Iterable[float | None]) -> Array:
    return np.array([np.nan if value is None else value for value in values], dtype=float)


def gauge_bands(drawn: Sample, shown: Iterable[Target]) -> list[Band]:
    """The band of each target's measure, at the target's own distance, speed or time."""
    evaluation = drawn.evaluation
    indices = range(len(evaluation.documents))
    return [drawn.band(_numbers(evaluation.value_for(target, i) for i in indices)) for target in shown]
