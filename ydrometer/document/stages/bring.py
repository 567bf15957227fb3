"""What a part of the bin says of the stage that takes it, besides its teeth."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base.tables.strengths import MATERIAL_NAMES


@dataclass(frozen=True, slots=True)
class Bring:
    """One value that comes along.

    Attributes:
        part: kind of the part. key: where it says it. to: key of the stage, with {member} for the wheel that it
        becomes. among: values that may come along; all where it is empty. narrower: of what the stage says already and
        what the part says the smaller one holds. head: what a table of parts calls it, where that is not its key.
        each: kind of quantity of the entries of a list.
    """

    part: str
    key: str
    to: str
    among: tuple[str, ...] = ()
    narrower: bool = False
    head: str = ""
    each: str = ""

    def of(self, part: Mapping[str, Any]) -> Any:
        """The value that a part, as typed, brings; None where it brings none."""
        value = part.get(self.key)
        return None if self.among and value not in self.among else value


GEARS = (
    Bring("gear", "material", "{member}_material", among=MATERIAL_NAMES),
    Bring("gear", "allowed_stress", "{member}_allowed_stress"),
    Bring("gear", "allowed_contact", "{member}_allowed_contact"),
    Bring("gear", "width", "width", narrower=True),
)
"""A stage is as wide as the narrower of its two wheels."""
BELTS = tuple(Bring("belt", key, key) for key in ("width", "profile", "allowed_force_per_width"))
CHAINS = tuple(Bring("chain", key, key) for key in ("breaking_load", "max_speed"))
BOXES = (
    Bring("gearbox", "efficiency", "efficiency"),
    Bring("gearbox", "torque_rating", "torque_rating"),
    Bring("gearbox", "max_speed", "max_speed", head="highest speed"),
)
STACKS = (
    Bring("gearbox", "efficiency", "efficiency"),
    Bring("gearbox", "torque_ratings", "torque_ratings", head="rating of each step", each="torque"),
    Bring("gearbox", "max_speed", "max_speed", head="highest speed"),
)


def of_wheel(brings: Iterable[Bring], part: str) -> Iterator[Bring]:
    """What parts of a kind bring.

    Args:
        brings: of a kind of stage.
        part: the kind of parts.
    """
    return (bring for bring in brings if bring.part == part)
