"""What a drawing is made of, in metres: x to the right, y up, angles in radians from +x, anticlockwise.

A turning sense is +1 for clockwise as seen by the viewer and −1 for anticlockwise. The vehicle drives to
the right, so its wheels roll forwards with +1.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

WheelForm = Literal["gear", "ring", "bevel", "pulley", "sprocket", "grooved"]
LoopForm = Literal["belt", "chain", "v_belt"]
BoxForm = Literal["planetary", "gearbox", "worm", "speeds"]


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
    """A toothed or grooved member on a shaft.

    Attributes:
        path: of its stage in the document. member: driver, driven, or idler with its number.
        form: gear, ring (teeth inwards), bevel, pulley, sprocket or grooved (of a V-belt).
        teeth: None where it has none.
        pitch_radius: of the circle on which it works. outer_radius: over its teeth.
        step: of its stage in the order of power, from 0.
    """

    path: str
    member: str
    form: WheelForm
    shaft: int
    step: int
    x: float
    y: float
    pitch_radius: float
    outer_radius: float
    teeth: int | None
    sense: int


@dataclass(frozen=True, slots=True)
class Segment:
    """A piece of a loop: a straight line from (x1, y1) to (x2, y2), or an arc between them of `radius`.

    An arc turns clockwise where `wrap`, its angle, is positive, anticlockwise where it is negative; 0 for a line.
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
        pitch: None for a belt without teeth. pieces: belt teeth or chain links, None where no length is given.
        centre_distance: between the shafts; `assumed` where it does not follow from the length.
        driver_wrap, driven_wrap: angles of contact.
    """

    path: str
    form: LoopForm
    pitch: float | None
    pieces: int | None
    centre_distance: float
    assumed: bool
    driver_wrap: float
    driven_wrap: float
    segments: list[Segment]


@dataclass(frozen=True, slots=True)
class Box:
    """A closed box in line with its shafts, drawn as a case; `steps` are its reductions or its gears."""

    path: str
    form: BoxForm
    steps: list[float]
    x1: float
    x2: float
    y: float
    height: float
    ratio: float
    shaft: int
    step: int


@dataclass(frozen=True, slots=True)
class Disc:
    """A plain circle: the source's body or the road wheel."""

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
    source: Literal["motor", "engine"]
    motor: Disc
    road_wheel: Disc
    forwards: bool
    ground: float
    left: float
    right: float
    bottom: float
    top: float
    sizes_assumed: list[str]
