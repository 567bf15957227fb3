"""What a placing is asked: shafts that are fixed, on holes or in slots, and the distances that they are held to."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from ydrometer.fit.along import Frame, Point, Reach


@dataclass(frozen=True, slots=True)
class PlacedShaft:
    """A shaft by its name, and where it may stand: on some of `holes`, m, one of which is a fixed shaft; or in a slot
    from `holes[0]` to `holes[1]`; or free, wherever it is at its best distance from two others.
    """

    name: str
    holes: tuple[Point, ...] = ()
    slot: bool = False
    free: bool = False


@dataclass(frozen=True, slots=True)
class PlacedPair:
    """Two shafts that a stage couples, by name, and the ranges of distances that suit it.

    `nearer` and `farther` say whether a larger tolerance may let them stand so.
    """

    first: str
    second: str
    reaches: tuple[Reach, ...]
    nearer: bool = True
    farther: bool = True

    def widened(self, give: float) -> PlacedPair:
        """The same with a tolerance that is larger by `give`, m."""
        low, high = give * self.nearer, give * self.farther
        return replace(self, reaches=tuple(replace(r, low=r.low - low, high=r.high + high) for r in self.reaches))


@dataclass(frozen=True, slots=True)
class Clear:
    """Two shafts, by name, that must stand at least so far apart, m: what turns on them would touch; and at most so
    far: a loop over a tensioner does not reach farther. Up to `within` they may stand after all: one inside of a ring.
    """

    first: str
    second: str
    least: float
    most: float = math.inf
    within: float = -math.inf


@dataclass(frozen=True, slots=True)
class Problem:
    """The whole problem: shafts, the pairs they form, and what they have to keep clear of."""

    shafts: tuple[PlacedShaft, ...]
    pairs: tuple[PlacedPair, ...]
    clears: tuple[Clear, ...] = ()
    frames: tuple[Frame, ...] = ()


@dataclass(frozen=True, slots=True)
class Placement:
    """One way to place all shafts.

    Attributes:
        at: where each shaft stands, m, by name. reaches: which reach each pair has, in the order of the pairs.
        error: sum of the distances from the best ones, m. room: the least way that a slot leaves to tighten, m.
        size: half the way around everything, m.
    """

    at: dict[str, Point]
    reaches: tuple[Reach, ...]
    error: float
    room: float
    size: float


@dataclass(frozen=True, slots=True)
class Relaxation:
    """One pair, by its place in the problem, whose tolerance would have to be larger by `extra`, m, for a solution.

    `placements` are those of a larger tolerance, the one that needs the least first.
    """

    pair: int
    extra: float
    placements: tuple[Placement, ...]


MOST = 10_000
"""Largest number of placements returned."""
MOST_GIVE = 5e-3
"""Largest extra tolerance that is tried, m."""
MOST_AT_ONCE = 200_000
"""Pairs of a partial placement and a place for the next shaft that are looked at in one step."""
MOST_IN_ALL = 1_200_000
"""Such pairs that a whole question may cost: about a second."""
SLOT_COST = 60
"""Such pairs that setting one slot takes as long as."""


@dataclass(slots=True)
class Effort:
    """What a question may still cost; counted, not timed, so that the answer is the same on every machine."""

    left: int = MOST_IN_ALL

    @property
    def over(self) -> bool:
        """Whether nothing more is to be begun."""
        return self.left <= 0

    @property
    def step(self) -> int:
        """Pairs that one step may look at."""
        return min(MOST_AT_ONCE, max(self.left, 0))

    def spend(self, pairs: int) -> None:
        """Count what was looked at."""
        self.left -= pairs
