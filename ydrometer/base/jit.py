"""Compiling the kernels of motion: plain functions of floats, turned into machine code by numba.

The kernels read like the formulas, one design and one speed at a time; compiled, twenty thousand designs pass
through them in a second. A command that looks at one design starts faster without the compiler: with
YDROMETER_INTERPRET=1 the same functions run as plain Python.
"""

from __future__ import annotations

import hashlib
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


def _made(function: F, **options: Any) -> F:
    if INTERPRETED:
        return function
    from numba import njit  # noqa: PLC0415  # a third of a second, spared where nothing is compiled

    made: F = njit(cache=_keeps(), error_model="numpy", **options)(function)
    return made


@cache
def _keeps() -> bool:
    """Tell numba where to keep what it compiles; whether it can.

    A folder for each state of the sources: numba itself would not notice a change in a function of another file.
    """
    from numba.core import config  # noqa: PLC0415

    package = Path(__file__).parents[1]
    digest = hashlib.sha256()
    for source in sorted((package / "motion").glob("*.py")):
        digest.update(source.name.encode() + source.read_bytes())
    folder = package / "__pycache__" / f"kernels-{digest.hexdigest()[:16]}"
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError:
        return False
    config.CACHE_DIR = str(folder)  # type: ignore[attr-defined]  # made at import from the environment
    return os.access(folder, os.W_OK)
