"""A drilling template as a file: of the whole plate, or of an adapter for one shaft."""

from __future__ import annotations

import base64
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.files.sheets.dxf import dxf
from ydrometer.files.sheets.outline import (
    NOTES,
    OUTLINE,
    Circle,
    Oblong,
    Outline,
    adapter_outline,
    flange_outline,
    plate_outline,
)
from ydrometer.files.sheets.pdf import laid_out, pdf
from ydrometer.files.sheets.svg import svg
from ydrometer.fit.setting_up import set_up
from ydrometer.fit.setup import Setup
from ydrometer.fit.stock import Stock

TYPES = {"pdf": "application/pdf", "svg": "image/svg+xml", "dxf": "image/vnd.dxf"}
"""What a template can be, and its media type."""
DRAW: dict[str, Callable[[Outline], bytes]] = {"svg": svg, "dxf": dxf}
MOST_HOLES = 6_000
"""Holes that a template draws: a second's work, and more than anybody drills."""


@dataclass(frozen=True, slots=True)
class Template:
    """A template ready to be saved.

    Attributes:
        name, type: of the file. holes: and slots in it. sheets: of paper.
        data: the file in base64.
    """

    name: str
    type: str
    holes: int
    sheets: int
    data: str


@dataclass(frozen=True, slots=True)
class TemplateWish:
    """What is asked for: `kind` a key of `TYPES`, `sheet` of paper, `shaft` the path of one that an adapter is for, or
    of a plate of an adapter between flanges; empty for a plate of the design. `behind` is the path of the stage that
    turns the axis in front of that plate; empty for the first plate.
    """

    kind: str
    sheet: str
    shaft: str
    behind: str = ""


def template(raw: Any, stock: Stock, wish: TemplateWish, fonts: Sequence[Path]) -> Template:
    """Draw a template.

    Args:
        raw: the design document.
        stock: what is at hand, from which a design takes sizes that it leaves open.
        wish: what is asked for.
        fonts: files of the face to set words in.

    Raises:
        DocumentError: faults in the document, nothing to drill, or too much.
    """
    read_design = design.read(raw).design
    try:
        setup = set_up(read_design, stock, wish.behind)
        outline = _outline(setup, wish.shaft)
        holes = sum(isinstance(s, Circle | Oblong) and s.layer not in (OUTLINE, NOTES) for s in outline.shapes)
        if holes > MOST_HOLES:
            raise ValueError(
                f"{holes:,} holes, at most {MOST_HOLES:,} are drawn: ask for an adapter, or a smaller plate"
            )
        sheets = len(laid_out(outline, wish.sheet).tiles) if wish.kind == "pdf" else 1
        data = pdf(outline, wish.sheet, fonts) if wish.kind == "pdf" else DRAW[wish.kind](outline)
    except ValueError as error:
        raise DocumentError([Fault("fit", str(error), "then ask again")]) from None
    name = f"{_file_name(read_design.name)}-{_what(wish.shaft, wish.behind)}.{wish.kind}"
    return Template(name, TYPES[wish.kind], holes, sheets, base64.b64encode(data).decode())


def _outline(setup: Setup, of: str) -> Outline:
    if of.startswith("fit.adapters"):
        return flange_outline(setup, of)
    return adapter_outline(setup, of) if of else plate_outline(setup)


def _what(of: str, behind: str) -> str:
    """What is drawn, as a file's name has it: "plate", "plate-behind", "adapter", "adapter-1-plate-2"."""
    match = re.fullmatch(r"fit\.adapters\[(\d+)\]\.plates\[(\d+)\]", of)
    if match:
        return f"adapter-{int(match[1]) + 1}-plate-{int(match[2]) + 1}"
    return "adapter" if of else "plate-behind" if behind else "plate"


def _file_name(name: str) -> str:
    return re.sub(r"[\W_]+", "-", name.lower()).strip("-") or "design"
