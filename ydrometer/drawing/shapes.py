"""What a drawing is made of, in metres: x to the right, y up, angles in radians from +x, anticlockwise.

A turning sense is +1 for clockwise as seen by the viewer and −1 for anticlockwise. The vehicle drives to
the right, so its wheels roll forwards with +1.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True, slots=True)
class Shaft:
    """A shaft seen end on. `role`: source, middle or wheel."""

    index: int
    role: Literal["source", "middle", "wheel"]
    x: float
    y: float
    sense: int


@dataclass(frozen=True, slots=True)
class Wheel:
    """A toothed member on a shaft.

    Attributes:
        path: of its stage in the document. member: driver, driven, or idler with its number.
        form: gear, ring (teeth inwards), pulley or sprocket.
        pitch_radius: of the circle on which it works. outer_radius: over its teeth.
        step: of its stage in the order of power, from 0.
    """

    path: str
    member: str
    form: Literal["gear", "ring", "pulley", "sprocket"]
    shaft: int
    step: int
    x: float
    y: float
    pitch_radius: float
    outer_radius: float
    teeth: int
    sense: int


@dataclass(frozen=True, slots=True)
class Segment:
    """A piece of a loop: a straight line from (x1, y1) to (x2, y2), or an arc between them of `radius`.

    An arc turns clockwise; `wrap` is its angle, 0 for a line.
    """

    x1: float
    y1: float
    x2: float
    y2: float
    radius: float
    wrap: float


@dataclass(frozen=True, slots=True)
class Loop:
    """A belt or chain around two wheels.

    Attributes:
        pieces: belt teeth or chain links, None where no length is given.
        centre_distance: between the shafts; `assumed` where it does not follow from the length.
        driver_wrap, driven_wrap: angles of contact.
    """

    path: str
    form: Literal["belt", "chain"]
    pitch: float
    pieces: int | None
    centre_distance: float
    assumed: bool
    driver_wrap: float
    driven_wrap: float
    segments: list[Segment]


@dataclass(frozen=True, slots=True)
class Box:
    """A closed gearbox in line with its shafts, drawn as a case."""

    path: str
    x1: float
    x2: float
    y: float
    height: float
    ratio: float
    shaft: int
    step: int


@dataclass(frozen=True, slots=True)
class Disc:
    """A plain circle: the motor's body or the road wheel."""

    x: float
    y: float
    radius: float
    sense: int
    path: str


@dataclass(frozen=True, slots=True)
class LineDrawing:
    """The power path from source to ground.

    Attributes:
        forwards: whether the road wheel rolls forwards.
        ground: height of the ground line.
        left, right, bottom, top: the extent of everything drawn.
        sizes_assumed: paths of stages drawn with a tooth size or distance that the design does not give.
    """

    shafts: list[Shaft]
    wheels: list[Wheel]
    loops: list[Loop]
    boxes: list[Box]
    motor: Disc
    road_wheel: Disc
    forwards: bool
    ground: float
    left: float
    right: float
    bottom: float
    top: float
    sizes_assumed: list[str]
