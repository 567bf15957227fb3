"""Cases whose exact answer is known in closed form, worked out by the same kernels as everything else."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document import design
from ydrometer.evaluation.evaluate import Evaluation, evaluate

ALLOWED = 1e-6
"""Relative error a case may have."""
G = STANDARD_GRAVITY


@dataclass(frozen=True, slots=True)
class ClosedForm:
    """A case: what was found, and what is exact."""

    name: str
    found: float
    exact: float

    @property
    def error(self) -> float:
        """Relative to the exact value."""
        return abs(self.found - self.exact) / abs(self.exact)

    @property
    def holds(self) -> bool:
        """Whether it is close enough."""
        return self.error <= ALLOWED


def rows() -> list[ClosedForm]:
    """All cases."""
    return [*_exponential(), *_constant_force(), *_grip(), *_slopes(), *_drag(), *_panel(), *_engine(), *_gears()]


def _design(**parts: Any) -> Evaluation:
    """A plain vehicle: 10 kg, r = 0.1 m, ke = kt = 0.05, R = 0.5, reduction 4, 12 V, nothing lost anywhere."""
    vehicle = {
        "mass": 10.0,
        "wheel_diameter": 0.2,
        "driven": "all",
        "rolling_resistance": 0.0,
        "grip": 5.0,
        **parts.get("vehicle", {}),
    }
    motor = {"kind": "motor", "constants": {"kv": 20.0, "resistance": 0.5, "no_load_current": 0.0}}
    branch = {
        "source": motor,
        "stages": [{"kind": "gearbox", "ratio": 4.0, "efficiency": 1.0}],
        **parts.get("branch", {}),
    }
    drive = {"supply": {"kind": "bench", "voltage": 12.0}, "branches": [branch], **parts.get("drive", {})}
    if drive["supply"] is None:
        del drive["supply"]
    raw = {
        "format": "ydrometer-design",
        "version": 1,
        "vehicle": vehicle,
        "drive": drive,
        "conditions": parts.get("conditions", {}),
        "run": {"distance": 20.0, "speed": 4.0, "time": 2.0, **parts.get("run", {})},
    }
    return evaluate([design.read(raw)])


def _exponential() -> Iterator[ClosedForm]:
    """v(t) = vtop·(1 − e^−t/τ): a motor on a stiff supply, no resistance."""
    speed = _design()
    top = 12.0 * 20.0 / 4.0 * 0.1
    launch = 0.05 * (12.0 / 0.5) * 4.0 / 0.1 / 10.0
    tau = top / launch
    yield ClosedForm("motor alone: no-load speed", speed.value("no_load_speed", 0), top)
    yield ClosedForm("motor alone: launch acceleration", speed.value("launch_acceleration", 0), launch)
    yield ClosedForm("motor alone: time to speed", speed.value("time_to_speed", 0), -tau * math.log1p(-4.0 / top))
    yield ClosedForm(
        "motor alone: distance in time",
        speed.value("distance_in_time", 0),
        top * (2.0 - tau * (1.0 - math.exp(-2.0 / tau))),
    )
    time = speed.value("time_to_distance", 0)
    yield ClosedForm(
        "motor alone: distance at the time found", top * (time - tau * (1.0 - math.exp(-time / tau))), 20.0
    )
    stall = 12.0 / 0.5
    energy = 12.0 * stall * tau * (1.0 - math.exp(-time / tau))
    yield ClosedForm("motor alone: energy over the distance", speed.value("energy_per_run", 0), energy)
    sagging = _design(drive={"supply": {"kind": "battery", "open_circuit_voltage": 12.0, "resistance": 0.25}})
    yield ClosedForm("battery: current held still", sagging.value("launch_bus_current", 0), 12.0 / 0.75)


def _constant_force() -> Iterator[ClosedForm]:
    """A controller that holds the current: the force is constant while it does."""
    speed = _design(branch={"controller": {"current_limit": 2.0}}, run={"distance": 3.0, "speed": 1.5})
    force = 0.05 * 2.0 * 4.0 / 0.1
    yield ClosedForm("current held: time to speed", speed.value("time_to_speed", 0), 1.5 / (force / 10.0))
    yield ClosedForm(
        "current held: time to distance", speed.value("time_to_distance", 0), math.sqrt(2.0 * 3.0 / (force / 10.0))
    )
    yield ClosedForm("current held: pushing force", speed.value("pushing_force", 0), force)


def _grip() -> Iterator[ClosedForm]:
    """Tyres at their limit."""
    time = _design(vehicle={"grip": 0.2}, run={"distance": 1.5})
    yield ClosedForm("at the limit of grip: time", time.value("time_to_distance", 0), math.sqrt(2.0 * 1.5 / (0.2 * G)))
    rear = {"driven": "rear", "wheelbase": 0.8, "cg_ahead_of_rear": 0.5, "cg_height": 0.2, "grip": 0.3}
    held = 0.3 * (0.3 / 0.8) / (1.0 - 0.3 * 0.2 / 0.8) * G
    yield ClosedForm(
        "rear drive: launch with weight transfer", _design(vehicle=rear).value("launch_acceleration", 0), held
    )
    front = {**rear, "driven": "front"}
    held = 0.3 * (0.5 / 0.8) / (1.0 + 0.3 * 0.2 / 0.8) * G
    yield ClosedForm(
        "front drive: launch with weight transfer", _design(vehicle=front).value("launch_acceleration", 0), held
    )
    lifting = {**rear, "cg_ahead_of_rear": 0.02, "grip": 2.0}
    yield ClosedForm("front wheels lift", _design(vehicle=lifting).value("launch_acceleration", 0), G * 0.02 / 0.2)


def _slopes() -> Iterator[ClosedForm]:
    """The steepest slope, and braking."""
    yield ClosedForm("steepest slope by grip", _design(vehicle={"grip": 0.4}).value("max_grade", 0), 0.4)
    weak = _design(branch={"controller": {"current_limit": 2.0}})
    yield ClosedForm("steepest slope by torque", weak.value("max_grade", 0), math.tan(math.asin(4.0 / (10.0 * G))))
    braked = _design(vehicle={"brake_force": 30.0}, conditions={"grade": 0.1})
    slope = math.atan(0.1)
    rate = 3.0 + G * math.sin(slope)
    yield ClosedForm(
        "stopping uphill", braked.value("stopping_distance", 0), braked.value("top_speed", 0) ** 2 / (2 * rate)
    )


def _drag() -> Iterator[ClosedForm]:
    """Against the air under constant force: v = c·tanh(t·a/c), x = c²/a·ln cosh(t·a/c)."""
    speed = _design(
        vehicle={"drag_area": 2.0, "mass": 2.0},
        branch={"controller": {"current_limit": 2.0}},
        run={"time": 1.0, "distance": 2.0},
    )
    a, air = 4.0 / 2.0, 0.5 * 1.2 * 2.0 / 2.0
    end = math.sqrt(a / air)
    yield ClosedForm("against the air: top speed", speed.value("top_speed", 0), end)
    yield ClosedForm(
        "against the air: distance in time",
        speed.value("distance_in_time", 0),
        math.log(math.cosh(math.sqrt(a * air))) / air,
    )


def _panel() -> Iterator[ClosedForm]:
    """A panel on the steep piece of its curve feeds a motor that stands still."""
    panel = {
        "kind": "panel",
        "short_circuit_current": 2.0,
        "open_circuit_voltage": 20.0,
        "max_power_voltage": 16.0,
        "max_power_current": 1.8,
    }
    speed = _design(drive={"supply": panel})
    yield ClosedForm("panel: current held still", speed.value("launch_bus_current", 0), 2.0 / (1.0 + 0.2 / 16.0 * 0.5))


def _engine() -> Iterator[ClosedForm]:
    """An engine of constant torque, cut off at a speed."""
    engine = {
        "source": {"kind": "engine", "torque_curve": [[100.0, 1.0], [400.0, 1.0]]},
        "clutch": {"engagement_speed": 150.0},
    }
    time = _design(branch=engine, drive={"supply": None}, run={"distance": 9.0, "speed": 3.0})
    rate = 1.0 * 4.0 / 0.1 / 10.0
    yield ClosedForm("engine cut off: top speed", time.value("top_speed", 0), 400.0 / 4.0 * 0.1)
    yield ClosedForm("engine: time to speed, clutch and all", time.value("time_to_speed", 0), 3.0 / rate)


def _gears() -> Iterator[ClosedForm]:
    """Two gears of a motor without resistance: changed where both pull alike, v = V/(ke·(G1 + G2))·r."""
    speeds = [{"kind": "speeds", "ratios": [2.0, 1.0], "shift_time": 0.0, "efficiency": 1.0}]
    time = _design(drive={"stages": speeds}, run={"speed": 5.0})
    ends = (12.0 * 20.0 / 8.0 * 0.1, 12.0 * 20.0 / 4.0 * 0.1)
    launches = tuple(0.05 * 24.0 * ratio / 0.1 / 10.0 for ratio in (8.0, 4.0))
    change = 12.0 * 20.0 * 0.1 / 12.0
    taus = tuple(end / launch for end, launch in zip(ends, launches, strict=True))
    first = -taus[0] * math.log1p(-change / ends[0])
    second = taus[1] * math.log((ends[1] - change) / (ends[1] - 5.0))
    yield ClosedForm("two gears, changed at once: time to speed", time.value("time_to_speed", 0), first + second)
