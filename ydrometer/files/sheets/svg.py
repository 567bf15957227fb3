"""A template as SVG at full size: a millimetre of the drawing is a millimetre of paper."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

from ydrometer.files.sheets.outline import LAYERS, NOTES, TEXT, Circle, Oblong, Outline, Shape, StraightLine, Text

MM = 1e3
STROKES = {NOTES: 0.1}
STROKE = 0.2
"""Widths of lines, mm."""
FACE = "Template, sans-serif"
BAR = 100
"""Length of the scale bar, mm."""
TICKS = tuple((10 * i, 3.0 if i % 5 else 5.0) for i in range(BAR // 10 + 1))
"""Where the ticks of the bar stand along it and how high they are, mm."""
CHECK = f"Print at 100 %. Measure this bar after printing: it has to be {BAR} mm long."


def svg(outline: Outline) -> bytes:
    """The whole template on one sheet, with a scale bar under it.

    Args:
        outline: in m.
    """
    left, bottom, right, top = (MM * m for m in outline.extent)
    wide, high = max(right - left, BAR + 10.0), top - bottom + 18.0
    bar = scale_bar(left + 5.0, -bottom + 10.0)
    body = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" '
        f'viewBox="{left:.3f} {-top:.3f} {wide:.3f} {high:.3f}">'
        f"<title>{escape(outline.name)}</title>{shapes_of(outline.shapes)}{bar}</svg>"
    )
    return body.encode("utf-8")


def shapes_of(some: Sequence[Shape]) -> str:
    """Shapes in mm, y down, one group a layer."""
    groups = []
    for layer in LAYERS:
        shapes = "".join(_shape(shape) for shape in some if shape.layer == layer)
        if shapes:
            width = STROKES.get(layer, STROKE)
            groups.append(f'<g id="{layer}" fill="none" stroke="#000" stroke-width="{width}">{shapes}</g>')
    return "".join(groups)


def _shape(shape: Shape) -> str:
    match shape:
        case Circle(x=x, y=y, radius=r):
            return f'<circle cx="{MM * x:.4f}" cy="{-MM * y:.4f}" r="{MM * r:.4f}"/>'
        case StraightLine(x1=x1, y1=y1, x2=x2, y2=y2):
            return f'<line x1="{MM * x1:.4f}" y1="{-MM * y1:.4f}" x2="{MM * x2:.4f}" y2="{-MM * y2:.4f}"/>'
        case Oblong():
            return _oblong(shape)
        case Text(x=x, y=y, text=text):
            return label(MM * x, -MM * y, text)


def _oblong(slot: Oblong) -> str:
    (a, b), (c, d) = ([(MM * x, -MM * y) for x, y in side] for side in slot.sides)
    r = f"{MM * slot.radius:.4f}"
    return f'<path d="M {_at(a)} L {_at(b)} A {r} {r} 0 0 1 {_at(c)} L {_at(d)} A {r} {r} 0 0 1 {_at(a)} Z"/>'


def _at(point: tuple[float, float]) -> str:
    return f"{point[0]:.4f} {point[1]:.4f}"


def label(x: float, y: float, text: str, size: float = MM * TEXT) -> str:
    """A text at its lower left, mm."""
    return (
        f'<text x="{x:.3f}" y="{y:.3f}" font-family="{FACE}" font-size="{size:.2f}" fill="#000" stroke="none">'
        f"{escape(text)}</text>"
    )


def scale_bar(x: float, y: float) -> str:
    """A bar with a tick every ten millimetres, and what to do with it."""
    ticks = "".join(f"M {x + along:.3f} {y:.3f} v {-high}" for along, high in TICKS)
    return (
        f'<path id="SCALE" d="M {x:.3f} {y:.3f} h {BAR} {ticks}" fill="none" stroke="#000" stroke-width="{STROKE}"/>'
        + label(x, y + 4.5, CHECK)
    )
