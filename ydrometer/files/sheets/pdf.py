"""A template as PDF: as many sheets as it needs at full size, with marks to cut and join them by."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from html import escape
from pathlib import Path

from ydrometer.files.sheets.outline import Outline
from ydrometer.files.sheets.svg import MM, label, scale_bar, shapes_of

SIZES = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
"""Sheets, mm."""
EDGE = 10.0
"""What printers leave blank, mm."""
FOOT = 22.0
"""Room for the scale bar and the words under the drawing, mm."""
MARK = 6.0
"""Length of the marks at the corners, mm."""
MOST_SHEETS = 200


@dataclass(frozen=True, slots=True)
class Tile:
    """One sheet's part of the template: its lower left, mm, row from below and column from the left."""

    left: float
    bottom: float
    row: int
    column: int


def pdf(outline: Outline, sheet: str, font: Path | None = None) -> bytes:
    """The file; sheets lie across where that takes fewer of them.

    Args:
        outline: in m.
        sheet: a key of `SIZES`.
        font: a file of the face to set it in; without one a common one.

    Raises:
        ValueError: an unknown sheet, or so large a template that nobody would join its sheets.
    """
    from weasyprint import HTML  # noqa: PLC0415  # a second, spared where no template is asked for
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    if sheet not in SIZES:
        raise ValueError(f'no sheet "{sheet}": known are {", ".join(SIZES)}')
    upright = SIZES[sheet]
    ways = [(size, list(tiles_of(outline, *window(*size)))) for size in (upright, upright[::-1])]
    (wide, high), tiles = min(ways, key=lambda way: len(way[1]))
    if len(tiles) > MOST_SHEETS:
        raise ValueError(f"{len(tiles)} sheets would be needed, at most {MOST_SHEETS} are made: take SVG or DXF")
    pages = "".join(_page(outline, tile, tiles, wide, high) for tile in tiles)
    face = f'@font-face {{ font-family: Template; src: url("{font.as_uri()}") }}' if font else ""
    style = f"@page {{ size: {wide}mm {high}mm; margin: 0 }} {face} body {{ margin: 0 }} svg {{ display: block }}"
    page = f"<html><head><title>{escape(outline.name)}</title><style>{style}</style></head><body>{pages}</body></html>"
    made: bytes = HTML(string=page).write_pdf(font_config=FontConfiguration())
    return made


def window(wide: float, high: float) -> tuple[float, float]:
    """What of a sheet shows the template, mm: width and height."""
    return wide - 2.0 * EDGE, high - 2.0 * EDGE - FOOT


def tiles_of(outline: Outline, wide: float, high: float) -> Iterator[Tile]:
    """The sheets, row by row from below.

    Args:
        outline: in m.
        wide, high: what each of them shows, mm.
    """
    left, bottom, right, top = (MM * m for m in outline.extent)
    columns = max(1, math.ceil((right - left) / wide - 1e-9))
    rows = max(1, math.ceil((top - bottom) / high - 1e-9))
    for row in range(rows):
        for column in range(columns):
            yield Tile(left + column * wide, bottom + row * high, row, column)


def _page(outline: Outline, tile: Tile, tiles: list[Tile], wide: float, high: float) -> str:
    """One sheet: the part of the template, marks at its corners, the scale bar and which sheet it is."""
    across, up = window(wide, high)
    place = f'x="{EDGE}" y="{EDGE}" width="{across}" height="{up}"'
    view = f'viewBox="{tile.left:.4f} {-(tile.bottom + up):.4f} {across} {up}"'
    words = f"{outline.name}: sheet {tiles.index(tile) + 1} of {len(tiles)}"
    if len(tiles) > 1:
        words += f", row {tile.row + 1} from below, column {tile.column + 1} from the left; cut at the marks and join"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}mm" height="{high}mm" viewBox="0 0 {wide} {high}">'
        f'<svg {place} {view} overflow="hidden">{shapes_of(outline)}</svg>'
        f"{_marks(across, up)}{scale_bar(EDGE, EDGE + up + 10.0)}{label(EDGE, EDGE + up + 20.0, words)}</svg>"
    )


def _marks(across: float, up: float) -> str:
    corners = [(EDGE, EDGE, -1, -1), (EDGE + across, EDGE, 1, -1), (EDGE, EDGE + up, -1, 1),
               (EDGE + across, EDGE + up, 1, 1)]  # fmt: skip
    lines = "".join(f"M {x} {y} h {MARK * dx} M {x} {y} v {MARK * dy}" for x, y, dx, dy in corners)
    return f'<path d="{lines}" fill="none" stroke="#000" stroke-width="0.1"/>'
