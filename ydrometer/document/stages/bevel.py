"""A pair of bevel gears, which turns the axis."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Bevel(common.Toothed):
    """Driver and driven bevel gear on crossing axes."""

    kind: ClassVar[str] = "bevel"
    driver_teeth: int = common.teeth()
    driven_teeth: int = common.teeth()
    efficiency: float | None = common.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of one bevel mesh."""
        return efficiencies.BEVEL_MESH

    @property
    def sense(self) -> int:
        """Taken to keep the sense: on which side the driven gear is mounted decides it."""
        return 1
