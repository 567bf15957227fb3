"""A bought gearbox, known by its ratio alone."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.plane import Coaxial


@dataclass(frozen=True, slots=True, kw_only=True)
class Gearbox(Box):
    """A closed box; its output is taken to turn as its input does, which the maker's drawing confirms."""

    kind: ClassVar[str] = "gearbox"
    title: ClassVar[str] = "Gearbox"
    short: ClassVar[str] = "Gearbox"
    noun: ClassVar[str] = "gearbox"
    in_plane: ClassVar[Coaxial] = Coaxial()
    ratio_key: ClassVar[str] = "ratio"
    whole_part: ClassVar[str] = "gearbox"
    start: ClassVar[dict[str, object]] = {"ratio": 4}

    ratio: float = fields.ratio_field()
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of the whole box."""
        return efficiencies.GEARBOX
