"""The line in small as SVG for paper: wheels as circles, loops as runs and arcs; what a step touches stands out."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

from ydrometer.drawing.shapes import DrawnLoop, DrawnRow, LineDrawing

SMALL = (136.0, 52.0)
"""Width and height, points."""
EDGE = 4.0
INK, ACCENT, WASH, GROUND = "#1B292C", "#1F5D5A", "#E6EFEA", "#4A5A73"
THIN, THICK = 1.0, 2.2

Marked = Callable[[str, str], bool]


def mini_line(line: LineDrawing, marked: Marked, room: tuple[float, float] = SMALL) -> str:
    """The first row of a line as one SVG element.

    Args:
        line: as drawn, in one row.
        marked: whether a wheel, box or source stands out, by path and what it is there, empty of a box or source.
        room: width and height that it may take, points.
    """
    wide, high = room
    row = line.rows[0]
    scale = min((wide - 2 * EDGE) / (row.right - row.left), (high - 2 * EDGE) / (row.top - row.bottom))
    shapes = "".join(_shapes(row, marked, scale))
    move = f"translate({EDGE - scale * row.left:.2f} {high - EDGE + scale * row.bottom:.2f}) scale(1 -1)"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.0f}pt" height="{high:.0f}pt" '
        f'viewBox="0 0 {wide:.0f} {high:.0f}"><g transform="{move}" fill="none">{shapes}</g></svg>'
    )


def _shapes(row: DrawnRow, marked: Marked, scale: float) -> Iterator[str]:
    if row.road_wheel is not None:
        yield circle(row.road_wheel.x, row.road_wheel.y, row.road_wheel.radius, scale, GROUND, THICK)
    for source in row.sources:
        yield _round(source.x, source.y, source.radius, scale, marked(source.path, ""))
    for box in row.boxes:
        on = marked(box.path, "")
        size = f'width="{scale * box.length:.2f}" height="{scale * box.height:.2f}"'
        at = f'x="{scale * (box.x - 0.5 * box.length):.2f}" y="{scale * (box.y - 0.5 * box.height):.2f}"'
        yield f'<rect {at} {size} fill="{WASH if on else "none"}" stroke="{ACCENT if on else INK}"/>'
    for wheel in row.wheels:
        yield _round(wheel.x, wheel.y, wheel.outer_radius, scale, marked(wheel.path, wheel.member))
        yield circle(wheel.x, wheel.y, wheel.pitch_radius, scale, INK, 0.4)
    for loop in row.loops:
        yield f'<path d="{_path(loop, scale)}" stroke="{INK}" stroke-width="{THICK}"/>'


def _round(x: float, y: float, radius: float, scale: float, on: bool) -> str:
    """A wheel or a source; one that stands out is filled and drawn thicker."""
    return circle(x, y, radius, scale, ACCENT if on else INK, THICK if on else THIN, WASH if on else "none")


def circle(x: float, y: float, radius: float, scale: float, stroke: str, width: float, fill: str = "none") -> str:
    """One circle as SVG, scaled to points."""
    at = f'cx="{scale * x:.2f}" cy="{scale * y:.2f}" r="{max(0.5, scale * radius):.2f}"'
    return f'<circle {at} stroke="{stroke}" stroke-width="{width}" fill="{fill}"/>'


def _path(loop: DrawnLoop, scale: float) -> str:
    """Runs and arcs one after the other; y goes up here, so that what turns clockwise has a sweep of 0."""
    first = loop.segments[0]
    pieces = [f"M {scale * first.x1:.2f} {scale * first.y1:.2f}"]
    for s in loop.segments:
        end = f"{scale * s.x2:.2f} {scale * s.y2:.2f}"
        r = f"{scale * s.radius:.2f}"
        large, sweep = int(abs(s.wrap) > math.pi), int(s.wrap < 0)
        pieces.append(f"A {r} {r} 0 {large} {sweep} {end}" if s.wrap else f"L {end}")
    return " ".join(pieces)
