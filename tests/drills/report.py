"""What a drill found, and the table of all."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True)
class Row:
    """One figure: of which drill, what, how much, what was wanted, and whether it holds."""

    drill: str
    what: str
    figure: str
    wanted: str
    holds: bool


def at_most(drill: str, what: str, value: float, most: float, unit: str = "") -> Row:
    """A figure that may be at most so much."""
    return Row(drill, what, f"{value:.4g}{unit}", f"at most {most:g}{unit}", value <= most)


def equal(drill: str, what: str, value: object, wanted: object) -> Row:
    """A figure that has to be this."""
    return Row(drill, what, str(value), str(wanted), value == wanted)


def table(rows: Iterable[Row]) -> str:
    """All rows under their heads."""
    lines = [("drill", "what", "figure", "wanted", "holds")]
    lines += [(row.drill, row.what, row.figure, row.wanted, "yes" if row.holds else "NO") for row in rows]
    widths = [max(len(line[i]) for line in lines) for i in range(5)]
    return "\n".join("  ".join(cell.ljust(width) for cell, width in zip(line, widths, strict=True)) for line in lines)
