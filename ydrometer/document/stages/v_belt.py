"""A V-belt over two grooved pulleys."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.base.tables.strengths import SURFACES, V_FRICTION, WET
from ydrometer.document.stages import fields, forms, wheeled
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.stage import Reversal
from ydrometer.document.stages.strain import FORCE, Floats, Passing, Strain

USUAL_CREEP = 0.015
"""Share by which a driven V-pulley lags under load: middle of the usual 1 to 2 % (Budynas and Nisbett, Shigley's
Mechanical Engineering Design, chapter Flexible Mechanical Elements)."""
PUT_ON, TIGHTEN = 0.015, 0.03
"""Changes of the way around to put a V-belt on and to tighten it, as shares of its length (DIN 2218, Endless V-belts:
Calculation of drives)."""
USUAL_SURFACE = "pressed steel"
USUAL_GROOVE = math.radians(38.0)
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

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """Where it slips: Ft against 2·(Fi − c)·(e^x − 1)/(e^x + 1), x = mu·wrap/sin(groove/2) (capstan equation with
        wedge: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Flexible mechanical elements).
        """
        loop, radius = passing.loop, 0.5 * self.driver_pitch_diameter
        assumed = [f"friction of a belt on {self.surface or USUAL_SURFACE}"]
        assumed += [] if self.groove_angle else [f"groove of {math.degrees(USUAL_GROOVE):.0f} degrees"]
        assumed += [loop.assumed] if loop.assumed else []
        force, share = passing.tangential(radius), self._held(passing)
        needs = () if loop.tension else (f"{loop.path}.tension",)
        if share is None:
            yield Strain("v_belt_slip", FORCE, force, None, "", tuple(assumed), needs)
            return
        capacity = None if loop.tension is None else 2.0 * (loop.tension - passing.flung(radius)) * share
        told = {"needs_tension": self._needed(passing, share)}
        yield Strain("v_belt_slip", FORCE, force, capacity, "", tuple(assumed), needs, (), told)

    def pull(self, passing: Passing) -> Floats | None:
        """Both runs together: twice the tension at rest, or the whole pull where the slack run has none left."""
        share = self._held(passing)
        if share is None:
            return None
        rest = passing.loop.tension or self._needed(passing, share)
        force = passing.tangential(0.5 * self.driver_pitch_diameter)
        return np.maximum(2.0 * rest, force) * math.cos(passing.loop.lean)

    def _held(self, passing: Passing) -> float | None:
        """What is passed as a share of the sum of both tensions just before it slips; None where no wrap is known."""
        if passing.loop.wraps is None:
            return None
        friction = V_FRICTION[self.surface or USUAL_SURFACE] * (WET if passing.wet else 1.0)
        groove = self.groove_angle or USUAL_GROOVE
        grown = math.exp(friction * min(passing.loop.wraps) / math.sin(0.5 * groove))
        return (grown - 1.0) / (grown + 1.0)

    def _needed(self, passing: Passing, share: float) -> Floats:
        """Tension at rest that just holds, N, (m,)."""
        radius = 0.5 * self.driver_pitch_diameter
        return 0.5 * passing.tangential(radius) / share + passing.flung(radius)
