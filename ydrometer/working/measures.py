"""The steps of each measure: which blocks it takes, and what comes last."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ydrometer.motion import trace
from ydrometer.working import blocks, power
from ydrometer.working.blocks import WorkingCase
from ydrometer.working.sheet import Column

ROWS = 14
"""Rows of the table of a run, at most."""
STEPS = 60
AT_TIME, TO_STAND = 0, 2
"""What `trace.moment` is asked for."""
GOLDEN = 0.6180339887498949


@dataclass(frozen=True, slots=True)
class MeasureCase(WorkingCase):
    """A case with the branch that is asked for."""

    branch: int


def _value(case: MeasureCase, name: str) -> float:
    return float(case.evaluation.value(name, case.index))


def _last(case: MeasureCase) -> int:
    return int(case.evaluation.raw("last_gear", case.index))


def _state(case: MeasureCase, gear: int, speed: float) -> trace.Sources:
    group, row = case.evaluation.group(case.index)
    return trace.driving(group.batch, row, gear, speed)


def at_top(case: MeasureCase) -> None:
    """The state at top speed: driving force and resistance."""
    top = _value(case, "top_speed")
    case.sheet.put("v", "speed at which nothing is left to accelerate", top, "speed", "solved")
    power.drive_force(case, _state(case, _last(case), top))
    blocks.resistance(case)


def _at_rest(case: MeasureCase, *, pushing: bool) -> None:
    group, row = case.evaluation.group(case.index)
    case.sheet.put("v", "speed", 0.0, "speed")
    power.drive_force(case, trace.standing(group.batch, row, pushing=pushing))


def overall_ratio(case: MeasureCase) -> None:
    """G of a branch in its lowest gear."""
    power.ratios(case, 0)
    case.sheet.step("G", "source turns per wheel turn", f"G{case.suffix(case.branch)}", "ratio")


def no_load_speed(case: MeasureCase) -> None:
    """Where the driving force ends."""
    gear = len(case.evaluation.group(case.index)[0].batch.gears[0]) - 1
    speed = _value(case, "no_load_speed")
    case.sheet.put("v", "speed at which no driving force is left", speed, "speed", "solved")
    power.drive_force(case, _state(case, gear, speed))
    case.sheet.step("v_0", "speed with the wheels in the air", f"w{case.suffix(0)}*r/G{case.suffix(0)}", "speed")


def no_load_wheel_rpm(case: MeasureCase) -> None:
    """The same as turns of the wheel."""
    no_load_speed(case)
    case.sheet.step("w_wheel", "speed of the wheel", "v_0/r", "angular speed")


def top_speed(case: MeasureCase) -> None:
    """Where driving force and resistance meet."""
    at_top(case)
    case.sheet.step("v_top", "top speed", f"w{case.suffix(0)}*r/G{case.suffix(0)}", "speed")


def limited_by(case: MeasureCase) -> None:
    """The share of the no-load speed that is reached."""
    at_top(case)
    blocks.traction(case)
    last = float(case.evaluation.raw("no_load_in_last", case.index))
    case.sheet.put("v_0", "no-load speed in the gear it ends in", last, "speed", "solved")
    case.sheet.step("share_0", "share of the no-load speed; from 0.90 up it is the gearing", "v/v_0", "ratio")


def launch_acceleration(case: MeasureCase) -> None:
    """The lesser of what the drive and the tyres allow."""
    group, row = case.evaluation.group(case.index)
    gear = int(trace.points(group.batch, row).gear[0])
    case.sheet.put("v", "speed", 0.0, "speed")
    full = trace.standing(group.batch, row, pushing=False)
    power.drive_force(case, dataclasses.replace(full, gear=gear))
    power.inertial_mass(case)
    blocks.traction(case)
    step = case.sheet.step
    step("a_drive", "what the drive allows", "(F_drive - F_res)/m_eff", "acceleration")
    step("a_grip", "what the tyres allow", "(F_trac - F_res)/m", "acceleration")
    step("a_0", "acceleration at the start", "min(a_drive, a_grip)", "acceleration")


def stall_wheel_torque(case: MeasureCase) -> None:
    """Full throttle, wheels held."""
    _at_rest(case, pushing=False)
    case.sheet.step("T_wheel", "torque at all driven wheels", "F_drive*r", "torque")


def pushing_force(case: MeasureCase) -> None:
    """The lesser of the drive and the tyres."""
    _at_rest(case, pushing=False)
    blocks.wall(case)
    case.sheet.step("F_push", "pushing force", "min(F_drive, F_wall)", "force")


def current(moment: Callable[[MeasureCase], None], words: str) -> Callable[[MeasureCase], None]:
    """The current of one motor of the branch asked for, at a moment."""

    def write(case: MeasureCase) -> None:
        moment(case)
        x = case.suffix(case.branch)
        case.sheet.step(f"I_m{x}", words, f"I{x}", "current")

    return write


def bus(moment: Callable[[MeasureCase], None]) -> Callable[[MeasureCase], None]:
    """The current of the supply at a moment."""

    def write(case: MeasureCase) -> None:
        moment(case)
        case.sheet.step("I_supply", "current of the supply", "I_bus", "current")

    return write


def launching(case: MeasureCase) -> None:
    """The state in the hard start."""
    _at_rest(case, pushing=False)


def pushing(case: MeasureCase) -> None:
    """The state while pushing at a wall."""
    _at_rest(case, pushing=True)
    blocks.wall(case)


def peak_bus_current(case: MeasureCase) -> None:
    """The moment of the run at which most is drawn."""
    gear, speed = _peak(case)
    case.sheet.put("v", "speed at which most is drawn", speed, "speed", "solved")
    power.sources(case, _state(case, gear, speed))
    case.sheet.step("I_peak", "largest current of the supply", "I_bus", "current")


def _peak(case: MeasureCase) -> tuple[int, float]:
    """Gear and speed of the largest current: the best point of the run, improved between its neighbours."""
    group, row = case.evaluation.group(case.index)
    points = trace.points(group.batch, row)
    usable = np.flatnonzero((points.gear >= 0) & (points.speed <= 0.99 * points.speed[-1]))
    best = int(usable[np.argmax(points.bus_current[usable])])
    gear = int(points.gear[best])
    low = points.speed[max(best - 1, 0)]
    high = min(points.speed[min(best + 1, len(points.speed) - 1)], 0.99 * points.speed[-1])

    def drawn(v: float) -> float:
        return trace.driving(group.batch, row, gear, v).bus_current

    left, right = float(low), float(max(high, low))
    for _ in range(STEPS):
        a, b = right - GOLDEN * (right - left), left + GOLDEN * (right - left)
        left, right = (left, b) if drawn(a) > drawn(b) else (a, right)
    middle = 0.5 * (left + right)
    return gear, middle if drawn(middle) > points.bus_current[best] else float(points.speed[best])


def stopping_distance(case: MeasureCase) -> None:
    """From top speed at constant deceleration."""
    blocks.braking(case)
    case.sheet.put("v_top", "top speed", _value(case, "top_speed"), "speed", "solved")
    case.sheet.step("x_stop", "distance to stand still", "v_top**2/(2*b_rate)", "distance")


def max_grade(case: MeasureCase) -> None:
    """Where the first of drive, tyres and front axle gives way."""
    _at_rest(case, pushing=False)
    s, vehicle = case.sheet, case.design.vehicle
    blocks.standing_resistance(case)
    s.given("mu", "grip", "vehicle.grip")
    share = blocks.axle_share(case)
    s.step("S", "weight itself", "m*g", "force")
    s.step("q_drive", "size of the turned pair of C_rr and 1", "hypot(C_rr*S, S)", "force")
    drive = "acos(-max(-q_drive, min(q_drive, F_drive - F_fixed))/q_drive) - atan2(S, -C_rr*S)"
    s.step("th_drive", "slope that the drive can start on", drive, "angle")
    names = ["th_drive"]
    t = {"all": "0", "rear": "h/L", "front": "-h/L"}[vehicle.driven] if vehicle.geometry else "0"
    if t == "0" or s.known["mu"] * (s.known["h"] / s.known["L"]) * (1 if vehicle.driven == "rear" else -1) < 1.0:
        s.step("c_grip", "grip less rolling", f"mu*({share} - {t}*C_rr)/(1 - mu*{t}) - C_rr", "ratio")
        s.step("B_grip", "fixed drag as the tyres feel it", f"-(mu*{t}/(1 - mu*{t}) + 1)*F_fixed", "force")
        s.step("q_grip", "size of the turned pair of c_grip and 1", "hypot(c_grip*S, S)", "force")
        s.step("th_grip", "slope that the tyres hold", "acos(-B_grip/q_grip) - atan2(S, c_grip*S)", "angle")
        names.append("th_grip")
    if vehicle.geometry is not None and vehicle.driven != "front":
        s.step("th_lift", "slope at which the front wheels lift", "atan(b/h)", "angle")
        names.append("th_lift")
    s.step(
        "grade",
        "the steepest slope",
        f"tan(min({', '.join(names)}))" if len(names) > 1 else f"tan({names[0]})",
        "grade",
    )


def motor_speed_at_top(case: MeasureCase) -> None:
    """The source's own speed."""
    at_top(case)
    x = case.suffix(case.branch)
    own = f"w_e{x}" if f"w_e{x}" in case.sheet.known else f"w{x}"
    case.sheet.step(f"w_top{x}", "speed of the source at top speed", own, "angular speed")


