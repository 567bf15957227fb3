"""Checks of what stands around a shaft behind the plate, such as a motor: from each other, shafts, frame and ground."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from itertools import permutations

from ydrometer.document.mounting import FrameLine
from ydrometer.fit.along import NOISE
from ydrometer.fit.clash import Clash, mm
from ydrometer.fit.setup import Setup
from ydrometer.fit.touching import nearest_on, too_low


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
    if short > NOISE:
        word = "runs into" if short > setup.mounting.gap else "leaves too little to"
        text = f"the body on the {setup.plane.named(path)} {word} {name}: {mm(short)} more is wanted"
        yield Clash("clash", text, path, short, setup.at(path))
