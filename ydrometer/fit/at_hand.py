"""What a bin has that Fit uses: lengths of belts and chains, spacers, bores, sleeves."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

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
class AtHand:
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


NOTHING = AtHand()


def pieces(counts: Iterable[int], pitch: float, word: str) -> list[tuple[float, str]]:
    """Lengths of so many pieces of a pitch, m, with what each is called."""
    return [(count * pitch, f"{count} {word}") for count in counts]


def plain(lengths: Iterable[float]) -> list[tuple[float, str]]:
    """Lengths in m, with what each is called."""
    return [(length, f"{length * 1e3:.5g} mm") for length in lengths]


def lengths_for(hand: AtHand, kind: str) -> list[tuple[float, float | None]]:
    """All lengths at hand of a kind of loop, m, each with its pitch, m, None of V-belts."""
    if kind == "v_belt":
        return [(length, None) for length in hand.v_belts]
    known = hand.belts if kind == "belt" else hand.chains
    return [(count * pitch, pitch) for pitch, counts in known.items() for count in counts]


def lengths_at_hand(hand: AtHand, kind: str, pitch: float) -> list[tuple[float, str]]:
    """The lengths that a bin has for a kind of loop of a pitch, m, with what each is called."""
    if kind == "v_belt":
        return plain(hand.v_belts)
    belt = kind == "belt"
    counts = (hand.belts if belt else hand.chains).get(pitch, ())
    return pieces(counts, pitch, "teeth" if belt else "links")
