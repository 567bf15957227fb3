"""Checks of what stands around a shaft behind the plate, such as a motor: from each other, shafts, frame and ground."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from itertools import permutations

import numpy as np

from ydrometer.document.mounting import FrameLine
from ydrometer.fit.clash import Clash
from ydrometer.fit.placing import Floats
from ydrometer.fit.setup import Setup
from ydrometer.fit.touching import crowding, too_low
from ydrometer.geometry.segments import nearest_on

DIRECTIONS = 72
"""In which it is looked for room for wires: every five degrees."""
ROUNDED = 9
"""Decimals of m, beyond which room is the same."""
FAR = 0.06
"""m; more room beside a body than this is as good as this."""


def radii(setup: Setup) -> Mapping[str, float]:
    """Half across the body of each shaft that has one, m."""
    return {path: 0.5 * body for path in setup.plane.shafts if (body := setup.shaft(path).body) is not None}


def shafts_beside(setup: Setup) -> Iterator[tuple[str, str, float]]:
    """Pairs of a shaft with a body and another one, and how far apart they have to stand, m; of two bodies once."""
    known = radii(setup)
    for path, other in permutations(setup.plane.shafts, 2):
        if path in known and not (other in known and other < path):
            across = known.get(other, 0.5 * (setup.shaft(other).diameter or 0.0))
            yield path, other, known[path] + across + setup.mounting.gap


def frame_beside(setup: Setup) -> Iterator[tuple[str, FrameLine, float]]:
    """Shafts with a body, lines of the frame, and how far from it each has to stand, m."""
    for path, radius in radii(setup).items():
        for line in setup.mounting.frame:
            yield path, line, radius + setup.mounting.gap


def free_side(setup: Setup, path: str) -> float | None:
    """The direction in which most room is left beside a body, for wires, rad; None where there is no body.

    In each of many directions it is looked how far it is to the next body, shaft, line of the frame, or the ground. The
    best direction has most room in the half circle around it, and among equals lies farthest from where there is none.
    """
    known = radii(setup)
    if path not in known:
        return None
    way = 2.0 * np.pi * np.arange(DIRECTIONS) / DIRECTIONS
    unit = np.stack([np.cos(way), np.sin(way)], axis=1)
    centre = np.array(setup.at(path))
    room = np.full(DIRECTIONS, known[path] + FAR)
    for other in setup.plane.shafts:
        if other != path:
            across = known.get(other, 0.5 * (setup.shaft(other).diameter or 0.0))
            room = np.minimum(room, _to_circle(unit, np.array(setup.at(other)) - centre, across))
    for line in setup.mounting.frame:
        room = np.minimum(room, _to_line(unit, np.array(line.start) - centre, np.array(line.end) - centre))
    if setup.ground is not None:
        with np.errstate(divide="ignore"):
            down = (setup.ground - centre[1]) / unit[:, 1]
        room = np.where(unit[:, 1] < 0.0, np.minimum(room, np.maximum(down, 0.0)), room)
    turn = np.cos(way[:, None] - way)
    beside, everywhere = (np.maximum(turn, 0.0) @ room).round(ROUNDED), (turn @ room).round(ROUNDED)
    return float(way[np.lexsort((-everywhere, -beside))[0]])


def _to_circle(unit: Floats, middle: Floats, radius: float) -> Floats:
    """How far it is along rays from the origin to a circle, m, infinite past it; (n,)."""
    along = unit @ middle
    off = middle @ middle - along**2
    hits = (along > 0.0) & (off < radius**2)
    return np.where(hits, along - np.sqrt(np.maximum(radius**2 - off, 0.0)), np.inf)


def _to_line(unit: Floats, start: Floats, end: Floats) -> Floats:
    """How far it is along rays from the origin to a straight line between two places, m, infinite past it; (n,)."""
    step = end - start
    across = unit[:, 0] * step[1] - unit[:, 1] * step[0]
    with np.errstate(divide="ignore", invalid="ignore"):
        along = (start[0] * step[1] - start[1] * step[0]) / across
        share = (start[0] * unit[:, 1] - start[1] * unit[:, 0]) / across
    return np.where((along > 0.0) & (share >= 0.0) & (share <= 1.0), along, np.inf)


def bodies(setup: Setup) -> Iterator[Clash]:
    """Bodies clear each other, other shafts, the frame and the ground."""
    known = radii(setup)
    for path, other, wanted in shafts_beside(setup):
        of = "the body on" if other in known else ""
        name = f"{of} the {setup.plane.named(other)}".strip()
        yield from _near(setup, path, wanted - math.dist(setup.at(path), setup.at(other)), name)
    for path, line, wanted in frame_beside(setup):
        short = wanted - math.dist(nearest_on(line.start, line.end, setup.at(path)), setup.at(path))
        yield from _near(setup, path, short, f"the {line.name or 'frame'}")
    for path, radius in known.items() if setup.ground is not None else ():
        left = setup.at(path)[1] - radius - (setup.ground or 0.0)
        yield from too_low(setup, f"body on the {setup.plane.named(path)}", path, setup.at(path), left)


def _near(setup: Setup, path: str, short: float, name: str) -> Iterator[Clash]:
    yield from crowding(setup, f"body on the {setup.plane.named(path)}", name, path, short, setup.at(path))
