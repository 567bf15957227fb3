"""What a drawing is made of, in metres: x to the right, y up, angles in radians from +x, anticlockwise.

A rotation is +1 for clockwise as seen by the viewer and −1 for anticlockwise. The vehicle drives to
the right, so its wheels roll forwards with +1. A line that is too long stands in several rows, each with
coordinates of its own.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ydrometer.document.stages.forms import FormName
from ydrometer.document.stages.inside import BoxPart
from ydrometer.document.stages.plane import LoopForm


@dataclass(frozen=True, slots=True)
class DrawnShaft:
    """A shaft seen end on, by its number in `design.shaft_numbers`.

    Attributes:
        role: source, middle or wheel. branch: to which it belongs, None for one of the trunk.
        rotation_known: False behind a stage whose mounting decides which way it turns; `rotation` is then one of two.
        carried: it goes on in the next row.
    """

    index: int
    role: Literal["source", "middle", "wheel"]
    branch: int | None
    x: float
    y: float
    rotation: int
    rotation_known: bool
    carried: bool


@dataclass(frozen=True, slots=True)
class Tooth:
    """The outline of one tooth or link seat, from the middle of one gap to the next: radii m over angles rad.

    Angles are from the tooth's middle; the whole wheel is this outline once a tooth.
    """

    radii: list[float]
    angles: list[float]


@dataclass(frozen=True, slots=True)
class DrawnWheel:
    """A wheel on a shaft.

    Attributes:
        path: of its stage in the document. member: driver, driven, or idler with its number.
        place: where the document has its teeth or diameter; least: the least of that, teeth or m.
        form: as it is painted. noun: in words.
        shaft: its number; an idler has that of its stage's driver, though it stands on none of the line.
        pitch_radius: of the circle on which it works. outer_radius: over its teeth, of a ring around its rim.
        teeth, tooth: None where it has none. phase: angle of the middle of a tooth, so that pairs mesh.
    """

    path: str
    member: str
    place: str
    form: FormName
    noun: str
    least: float
    shaft: int
    x: float
    y: float
    pitch_radius: float
    outer_radius: float
    teeth: int | None
    tooth: Tooth | None
    phase: float
    rotation: int


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
class DrawnLoop:
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
    """A stage whose sizes the design does not give, drawn as a cut with the right proportions.

    Attributes:
        title: in words. one_at_a_time: whether one of its steps is engaged and the others are not.
        steps: numbers that stand below it: its reductions, or its gears from the lowest up.
        x, y: its middle. length, height, angle: of its case, turned about the middle.
        parts: what is seen inside; nothing of a closed gearbox.
        ratio: of the whole, of several speeds in the lowest gear; 0 where it is not to be told.
        shaft: number of the one that leaves it.
    """

    path: str
    title: str
    one_at_a_time: bool
    steps: list[float]
    x: float
    y: float
    length: float
    height: float
    angle: float
    parts: list[BoxPart]
    ratio: float
    shaft: int


@dataclass(frozen=True, slots=True)
class SourceDisc:
    """The body of a motor or engine, with the drum of its clutch; `count` of them are on the shaft."""

    path: str
    branch: int
    kind: Literal["motor", "engine"]
    count: int
    x: float
    y: float
    radius: float
    clutch_radius: float | None
    rotation: int


@dataclass(frozen=True, slots=True)
class RoadWheel:
    """The driven wheel on the ground, in the last row."""

    x: float
    y: float
    radius: float
    rotation: int


@dataclass(frozen=True, slots=True)
class DrawnRow:
    """A stretch of the line with the extent of what is drawn in it."""

    shafts: list[DrawnShaft]
    wheels: list[DrawnWheel]
    loops: list[DrawnLoop]
    boxes: list[Box]
    sources: list[SourceDisc]
    road_wheel: RoadWheel | None
    left: float
    right: float
    bottom: float
    top: float


@dataclass(frozen=True, slots=True)
class LineDrawing:
    """The power path from the sources to the ground.

    Attributes:
        rows: one, or several where the line is folded; a shaft that is `carried` begins the next one again.
        units: how many of this line the vehicle has.
        sizes_assumed: paths of stages drawn with a tooth size or distance that the design does not give.
    """

    rows: list[DrawnRow]
    units: int
    sizes_assumed: list[str]
