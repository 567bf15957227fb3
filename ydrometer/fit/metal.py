"""Whether a plate keeps enough metal: between holes, slots and openings, and to its edge."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np

from ydrometer.document.mounting import Plate, Point
from ydrometer.fit.along import NOISE
from ydrometer.fit.clash import Clash, mm
from ydrometer.fit.placing import Floats, off_line
from ydrometer.fit.setup import Setup
from ydrometer.fit.touching import closest

LEAST_METAL = 1.5e-3
"""m between two holes; in plates thicker than 3 mm half the thickness (workshop practice)."""


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
        said, name = setup.shaft(path), setup.plane.named(path)
        middle = setup.bored(path)
        start, end = (said.slot.start, said.slot.end) if said.slot else (middle, middle)
        across = said.opening or said.diameter
        if across:
            yield Opening(f"the {name}", path, start, end, 0.5 * across)
        for dx, dy in said.bolts.around if said.bolts else ():
            ends = (start[0] + dx, start[1] + dy), (end[0] + dx, end[1] + dy)
            yield Opening(f"a bolt around the {name}", path, *ends, 0.5 * (said.bolts.hole if said.bolts else 0.0))


def thin_places(setup: Setup) -> Iterator[Clash]:
    """Where holes, slots and openings leave too little between them or to the edge, or break into each other."""
    plate = setup.mounting.plate
    if plate is None:
        return
    least = max(LEAST_METAL, 0.5 * (plate.thickness or 0.0))
    cut = list(openings(setup))
    told: set[str] = set()
    for first, second in combinations(cut, 2):
        places = closest((first.start, first.end), (second.start, second.end))
        left = float(np.hypot(*np.subtract(*places))) - first.radius - second.radius
        text = f"the {first.kind} and the {second.kind}"
        if left < least - NOISE and text not in told:
            told.add(text)
            yield _thin(text, first.shaft, places[0], left, least)
    for kind in dict.fromkeys(opening.kind for opening in cut):
        alike = [opening for opening in cut if opening.kind == kind]
        yield from _at_the_edge(plate, alike, least)
        yield from _in_the_grid(plate, alike, least)


def _thin(what: str, shaft: str, at: Point, left: float, least: float) -> Clash:
    stands = f"break into each other by {mm(-left)}" if left < 0.0 else f"leave {mm(left)} of metal"
    return Clash("mind", f"{what} {stands}, {mm(least)} is wanted", shaft, least - left, at)


def _at_the_edge(plate: Plate, alike: Sequence[Opening], least: float) -> Iterator[Clash]:
    low, bottom, high, top = plate.corners
    room = [
        (min(x - low, high - x, y - bottom, top - y) - opening.radius, (x, y))
        for opening in alike
        for x, y in (opening.start, opening.end)
    ]
    left, at = min(room)
    if left < least - NOISE:
        stands = f"breaks the edge by {mm(-left)}" if left < 0.0 else f"leaves {mm(left)} to the edge"
        text = f"the {alike[0].kind} {stands}, {mm(least)} is wanted"
        yield Clash("mind", text, alike[0].shaft, least - left, at)


def _in_the_grid(plate: Plate, alike: Sequence[Opening], least: float) -> Iterator[Clash]:
    """Holes of the grid into which openings break, or to which they leave too little; those they swallow are gone."""
    if plate.hole is None:
        return
    holes = np.array(plate.holes())
    start, end = (np.array([getattr(opening, key) for opening in alike])[:, None] for key in ("start", "end"))
    radius = np.array([[opening.radius] for opening in alike])
    apart: Floats = off_line(holes[None], start, end)
    left: Floats = np.where(apart + 0.5 * plate.hole <= radius + NOISE, np.inf, apart - radius - 0.5 * plate.hole)
    least_left = left.min(axis=0)
    near = np.flatnonzero(least_left < least - NOISE)
    if near.size:
        worst = int(near[least_left[near].argmin()])
        count = "1 hole" if near.size == 1 else f"{near.size} holes"
        most = float(least_left[worst])
        stands = f"breaks into {count}" if most < 0.0 else f"leaves {mm(most)} of metal to {count}"
        text = f"the {alike[0].kind} {stands} of the grid, {mm(least)} is wanted between"
        yield Clash("mind", text, alike[0].shaft, least - most, (float(holes[worst, 0]), float(holes[worst, 1])))
