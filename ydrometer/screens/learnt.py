"""What the runs of a vehicle show, in one answer: each against its prediction, what differs, and what was learnt."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from ydrometer.base.labels import labelled_fields
from ydrometer.base.reckoning import Floats
from ydrometer.document import design
from ydrometer.screens.learnt_shown import (
    CurveShown,
    DifferenceShown,
    Learnt,
    PointShown,
    ProposalShown,
    RunJudged,
    UnknownShown,
)
from ydrometer.trials import runs_file, scatter
from ydrometer.trials.calibrate import SILENT, Calibration
from ydrometer.trials.differences import Difference
from ydrometer.trials.fitted_design import FITTED, fitted_values, written
from ydrometer.trials.over_reduction import over_reduction
from ydrometer.trials.prediction import off_by
from ydrometer.trials.trial import Trial
from ydrometer.trials.tried import but_wheels, changed_since, essence, names, reduction
from ydrometer.trials.upcoming import Proposal, upcoming
from ydrometer.trials.words import correlation_words, told_words, unknown_words, why_left_out
from ydrometer.trials.written import typed


@dataclass(frozen=True, slots=True)
class KeptDesign:
    """A design that was run: its key, and the document."""

    key: str
    document: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class KeptRun:
    """A run as it is kept: its key, that of its design, and the run as in a runs file but for the design."""

    key: str
    design: str
    document: Mapping[str, Any]


def learnt(present: Mapping[str, Any], tried: Sequence[KeptDesign], runs: Sequence[KeptRun]) -> Learnt:
    """What the runs of a vehicle show.

    Args:
        present: its present design.
        tried: those that were run.
        runs: the oldest first.

    Raises:
        DocumentError: something of it cannot be read.
    """
    kept = _with_present(present, tried)
    called = names([design.read(one.document) for one in kept])
    by_key = {one.key: name for one, name in zip(kept, called, strict=True)}
    here = called[-1]
    designs = {name: one.document for one, name in zip(kept, called, strict=True)} | {here: present}
    file = runs_file.read({
        "format": runs_file.FORMAT, "version": runs_file.VERSION, "designs": designs, "ask": [here],
        "runs": [{**run.document, "design": by_key[run.design]} for run in runs],
    })  # fmt: skip
    return _Shown(Calibration(file), here, by_key, [run.key for run in runs]).learnt()


def _with_present(present: Mapping[str, Any], tried: Sequence[KeptDesign]) -> list[KeptDesign]:
    """The designs that were run, whatever else differs first, and the present one last, whether it was run or not."""
    same = [one for one in tried if essence(one.document) == essence(present)]
    others = [one for one in tried if one not in same]
    others.sort(key=lambda one: but_wheels(one.document) == but_wheels(present))
    return [*others, *(same or [KeptDesign("", present)])]


class _Shown:
    """A calibration, turned into what the station paints."""

    def __init__(self, made: Calibration, present: str, designs: dict[str, str], keys: list[str]) -> None:
        self.made, self.present, self.designs, self.keys = made, present, designs, keys
        self.changed = [self._changed(run) for run in made.runs]

    def learnt(self) -> Learnt:
        """The whole answer."""
        made = self.made
        judged = [self._run(k) for k in range(len(made.runs))]
        differences = sorted(map(self._difference, made.differences), key=lambda one: (one.stale, not one.real))
        curves = self._curves()
        own = [u for u, unknown in enumerate(made.chosen) if self.present in unknown.designs] if judged else []
        told = [self._unknown(u) for u in own]
        fitted = fitted_values(made, self.present)
        return Learnt(
            present=self.present,
            sentence=_sentence(curves, differences),
            designs=self.designs,
            runs=judged,
            unknowns=told,
            tied=[correlation_words(made.chosen[a], made.chosen[b]) for a, b, _ in made.correlations],
            differences=differences,
            next=[_proposal(one) for one in upcoming(made)],
            curves=curves,
            off=judged[-1].off if judged else None,
            values=written(made, fitted) if any(not one.silent for one in told) else {},
            together={"paths": list(fitted.paths), "values": fitted.values.tolist(),
                      "factors": fitted.together.tolist()},
            converged=made.fit.converged,
            chi_square=made.fit.chi_square,
            degrees=int(made.fit.data.takes_part.sum()),
        )  # fmt: skip

    def _changed(self, run: Trial) -> list[str]:
        return changed_since(run, self.made.designs[run.design], self.made.designs[self.present])

    def _run(self, k: int) -> RunJudged:
        made = self.made
        run, part = made.runs[k], bool(made.data.takes_part[k])
        mean, (low, high) = scatter.mean(run), made.linear_bands
        before = _number(made.before[k])
        return RunJudged(
            key=self.keys[k],
            design=run.design,
            words=run.words,
            dimension=run.dimension,
            readings=list(run.counted),
            mean=mean,
            before=before,
            after=_number(made.after[k]) if part else None,
            low=_number(low[k]) if part else None,
            high=_number(high[k]) if part else None,
            off=off_by(mean, before, float(made.model.zeros[k])),
            z=_number(made.fit.z[k]) if part else None,
            odd=k in made.fit.odd,
            why="" if part else why_left_out(made, k),
            stale=self.changed[k],
        )

    def _unknown(self, u: int) -> UnknownShown:
        unknown, factor = self.made.chosen[u], float(np.exp(self.made.fit.theta[u]))
        before, told = unknown.held.values[0], float(self.made.told[u])
        path = unknown.held.paths[0]
        return UnknownShown(
            name=unknown_words(unknown),
            path=path,
            dimension=unknown.kind.dimension,
            before=before,
            value=before * factor,
            factor=factor,
            prior=unknown.sigma,
            sd=float(np.sqrt(self.made.fit.covariance[u, u])),
            told=told,
            silent=told < SILENT,
            words=(self._carried(path) if told < SILENT else "") or told_words(told),
        )

    def _carried(self, path: str) -> str:
        """That the present design holds what earlier runs have told, where it does."""
        value = self.made.designs[self.present].values.get(path)
        return f"in the design already, {value.note}" if value is not None and value.note.startswith(FITTED) else ""

    def _difference(self, one: Difference) -> DifferenceShown:
        real = one.low * one.high > 0.0 and one.chance < LIKELY
        if real:
            settle = ""
        elif one.needed is None:
            settle = "the model predicts no difference"
        else:
            settle = f"{one.needed} repeats of each would show the predicted difference"
        ahead, behind = (one.a, one.b) if one.run.better * one.mean >= 0.0 else (one.b, one.a)
        stale = bool({one.a, one.b} & self._stale_designs)
        return DifferenceShown(one.run.words, ahead, behind, one.words, real, settle, stale)

    @cached_property
    def _stale_designs(self) -> set[str]:
        """Those of which a run has something else changed since."""
        return {run.design for run, changed in zip(self.made.runs, self.changed, strict=True) if changed}

    def _curves(self) -> list[CurveShown]:
        """One of each thing that was measured under the same conditions, the one with most gearings first."""
        groups: dict[tuple[Any, ...], list[int]] = {}
        for k, run in enumerate(self.made.runs):
            about = tuple(getattr(run, key) for key in run.about)
            if run.geared and self.made.data.takes_part[k]:
                groups.setdefault((run.kind, about, self.made.grounds[k], run.grade, run.payload), []).append(k)
        ordered = sorted(groups.values(), key=lambda places: -len({self.made.runs[k].design for k in places}))
        return [self._curve(places) for places in ordered]

    def _curve(self, places: list[int]) -> CurveShown:
        made, run = self.made, self.made.runs[places[-1]]
        designs: dict[str, list[int]] = {}
        for k in places:
            designs.setdefault(made.runs[k].design, []).append(k)
        points = [self._point(name, of) for name, of in designs.items()]
        reach = [reduction(made.designs[self.present].design), *(point.reduction for point in points)]
        curve = over_reduction(made, self.present, run, made.grounds[places[-1]], reach)
        known = np.isfinite(curve.after)
        best = curve.reduction[known][np.argmax(run.better * curve.after[known])] if known.any() else None
        inside = best is not None and curve.reduction[known][0] < best < curve.reduction[known][-1]
        return CurveShown(
            words=run.words,
            dimension=run.dimension,
            better=run.better,
            best=float(best) if best is not None and inside else None,
            reduction=curve.reduction.tolist(),
            before=_numbers(curve.before),
            after=_numbers(curve.after),
            low=_numbers(curve.low),
            high=_numbers(curve.high),
            points=sorted(points, key=lambda point: point.reduction),
        )

    def _point(self, name: str, places: list[int]) -> PointShown:
        counted = [k for k in places if k not in self.made.fit.odd and not self.changed[k]] or places
        readings = [value for k in counted for value in self.made.runs[k].counted]
        return PointShown(
            design=name,
            reduction=reduction(self.made.designs[name].design),
            mean=float(np.mean(readings)),
            spread=float(np.std(readings, ddof=1)) if len(readings) > 1 else 0.0,
            count=len(readings),
            runs=[self.keys[k] for k in counted],
            stale=any(self.changed[k] for k in counted),
        )


def _sentence(curves: Sequence[CurveShown], differences: Sequence[DifferenceShown]) -> str:
    """Which gearing is best so far in what most of them were tried in, and which cannot be told from it."""
    tried = [(curve, [point for point in curve.points if not point.stale]) for curve in curves]
    curve, points = max(tried, key=lambda one: len(one[1]), default=(None, []))
    if curve is None or len(points) < SEVERAL:
        return ""
    best = max(points, key=lambda point: curve.better * point.mean).design
    mine = [one for one in differences if one.what == curve.words and not one.stale and best in {one.ahead, one.behind}]
    worse, open_ones = (
        [one.behind if best == one.ahead else one.ahead for one in mine if one.real == real] for real in (True, False)
    )
    if not worse:
        return f"{curve.words}: {best} may be best, but none is ahead of the others by more than chance yet"
    rest = f"; {_and(open_ones)} cannot be told from it yet" if open_ones else ""
    return f"{curve.words}: {best} is best so far, ahead of {_and(worse)}{rest}"


def _and(names: Sequence[str]) -> str:
    return " and ".join((", ".join(names[:-1]), names[-1])) if len(names) > 1 else names[0]


SEVERAL = 2
"""Gearings from which on one can be called best."""
LIKELY = 0.05
"""Chance from which on a difference is not told as real."""


def _proposal(one: Proposal) -> ProposalShown:
    run = one.run
    about = run.told_about
    raw: dict[str, Any] = {"kind": run.kind}
    for field in labelled_fields(type(run)):
        if field.key in about:
            value = about[field.key]
            raw[field.key] = typed(value, field.dimension, places=3) if field.dimension else value
    return ProposalShown(f"{run.words}, with {one.design}", one.design, raw, one.cuts)


def _number(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _numbers(values: Floats) -> list[float | None]:
    return [_number(value) for value in values]
