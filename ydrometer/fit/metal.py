"""Whether a plate keeps enough metal: between holes, slots and openings, and to its edge."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, islice, product
from typing import Any

import numpy as np

from ydrometer.document.mounting import Plate, Point
from ydrometer.fit.along import NOISE
from ydrometer.fit.clash import Clash, mm
from ydrometer.fit.placing import Floats
from ydrometer.fit.setup import Setup
from ydrometer.geometry.segments import Bools, apart, closest, off_line

LEAST_METAL = 1.5e-3
"""m between two holes; in plates thicker than 3 mm half the thickness (workshop practice)."""
MOST_OPENINGS, MOST_HOLES = 400, 6_000
"""That are looked at, and holes of a grid: some hundredths of a second's work, with every change of a design."""
MOST_PAIRS = 4_000_000
"""Pairs of openings of two shafts, in all placements, that are looked at; beyond, the first of each shaft alone."""


@dataclass(frozen=True, slots=True)
class Opening:
    """What goes through a plate: a slot from the middle of one end to that of the other, a hole where both are one; its
    radius, m, what it is for, and the shaft that it belongs to.
    """

    name: str
    shaft: str
    start: Point
    end: Point
    radius: float

    @property
    def kind(self) -> str:
        """As it is told."""
        return f"{'hole' if self.start == self.end else 'slot'} for {self.name}"


def openings(setup: Setup) -> Iterator[Opening]:
    """All that is cut into a plate for its shafts; the holes of its grid are in it already.

    Args:
        setup: a design with where all stands.
    """
    for path in setup.plane.shafts:
        yield from _openings(setup, path, setup.bored(path))


def _openings(setup: Setup, path: str, middle: Point) -> Iterator[Opening]:
    """What is cut for a shaft whose mount has its middle in some place; a slot is where it is said to be."""
    said, name = setup.shaft(path), setup.plane.named(path)
    start, end = (said.slot.start, said.slot.end) if said.slot else (middle, middle)
    across = said.opening or said.diameter
    if across:
        yield Opening(f"the {name}", path, start, end, 0.5 * across)
    for dx, dy in said.bolts.around if said.bolts else ():
        ends = (start[0] + dx, start[1] + dy), (end[0] + dx, end[1] + dy)
        yield Opening(f"a bolt around the {name}", path, *ends, 0.5 * (said.bolts.hole if said.bolts else 0.0))


def least_metal(plate: Plate) -> float:
    """Least metal between two holes of a plate, m."""
    return max(LEAST_METAL, 0.5 * (plate.thickness or 0.0))


def keep_metal(setup: Setup, at: Mapping[str, Floats]) -> Bools:
    """Placements in which the openings of different shafts leave metal between them, and to the edge, (n,).

    What is cut for fixed shafts and for slots is not held against each other: no placement would change it.

    Args:
        setup: a design with a plate.
        at: where each shaft stands, m, (n, 2) each.
    """
    good = np.ones(len(next(iter(at.values()))), bool)
    plate = setup.mounting.plate
    if plate is None:
        return good
    cut = {path: list(_openings(setup, path, (0.0, 0.0))) for path in at}
    moving = {path for path in at if setup.shaft(path).mount in ("holes", "free")}
    for path in moving:
        for opening in cut[path]:
            left = _to_edge(plate, *(np.array(opening.start) + at[path]).T) - opening.radius
            good &= left >= least_metal(plate) - NOISE
    for first, second in combinations(at, 2):
        if moving & {first, second}:
            good &= _apart_in_all(setup, at, (first, second), cut, least_metal(plate))
    return good


def _apart_in_all(
    setup: Setup, at: Mapping[str, Floats], pair: tuple[str, str], cut: Mapping[str, Sequence[Opening]], least: float
) -> Bools:
    first, second = pair
    shifts = [0.0 * at[path] if setup.shaft(path).slot else at[path] for path in pair]
    good = np.ones(len(shifts[0]), bool)
    crowd = list(product(cut[first], cut[second]))
    for one, other in crowd if len(crowd) * len(good) <= MOST_PAIRS else crowd[:1]:
        runs = [
            (np.array(opening.start) + shift, np.array(opening.end) + shift)
            for opening, shift in zip((one, other), shifts, strict=True)
        ]
        good &= apart(runs[0], runs[1]) - one.radius - other.radius >= least - NOISE
    return good


def _to_edge(plate: Plate, x: Any, y: Any) -> Any:
    """How far places are from the edge of a plate, m, below 0 beside it; numbers or arrays."""
    low, bottom, high, top = plate.corners
    return np.minimum(np.minimum(x - low, high - x), np.minimum(y - bottom, top - y))


