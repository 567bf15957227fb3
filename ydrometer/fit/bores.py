"""Whether a bore goes on a shaft, and what would make it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ydrometer.base.tables.keys import key_for

ROUND = ("round", "flat", "keyway")
"""Shapes that are a circle but for what keeps them from turning."""
SAME = 2e-5
"""m; sizes nearer than this are the same size, fits are another matter."""

LEAST_WALL = 1.5
"""Modules between a bore and the roots of the teeth."""

Answer = Literal["fits", "sleeve", "adapter", "bore out", "another"]
"""From what is easiest to a wheel with another bore."""


@dataclass(frozen=True, slots=True)
class Seat:
    """How a bore stands to a shaft: what is to be done, in words, and the size it is about, m; `keyway` is how deep one
    goes beyond the bore that still has to be cut into the hub, m, 0 where none has.
    """

    answer: Answer
    words: str
    size: float
    keyway: float = 0.0


def seat(bore: float, bore_shape: str, shaft: float, shaft_shape: str) -> Seat:
    """Compare a bore with a shaft.

    Args:
        bore: across, m.
        bore_shape: as of the parts of a bin.
        shaft: across, m.
        shaft_shape: likewise.
    """
    if bore_shape == shaft_shape and abs(bore - shaft) <= SAME:
        return Seat("fits", f"both {_mm(shaft)} {shaft_shape}", shaft)
    if bore_shape in ROUND and shaft_shape in ROUND:
        return _round_seat(bore, bore_shape, shaft, shaft_shape)
    if bore - shaft <= SAME:
        words = f"a {_mm(bore)} {bore_shape} bore leaves no adapter a wall on a {_mm(shaft)} {shaft_shape} shaft"
        return Seat("another", f"{words}: one with another bore", shaft)
    words = f"an adapter from a {_mm(shaft)} {shaft_shape} shaft to a {_mm(bore)} {bore_shape} bore"
    return Seat("adapter", words, bore)


def leaves_wall(bore: float, teeth: float, module: float) -> bool:
    """Whether a bore leaves a spur gear enough below its teeth, module and a half (workshop practice).

    Args:
        bore: across, m.
        teeth: of the gear; their roots lie 1.25 modules below the pitch circle (ISO 53, Cylindrical gears for general
            and heavy engineering, Standard basic rack tooth profile, section 4).
        module: m.
    """
    return (module * (teeth - 2.5) - bore) / 2.0 >= LEAST_WALL * module - SAME


def in_gear(seat: Seat, teeth: float, module: float) -> Seat:
    """The same of a spur gear: one that boring out, or its keyway, would leave no wall below its teeth is another part.

    Args:
        seat: of its bore.
        teeth, module: of the gear, the module in m.
    """
    cut = seat.size + 2.0 * seat.keyway
    touched = seat.answer == "bore out" or (seat.answer == "fits" and seat.keyway > 0.0)
    if not touched or leaves_wall(cut, teeth, module):
        return seat
    left = max(0.0, (module * (teeth - 2.5) - cut) / 2.0)
    with_ = " with its keyway" if seat.keyway else ""
    words = f"a bore of {_mm(seat.size)}{with_} leaves {_mm(left)} below its teeth, {LEAST_WALL:g} modules are needed"
    return Seat("another", f"{words}: one with another bore, or more teeth", seat.size)


def _round_seat(bore: float, bore_shape: str, shaft: float, shaft_shape: str) -> Seat:
    same = abs(bore - shaft) <= SAME
    if same and bore_shape == "flat":
        words = f"the flat in the bore does not go over a {_mm(shaft)} {shaft_shape} shaft: file one on it, or bore out"
        return Seat("bore out", words, shaft)
    if same:
        words = f"both {_mm(shaft)}; {_drive(bore_shape, shaft_shape)}"
        return Seat("fits", words, shaft, 0.0 if bore_shape == shaft_shape else _to_be_cut(shaft, shaft_shape))
    if bore > shaft:
        return Seat("sleeve", f"a sleeve of {_mm(shaft)} inside and {_mm(bore)} outside", bore)
    keyway = _to_be_cut(shaft, shaft_shape)
    anew = ", its keyway cut anew" if keyway else ""
    words = f"to be bored out from {_mm(bore)} to {_mm(shaft)}{anew}, where the hub has the wall"
    return Seat("bore out", words, shaft, keyway)


def _to_be_cut(shaft: float, shape: str) -> float:
    """How deep a keyway goes into the hub on a shaft that has one, m; 0 on others, and where no usual key is for it."""
    key = key_for(shaft) if shape == "keyway" else None
    return key.in_hub if key else 0.0


def _drive(bore_shape: str, shaft_shape: str) -> str:
    """What carries the torque between two round things."""
    if "keyway" in (bore_shape, shaft_shape):
        return "a key needs its way in both" if bore_shape != shaft_shape else "with a key"
    return "held by a grub screw, on a flat where the shaft has one"


def _mm(size: float) -> str:
    return f"{size * 1e3:.4g} mm"
