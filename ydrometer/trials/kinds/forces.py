"""Runs that measure a force: pushing, being towed, coasting, stopping."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Floats
from ydrometer.trials.rows import TrialRows
from ydrometer.trials.trial import Trial, readings_of, sd_of


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
