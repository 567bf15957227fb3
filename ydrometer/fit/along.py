"""Where a shaft can be set along its slot: intervals in closed form, and the best place in them.

The distance from a point at the height h over the slot's line and with its foot at f is sqrt((s − f)² + h²) at the
setting s: a range of distances is one interval or two, and what has to be kept clear of takes one away.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise, product

Point = tuple[float, float]
Interval = tuple[float, float]
NOISE = 1e-9
"""Distances closer than this count as equal, m."""


@dataclass(frozen=True, slots=True)
class Reach:
    """A range of distances, m, that suits a pair, the best one, and what it stands for, such as a belt's length."""

    low: float
    high: float
    best: float
    name: str = ""

    def off(self, distance: float) -> float:
        """By how much a distance misses it, m; 0 where it suits."""
        return max(0.0, self.low - distance, distance - self.high)


def off_all(reaches: Sequence[Reach], distance: float) -> float:
    """By how much a distance misses all of some ranges, m; 0 where it suits one, or where there are none."""
    return min((reach.off(distance) for reach in reaches), default=0.0)


@dataclass(frozen=True, slots=True)
class Frame:
    """A frame line, m, from which a shaft, by name, must stand at least so far, m."""

    shaft: str
    start: Point
    end: Point
    least: float


@dataclass(frozen=True, slots=True)
class _Seen:
    """A point as seen from a slot: the foot of its perpendicular as a setting, m, and its height over the line, m."""

    foot: float
    height: float

    def distance(self, setting: float) -> float:
        return math.hypot(setting - self.foot, self.height)

    def within(self, radius: float) -> Interval | None:
        """The settings that are not farther than a radius, m; None where the line does not come so near."""
        if radius < abs(self.height):
            return None
        half = math.sqrt(radius**2 - self.height**2)
        return self.foot - half, self.foot + half

    def between(self, near: float, far: float) -> list[Interval]:
        """The settings that are farther than one radius and not farther than another, m: on both sides of the foot."""
        outer, inner = self.within(far), self.within(near)
        if outer is None:
            return []
        return [outer] if inner is None else [(outer[0], inner[0]), (inner[1], outer[1])]


def best_settings(
    slot: tuple[Point, Point],
    ties: Sequence[tuple[Point, Sequence[Reach]]],
    clears: Sequence[tuple[Point, Interval]] = (),
    frames: Sequence[Frame] = (),
) -> list[tuple[Point, float]]:
    """For each choice of one range a partner: the place in a slot that is nearest to the best distances.

    Args:
        slot: its ends, m.
        ties: where partners stand, m, and the ranges of distances that suit each.
        clears: points, m, and between which distances from them nothing may stand, m.
        frames: lines to keep away from.

    Returns:
        Places, m, with the sum of their distances from the best ones, m; none twice.
    """
    start, end = slot
    travel = math.dist(start, end)
    along = (end[0] - start[0]) / travel, (end[1] - start[1]) / travel

    def seen(point: Point) -> _Seen:
        dx, dy = point[0] - start[0], point[1] - start[1]
        return _Seen(along[0] * dx + along[1] * dy, along[0] * dy - along[1] * dx)

    free: list[Interval] = [(0.0, travel)]
    for point, (within, least) in clears:
        for taken in seen(point).between(within + NOISE, least - NOISE):
            free = _without(free, taken)
    for frame in frames:
        free = _without(free, _beside(seen(frame.start), seen(frame.end), frame.least - NOISE))
    partners = [(seen(point), _possible(seen(point), reaches, free)) for point, reaches in ties]
    best: dict[float, float] = {}
    for chosen in product(*(reaches for _, reaches in partners)):
        good, wanted = free, []
        for (partner, _), reach in zip(partners, chosen, strict=True):
            good = _suiting(partner, reach, good)
            wanted.append((partner, reach.best))
        if good:
            setting, error = _best(good, wanted, travel)
            best[setting] = min(error, best.get(setting, math.inf))
    return [((start[0] + s * along[0], start[1] + s * along[1]), error) for s, error in best.items()]


