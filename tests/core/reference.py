"""The model worked out a second time, plainly and slowly: scanned for roots, stepped through time.

Nothing here calls motion. It reads a design and follows the model's definitions word by word, so that the fast
kernels can be held against it.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import brentq, minimize_scalar

from tests.core.looking import first
from ydrometer.document.design import Design
from ydrometer.document.drive import Branch
from ydrometer.document.sources import Engine, motor_line
from ydrometer.document.supply import Panel
from ydrometer.evaluation.driveline import gear_ratios
from ydrometer.evaluation.train import overall

G = 9.80665
SETTLED = 1e-9
"""Relative distance from the end of a gear at which only cruising is left."""
TIGHT = {"rtol": 1e-8, "atol": 1e-9, "method": "DOP853"}
COASTING = {"rtol": 1e-10, "atol": 1e-12, "method": "DOP853"}


@dataclass
class End:
    """Where a run stands: time, speed, distance, energy drawn, and where that energy went."""

    time: float
    speed: float
    distance: float
    energy: float
    spent: float
    peak: float
    gear: int


class Reference:
    """One design, worked out plainly."""

    def __init__(self, design: Design) -> None:
        self.design = design
        self.vehicle, self.supply = design.vehicle, design.drive.supply
        self.mass = self.vehicle.total_mass
        self.radius = self.vehicle.wheel_diameter / 2.0
        self.slope = math.atan(design.conditions.grade)
        self.weight = self.mass * G * math.cos(self.slope)
        self.rolling = self.vehicle.rolling_resistance * self.weight + self.vehicle.fixed_drag
        self.air = 0.5 * design.conditions.air_density * self.vehicle.drag_area
        self.gears = gear_ratios(design)
        self.branches = design.drive.branches
        self.own = {id(b): overall(b.stages) for b in self.branches}
        self.shared = overall(design.drive.stages)
        self.electric = any(not isinstance(b.source, Engine) for b in self.branches)
        self.motors = {id(b): motor_line(b.source) for b in self.branches if not isinstance(b.source, Engine)}

    # ratios and masses

    def trunk(self, gear: int) -> tuple[float, float, float]:
        torque, speed, efficiency = self.shared[:3]
        share = self.gears[gear] / self.gears[0]
        return torque * share, speed * share, efficiency

    def source_speed(self, branch: Branch, gear: int, v: Any) -> Any:
        return v / self.radius * self.own[id(branch)][1] * self.trunk(gear)[1]

    def number(self, branch: Branch) -> int:
        return self.design.drive.units * branch.count

    def inertial_mass(self, gear: int) -> float:
        turning = self.vehicle.wheels_inertia
        for branch in self.branches:
            ratio = self.own[id(branch)][1] * self.trunk(gear)[1]
            turning += self.number(branch) * branch.source.rotor_inertia * ratio**2
            for k, stage in enumerate(branch.stages):
                after = math.prod(s.speed_ratio for s in branch.stages[k:]) * self.trunk(gear)[1]
                turning += self.number(branch) * stage.inertia * after**2
        for k, stage in enumerate(self.design.drive.stages):
            after = math.prod(s.ratio_in(gear) / (1.0 - s.slip) for s in self.design.drive.stages[k:])
            turning += self.design.drive.units * stage.inertia * after**2
        return self.mass + turning / self.radius**2

    # electricity

    def current(self, branch: Branch, gear: int, v: float, u: Any) -> Any:
        line, controller = self.motors[id(branch)], branch.controller
        resistance = line.resistance + (controller.resistance if controller else 0.0)
        limit = controller.current_limit if controller and controller.current_limit else math.inf
        return np.minimum(limit, (u - line.ke * self.source_speed(branch, gear, v)) / resistance)

    def power(self, gear: int, v: float, u: Any) -> Any:
        total = 0.0 * u
        for branch in self.branches:
            if id(branch) in self.motors:
                line, controller = self.motors[id(branch)], branch.controller
                resistance = line.resistance + (controller.resistance if controller else 0.0)
                current = self.current(branch, gear, v, u)
                emf = line.ke * self.source_speed(branch, gear, v)
                total = total + self.number(branch) * current * (current * resistance + emf)
        return total

    def available(self, voltage: Any) -> Any:
        """What the supply gives at a bus voltage, A."""
        supply = self.supply
        assert supply is not None
        if isinstance(supply, Panel):
            knee, at_knee = supply.max_power_voltage, supply.max_power_current
            lower = supply.short_circuit_current + (at_knee - supply.short_circuit_current) * voltage / knee
            upper = at_knee * (supply.open_circuit_voltage - voltage) / (supply.open_circuit_voltage - knee)
            return np.where(voltage < knee, lower, np.maximum(upper, 0.0))
        return (supply.voltage - voltage) / max(getattr(supply, "internal_resistance", 0.0), 1e-12)

    def bus(self, gear: int, v: float, duty: float) -> tuple[float, float]:
        """The highest voltage at which demand meets supply, and the current there, without a battery's limit."""
        assert self.supply is not None

        def excess(voltage: Any) -> Any:
            return self.power(gear, v, duty * voltage) / voltage - self.available(voltage)

        top = 4.0 * self.supply.voltage + 2.0 * max(
            line.ke * self.source_speed(b, gear, v) / duty
            for b in self.branches
            if (line := self.motors.get(id(b))) is not None
        )
        grid = np.linspace(top, top * 1e-6, 500)
        over = excess(grid)
        below = np.flatnonzero(over <= 0.0)
        first = int(below[0]) if len(below) else len(grid)
        # Two roots may lie between two points of the grid, where the demand only just meets the supply.
        for dip in 1 + np.flatnonzero((over[1:-1] <= over[:-2]) & (over[1:-1] <= over[2:])):
            if dip < first:
                ends = (grid[dip + 1], grid[dip - 1])
                lowest = minimize_scalar(excess, bounds=ends, method="bounded", options={"xatol": 1e-13 * top})
                if lowest.fun <= 0.0:
                    return self.drawn_at(brentq(excess, lowest.x, ends[1], xtol=1e-14, rtol=1e-14), gear, v, duty)
        if first == len(grid):
            return float(grid[-1]), 0.0
        voltage = brentq(excess, grid[first], grid[max(first - 1, 0)], xtol=1e-14, rtol=1e-14)
        return self.drawn_at(voltage, gear, v, duty)

    def drawn_at(self, voltage: float, gear: int, v: float, duty: float) -> tuple[float, float]:
        return voltage, float(self.power(gear, v, duty * voltage) / voltage)

    def electrics(self, gear: int, v: float, duty: float) -> tuple[float, float, float]:
        """Applied voltage, bus voltage, bus current; a battery's limit lowers the duty of the motors alike."""
        if not self.electric or duty <= 0.0:
            return 0.0, 0.0, 0.0
        voltage, drawn = self.bus(gear, v, duty)
        limit = getattr(self.supply, "current_limit", None)
        if limit is None or drawn <= limit:
            return duty * voltage, voltage, drawn
        held = brentq(lambda d: self.bus(gear, v, d)[1] - limit, 1e-9, duty, xtol=1e-14, rtol=1e-13)
        voltage, drawn = self.bus(gear, v, held)
        return held * voltage, voltage, drawn

    # forces

    def engine_torque(self, branch: Branch, gear: int, v: float) -> float:
        assert isinstance(branch.source, Engine) and branch.clutch is not None
        w = max(self.source_speed(branch, gear, v), branch.clutch.engagement_speed)
        speeds, torques = zip(*branch.source.torque_curve, strict=True)
        return float(np.interp(w, speeds, torques)) if w <= speeds[-1] * (1 + 1e-12) else 0.0

    def source_torque(self, branch: Branch, gear: int, v: float, u: float, duty: float) -> float:
        if isinstance(branch.source, Engine):
            return duty * self.engine_torque(branch, gear, v)
        line = self.motors[id(branch)]
        return float(line.kt * (self.current(branch, gear, v, u) - line.no_load_current))

    def drive(self, gear: int, v: float, u: float, duty: float) -> float:
        joined = 0.0
        for branch in self.branches:
            ratio, _, efficiency = self.own[id(branch)][:3]
            torque = self.number(branch) * self.source_torque(branch, gear, v, u, duty) * ratio
            joined += torque * efficiency if torque >= 0 else torque / efficiency
        ratio, _, efficiency = self.trunk(gear)
        force = joined * ratio / self.radius
        return force * efficiency if force >= 0 else force / efficiency

    def full(self, gear: int, v: float) -> float:
        return self.drive(gear, v, self.electrics(gear, v, 1.0)[0], 1.0)

    def resistance(self, v: float) -> float:
        return self.rolling + self.air * v * v + self.mass * G * math.sin(self.slope)

    def traction(self, v: float) -> float:
        vehicle, moving = self.vehicle, self.rolling + self.air * v * v
        share = vehicle.driven_share or 1.0
        if vehicle.geometry is None:
            return vehicle.grip * share * self.weight
        base, b, h = vehicle.geometry
        lift = self.weight * b / h + moving
        if vehicle.driven == "all":
            return min(vehicle.grip * self.weight, lift)
        if vehicle.driven == "front":
            load = self.weight * b / base
            return vehicle.grip * (load + h / base * moving) / (1 + vehicle.grip * h / base)
        load, rest = self.weight * (base - b) / base, 1 - vehicle.grip * h / base
        return lift if rest <= 0 else min(vehicle.grip * (load - h / base * moving) / rest, lift)

    def pulls(self, gear: int, v: float) -> tuple[float, float]:
        against = self.resistance(v)
        return (self.full(gear, v) - against) / self.inertial_mass(gear), (self.traction(v) - against) / self.mass

    def acceleration(self, gear: int, v: float) -> float:
        return min(self.pulls(gear, v))

    def driven(self, gear: int, v: float) -> tuple[float, float, float, float, float]:
        """Acceleration, applied voltage, bus voltage, bus current and throttle during the run."""
        by_drive, by_grip = self.pulls(gear, v)
        if by_drive <= by_grip:
            return by_drive, *self.electrics(gear, v, 1.0), 1.0
        wanted = self.traction(v) + (self.inertial_mass(gear) - self.mass) * by_grip
        return by_grip, *self.eased(gear, v, wanted)

    def eased(self, gear: int, v: float, wanted: float) -> tuple[float, float, float, float]:
        def over(duty: float) -> float:
            return self.drive(gear, v, self.electrics(gear, v, duty)[0], duty) - wanted

        least = 1e-6  # a trial step beyond the end of the run may want less than nothing
        if over(1.0) <= 0 or over(least) >= 0:
            duty = 1.0 if over(1.0) <= 0 else least
        else:
            duty = brentq(over, least, 1.0, xtol=1e-13, rtol=1e-12)
        return *self.electrics(gear, v, duty), duty

    # speeds

    def lowest_end(self, left: Callable[[float], float], start: float, ceiling: float) -> float:
        """The first speed above start at which `left` is no longer positive."""
        grid = np.linspace(start, ceiling, 240)
        before = start
        for at in grid[1:]:
            if left(float(at)) <= 0.0:
                return float(brentq(left, before, at, xtol=1e-13, rtol=1e-13))
            before = float(at)
        raise ValueError("no end")

    def sources_end(self, gear: int) -> float:
        ends = []
        for branch in self.branches:
            per = self.source_speed(branch, gear, 1.0)
            if isinstance(branch.source, Engine):
                ends.append(branch.source.torque_curve[-1][0] / per)
            else:
                assert self.supply is not None
                ends.append(self.supply.voltage / self.motors[id(branch)].ke / per)
        return float(max(ends))

    def end(self, gear: int, start: float = 0.0) -> float:
        ceiling = max(self.sources_end(gear), start) * (1 + 1e-9) + 1e-9
        while self.acceleration(gear, ceiling) > 0.0:
            ceiling *= 1.5
        return self.lowest_end(lambda v: self.acceleration(gear, v), start, ceiling)

    def no_load(self, gear: int) -> float:
        return self.lowest_end(lambda v: self.full(gear, v), 0.0, self.sources_end(gear) * (1 + 1e-9))

    # the run

    def run(self, until: str, value: float) -> End:
        """From rest in the best gear at each moment, until "distance" or "time" has a value."""
        first = max(range(len(self.gears)), key=lambda g: (self.acceleration(g, 0.0), -g))
        now = End(0.0, 0.0, 0.0, 0.0, 0.0, 0.0, first)
        while True:
            end = self.end(now.gear, now.speed)
            change, following = self.next_change(now.gear, now.speed, end)
            now, done = self.leg(now, until, value, change if following is not None else math.inf, end)
            if done:
                return now
            assert following is not None
            now, done = self.coast(now, following, until, value)
            if done:
                return now

    def leg(self, start: End, until: str, value: float, change: float, end: float) -> tuple[End, bool]:
        gear = start.gear
        change = min(change, end * (1 - 2 * SETTLED)) if math.isfinite(change) else change

        def rates(_: float, state: Any) -> list[float]:
            v = max(float(state[0]), 0.0)
            a, u, bus, drawn, throttle = self.driven(gear, v)
            return [a, v, bus * drawn, self.spending(gear, v, a, u, throttle)]

        def arrived(t: float, state: Any) -> float:
            return float((state[1] if until == "distance" else t) - value)

        def changes(_: float, state: Any) -> float:
            return float(state[0] - change) if math.isfinite(change) else -1.0

        def settled(_: float, state: Any) -> float:
            return float(state[0] - end * (1 - SETTLED))

        arrived.terminal = changes.terminal = settled.terminal = True  # type: ignore[attr-defined]
        state = [start.speed, start.distance, start.energy, start.spent]
        solved = solve_ivp(rates, (start.time, 1e5), state, events=[arrived, changes, settled], **TIGHT)
        peak = max((self.driven(gear, max(float(v), 0.0))[3] for v in solved.y[0][::3]), default=0.0)
        v, x, e, spent = map(float, solved.y[:, -1])
        there = End(float(solved.t[-1]), v, x, e, spent, max(start.peak, peak), gear)
        if len(solved.t_events[2]) > 0:
            return self.cruise(there, until, value), True
        return there, len(solved.t_events[0]) > 0

    def cruise(self, start: End, until: str, value: float) -> End:
        """On at the speed that is reached, which an engine that is cut off holds as well."""
        v = start.speed
        seconds = value - start.time if until == "time" else (value - start.distance) / v
        _, u, bus, drawn, throttle = self.driven(start.gear, v)
        energy, spent = bus * drawn * seconds, self.spending(start.gear, v, 0.0, u, throttle) * seconds
        return End(
            start.time + seconds,
            v,
            start.distance + v * seconds,
            start.energy + energy,
            start.spent + spent,
            start.peak,
            start.gear,
        )

    def spending(self, gear: int, v: float, a: float, u: float, throttle: float) -> float:
        """Where the power goes: windings, no-load loss, stages, resistance, and what is set in motion, W."""
        total = self.resistance(v) * v + self.inertial_mass(gear) * a * v
        shaft = 0.0
        for branch in self.branches:
            w = self.source_speed(branch, gear, v)
            torque = self.source_torque(branch, gear, v, u, throttle)
            shaft += self.number(branch) * torque * w
            if id(branch) in self.motors:
                line = self.motors[id(branch)]
                current = float(self.current(branch, gear, v, u))
                resistance = line.resistance + (branch.controller.resistance if branch.controller else 0.0)
                heat = current**2 * resistance + line.ke * w * current - line.kt * (current - line.no_load_current) * w
                total += self.number(branch) * heat
        return total + shaft - self.drive(gear, v, u, throttle) * v

    def coast(self, start: End, gear: int, until: str, value: float) -> tuple[End, bool]:
        box = self.design.drive.box
        assert box is not None
        mass = self.inertial_mass(gear)

        def rates(_: float, state: Any) -> list[float]:
            v = max(float(state[0]), 0.0)
            return [-self.resistance(v) / mass, v]

        def arrived(t: float, state: Any) -> float:
            return float((state[1] if until == "distance" else t) - value)

        arrived.terminal = True  # type: ignore[attr-defined]
        span = (start.time, start.time + box.shift_time)
        if box.shift_time == 0.0:
            return End(start.time, start.speed, start.distance, start.energy, start.spent, start.peak, gear), False
        solved = solve_ivp(rates, span, [start.speed, start.distance], events=arrived, **COASTING)
        v, x = map(float, solved.y[:, -1])
        return End(float(solved.t[-1]), v, x, start.energy, start.spent, start.peak, gear), len(solved.t_events[0]) > 0

    def after_coast(self, gear: int, v: float) -> float:
        box = self.design.drive.box
        assert box is not None
        if box.shift_time == 0.0:
            return v
        mass = self.inertial_mass(gear)
        solved = solve_ivp(lambda _, s: [-self.resistance(s[0]) / mass], (0.0, box.shift_time), [v], **COASTING)
        return float(solved.y[0, -1])

    def next_change(self, gear: int, start: float, end: float) -> tuple[float, int | None]:
        found: list[tuple[float, int]] = []
        for to in range(gear + 1, len(self.gears)):

            def better(v: float, to: int = to) -> bool:
                after = self.after_coast(to, v)
                return after > 0 and self.acceleration(to, after) > max(self.acceleration(gear, after), 0.0)

            begins = first(better, start, end)
            if begins is None:
                early = end if self.cut_off(gear, end) else max(start, 0.99 * end)
                after = self.after_coast(to, early)
                begins = early if after > 0 and self.acceleration(to, after) > 0 else None
            if begins is not None:
                found.append((begins, to))
        return min(found) if found else (end, None)

    def cut_off(self, gear: int, v: float) -> bool:
        """Whether an engine that still pulls ends its curve at this speed."""
        for branch in self.branches:
            if isinstance(branch.source, Engine):
                speed, torque = branch.source.torque_curve[-1]
                if torque > 0 and abs(self.source_speed(branch, gear, v) / speed - 1) < 1e-6:
                    return True
        return False
