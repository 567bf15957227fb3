"""What a bin has that Fit uses: lengths of belts and chains, spacers, bores, sleeves."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ydrometer.parts.read import read_parts

LOOP_PARTS = ("belt", "chain", "v_belt")
"""Kinds of stages with something that has a length."""

WheelKey = tuple[str, float, int]


def wheel_key(form: str, size: float, teeth: int | None, pitch_diameter: float) -> WheelKey:
    """What tells one kind of wheel from another: its form, tooth size and teeth; of a V-pulley where its belt runs.

    Args:
        form: gear, pulley, sprocket or grooved.
        size: module or pitch, m, 0 of a V-pulley.
        teeth: None of a V-pulley.
        pitch_diameter: of a V-pulley, m.
    """
    return form, round(size, 9), round(1e6 * pitch_diameter) if teeth is None else teeth


@dataclass(frozen=True, slots=True)
class Stock:
    """What a bin has that Fit uses.

    Attributes:
        belts: lengths in teeth of the toothed belts of a pitch, m. chains: in links, likewise. v_belts: lengths, m.
        spacers: how many there are of each thickness, m, by their bore, m.
        bores: across, m, and shape, of the wheels of a key. rims: outside diameters of V-pulleys, m, by pitch diameter.
        flanges: diameters, m, by pitch and teeth. widths: the largest, m, of the wheels of a key.
        sleeves: inside and outside, m. adapters: shaft and its shape, outside and its shape.
    """

    belts: Mapping[float, tuple[int, ...]] = field(default_factory=dict)
    chains: Mapping[float, tuple[int, ...]] = field(default_factory=dict)
    v_belts: tuple[float, ...] = ()
    spacers: Mapping[float, Mapping[float, int]] = field(default_factory=dict)
    bores: Mapping[WheelKey, tuple[tuple[float, str], ...]] = field(default_factory=dict)
    rims: Mapping[float, float] = field(default_factory=dict)
    flanges: Mapping[tuple[float, int], float] = field(default_factory=dict)
    widths: Mapping[WheelKey, float] = field(default_factory=dict)
    sleeves: tuple[tuple[float, float], ...] = ()
    adapters: tuple[tuple[float, str, float, str], ...] = ()


NOTHING = Stock()


def pieces(counts: Iterable[int], pitch: float, word: str) -> list[tuple[float, str]]:
    """Lengths of so many pieces of a pitch, m, with what each is called."""
    return [(count * pitch, f"{count} {word}") for count in counts]


def plain(lengths: Iterable[float]) -> list[tuple[float, str]]:
    """Lengths in m, with what each is called."""
    return [(length, f"{length * 1e3:.5g} mm") for length in lengths]


def lengths_for(stock: Stock, kind: str) -> list[tuple[float, float | None]]:
    """All lengths at hand of a kind of loop, m, each with its pitch, m, None of V-belts."""
    if kind == "v_belt":
        return [(length, None) for length in stock.v_belts]
    known = stock.belts if kind == "belt" else stock.chains
    return [(count * pitch, pitch) for pitch, counts in known.items() for count in counts]


def lengths_at_hand(stock: Stock, kind: str, pitch: float) -> list[tuple[float, str]]:
    """The lengths that a bin has for a kind of loop of a pitch, m, with what each is called."""
    if kind == "v_belt":
        return plain(stock.v_belts)
    belt = kind == "belt"
    counts = (stock.belts if belt else stock.chains).get(pitch, ())
    return pieces(counts, pitch, "teeth" if belt else "links")


def stock_of(parts: Sequence[Mapping[str, Any]]) -> Stock:
    """What of a bin Fit uses; what is no wheel only where some are owned.

    Args:
        parts: documents of the bin's parts, read before.
    """
    known: dict[str, list[Any]] = defaultdict(list)
    for part in read_parts([raw for raw in parts if raw["kind"] in _USED]):
        if part.kind in _WHEELS or part.owned:
            known[part.kind].append(part)
    wheels = [(_key(part), part) for kind in _WHEELS for part in known[kind]]
    return Stock(
        belts=_gathered((belt.pitch, belt.teeth) for belt in known["belt"]),
        chains=_gathered((chain.pitch, chain.links) for chain in known["chain"] if chain.links),
        v_belts=tuple(sorted({belt.length for belt in known["v_belt"]})),
        spacers=_stock(known["spacer"]),
        bores=_gathered((key, (part.bore, part.bore_shape)) for key, part in wheels if part.bore),
        rims={round(p.pitch_diameter, 6): p.outside_diameter for p in known["v_pulley"] if p.outside_diameter},
        flanges={(p.pitch, p.teeth): p.flange_diameter for p in known["pulley"] if p.flange_diameter},
        widths={key: max(found) for key, found in _gathered((k, p.width) for k, p in wheels if p.width).items()},
        sleeves=tuple((sleeve.shaft, sleeve.outside) for sleeve in known["sleeve"]),
        adapters=tuple((a.shaft, a.shaft_shape, a.outside, a.outside_shape) for a in known["adapter"] if a.outside),
    )


_WHEELS = {"gear": "gear", "pulley": "pulley", "sprocket": "sprocket", "v_pulley": "grooved"}
"""The form of a wheel by the kind of its part."""
_USED = {*_WHEELS, "belt", "chain", "v_belt", "spacer", "sleeve", "adapter"}


def _key(part: Any) -> WheelKey:
    if part.kind == "v_pulley":
        return wheel_key(_WHEELS[part.kind], 0.0, None, part.pitch_diameter)
    return wheel_key(_WHEELS[part.kind], part.size, part.teeth, 0.0)


def _gathered(pairs: Iterable[tuple[Any, Any]]) -> dict[Any, tuple[Any, ...]]:
    """All that there is of each, once and sorted."""
    found: dict[Any, set[Any]] = defaultdict(set)
    for key, value in pairs:
        found[key].add(value)
    return {key: tuple(sorted(values)) for key, values in found.items()}


def _stock(spacers: Iterable[Any]) -> dict[float, dict[float, int]]:
    """How many there are of each thickness, by bore."""
    found: dict[float, dict[float, int]] = defaultdict(lambda: defaultdict(int))
    for spacer in spacers:
        if spacer.bore:
            found[spacer.bore][spacer.thickness] += spacer.owned
    return {bore: dict(stock) for bore, stock in found.items()}
