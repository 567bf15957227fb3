"""Options as rows of a table, for files."""

from __future__ import annotations

from ydrometer.base import units
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.document import names
from ydrometer.parts.sheet import Cell, harmless
from ydrometer.search.options import OptionMeasure, Options


def rows_of(options: Options) -> list[list[Cell]]:
    """The heads, then a row an option: its stages, ratio, price, every measure in metric units, and its parts."""
    heads = [_head(measure) for measure in options.measures]
    rows: list[list[Cell]] = [["rank", "stages", "overall ratio", "price", "parts to buy", *heads, "parts"]]
    for rank, option in enumerate(options.rows, start=1):
        values = [_shown(m, value) for m, value in zip(options.measures, option.values, strict=True)]
        parts = "; ".join(f"{use.needed} × {use.name}" for use in option.uses)
        rows.append(
            [
                rank,
                harmless(option.words),
                _round(option.ratio),
                _round(option.price),
                option.buy,
                *values,
                harmless(parts),
            ]
        )
    return rows


def _head(measure: OptionMeasure) -> str:
    unit = DIMENSIONS[measure.dimension].metric
    wanted = f", {measure.wanted}" if measure.wanted else ""
    return f"{names.measure_name(measure.measure)}{wanted}" + (f" [{unit}]" if unit else "")


def _shown(measure: OptionMeasure, value: float | None) -> Cell:
    if value is None:
        return ""
    factor, offset = units.scale(DIMENSIONS[measure.dimension].metric, measure.dimension)
    return _round((value - offset) / factor)


def _round(value: float) -> float:
    return float(f"{value:.6g}")
