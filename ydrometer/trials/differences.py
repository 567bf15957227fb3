"""Which difference between two designs is real: its interval, and how often chance alone makes as large a one."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import stats

from ydrometer.base.reckoning import Floats
from ydrometer.trials.trial import Trial

CONFIDENCE = 0.95
MOST_WAYS = 200_000
"""Ways to deal readings into two heaps that are all gone through; else some are drawn."""
DRAWN, SEED = 100_000, 20_261_129
BLOCK = 2_000_000
"""Readings that are dealt at once."""
FEW = 48
"""Readings up to which what was dealt is kept."""
SAME = 1e-9
"""Differences are equal within this share of the largest reading."""
SAME_VOLTAGE = 0.02
POWER = 1.960 + 1.282
"""Quantiles of the normal distribution for 95 % on two sides and 90 % on one."""
LEAST_REPEATS = 4


@dataclass(frozen=True, slots=True)
class Heap:
    """All readings of one design that may be compared with those of another one, SI, and the voltages at rest."""

    design: str
    readings: tuple[float, ...]
    voltages: tuple[float, ...]
    runs: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Difference:
    """How two designs differ in what was measured, SI.

    Attributes:
        run: one of the first design's, which says what was measured. a, b: names. mean: of a less that of b.
        low, high: its 95 % interval. chance: share of all ways to deal the readings in which the means differ as much.
        needed: repeats of each that would show the predicted difference; None where none is predicted. words.
    """

    run: Trial
    a: str
    b: str
    mean: float
    low: float
    high: float
    chance: float
    needed: int | None
    words: str


def compared(
    runs: Sequence[Trial],
    grounds: Sequence[str],
    voltages: Sequence[float | None],
    predicted: Floats,
    scatter: dict[str, float],
) -> list[Difference]:
    """Every two designs of which the same was measured under the same conditions, two readings or more each.

    Args:
        runs: all of them.
        grounds: of each.
        voltages: at rest of each, V; None where it has none.
        predicted: of each by the fitted model, SI.
        scatter: of one reading by kind.
    """
    groups: dict[tuple[Any, ...], dict[str, list[int]]] = {}
    for k, run in enumerate(runs):
        groups.setdefault(_alike(run, grounds[k]), {}).setdefault(run.design, []).append(k)
    differences = []
    for heaps in groups.values():
        every_heap = [_heap(runs, voltages, design, places) for design, places in heaps.items()]
        for a, b in combinations(every_heap, 2):
            if len(a.readings) > 1 and len(b.readings) > 1 and _same_voltage(a, b):
                differences.append(_difference(runs, a, b, predicted, scatter))
    return differences


def _alike(run: Trial, ground: str) -> tuple[Any, ...]:
    """What has to be the same for two runs to be compared."""
    about = tuple(getattr(run, key, None) for key in run.about)
    return (run.kind, about, ground, run.grade, run.payload, run.mass, run.supply, run.air_density, run.ambient)


def _heap(runs: Sequence[Trial], voltages: Sequence[float | None], design: str, places: list[int]) -> Heap:
    readings = tuple(value for k in places for value in runs[k].counted)
    known = tuple(v for k in places if (v := voltages[k]) is not None)
    return Heap(design, readings, known, tuple(places))


def _same_voltage(a: Heap, b: Heap) -> bool:
    both = (*a.voltages, *b.voltages)
    return not both or max(both) <= (1.0 + SAME_VOLTAGE) * min(both)


def _difference(runs: Sequence[Trial], a: Heap, b: Heap, predicted: Floats, scatter: dict[str, float]) -> Difference:
    run, first, second = runs[a.runs[0]], np.array(a.readings), np.array(b.readings)
    mean = float(first.mean() - second.mean())
    low = high = mean
    if np.ptp(first) > 0.0 or np.ptp(second) > 0.0:
        interval = stats.ttest_ind(first, second, equal_var=False).confidence_interval(CONFIDENCE)
        low, high = float(interval.low), float(interval.high)
    chance = by_chance(first, second)
    needed = repeats_needed(predicted[a.runs[0]], predicted[b.runs[0]], scatter[run.kind])
    return Difference(
        run, a.design, b.design, mean, low, high, chance, needed, _words(run, a, b, mean, low, high, chance)
    )


def by_chance(first: Floats, second: Floats) -> float:
    """Share of all ways to deal the readings into two heaps of the same sizes in which the means differ, in either
    direction, by at least as much (permutation test: Good, Permutation, Parametric and Bootstrap Tests of Hypotheses,
    chapter Testing hypotheses).
    """
    readings = np.concatenate([first, second])
    n, m, total = len(readings), len(first), float(readings.sum())
    most = abs(float(first.mean() - second.mean())) - SAME * float(np.abs(readings).max())
    sums = _every_way(readings, m) if math.comb(n, m) <= MOST_WAYS else _some_ways(readings, m)
    means = np.abs(sums / m - (total - sums) / (n - m))
    return float((means >= most).mean())


def _every_way(readings: Floats, m: int) -> Floats:
    """Sums of all heaps of m readings."""
    few = min(m, len(readings) - m)
    # by_size[j] holds the sums of all heaps of j of the readings gone through so far.
    by_size = [np.zeros(1), *(np.empty(0) for _ in range(few))]
    for reading in readings:
        for j in range(few, 0, -1):
            by_size[j] = np.concatenate([by_size[j], by_size[j - 1] + reading])
    return by_size[few] if few == m else readings.sum() - by_size[few]


def _some_ways(readings: Floats, m: int) -> Floats:
    """Sums of heaps of m readings that are drawn."""
    n = len(readings)
    if n <= FEW:
        sums: Floats = readings[_drawn(n, m)].sum(axis=1)
        return sums
    random, at_once = np.random.default_rng(SEED), max(1, BLOCK // n)
    counts = [min(at_once, DRAWN - done) for done in range(0, DRAWN, at_once)]
    return np.concatenate(
        [random.permuted(np.tile(readings, (count, 1)), axis=1)[:, :m].sum(axis=1) for count in counts]
    )


@lru_cache(maxsize=4)
def _drawn(n: int, m: int) -> NDArray[np.uint8]:
    """Places of the m readings out of n in each heap that is drawn, (DRAWN, m); kept: other pairs ask for the same."""
    places = np.tile(np.arange(n, dtype=np.uint8), (DRAWN, 1))
    return np.random.default_rng(SEED).permuted(places, axis=1)[:, :m].copy()


def repeats_needed(first: float, second: float, scatter: float) -> int | None:
    """Runs of each of two designs that would show their difference, 95 % on two sides with 90 % power (Snedecor and
    Cochran, Statistical Methods, section How many replicates); at least `LEAST_REPEATS`, None of none.

    Args:
        first, second: what is predicted for each.
        scatter: of a single run, relative.
    """
    apart = abs(first - second)
    if not math.isfinite(apart) or apart <= SAME * abs(first):
        return None
    sigma = scatter * 0.5 * (abs(first) + abs(second))
    return max(LEAST_REPEATS, math.ceil(2.0 * (POWER * sigma / apart) ** 2) + 1)


COMPARED = {
    "spin": ("turns", "faster in the air"),
    "distance_time": ("is", "faster"),
    "speed_time": ("is", "faster"),
    "top_speed": ("is", "faster at the top"),
    "speed_at": ("is", "faster"),
    "push": ("pushes", "harder"),
    "tow": ("rolls", "easier"),
    "coast": ("slows down", "sooner"),
    "stop": ("stops", "shorter"),
    "supply_current": ("draws", "less from the supply"),
    "largest_current": ("draws", "less from the supply"),
    "motor_current": ("draws", "less a motor"),
    "supply_voltage_under_load": ("keeps", "more voltage"),
    "case_temperature": ("stays", "cooler"),
}


def _words(run: Trial, a: Heap, b: Heap, mean: float, low: float, high: float, chance: float) -> str:
    """ "15 teeth is faster over 12 m by 0.12 s (0.05 to 0.19); chance alone does that in 1 of 90"."""
    ahead = run.better * mean >= 0.0
    verb, how = COMPARED[run.kind]
    sign = 1.0 if mean >= 0.0 else -1.0
    edges = sorted((sign * low * run.per_si, sign * high * run.per_si))
    distance = getattr(run, "distance", None)
    over = f" over {distance:.4g} m" if distance is not None else ""
    return (
        f"{a.design if ahead else b.design} {verb} {how}{over} by {abs(mean) * run.per_si:.3g} {run.unit} "
        f"({edges[0]:.2g} to {edges[1]:.2g}); {_odds(chance)}"
    )


def _odds(chance: float) -> str:
    if chance >= 0.5:
        return "chance alone does that as often as not"
    if chance <= 0.0:
        return f"chance alone does that in fewer than 1 of {DRAWN}"
    return f"chance alone does that in 1 of {max(2, round(1.0 / chance))}"
