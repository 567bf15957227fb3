"""Compiling the kernels of motion: plain functions of floats, turned into machine code by numba.

The kernels read like the formulas, one design and one speed at a time; compiled, twenty thousand designs pass
through them in a second. A command that looks at one design starts faster without the compiler: with
YDROMETER_INTERPRET=1 the same functions run as plain Python.
"""

from __future__ import annotations

import hashlib
import math
import os
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

F = TypeVar("F", bound=Callable[..., Any])
"""A function."""

INTERPRETED = os.environ.get("YDROMETER_INTERPRET") == "1"


def kernel(function: F) -> F:
    """Mark what only kernels call; it makes and returns no arrays, so numba need not count who holds them.

    Kernels call kernels, and functions of `math` that numba knows.
    """
    return _made(function, no_cpython_wrapper=True, no_cfunc_wrapper=True, _nrt=False)


def inner(function: F) -> F:
    """Mark a kernel whose machine code is put where it is called.

    A design is five arrays with their shapes: handing them on takes longer than what a small kernel does with them.
    """
    return _made(function, no_cpython_wrapper=True, no_cfunc_wrapper=True, _nrt=False, forceinline=True)


def leaf(function: F) -> F:
    """Mark a small kernel whose text is put where it is called."""
    return _made(function, no_cpython_wrapper=True, no_cfunc_wrapper=True, _nrt=False, inline="always")


def maker(function: F) -> F:
    """Mark a kernel that returns arrays to other kernels."""
    return _made(function, no_cpython_wrapper=True, no_cfunc_wrapper=True)


def entry(function: F) -> F:
    """Mark a kernel that Python calls; it may make arrays, and lets other threads run meanwhile."""
    return _made(function, no_cfunc_wrapper=True, nogil=True)


def divided(dividend: float, divisor: float) -> float:
    """A quotient in plain Python that is infinite, or NaN, where the divisor is 0."""
    try:
        return dividend / divisor
    except ZeroDivisionError:
        undefined = math.isnan(dividend) or dividend == 0.0
        return math.nan if undefined else math.copysign(math.inf, dividend) * math.copysign(1.0, divisor)


def _made(function: F, **options: Any) -> F:
    if INTERPRETED:
        return function
    from numba import njit  # noqa: PLC0415  # a third of a second, spared where nothing is compiled

    compiled: F = njit(cache=_keeps(), error_model="numpy", **options)(function)
    return compiled


@cache
def _keeps() -> bool:
    """Tell numba where to keep what it compiles; whether it can.

    A folder for each state of the sources: numba itself would not notice a change in a function of another file.
    """
    from numba.core import config  # noqa: PLC0415

    package = Path(__file__).parents[1]
    digest = hashlib.sha256()
    for source in [Path(__file__), *sorted((package / "motion").glob("*.py"))]:
        digest.update(source.name.encode() + source.read_bytes())
    folder = package / "__pycache__" / f"kernels-{digest.hexdigest()[:16]}"
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError:
        return False
    config.CACHE_DIR = str(folder)  # type: ignore[attr-defined]  # made at import from the environment
    return os.access(folder, os.W_OK)


@leaf
def _over(dividend: float, divisor: float) -> float:
    return dividend / divisor


over = divided if INTERPRETED else _over
"""A quotient whose divisor may be 0: then it is infinite, or NaN of 0 and of NaN (IEEE 754, section 7.3). Compiled
kernels divide so by themselves, Python does not.
"""
