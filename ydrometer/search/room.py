"""Pairs that a mount has room for: gears whose shafts can stand so far apart, loops of which a length fits."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.search.request import Length, Pair

Floats = NDArray[np.float64]
SAME_PITCH = 1e-6
WHOLE = 1e-9
"""Relative room for whole numbers of pieces."""
PIECES = {"belt": 1, "chain": 2}
"""A belt has any whole number of teeth, a chain an even number of links."""


def has_room(choice: Pair, size: Floats, driver: Floats, driven: Floats) -> NDArray[np.bool_]:
    """Whether each pair goes where its shafts stand, and with a length at hand, as far as the choice asks for that.

    Args:
        choice: with its `distance` and `lengths`.
        size: module or pitch, m, (n,).
        driver, driven: teeth, of V-pulleys pitch diameters, m, (n,).
    """
    if choice.distance is None and choice.lengths is None:
        return np.ones(len(size), bool)
    low, high = choice.distance or (0.0, np.inf)
    if choice.kind == "gear":
        apart = 0.5 * size * (driver + driven)
        return np.asarray((apart >= low) & (apart <= high))
    per = 0.5 if choice.kind == "v_belt" else size / (2.0 * np.pi)
    r1, r2 = driver * per, driven * per
    touching = (r1 + r2) * (1.0 + 1e-12)
    least, most = _length(r1, r2, np.maximum(touching, low)), _length(r1, r2, np.maximum(touching, high))
    possible = touching < high
    if choice.lengths is not None:
        return possible & _any_goes(choice.lengths, size, least, most)
    if choice.kind == "v_belt":
        return np.asarray(possible)
    piece = size * PIECES[choice.kind]
    return np.asarray(possible & (np.ceil(least / piece - WHOLE) <= np.floor(most / piece + WHOLE)))


def _any_goes(lengths: Sequence[Length], size: Floats, least: Floats, most: Floats) -> NDArray[np.bool_]:
    found = np.zeros(len(size), bool)
    for known in lengths:
        same = known.pitch is None or np.abs(size - known.pitch) <= SAME_PITCH * known.pitch
        found |= same & (known.length >= least * (1.0 - WHOLE)) & (known.length <= most * (1.0 + WHOLE))
    return found


def _length(r1: Floats, r2: Floats, distance: Any) -> Floats:
    """Of an open loop, as `fit.loops.length`, for many at once; infinite for an endless distance."""
    with np.errstate(invalid="ignore"):
        be = np.arcsin(np.clip((r2 - r1) / distance, -1.0, 1.0))
        return np.asarray(2.0 * distance * np.cos(be) + np.pi * (r1 + r2) + 2.0 * be * (r2 - r1))