def thin_places(setup: Setup) -> Iterator[Clash]:
    """Where holes, slots and openings leave too little between them or to the edge, or break into each other."""
    plate = setup.mounting.plate
    if plate is None:
        return
    least = least_metal(plate)
    cut = list(islice(openings(setup), MOST_OPENINGS))
    for first, second, left in _crowded(cut, least):
        near, _ = closest((first.start, first.end), (second.start, second.end))
        yield _thin(f"the {first.kind} and the {second.kind}", first.shaft, near, left, least)
    grid = _grid(plate)
    for kind in dict.fromkeys(opening.kind for opening in cut):
        alike = [opening for opening in cut if opening.kind == kind]
        yield from _at_the_edge(plate, alike, least)
        yield from _in_the_grid(plate, grid, alike, least)


def _crowded(cut: Sequence[Opening], least: float) -> Iterator[tuple[Opening, Opening, float]]:
    """Pairs with less metal between them than there should be, and how much, m; of two kinds the first pair alone."""
    if not cut:
        return
    start, end = (np.array([getattr(opening, name) for opening in cut]) for name in ("start", "end"))
    radius = np.array([opening.radius for opening in cut])
    kinds = list(dict.fromkeys(opening.kind for opening in cut))
    kind = np.array([kinds.index(opening.kind) for opening in cut])
    i, j = np.triu_indices(len(cut), 1)
    left = apart((start[i], end[i]), (start[j], end[j])) - radius[i] - radius[j]
    found = np.flatnonzero(left < least - NOISE)
    _, firsts = np.unique(len(kinds) * kind[i[found]] + kind[j[found]], return_index=True)
    for pair in sorted(found[firsts].tolist()):
        yield cut[i[pair]], cut[j[pair]], float(left[pair])


def _thin(what: str, shaft: str, at: Point, left: float, least: float) -> Clash:
    stands = f"break into each other by {mm(-left)}" if left < 0.0 else f"leave {mm(left)} of metal"
    return Clash("clash", f"{what} {stands}, {mm(least)} is wanted", shaft, least - left, at)


def _at_the_edge(plate: Plate, alike: Sequence[Opening], least: float) -> Iterator[Clash]:
    room = [
        (float(_to_edge(plate, x, y)) - opening.radius, (x, y))
        for opening in alike
        for x, y in (opening.start, opening.end)
    ]
    left, at = min(room)
    if left < least - NOISE:
        stands = f"breaks the edge by {mm(-left)}" if left < 0.0 else f"leaves {mm(left)} to the edge"
        text = f"the {alike[0].kind} {stands}, {mm(least)} is wanted"
        yield Clash("clash", text, alike[0].shaft, least - left, at)


def _grid(plate: Plate) -> Floats | None:
    """The holes of a plate's grid, (up, across, 2), m; None without any, or with more than anybody drills."""
    if plate.hole is None or plate.across * plate.up > MOST_HOLES:
        return None
    return np.array(plate.holes()).reshape(plate.up, plate.across, 2)


def _in_the_grid(plate: Plate, grid: Floats | None, alike: Sequence[Opening], least: float) -> Iterator[Clash]:
    """Holes of the grid into which openings break, or to which they leave too little; those they swallow are gone."""
    if grid is None:
        return
    hole = 0.5 * (plate.hole or 0.0)
    left = np.full(grid.shape[:2], np.inf)
    for opening in alike:
        window = _around(plate, opening, hole + least)
        away = off_line(grid[window], np.array(opening.start), np.array(opening.end))
        here = np.where(away + hole <= opening.radius + NOISE, np.inf, away - opening.radius - hole)
        left[window] = np.minimum(left[window], here)
    near = int((left < least - NOISE).sum())
    if near:
        worst = np.unravel_index(int(left.argmin()), left.shape)
        most, (x, y) = float(left[worst]), grid[worst].tolist()
        count = "1 hole" if near == 1 else f"{near} holes"
        stands = f"breaks into {count}" if most < 0.0 else f"leaves {mm(most)} of metal to {count}"
        text = f"the {alike[0].kind} {stands} of the grid, {mm(least)} is wanted between"
        yield Clash("mind", text, alike[0].shaft, least - most, (x, y))


def _around(plate: Plate, opening: Opening, more: float) -> tuple[slice, slice]:
    """The rows and columns of the grid that an opening may reach, with `more`, m, around it."""
    reach = opening.radius + more

    def span(first: float, second: float, count: int) -> slice:
        low, high = sorted((first, second))
        begin = math.floor((low - reach) / plate.hole_pitch)
        return slice(min(max(begin, 0), count), min(max(math.ceil((high + reach) / plate.hole_pitch) + 1, 0), count))

    (x1, y1), (x2, y2) = opening.start, opening.end
    return span(y1, y2, plate.up), span(x1, x2, plate.across)
