"""What a part is called where nobody has given it a name, and the id it gets."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Collection, Mapping
from typing import Any

from ydrometer.parts.columns import TABLE, cell_text, value_at
from ydrometer.parts.part import LONGEST_ID

_TOLD: dict[str, tuple[str, ...]] = {
    "motor": ("source.name", "source.constants.kv", "source.bench_points.free_speed"),
    "engine": ("source.name",),
    "battery": ("supply.open_circuit_voltage", "supply.cells.series", "supply.capacity"),
    "panel": ("supply.open_circuit_voltage", "supply.short_circuit_current"),
    "controller": ("controller.current_limit",),
    "gear": ("teeth", "module", "diametral_pitch"),
    "pulley": ("teeth", "pitch"),
    "belt": ("teeth", "pitch"),
    "sprocket": ("teeth", "pitch"),
    "chain": ("links", "pitch"),
    "v_pulley": ("pitch_diameter",),
    "v_belt": ("length",),
    "gearbox": ("ratio", "reductions", "ratios"),
    "wheel": ("diameter",),
    "spacer": ("thickness", "bore"),
    "bearing": ("bore", "outside_diameter", "width"),
    "adapter": ("shaft", "outside"),
    "sleeve": ("shaft", "outside"),
}
"""For each kind the values by which its parts are told apart."""
_WORDS = {"module": "module ", "diametral_pitch": "DP ", "supply.cells.series": "cells "}


def called(part: Mapping[str, Any]) -> str:
    """The part's name, else its kind with what tells it apart: "gear 14, module 1 mm"."""
    kind = str(part.get("kind", ""))
    name = part.get("name")
    if isinstance(name, str) and name.strip():
        return name.strip()
    if kind not in TABLE:
        return kind
    found = [_told(kind, path, part) for path in _TOLD[kind] if value_at(part, path) not in (None, "", [])]
    return f"{TABLE[kind].one} {', '.join(found)}".strip()


def _told(kind: str, path: str, part: Mapping[str, Any]) -> str:
    column = next((column for column in TABLE[kind].columns if column.path == path), None)
    if column is None:
        return str(value_at(part, path))
    text = cell_text(column, part).replace(" ", " × " if column.type == "ratios" else " ")
    return _WORDS.get(path, "") + (text.removesuffix(" 1/in") if path == "diametral_pitch" else text)


def new_id(part: Mapping[str, Any], taken: Collection[str]) -> str:
    """An id made from what the part is called, with a number where another part has it already."""
    plain = unicodedata.normalize("NFKD", called(part)).encode("ascii", "ignore").decode().lower()
    stem = re.sub(r"[^a-z0-9.]+", "-", plain).strip("-.")[: LONGEST_ID - 8] or "part"
    number, found = 1, stem
    while found in taken:
        number += 1
        found = f"{stem}-{number}"
    return found
