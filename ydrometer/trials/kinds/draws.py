"""Runs that measure what a moment draws and warms: currents, the voltage under load, the case."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Floats
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
class LargestCurrent(Trial):
    """The largest current of the supply in a run from rest, whenever that is."""

    kind: ClassVar[str] = "largest_current"
    measure: ClassVar[str] = "peak_bus_current"
    title: ClassVar[str] = "Largest current of a run"
    dimension: ClassVar[str] = "current"
    unit: ClassVar[str] = "A"
    scatter: ClassVar[float] = 0.04
    better: ClassVar[int] = -1

    readings: tuple[float, ...] = readings_of("current")
    sd: float | None = sd_of("current")

    def values(self, rows: TrialRows) -> Floats:
        """The supply's current where it is largest."""
        return np.asarray(rows.results.peak_bus_current, float)


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
