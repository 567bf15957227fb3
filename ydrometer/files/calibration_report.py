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


def report_of(made: Calibration) -> dict[str, Any]:
    """The same of a file that is worked out already."""
    return {
        "format": FORMAT,
        "version": 1,
        "converged": made.fit.converged,
        "chi_square": made.fit.chi_square,
        "degrees": int(made.fit.data.takes_part.sum()),
        "steps": made.fit.steps,
        "unknowns": [_unknown(made, u) for u in range(len(made.chosen))],
        "correlations": [_correlation(made, *pair) for pair in made.correlations],
        "runs": [_run(made, k) for k in range(len(made.runs))],
        "differences": [_difference(one) for one in made.differences],
        "designs": {name: fitted_design(made, name) for name in made.designs},
        "ask": _ask(made),
        "next": [
            {"kind": one.run.kind, "design": one.design, "cuts": one.cuts, **_about(one.run)} for one in upcoming(made)
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


def _unknown(made: Calibration, u: int) -> dict[str, Any]:
    unknown, factor = made.chosen[u], float(np.exp(made.fit.theta[u]))
    losses = unknown.kind.name == "losses"
    after = [1.0 - (1.0 - v) * factor if losses else v * factor for v in unknown.held.values]
    told = float(made.told[u])
    return {
        "name": unknown.kind.name,
        **_place(unknown),
        "designs": list(unknown.designs),
        "paths": list(unknown.held.paths),
        "before": _one(list(unknown.held.values)),
        "factor": factor,
        "sd": float(np.sqrt(made.fit.covariance[u, u])),
        "told": told,
        "value": _one(after),
        "words": told_words(told),
    }


def _one(values: list[float]) -> Any:
    return values[0] if len(values) == 1 else values


def _correlation(made: Calibration, a: int, b: int, value: float) -> dict[str, Any]:
    one, other = made.chosen[a], made.chosen[b]
    return {"a": one.kind.name, "b": other.kind.name, "value": value, "words": correlation_words(one, other)}


def _run(made: Calibration, k: int) -> dict[str, Any]:
    run = made.runs[k]
    scale, part = run.per_si, bool(made.data.takes_part[k])
    low, high = made.bands
    told: dict[str, Any] = {
        "run": k,
        "kind": run.kind,
        "design": run.design,
        "measured": scatter.mean(run) * scale,
        "before": _number(made.before[k] * scale),
        "after": _number(made.after[k] * scale) if part else None,
        "low": _number(low[k] * scale) if part else None,
        "high": _number(high[k] * scale) if part else None,
        "z": _number(made.fit.z[k]) if part else None,
        "odd": k in made.fit.odd,
        "unit": run.unit,
    }
    return told if part else {**told, "why": why_left_out(made, k)}


def _number(value: float) -> float | None:
    return float(value) if math.isfinite(value) else None


def _difference(one: Difference) -> dict[str, Any]:
    scale = one.run.per_si
    return {
        "kind": one.run.kind, "a": one.a, "b": one.b, "mean": one.mean * scale, "low": one.low * scale,
        "high": one.high * scale, "chance": one.chance, "needed": one.needed, "words": one.words,
    }  # fmt: skip


def _ask(made: Calibration) -> dict[str, Any]:
    several = [one.design for one, _ in made.asked]
    told: dict[str, Any] = {one.design if several.count(one.design) == 1 else f"{one.design} on {ground}": {}
                            for one, ground in made.asked}  # fmt: skip
    for k, (question, answer) in enumerate(zip(made.questions, made.answers, strict=True)):
        name = question.design if question.design in told else f"{question.design} on {question.ground}"
        told[name][made.measure_of(k).name] = {
            "value": _number(answer.value), "low": _number(answer.low), "high": _number(answer.high),
        }  # fmt: skip
    return told
