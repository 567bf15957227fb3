"""A stack of planetary steps with their rings held."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, stage
from ydrometer.document.stages.plane import Coaxial


@dataclass(frozen=True, slots=True, kw_only=True)
class Planetary(stage.Stage):
    """`reductions` from the motor end on; each step is one stage of loss, and keeps the turning sense."""

    kind: ClassVar[str] = "planetary"
    title: ClassVar[str] = "Planetary stack"
    short: ClassVar[str] = "Planetary"
    noun: ClassVar[str] = "planetary stack"
    in_plane: ClassVar[Coaxial] = Coaxial()
    whole_part: ClassVar[str] = "gearbox"
    start: ClassVar[dict[str, object]] = {"reductions": [4, 3]}

    reductions: tuple[float, ...] = labelled(
        "Reductions, from the motor on",
        reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1000.0), least=1, most=12, required=True),
    )
    torque_ratings: tuple[float | None, ...] = reading.items(
        reading.or_null(reading.quantity_reader("torque", above=0.0)), most=12
    )
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """The product of the steps."""
        return math.prod(self.reductions)

    @property
    def default_efficiency(self) -> float:
        """Every step loses its share."""
        return float(efficiencies.PLANETARY_STEP ** len(self.reductions))

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A rating a step."""
        if self.torque_ratings and len(self.torque_ratings) != len(self.reductions):
            given = f"{len(self.torque_ratings)} ratings given for {len(self.reductions)} steps"
            yield "torque_ratings", given, "give one a step, null where it is not known"
