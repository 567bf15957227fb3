"""Curves with fewer points that look the same."""

from __future__ import annotations

import numpy as np

from ydrometer.base.reckoning import Floats


def thinned(points: Floats, most: int) -> Floats:
    """At most so many rows, of each stretch those with the least and the largest value.

    Args:
        points: rows of a place along the curve, the value, and whatever goes with them, (n, 2 or more).
        most: how many may be left.
    """
    if len(points) <= most:
        return points
    kept = []
    for part in np.array_split(points, most // 2):
        kept += [part[k] for k in sorted({int(np.argmin(part[:, 1])), int(np.argmax(part[:, 1]))})]
    return np.array(kept)
