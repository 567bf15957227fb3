"""Runs that time how fast it goes: turns, a distance, a speed reached."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Floats
from ydrometer.base.units import RPM
from ydrometer.trials.rows import TrialRows
from ydrometer.trials.trial import Trial, readings_of, sd_of


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
