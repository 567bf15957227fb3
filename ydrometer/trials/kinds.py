"""The kinds of test runs: what each one reads, and what the model says of it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Floats
from ydrometer.base.units import RPM
from ydrometer.document.loads import PHASES, Loads, Phase
from ydrometer.document.sources import Motor
from ydrometer.evaluation.evaluate import Evaluation, Group
from ydrometer.loads import heat
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.moments import HARD_START, RUN_PEAK, RUN_SHARE, SHOVE, TOP, most_power
from ydrometer.motion import states
from ydrometer.motion.states import States
from ydrometer.trials.rows import TrialRows
from ydrometer.trials.trial import Trial, readings_of, sd_of

MOMENTS = (HARD_START, SHOVE, RUN_PEAK, TOP)


@dataclass(frozen=True, slots=True, kw_only=True)
class Spin(Trial):
    """Turns with the wheels in the air, of a wheel or of a motor."""

    kind: ClassVar[str] = "spin"
    rig: ClassVar[str] = "spin"
    title: ClassVar[str] = "Spin in the air"
    moving: ClassVar[bool] = False
    dimension: ClassVar[str] = "angular speed"
    unit: ClassVar[str] = "rpm"
    per_si: ClassVar[float] = RPM
    scatter: ClassVar[float] = 0.01
    about: ClassVar[tuple[str, ...]] = ("of", "branch")

    readings: tuple[float, ...] = readings_of("angular speed")
    sd: float | None = sd_of("angular speed")
    of: str = labelled("Turns of", reading.choice(("wheel", "motor")))
    branch: int = labelled("Branch", reading.whole(0, 63, default=0))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"{self.title}, turns of the {self.of}"

    def values(self, rows: TrialRows) -> Floats:
        """The no-load speed over the radius; of a motor times what it turns faster."""
        speed = rows.results.no_load_speed
        if self.of == "wheel":
            speeds: Floats = speed / rows.batch.vehicle["radius"][:, 0]
            return speeds
        turns: Floats = speed * rows.batch.gears["turning"][:, -1] * rows.batch.sources["speed_ratio"][:, self.branch]
        return turns


@dataclass(frozen=True, slots=True, kw_only=True)
class DistanceTime(Trial):
    """Time over a distance from rest."""

    kind: ClassVar[str] = "distance_time"
    rig: ClassVar[str] = "run"
    measure: ClassVar[str] = "time_to_distance"
    title: ClassVar[str] = "Time over a distance"
    dimension: ClassVar[str] = "time"
    unit: ClassVar[str] = "s"
    scatter: ClassVar[float] = 0.02
    about: ClassVar[tuple[str, ...]] = ("distance",)
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("time")
    sd: float | None = sd_of("time")
    distance: float = labelled("Distance", reading.quantity("distance", above=0.0))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"Time over {self.distance:.4g} m"

    def refers_to(self, key: str) -> tuple[float, ...]:
        """Its distance."""
        return (self.distance,) if key == "distance" else ()

    def values(self, rows: TrialRows) -> Floats:
        """time_to_distance."""
        return rows.of_the_run("time_to_distance", "distance", self.distance)


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedTime(Trial):
    """Time from rest to a speed."""

    kind: ClassVar[str] = "speed_time"
    measure: ClassVar[str] = "time_to_speed"
    title: ClassVar[str] = "Time to a speed"
    dimension: ClassVar[str] = "time"
    unit: ClassVar[str] = "s"
    scatter: ClassVar[float] = 0.02
    about: ClassVar[tuple[str, ...]] = ("speed",)
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("time")
    sd: float | None = sd_of("time")
    speed: float = labelled("Speed", reading.quantity("speed", above=0.0))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"Time to {self.speed:.4g} m/s"

    def refers_to(self, key: str) -> tuple[float, ...]:
        """Its speed."""
        return (self.speed,) if key == "speed" else ()

    def values(self, rows: TrialRows) -> Floats:
        """time_to_speed."""
        return rows.of_the_run("time_to_speed", "speed", self.speed)


@dataclass(frozen=True, slots=True, kw_only=True)
class TopSpeed(Trial):
    """The speed at which nothing is left to accelerate."""

    kind: ClassVar[str] = "top_speed"
    measure: ClassVar[str] = "top_speed"
    title: ClassVar[str] = "Top speed"
    dimension: ClassVar[str] = "speed"
    unit: ClassVar[str] = "m/s"
    scatter: ClassVar[float] = 0.02

    readings: tuple[float, ...] = readings_of("speed")
    sd: float | None = sd_of("speed")

    def values(self, rows: TrialRows) -> Floats:
        """top_speed."""
        top: Floats = rows.results.top_speed
        return np.where(np.isfinite(top), top, np.nan)


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedAt(Trial):
    """The speed at a distance from rest."""

    kind: ClassVar[str] = "speed_at"
    measure: ClassVar[str] = "speed_at_distance"
    title: ClassVar[str] = "Speed at a distance"
    dimension: ClassVar[str] = "speed"
    unit: ClassVar[str] = "m/s"
    scatter: ClassVar[float] = 0.02
    about: ClassVar[tuple[str, ...]] = ("distance",)

    readings: tuple[float, ...] = readings_of("speed")
    sd: float | None = sd_of("speed")
    distance: float = labelled("Distance", reading.quantity("distance", above=0.0))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"Speed at {self.distance:.4g} m"

    def refers_to(self, key: str) -> tuple[float, ...]:
        """Its distance."""
        return (self.distance,) if key == "distance" else ()

    def values(self, rows: TrialRows) -> Floats:
        """speed_at_distance."""
        return rows.of_the_run("speed_at_distance", "distance", self.distance)


@dataclass(frozen=True, slots=True, kw_only=True)
class Push(Trial):
    """The force against a wall."""

    kind: ClassVar[str] = "push"
    rig: ClassVar[str] = "push"
    measure: ClassVar[str] = "pushing_force"
    title: ClassVar[str] = "Push at a wall"
    moving: ClassVar[bool] = False
    dimension: ClassVar[str] = "force"
    unit: ClassVar[str] = "N"
    scatter: ClassVar[float] = 0.04

    readings: tuple[float, ...] = readings_of("force")
    sd: float | None = sd_of("force")

    def values(self, rows: TrialRows) -> Floats:
        """pushing_force."""
        forces: Floats = rows.results.pushing_force
        return forces


@dataclass(frozen=True, slots=True, kw_only=True)
class Tow(Trial):
    """The pull at which it rolls slowly with its drive free."""

    kind: ClassVar[str] = "tow"
    rig: ClassVar[str] = "tow"
    geared: ClassVar[bool] = False
    draws: ClassVar[bool] = False
    title: ClassVar[str] = "Slow tow"
    moving: ClassVar[bool] = False
    dimension: ClassVar[str] = "force"
    unit: ClassVar[str] = "N"
    scatter: ClassVar[float] = 0.05
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("force")
    sd: float | None = sd_of("force")

    def values(self, rows: TrialRows) -> Floats:
        """F_rr + m·g·sin(th)."""
        forces: Floats = rows.batch.vehicle["rolling"][:, 0] + rows.batch.vehicle["grade"][:, 0]
        return forces


@dataclass(frozen=True, slots=True, kw_only=True)
class Coast(Trial):
    """Time to roll from one speed down to another, with the drive free, or attached to motors that are open."""

    kind: ClassVar[str] = "coast"
    draws: ClassVar[bool] = False
    title: ClassVar[str] = "Coast down"
    moving: ClassVar[bool] = False
    dimension: ClassVar[str] = "time"
    unit: ClassVar[str] = "s"
    scatter: ClassVar[float] = 0.03
    about: ClassVar[tuple[str, ...]] = ("begun", "ended", "drive")

    readings: tuple[float, ...] = readings_of("time")
    sd: float | None = sd_of("time")
    begun: float = labelled("From", reading.called("from", reading.quantity("speed", above=0.0)))
    ended: float = labelled("Down to", reading.called("to", reading.quantity("speed", at_least=0.0)))
    drive: str = labelled("Drive", reading.choice(("free", "attached")))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"Coast from {self.begun:.3g} to {self.ended:.3g} m/s, drive {self.drive}"

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """It gets slower."""
        yield from Trial.faults(self)
        if self.ended >= self.begun:
            yield "to", f"{self.ended:g} m/s from {self.begun:g} m/s", "give a speed below the one it began with"

    def values(self, rows: TrialRows) -> Floats:
        """∫ m'·dv/(A + B·v²), A what resists at any speed, B the air's."""
        batch, body = rows.batch, rows.batch.vehicle
        against = body["rolling"][:, 0] + body["grade"][:, 0]
        if self.drive == "free":
            mass = body["mass"][:, 0] + rows.case.design.vehicle.wheels_inertia / body["radius"][:, 0] ** 2
        else:
            mass = batch.gears["inertial_mass"][:, -1]
            s = batch.sources
            each = s["number"] * s["kt"] * s["no_load_current"] * s["ratio"] / s["efficiency"]
            through = batch.gears["ratio"][:, -1] / body["trunk_efficiency"][:, 0] / body["radius"][:, 0]
            against = against + each.sum(axis=1) * through
        times: Floats = mass * _slowing(against, body["air"][:, 0], self.begun, self.ended)
        return times


def _slowing(a: Floats, b: Floats, begun: float, ended: float) -> Floats:
    """∫ dv/(a + b·v²) between two speeds; NaN where it does not get down to the lower one."""
    slows = a + b * ended**2 > 0.0
    a, b = np.where(slows, a, 1.0), np.where(slows, b, 0.0)
    root = np.sqrt(np.abs(a) * np.maximum(b, 1e-300))
    with np.errstate(all="ignore"):
        ratio = np.sqrt(b / np.abs(a))
        rolls = (np.arctan(begun * ratio) - np.arctan(ended * ratio)) / root
        glides = 0.5 / root * (_inverse(ended * ratio) - _inverse(begun * ratio))
        whole = np.where(
            a > 0.0, rolls, np.where(a < 0.0, glides, (1.0 / ended - 1.0 / begun) / b if ended else np.inf)
        )
    # Without air the speed falls evenly; the closed form has nothing to divide by there.
    times = np.where(b * begun**2 < 1e-9 * np.abs(a), (begun - ended) / a, whole)
    return np.where(slows & np.isfinite(times), times, np.nan)


def _inverse(x: Floats) -> Floats:
    """ln((x + 1)/(x − 1)), twice the inverse hyperbolic cotangent."""
    return np.log((x + 1.0) / (x - 1.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class Stop(Trial):
    """The distance in which it stands from a speed."""

    kind: ClassVar[str] = "stop"
    geared: ClassVar[bool] = False
    draws: ClassVar[bool] = False
    title: ClassVar[str] = "Stop"
    moving: ClassVar[bool] = False
    dimension: ClassVar[str] = "distance"
    unit: ClassVar[str] = "m"
    scatter: ClassVar[float] = 0.03
    about: ClassVar[tuple[str, ...]] = ("begun",)
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("distance")
    sd: float | None = sd_of("distance")
    begun: float = labelled("From", reading.called("from", reading.quantity("speed", above=0.0)))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"Stop from {self.begun:.3g} m/s"

    def values(self, rows: TrialRows) -> Floats:
        """v²/(2·b), b the least of what tyres, brakes and the rear axle hold, over the mass, and the slope."""
        v = rows.batch.vehicle[:, 0]
        held = np.minimum(
            np.minimum(v["grip"] * v["weight"] * v["braked_share"], v["brake_force"]), v["weight"] * v["rear_lift"]
        )
        rate = (held + v["grade"]) / v["mass"]
        return np.where(rate > 0.0, self.begun**2 / (2.0 * np.where(rate > 0.0, rate, 1.0)), np.nan)


def _at(moment: str, rows: TrialRows) -> list[States | None]:
    """The state of each row at a moment; None where it does not come to it."""
    return [_state(moment, rows, i) for i in range(len(rows))]


def _state(moment: str, rows: TrialRows, i: int) -> States | None:
    if moment == HARD_START:
        return states.hard_start(rows.batch, i)
    if moment == SHOVE:
        return states.shove(rows.batch, i)
    top = float(rows.results.top_speed[i])
    if not math.isfinite(top):
        return None
    if moment == TOP:
        return states.driving(rows.batch, i, int(rows.results.last_gear[i]), top)
    return most_power(rows.batch, i, RUN_SHARE * top)


def _moment() -> Any:
    return reading.choice(MOMENTS)


@dataclass(frozen=True, slots=True, kw_only=True)
class SupplyCurrent(Trial):
    """Current of the supply."""

    kind: ClassVar[str] = "supply_current"
    title: ClassVar[str] = "Current of the supply"
    dimension: ClassVar[str] = "current"
    unit: ClassVar[str] = "A"
    scatter: ClassVar[float] = 0.04
    about: ClassVar[tuple[str, ...]] = ("moment",)
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("current")
    sd: float | None = sd_of("current")
    moment: str = labelled("Moment", _moment())

    @property
    def words(self) -> str:
        """What was measured."""
        return f"{self.title}, {self.moment}"

    def values(self, rows: TrialRows) -> Floats:
        """The supply's current."""
        return np.array([np.nan if s is None else s.bus_current[0] for s in _at(self.moment, rows)])


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorCurrent(Trial):
    """Current of one motor of a branch."""

    kind: ClassVar[str] = "motor_current"
    title: ClassVar[str] = "Current of a motor"
    dimension: ClassVar[str] = "current"
    unit: ClassVar[str] = "A"
    scatter: ClassVar[float] = 0.04
    about: ClassVar[tuple[str, ...]] = ("moment", "branch")
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("current")
    sd: float | None = sd_of("current")
    moment: str = labelled("Moment", _moment())
    branch: int = labelled("Branch", reading.whole(0, 63, default=0))

    @property
    def words(self) -> str:
        """What was measured."""
        return f"{self.title}, {self.moment}"

    def values(self, rows: TrialRows) -> Floats:
        """One motor's current."""
        return np.array([np.nan if s is None else s.current[0, self.branch] for s in _at(self.moment, rows)])


