"""Where something becomes true, found by looking and halving."""

from collections.abc import Callable

import numpy as np


def first(true: Callable[[float], bool], start: float, end: float) -> float | None:
    before = start
    if true(start):
        return start
    for at in np.linspace(start, end * (1 - 1e-10), 60)[1:]:
        if true(float(at)):
            low, high = before, float(at)
            for _ in range(40):
                middle = 0.5 * (low + high)
                low, high = (low, middle) if true(middle) else (middle, high)
            return high
        before = float(at)
    return None
