"""A V-belt over two grooved pulleys."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.base.tables.strengths import SURFACES
from ydrometer.document.stages import fields, forms, wheeled
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.stage import Reversal

USUAL_CREEP = 0.015
"""Share by which a driven V-pulley lags under load: middle of the usual 1 to 2 % (Budynas and Nisbett, Shigley's
Mechanical Engineering Design, chapter Flexible Mechanical Elements)."""
PUT_ON, TIGHTEN = 0.015, 0.03
"""Changes of the way around to put a V-belt on and to tighten it, as shares of its length (DIN 2218, Endless V-belts:
Calculation of drives)."""
STRAIGHT = 0.0087
"""How far off the straight edge a V-pulley may be: half a degree (makers' manuals)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class VBelt(wheeled.Slipping):
    """Works on pitch diameters, where the belt runs, not on those of the rims."""

    kind: ClassVar[str] = "v_belt"
    title: ClassVar[str] = "V-belt"
    short: ClassVar[str] = "V-belt"
    noun: ClassVar[str] = "V-belt"
    slip_key: ClassVar[str] = "creep"
    slip_noun: ClassVar[str] = "creep"
    form: ClassVar[forms.Form] = forms.GROOVED
    in_plane: ClassVar[Loop] = Loop(
        part="v_belt",
        noun="V-belt",
        put_on_share=PUT_ON,
        tighten_share=TIGHTEN,
        straight=STRAIGHT,
        check="At mid-span finger and thumb can just turn it by a quarter turn.",
    )
    start: ClassVar[dict[str, object]] = {"driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "150 mm"}

    driver_pitch_diameter: float = fields.diameter("Driver, running diameter")
    driven_pitch_diameter: float = fields.diameter("Driven, running diameter")
    creep: float = fields.slip_field("Creep (empty: assumed)", USUAL_CREEP)
    surface: str | None = reading.choice(SURFACES, default=None)
    groove_angle: float | None = reading.quantity("angle", above=0.0, at_most=0.5 * math.pi, default=None)
    crossed: bool = labelled("Crossed", reading.flag())
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """Driven over driver pitch diameter: creep takes no torque."""
        return self.driven_pitch_diameter / self.driver_pitch_diameter

    @property
    def slip(self) -> float:
        """The creep."""
        return self.creep

    @property
    def default_efficiency(self) -> float:
        """Of a V-belt's torque; the speed lost by creep comes on top."""
        return efficiencies.V_BELT

    @property
    def rotation(self) -> int:
        """A crossed belt reverses."""
        return -1 if self.crossed else 1

    def reversals(self) -> Iterator[Reversal]:
        """Crossed or not."""
        yield Reversal("Uncross the V-belt." if self.crossed else "Cross the V-belt.", "crossed", not self.crossed)