def _possible(partner: _Seen, reaches: Sequence[Reach], free: list[Interval]) -> list[Reach]:
    return [reach for reach in reaches if _suiting(partner, reach, free)]


def _suiting(partner: _Seen, reach: Reach, free: list[Interval]) -> list[Interval]:
    """The parts of some intervals in which a partner is as far as it should."""
    far = partner.within(reach.high + NOISE)
    if far is None:
        return []
    clipped = [(max(low, far[0]), min(high, far[1])) for low, high in free]
    return _without([(low, high) for low, high in clipped if low <= high], partner.within(reach.low - NOISE))


def _without(free: list[Interval], taken: Interval | None) -> list[Interval]:
    """Intervals without what another one takes of them; its ends stay."""
    if taken is None:
        return free
    parts = [part for low, high in free for part in ((low, min(high, taken[0])), (max(low, taken[1]), high))]
    return [(low, high) for low, high in parts if low <= high]


def _beside(start: _Seen, end: _Seen, least: float) -> Interval | None:
    """The settings that are nearer to a line between two points than they may be: one interval, as a line is convex."""
    parts = [part for part in (start.within(least), end.within(least), _alongside(start, end, least)) if part]
    return (min(low for low, _ in parts), max(high for _, high in parts)) if parts else None


def _alongside(start: _Seen, end: _Seen, least: float) -> Interval | None:
    """The settings beside a line, between the perpendiculars on its ends, that are nearer than they may be."""
    across, up = end.foot - start.foot, end.height - start.height
    length = math.hypot(across, up)
    if length == 0.0:
        return None
    across, up = across / length, up / length
    # Along the line and off it, a setting s lies at (s − foot)·(across, −up), less the start's height.
    between = _solve(across, -across * start.foot - up * start.height, 0.0, length)
    near = _solve(-up, up * start.foot - across * start.height, -least, least)
    if between is None or near is None:
        return None
    low, high = max(between[0], near[0]), min(between[1], near[1])
    return (low, high) if low <= high else None


def _solve(rise: float, at_zero: float, low: float, high: float) -> Interval | None:
    """Where low <= at_zero + rise·s <= high."""
    if abs(rise) < 1e-15:
        return (-math.inf, math.inf) if low <= at_zero <= high else None
    first, second = (low - at_zero) / rise, (high - at_zero) / rise
    return min(first, second), max(first, second)


def _best(good: list[Interval], wanted: Sequence[tuple[_Seen, float]], travel: float) -> tuple[float, float]:
    """The setting in some intervals with the least sum of errors, and that, m; without partners the middle."""
    if not wanted:
        return min((min(max(0.5 * travel, low), high) for low, high in good), key=lambda s: abs(s - 0.5 * travel)), 0.0

    def error(setting: float) -> float:
        return sum(abs(partner.distance(setting) - best) for partner, best in wanted)

    tried = {s for interval in good for s in _candidates(interval, wanted, error)}
    return min(((s, error(s)) for s in sorted(tried)), key=lambda entry: entry[1])


def _candidates(interval: Interval, wanted: Sequence[tuple[_Seen, float]], error: object) -> Iterator[float]:
    """Where a sum of errors can be least: at the ends, where a partner is at its best or nearest, and between."""
    low, high = interval
    kinks = [s for partner, best in wanted for s in (partner.foot, *(partner.within(best) or ()))]
    ends = sorted({low, high, *(s for s in kinks if low < s < high)})
    yield from ends
    if len(wanted) > 1:
        from scipy.optimize import minimize_scalar  # noqa: PLC0415  # a third of a second that few designs need

        for first, second in pairwise(ends):
            yield float(minimize_scalar(error, bounds=(first, second), method="bounded").x)
