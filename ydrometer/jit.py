"""Compiling the kernels of motion: plain functions of floats, turned into machine code by numba.

The kernels read like the formulas, one design and one speed at a time; compiled, twenty thousand designs pass
through them in a second. A command that looks at one design starts faster without the compiler: with
YDROMETER_INTERPRET=1 the same functions run as plain Python.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

F = TypeVar("F", bound=Callable[..., Any])
"""A function."""

INTERPRETED = os.environ.get("YDROMETER_INTERPRET") == "1"


def _cache_folder() -> Path:
    """A folder for this state of the sources: numba itself would not notice a change in a function called from another file."""
    package = Path(__file__).parent
    digest = hashlib.sha256()
    for source in sorted((package / "motion").glob("*.py")):
        digest.update(source.name.encode() + source.read_bytes())
    return package / "__pycache__" / f"kernels-{digest.hexdigest()[:16]}"


def _compiler(**options: bool) -> Callable[[Any], Any]:
    from numba import config, njit  # noqa: PLC0415  # a third of a second, spared where nothing is compiled

    folder = _cache_folder()
    keep = os.access(folder.parent if folder.parent.exists() else folder.parent.parent, os.W_OK)
    config.CACHE_DIR = str(folder)
    made: Callable[[Any], Any] = njit(cache=keep, error_model="numpy", **options)
    return made


def _as_it_is(function: F) -> F:
    return function


kernel = _as_it_is if INTERPRETED else _compiler(no_cpython_wrapper=True, no_cfunc_wrapper=True, _nrt=False)
"""Decorator of what only kernels call: it makes and returns no arrays, so numba need not count who holds them.

Kernels call kernels, and functions of `math` that numba knows.
"""
maker = _as_it_is if INTERPRETED else _compiler(no_cpython_wrapper=True, no_cfunc_wrapper=True)
"""Decorator of a kernel that makes or returns arrays, for other kernels."""
entry = _as_it_is if INTERPRETED else _compiler(no_cfunc_wrapper=True)
"""Decorator of a kernel that Python calls; it may make arrays."""
