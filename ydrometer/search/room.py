"""Which pairs can be mounted: gears at the distances there are, loops of the lengths there are."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.parts.part import PowerWheel
from ydrometer.search.layout import Length, PairChoice

Floats = NDArray[np.float64]
SAME_PITCH = 1e-6
WHOLE = 1e-9
"""Relative tolerance for whole numbers of pieces."""


def has_room(
    choice: PairChoice, size: Floats, driver: Floats, driven: Floats, low: Any = 0.0, high: Any = np.inf
) -> NDArray[np.bool_]:
    """Whether each pair goes at some distance of a range, and with a length at hand where the choice asks for one.

    Args:
        choice: with its `lengths`.
        size: module or pitch, m, (n,).
        driver: teeth, of V-pulleys pitch diameters, m, (n,).
        driven: likewise.
        low: the least distance between the shafts without backlash, m; broadcast against the others.
        high: the largest.
    """
    loop = choice.loop
    if loop is None:
        apart = centre_distance(size, driver, driven)
        return np.asarray((apart >= low) & (apart <= high))
    radius: Any = choice.form.loop_radius  # for many at once
    r1, r2 = (radius(size, measure) for measure in (driver, driven))
    touching = (r1 + r2) * (1.0 + 1e-12)
    least, most = loop_length(r1, r2, np.maximum(touching, low)), loop_length(r1, r2, np.maximum(touching, high))
    possible = np.asarray(touching < high)
    if choice.lengths is not None:
        return possible & _any_goes(choice.lengths, size, least, most)
    if not loop.pieces:
        return possible
    piece = size * loop.step
    # Where there is no largest distance, some number of pieces always goes.
    with np.errstate(invalid="ignore"):
        return np.asarray(possible & ~(np.ceil(least / piece - WHOLE) > np.floor(most / piece + WHOLE)))


def centre_distance(size: Any, driver: Any, driven: Any) -> Any:
    """Centre distance of gears without backlash, m."""
    return 0.5 * size * (driver + driven)


def outer_radius(part: PowerWheel) -> float:
    """Outer radius of a wheel of a bin with what runs on it, m."""
    return part.form.outer_radius(part.tooth_size, part.measure, part.rim)


def loop_length(r1: Any, r2: Any, distance: Any) -> Floats:
    """Length of an open loop, m, as `geometry.loops.length` but for arrays; infinite for an infinite distance."""
    with np.errstate(invalid="ignore"):
        be = np.arcsin(np.clip((r2 - r1) / distance, -1.0, 1.0))
        return np.asarray(2.0 * distance * np.cos(be) + np.pi * (r1 + r2) + 2.0 * be * (r2 - r1))


def _any_goes(lengths: Sequence[Length], size: Floats, least: Floats, most: Floats) -> NDArray[np.bool_]:
    goes = np.zeros(np.broadcast_shapes(size.shape, least.shape, most.shape), bool)
    for known in lengths:
        same = known.pitch is None or np.abs(size - known.pitch) <= SAME_PITCH * known.pitch
        goes |= same & (known.length >= least * (1.0 - WHOLE)) & (known.length <= most * (1.0 + WHOLE))
    return goes