@dataclass(frozen=True, slots=True, kw_only=True)
class VoltageUnderLoad(Trial):
    """Voltage of the supply under load."""

    kind: ClassVar[str] = "supply_voltage_under_load"
    title: ClassVar[str] = "Voltage under load"
    dimension: ClassVar[str] = "voltage"
    unit: ClassVar[str] = "V"
    scatter: ClassVar[float] = 0.01
    about: ClassVar[tuple[str, ...]] = ("moment",)

    readings: tuple[float, ...] = readings_of("voltage")
    sd: float | None = sd_of("voltage")
    moment: str = labelled("Moment", _moment())

    @property
    def words(self) -> str:
        """What was measured."""
        return f"{self.title}, {self.moment}"

    def values(self, rows: TrialRows) -> Floats:
        """The bus voltage."""
        return np.array([np.nan if s is None else s.bus_voltage[0] for s in _at(self.moment, rows)])


@dataclass(frozen=True, slots=True, kw_only=True)
class CaseTemperature(Trial):
    """How warm the case of a motor is at the end of a day."""

    kind: ClassVar[str] = "case_temperature"
    geared: ClassVar[bool] = False
    title: ClassVar[str] = "Case temperature"
    dimension: ClassVar[str] = "temperature"
    unit: ClassVar[str] = "K"
    scatter: ClassVar[float] = 0.05
    about: ClassVar[tuple[str, ...]] = ("day", "branch")
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("temperature")
    sd: float | None = sd_of("temperature rise")
    day: tuple[Phase, ...] = reading.items(reading.kind_reader(PHASES, key="do"), least=1, most=64, required=True)
    branch: int = labelled("Branch", reading.whole(0, 63, default=0))

    def zero(self, ambient: float) -> float:
        """What counts is the rise above ambient."""
        return ambient

    def values(self, rows: TrialRows) -> Floats:
        """The case's temperature when the day is over."""
        design = rows.case.design
        source = design.drive.branches[self.branch].source
        network = heat.network(source, design.conditions.ambient) if isinstance(source, Motor) else None
        if network is None:
            return np.full(len(rows), np.nan)
        evaluation = _evaluation(rows, self.day)
        return np.array([self._warm(rows, network, LoadCase(evaluation, i)) for i in range(len(rows))])

    def _warm(self, rows: TrialRows, network: heat.Network, case: LoadCase) -> float:
        """Of one row."""
        if case.heats.left_out:
            return math.nan
        f, at = rows.factors, (case.index, self.branch)
        scaled = heat.scaled(network, f.winding[at], f.no_load[at] / f.speed_constant[at])
        day = heat.HeatDay(scaled, case.blocks[self.branch])
        return float(day.within(day.cold)[-1, -1])


def _evaluation(rows: TrialRows, day: tuple[Phase, ...]) -> Evaluation:
    """Rows as an evaluation whose designs go through a day."""
    document = rows.document_with(Loads(day=day, heats=1))
    group = Group(rows.batch, rows.results, {})
    n = len(rows)
    return Evaluation((document,) * n, (group,), tuple((0, i) for i in range(n)))


KINDS: dict[str, type[Trial]] = {
    kind.kind: kind
    for kind in (
        Spin,
        DistanceTime,
        SpeedTime,
        TopSpeed,
        SpeedAt,
        Push,
        Tow,
        Coast,
        Stop,
        SupplyCurrent,
        MotorCurrent,
        VoltageUnderLoad,
        CaseTemperature,
    )
}
