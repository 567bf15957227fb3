"""Runs in a logger's table: it stands still, then it moves; each run with its readings and its curve."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from ydrometer.document.design import Design
from ydrometer.evaluation.driveline import overall_ratios
from ydrometer.instruments.table import Floats, Narrow, Table
from ydrometer.instruments.thinning import thinned
from ydrometer.trials.kinds import KINDS
from ydrometer.trials.trial import MOST_READINGS
from ydrometer.trials.written import typed

STILL = 0.03
"""Share of the largest speed below which it counts as standing."""
LEAST_STILL = 0.1
"""m/s below which it stands in any case."""
STANDS_S, MOVES_S, GAP_S = 0.2, 0.5, 2.0
"""How long it stands before a run, how long a run lasts at least, and how long a logger may be silent within one."""
KEPT_SHARE, KEPT_SPEED = 0.15, 0.985
"""Of a run's time that is spent near its largest speed where that is its top speed."""
LET_OFF = 0.95
"""Share of the largest speed so far below which the throttle was closed, where it stays below."""
RESTED_S, MARGIN_S = 1.0, 0.05
"""From when before a run to when a sensor tells its zero."""
MOST_POINTS, MOST_CURVES = 2000, 40
"""Points of a curve, and runs whose curves are kept."""
LONGEST_BACK_S = 1.0
"""How far back at most its beginning is looked for before it is seen to move."""


@dataclass(frozen=True, slots=True)
class Journey:
    """One run that was found, SI.

    Attributes:
        begun: s of the logger's clock. lasted: s. distance: m. readings: by kind of run with what else it is about.
        remarks: what is not taken from it, and why.
        curve: time from the start, s, speed, m/s, and current, A, and voltage, V; NaN where they were not logged; of
        the first runs alone.
    """

    begun: float
    lasted: float
    distance: float
    readings: list[tuple[dict[str, Any], float]]
    curve: Floats
    remarks: tuple[str, ...] = ()


def speed_of(table: Table, design: Design) -> Narrow | None:
    """How fast it was, m/s, (n,): as logged, else from the wheels, the distance or the motors; None without any."""
    columns, radius = table.columns, design.vehicle.wheel_diameter / 2.0
    if "speed" in columns:
        return columns["speed"]
    if "wheel turns" in columns:
        return columns["wheel turns"] * np.float32(radius)
    if "distance" in columns:
        steps = np.maximum(np.gradient(table.time), 1e-9)
        travelled: Narrow = (np.gradient(columns["distance"]) / steps).astype(np.float32)
        return travelled
    if "motor turns" in columns:
        return columns["motor turns"] * np.float32(radius / overall_ratios(design)[-1][2])
    return None


def journeys(table: Table, design: Design) -> list[Journey]:
    """The runs in a table, in order.

    Args:
        table: as read.
        design: that was driven: what a wheel turns per metre, and over which distance and to which speed it is timed.
    """
    speed = speed_of(table, design)
    if speed is None or len(speed) < 3:
        return []
    speed = np.abs(speed)
    np.nan_to_num(speed, copy=False)
    limit = max(LEAST_STILL, STILL * float(np.percentile(speed, 99.9)))
    every_journey = []
    for first, last in _stretches(table.time, speed > limit):
        every_journey.append(_journey(table, design, speed, first, last, limit))
        if len(every_journey) > MOST_CURVES:
            every_journey[-1] = replace(every_journey[-1], curve=np.empty((0, 4)))
    return every_journey


def _stretches(time: Floats, moving: Any) -> Iterator[tuple[int, int]]:
    """First and last row of each stretch of motion behind a standstill."""
    steps = np.diff(time, prepend=2.0 * time[0] - time[1])
    whole = (steps <= GAP_S) & (steps > 0.0)
    del steps
    edges = np.flatnonzero(np.diff(np.concatenate([[False], moving & whole, [False]])))
    for first, end in edges.reshape(-1, 2):
        stood = time[first] - time[np.searchsorted(time[:first], time[first] - STANDS_S)] if first else 0.0
        before = np.searchsorted(time[:first], time[first] - STANDS_S)
        still = first > 0 and stood >= 0.5 * STANDS_S and not moving[before:first].any()
        if still and time[end - 1] - time[first] >= MOVES_S:
            yield int(first), int(end - 1)


