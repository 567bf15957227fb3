"""Quantities as somebody would type them."""

from __future__ import annotations

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.units import scale


def typed(value: float, dimension: str, spread: float = 0.0, *, places: int = 9) -> str | float:
    """A value with the unit of its kind, and how sure it is; a bare number where its kind has no unit.

    Args:
        value: SI.
        dimension: its kind.
        spread: one standard deviation, SI; 0 where none is to be told.
        places: significant ones.
    """
    unit = DIMENSIONS[dimension].metric
    factor, offset = scale(unit, dimension) if unit else (1.0, 0.0)
    text = f"{(value - offset) / factor:.{places}g}"
    if spread:
        text += f" +/- {spread / factor:.3g}"
    return f"{text} {unit}" if unit else text
