"""A toothed (synchronous) belt over two pulleys."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Belt(common.Toothed):
    """Driver and driven pulley; pitch, belt length and width are needed for drawing and fit alone."""

    kind: ClassVar[str] = "belt"
    driver_teeth: int = common.teeth()
    driven_teeth: int = common.teeth()
    pitch: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    belt_teeth: int | None = reading.whole(10, 5000, default=None)
    width: float | None = reading.quantity("length", above=0.0, default=None)
    profile: str | None = reading.choice(("curved", "trapezoidal"), default=None)
    efficiency: float | None = common.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of a synchronous belt."""
        return efficiencies.SYNCHRONOUS_BELT

    @property
    def sense(self) -> int:
        """An open belt keeps the sense."""
        return 1
