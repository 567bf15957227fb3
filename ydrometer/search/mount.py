"""Where the shafts of a layout may stand, and which pairs, alone and together, have places there.

The pairs of a layout tie the shaft of the source to the next one, and so on. A pair alone is out where no two places
of its shafts are as far apart as it wants. A combination is out where no places suit all its pairs at once: from shaft
to shaft it is followed which places can still be reached.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ydrometer.fit.line import STRETCH
from ydrometer.search.request import Mount, Pair
from ydrometer.search.room import centre_distance, has_room

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Bools = NDArray[np.bool_]

STEPS = 2000
"""Pieces of a slot in the middle of a line, where both neighbours must suit one and the same place."""
ROUNDED = 9
"""Decimals of a distance in m."""


@dataclass(frozen=True, slots=True)
class Tied:
    """How the options of a pair fit between the places of its two shafts.

    Attributes:
        kind: of each option, (n,): options of a kind want the same distances. suits: whether a kind goes at a distance,
        (kinds, distances). apart: which distance any two places are apart, (places, places of the next shaft).
    """

    kind: Ints
    suits: Bools
    apart: Ints

    @property
    def alone(self) -> Bools:
        """Whether each option has two places at all, (n,)."""
        return np.asarray(self.suits[self.kind].any(axis=1), np.bool_)

    def of(self, options: Bools) -> Tied:
        """Of some of the options."""
        return Tied(self.kind[options], self.suits, self.apart)


def tied(mount: Mount, pair: int, choice: Pair, size: Floats, driver: Floats, driven: Floats) -> Tied:
    """How options fit between their shafts.

    Args:
        mount: of their layout.
        pair: which one of the layout's pairs it is, from 0.
        choice: what the layout says of it.
        size: of the options, module or pitch, m, (n,).
        driver: teeth, of V-pulleys pitch diameters, m, (n,).
        driven: likewise.
    """
    low, high, apart = distances(mount, pair)
    if choice.kind == "gear":
        wanted = np.round(centre_distance(size, driver, driven), ROUNDED)[:, None]
        low = low - mount.tolerance
    else:
        wanted = np.stack([size, driver, driven], axis=1)
        # A chain may hang through a little.
        slack = high / (1.0 - STRETCH) if choice.kind == "chain" else high
        low, high = low - mount.loop_tolerance, np.maximum(high + mount.loop_tolerance, slack)
    _, first, kind = np.unique(wanted, axis=0, return_index=True, return_inverse=True)
    column = [values[first][:, None] for values in (size, driver, driven)]
    return Tied(kind.ravel(), has_room(choice, column[0], column[1], column[2], low, high), apart)


@lru_cache(maxsize=64)
def distances(mount: Mount, pair: int) -> tuple[Floats, Floats, Ints]:
    """All that the places of two shafts are apart: the least and the largest, m, (d,) each, and which one any two are.

    Args:
        mount: of the layout.
        pair: that ties the two shafts.
    """
    one, other = (_lines(mount, shaft) for shaft in (pair, pair + 1))
    low, high = _apart(one, other)
    known, which = np.unique(
        np.round(np.stack([low, high], axis=-1).reshape(-1, 2), ROUNDED), axis=0, return_inverse=True
    )
    return known[:, 0], known[:, 1], which.reshape(low.shape)


def _lines(mount: Mount, shaft: int) -> Floats:
    """The places of a shaft as lines, (n, 2 ends, 2): holes end where they begin; the first and last slot is one."""
    spots = np.array(mount.shafts[shaft].at)
    if not mount.shafts[shaft].slot:
        return np.stack([spots, spots], axis=1)
    steps = STEPS if 0 < shaft < len(mount.shafts) - 1 else 1
    share = np.linspace(0.0, 1.0, steps + 1)[:, None]
    along = spots[0] * (1.0 - share) + spots[1] * share
    return np.stack([along[:-1], along[1:]], axis=1)


def _apart(one: Floats, other: Floats) -> tuple[Floats, Floats]:
    """The least and the largest distance of lines that do not cross, (n, m) each."""
    ends = [(one[:, None, a], other[None, :, b]) for a in (0, 1) for b in (0, 1)]
    high = np.max([np.hypot(*np.moveaxis(p - q, -1, 0)) for p, q in ends], axis=0)
    low = np.min(
        [_off(one[:, None, a], other[None, :, 0], other[None, :, 1]) for a in (0, 1)]
        + [_off(other[None, :, b], one[:, None, 0], one[:, None, 1]) for b in (0, 1)],
        axis=0,
    )
    return low, high


def _off(point: Floats, start: Floats, end: Floats) -> Floats:
    """How far points are from lines, all (…, 2)."""
    along = end - start
    length = np.maximum((along**2).sum(axis=-1), 1e-30)
    share = np.clip(((point - start) * along).sum(axis=-1) / length, 0.0, 1.0)
    return np.asarray(np.hypot(*np.moveaxis(point - start - share[..., None] * along, -1, 0)))


def together(ties: Sequence[Tied], chosen: Sequence[Ints]) -> Bools | None:
    """Whether places suit all pairs of a combination at once, (m,); None where each pair has them already alone.

    Args:
        ties: of the pairs, in the order of power.
        chosen: the option of each pair for each combination, (m,).
    """
    if all(tie.apart.shape[1] == 1 for tie in ties[:-1]):
        return None
    reached = np.ones((1, ties[0].apart.shape[0]), np.float32)
    which = np.zeros(len(chosen[0]), np.int64)
    for tie, option in zip(ties, chosen, strict=True):
        kinds = len(tie.suits)
        ways, which = np.unique(which * kinds + tie.kind[option], return_inverse=True)
        onward = np.empty((len(ways), tie.apart.shape[1]), np.float32)
        for kind in np.unique(ways % kinds):
            rows = np.flatnonzero(ways % kinds == kind)
            onward[rows] = reached[ways[rows] // kinds] @ tie.suits[kind][tie.apart].astype(np.float32) > 0.0
        reached = onward
    return np.asarray(reached[which].any(axis=1), np.bool_)
