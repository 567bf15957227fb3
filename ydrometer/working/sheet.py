"""A sheet of working: numbers put in, and steps whose value is worked out from nothing but the numbers shown."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from types import CodeType
from typing import Any, Literal

from ydrometer.base.seen import Value

Origin = Literal["given", "measured", "part", "assumed", "default", "constant", "solved"]
FUNCTIONS: dict[str, Any] = {
    name: getattr(math, name) for name in ("sin", "cos", "tan", "atan", "atan2", "acos", "hypot", "exp", "log", "sqrt")
} | {"min": min, "max": max, "sum": sum, "abs": abs}


@dataclass(frozen=True, slots=True)
class Input:
    """A number put in: its symbol, what it is in words, its SI value, and where it came from.

    `origin` "solved" means found by the core so that the equations below hold, which their values show.
    """

    symbol: str
    words: str
    value: float
    dimension: str
    origin: Origin
    path: str
    note: str


@dataclass(frozen=True, slots=True)
class Step:
    """symbol = expression = value. A `check` is a solved number worked out once more from the others."""

    symbol: str
    words: str
    expression: str
    value: float
    dimension: str
    check: bool


@dataclass(frozen=True, slots=True)
class Column:
    """A column of the table of a run: one number a row."""

    symbol: str
    words: str
    dimension: str
    values: list[float]


@dataclass(frozen=True, slots=True)
class InputPart:
    """One thing that lies between the plain estimate and the full value: the value with it, and the change it makes."""

    words: str
    value: float | None
    change: float | None


@dataclass(frozen=True, slots=True)
class Working:
    """Everything behind one number.

    Attributes:
        formula: in words. source: of the formula.
        value: the number itself, or None where the measure has no meaning for this design; `text` where it is a text.
        inputs, table, steps: in the order they are used; the last step is the number.
        plain: what a spreadsheet without losses, sag and grip would give. parts: from there to the value, in turn.
    """

    measure: str
    dimension: str
    value: float | None
    text: str
    formula: str
    source: str
    inputs: list[Input]
    table: list[Column]
    steps: list[Step]
    plain: float | None
    parts: list[InputPart]


@dataclass
class Sheet:
    """A working being written down, over the values of a design by path."""

    values: Mapping[str, Value]
    inputs: list[Input] = field(default_factory=list)
    table: list[Column] = field(default_factory=list)
    steps: list[Step] = field(default_factory=list)
    known: dict[str, Any] = field(default_factory=dict)

    def given(self, symbol: str, words: str, path: str, otherwise: float = 0.0) -> float:
        """A number of the document, with what it says about where it came from."""
        value = self.values.get(path)
        if value is None:
            return self.put(symbol, words, otherwise, "ratio", "default", path)
        return self.put(symbol, words, value.si, value.dimension, value.origin, path, value.note)

    def put(
        self,
        symbol: str,
        words: str,
        value: float,
        dimension: str,
        origin: str = "constant",
        path: str = "",
        note: str = "",
    ) -> float:
        """A number that comes from elsewhere: a constant, a count, something solved."""
        if symbol not in self.known:
            entry: Any = origin
            self.inputs.append(Input(symbol, words, value, dimension, entry, path, note))
            self.known[symbol] = value
        return value

    def columns(self, *columns: Column) -> None:
        """The table of a run, whose columns steps may sum up."""
        self.table.extend(columns)
        self.known |= {column.symbol: column.values for column in columns}

    def step(self, symbol: str, words: str, expression: str, dimension: str, *, check: bool = False) -> float:
        """A number worked out from those above; one that is there already is not worked out again."""
        if symbol in self.known and not check:
            return float(self.known[symbol])
        value = evaluate(expression, self.known)
        self.steps.append(Step(symbol, words, expression, value, dimension, check))
        self.known.setdefault(symbol, value)
        return value


def evaluate(expression: str, known: dict[str, Any]) -> float:
    """The value of an expression of this package's own making, over the numbers known by symbol."""
    return float(eval(_compiled(expression), {"__builtins__": {}}, {**FUNCTIONS, **known}))


@lru_cache(maxsize=4096)
def _compiled(expression: str) -> CodeType:
    return compile(expression, "<working>", "eval")
