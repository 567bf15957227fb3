"""Where the shafts of a plate can stand: every placement that satisfies all pairs at once, and what would help.

A shaft is fixed, on one of some holes, or in a slot. A pair of shafts is held to one of some reaches, ranges of
distance: a gear pair's centre distance with its tolerance, a belt's for each length at hand. Circles and frame lines
keep clear.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import product
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ydrometer.fit.along import NOISE, Frame, Point, Reach, best_settings, off_all
from ydrometer.fit.problem import (
    MOST,
    MOST_GIVE,
    SLOT_COST,
    Clear,
    Effort,
    PlacedPair,
    PlacedShaft,
    Placement,
    Problem,
    Relaxation,
)
from ydrometer.geometry.segments import off_line

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]


class Placings(NamedTuple):
    """Placements, and whether they are all: else only what lay nearest to the best distances was followed."""

    placements: list[Placement]
    complete: bool


def placements(problem: Problem, most: int = MOST, effort: Effort | None = None) -> Placings:
    """Every placement that satisfies all pairs, clearances and frames; the least error first, then the most room to
    tighten, then the most compact.

    The shafts are placed one after the other, for all partial placements at once. Where these become too many, those
    with the least error are followed.

    Args:
        problem: shafts and what ties them. Two shafts in slots must not be a pair: one of them has to stand first.
        most: how many are returned.
        effort: that it may cost, where it is part of a larger question.

    Raises:
        ValueError: a name that no shaft has, or a pair of two slots.
    """
    _check(problem)
    if not all(pair.reaches for pair in problem.pairs):
        return Placings([], True)
    effort = Effort() if effort is None else effort
    partial, complete = _Partial({}, np.zeros(1)), True
    for shaft in _order(problem):
        step = _drill if shaft.free else _set if shaft.slot else _place
        partial, whole = step(problem, shaft, partial, effort)
        complete = complete and whole
        if not len(partial.error):
            return Placings([], complete)
    chosen = [_chosen(pair, partial) for pair in problem.pairs]
    room, size = _room(problem, partial), _size(partial)
    order = np.lexsort((size, -room.round(9), partial.error.round(9)))
    placed = [
        Placement(
            {name: (float(spots[row, 0]), float(spots[row, 1])) for name, spots in partial.at.items()},
            tuple(pair.reaches[reach[row]] for pair, reach in zip(problem.pairs, chosen, strict=True)),
            float(partial.error[row]),
            float(room[row]),
            float(size[row]),
        )
        for row in order[:most]
    ]
    return Placings(placed, complete and len(order) <= most)


def relaxations(
    problem: Problem,
    keep: Callable[[list[Placement]], list[Placement]] = lambda placed: placed,
    effort: Effort | None = None,
) -> list[Relaxation]:
    """Pairs of which one alone rules out every placement: the extra tolerance each would need, the smallest first.

    Args:
        problem: for which there is no placement.
        keep: those of some placements that go in other respects as well.
        effort: as for `placements`.
    """
    effort = Effort() if effort is None else effort
    relaxed = []
    for place, pair in enumerate(problem.pairs):
        if effort.over:
            break
        pairs = (*problem.pairs[:place], pair.widened(MOST_GIVE), *problem.pairs[place + 1 :])
        going = keep(placements(replace(problem, pairs=pairs), effort=effort).placements)
        extras = [off_all(pair.reaches, math.dist(p.at[pair.first], p.at[pair.second])) for p in going]
        least_first = sorted(range(len(going)), key=extras.__getitem__)
        if going:
            relaxed.append(Relaxation(place, min(extras), tuple(going[i] for i in least_first)))
    return sorted(relaxed, key=lambda relaxation: relaxation.extra)


def _check(problem: Problem) -> None:
    shafts = {shaft.name: shaft for shaft in problem.shafts}
    for pair in problem.pairs:
        for name in (pair.first, pair.second):
            if name not in shafts:
                raise ValueError(f'"{name}" is no shaft: known are {", ".join(shafts)}')
        if shafts[pair.first].slot and shafts[pair.second].slot:
            raise ValueError(f"{pair.first} and {pair.second} are both in slots: let one of them stand on a hole")


def _order(problem: Problem) -> list[PlacedShaft]:
    """The order in which shafts are placed: fixed ones, then always the one with most placed partners; slots, and then
    free ones, last.
    """
    left, order = list(problem.shafts), []
    links = dict.fromkeys((shaft.name for shaft in left), 0)
    while left:
        chosen = min(left, key=lambda s: (s.free, len(s.holes) > 1, s.slot, -links[s.name], len(s.holes)))
        left.remove(chosen)
        order.append(chosen)
        for pair in problem.pairs:
            if other := _partner(pair, chosen.name):
                links[other] += 1
    return order


@dataclass(frozen=True, slots=True)
class _Partial:
    """Ways to place some of the shafts: where each of them stands, m, (n, 2) by name; sums of the errors, m, (n,)."""

    at: Mapping[str, Floats]
    error: Floats

    def rows(self, chosen: Ints | Bools) -> _Partial:
        """Some of them, by number or by a mask."""
        return _Partial({name: spots[chosen] for name, spots in self.at.items()}, self.error[chosen])

    def with_shaft(self, name: str, spots: Floats, error: Floats) -> _Partial:
        """With one more shaft, and what that adds to the errors."""
        return _Partial({**self.at, name: spots}, self.error + error)


def _partner(link: PlacedPair | Clear, name: str) -> str:
    """The other shaft of a link; empty if the link does not concern this shaft."""
    return {link.first: link.second, link.second: link.first}.get(name, "")


def _ties(problem: Problem, name: str, partial: _Partial) -> list[tuple[Floats, tuple[Reach, ...]]]:
    """Where the partners of a shaft stand that are placed already, (n, 2), and what suits them."""
    return [
        (partial.at[other], pair.reaches) for pair in problem.pairs if (other := _partner(pair, name)) in partial.at
    ]


def _clears(problem: Problem, name: str, partial: _Partial) -> list[tuple[Floats, Clear]]:
    """Where shafts stand from which one has to keep a distance, (n, 2), and which."""
    return [(partial.at[other], clear) for clear in problem.clears if (other := _partner(clear, name)) in partial.at]


def _place(problem: Problem, shaft: PlacedShaft, partial: _Partial, effort: Effort) -> tuple[_Partial, bool]:
    """A shaft on each of its holes that suits; whether nothing was left out."""
    holes, tree = _in_tree(shaft.holes)
    rows, place, complete = _near(tree, _ties(problem, shaft.name, partial), partial, effort)
    return _kept(problem, shaft.name, partial.rows(rows), holes[place]), complete


@lru_cache(maxsize=8)
def _in_tree(holes: tuple[Point, ...]) -> tuple[Floats, Any]:
    """Holes as an array, (n, 2), and in a tree in which those near a place are found."""
    spots = np.array(holes)
    return spots, _tree(spots)


def _tree(spots: Floats) -> Any:
    """Places, (n, 2), as a tree."""
    from scipy.spatial import cKDTree  # noqa: PLC0415  # loaded when shafts are placed, not with every design

    return cKDTree(spots)


def _drill(problem: Problem, shaft: PlacedShaft, partial: _Partial, effort: Effort) -> tuple[_Partial, bool]:
    """A free shaft at each of the two places where it is at its best distance from its first two partners."""
    ties = _ties(problem, shaft.name, partial)
    (first, ones), (second, others) = ties[:2]
    rows, spots = [], []
    for single, other in product(ones, others):
        for spot in crossings(first, single.best, second, other.best):
            met = np.flatnonzero(~np.isnan(spot[:, 0]))
            rows.append(met)
            spots.append(spot[met])
    effort.spend(sum(len(met) for met in rows))
    return _kept(problem, shaft.name, partial.rows(np.concatenate(rows)), np.concatenate(spots)), True


def _kept(problem: Problem, name: str, partial: _Partial, spots: Floats) -> _Partial:
    """Placements with one more shaft, those in which it suits its partners and is clear of the others."""
    good, error = np.ones(len(spots), bool), np.zeros(len(spots))
    for points, reaches in _ties(problem, name, partial):
        off = _errors(np.hypot(*(spots - points).T), reaches).min(axis=1, initial=np.inf)
        good &= np.isfinite(off)
        error += off
    for points, clear in _clears(problem, name, partial):
        apart = np.hypot(*(spots - points).T)
        outside = (apart >= clear.least - NOISE) & (apart <= clear.most + NOISE)
        good &= outside | (apart <= clear.within + NOISE)
    good &= _off_frames(spots, [frame for frame in problem.frames if frame.shaft == name])
    return partial.rows(good).with_shaft(name, spots[good], error[good])


def crossings(first: Floats, near: float, second: Floats, far: float) -> tuple[Floats, Floats]:
    """Where circles around two places cross: on the left from the first to the second, and on the right, (n, 2) each;
    NaN where they do not.

    Args:
        first: middles of the first circles, m, (n, 2).
        near: their radius, m.
        second: middles of the second, m, (n, 2).
        far: their radius, m.
    """
    step = second - first
    apart = np.hypot(*step.T)
    with np.errstate(invalid="ignore", divide="ignore"):
        along = (near**2 - far**2 + apart**2) / (2.0 * apart)
        aside = np.sqrt(near**2 - along**2)
        unit = step / apart[:, None]
    normal = np.stack([-unit[:, 1], unit[:, 0]], axis=1)
    foot = first + along[:, None] * unit
    return foot + aside[:, None] * normal, foot - aside[:, None] * normal


def _off_frames(holes: Floats, frames: Sequence[Frame]) -> Bools:
    """Which holes are clear of frame lines, (n,)."""
    good = np.ones(len(holes), bool)
    for frame in frames:
        good &= off_line(holes, np.array(frame.start), np.array(frame.end)) >= frame.least - NOISE
    return good


def _near(
    tree: Any, ties: Sequence[tuple[Floats, tuple[Reach, ...]]], partial: _Partial, effort: Effort
) -> tuple[Ints, Ints, bool]:
    """Pairs of a partial placement and a hole, by their numbers, that may suit; whether all of them are there.

    With a partner the holes are looked up around the places where that stands.
    """
    number = len(partial.error)
    if not ties:
        kept = min(number, max(1, effort.step // tree.n))
        effort.spend(kept * tree.n)
        rows = np.argsort(partial.error, kind="stable")[:kept]
        return np.repeat(rows, tree.n), np.tile(np.arange(tree.n), kept), kept == number
    points, reaches = ties[0]
    places, anchor = np.unique(points[:, 0] + 1j * points[:, 1], return_inverse=True)
    anchors = np.stack([places.real, places.imag], axis=1)
    far, low = max(r.high for r in reaches) + NOISE, min(r.low for r in reaches) - NOISE
    order = np.argsort(partial.error, kind="stable")
    each = tree.query_ball_point(anchors, far, return_length=True)
    total = np.cumsum(each[anchor[order]])
    kept = max(1, int(np.searchsorted(total, effort.step, side="right")))
    effort.spend(number + int(total[kept - 1]))
    order = order[:kept]
    used, again = np.unique(anchor[order], return_inverse=True)
    near = _tree(anchors[used]).sparse_distance_matrix(tree, far, output_type="ndarray")
    near = near[near["v"] >= low]
    # All holes of the anchor of each row, one after the other.
    near = near[np.argsort(near["i"], kind="stable")]
    first = np.searchsorted(near["i"], again)
    many = np.searchsorted(near["i"], again, side="right") - first
    rows = np.repeat(order, many)
    step = np.arange(len(rows)) - np.repeat(np.cumsum(many) - many, many)
    return rows, near["j"][np.repeat(first, many) + step], kept == number


def _errors(distance: Floats, reaches: Sequence[Reach]) -> Floats:
    """How far distances, m, (n,), are from the best of each range; infinite outside of it; (n, ranges)."""
    low, high, best = (np.array([getattr(r, end) for r in reaches]) for end in ("low", "high", "best"))
    across = distance[:, None]
    suits = (across >= low - NOISE) & (across <= high + NOISE)
    return np.where(suits, np.abs(across - best), np.inf)


def _set(problem: Problem, shaft: PlacedShaft, partial: _Partial, effort: Effort) -> tuple[_Partial, bool]:
    """A shaft at each place of its slot that suits best; whether nothing was left out."""
    start, end = shaft.holes
    ties, clears = _ties(problem, shaft.name, partial), _clears(problem, shaft.name, partial)
    frames = [frame for frame in problem.frames if frame.shaft == shaft.name]
    good = np.ones(len(partial.error), bool)
    for points, reaches in ties:
        nearest = off_line(points, np.array(start), np.array(end))
        farthest = np.maximum(*(np.hypot(*(points - np.array(tip)).T) for tip in (start, end)))
        good &= (nearest <= max(r.high for r in reaches) + NOISE) & (farthest >= min(r.low for r in reaches) - NOISE)
    tried = np.flatnonzero(good)
    tried = tried[np.argsort(partial.error[tried], kind="stable")]
    most = max(1, effort.step // SLOT_COST)
    effort.spend(SLOT_COST * min(len(tried), most))
    rows, spots, errors = [], [], []
    for row in tried[:most].tolist():
        settings = best_settings(
            (start, end),
            [((float(p[row, 0]), float(p[row, 1])), reaches) for p, reaches in ties],
            [((float(p[row, 0]), float(p[row, 1])), (clear.within, clear.least)) for p, clear in clears],
            frames,
        )
        for spot, error in settings:
            rows.append(row)
            spots.append(spot)
            errors.append(error)
    chosen = partial.rows(np.array(rows, np.int64))
    set_ = chosen.with_shaft(shaft.name, np.array(spots).reshape(-1, 2), np.array(errors))
    return set_, len(tried) <= most


def _chosen(pair: PlacedPair, partial: _Partial) -> Ints:
    """The number of the range that each placement has of a pair, (n,)."""
    distance = np.hypot(*(partial.at[pair.first] - partial.at[pair.second]).T)
    return np.asarray(_errors(distance, pair.reaches).argmin(axis=1))


def _room(problem: Problem, partial: _Partial) -> Floats:
    """Least distance from a shaft to the end of its slot, over all slots, m; infinite without a slot; (n,)."""
    room = np.full(len(partial.error), np.inf)
    for shaft in problem.shafts:
        for end in shaft.holes if shaft.slot else ():
            room = np.minimum(room, np.hypot(*(partial.at[shaft.name] - np.array(end)).T))
    return room


def _size(partial: _Partial) -> Floats:
    """Half the way around everything, m, (n,)."""
    everything = np.stack(list(partial.at.values()))
    return np.asarray((everything.max(axis=0) - everything.min(axis=0)).sum(axis=1))
