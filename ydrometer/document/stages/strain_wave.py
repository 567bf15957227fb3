"""A strain wave gear: an oval turns a thin toothed ring inside a rigid one that has two teeth more."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import box_build, fields
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.inside import WALL, BoxPart, Inside
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.steps import Derived, Given, Step

MORE = 2
"""Teeth that the rigid ring has more: the oval meets it at two places."""
LEAST_TEETH, MOST_TEETH = 40, 400
OVAL = 0.06
"""By what share the oval is longer, and narrower, than a circle; drawn larger than it is, to be seen."""
POINTS = 72


@dataclass(frozen=True, slots=True, kw_only=True)
class StrainWave(Box):
    """With the rigid ring held, z/2 turns of the oval turn the flexible ring of z teeth once, the other way.

    The flexible ring falls back by the two teeth that it lacks with each turn of the oval (a planetary train of one
    planet nearly as large as its ring: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Gears:
    General, section Gear trains).
    """

    kind: ClassVar[str] = "strain_wave"
    title: ClassVar[str] = "Strain wave gear"
    short: ClassVar[str] = "Strain wave"
    noun: ClassVar[str] = "strain wave gear"
    in_plane: ClassVar[Coaxial] = Coaxial()
    ratio_key: ClassVar[str] = "flexible_teeth"
    ratio_head: ClassVar[str] = "teeth, strain wave"
    whole_part: ClassVar[str] = "gearbox"
    start: ClassVar[dict[str, Any]] = {"flexible_teeth": 100}

    flexible_teeth: int = labelled("Teeth of the flexible ring", reading.whole(LEAST_TEETH, MOST_TEETH))
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """Half the teeth of the flexible ring."""
        return self.flexible_teeth / MORE

    @property
    def exact_ratio(self) -> Fraction | None:
        """A fraction of whole teeth."""
        return Fraction(self.flexible_teeth, MORE)

    @property
    def default_efficiency(self) -> float:
        """Of a greased one under load."""
        return efficiencies.STRAIN_WAVE

    @property
    def rotation(self) -> int:
        """The flexible ring falls back."""
        return -1

    @classmethod
    def typed_ratio(cls, ratio: float) -> Any:
        """Twice as many teeth, which come in whole numbers."""
        return min(max(LEAST_TEETH, round(MORE * ratio)), MOST_TEETH)

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """Half the teeth of the flexible ring."""
        words = f"{self.noun}: teeth of its flexible ring"
        yield Given(f"z_{symbol}", words, "flexible_teeth", float(self.flexible_teeth))
        yield Derived(f"i_{symbol}", f"ratio of the {self.noun}", f"z_{symbol}/{MORE}")

    def inside(self, height: float) -> Inside:
        """The rigid ring, the flexible one pressed into an oval, and what turns it."""
        ring, middle = 0.5 * height / WALL, 0.5 * height
        angles = tuple(2.0 * math.pi * k / POINTS for k in range(POINTS))
        radii = tuple(ring * (1.0 - OVAL + OVAL * math.cos(2.0 * angle)) for angle in angles)
        turner = tuple(0.75 * radius for radius in radii)
        parts = (
            BoxPart("rim", 0, middle, 0.0, ring),
            BoxPart("outline", 0, middle, 0.0, ring, radii, angles),
            BoxPart("outline", 0, middle, 0.0, 0.75 * ring, turner, angles),
            BoxPart("solid", 0, middle, 0.0, 0.2 * ring),
        )
        return Inside(height, height, parts, (self.ratio,))

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Mounted as a closed box."""
        return box_build.jobs(hands, self.noun)
