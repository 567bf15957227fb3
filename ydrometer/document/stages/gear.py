"""A pair of spur gears, external or internal, with or without idlers between them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Gear(common.Toothed):
    """Driver and driven gear; an idler changes no ratio: one more mesh of loss, one more reversal.

    Sizes (module or diametral pitch) are needed for drawing and fit alone.
    """

    kind: ClassVar[str] = "gear"
    driver_teeth: int = common.teeth()
    driven_teeth: int = common.teeth()
    idlers: tuple[int, ...] = reading.items(reading.whole_reader(common.LEAST_TEETH, common.MOST_TEETH))
    module: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    diametral_pitch: float | None = reading.quantity("diametral pitch", above=1.0, default=None)
    pressure_angle: float = reading.quantity("angle", above=0.0, at_most=0.8, default=0.3490658503988659)
    width: float | None = reading.quantity("length", above=0.0, default=None)
    internal: bool = reading.flag()
    efficiency: float | None = common.efficiency()

    @property
    def meshes(self) -> int:
        """Tooth contacts that power passes on its way."""
        return 1 + len(self.idlers)

    @property
    def default_efficiency(self) -> float:
        """Every mesh loses its share; the last one is the internal one where the driven gear is a ring."""
        last = efficiencies.INTERNAL_MESH if self.internal else efficiencies.EXTERNAL_MESH
        return float(last * efficiencies.EXTERNAL_MESH ** len(self.idlers))

    @property
    def sense(self) -> int:
        """Each external mesh reverses, an internal one does not."""
        external = self.meshes - self.internal
        return -1 if external % 2 else 1

    @property
    def tooth_size(self) -> float | None:
        """Module in metres, from whichever size was given (ISO 54: m = 25.4 mm / DP)."""
        return self.module if self.diametral_pitch is None else 1.0 / self.diametral_pitch

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What only shows in combination."""
        if self.module is not None and self.diametral_pitch is not None:
            yield "diametral_pitch", "given beside module", "give one of the two"
        innermost = self.idlers[-1] if self.idlers else self.driver_teeth
        if self.internal and self.driven_teeth <= innermost:
            yield (
                "driven_teeth",
                f"{self.driven_teeth} teeth cannot hold {innermost} inside",
                f"an internal gear needs more than {innermost} teeth",
            )
