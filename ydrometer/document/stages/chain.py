"""A roller chain over two sprockets."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Chain(common.Toothed):
    """Driver and driven sprocket; pitch, links and width are needed for drawing and fit alone."""

    kind: ClassVar[str] = "chain"
    driver_teeth: int = common.teeth()
    driven_teeth: int = common.teeth()
    pitch: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    links: int | None = reading.whole(10, 5000, default=None)
    width: float | None = reading.quantity("length", above=0.0, default=None)
    efficiency: float | None = common.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of a lubricated roller chain."""
        return efficiencies.ROLLER_CHAIN

    @property
    def sense(self) -> int:
        """A chain keeps the sense."""
        return 1
