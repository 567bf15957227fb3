"""The tables a screen needs to show numbers: kinds of quantity with their units, and the measures."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any

from ydrometer.base import units
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.mounting import SHAPES
from ydrometer.parts import bulk
from ydrometer.parts.columns import TABLE, PartColumn
from ydrometer.questions.aids import AIDS, Aid


@dataclass(frozen=True, slots=True)
class DisplayUnit:
    """How a value is shown: shown = (si − offset)/factor, followed by `symbol`; `typed` is how it is entered."""

    symbol: str
    typed: str
    factor: float
    offset: float


@dataclass(frozen=True, slots=True)
class DimensionEntry:
    """A kind of quantity in both systems of units, with an example as typed."""

    name: str
    metric: DisplayUnit
    inch: DisplayUnit
    example: str


@dataclass(frozen=True, slots=True)
class MeasureEntry:
    """A measure a target can name; `run` is what it depends on (distance, speed or time), if anything."""

    name: str
    dimension: str
    run: str


@dataclass(frozen=True, slots=True)
class PartKind:
    """A kind of part in the bin: its words, its columns, what a new one holds, and whether lists of it can be typed."""

    kind: str
    one: str
    many: str
    columns: list[PartColumn]
    fixed: dict[str, Any]
    listed: bool


@dataclass(frozen=True, slots=True)
class Vocabulary:
    """Everything the page would otherwise have to copy."""

    dimensions: list[DimensionEntry]
    measures: list[MeasureEntry]
    aids: list[Aid]
    parts: list[PartKind]
    shapes: list[str]


@cache
def vocabulary() -> Vocabulary:
    """The tables, with conversion factors worked out by the units library."""
    return Vocabulary(
        [
            DimensionEntry(d.name, _unit(d.metric, d.name), _unit(d.inch, d.name), d.example)
            for d in DIMENSIONS.values()
        ],
        [MeasureEntry(row.name, row.dimension, row.run) for row in MEASURES.values() if row.shape == "number"],
        list(AIDS),
        [
            PartKind(k.kind, k.one, k.many, list(k.columns), dict(k.fixed), k.kind in bulk.LISTED)
            for k in TABLE.values()
        ],
        list(SHAPES),
    )


def _unit(text: str, dimension: str) -> DisplayUnit:
    factor, offset = units.scale(text, dimension)
    return DisplayUnit(_symbol(text), text, factor, offset)


def _symbol(text: str) -> str:
    plain = text.replace("*", "·").replace("^2", "²").replace("^3", "³")
    return (
        plain.replace("mohm", "mΩ").replace("ohm", "Ω").replace("degC", "°C").replace("degF", "°F").replace("deg", "°")
    )
