"""A pair of bevel gears, which turns the axis."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import bevel_build, fields, forms, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.plane import OtherPlane


@dataclass(frozen=True, slots=True, kw_only=True)
class Bevel(wheeled.Toothed):
    """Driver and driven bevel gear on crossing axes; on which side the driven one is mounted decides how it turns."""

    kind: ClassVar[str] = "bevel"
    title: ClassVar[str] = "Bevel gears"
    short: ClassVar[str] = "Bevel"
    noun: ClassVar[str] = "bevel gears"
    form: ClassVar[forms.Form] = forms.BEVEL
    in_plane: ClassVar[OtherPlane] = OtherPlane()
    start: ClassVar[dict[str, object]] = {"driver_teeth": 16, "driven_teeth": 32}

    driver_teeth: int = fields.teeth()
    driven_teeth: int = fields.teeth()
    efficiency: float | None = fields.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of one bevel mesh."""
        return efficiencies.BEVEL_MESH

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Shimmed, in line, turned."""
        return bevel_build.jobs(hands)

    @property
    def remark(self) -> str:
        """About teeth that keep meeting."""
        return wheeled.hunting_remark(self.driver_teeth, self.driven_teeth)
