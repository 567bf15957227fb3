"""A toothed (synchronous) belt over two pulleys."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, forms, wheeled
from ydrometer.document.stages.plane import Loop

LEAST_IN_MESH = 6
"""Teeth of a small pulley below which a toothed belt is rated lower (makers' manuals of synchronous drives)."""
PUT_ON = 1.0
"""Pitches by which the shafts have to come nearer, for a belt to be lifted over the teeth (makers' manuals)."""
TIGHTEN = 0.002
"""Share of its length by which the way around has to be longer to tighten a belt (makers' manuals)."""
STRAIGHT = 0.0044
"""How far off the straight edge a pulley may be: a quarter of a degree (makers' manuals)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Belt(wheeled.Toothed):
    """Driver and driven pulley; pitch, belt length and width are needed for drawing and fit alone."""

    kind: ClassVar[str] = "belt"
    title: ClassVar[str] = "Toothed belt"
    short: ClassVar[str] = "Belt"
    noun: ClassVar[str] = "toothed belt"
    form: ClassVar[forms.Form] = forms.PULLEY
    in_plane: ClassVar[Loop] = Loop(
        part="belt",
        noun="belt",
        pieces="teeth",
        pieces_key="belt_teeth",
        least_in_mesh=LEAST_IN_MESH,
        put_on_pieces=PUT_ON,
        tighten_share=TIGHTEN,
        straight=STRAIGHT,
        check="At mid-span finger and thumb can just turn it by a quarter turn.",
    )
    start: ClassVar[dict[str, object]] = {"driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm", "belt_teeth": 84}

    driver_teeth: int = fields.teeth()
    driven_teeth: int = fields.teeth()
    pitch: float | None = fields.pitch()
    belt_teeth: int | None = labelled("Teeth of the belt", reading.whole(10, 5000, default=None))
    width: float | None = fields.width()
    allowed_force_per_width: float | None = reading.quantity("force per width", above=0.0, default=None)
    profile: str | None = reading.choice(("curved", "trapezoidal"), default=None)
    efficiency: float | None = fields.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of a synchronous belt."""
        return efficiencies.SYNCHRONOUS_BELT

    @property
    def tooth_size(self) -> float | None:
        """The pitch."""
        return self.pitch

    @property
    def loop_length(self) -> float | None:
        """Of the belt: pieces times pitch."""
        return None if self.belt_teeth is None or self.pitch is None else self.belt_teeth * self.pitch

    @property
    def loop_width(self) -> float | None:
        """The width of the belt."""
        return self.width

    @property
    def lacking(self) -> str:
        """Without a pitch nobody knows how large its pulleys are."""
        return "no pitch given" if self.pitch is None else ""