def _journey(table: Table, design: Design, speed: Narrow, first: int, last: int, limit: float) -> Journey:
    start = _start(table.time, speed, first, last, limit)
    t = np.concatenate([[0.0], table.time[first : last + 1] - start])
    v = np.concatenate([[0.0], speed[first : last + 1].astype(float)])
    s = np.concatenate([[0.0], np.cumsum(np.diff(t) * 0.5 * (v[1:] + v[:-1]))])
    own = slice(first, last + 1)
    current = _column(table, "current", own) - _at_rest(table, "current", start)
    driven = _closed(t, v)
    timed, remarks = [], []
    for about, value in _timed(design, t, v, s):
        if value <= driven:
            timed.append((about, value))
        else:
            title = KINDS[about["kind"]].title.lower()
            remarks.append(f"throttle closed after {driven:.2f} s: no {title} is taken from this run")
    readings = [*timed, *_top(t, v), *_largest(current)]
    curve = thinned(np.column_stack([t[1:], v[1:], current, _column(table, "voltage", own)]), MOST_POINTS)
    return Journey(start, float(t[-1]), float(s[-1]), readings, curve, tuple(remarks))


def _closed(t: Floats, v: Floats) -> float:
    """When the throttle was closed, s: once the speed falls well below the largest so far and stays there; infinite
    where it never does.
    """
    fallen = v < LET_OFF * np.maximum.accumulate(v)
    if not fallen[-1]:
        return math.inf
    kept = np.flatnonzero(~fallen)
    return float(t[kept[-1]]) if len(kept) else 0.0


def _at_rest(table: Table, key: str, start: float) -> float:
    """What a sensor tells while it stands before a run: its zero; 0 where nobody logged that."""
    column = table.columns.get(key)
    if column is None:
        return 0.0
    stood = column[np.searchsorted(table.time, start - RESTED_S) : np.searchsorted(table.time, start - MARGIN_S)]
    known = stood[np.isfinite(stood)]
    return float(np.median(known)) if len(known) else 0.0


def _start(time: Floats, speed: Narrow, first: int, last: int, limit: float) -> float:
    """When it began to move: the first stretch of motion drawn back to standstill."""
    few = slice(first, min(last, first + max(3, int(np.searchsorted(time[first:], time[first] + 0.15)))) + 1)
    rate = float(np.polyfit(time[few] - time[first], speed[few], 1)[0]) if few.stop - few.start > 2 else 0.0
    back = speed[first] / rate if rate > 0.0 else 0.0
    return float(time[first] - min(back, LONGEST_BACK_S))


def _timed(design: Design, t: Floats, v: Floats, s: Floats) -> Iterator[tuple[dict[str, Any], float]]:
    distance, wanted = design.run.distance, design.run.speed
    if distance and s[-1] >= distance:
        yield (
            {"kind": "distance_time", "distance": typed(distance, "distance", places=6)},
            float(np.interp(distance, s, t)),
        )
    if wanted and v.max() >= wanted:
        k = int(np.argmax(v >= wanted))
        at = float(np.interp(wanted, v[k - 1 : k + 1], t[k - 1 : k + 1]))
        yield {"kind": "speed_time", "speed": typed(wanted, "speed", places=6)}, at


def _top(t: Floats, v: Floats) -> Iterator[tuple[dict[str, Any], float]]:
    """The top speed, where it was kept for a while."""
    most = float(np.percentile(v, 99.0))
    kept = v >= KEPT_SPEED * most
    if np.diff(t)[kept[1:]].sum() >= KEPT_SHARE * t[-1]:
        yield {"kind": "top_speed"}, float(v[kept].mean())


def _largest(current: Floats) -> Iterator[tuple[dict[str, Any], float]]:
    """The largest current; what it was at the most power nobody logged."""
    if np.isfinite(current).any() and (most := float(np.nanmax(current))) > 0.0:
        yield {"kind": "largest_current"}, most


def _column(table: Table, key: str, own: slice) -> Floats:
    column = table.columns.get(key)
    length = own.stop - own.start
    return np.full(length, np.nan) if column is None else column[own].astype(float)


def runs_of(every_journey: list[Journey], resting: float | None) -> list[dict[str, Any]]:
    """Journeys as runs of a runs file but for their design: one a kind, with a reading of each journey.

    Args:
        every_journey: in order.
        resting: the voltage before the first of them, V; None where nobody logged it.
    """
    gathered: dict[str, tuple[dict[str, Any], list[float]]] = {}
    for about, value in (reading for journey in every_journey for reading in journey.readings):
        gathered.setdefault(str(about), (about, []))[1].append(value)
    more = {} if resting is None else {"supply_voltage": typed(resting, "voltage", places=4)}
    return [
        {
            **about,
            **more,
            "readings": [
                typed(value, KINDS[about["kind"]].dimension, places=5) for value in values[k : k + MOST_READINGS]
            ],
        }
        for about, values in gathered.values()
        for k in range(0, len(values), MOST_READINGS)
    ]


def resting_voltage(table: Table, every_journey: list[Journey]) -> float | None:
    """The voltage while it stood before the first run, V."""
    voltage = table.columns.get("voltage")
    if voltage is None or not every_journey:
        return None
    before = voltage[table.time < every_journey[0].begun]
    return float(np.median(before)) if len(before) else None
