"""A worm and its wheel."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading


@dataclass(frozen=True, slots=True, kw_only=True)
class Worm:
    """Known by its ratio; its efficiency hangs so much on lead and oil that it must be given."""

    kind: ClassVar[str] = "worm"
    ratio: float = reading.quantity("ratio", above=0.0, at_most=1e6)
    efficiency: float = reading.quantity("ratio", above=0.0, at_most=1.0)

    @property
    def speed_ratio(self) -> float:
        """The same as for torque."""
        return self.ratio

    @property
    def default_efficiency(self) -> float:
        """The given one: there is none to assume."""
        return self.efficiency

    @property
    def sense(self) -> int:
        """Taken to keep the sense: the hand of the worm decides it."""
        return 1
