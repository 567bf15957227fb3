"""A roller pressed on a tyre or a drum."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, forms, friction_build, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.plane import Contact

USUAL_FRICTION = 0.6
"""Friction of a dry rubber tyre on a knurled or sanded roller, to be assumed."""
USUAL_SLIP = 0.03
"""Share by which the driven rim lags under load, to be assumed."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Friction(wheeled.Slipping):
    """Two rims pressed on each other; they pass no more force than press force times friction (Coulomb's law)."""

    kind: ClassVar[str] = "friction"
    title: ClassVar[str] = "Friction roller"
    short: ClassVar[str] = "Roller"
    noun: ClassVar[str] = "friction roller"
    slip_key: ClassVar[str] = "slip"
    slip_noun: ClassVar[str] = "slip"
    form: ClassVar[forms.Form] = forms.ROLLER
    in_plane: ClassVar[Contact] = Contact("Pressed on, the roller turns the tyre by hand and does not skid.")
    minds_torque: ClassVar[bool] = True
    start: ClassVar[dict[str, object]] = {
        "driver_diameter": "30 mm",
        "driven_diameter": "200 mm",
        "press_force": "80 N",
    }

    driver_diameter: float = fields.diameter("Driver, diameter of the roller")
    driven_diameter: float = fields.diameter("Driven, diameter of the tyre or drum")
    press_force: float = labelled("Force that presses them together", reading.quantity("force", above=0.0))
    friction: float = labelled(
        "Friction (empty: assumed)",
        reading.quantity("ratio", above=0.0, at_most=5.0, default=USUAL_FRICTION, assumed=True),
    )
    slip: float = fields.slip_field("Slip (empty: assumed)", USUAL_SLIP)
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """Driven over driver diameter: slip takes no torque."""
        return self.driven_diameter / self.driver_diameter

    @property
    def default_efficiency(self) -> float:
        """Of a roller's torque; the speed lost by slip comes on top."""
        return efficiencies.FRICTION_ROLLER

    @property
    def rotation(self) -> int:
        """Rims that touch on their outsides turn against each other."""
        return -1

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Cleaned, in line, pressed on."""
        return friction_build.jobs(hands, self.press_force)

    def cautions(self, torque: float) -> Iterator[tuple[str, str]]:
        """The force at the rims, T/r, against what they pass."""
        wanted, held = 2.0 * torque / self.driver_diameter, self.press_force * self.friction
        if wanted > held:
            pressed = f"{self.press_force:.4g} N pressed on with a friction of {self.friction:.2g} pass {held:.0f} N"
            yield (
                "press_force",
                f"The roller slips: {wanted:.0f} N are wanted between the rims, {pressed}. It gets hot and wears a "
                "flat into the tyre: press harder, or gear it lower behind the roller.",
            )
