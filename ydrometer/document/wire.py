"""A wire with its connector: from the battery to the controllers, or from one controller to its motor."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base import reading
from ydrometer.base.labels import strength
from ydrometer.base.tables.wires import INSULATIONS


@dataclass(frozen=True, slots=True, kw_only=True)
class Wire:
    """One conductor.

    Attributes:
        area: of its copper, m². bundled: with others, which it cannot give its heat to. insulation: PVC where it is not
        said. rating, connector_rating: what the makers say they carry for long, A.
    """

    area: float = strength("Area of its copper", reading.quantity("area", above=0.0, at_most=1e-2))
    bundled: bool = strength("Bundled with others", reading.flag())
    insulation: str | None = strength("Insulation", reading.choice(INSULATIONS, default=None))
    rating: float | None = strength("Maker's rating", reading.quantity("current", above=0.0, default=None))
    connector_rating: float | None = strength(
        "Connector's rating", reading.quantity("current", above=0.0, default=None)
    )
