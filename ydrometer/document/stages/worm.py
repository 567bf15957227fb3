"""A worm and its wheel."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.document.stages import fields, stage
from ydrometer.document.stages.plane import OtherPlane
from ydrometer.document.stages.strain import Passing, Strain


@dataclass(frozen=True, slots=True, kw_only=True)
class Worm(stage.Stage):
    """Known by its ratio; its efficiency depends so much on lead and oil that it must be given.

    It turns the axis, and the hand of the worm decides which way its wheel turns.
    """

    kind: ClassVar[str] = "worm"
    title: ClassVar[str] = "Worm"
    short: ClassVar[str] = "Worm"
    noun: ClassVar[str] = "worm"
    in_plane: ClassVar[OtherPlane] = OtherPlane()
    start: ClassVar[dict[str, object]] = {"ratio": 20, "efficiency": 0.6}

    ratio: float = fields.ratio_field()
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float = labelled("Efficiency", reading.quantity("ratio", above=0.0, at_most=1.0))

    @property
    def is_box(self) -> bool:
        """A maker rates it."""
        return True

    @property
    def rated_speed(self) -> float | None:
        """As its maker says."""
        return self.max_speed

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The torque at its output."""
        yield stage.box_strain(self, passing, self.torque_rating)

    @property
    def default_efficiency(self) -> float:
        """The given one: there is none to assume."""
        return self.efficiency
