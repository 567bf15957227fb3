"""What every stage has in common: ratios, an efficiency, a turning sense."""

from __future__ import annotations

from typing import Any, ClassVar, Protocol

from ydrometer.base import reading

LEAST_TEETH = 5
MOST_TEETH = 1000


class Stage(Protocol):
    """One reduction of the drive, from the shaft power enters by to the one it leaves by."""

    kind: ClassVar[str]

    @property
    def efficiency(self) -> float | None:
        """Efficiency of the whole stage as given, or None."""

    @property
    def ratio(self) -> float:
        """Driven torque per driver torque before losses; of a box of several speeds in its lowest gear."""

    @property
    def speed_ratio(self) -> float:
        """Driver turns per driven turn; differs from `ratio` only where something creeps."""

    @property
    def default_efficiency(self) -> float:
        """Efficiency to assume where none is given."""

    @property
    def sense(self) -> int:
        """+1 where the driven member turns the way the driver does, −1 where it turns against it."""


class Positive:
    """A stage that does not slip: speeds and torques have one ratio."""

    __slots__ = ()

    @property
    def ratio(self) -> float:
        """Given by each kind."""
        raise NotImplementedError

    @property
    def speed_ratio(self) -> float:
        """The same as for torque."""
        return self.ratio


class Toothed(Positive):
    """A driver and a driven member told by their teeth."""

    __slots__ = ()
    driver_teeth: int
    driven_teeth: int

    @property
    def ratio(self) -> float:
        """Driven teeth over driver teeth."""
        return self.driven_teeth / self.driver_teeth


def teeth() -> Any:
    """A field holding a number of teeth."""
    return reading.whole(LEAST_TEETH, MOST_TEETH)


def efficiency() -> Any:
    """The optional field every stage takes."""
    return reading.quantity("ratio", above=0.0, at_most=1.0, default=None)


def stage_efficiency(stage: Stage) -> float:
    """The given efficiency, else the one to assume."""
    return stage.default_efficiency if stage.efficiency is None else stage.efficiency
