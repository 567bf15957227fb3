"""Whether a key reaches the screws of a mount, past the wheels that stand over them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ydrometer.document.mounting import Point
from ydrometer.fit.clash import Clash
from ydrometer.fit.coupling import Wheel
from ydrometer.fit.setup import Setup

HEAD_PER_HOLE, HEAD_MORE = 1.5, 7e-4
"""A socket head across, m, from the hole that its screw goes through: 5.5 mm at 3.2 mm, 13.3 at 8.4 (ISO 4762, Hexagon
socket head cap screws, and ISO 273, clearance holes, medium; within 3 %). A key is no wider than the head."""


def head(hole: float) -> float:
    """Across the head of a screw, m.

    Args:
        hole: that it goes through, m.
    """
    return HEAD_PER_HOLE * hole + HEAD_MORE


def covered(setup: Setup, path: str) -> list[Wheel]:
    """Wheels that stand over a screw of a shaft's mount, as it stands.

    Args:
        setup: a design with where all stands.
        path: of the shaft.
    """
    bolts, at = setup.shaft(path).bolts, setup.at(path)
    if bolts is None:
        return []
    places = [(at[0] + dx, at[1] + dy) for dx, dy in bolts.around]
    reach = 0.5 * head(bolts.hole)
    return [wheel for wheel in setup.plane.wheels if any(_over(setup, wheel, place, reach) for place in places)]


def _over(setup: Setup, wheel: Wheel, place: Point, reach: float) -> bool:
    """Whether a wheel stands over some of a head; a ring is open in its middle."""
    apart = math.dist(setup.at(wheel.shaft), place)
    return wheel.inner_radius - reach < apart < wheel.outer_radius + reach


def reached(setup: Setup) -> Iterator[Clash]:
    """Screws that have to be tightened once all stands are free of wheels: those of a mount that is moved to set."""
    for path in setup.plane.shafts:
        said = setup.shaft(path)
        if said.slot is None and said.eccentric is None:
            continue
        words = list(dict.fromkeys(wheel.words for wheel in covered(setup, path)))
        if words:
            over = f"the {' and the '.join(words)} {'stand' if len(words) > 1 else 'stands'} over them when it is set"
            text = f"no key reaches all screws around the {setup.plane.named(path)}: {over}"
            yield Clash("mind", f"{text}; turn their circle, or tighten from behind", path, 0.0, setup.at(path))
