"""Where the shafts of a plate can stand: every placement that satisfies all pairs at once, and what would help.

A shaft is fixed, on one of some holes, or in a slot. A pair of shafts is held to one of some reaches, ranges of
distance: a gear pair's centre distance with its tolerance, a belt's for each length at hand. Circles and frame lines
keep clear.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

Point = tuple[float, float]
Floats = NDArray[np.float64]
NOISE = 1e-9
"""Distances closer than this count as equal, m."""


@dataclass(frozen=True, slots=True)
class PlacedShaft:
    """A shaft by its name, and where it may stand: on some of `holes`, m, one of which is a fixed shaft; or in a slot
    from `holes[0]` to `holes[1]`.
    """

    name: str
    holes: tuple[Point, ...]
    slot: bool = False


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


@dataclass(frozen=True, slots=True)
class Pair:
    """Two shafts that a stage couples, by name, and the ranges of distances that suit it."""

    one: str
    other: str
    reaches: tuple[Reach, ...]


@dataclass(frozen=True, slots=True)
class Clear:
    """Two shafts, by name, that must stand at least so far apart, m: what turns on them would touch."""

    one: str
    other: str
    least: float


@dataclass(frozen=True, slots=True)
class Frame:
    """A frame line, m, from which a shaft, by name, must stand at least so far, m."""

    shaft: str
    start: Point
    end: Point
    least: float


@dataclass(frozen=True, slots=True)
class Problem:
    """The whole problem: shafts, the pairs they form, and what they have to keep clear of."""

    shafts: tuple[PlacedShaft, ...]
    pairs: tuple[Pair, ...]
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
    """One pair, by its place in the problem, whose tolerance would have to be larger by `extra`, m, for a solution."""

    pair: int
    extra: float


MOST = 10_000
"""Largest number of placements returned."""
MOST_GIVE = 5e-3
"""Largest extra tolerance that is tried, m."""
CLOSE = 1e-6
"""Accuracy to which the least extra tolerance is found, m."""


def placements(problem: Problem, most: int = MOST) -> list[Placement]:
    """Every placement that satisfies all pairs, clearances and frames; the least error first, then the most room to
    tighten, then the most compact.

    Args:
        problem: shafts and what ties them. Two shafts in slots must not be a pair: one of them has to stand first.
        most: how many are looked for; where there are more, those found are not the best of all.

    Raises:
        ValueError: a name that no shaft has, or a pair of two slots.
    """
    _check(problem)
    found: list[Placement] = []
    for placement in _follow(problem, _order(problem), {}):
        found.append(placement)
        if len(found) >= most:
            break
    return sorted(found, key=lambda p: (round(p.error, 9), -round(p.room, 9), p.size))


def relaxations(problem: Problem) -> list[Relaxation]:
    """Pairs of which one alone rules out every placement: the extra tolerance each would need, the smallest first.

    Args:
        problem: for which there is no placement.
    """
    found = []
    for place in range(len(problem.pairs)):
        if _goes(problem, place, MOST_GIVE):
            found.append(Relaxation(place, _least_give(problem, place)))
    return sorted(found, key=lambda relaxation: relaxation.extra)


def _least_give(problem: Problem, place: int) -> float:
    low, high = 0.0, MOST_GIVE
    while high - low > CLOSE:
        middle = 0.5 * (low + high)
        low, high = (low, middle) if _goes(problem, place, middle) else (middle, high)
    return high


def _goes(problem: Problem, place: int, give: float) -> bool:
    pair = problem.pairs[place]
    wider = replace(pair, reaches=tuple(replace(r, low=r.low - give, high=r.high + give) for r in pair.reaches))
    pairs = (*problem.pairs[:place], wider, *problem.pairs[place + 1 :])
    return bool(placements(replace(problem, pairs=pairs), most=1))


def _check(problem: Problem) -> None:
    shafts = {shaft.name: shaft for shaft in problem.shafts}
    for pair in problem.pairs:
        for name in (pair.one, pair.other):
            if name not in shafts:
                raise ValueError(f'"{name}" is no shaft: known are {", ".join(shafts)}')
        if shafts[pair.one].slot and shafts[pair.other].slot:
            raise ValueError(f"{pair.one} and {pair.other} are both in slots: let one of them stand on a hole")


def _order(problem: Problem) -> list[PlacedShaft]:
    """The order in which shafts are placed: fixed ones, then always the one with most placed partners; slots last."""
    left, standing, order = list(problem.shafts), set[str](), []
    while left:
        links = {shaft.name: sum(_partner(pair, shaft.name) in standing for pair in problem.pairs) for shaft in left}
        chosen = min(left, key=lambda s: (len(s.holes) > 1, s.slot, -links[s.name], len(s.holes)))
        left.remove(chosen)
        standing.add(chosen.name)
        order.append(chosen)
    return order


@dataclass(slots=True)
class _Bounds:
    """Constraints on a shaft from those placed before it: ranges of distance to points, least distances from points."""

    reaches: list[tuple[Point, tuple[Reach, ...]]] = field(default_factory=list)
    least: list[tuple[Point, float]] = field(default_factory=list)


def _follow(problem: Problem, order: Sequence[PlacedShaft], at: Mapping[str, Point]) -> Iterator[Placement]:
    if len(at) == len(order):
        yield _placement(problem, at)
        return
    shaft = order[len(at)]
    bounds = _bounds(problem, shaft.name, at)
    frames = [frame for frame in problem.frames if frame.shaft == shaft.name]
    spots = _in_slot(shaft, bounds, frames) if shaft.slot else _on_holes(shaft, bounds, frames)
    for spot in spots:
        yield from _follow(problem, order, {**at, shaft.name: spot})


def _bounds(problem: Problem, name: str, at: Mapping[str, Point]) -> _Bounds:
    bounds = _Bounds()
    for pair in problem.pairs:
        other = _partner(pair, name)
        if other in at:
            bounds.reaches.append((at[other], pair.reaches))
    for clear in problem.clears:
        other = _partner(clear, name)
        if other in at:
            bounds.least.append((at[other], clear.least))
    return bounds


def _partner(link: Pair | Clear, name: str) -> str:
    """The other shaft of a link; empty if the link does not concern this shaft."""
    return {link.one: link.other, link.other: link.one}.get(name, "")


def _on_holes(shaft: PlacedShaft, bounds: _Bounds, frames: Sequence[Frame]) -> list[Point]:
    holes = np.array(shaft.holes)
    good = np.ones(len(holes), bool)
    for point, reaches in bounds.reaches:
        distance = np.hypot(holes[:, 0] - point[0], holes[:, 1] - point[1])
        near = np.zeros(len(holes), bool)
        for reach in reaches:
            near |= (distance >= reach.low - NOISE) & (distance <= reach.high + NOISE)
        good &= near
    for point, least in bounds.least:
        good &= np.hypot(holes[:, 0] - point[0], holes[:, 1] - point[1]) >= least - NOISE
    for frame in frames:
        good &= off_line(holes, np.array(frame.start), np.array(frame.end)) >= frame.least - NOISE
    return [shaft.holes[i] for i in np.flatnonzero(good)]


def off_line(points: Floats, start: Floats, end: Floats) -> Floats:
    """Distances of points from straight line segments, m, (…).

    Args:
        points: the places, m, (…, 2).
        start: of each line, m, broadcast against the points.
        end: of each line.
    """
    along = end - start
    length = np.maximum((along**2).sum(axis=-1), 1e-30)
    share = np.clip(((points - start) * along).sum(axis=-1) / length, 0.0, 1.0)
    return np.asarray(np.hypot(*np.moveaxis(points - start - share[..., None] * along, -1, 0)))


STEPS = 2000
"""Points along a slot: a slot of 40 mm is divided into fiftieths of a millimetre, finer than a hand can set."""


def _in_slot(shaft: PlacedShaft, bounds: _Bounds, frames: Sequence[Frame]) -> list[Point]:
    """For each choice of ranges, the point in the slot that is nearest to the best distances."""
    share = np.linspace(0.0, 1.0, STEPS + 1)[:, None]
    line = np.array(shaft.holes[0]) * (1.0 - share) + np.array(shaft.holes[1]) * share
    free = np.ones(len(line), bool)
    for point, least in bounds.least:
        free &= np.hypot(*(line - np.array(point)).T) >= least - NOISE
    for frame in frames:
        free &= off_line(line, np.array(frame.start), np.array(frame.end)) >= frame.least - NOISE
    found: dict[int, None] = {}
    for good, error in _choices(line, bounds.reaches, free, np.zeros(len(line))):
        found[int(np.flatnonzero(good)[np.argmin(error[good])])] = None
    return [(float(line[i, 0]), float(line[i, 1])) for i in found]


def _choices(
    line: Floats, wanted: Sequence[tuple[Point, tuple[Reach, ...]]], good: NDArray[np.bool_], error: Floats
) -> Iterator[tuple[NDArray[np.bool_], Floats]]:
    """For each choice of one range per partner: which points of a line satisfy it, and the error there."""
    if not good.any():
        return
    if not wanted:
        yield good, error
        return
    (point, reaches), *others = wanted
    distance = np.hypot(line[:, 0] - point[0], line[:, 1] - point[1])
    for reach in reaches:
        within = good & (distance >= reach.low - NOISE) & (distance <= reach.high + NOISE)
        yield from _choices(line, others, within, error + np.abs(distance - reach.best))


def _placement(problem: Problem, at: Mapping[str, Point]) -> Placement:
    chosen, error = [], 0.0
    for pair in problem.pairs:
        distance = math.dist(at[pair.one], at[pair.other])
        inside = [r for r in pair.reaches if r.low - NOISE <= distance <= r.high + NOISE]
        reach = min(inside, key=lambda r: abs(distance - r.best))
        chosen.append(reach)
        error += abs(distance - reach.best)
    across, up = zip(*at.values(), strict=True)
    size = max(across) - min(across) + max(up) - min(up)
    return Placement(dict(at), tuple(chosen), error, _room(problem, at), size)


def _room(problem: Problem, at: Mapping[str, Point]) -> float:
    """Least distance from a shaft to the end of its slot, over all slots, m; infinite without a slot."""
    ways = [min(math.dist(at[s.name], end) for end in s.holes) for s in problem.shafts if s.slot]
    return min(ways, default=math.inf)
