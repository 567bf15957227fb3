"""A bought gearbox, known by its ratio alone."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, stage
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.strain import Passing, Strain


@dataclass(frozen=True, slots=True, kw_only=True)
class Gearbox(stage.Stage):
    """A closed box; its output is taken to turn as its input does, which the maker's drawing confirms."""

    kind: ClassVar[str] = "gearbox"
    title: ClassVar[str] = "Gearbox"
    short: ClassVar[str] = "Gearbox"
    noun: ClassVar[str] = "gearbox"
    in_plane: ClassVar[Coaxial] = Coaxial()
    whole_part: ClassVar[str] = "gearbox"
    start: ClassVar[dict[str, object]] = {"ratio": 4}

    ratio: float = fields.ratio_field()
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

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
        """Of the whole box."""
        return efficiencies.GEARBOX
