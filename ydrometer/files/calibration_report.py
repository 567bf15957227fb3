"""What `./ydro calibrate` prints: unknowns, runs before and after, differences, what is asked, what to measure next."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

import numpy as np

from ydrometer.trials import scatter
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.differences import Difference
from ydrometer.trials.fitted_design import fitted_design
from ydrometer.trials.runs_file import RunsFile
from ydrometer.trials.unknowns import Unknown
from ydrometer.trials.upcoming import upcoming
from ydrometer.trials.words import correlation_words, told_words, why_left_out

FORMAT = "ydrometer-calibration"


def report(file: RunsFile) -> dict[str, Any]:
    """The answer as JSON; SI but for turns, which are in rpm.

    Args:
        file: as read.
    """
    return report_of(Calibration(file))


def report_of(calibration: Calibration) -> dict[str, Any]:
    """The same of a file that is worked out already."""
    return {
        "format": FORMAT,
        "version": 1,
        "converged": calibration.fit.converged,
        "chi_square": calibration.fit.chi_square,
        "degrees": int(calibration.fit.data.takes_part.sum()),
        "steps": calibration.fit.steps,
        "unknowns": [_unknown(calibration, u) for u in range(len(calibration.chosen))],
        "correlations": [_correlation(calibration, *pair) for pair in calibration.correlations],
        "runs": [_run(calibration, k) for k in range(len(calibration.runs))],
        "differences": [_difference(difference) for difference in calibration.differences],
        "designs": {name: fitted_design(calibration, name) for name in calibration.designs},
        "ask": _ask(calibration),
        "next": [
            {"kind": proposal.run.kind, "design": proposal.design, "cuts": proposal.cuts, **_about(proposal.run)}
            for proposal in upcoming(calibration)
        ],
    }


def _about(run: Any) -> Mapping[str, Any]:
    """What a proposed measurement is of, by the keys of the runs file."""
    return {key: value for key, value in run.told_about.items() if key != "day"}


def _place(unknown: Unknown) -> dict[str, Any]:
    where: dict[str, Any] = {}
    if unknown.ground:
        where["ground"] = unknown.ground
    if unknown.branch is not None:
        where["branch"] = unknown.branch
    return where


def _unknown(calibration: Calibration, u: int) -> dict[str, Any]:
    unknown, factor = calibration.chosen[u], float(np.exp(calibration.fit.theta[u]))
    losses = unknown.kind.name == "losses"
    after = [1.0 - (1.0 - v) * factor if losses else v * factor for v in unknown.held.values]
    share = float(calibration.informed[u])
    return {
        "name": unknown.kind.name,
        **_place(unknown),
        "designs": list(unknown.designs),
        "paths": list(unknown.held.paths),
        "before": _one(list(unknown.held.values)),
        "factor": factor,
        "sd": float(np.sqrt(calibration.fit.covariance[u, u])),
        "told": share,
        "value": _one(after),
        "words": told_words(share),
    }


def _one(values: list[float]) -> Any:
    return values[0] if len(values) == 1 else values


def _correlation(calibration: Calibration, a: int, b: int, value: float) -> dict[str, Any]:
    first, second = calibration.chosen[a], calibration.chosen[b]
    return {"a": first.kind.name, "b": second.kind.name, "value": value, "words": correlation_words(first, second)}


def _run(calibration: Calibration, k: int) -> dict[str, Any]:
    run = calibration.runs[k]
    scale, part = run.per_si, bool(calibration.data.takes_part[k])
    low, high = calibration.bands
    about: dict[str, Any] = {
        "run": k,
        "kind": run.kind,
        "design": run.design,
        "measured": scatter.mean(run) * scale,
        "before": _number(calibration.before[k] * scale),
        "after": _number(calibration.after[k] * scale) if part else None,
        "low": _number(low[k] * scale) if part else None,
        "high": _number(high[k] * scale) if part else None,
        "z": _number(calibration.fit.z[k]) if part else None,
        "odd": k in calibration.fit.odd,
        "unit": run.unit,
    }
    return about if part else {**about, "why": why_left_out(calibration, k)}


def _number(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _difference(difference: Difference) -> dict[str, Any]:
    scale = difference.run.per_si
    return {
        "kind": difference.run.kind,
        "a": difference.a,
        "b": difference.b,
        "mean": difference.mean * scale,
        "low": difference.low * scale,
        "high": difference.high * scale,
        "chance": difference.chance,
        "needed": difference.needed,
        "words": difference.words,
    }


def _ask(calibration: Calibration) -> dict[str, Any]:
    several = [question.design for question, _ in calibration.predictions]
    answers: dict[str, Any] = {
        question.design if several.count(question.design) == 1 else f"{question.design} on {ground}": {}
        for question, ground in calibration.predictions
    }
    for k, (question, answer) in enumerate(zip(calibration.questions, calibration.answers, strict=True)):
        name = question.design if question.design in answers else f"{question.design} on {question.ground}"
        answers[name][calibration.measure_of(k).name] = {
            "value": _number(answer.value),
            "low": _number(answer.low),
            "high": _number(answer.high),
        }
    return answers
