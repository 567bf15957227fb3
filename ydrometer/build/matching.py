"""Which part of the bin is what a design needs, and what the nearest ones lack."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.build.bin import Bin, Floats, Owned, size_of
from ydrometer.build.needs import UNSIZED, Need
from ydrometer.document.stages.assembly import mm
from ydrometer.document.supply import Battery
from ydrometer.fit.bores import SAME, Answer, Seat, in_gear, seat
from ydrometer.parts.kinds import KINDS, GearPart, SundryPart
from ydrometer.parts.part import SUNDRIES, OnShaft, Part

EQUAL = 1e-6
"""Relative difference up to which two sizes are the same."""
ALIKE = 0.02
"""The same of supplies and sources, whose figures makers round."""
UNKNOWN = 0.5
"""The difference of a size that nobody has measured: it may be the right one."""
NEAREST = 3
CLEARANCE = 1e-3
"""m by which the hole for a screw may be wider than its thread (ISO 273, Fasteners: Clearance holes for bolts and
screws, coarse series)."""
_LONG = re.compile(r"(?:[x×*]\s*|long\s+|,\s*)(\d+(?:[.,]\d+)?)\s*(?:mm)?(?:\s*long)?\s*$")
"""The length at the end of a size: "M5 x 16", "5 mm, 16 mm long"."""
_FIGURE = re.compile(r"\d+(?:[.,]\d+)?")
_THREAD = re.compile(r"\bM\s*(\d+(?:[.,]\d+)?)", re.IGNORECASE)
EASE: tuple[Answer, ...] = ("fits", "sleeve", "adapter", "bore out", "another")
WAY_OFF = 1e9


@dataclass(frozen=True, slots=True)
class Near:
    """A part that is nearly what is needed, and in words what differs."""

    id: str
    name: str
    differs: str
    owned: int


def kind_in_bin(need: Need) -> str:
    """The kind of a bin's parts that holds what is needed: its own, or sundries."""
    return need.kind if need.kind in KINDS else SundryPart.kind if need.kind in SUNDRIES else ""


def match(need: Need, bin_: Bin, with_: Owned | None = None) -> Owned | None:
    """The part of the bin that is what is needed: of several that with the least work, then of which most are owned.

    Args:
        need: of the design.
        bin_: its parts.
        with_: the part that is matched with what may bring it along: a motor its controller, an engine its clutch.
    """
    if with_ is not None and with_.part.kind == need.comes_with and _brings(need, with_.part):
        return with_
    ranked = sorted(_fitting(need, bin_), key=lambda owned: (_work(need, owned.part), -owned.part.owned, owned.part.id))
    return ranked[0] if ranked and _work(need, ranked[0].part) < WAY_OFF else None


def _fitting(need: Need, bin_: Bin) -> list[Owned]:
    """Parts that have all sizes of what is needed."""
    kind = kind_in_bin(need)
    if not need.told:
        return []
    if kind == SundryPart.kind:
        return [owned for owned in bin_.of(kind) if not differences(need, owned.part)]
    parts = bin_.of(kind)
    return [parts[k] for k in np.flatnonzero((_offs(need, bin_, kind) <= EQUAL).all(axis=1)).tolist()]


def nearest(need: Need, bin_: Bin) -> list[Near]:
    """Parts of the kind that come nearest, with what differs.

    Args:
        need: of the design.
        bin_: its parts.
    """
    parts = bin_.of(need.kind) if need.sizes else ()
    if not parts:
        return []
    off = _offs(need, bin_, need.kind).sum(axis=1)
    last = np.partition(off, min(NEAREST, len(off)) - 1)[min(NEAREST, len(off)) - 1]
    near = [(float(off[k]), parts[k]) for k in np.flatnonzero((off < 1.0) & (off <= last)).tolist()]
    near.sort(key=lambda row: (row[0], -row[1].part.owned, row[1].part.id))
    return [Near(owned.part.id, owned.name, _lacks(need, owned.part), owned.part.owned) for _, owned in near[:NEAREST]]


