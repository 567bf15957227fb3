"""The vehicle and the ground it stands on: masses, wheels, resistance, grip and brakes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

from ydrometer.base import reading
from ydrometer.base.labels import parts, strength
from ydrometer.base.tables.strengths import MATERIAL_NAMES

GEOMETRY = ("wheelbase", "cg_ahead_of_rear", "cg_height")
STEEPEST = 3.0
"""Of a slope, up or down: rise over run."""


class Geometry(NamedTuple):
    """Where the weight sits, in metres: wheelbase L, centre of mass b ahead of the rear axle, height h."""

    wheelbase: float
    ahead_of_rear: float
    height: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Axle:
    """What a road wheel turns on, or with.

    Attributes:
        diameter: m. overhang: from its bearing to the middle of the wheel, m. material, yield_strength: Pa; the second
        goes before the first. live: whether it turns with the wheel and brings it its torque.
    """

    diameter: float = strength("Diameter", reading.quantity("length", above=0.0, at_most=1.0))
    overhang: float = strength(
        "From its bearing to the middle of the wheel", reading.quantity("length", above=0.0, at_most=10.0)
    )
    material: str | None = strength("Material", reading.choice(MATERIAL_NAMES, default=None))
    yield_strength: float | None = strength(
        "Yield strength", reading.called("yield", reading.quantity("stress", above=0.0, default=None))
    )
    live: bool = strength("Turns with the wheel and drives it", reading.flag())


@dataclass(frozen=True, slots=True, kw_only=True)
class Vehicle:
    """All-up mass is mass + payload; the diameter is the loaded rolling diameter of the driven wheels.

    `tracks` are those that it runs on in place of wheels; their driving sprockets then have that diameter.
    """

    mass: float = reading.quantity("mass", above=0.0)
    payload: float = reading.quantity("mass", at_least=0.0, default=0.0)
    wheel_diameter: float = reading.quantity("length", above=0.0)
    wheels_inertia: float = reading.quantity("inertia", at_least=0.0, default=0.0)
    driven: str = reading.choice(("all", "rear", "front"))
    driven_share: float | None = reading.quantity("ratio", above=0.0, at_most=1.0, default=None)
    wheelbase: float | None = reading.quantity("length", above=0.0, default=None)
    cg_ahead_of_rear: float | None = reading.quantity("length", default=None)
    cg_height: float | None = reading.quantity("length", above=0.0, default=None)
    rolling_resistance: float = reading.quantity("ratio", at_least=0.0, at_most=1.0, default=0.02, assumed=True)
    fixed_drag: float = reading.quantity("force", at_least=0.0, default=0.0)
    drag_area: float = reading.quantity("area", at_least=0.0, default=0.0)
    grip: float = reading.quantity("ratio", above=0.0, at_most=5.0, default=0.8, assumed=True)
    brake_force: float | None = reading.quantity("force", above=0.0, default=None)
    track: float | None = reading.quantity("length", above=0.0, default=None)
    sight: float | None = reading.quantity("distance", above=0.0, default=None)
    braked_share: float = reading.quantity("ratio", above=0.0, at_most=1.0, default=1.0)
    wheels: int = reading.whole(2, 12, default=4)
    tracks: int = reading.whole(0, 4, default=0)
    axle: Axle | None = parts(Axle, reading.nested(Axle, default=None))

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What only shows in combination."""
        ahead, base = self.cg_ahead_of_rear, self.wheelbase
        if ahead is not None and not 0.0 < ahead < (base or math.inf):
            yield "cg_ahead_of_rear", f"{ahead:g} m given", "the centre of mass lies between the axles"
        if self.driven_share is not None and self.geometry is not None:
            yield (
                "driven_share",
                "given beside wheelbase, cg_ahead_of_rear and cg_height",
                "give the share for a plain estimate, or the three lengths",
            )
        if self.driven != "all" and self.driven_share is None:
            for key in GEOMETRY:
                if getattr(self, key) is None:
                    yield key, f"missing for {self.driven} drive", "give it, or driven_share for a plain estimate"

    @property
    def driven_wheels(self) -> int:
        """How many of its wheels are driven: all, or those of one axle, the half of them."""
        return self.wheels if self.driven == "all" and self.driven_share is None else max(1, self.wheels // 2)

    @property
    def total_mass(self) -> float:
        """All-up mass, kg."""
        return self.mass + self.payload

    @property
    def geometry(self) -> Geometry | None:
        """The three lengths where all are given."""
        if self.wheelbase is None or self.cg_ahead_of_rear is None or self.cg_height is None:
            return None
        return Geometry(self.wheelbase, self.cg_ahead_of_rear, self.cg_height)


@dataclass(frozen=True, slots=True, kw_only=True)
class Conditions:
    """Slope (rise over run), air density in kg/m³ and ambient temperature in K."""

    grade: float = reading.quantity("grade", at_least=-STEEPEST, at_most=STEEPEST, default=0.0)
    air_density: float = reading.quantity("density", above=0.0, at_most=100.0, default=1.2)
    ambient: float = reading.quantity("temperature", above=0.0, default=298.15)
