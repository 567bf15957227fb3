"""A plan as the station shows it: its steps with what to expect, how long, how much charge, how warm."""

from __future__ import annotations

import copy
import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from ydrometer.base.paths import put
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.document.design import Document
from ydrometer.document.loads import Loads, Rest, Runs
from ydrometer.document.supply import Battery
from ydrometer.document.walk import stages_with_paths
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.fit.clashes import clashes
from ydrometer.fit.setting_up import set_ups
from ydrometer.loads.load_case import LoadCase
from ydrometer.motion import trace
from ydrometer.parts.fitting import fits
from ydrometer.trials.model import as_designed
from ydrometer.trials.plan import RunPlan, dealt, looks_like, read
from ydrometer.trials.trial import Trial
from ydrometer.trials.tried import essence, names

BRINGING_BACK_S = 45.0
"""Between two readings with the same gearing."""
A_PUSH_S = 3.0
"""That anything takes which is no run."""
MOST_SIZES = 12
"""Of one wheel that are offered."""


@dataclass(frozen=True, slots=True)
class PlanStep:
    """One run of the plan: its key, the round from 1, which gearing, whether that is put on for it and what changes
    then, what is measured in words and as a run without readings, what is predicted, SI, and whether it is done.
    """

    key: str
    round: int
    gearing: str
    swap: bool
    change: str
    words: str
    dimension: str
    run: dict[str, Any]
    predicted: float | None
    done: str


@dataclass(frozen=True, slots=True)
class Planned:
    """A plan worked out.

    Attributes:
        steps: in order. seconds: that all of it takes. charge: that it draws, A·s; share: of the battery; None where
        nobody can say. hottest: of the windings, K, with no more rest than swapping gives. limit. rest: s behind each
        run that keeps it under its limit; None where none is needed or nothing is known. drift: what order costs.
    """

    steps: list[PlanStep]
    seconds: float
    charge: float | None
    share: float | None
    hottest: float | None
    limit: float | None
    rest: float | None
    drift: str


def planned(raw: Any) -> Planned:
    """Work a plan out.

    Raises:
        DocumentError: it has faults.
    """
    plan = read(raw)
    order = dealt(len(plan.gearings), plan.rounds, seldom=plan.seldom)
    expected = [
        [_expected(gearing.document, run) for run in runs]
        for gearing, runs in zip(plan.gearings, plan.measures, strict=True)
    ]
    steps = list(_steps(plan, order, expected))
    each = [expectation for g in order for expectation in expected[g]]
    swaps = sum(step.swap for step in steps)
    readings = plan.readings * len(steps)
    seconds = plan.readings * sum(expected.seconds for expected in each)
    seconds += swaps * plan.swap + (readings - swaps) * BRINGING_BACK_S
    drawn = plan.readings * math.fsum(expected.charge for expected in each)
    charge = drawn if math.isfinite(drawn) else None
    supply = plan.gearings[0].document.design.drive.supply
    whole = supply.charge if isinstance(supply, Battery) else None
    hottest, limit, rest = _warmth(plan)
    return Planned(
        steps,
        seconds,
        charge,
        charge / whole if charge is not None and whole else None,
        hottest,
        limit,
        rest,
        _drift(plan),
    )


@dataclass(frozen=True, slots=True)
class _Expected:
    """What one reading of a run gives, SI, None where nothing is predicted; how long it takes, s; and what it draws,
    A·s, NaN where nobody can say.
    """

    predicted: float | None
    seconds: float
    charge: float


def _expected(document: Document, run: Trial) -> _Expected:
    value = float(as_designed(document, [(run, run.conditions)])[0][0])
    predicted = value if math.isfinite(value) else None
    timed = run.dimension == "time" and predicted is not None
    seconds = value if timed else A_PUSH_S
    return _Expected(predicted, seconds, _charge(document, run, seconds))


def _charge(document: Document, run: Trial, seconds: float) -> float:
    if not run.draws:
        return 0.0
    evaluation = evaluate([document])
    if not evaluation.starts(0):
        return math.nan
    if run.dimension != "time":
        return A_PUSH_S * float(evaluation.value("pushing_bus_current", 0) or math.nan)
    group, row = evaluation.group(0)
    points = trace.points(group.batch, row)
    if not len(points.time):
        return math.nan
    until = points.time <= seconds
    return float(np.trapezoid(points.bus_current[until], points.time[until]))


def _steps(plan: RunPlan, order: Sequence[int], expected: Sequence[Sequence[_Expected]]) -> Iterator[PlanStep]:
    essences = [essence(gearing.raw) for gearing in plan.gearings]
    before: int | None = None
    for place, g in enumerate(order):
        change = "" if before is None or before == g else "; ".join(changes(essences[before], essences[g]))
        for m, run in enumerate(plan.measures[g]):
            key = f"{place}.{m}"
            yield PlanStep(
                key=key,
                round=1 + sum(other == g for other in order[:place]),
                gearing=plan.gearings[g].name,
                swap=m == 0 and before != g,
                change=change if m == 0 else "",
                words=run.words,
                dimension=run.dimension,
                run=dict(plan.raw[m]),
                predicted=expected[g][m].predicted,
                done=plan.done.get(key, ""),
            )
        before = g


