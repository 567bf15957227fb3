"""Which gearings to try how often, and in which order: so that a drift does not look like a gear."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError
from ydrometer.base.seen import Reading, shown
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.trials.runs_file import read_run
from ydrometer.trials.trial import Trial

FORMAT, VERSION = "ydrometer-plan", 1
MOST_GEARINGS, MOST_MEASURES, MOST_ROUNDS, MOST_READINGS = 12, 6, 20, 20
USUAL_SWAP_S = 360.0
"""That changing a pinion takes, where nobody says."""
SEED = 20_261_129


@dataclass(frozen=True, slots=True, kw_only=True)
class _Body:
    """The plan but for its gearings and measures, which are read each on its own."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(VERSION, VERSION)
    rounds: int = reading.whole(1, MOST_ROUNDS, default=3)
    readings: int = reading.whole(1, MOST_READINGS, default=3)
    seldom: bool = reading.flag()
    swap: float = reading.quantity("time", at_least=0.0, at_most=86_400.0, default=USUAL_SWAP_S)


@dataclass(frozen=True, slots=True)
class Gearing:
    """A design that is to be tried, and what it is called."""

    name: str
    document: Document
    raw: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class RunPlan:
    """What is to be tried.

    Attributes:
        gearings: at least one. measures: the runs but for their readings, by gearing and kind. raw: the same as typed.
        rounds: how often each gearing comes. readings: of each run. seldom: whether it is swapped as seldom as can be.
        swap: s that it takes. done: ids of the runs of steps that are done, by the step's key.
    """

    gearings: tuple[Gearing, ...]
    measures: tuple[tuple[Trial, ...], ...]
    raw: tuple[Mapping[str, Any], ...]
    rounds: int
    readings: int
    seldom: bool
    swap: float
    done: Mapping[str, str]


APART = {"gearings", "measures", "done"}


def read(raw: Any) -> RunPlan:
    """Read a plan from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
    seen = Reading()
    if not isinstance(raw, Mapping):
        seen.fault("", f"{shown(raw)} given", "give one plan")
        seen.refuse()
    body = reading.read_object(_Body, {k: v for k, v in raw.items() if k not in APART}, "", seen)
    gearings = [
        _gearing(raw_gearing, f"gearings[{k}]", seen)
        for k, raw_gearing in _listed(raw, "gearings", MOST_GEARINGS, seen)
    ]
    wanted = [raw_measure for _, raw_measure in _listed(raw, "measures", MOST_MEASURES, seen)]
    measures = [
        [_measure(raw_measure, f"measures[{k}]", gearing, seen) for k, raw_measure in enumerate(wanted)]
        for gearing in gearings
        if gearing is not None
    ]
    done = raw.get("done", {})
    if not isinstance(done, Mapping) or not all(isinstance(order, str) for order in done.values()):
        seen.fault("done", f"{shown(done)} given", "give the ids of runs by the keys of steps")
    seen.refuse()
    return RunPlan(
        tuple(gearing for gearing in gearings if gearing),
        tuple(tuple(m for m in row if m) for row in measures),
        tuple(wanted),
        body.rounds,
        body.readings,
        body.seldom,
        body.swap,
        done,
    )


def _listed(raw: Mapping[str, Any], key: str, most: int, seen: Reading) -> list[tuple[int, Any]]:
    entries = raw.get(key)
    if not isinstance(entries, list | tuple) or not 1 <= len(entries) <= most:
        seen.fault(key, f"{shown(entries)} given", f"give 1 to {most}")
        return []
    return list(enumerate(entries))


def _gearing(raw: Any, path: str, seen: Reading) -> Gearing | None:
    name, own = (raw.get("name"), raw.get("design", {})) if isinstance(raw, Mapping) else (None, {})
    if not isinstance(name, str) or not 0 < len(name) <= 200:
        seen.fault(f"{path}.name", f"{shown(name)} given", "give the gearing a name")
        return None
    try:
        return Gearing(name, design.read(own), own)
    except DocumentError as error:
        seen.take(error, f"{path}.design")
        return None


def _measure(raw: Any, path: str, gearing: Gearing, seen: Reading) -> Trial | None:
    """A kind of run of a gearing, with a reading in the place of those to come."""
    try:
        return read_run({**raw, "readings": [1.0]} if isinstance(raw, Mapping) else raw, gearing.raw)
    except DocumentError as error:
        seen.take(error, path)
        return None


def dealt(count: int, rounds: int, *, seldom: bool) -> list[int]:
    """Gearings in the order in which they are tried.

    Each comes once a round, in a mixed order inside the round, and never twice in a row where that can be helped; or
    all rounds of one before the next.

    Args:
        count: of gearings.
        rounds: how often each comes.
        seldom: whether to swap as seldom as possible.
    """
    if seldom:
        return [gearing for gearing in range(count) for _ in range(rounds)]
    random = np.random.default_rng([SEED, count, rounds])
    order: list[int] = []
    for _ in range(rounds):
        mixed = random.permutation(count).tolist()
        if order and count > 1 and mixed[0] == order[-1]:
            mixed.append(mixed.pop(0))
        order += mixed
    return order


def looks_like(order: Sequence[int]) -> float:
    """Share of a steady drift from the first trial to the last that looks like a difference between two gearings.

    Args:
        order: as dealt, two trials or more.
    """
    places = np.arange(len(order)) / max(1, len(order) - 1)
    means = [places[np.array(order) == gearing].mean() for gearing in sorted(set(order))]
    return float(max(means) - min(means)) if len(means) > 1 else 0.0
