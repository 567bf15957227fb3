"""A bought gearbox, known by its ratio alone."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Gearbox:
    """A closed box; its output is taken to turn as its input does."""

    kind: ClassVar[str] = "gearbox"
    ratio: float = reading.quantity("ratio", above=0.0, at_most=1e6)
    efficiency: float | None = common.efficiency()

    @property
    def speed_ratio(self) -> float:
        """The same as for torque."""
        return self.ratio

    @property
    def default_efficiency(self) -> float:
        """Of the whole box."""
        return efficiencies.GEARBOX

    @property
    def sense(self) -> int:
        """Taken to keep the sense; the maker's drawing says."""
        return 1