def _offs(need: Need, bin_: Bin, kind: str) -> Floats:
    """How far the n parts of a kind are off in each of the K sizes that are needed, (n, K)."""
    parts = bin_.of(kind)
    offs = np.zeros((len(parts), len(need.sizes)))
    for k, (key, wanted) in enumerate(need.sizes.items()):
        column = bin_.column(kind, key)
        if column is None or not isinstance(wanted, int | float):
            offs[:, k] = [_off_in(need, owned.part, key) for owned in parts]
        else:
            offs[:, k] = _distances(wanted, column, may_be_longer=_may_be_longer(need, key))
    return offs


def _distances(wanted: float, has: Floats, *, may_be_longer: bool = False) -> Floats:
    """Relative differences of a size to those of parts, 0 where they are the same, `UNKNOWN` where a part has none.

    Args:
        wanted: the size.
        has: of the parts, (n,) or one, NaN where there is none.
        may_be_longer: whether more of it, or a part that is sold by the metre, serves too.
    """
    same = max(EQUAL * abs(wanted), SAME if isinstance(wanted, float) and wanted < 1.0 else 0.0)
    apart = np.abs(wanted - has)
    largest = np.maximum(np.maximum(abs(wanted), np.abs(has)), np.finfo(float).tiny)
    off = np.where(np.isnan(has), UNKNOWN, np.where(apart <= same, 0.0, apart / largest))
    return np.where(np.isnan(has) | (has > wanted), 0.0, off) if may_be_longer else off


def _may_be_longer(need: Need, key: str) -> bool:
    """Whether what is needed is cut to this size."""
    return need.may_be_longer and key == "around"


def _lacks(need: Need, part: Part) -> str:
    bore_seat = seated(need, part)
    lacking = differences(need, part) + [_told(key, size_of(part, key)) for key in _narrow(need, part)]
    return ", ".join(lacking) or ("" if bore_seat is None or bore_seat.answer == "fits" else bore_seat.words)


def differences(need: Need, part: Part) -> list[str]:
    """In which sizes a part is not what is needed, in words; empty where it is.

    Args:
        need: of the design.
        part: of the same kind.
    """
    if isinstance(part, SundryPart):
        same = part.what == need.kind and _is_size(need, part.size)
        return [] if same else [f"{part.what} {part.size}".strip()]
    has = {key: size_of(part, key) for key in need.sizes}
    return [_told(key, has[key]) for key in need.sizes if _off_in(need, part, key) > EQUAL]


def _is_size(need: Need, size: str) -> bool:
    """Whether a size in words is that of a need: it has all the sizes that the design gives."""
    if need.kind in UNSIZED:
        return not size or any(sign.isdigit() for sign in size) or size.lower() in need.words.lower()
    if "hole" in need.sizes:
        return _is_screw(need, size)
    scale = 1.0 if need.kind in ("fuse", "switch") else 1e-3
    figures = [scale * float(number.replace(",", ".")) for number in _FIGURE.findall(size)]
    long = None if need.kind != "shaft" or len(figures) < len(need.sizes) else max(figures)
    for key, wanted in need.sizes.items():
        if key == "length" and long is not None:
            wanted = max(wanted, long) if long >= wanted - SAME else wanted  # noqa: PLW2901  # it is cut to length
        near = [figure for figure in figures if abs(figure - wanted) <= max(SAME, EQUAL * wanted)]
        if not near:
            return False
        figures.remove(near[0])
    return bool(need.sizes)


def _is_screw(need: Need, size: str) -> bool:
    """Whether a screw goes through a hole, and is as long as it has to be: one too long meets a winding."""
    thread, long = _THREAD.search(size), screw_length(size)
    figure = _FIGURE.search(size)
    if thread is None and figure is None:
        return False
    across = _metres(thread[1]) if thread else _metres(figure[0]) if figure else 0.0
    if not -EQUAL <= need.sizes["hole"] - across <= CLEARANCE:
        return False
    lengths = [need.sizes[key] for key in ("length", "uncut") if need.sizes.get(key) is not None]
    if not lengths:
        return need.kind != "screws"
    return long is not None and min(abs(long - wanted) for wanted in lengths) <= SAME


def screw_length(size: str) -> float | None:
    """How long a screw is by its size in words, m; None where they do not say it."""
    long = _LONG.search(size)
    return _metres(long[1]) if long else None


def _metres(millimetres: str) -> float:
    return float(millimetres.replace(",", ".")) * 1e-3


