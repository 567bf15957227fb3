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
    called = names([design.read(tested.document) for tested in kept])
    by_key = {tested.key: name for tested, name in zip(kept, called, strict=True)}
    here = called[-1]
    designs = {name: tested.document for tested, name in zip(kept, called, strict=True)} | {here: present}
    file = runs_file.read(
        {
            "format": runs_file.FORMAT,
            "version": runs_file.VERSION,
            "designs": designs,
            "ask": [here],
            "runs": [{**run.document, "design": by_key[run.design]} for run in runs],
        }
    )
    return _Shown(Calibration(file), here, by_key, [run.key for run in runs]).learnt()


def _with_present(present: Mapping[str, Any], tried: Sequence[KeptDesign]) -> list[KeptDesign]:
    """The designs that were run, whatever else differs first, and the present one last, whether it was run or not."""
    same = [tested for tested in tried if essence(tested.document) == essence(present)]
    others = [tested for tested in tried if tested not in same]
    others.sort(key=lambda tested: but_wheels(tested.document) == but_wheels(present))
    return [*others, *(same or [KeptDesign("", present)])]


class _Shown:
    """A calibration, turned into what the station paints."""

    def __init__(self, calibration: Calibration, present: str, designs: dict[str, str], keys: list[str]) -> None:
        self.made, self.present, self.designs, self.keys = calibration, present, designs, keys
        self.changed = [self._changed(run) for run in calibration.runs]

    def learnt(self) -> Learnt:
        """The whole answer."""
        calibration = self.made
        judged = [self._run(k) for k in range(len(calibration.runs))]
        differences = sorted(
            map(self._difference, calibration.differences),
            key=lambda difference: (difference.stale, not difference.real),
        )
        curves = self._curves()
        own = [u for u, unknown in enumerate(calibration.chosen) if self.present in unknown.designs] if judged else []
        shown = [self._unknown(u) for u in own]
        fitted = fitted_values(calibration, self.present)
        return Learnt(
            present=self.present,
            sentence=_sentence(curves, differences),
            designs=self.designs,
            runs=judged,
            unknowns=shown,
            tied=[
                correlation_words(calibration.chosen[a], calibration.chosen[b]) for a, b, _ in calibration.correlations
            ],
            differences=differences,
            next=[_proposal(proposal) for proposal in upcoming(calibration)],
            curves=curves,
            off=judged[-1].off if judged else None,
            values=written(calibration, fitted) if any(not unknown.silent for unknown in shown) else {},
            together={
                "paths": list(fitted.paths),
                "values": fitted.values.tolist(),
                "factors": fitted.together.tolist(),
            },
            converged=calibration.fit.converged,
            chi_square=calibration.fit.chi_square,
            degrees=int(calibration.fit.data.takes_part.sum()),
        )

    def _changed(self, run: Trial) -> list[str]:
        return changed_since(run, self.made.designs[run.design], self.made.designs[self.present])

    def _run(self, k: int) -> RunJudged:
        calibration = self.made
        run, part = calibration.runs[k], bool(calibration.data.takes_part[k])
        mean, (low, high) = scatter.mean(run), calibration.linear_bands
        before = _number(calibration.before[k])
        return RunJudged(
            key=self.keys[k],
            design=run.design,
            words=run.words,
            dimension=run.dimension,
            readings=list(run.counted),
            mean=mean,
            before=before,
            after=_number(calibration.after[k]) if part else None,
            low=_number(low[k]) if part else None,
            high=_number(high[k]) if part else None,
            off=off_by(mean, before, float(calibration.model.zeros[k])) if run.counted else None,
            z=_number(calibration.fit.z[k]) if part else None,
            odd=k in calibration.fit.odd,
            why="" if part else why_left_out(calibration, k),
            stale=self.changed[k],
        )

    def _unknown(self, u: int) -> UnknownShown:
        unknown, factor = self.made.chosen[u], float(np.exp(self.made.fit.theta[u]))
        before, share = unknown.held.values[0], float(self.made.informed[u])
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
            told=share,
            silent=share < SILENT,
            words=(self._carried(path) if share < SILENT else "") or told_words(share),
        )

    def _carried(self, path: str) -> str:
        """That the present design holds what earlier runs have told, where it does."""
        value = self.made.designs[self.present].values.get(path)
        return f"in the design already, {value.note}" if value is not None and value.note.startswith(FITTED) else ""

    def _difference(self, difference: Difference) -> DifferenceShown:
        real = difference.low * difference.high > 0.0 and difference.chance < LIKELY
        if real:
            settle = ""
        elif difference.needed is None:
            settle = "the model predicts no difference"
        else:
            settle = f"{difference.needed} repeats of each would show the predicted difference"
        ahead, behind = (
            (difference.a, difference.b)
            if difference.run.better * difference.mean >= 0.0
            else (difference.b, difference.a)
        )
        stale = bool({difference.a, difference.b} & self._stale_designs)
        return DifferenceShown(difference.run.words, ahead, behind, difference.words, real, settle, stale)

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
        calibration, run = self.made, self.made.runs[places[-1]]
        designs: dict[str, list[int]] = {}
        for k in places:
            designs.setdefault(calibration.runs[k].design, []).append(k)
        points = [self._point(name, of) for name, of in designs.items()]
        reach = [reduction(calibration.designs[self.present].design), *(point.reduction for point in points)]
        curve = over_reduction(calibration, self.present, run, calibration.grounds[places[-1]], reach)
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
    curve, points = max(tried, key=lambda point: len(point[1]), default=(None, []))
    if curve is None or len(points) < SEVERAL:
        return ""
    best = max(points, key=lambda point: curve.better * point.mean).design
    mine = [
        difference
        for difference in differences
        if difference.what == curve.words and not difference.stale and best in {difference.ahead, difference.behind}
    ]
    worse, open_ones = (
        [
            difference.behind if best == difference.ahead else difference.ahead
            for difference in mine
            if difference.real == real
        ]
        for real in (True, False)
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


def _proposal(proposal: Proposal) -> ProposalShown:
    run = proposal.run
    about = run.told_about
    raw: dict[str, Any] = {"kind": run.kind}
    for field in labelled_fields(type(run)):
        if field.key in about:
            value = about[field.key]
            raw[field.key] = typed(value, field.dimension, places=3) if field.dimension else value
    return ProposalShown(f"{run.words}, with {proposal.design}", proposal.design, raw, proposal.cuts)


def _number(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _numbers(values: Floats) -> list[float | None]:
    return [_number(value) for value in values]
