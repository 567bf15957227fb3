"""How a wheel is held on its shaft, so that the one turns with the other."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base import reading
from ydrometer.base.labels import strength
from ydrometer.base.tables.screws import SIZES
from ydrometer.base.tables.strengths import MATERIAL_NAMES

WAYS = ("key", "set screw", "clamp", "press")
MOST_SCREWS = 4
SCREWED = ("set screw", "clamp")


@dataclass(frozen=True, slots=True, kw_only=True)
class Hub:
    """How one wheel is held.

    Attributes:
        by: key, set screw, clamp or press. bore: m; that of the shaft it is on where it is not given. length: of the
        straight part of a key, m. screw, count: size and number of its screws. flat: whether a set screw stands on a
        flat. torque: what its maker says it passes, N·m; it goes before all that is worked out. material: of the hub;
        that of a gear, else steel, where it is not given. key_material: steel where it is not given.
    """

    by: str = strength("Held by", reading.choice(WAYS))
    bore: float | None = strength("Bore", reading.quantity("length", above=0.0, at_most=1.0, default=None))
    length: float | None = strength(
        "Length of its key", reading.quantity("length", above=0.0, at_most=1.0, default=None)
    )
    screw: str | None = strength("Screw", reading.choice(SIZES, default=None))
    count: int = strength("Screws", reading.whole(1, MOST_SCREWS, default=1))
    flat: bool = strength("Screw on a flat", reading.flag())
    torque: float | None = strength("Torque that its maker allows", reading.quantity("torque", above=0.0, default=None))
    material: str | None = strength("Material of the hub", reading.choice(MATERIAL_NAMES, default=None))
    key_material: str | None = strength("Material of its key", reading.choice(MATERIAL_NAMES, default=None))

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Screws belong to what is screwed, a length to a key."""
        if self.screw is not None and self.by not in SCREWED:
            yield "screw", f"given for a hub held by a {self.by}", "leave it out, or say what holds it"
        if self.length is not None and self.by != "key":
            yield "length", f"given for a hub held by a {self.by}", "leave it out: it is the length of a key"
