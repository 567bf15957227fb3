"""A V-belt over two grooved pulleys."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common

USUAL_CREEP = 0.015
"""Share by which a driven V-pulley lags under load: middle of the 1 to 2 % of texts on machine design."""


@dataclass(frozen=True, slots=True, kw_only=True)
class VBelt:
    """Works on pitch diameters, where the belt runs, not on those of the rims."""

    kind: ClassVar[str] = "v_belt"
    driver_pitch_diameter: float = reading.quantity("length", above=0.0, at_most=10.0)
    driven_pitch_diameter: float = reading.quantity("length", above=0.0, at_most=10.0)
    creep: float = reading.quantity("ratio", at_least=0.0, at_most=0.5, default=USUAL_CREEP, assumed=True)
    crossed: bool = reading.flag()
    efficiency: float | None = common.efficiency()

    @property
    def ratio(self) -> float:
        """Driven over driver pitch diameter: creep takes no torque."""
        return self.driven_pitch_diameter / self.driver_pitch_diameter

    @property
    def speed_ratio(self) -> float:
        """The driven pulley turns slower by the creep: i/(1 − creep)."""
        return self.ratio / (1.0 - self.creep)

    @property
    def default_efficiency(self) -> float:
        """Of a V-belt, its creep included."""
        return efficiencies.V_BELT

    @property
    def sense(self) -> int:
        """A crossed belt reverses."""
        return -1 if self.crossed else 1
