"""What a bin has that Fit uses: lengths of belts and chains, spacers, bores, sleeves."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from ydrometer.document.stages.forms import OF_PART, Form
from ydrometer.document.stages.plane import Loop
from ydrometer.parts.kinds import KINDS
from ydrometer.parts.part import AroundPart
from ydrometer.parts.read import read_parts

WheelKey = tuple[str, float, int]


def wheel_key(form: Form, size: float, measure: float) -> WheelKey:
    """What tells one kind of wheel from another: the part that it is bought as, its tooth size and its measure.

    Args:
        form: of the wheel; a ring is bought as a gear.
        size: module or pitch, m, 0 where it has no teeth.
        measure: teeth, or a diameter, m.
    """
    return form.part, round(size, 9), int(measure) if form.toothed else round(1e6 * measure)


class LoopLength(NamedTuple):
    """A belt or chain at hand: its length, m, and its pitch, m, 0 where it has none."""

    length: float
    pitch: float


@dataclass(frozen=True, slots=True)
class Stock:
    """What a bin has that Fit uses.

    Attributes:
        loops: by kind of part, the shortest first.
        spacers: how many there are of each thickness, m, by their bore, m.
        bores: across, m, and shape, of the wheels of a key. rims: diameters over flanges or rims, m, likewise.
        widths: the largest, m, of the wheels of a key.
        sleeves: inside and outside, m. adapters: shaft and its shape, outside and its shape.
    """

    loops: Mapping[str, tuple[LoopLength, ...]] = field(default_factory=dict)
    spacers: Mapping[float, Mapping[float, int]] = field(default_factory=dict)
    bores: Mapping[WheelKey, tuple[tuple[float, str], ...]] = field(default_factory=dict)
    rims: Mapping[WheelKey, float] = field(default_factory=dict)
    widths: Mapping[WheelKey, float] = field(default_factory=dict)
    sleeves: tuple[tuple[float, float], ...] = ()
    adapters: tuple[tuple[float, str, float, str], ...] = ()


NOTHING = Stock()


def lengths_in_stock(stock: Stock, loop: Loop, pitch: float) -> list[tuple[float, str]]:
    """The lengths that a bin has for a kind of loop of a pitch, m, with what each is called.

    Args:
        stock: what the bin has.
        loop: what runs around.
        pitch: m, 0 where it has none.
    """
    known = stock.loops.get(loop.part, ())
    return [(entry.length, loop.named(entry.length, pitch)) for entry in known if entry.pitch == pitch]


def stock_of(parts: Sequence[Mapping[str, Any]]) -> Stock:
    """What of a bin Fit uses; what is no wheel only where some are owned.

    Args:
        parts: documents of the bin's parts, read before.
    """
    known: dict[str, list[Any]] = defaultdict(list)
    for part in read_parts([raw for raw in parts if raw["kind"] in _USED]):
        if part.kind in OF_PART or part.owned:
            known[part.kind].append(part)
    wheels = [(wheel_key(part.form, part.tooth_size, part.measure), part) for kind in OF_PART for part in known[kind]]
    return Stock(
        loops={kind: _lengths(known[kind]) for kind in _AROUND},
        spacers=_spacers(known["spacer"]),
        bores=_gathered((key, (part.bore, part.bore_shape)) for key, part in wheels if part.bore),
        rims={key: part.rim for key, part in wheels if part.rim},
        widths={key: max(widths) for key, widths in _gathered((k, p.width) for k, p in wheels if p.width).items()},
        sleeves=tuple((sleeve.shaft, sleeve.outside) for sleeve in known["sleeve"]),
        adapters=tuple((a.shaft, a.shaft_shape, a.outside, a.outside_shape) for a in known["adapter"] if a.outside),
    )


_AROUND = tuple(kind for kind, part in KINDS.items() if issubclass(part, AroundPart))
_USED = {*OF_PART, *_AROUND, "spacer", "sleeve", "adapter"}


def _lengths(parts: Iterable[AroundPart]) -> tuple[LoopLength, ...]:
    return tuple(sorted({LoopLength(part.around, part.loop_pitch) for part in parts if part.around}))


def _gathered(pairs: Iterable[tuple[Any, Any]]) -> dict[Any, tuple[Any, ...]]:
    """All that there is of each, once and sorted."""
    gathered: dict[Any, set[Any]] = defaultdict(set)
    for key, value in pairs:
        gathered[key].add(value)
    return {key: tuple(sorted(values)) for key, values in gathered.items()}


def _spacers(spacers: Iterable[Any]) -> dict[float, dict[float, int]]:
    """How many there are of each thickness, by bore."""
    by_bore: dict[float, dict[float, int]] = defaultdict(lambda: defaultdict(int))
    for spacer in spacers:
        if spacer.bore:
            by_bore[spacer.bore][spacer.thickness] += spacer.owned
    return {bore: dict(counts) for bore, counts in by_bore.items()}
