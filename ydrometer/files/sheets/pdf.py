"""A template as PDF: as many sheets as it needs at full size, with marks to cut and join them by."""

from __future__ import annotations

import io
import math
import tempfile
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import product
from pathlib import Path
from typing import TYPE_CHECKING

from ydrometer.files.sheets.outline import LAYERS, TEXT, Circle, Oblong, Outline, Shape, StraightLine, Text, box
from ydrometer.files.sheets.svg import BAR, CHECK, MM, STROKE, STROKES, TICKS

if TYPE_CHECKING:
    from fpdf import FPDF

SIZES = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}
"""Sheets, mm."""
EDGE = 10.0
"""What printers leave blank, mm."""
FOOT = 22.0
"""Room for the scale bar and the words under the drawing, mm."""
MARK = 6.0
"""Length of the marks at the corners, mm."""
THIN = 0.1
"""Width of those marks, mm."""
LINE = 1.0
"""How far a line reaches beyond its shape, at most, mm."""
MOST_SHEETS = 60
POINT = 72.0 / 25.4
"""Points in a millimetre."""


@dataclass(frozen=True, slots=True)
class Tile:
    """One sheet's part of the template: its lower left, mm, row from below and column from the left."""

    left: float
    bottom: float
    row: int
    column: int


@dataclass(frozen=True, slots=True)
class TileLayout:
    """How a template lies on its sheets: their size, mm, what each shows of it, mm, and which part that is."""

    size: tuple[float, float]
    shown: tuple[float, float]
    tiles: tuple[Tile, ...]


def pdf(outline: Outline, sheet: str, fonts: Sequence[Path] = ()) -> bytes:
    """The file; sheets lie across where that takes fewer of them.

    Args:
        outline: in m.
        sheet: a key of `SIZES`.
        fonts: files of the face to set it in, a later one for what an earlier one lacks; without any a common face.

    Raises:
        ValueError: an unknown sheet, or so large a template that nobody would join its sheets.
    """
    layout = laid_out(outline, sheet)
    book = _book(layout.size, fonts)
    book.set_title(outline.name)
    for number, (tile, shapes) in enumerate(on_tiles(outline, layout).items(), start=1):
        words = f"{outline.name}: sheet {number} of {len(layout.tiles)}"
        _page(book, layout, tile, shapes, words + _joined(layout, tile))
    return bytes(book.output())


def _joined(layout: TileLayout, tile: Tile) -> str:
    """How a sheet is joined with its neighbours; nothing of one that is alone."""
    if len(layout.tiles) == 1:
        return ""
    numbers = {(other.row, other.column): number for number, other in enumerate(layout.tiles, start=1)}
    beside = (
        ("left", tile.row, tile.column - 1),
        ("right", tile.row, tile.column + 1),
        ("lower", tile.row - 1, tile.column),
        ("upper", tile.row + 1, tile.column),
    )
    edges = [f"{edge} edge to sheet {numbers[row, at]}" for edge, row, at in beside if (row, at) in numbers]
    return f"; cut at the marks and join, {', '.join(edges)}"


def laid_out(outline: Outline, sheet: str) -> TileLayout:
    """The sheets of a template, upright or across, whichever takes fewer.

    Raises:
        ValueError: as `pdf`.
    """
    if sheet not in SIZES:
        raise ValueError(f'no sheet "{sheet}": known are {", ".join(SIZES)}')
    ways = [
        TileLayout(size, window(*size), tuple(tiles_of(outline, *window(*size))))
        for size in (SIZES[sheet], SIZES[sheet][::-1])
    ]
    layout = min(ways, key=lambda way: len(way.tiles))
    if len(layout.tiles) > MOST_SHEETS:
        raise ValueError(f"{len(layout.tiles)} sheets would be needed, at most {MOST_SHEETS} are made: take SVG or DXF")
    return layout


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


