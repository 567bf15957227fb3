"""A root finder for many bracketed problems at once."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ydrometer.driveline import Array
from ydrometer.errors import ConvergenceError

MOST_STEPS = 120
"""Bisection alone needs about 60 steps from any bracket to the last bit."""


def find_root(f: Callable[[Array], Array], low: Array, high: Array, tolerance: float = 4e-16) -> Array:
    """Roots of `f` in brackets, element by element, by Chandrupatla's method.

    Inverse quadratic interpolation where it is safe, bisection where it is not: as sure as the one and
    nearly as fast as the other (T. R. Chandrupatla, Adv. Eng. Software 28 (1997) 145).

    Args:
        f: from an array of points to the array of its values there, of the same shape.
        low, high: brackets, arrays of one shape; where f has the same sign at both, the end with the
            smaller |f| is returned.
        tolerance: width of the final bracket, relative to its larger end.

    Raises:
        ConvergenceError: after `MOST_STEPS` steps a bracket is still wider.
    """
    a, b = np.array(high, dtype=float), np.array(low, dtype=float)
    fa, fb = f(a), f(b)
    c, fc = a.copy(), fa.copy()
    step = np.full(a.shape, 0.5)
    open_ = np.sign(fa) * np.sign(fb) < 0.0
    for _ in range(MOST_STEPS):
        if not open_.any():
            return np.where(np.abs(fa) < np.abs(fb), a, b)
        x = np.where(open_, a + step * (b - a), a)
        fx = f(x)
        same = np.sign(fx) == np.sign(fa)
        c, fc = np.where(same, a, b), np.where(same, fa, fb)
        b, fb = np.where(open_ & ~same, a, b), np.where(open_ & ~same, fa, fb)
        a, fa = np.where(open_, x, a), np.where(open_, fx, fa)
        best = np.where(np.abs(fa) < np.abs(fb), a, b)
        with np.errstate(divide="ignore", invalid="ignore"):
            least = np.where(b != a, (2.0 * np.abs(best) * tolerance + 1e-300) / np.abs(b - a), 1.0)
            step = np.clip(_step(a, b, c, fa, fb, fc), least, 1.0 - least)
        open_ &= (least <= 0.5) & (fa != 0.0) & (fb != 0.0)
    raise ConvergenceError("no root within tolerance", point=a, residual=fa)


def _step(a: Array, b: Array, c: Array, fa: Array, fb: Array, fc: Array) -> Array:
    """The next point as a share of the way from a to b."""
    xi = (a - b) / (c - b)
    phi = (fa - fb) / (fc - fb)
    safe = (phi**2 < xi) & ((1.0 - phi) ** 2 < 1.0 - xi)
    inverse = fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
    return np.where(safe & np.isfinite(inverse), inverse, 0.5)
