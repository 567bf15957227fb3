"""A stack of planetary steps with their rings held."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Planetary(common.Positive):
    """`reductions` from the motor end on; each step is one stage of loss."""

    kind: ClassVar[str] = "planetary"
    reductions: tuple[float, ...] = reading.items(
        reading.quantity_reader("ratio", above=0.0, at_most=1000.0), least=1, most=12, required=True
    )
    efficiency: float | None = common.efficiency()

    @property
    def ratio(self) -> float:
        """The product of the steps."""
        return math.prod(self.reductions)

    @property
    def default_efficiency(self) -> float:
        """Every step loses its share."""
        return float(efficiencies.PLANETARY_STEP ** len(self.reductions))

    @property
    def sense(self) -> int:
        """A planetary step with the ring held keeps the sense."""
        return 1
