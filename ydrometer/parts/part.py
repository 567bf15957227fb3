"""What all parts of a bin have in common, and those that sit on a shaft or run around wheels."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.tables.fatigue import SHAPES
from ydrometer.document.stages.forms import Form

LONGEST_ID = 80
SUNDRIES = (
    "screws",
    "washer",
    "lock nut",
    "lock washer",
    "dowel",
    "key",
    "collar",
    "coupling",
    "joining link",
    "offset link",
    "fuse",
    "switch",
    "strap",
    "cable ties",
    "locker",
    "grease",
    "retaining compound",
    "shims",
    "guard",
    "brake",
    "throttle",
    "shaft",
    "plate",
    "eccentric bush",
    "tensioner",
    "track",
    "track sprocket",
    "other",
)
"""Small things that a build needs besides its parts."""


MOST_OWNED = 10_000
YEAR_S = 366 * 24 * 3600.0
"""s; nobody waits longer for a part."""


def optional_length() -> Any:
    """A length above 0 that need not be known."""
    return reading.quantity("length", above=0.0, at_most=10.0, default=None)


def needed_length() -> Any:
    """A length above 0 without which the part cannot be told."""
    return reading.quantity("length", above=0.0, at_most=10.0)


def shape() -> Any:
    """The shape of a bore or a shaft."""
    return reading.choice(SHAPES, default="round")


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """What every part has: its id, how many are owned, what one costs, what it weighs, how long an order takes."""

    kind: ClassVar[str]
    id: str = reading.text(longest=LONGEST_ID)
    name: str = reading.line(longest=200)
    owned: int = reading.whole(0, MOST_OWNED, default=0)
    price: float | None = reading.quantity("price", at_least=0.0, default=None)
    mass: float | None = reading.quantity("mass", at_least=0.0, default=None)
    lead_time: float | None = reading.quantity("lead time", at_least=0.0, at_most=YEAR_S, default=None)
    note: str = reading.text()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A part is told by its id."""
        if not self.id:
            yield "id", "missing", "give each part a text of its own"


@dataclass(frozen=True, slots=True, kw_only=True)
class OnShaft(Part):
    """What sits on a shaft with a bore."""

    width: float | None = optional_length()
    bore: float | None = optional_length()
    bore_shape: str = shape()


class PowerWheel(OnShaft):
    """A wheel that passes power on, told by its teeth and their size, or by a diameter."""

    __slots__ = ()
    form: ClassVar[Form]

    @property
    def tooth_size(self) -> float:
        """Module or pitch, m; 0 where it has no teeth."""
        return 0.0

    @property
    def measure(self) -> float:
        """Teeth, or a diameter, m."""
        given: float = getattr(self, self.form.measure)
        return given

    @property
    def rim(self) -> float | None:
        """Diameter over flanges or rim, m, where it is known."""
        return None


class AroundPart(Part):
    """What runs around wheels, by its length."""

    __slots__ = ()

    @property
    def around(self) -> float | None:
        """Its length, m; None where it is not cut to one."""
        raise NotImplementedError

    @property
    def loop_pitch(self) -> float:
        """Its pitch, m; 0 where it has none."""
        return 0.0
