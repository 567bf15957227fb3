"""The day as Loads draws it: how warm motors get, with the doubt about it, and what flows."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import partial
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.loads import USUAL_DAY, Phase, Runs
from ydrometer.document.supply import Battery
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads import heat
from ydrometer.loads.day import Stretch, root_mean_square
from ydrometer.loads.electrical import current_of
from ydrometer.loads.load_case import LoadCase, Warmth

MOST_POINTS = 1200
"""Of a curve of current."""
WARM_POINTS = 400
"""Of a curve of temperature, at most."""
A_STEP = 1e-6
"""s that a step of a current takes in its curve, so that no two points lie at one time."""
A_STRETCH = 16
"""Points of a stretch that is drawn once."""


@dataclass(frozen=True, slots=True)
class PhaseShown:
    """A phase of the day: what is done, how often, for or every how long, s, and how long all of it lasts, s."""

    do: Literal["runs", "cruise", "shove", "turns", "rest"]
    count: int
    seconds: float
    lasts: float


@dataclass(frozen=True, slots=True)
class HeatShown:
    """How warm one motor of a branch gets: K, s. Curves are time, s, and temperature, K.

    Attributes:
        branch, title, nodes. limit: of the winding. hottest, at: of the winding. moving_air: the same in moving air.
        shove_until_limit, rest_needed: see `loads.heat`. winding, case, air: curves, the last one of the winding in
        moving air. band: time, and the winding if it warms less and more than said. doubt: by which share.
    """

    branch: int
    title: str
    nodes: int
    limit: float
    hottest: float
    at: float
    moving_air: float
    shove_until_limit: float | None
    rest_needed: float | None
    winding: list[list[float]]
    case: list[list[float]]
    air: list[list[float]]
    band: list[list[float]]
    doubt: float


@dataclass(frozen=True, slots=True)
class Rating:
    """What a part is rated for, A, and in words whose rating it is."""

    words: str
    value: float


@dataclass(frozen=True, slots=True)
class CurrentShown:
    """A current over one heat, A: time, s, and current; its root mean square, and the ratings that are known."""

    title: str
    points: list[list[float]]
    mean: float
    ratings: list[Rating]


@dataclass(frozen=True, slots=True)
class DayShown:
    """The day: how warm each branch of motors gets of which enough is known, and currents over one heat."""

    heat: list[HeatShown]
    currents: list[CurrentShown]


def day_shown(document: Document) -> DayShown:
    """The day of one design, drawn apart from its parts: they are wanted first.

    Args:
        document: as read.
    """
    case = LoadCase(evaluate([document]))
    return DayShown([_heat_shown(case, warmth) for warmth in case.warmth.values()], list(_currents_shown(case)))


def phases_shown(phases: tuple[Phase, ...]) -> list[PhaseShown]:
    """The phases of a day, or of the usual one where there are none."""
    return [
        PhaseShown("runs", phase.count, phase.every, phase.count * phase.every)
        if isinstance(phase, Runs)
        else PhaseShown(phase.do, 1, phase.lasts, phase.lasts)  # type: ignore[arg-type]  # a class variable of a kind
        for phase in phases or USUAL_DAY
    ]


def _heat_shown(case: LoadCase, warmth: Warmth) -> HeatShown:
    """How warm a motor gets, with its doubt."""
    source = dict(case.motors)[warmth.branch]
    kept = _kept(warmth.day.curve)
    curve = warmth.day.curve[kept]
    doubt = heat.DOUBT[warmth.day.nodes]

    def again(**other: Any) -> list[float]:
        """The winding with other figures."""
        network = heat.network(source, case.design.conditions.ambient, **other)
        assert network is not None  # the caller knows how warm it gets
        blocks = heat.gone_through(heat.HeatDay(network, case.blocks[warmth.branch]), case.heats.count)
        return blocks.curve[kept, 1].tolist()  # type: ignore[no-any-return]  # of an array of floats

    times = curve[:, 0].tolist()
    return HeatShown(
        branch=warmth.branch,
        title=_of_branch(case, "motor", warmth.branch),
        nodes=warmth.day.nodes,
        limit=case.limit(source),
        hottest=warmth.day.hottest_winding,
        at=warmth.day.at,
        moving_air=warmth.in_moving_air[0],
        shove_until_limit=case.shove_until_limit(warmth),
        rest_needed=case.rest_needed(warmth),
        winding=curve[:, [0, 1]].tolist(),
        case=curve[:, [0, 2]].tolist(),
        air=_rows(times, again(moving_air=True)),
        band=_rows(times, again(hotter=-doubt), again(hotter=doubt)),
        doubt=doubt,
    )


def _rows(*columns: list[float]) -> list[list[float]]:
    return [list(row) for row in zip(*columns, strict=True)]


def _kept(curve: Floats) -> NDArray[np.intp]:
    """Places of as many rows as a chart shows, the hottest one among them."""
    even = np.linspace(0, len(curve) - 1, min(len(curve), WARM_POINTS)).round().astype(int)
    return np.union1d(even, np.argmax(curve[:, 1]))


def _currents_shown(case: LoadCase) -> Iterator[CurrentShown]:
    """Currents of one motor a branch and of the supply, over one heat."""
    for b, motor in case.motors:
        ratings = [*_rated("motor", motor), *_rated("controller", case.design.drive.branches[b].controller)]
        yield _current(case, _of_branch(case, "one motor", b), partial(current_of, b), ratings)
    supply = case.design.drive.supply
    if isinstance(supply, Battery):
        yield _current(case, "battery", lambda stretch: stretch.bus, list(_rated("battery", supply)))


RATINGS = {"peak_current": "for a moment", "continuous_current": "for long"}


def _rated(noun: str, part: object) -> Iterator[Rating]:
    for key, words in RATINGS.items():
        value = getattr(part, key, None)
        if value is not None:
            yield Rating(f"{noun} {words}", value)


def _current(case: LoadCase, title: str, of: Callable[[Stretch], Floats], ratings: list[Rating]) -> CurrentShown:
    return CurrentShown(title, _points(case, of), root_mean_square(case.heats, of), ratings)


def _points(case: LoadCase, of: Callable[[Stretch], Floats]) -> list[list[float]]:
    """One heat, thinned to what a chart shows."""
    points, begun = [[0.0, 0.0]], 0.0
    times = sum(stretch.count for stretch in case.heats.stretches)
    each = max(4, min(A_STRETCH, MOST_POINTS // times))
    for stretch in case.heats.stretches:
        kept = np.unique(np.linspace(0, len(stretch.time) - 1, each).round().astype(int))
        current = of(stretch)[kept]
        for _ in range(stretch.count):
            if len(kept) > 1 and len(points) < MOST_POINTS:
                times = begun + stretch.time[kept]
                start, end = float(times[0]), float(times[-1])
                times[0], times[-1] = start + A_STEP, end - A_STEP
                points += [[start, 0.0], *np.column_stack([times, current]).tolist(), [end, 0.0]]
            begun += stretch.seconds
    return [*points, [begun, 0.0]]


def _of_branch(case: LoadCase, noun: str, b: int) -> str:
    return noun if len(case.design.drive.branches) == 1 else f"{noun} of branch {b + 1}"