def endurance_at_top(case: MeasureCase) -> None:
    """Capacity over current."""
    at_top(case)
    s, source = case.sheet, case.design.drive.supply
    cells = getattr(source, "cells", None)
    if cells is not None:
        s.given("Q_cell", "capacity of a cell", "drive.supply.cells.cell_capacity")
        s.put("n_p", "rows in parallel", cells.parallel, "ratio", "given", "drive.supply.cells.parallel")
        s.step("Q", "capacity", "Q_cell*n_p", "charge")
    else:
        s.given("Q", "capacity", "drive.supply.capacity")
    s.step("t_top", "time at top speed", "Q/I_bus", "time")


def range_at_top(case: MeasureCase) -> None:
    """That time at that speed."""
    endurance_at_top(case)
    case.sheet.step("x_top", "range at top speed", "t_top*v", "distance")


def _table(case: MeasureCase, time: float) -> None:
    """The run up to a time in rows: from one speed to the next, what time, distance and energy that takes."""
    group, row = case.evaluation.group(case.index)
    points = trace.points(group.batch, row)
    inside = np.flatnonzero(points.time < time)
    chosen = inside[np.unique(np.linspace(0, len(inside) - 1, ROWS).astype(int))]
    end = trace.moment(group.batch, row, AT_TIME, time)
    t, v, x, e = (
        np.append(part[chosen], last)
        for part, last in zip((points.time, points.speed, points.distance, points.energy), end, strict=True)
    )
    case.sheet.columns(
        Column("v_from", "from a speed of", "speed", v[:-1].tolist()),
        Column("v_to", "to", "speed", v[1:].tolist()),
        Column("dt", "takes", "time", np.diff(t).tolist()),
        Column("dx", "and covers", "distance", np.diff(x).tolist()),
        Column("dE", "drawing", "energy", np.diff(e).tolist()),
        Column("dv", "gaining", "speed", np.diff(v).tolist()),
    )


def run(symbol: str, words: str, expression: str, dimension: str, until: str) -> Callable[[MeasureCase], None]:
    """A number of the run, summed up from its rows up to the moment that `until` names."""

    def write(case: MeasureCase) -> None:
        time = case.design.run.time if until == "run" else _value(case, until)
        assert time is not None
        launch_acceleration(case)
        _table(case, time)
        case.sheet.step(symbol, words, expression, dimension)

    return write


def sprint_and_stop(case: MeasureCase) -> None:
    """The run up to the braking point, then braking."""
    blocks.braking(case)
    rate = float(case.sheet.known["b_rate"])
    group, row = case.evaluation.group(case.index)
    distance = case.design.run.distance
    assert distance is not None  # else there is no such time
    _table(case, trace.moment(group.batch, row, TO_STAND, distance, rate)[0])
    s = case.sheet
    s.step("t_b", "time up to the braking point", "sum(dt)", "time")
    s.step("v_b", "speed there", "sum(dv)", "speed")
    s.step("t_all", "time from rest to rest", "t_b + v_b/b_rate", "time")
