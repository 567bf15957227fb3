"""A reckoning: numbers put in, and steps worked out from them, at many moments at once.

What is worked out this way can also be shown: a sheet of working writes down the same numbers and the same expressions
at the one moment that is asked about, so that no formula stands in two places.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from types import CodeType
from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Number = float | Floats

FUNCTIONS: dict[str, Callable[..., Any]] = {
    name: getattr(np, name) for name in ("sin", "cos", "tan", "hypot", "exp", "log", "sqrt")
} | {"min": np.minimum, "max": np.maximum}
"""What expressions may call; of `min` and `max` with two numbers."""


@dataclass(frozen=True, slots=True)
class Put:
    """A number put in.

    Attributes:
        symbol, words. value: SI, one number or one a moment, (m,). dimension. key: where the document says it, below
        the stage; one with "fit." or "loads." first is of the whole document. origin, note: where it came from if it is
        not said there.
    """

    symbol: str
    words: str
    value: Number
    dimension: str
    key: str
    origin: str
    note: str


@dataclass(frozen=True, slots=True)
class Worked:
    """symbol = expression, in words, with its dimension."""

    symbol: str
    words: str
    expression: str
    dimension: str


class Reckoning:
    """Numbers known by symbol, with how each came about."""

    def __init__(self) -> None:
        self.lines: list[Put | Worked] = []
        self.known: dict[str, Number] = {}

    def copy(self) -> Reckoning:
        """The same numbers and steps, to go on from."""
        other = Reckoning()
        other.lines, other.known = list(self.lines), dict(self.known)
        return other

    def put(
        self,
        symbol: str,
        words: str,
        value: Number,
        dimension: str,
        key: str = "",
        *,
        origin: str = "given",
        note: str = "",
    ) -> Number:
        """Put a number in."""
        self.lines.append(Put(symbol, words, value, dimension, key, origin, note))
        self.known[symbol] = value
        return value

    def step(self, symbol: str, words: str, expression: str, dimension: str) -> Number:
        """Work a number out from those above."""
        self.lines.append(Worked(symbol, words, expression, dimension))
        value: Number = eval(_compiled(expression), {"__builtins__": {}, **FUNCTIONS}, self.known)
        self.known[symbol] = value
        return value


@lru_cache(maxsize=1024)
def _compiled(expression: str) -> CodeType:
    """An expression of this package's own making, compiled once."""
    return compile(expression, "<reckoning>", "eval")