def _warmth(plan: RunPlan) -> tuple[float | None, float | None, float | None]:
    """The hottest winding of all gearings with its limit, and the rest that each needs; None where nothing is known."""
    warm = [hottest for gearing in plan.gearings for hottest in _of_gearing(plan, gearing.document)]
    if not warm:
        return None, None, None
    hottest, limit, rest = max(warm, key=lambda heat: heat[0] - heat[1])
    return hottest, limit, rest if hottest > limit else None


def _of_gearing(plan: RunPlan, document: Document) -> Iterator[tuple[float, float, float | None]]:
    """As if all rounds were made with one gearing, swapped as often as planned."""
    runs = Runs(count=plan.readings * len(plan.raw), every=BRINGING_BACK_S)
    day = Loads(day=(runs, Rest(lasts=max(plan.swap, 1.0))), heats=plan.rounds * len(plan.gearings))
    case = LoadCase(evaluate([Document(replace(document.design, loads=day), {}, ())]))
    if case.heats.left_out:
        return
    for b, motor in case.motors:
        if b in case.warmth:
            warmth = case.warmth[b]
            yield warmth.day.hottest_winding, case.limit(motor), warmth.rest_needed(case.limit(motor))


def _drift(plan: RunPlan) -> str:
    """What a drift would look like in the order that is chosen, and in the other one."""
    count = len(plan.gearings)
    if count < 2 or count * plan.rounds < 3:
        return ""
    mixed, seldom = (looks_like(dealt(count, plan.rounds, seldom=seldom)) for seldom in (False, True))
    if plan.seldom:
        own, other = seldom, f"mixed it would look like {mixed:.1f} %, with {count * plan.rounds} changes"
    else:
        own, other = mixed, f"swapped as seldom as possible like {seldom:.1f} %, with {count} changes"
    return f"a drift of 1 % from the first run to the last would look like {own:.1f} % between two gearings; {other}"


@dataclass(frozen=True, slots=True)
class GearingOffered:
    """A gearing that could be tried: its name, where it comes from, its design, and whether it goes on the plate."""

    name: str
    source: str
    design: Mapping[str, Any]
    mounts: bool


def offered(
    present: Mapping[str, Any],
    tried: Sequence[Mapping[str, Any]],
    kept: Sequence[Mapping[str, Any]],
    parts: Sequence[Mapping[str, Any]],
) -> list[GearingOffered]:
    """What could be tried: the present design, those that were run or kept, and the bin's wheels in place of a driver.

    Args:
        present: the design.
        tried: documents of the designs that were run.
        kept: documents of the revisions that have a name.
        parts: of the bin.
    """
    own = design.read(present)
    candidates = [
        ("as it is now", present),
        *(("run before", earlier) for earlier in tried),
        *(("kept", saved) for saved in kept),
    ]
    candidates += [("in the bin", other) for other in _other_drivers(present, own, parts)]
    once: list[tuple[str, Mapping[str, Any]]] = []
    known: list[dict[str, Any]] = []
    for source, candidate in candidates:
        if (of_it := essence(candidate)) not in known:
            known.append(of_it)
            once.append((source, candidate))
    read_ones = [design.read(candidate) for _, candidate in once]
    # Of the same wheels the last one has the plain name: that is to be the present one.
    called = names(read_ones[::-1])[::-1]
    clashing = _clashing(own)
    gearings = [
        GearingOffered(name, source, candidate, _clashing(document) <= clashing)
        for name, (source, candidate), document in zip(called, once, read_ones, strict=True)
    ]
    return sorted(gearings, key=lambda gearing: not gearing.mounts)


def _clashing(document: Document) -> int:
    """How many things clash on its plates; 0 of a design without one."""
    if document.design.fit is None:
        return 0
    return sum(clash.level == "clash" for setup in set_ups(document.design) for clash in clashes(setup))


def _other_drivers(
    present: Mapping[str, Any], document: Document, parts: Sequence[Mapping[str, Any]]
) -> Iterator[dict[str, Any]]:
    """The design with each other driver of the bin, in each of its stages with teeth."""
    for path, stage in stages_with_paths(document.design):
        if stage.exact_ratio is None or not stage.members:
            continue
        driver = stage.members[0]
        sizes = sorted({int(fit.size) for fit in fits(stage, parts) if fit.owned} - {int(driver.measure)})
        near = sorted(sizes, key=lambda size: abs(size - driver.measure))[:MOST_SIZES]
        for size in sorted(near):
            changed = copy.deepcopy(dict(present))
            put(changed, f"{path}.{driver.key}", size)
            yield changed
