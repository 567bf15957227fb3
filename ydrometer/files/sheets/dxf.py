"""A template as DXF in millimetres, one layer a purpose."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING

from ydrometer.files.sheets.outline import LAYERS, TEXT, Circle, Oblong, Outline, StraightLine, Text

if TYPE_CHECKING:
    from ezdxf.layouts.layout import Modelspace

COLOURS = dict(zip(LAYERS, (7, 8, 1, 5, 3, 6, 9), strict=True))
"""Numbers of DXF's own colours, so that layers are told apart on the screen."""
MM = 1e3


def dxf(outline: Outline) -> bytes:
    """The file.

    Args:
        outline: in m; written in mm, as the header says.
    """
    from ezdxf import units  # noqa: PLC0415  # a second, spared where no template is asked for
    from ezdxf.filemanagement import new  # noqa: PLC0415

    document = new("R2010", setup=True)
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    for layer in LAYERS:
        document.layers.add(layer, color=COLOURS[layer])
    space = document.modelspace()
    for shape in outline.shapes:
        attributes = {"layer": shape.layer}
        match shape:
            case Circle(x=x, y=y, radius=r):
                space.add_circle((MM * x, MM * y), MM * r, dxfattribs=attributes)
            case StraightLine(x1=x1, y1=y1, x2=x2, y2=y2):
                space.add_line((MM * x1, MM * y1), (MM * x2, MM * y2), dxfattribs=attributes)
            case Oblong():
                _oblong(space, shape, attributes)
            case Text(x=x, y=y, text=text):
                entity = space.add_text(text, height=MM * TEXT, dxfattribs=attributes)
                entity.set_placement((MM * x, MM * y))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def _oblong(space: Modelspace, slot: Oblong, attributes: dict[str, str]) -> None:
    for side, other in slot.sides:
        space.add_line([MM * m for m in side], [MM * m for m in other], dxfattribs=attributes)
    for (x, y), first in slot.ends:
        space.add_arc((MM * x, MM * y), MM * slot.radius, first, first + 180.0, dxfattribs=attributes)
