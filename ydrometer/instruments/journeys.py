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
MOST_POINTS, MOST_CURVES = 2000, 40
"""Points of a curve, and runs whose curves are kept."""
LONGEST_BACK_S = 1.0
"""How far back at most its beginning is looked for before it is seen to move."""


@dataclass(frozen=True, slots=True)
class Journey:
    """One run that was found, SI.

    Attributes:
        begun: s of the logger's clock. lasted: s. distance: m. readings: by kind of run with what else it is about.
        curve: time from the start, s, speed, m/s, and current, A, and voltage, V; NaN where they were not logged; of
        the first runs alone.
    """

    begun: float
    lasted: float
    distance: float
    readings: list[tuple[dict[str, Any], float]]
    curve: Floats


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
    readings = [*_timed(design, t, v, s), *_top(t, v), *_electric(table, own)]
    curve = thinned(
        np.column_stack([t[1:], v[1:], *(_column(table, key, own) for key in ("current", "voltage"))]), MOST_POINTS
    )
    return Journey(start, float(t[-1]), float(s[-1]), readings, curve)


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


def _electric(table: Table, own: slice) -> Iterator[tuple[dict[str, Any], float]]:
    current, voltage = (_column(table, key, own) for key in ("current", "voltage"))
    if np.isfinite(current).any():
        peak = int(np.nanargmax(current))
        yield {"kind": "supply_current", "moment": "run peak"}, float(current[peak])
        if math.isfinite(voltage[peak]):
            yield {"kind": "supply_voltage_under_load", "moment": "run peak"}, float(voltage[peak])


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
