"""A box of several speeds, changed up while driving."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, multi_speed_box_build, multi_speed_box_inside, started
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.inside import Inside
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.steps import Given, Step


@dataclass(frozen=True, slots=True, kw_only=True)
class MultiSpeedBox(Box):
    """`ratios` from the lowest gear up, so falling; a change takes `shift_time` without drive."""

    kind: ClassVar[str] = "speeds"
    title: ClassVar[str] = "Box of several speeds"
    short: ClassVar[str] = "Speeds"
    noun: ClassVar[str] = "box of several speeds"
    in_plane: ClassVar[Coaxial] = Coaxial()
    ratio_key: ClassVar[str] = "ratios"
    ratio_head: ClassVar[str] = "several speeds"
    whole_part: ClassVar[str] = "gearbox"
    several_speeds: ClassVar[bool] = True
    start: ClassVar[dict[str, Any]] = {"ratios": [3.2, 1.9, 1.2], "shift_time": "0.3 s"}

    ratios: tuple[float, ...] = labelled(
        "Ratios, the lowest gear first",
        reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1e6), least=1, most=12, required=True),
    )
    shift_time: float = labelled("Time of a change", reading.quantity("time", at_least=0.0, at_most=60.0, default=0.3))
    torque_rating: float | None = fields.torque_rating()
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """Of the lowest gear."""
        return self.ratios[0]

    @property
    def gears(self) -> tuple[float, ...]:
        """All of them."""
        return self.ratios

    @property
    def default_efficiency(self) -> float:
        """Of the pair engaged."""
        return efficiencies.SPEEDS

    @property
    def sizes_words(self) -> str:
        """Its ratios, the lowest gear first."""
        return " · ".join(f"{ratio:.6g}" for ratio in self.ratios)

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """The ratio of the gear engaged."""
        yield Given(f"i_{symbol}", f"ratio of gear {gear + 1}", f"ratios[{gear}]", self.ratios[gear])

    @classmethod
    def typed_ratio(cls, ratio: float) -> Any:
        """The usual gears, the lowest of this ratio and the others in proportion."""
        usual = cls.start["ratios"]
        return [started.short_ratio(ratio * gear / usual[0]) for gear in usual]

    def inside(self, height: float) -> Inside:
        """A pair of wheels for each gear, all at one centre distance."""
        return multi_speed_box_inside.inside(self.ratios, height)

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Mounted, then each gear engaged."""
        return multi_speed_box_build.jobs(hands, len(self.ratios))

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """The lowest gear, the largest ratio, comes first."""
        if any(not higher < lower for lower, higher in pairwise(self.ratios)):
            yield "ratios", "not falling", "give the lowest gear, the largest ratio, first"