def on_tiles(outline: Outline, layout: TileLayout) -> dict[Tile, list[Shape]]:
    """What of the template lies on each sheet, so that a sheet draws nothing else.

    Args:
        outline: in m.
        layout: as `laid_out` gives it.
    """
    by_tile: dict[Tile, list[Shape]] = {tile: [] for tile in layout.tiles}
    by_place = {(tile.row, tile.column): tile for tile in layout.tiles}
    first, (wide, high) = layout.tiles[0], layout.shown
    for shape in outline.shapes:
        left, bottom, right, top = (MM * m for m in box(shape))
        columns = range(int((left - LINE - first.left) // wide), int((right + LINE - first.left) // wide) + 1)
        rows = range(int((bottom - LINE - first.bottom) // high), int((top + LINE - first.bottom) // high) + 1)
        for place in product(rows, columns):
            if place in by_place:
                by_tile[by_place[place]].append(shape)
    return by_tile


def _book(size: tuple[float, float], fonts: Sequence[Path]) -> FPDF:
    from fpdf import FPDF  # noqa: PLC0415  # most of a second, spared where no template is asked for

    book = FPDF(unit="mm", format=size)
    book.set_auto_page_break(False)
    for number, font in enumerate(fonts):
        # A page's fonts are compressed; what is put into a PDF is not.
        with tempfile.NamedTemporaryFile(suffix=".ttf") as plain:
            plain.write(_unpacked(font))
            plain.flush()
            book.add_font(f"template{number}", fname=plain.name)
    if fonts:
        book.set_fallback_fonts([f"template{number}" for number in range(1, len(fonts))])
    book.set_font("template0" if fonts else "Helvetica", size=MM * TEXT * POINT)
    return book


def _unpacked(font: Path) -> bytes:
    from fontTools.ttLib import TTFont  # noqa: PLC0415  # as above

    face = TTFont(font)
    face.flavor = None
    stream = io.BytesIO()
    face.save(stream)
    return stream.getvalue()


def _page(book: FPDF, layout: TileLayout, tile: Tile, shapes: Sequence[Shape], words: str) -> None:
    """One sheet: the part of the template, marks at its corners, the scale bar and which sheet it is."""
    across, up = layout.shown
    book.add_page()
    # Words outside come first: a face that is first set inside the clip is gone behind it, and they with it.
    _write(book, EDGE, EDGE + up + 20.0, words)
    _scale_bar(book, EDGE, EDGE + up + 10.0)
    _marks(book, across, up)
    with book.rect_clip(EDGE, EDGE, across, up):
        for layer in LAYERS:
            book.set_line_width(STROKES.get(layer, STROKE))
            for shape in shapes:
                if shape.layer == layer:
                    _draw(book, shape, (EDGE - tile.left, EDGE + up + tile.bottom))


def _draw(book: FPDF, shape: Shape, origin: tuple[float, float]) -> None:
    """A shape, with the template's origin at `origin` of the sheet, mm, y down."""

    def at(x: float, y: float) -> tuple[float, float]:
        return origin[0] + MM * x, origin[1] - MM * y

    match shape:
        case Circle(x=x, y=y, radius=r):
            book.circle(*at(x, y), MM * r)
        case StraightLine(x1=x1, y1=y1, x2=x2, y2=y2):
            book.line(*at(x1, y1), *at(x2, y2))
        case Oblong():
            _oblong(book, shape, at)
        case Text(x=x, y=y, text=text):
            _write(book, *at(x, y), text)


def _oblong(book: FPDF, slot: Oblong, at: Callable[[float, float], tuple[float, float]]) -> None:
    for side, other in slot.sides:
        book.line(*at(*side), *at(*other))
    r = MM * slot.radius
    for end, first in slot.ends:
        x, y = at(*end)
        book.arc(x - r, y - r, 2.0 * r, first, first + 180.0)


def _marks(book: FPDF, across: float, up: float) -> None:
    book.set_line_width(THIN)
    for x, dx in ((EDGE, -MARK), (EDGE + across, MARK)):
        for y, dy in ((EDGE, -MARK), (EDGE + up, MARK)):
            book.line(x, y, x + dx, y)
            book.line(x, y, x, y + dy)


def _scale_bar(book: FPDF, x: float, y: float) -> None:
    """A bar with a tick every ten millimetres, and what to do with it."""
    book.set_line_width(STROKE)
    book.line(x, y, x + BAR, y)
    for along, high in TICKS:
        book.line(x + along, y, x + along, y - high)
    _write(book, x, y + 4.5, CHECK)


def _write(book: FPDF, x: float, y: float, text: str) -> None:
    """A text at its lower left; a face of the machine's own has few signs, others become question marks."""
    own = book.font_family.startswith("template")
    book.text(x, y, text if own else text.encode("latin-1", "replace").decode("latin-1"))
