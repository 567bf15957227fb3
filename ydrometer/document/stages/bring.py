"""What a part of the bin says of the stage that takes it, besides its teeth."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base.tables.strengths import MATERIAL_NAMES


@dataclass(frozen=True, slots=True)
class Bring:
    """One value that comes along.

    Attributes:
        part: kind of the part. key: where it says it. to: key of the stage, with {member} for the wheel that it
        becomes. among: values that may come along; all where it is empty. keeps: whether what the stage says already
        stays.
    """

    part: str
    key: str
    to: str
    among: tuple[str, ...] = ()
    keeps: bool = False


GEARS = (
    Bring("gear", "material", "{member}_material", among=MATERIAL_NAMES),
    Bring("gear", "allowed_stress", "{member}_allowed_stress"),
    Bring("gear", "width", "width", keeps=True),
)
"""A stage is as wide as the first of its two wheels that says so."""
BELTS = tuple(Bring("belt", key, key) for key in ("width", "profile", "allowed_force_per_width"))
CHAINS = (Bring("chain", "breaking_load", "breaking_load"),)
BOXES = tuple(Bring("gearbox", key, key) for key in ("efficiency", "torque_rating", "max_speed"))
STACKS = tuple(Bring("gearbox", key, key) for key in ("efficiency", "torque_ratings", "max_speed"))


def brought(brings: Iterable[Bring], part: Mapping[str, Any], member: str = "") -> dict[str, Any]:
    """What a part, as typed, brings to a stage that says nothing yet, by the stage's keys.

    Args:
        brings: of the stage's kind.
        part: of the bin.
        member: the wheel that it becomes; empty of a whole stage or of what runs around.
    """
    found = {}
    for bring in brings:
        value = part.get(bring.key)
        if bring.part == part.get("kind") and value is not None and (not bring.among or value in bring.among):
            found[bring.to.format(member=member)] = value
    return found
