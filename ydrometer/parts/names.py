"""What a part is called where nobody has given it a name, and the id it gets."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Mapping
from typing import Any

from ydrometer.parts.boxes import BOX, RATIOS
from ydrometer.parts.cells import cell_text, value_at
from ydrometer.parts.columns import TABLE
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
    BOX: tuple(RATIOS),
    "wheel": ("diameter",),
    "spacer": ("thickness", "bore"),
    "bearing": ("bore", "outside_diameter", "width"),
    "adapter": ("shaft", "outside"),
    "sleeve": ("shaft", "outside"),
    "sundry": ("what", "size"),
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
    said = [_told(kind, path, part) for path in _TOLD[kind] if value_at(part, path) not in (None, "", [])]
    return f"{TABLE[kind].singular} {', '.join(said)}".strip()


def _told(kind: str, path: str, part: Mapping[str, Any]) -> str:
    column = next((column for column in TABLE[kind].columns if column.path == path), None)
    if column is None:
        return str(value_at(part, path))
    text = cell_text(column, part).replace(" ", " × " if column.type == "ratios" else " ")
    return _WORDS.get(path, "") + (text.removesuffix(" 1/in") if path == "diametral_pitch" else text)


class Ids:
    """Ids for new parts, none of which is taken already."""

    def __init__(self, taken: Iterable[str]) -> None:
        self._taken = set(taken)
        self._numbers: dict[str, int] = {}

    def take(self, identity: str) -> None:
        """Say that a part has this id."""
        self._taken.add(identity)

    def new(self, part: Mapping[str, Any]) -> str:
        """An id made from what the part is called, with a number where another part has it already."""
        plain = unicodedata.normalize("NFKD", called(part)[:LONGEST_ID]).encode("ascii", "ignore").decode().lower()
        stem = re.sub(r"[^a-z0-9.]+", "-", plain).strip("-.")[: LONGEST_ID - 8] or "part"
        name = stem
        while name in self._taken:
            # Goes on from the number given last: many equal parts are not counted through again for each.
            self._numbers[stem] = self._numbers.get(stem, 1) + 1
            name = f"{stem}-{self._numbers[stem]}"
        self.take(name)
        return name
