"""The `loads` section of a design: how its load comes, whether it is wet, and the day it goes through."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.tables.strengths import APPLICATION

LONGEST = 1e6
"""s that a phase may take."""


def _time() -> Any:
    return reading.quantity("time", above=0.0, at_most=LONGEST)


@dataclass(frozen=True, slots=True, kw_only=True)
class Runs:
    """The run from rest to its distance, `count` times, one `every` so many seconds."""

    do: ClassVar[str] = "runs"
    count: int = reading.whole(1, 1000)
    every: float = _time()


@dataclass(frozen=True, slots=True, kw_only=True)
class Lasting:
    """A phase that is the same for so many seconds."""

    do: ClassVar[str]
    lasts: float = reading.called("for", _time())


class Cruise(Lasting):
    """At top speed."""

    __slots__ = ()
    do: ClassVar[str] = "cruise"


class Shove(Lasting):
    """Against a wall."""

    __slots__ = ()
    do: ClassVar[str] = "shove"


class Turns(Lasting):
    """Turning on the spot."""

    __slots__ = ()
    do: ClassVar[str] = "turns"


class Rest(Lasting):
    """Nothing."""

    __slots__ = ()
    do: ClassVar[str] = "rest"


Phase = Runs | Cruise | Shove | Turns | Rest
PHASES: dict[str, type] = {"runs": Runs, "cruise": Cruise, "shove": Shove, "turns": Turns, "rest": Rest}

USUAL_HOURS = 50.0 * 3600.0
"""s of driving that bearings last, where nobody says how long they have to."""
MOST_HOURS = 1e5 * 3600.0
"""s of driving that may be asked for."""
USUAL_DAY: tuple[Phase, ...] = (Runs(count=4, every=30.0), Shove(lasts=4.0), Rest(lasts=600.0))
"""Assumed where none is given."""
USUAL_HEATS = 3
"""Assumed with the usual day."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Loads:
    """Attributes:
    service: how the load comes, "light" where it is not given. wet: whether the pulleys are. day: its phases in order;
    a usual one where there is none. reverses: whether it is thrown from full speed into full reverse; where it is
    not said, what turns by two sides of motors does. hours: of driving that its bearings last, s. heats: how often the
    whole day is gone through, once where it is not given.
    """

    service: str | None = reading.choice(tuple(APPLICATION["motor"]), default=None)
    wet: bool = reading.flag()
    reverses: bool | None = reading.flag(None)
    hours: float | None = reading.quantity("time", above=0.0, at_most=MOST_HOURS, default=None)
    day: tuple[Phase, ...] = reading.items(reading.kind_reader(PHASES, key="do"))
    heats: int | None = reading.whole(1, 200, default=None)
