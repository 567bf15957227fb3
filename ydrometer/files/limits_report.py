"""What `./ydro limits` prints: moments, checks, heat and the worst row of a design."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

import numpy as np

from ydrometer.base.errors import DocumentError
from ydrometer.document.design import Document
from ydrometer.document.supply import Battery
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.helps import helps
from ydrometer.loads.limits import LoadRows, limits
from ydrometer.loads.load_case import LoadCase, Warmth
from ydrometer.loads.moments import HARD_START, LOW, REVERSAL, RUN, RUN_PEAK, SHOVE, TURN, run_peak
from ydrometer.loads.passing import PowerPath, line
from ydrometer.loads.rows import UseRow
from ydrometer.motion.states import States

FORMAT = "ydrometer-limits"


def report(document: Document) -> dict[str, Any]:
    """The answer as JSON; SI throughout, temperatures in K.

    Args:
        document: a design as read.

    Raises:
        DocumentError: a phase of its day cannot be done.
    """
    evaluation = evaluate([document])
    rows = limits(evaluation)
    case, turn = rows.case, rows.case.moments.turn
    if case.heats.left_out:
        raise DocumentError(list(case.heats.left_out))
    return {
        "format": FORMAT,
        "version": 1,
        "state": _state(case),
        "service_factor": {
            "branches": [case.factor(b) for b in range(len(case.design.drive.branches))],
            "trunk": case.factor(None),
        },
        "moments": _moments(case) + _near_the_end(case),
        "turn": None
        if turn is None
        else {
            "possible": turn.possible,
            "force_each_side": turn.force_each_side,
            "rate": turn.rate,
        },
        "checks": [_check(row, [help_.text for help_ in helps(rows, row)]) for row in rows.rows],
        "not_judged": [{"check": unjudged.check, "path": unjudged.path} for unjudged in rows.not_judged],
        "heat": [_heat(warmth, case, b) for b, _ in case.motors for warmth in [case.warmth.get(b)]],
        "worst": _worst(rows),
        "low": _low(case),
    }


def _moments(case: LoadCase) -> list[dict[str, Any]]:
    """Hard start, shove and so on, the peak of the run behind top speed."""
    moments = case.moments
    told = {
        name: _moment(name, moments.states, case.line, moments.names.index(name))
        for name in dict.fromkeys(moments.names)
        if name != RUN
    }
    peak = run_peak(case.evaluation, case.index, moments)
    last = [told.pop(REVERSAL)] if REVERSAL in told else []
    running = [] if peak is None else [_moment(RUN_PEAK, peak, line(case.design, peak), 0)]
    return [*told.values(), *running, *last]


def _near_the_end(case: LoadCase) -> list[dict[str, Any]]:
    """The few that are looked at with the battery near its end; none without one."""
    told = [] if case.low is None else _moments(case.low)
    kept = [moment for moment in told if moment["moment"] in (HARD_START, SHOVE, RUN_PEAK)]
    return [{**moment, "moment": f"{moment['moment']}{LOW}"} for moment in kept]


def _low(case: LoadCase) -> dict[str, Any] | None:
    """What is left with the battery near its end; None without one."""
    if case.low is None:
        return None
    low, battery = case.low, case.low.design.drive.supply
    assert isinstance(battery, Battery)  # it has a state near its end
    results = low.evaluation.target_results(low.index)
    return {
        "open_circuit_voltage": battery.voltage,
        "resistance": battery.internal_resistance,
        "state": _state(low),
        "targets": [{"measure": of.target.measure, "value": of.verdict.value, "met": of.verdict.met} for of in results],
    }


def _state(case: LoadCase) -> str:
    return "ok" if case.evaluation.starts(case.index) else "will not start"


def _moment(name: str, states: States, through: PowerPath, at: int) -> dict[str, Any]:
    turning = name == TURN
    electric = not np.isnan(states.current[at]).all()
    return {
        "moment": name,
        "vehicle_speed": 0.0 if turning else float(states.speed[at]),
        "gear": int(states.gear[at]),
        "force": float(states.force[at]),
        "sources": [
            {
                "branch": b,
                "speed": float(states.source_speed[at, b]),
                "torque": float(states.torque[at, b]),
                "current": _or_null(states.current[at, b]),
            }
            for b in range(states.torque.shape[1])
        ],
        "bus_current": float(states.bus_current[at]) if electric else None,
        "bus_voltage": float(states.bus_voltage[at]) if electric else None,
        "shafts": [
            {"path": shaft.path, "speed": float(shaft.speed[at]), "torque": float(shaft.torque[at])}
            for shaft in through.shafts
        ],
    }


def _or_null(value: Any) -> float | None:
    return None if np.isnan(value) else float(value)


def _check(row: UseRow, helping: list[str]) -> dict[str, Any]:
    shown = {"check", "path", "member", "moment", "demand", "capacity", "unit", "use", "state"}
    entry: dict[str, Any] = {f.name: getattr(row, f.name) for f in fields(UseRow) if f.name in shown}
    lists = {name: list(getattr(row, name)) for name in ("assumed", "needs", "remarks")}
    return {**entry, **lists, "helps": helping, **row.shown}


def _heat(warmth: Warmth | None, case: LoadCase, b: int) -> dict[str, Any]:
    if warmth is None:
        nothing = dict.fromkeys(("winding", "case", "hottest_winding", "at", "hottest_case", "hottest_case_at"))
        return {
            "branch": b,
            "nodes": 0,
            **nothing,
            "moving_air": None,
            "shove_until_limit": None,
            "rest_needed": None,
            "curve": [],
        }
    day = warmth.day
    return {
        "branch": b,
        "nodes": day.nodes,
        "winding": day.winding,
        "case": day.case,
        "hottest_winding": day.hottest_winding,
        "at": day.at,
        "hottest_case": day.hottest_case,
        "hottest_case_at": day.hottest_case_at,
        "moving_air": {
            "hottest_winding": warmth.in_moving_air[0],
            "hottest_case": warmth.in_moving_air[1],
        },
        "shove_until_limit": case.shove_until_limit(warmth),
        "rest_needed": case.rest_needed(warmth),
        "curve": day.curve.tolist(),
    }


def _worst(rows: LoadRows) -> dict[str, Any] | None:
    worst = rows.worst
    return None if worst is None else {"check": worst.check, "path": worst.path, "use": worst.use}
