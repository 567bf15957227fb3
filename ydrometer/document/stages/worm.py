"""A worm and its wheel."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.document.stages import fields, worm_build, worm_inside
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.inside import Inside
from ydrometer.document.stages.plane import OtherPlane


@dataclass(frozen=True, slots=True, kw_only=True)
class Worm(Box):
    """Known by its ratio; its efficiency depends so much on lead and oil that it must be given.

    It turns the axis, and the hand of the worm decides which way its wheel turns.
    """

    kind: ClassVar[str] = "worm"
    title: ClassVar[str] = "Worm"
    short: ClassVar[str] = "Worm"
    noun: ClassVar[str] = "worm"
    in_plane: ClassVar[OtherPlane] = OtherPlane()
    ratio_key: ClassVar[str] = "ratio"
    start: ClassVar[dict[str, object]] = {"ratio": 20, "efficiency": 0.6}

    ratio: float = fields.ratio_field()
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float = labelled("Efficiency", reading.quantity("ratio", above=0.0, at_most=1.0))

    @property
    def default_efficiency(self) -> float:
        """The given one: there is none to assume."""
        return self.efficiency

    def inside(self, height: float) -> Inside:
        """The worm across the shafts, its wheel end on: crossed axes turned into the plane."""
        return worm_inside.inside(height)

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Greased, then mounted."""
        return worm_build.jobs(hands)
