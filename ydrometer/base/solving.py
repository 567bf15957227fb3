"""Where a function of one number is 0."""

from __future__ import annotations

from collections.abc import Callable


def root(function: Callable[[float], float], low: float, high: float, *, absolute: float, relative: float) -> float:
    """A root between two places at which the function has different signs (Brent, Algorithms for Minimization without
    Derivatives, chapter An algorithm with guaranteed convergence for finding a zero of a function).

    Args:
        function: continuous between them.
        low, high: the two places.
        absolute, relative: how near to the root is near enough.

    Raises:
        ValueError: the signs are the same.
    """
    from scipy.optimize import brentq  # noqa: PLC0415  # a third of a second that most designs do without

    return float(brentq(function, low, high, xtol=absolute, rtol=relative))
