"""What is said of wheels that are made for a stage, not bought."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base import reading
from ydrometer.base.labels import labelled, parts

MOST = 2.0
"""m."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MadeWheel:
    """A wheel as it is made; `outside` is the diameter around a ring."""

    outside: float | None = labelled(
        "Outside diameter of the ring", reading.quantity("length", above=0.0, at_most=MOST, default=None)
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class MadeWheels:
    """The wheels of a stage that are made."""

    driven: MadeWheel | None = parts(MadeWheel, reading.nested(MadeWheel, default=None))
