"""What every stage has in common: a ratio, an efficiency, a turning sense."""

from __future__ import annotations

from typing import Any, ClassVar, Protocol

from ydrometer import reading

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
        """Driver turns per driven turn."""

    @property
    def default_efficiency(self) -> float:
        """Efficiency to assume where none is given."""

    @property
    def sense(self) -> int:
        """+1 where the driven member turns the way the driver does, −1 where it turns against it."""


def teeth() -> Any:
    """A field holding a number of teeth."""
    return reading.whole(LEAST_TEETH, MOST_TEETH)


def efficiency() -> Any:
    """The optional field every stage takes."""
    return reading.quantity("ratio", above=0.0, at_most=1.0, default=None)


def stage_efficiency(stage: Stage) -> float:
    """The given efficiency, else the one to assume."""
    return stage.default_efficiency if stage.efficiency is None else stage.efficiency