def seated(need: Need, part: Part) -> Seat | None:
    """How a wheel's bore stands to its shaft; None where one of them is not known.

    Args:
        need: of the design.
        part: that is matched with it.
    """
    if need.shaft is None or not isinstance(part, OnShaft) or part.bore is None:
        return None
    stands = seat(part.bore, part.bore_shape, *need.shaft)
    return in_gear(stands, part.measure, part.tooth_size) if isinstance(part, GearPart) else stands


def _work(need: Need, part: Part) -> float:
    """How much has to be done to a part: nothing, a sleeve, an adapter, boring out; one too narrow is none."""
    bore_seat = seated(need, part)
    work = 0.0 if bore_seat is None else float(EASE.index(bore_seat.answer))
    narrow = _narrow(need, part)
    cut = 0.5 if is_longer(need, part) else 0.0
    return WAY_OFF if narrow or (bore_seat and bore_seat.answer == "another") else work + cut


def _narrow(need: Need, part: Part) -> list[str]:
    """Sizes in which a part is less than it has to be; one that nobody has measured is taken to be enough."""
    return [key for key, least in need.wishes.items() if (size_of(part, key) or least) < least * (1.0 - EQUAL)]


def _brings(need: Need, part: Part) -> bool:
    """Whether a motor brings a controller of the wanted limit along, or an engine its clutch."""
    brought = getattr(part, need.kind, None)
    return brought is not None and all(_distance(w, size_of(part, key)) <= EQUAL for key, w in need.sizes.items())


def _off_in(need: Need, part: Part, key: str) -> float:
    """How far a part is off in one size."""
    return _distance(need.sizes[key], size_of(part, key), may_be_longer=_may_be_longer(need, key))


def is_longer(need: Need, part: Part) -> bool:
    """Whether a part has to be cut to its length."""
    wanted = need.sizes.get("around")
    return need.may_be_longer and wanted is not None and _distance(wanted, size_of(part, "around")) > EQUAL


def _distance(wanted: Any, has: Any, *, may_be_longer: bool = False) -> float:
    """Relative difference of two sizes, 0 where they are the same, 1 or more where they have nothing to do with each
    other.
    """
    if isinstance(wanted, int | float) and (has is None or isinstance(has, int | float)):
        one = np.array(np.nan if has is None else has, dtype=float)
        return float(_distances(wanted, one, may_be_longer=may_be_longer))
    if wanted is None or has is None:
        return 0.0 if wanted == has else 1.0
    if type(wanted) is not type(has):
        return 1.0
    wanted, has = _figures(wanted), _figures(has)
    if len(wanted) != len(has):
        return 1.0
    worst = max((abs(w - h) / max(abs(w), abs(h), 1e-12) for w, h in zip(wanted, has, strict=True)), default=0.0)
    return 0.0 if worst <= ALIKE else worst


def _figures(thing: Any) -> list[float]:
    """The figures by which a source, a supply or a row of ratios is told."""
    if isinstance(thing, Battery):
        return [thing.voltage, *([thing.charge] if thing.charge else [])]
    if isinstance(thing, tuple):
        return [float(x) for entry in thing for x in (entry if isinstance(entry, tuple) else (entry,))]
    values = [getattr(thing, name) for name in thing.__dataclass_fields__]
    return [float(value) for value in values if isinstance(value, int | float) and not isinstance(value, bool)]


_LENGTHS = {
    "bore",
    "width",
    "thickness",
    "diameter",
    "pitch_diameter",
    "outside_diameter",
    "around",
    "tooth_size",
    "loop_pitch",
}
_WORDS = {"tooth_size": "tooth size", "around": "length", "loop_pitch": "pitch"}


def _told(key: str, value: Any) -> str:
    """A size that differs, in words."""
    words = _WORDS.get(key, key.rpartition(".")[2].replace("_", " "))
    if value is None:
        return f"{words} not known"
    if key in _LENGTHS:
        return f"{words} {mm(value)}"
    if isinstance(value, int | float) and math.isfinite(value):
        unit = DIMENSIONS["current"].si if "current" in key else ""
        return f"{value:g} {words}" if key == "teeth" else f"{words} {value:.4g} {unit}".strip()
    return f"another {words}"
