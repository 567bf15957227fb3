"""Where the shafts of a layout may stand, and which pairs, alone and together, have places there.

The pairs of a layout tie the shaft of the source to the next one, and so on. A pair alone is out where no two places of
its shafts are as far apart as it wants and clear of the frame. A combination is out where no places suit all its pairs
at once: from shaft to shaft it is followed which places can still be reached.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import usual_tolerance
from ydrometer.fit.toothing import LEAST_CONTACT
from ydrometer.geometry.gears import distance_of_contact
from ydrometer.geometry.segments import off_line
from ydrometer.search.layout import Mount, PairChoice
from ydrometer.search.room import centre_distance, has_room

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

STEPS = 2000
"""Pieces of a slot in the middle of a line, where both neighbours must suit one and the same place."""
ROUNDED = 9
"""Decimals of a distance in m."""


@dataclass(frozen=True, slots=True)
class Options:
    """What decides whether the options of a pair can be mounted, (n,) each: module or pitch, m, measures of driver and
    driven (teeth, or diameters in m), and their outer radii, m.
    """

    size: Floats
    driver: Floats
    driven: Floats
    driver_outer: Floats
    driven_outer: Floats

    def columns(self, choice: PairChoice, mount: Mount) -> list[Floats]:
        """Columns that are equal for options that can be mounted in the same places."""
        meshing = [self.apart, self.tolerance(choice, mount)]
        wanted = meshing if choice.loop is None else [self.size, self.driver, self.driven]
        return [*wanted, self.driver_outer, self.driven_outer] if mount.frame else wanted

    def tolerance(self, choice: PairChoice, mount: Mount) -> Floats:
        """How much further apart than without backlash gears may stand, m; below 0 where too few teeth carry at all."""
        said = usual_tolerance(self.size) if mount.tolerance is None else mount.tolerance
        edge = distance_of_contact(self.size, self.driver, self.driven, choice.usual.pressure_angle, LEAST_CONTACT)
        return np.asarray(np.minimum(said, edge - self.apart))

    @property
    def apart(self) -> Floats:
        """The centre distance of gears, m."""
        return np.asarray(np.round(centre_distance(self.size, self.driver, self.driven), ROUNDED))


@dataclass(frozen=True, slots=True)
class PairPlaces:
    """How the options of a pair fit between the places of its two shafts.

    Attributes:
        kind: of each option, (n,): options of a kind go to the same places. suits: whether a kind goes at a distance,
        (kinds, distances). apart: which distance any two places are apart, (places, places of the next shaft).
        clear: where the driver's, and where the driven's wheel of a kind clears the frame, (kinds, places) each.
    """

    kind: Ints
    suits: Bools
    apart: Ints
    clear: tuple[Bools, Bools]

    def goes(self, kind: int) -> Bools:
        """Pairs of places between which options of a kind can be mounted, shaped as `apart`."""
        first, second = self.clear
        return np.asarray(self.suits[kind][self.apart] & first[kind][:, None] & second[kind])

    @property
    def alone(self) -> Bools:
        """Whether there are two places for each option, (n,)."""
        shafts = [self._has_places(kind) for kind in range(len(self.suits))]
        return np.array(shafts, bool)[self.kind]

    def _has_places(self, kind: int) -> bool:
        if not self.suits[kind].any():
            return False
        # Mostly the frame is in nobody's way.
        return all(bool(side[kind].all()) for side in self.clear) or bool(self.goes(kind).any())

    def of(self, options: Bools) -> PairPlaces:
        """The same for some of the options."""
        return PairPlaces(self.kind[options], self.suits, self.apart, self.clear)


def pair_places(mount: Mount, pair: int, choice: PairChoice, options: Options) -> PairPlaces:
    """How options fit between their shafts.

    Args:
        mount: of their layout.
        pair: which one of the layout's pairs it is, from 0.
        choice: what the layout says of it.
        options: of the pair.
    """
    low, high, apart = distances(mount, pair)
    columns = np.stack(options.columns(choice, mount), axis=1)
    _, first, kind = np.unique(columns, axis=0, return_index=True, return_inverse=True)
    if choice.loop is None:
        tolerance = options.tolerance(choice, mount)[first][:, None]
        low = np.where(tolerance < 0.0, np.inf, low - tolerance)
    else:
        # A chain may hang through a little.
        slack = high / (1.0 - choice.loop.stretch)
        low, high = low - mount.loop_tolerance, np.maximum(high + mount.loop_tolerance, slack)
    size, driver, driven = (values[first][:, None] for values in (options.size, options.driver, options.driven))
    outer = (options.driver_outer[first], options.driven_outer[first])
    clear = (
        from_frame(mount, pair) >= outer[0][:, None] + mount.gap - NOISE,
        from_frame(mount, pair + 1) >= outer[1][:, None] + mount.gap - NOISE,
    )
    return PairPlaces(kind.ravel(), has_room(choice, size, driver, driven, low, high), apart, clear)


@lru_cache(maxsize=64)
def from_frame(mount: Mount, shaft: int) -> Floats:
    """How far the places of a shaft are from the nearest line of the frame, m, (places,); of a slot its farther end.

    Args:
        mount: of the layout.
        shaft: which one, from 0.
    """
    places = places_of(mount, shaft)
    nearest = np.full(len(places), np.inf)
    for edge in mount.frame:
        off = [off_line(places[:, end], np.array(edge.start), np.array(edge.end)) for end in (0, 1)]
        nearest = np.minimum(nearest, np.maximum(*off))
    return nearest


@lru_cache(maxsize=64)
def distances(mount: Mount, pair: int) -> tuple[Floats, Floats, Ints]:
    """Distinct distances between the places of two shafts: least and largest, m, (d,) each; and that of any two places.

    Args:
        mount: of the layout.
        pair: that ties the two shafts.
    """
    first, second = (places_of(mount, shaft) for shaft in (pair, pair + 1))
    low, high = _apart(first, second)
    known, which = np.unique(
        np.round(np.stack([low, high], axis=-1).reshape(-1, 2), ROUNDED), axis=0, return_inverse=True
    )
    return known[:, 0], known[:, 1], which.reshape(low.shape)


def places_of(mount: Mount, shaft: int) -> Floats:
    """The places of a shaft as lines, (n, 2 ends, 2): holes end where they begin; the first and last slot is one.

    Args:
        mount: of the layout.
        shaft: which one, from 0.
    """
    spots = np.array(mount.shafts[shaft].at)
    if not mount.shafts[shaft].slot:
        return np.stack([spots, spots], axis=1)
    steps = STEPS if 0 < shaft < len(mount.shafts) - 1 else 1
    share = np.linspace(0.0, 1.0, steps + 1)[:, None]
    along = spots[0] * (1.0 - share) + spots[1] * share
    return np.stack([along[:-1], along[1:]], axis=1)


def _apart(first: Floats, second: Floats) -> tuple[Floats, Floats]:
    """The least and the largest distance of lines that do not cross, (n, m) each."""
    ends = [(first[:, None, a], second[None, :, b]) for a in (0, 1) for b in (0, 1)]
    high = np.max([np.hypot(*np.moveaxis(p - q, -1, 0)) for p, q in ends], axis=0)
    low = np.min(
        [off_line(first[:, None, a], second[None, :, 0], second[None, :, 1]) for a in (0, 1)]
        + [off_line(second[None, :, b], first[:, None, 0], first[:, None, 1]) for b in (0, 1)],
        axis=0,
    )
    return low, high


def together(placed: Sequence[PairPlaces], chosen: Sequence[Ints]) -> Bools | None:
    """Whether there are places for all pairs of a combination at once, (m,); None if that follows from each pair alone.

    Args:
        placed: of the pairs, in the order of power.
        chosen: the option of each pair for each combination, (m,).
    """
    if all(pair.apart.shape[1] == 1 for pair in placed[:-1]):
        return None
    reached = np.ones((1, placed[0].apart.shape[0]), np.float32)
    which = np.zeros(len(chosen[0]), np.int64)
    for pair, option in zip(placed, chosen, strict=True):
        kinds = len(pair.suits)
        ways, which = np.unique(which * kinds + pair.kind[option], return_inverse=True)
        onward = np.empty((len(ways), pair.apart.shape[1]), np.float32)
        for kind in np.unique(ways % kinds):
            rows = np.flatnonzero(ways % kinds == kind)
            onward[rows] = reached[ways[rows] // kinds] @ pair.goes(kind).astype(np.float32) > 0.0
        reached = onward
    return np.asarray(reached[which].any(axis=1), np.bool_)
