"""What the vehicles to start from look like from the side, in metres: x to the right from the rear axle, y up from the
ground. They drive to the right.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Points = tuple[tuple[float, float], ...]
Ground = Literal["floor", "rail", "snow"]


@dataclass(frozen=True, slots=True)
class Rolling:
    """A wheel as it is painted: where its axle stands, its radius, and whether it is driven."""

    x: float
    radius: float
    driven: bool


@dataclass(frozen=True, slots=True)
class Person:
    """Who rides or drives: the line from hand over shoulder and hip to the foot, another leg where it is seen, and the
    middle of the head.
    """

    lines: tuple[Points, ...]
    head: tuple[float, float]


@dataclass(frozen=True, slots=True)
class SidePicture:
    """A vehicle from the side: its wheels, its closed outlines, its single lines, who is on it, what it stands on."""

    wheels: tuple[Rolling, ...]
    outlines: tuple[Points, ...]
    lines: tuple[Points, ...]
    person: Person | None
    ground: Ground


_LOW_CART: Points = (
    (-0.20, 0.16), (1.02, 0.16), (1.10, 0.24), (0.70, 0.30), (0.30, 0.28), (0.14, 0.66), (0.04, 0.66), (-0.20, 0.30),
)  # fmt: skip
_LOW_RIDER = Person((((0.68, 0.62), (0.20, 0.90), (0.26, 0.36), (0.66, 0.54), (0.94, 0.30)),), (0.24, 1.07))
_HAULER_RIDER = Person((((0.34, 0.72), (-0.04, 0.98), (-0.04, 0.46), (0.24, 0.50), (0.28, 0.22)),), (-0.02, 1.15))

_TRACK: Points = (
    (-0.06, 0.02), (0.0, 0.0), (0.72, 0.0), (0.80, 0.05), (0.74, 0.14), (0.0, 0.17), (-0.08, 0.10), (-0.06, 0.02),
)  # fmt: skip

PICTURES: dict[str, SidePicture] = {
    "ride_on_motor": SidePicture(
        (Rolling(0.0, 0.13, True), Rolling(0.95, 0.13, False)),
        (_LOW_CART,), (((0.68, 0.62), (0.84, 0.28)),), _LOW_RIDER, "floor",
    ),
    "ride_on_engine": SidePicture(
        (Rolling(0.0, 0.165, True), Rolling(1.05, 0.165, False)),
        (
            ((-0.22, 0.22), (1.16, 0.22), (1.22, 0.30), (1.22, 0.62), (0.72, 0.68), (0.68, 0.34), (-0.22, 0.34)),
            ((-0.16, 0.34), (0.30, 0.34), (0.30, 0.50), (-0.02, 0.54), (-0.08, 0.86), (-0.18, 0.86)),
        ),
        (((0.72, 0.68), (0.58, 0.86)),),
        Person((((0.58, 0.86), (0.14, 1.08), (0.14, 0.56), (0.54, 0.58), (0.58, 0.30)),), (0.18, 1.25)), "floor",
    ),
    "board": SidePicture(
        (Rolling(0.0, 0.045, True), Rolling(0.68, 0.045, False)),
        (((-0.16, 0.12), (0.84, 0.12), (0.90, 0.15), (-0.22, 0.15)),), (),
        Person(
            (
                ((0.60, 0.98), (0.36, 1.38), (0.34, 0.88), (0.16, 0.54), (0.10, 0.15)),
                ((0.34, 0.88), (0.56, 0.52), (0.60, 0.15)),
            ),
            (0.40, 1.56),
        ), "floor",
    ),
    "contest_robot": SidePicture(
        (Rolling(0.0, 0.0625, True), Rolling(0.38, 0.0625, True)),
        (
            ((-0.09, 0.045), (0.46, 0.045), (0.54, 0.018), (0.54, 0.10), (0.42, 0.155), (-0.07, 0.155)),
            ((0.06, 0.155), (0.24, 0.155), (0.24, 0.19), (0.06, 0.19)),
        ), (), None, "floor",
    ),
    "small_car": SidePicture(
        (Rolling(0.0, 0.0325, True), Rolling(0.26, 0.0325, False)),
        ((
            (-0.06, 0.028), (0.33, 0.028), (0.335, 0.056), (0.25, 0.072), (0.18, 0.115), (0.05, 0.115), (-0.02, 0.078),
            (-0.06, 0.074),
        ),), (), None, "floor",
    ),
    "class_model": SidePicture(
        (Rolling(0.0, 0.03, True), Rolling(0.14, 0.03, False)),
        (
            ((-0.045, 0.034), (0.185, 0.034), (0.185, 0.042), (-0.045, 0.042)),
            ((-0.01, 0.042), (0.05, 0.042), (0.05, 0.078), (-0.01, 0.078)),
            ((0.085, 0.042), (0.15, 0.042), (0.15, 0.062), (0.085, 0.062)),
        ), (), None, "floor",
    ),
    "panel_car": SidePicture(
        (Rolling(0.0, 0.04, True), Rolling(0.3, 0.04, False)),
        (
            ((-0.06, 0.048), (0.36, 0.048), (0.36, 0.058), (-0.06, 0.058)),
            ((-0.07, 0.130), (0.38, 0.150), (0.38, 0.160), (-0.07, 0.140)),
        ),
        (((0.02, 0.058), (0.02, 0.134)), ((0.28, 0.058), (0.28, 0.146))), None, "floor",
    ),
    "rail_hauler": SidePicture(
        (Rolling(0.0, 0.09, True), Rolling(0.6, 0.09, True)),
        (
            ((-0.30, 0.13), (0.92, 0.13), (0.92, 0.22), (-0.30, 0.22)),
            ((0.36, 0.22), (0.86, 0.22), (0.86, 0.62), (0.36, 0.66)),
            ((-0.22, 0.22), (0.12, 0.22), (0.12, 0.42), (-0.22, 0.42)),
        ),
        (), _HAULER_RIDER, "rail",
    ),
    "sled": SidePicture(
        (Rolling(0.0, 0.08, True), Rolling(0.40, 0.06, False), Rolling(0.72, 0.06, False)),
        (
            ((-0.02, 0.19), (0.70, 0.19), (1.24, 0.26), (1.16, 0.42), (0.86, 0.46), (0.16, 0.42), (-0.06, 0.30)),
            ((0.98, 0.0), (1.52, 0.0), (1.64, 0.10), (1.62, 0.12), (1.50, 0.03), (0.98, 0.03)),
        ),
        (
            _TRACK,
            ((1.10, 0.34), (1.26, 0.03)), ((0.86, 0.46), (0.82, 0.66)),
        ),
        Person((((0.82, 0.66), (0.36, 1.00), (0.28, 0.48), (0.64, 0.54), (0.78, 0.22)),), (0.42, 1.17)), "snow",
    ),
    "empty": SidePicture((), (), (), None, "floor"),
}  # fmt: skip
"""By the key of the start."""
