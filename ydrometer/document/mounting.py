"""The `fit` section of a design: the plate, where its shafts may stand, what is on them, and what must be kept clear.

Places are in the plane of the plate, seen from the side from which the line is drawn: x to the right, y up, from the
lower left hole. A shaft is named by the path of what turns it: the source, a stage, or an idler of one. What is said of
a shaft or loop that the design does not have is kept, and told: a stage that was taken out may come back.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Any

from ydrometer.base import reading
from ydrometer.base.labels import strength
from ydrometer.base.quantities import QUANTITY_FORMS, Schema, read_quantity
from ydrometer.base.reading import Reader
from ydrometer.base.seen import Reading
from ydrometer.base.tables.fatigue import NOTCHES, SHAPES
from ydrometer.base.tables.strengths import MATERIAL_NAMES
from ydrometer.document.flanges import FARTHEST, Bolts, FlangeAdapter, maybe_length

Point = tuple[float, float]

MOUNTS = ("fixed", "holes", "slot", "free")
MOST_HOLES = 200


def _read_point(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, list | tuple) or len(raw) != 2:
        return seen.fault(path, "not a place", 'give x and y, such as ["36 mm", "24 mm"]')
    coordinates = [read_quantity(entry, f"{path}[{i}]", seen, "length", _BOUNDS) for i, entry in enumerate(raw)]
    if any(seen.values[f"{path}[{i}]"].uncertainty for i in (0, 1) if f"{path}[{i}]" in seen.values):
        return seen.fault(path, "a place with a spread", "give x and y alone")
    return next((entry for entry in coordinates if not isinstance(entry, float)), tuple(coordinates))


def _point_schema() -> Schema:
    quantity = {"anyOf": [{"type": "number"}, *QUANTITY_FORMS]}
    return {"type": "array", "items": quantity, "minItems": 2, "maxItems": 2}


_BOUNDS = (-math.inf, -FARTHEST, FARTHEST)
POINT = Reader(_read_point, _point_schema)
"""Reads a place, x and y in m."""


def _point(*, needed: bool) -> Any:
    return reading.field_of(POINT) if needed else reading.field_of(POINT, None)


@lru_cache(maxsize=8)
def _grid(pitch: float, across: int, up: int) -> tuple[Point, ...]:
    return tuple((i * pitch, j * pitch) for j in range(up) for i in range(across))


@dataclass(frozen=True, slots=True, kw_only=True)
class Plate:
    """A plate with a grid of holes: how far apart, how many across and up, how wide, and what is left at the edge."""

    hole_pitch: float = reading.quantity("length", above=0.0, at_most=1.0)
    across: int = reading.whole(1, MOST_HOLES)
    up: int = reading.whole(1, MOST_HOLES)
    hole: float | None = maybe_length()
    edge: float | None = maybe_length()
    thickness: float | None = maybe_length()

    @property
    def margin(self) -> float:
        """From the outer holes to the edge, m: half a pitch where it is not given."""
        return 0.5 * self.hole_pitch if self.edge is None else self.edge

    @property
    def corners(self) -> tuple[float, float, float, float]:
        """Left, bottom, right and top edge, m."""
        wide, high = (self.across - 1) * self.hole_pitch, (self.up - 1) * self.hole_pitch
        return -self.margin, -self.margin, wide + self.margin, high + self.margin

    def holes(self) -> tuple[Point, ...]:
        """All holes, row by row from below."""
        return _grid(self.hole_pitch, self.across, self.up)

    def nearest(self, at: Point) -> Point:
        """The hole nearest to a place."""
        q = self.hole_pitch
        i = min(self.across - 1, max(0, round(at[0] / q)))
        j = min(self.up - 1, max(0, round(at[1] / q)))
        return i * q, j * q

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Holes leave something between them."""
        if self.hole is not None and self.hole >= self.hole_pitch:
            yield "hole", "as wide as the holes are apart", "give a diameter smaller than hole_pitch"


@dataclass(frozen=True, slots=True, kw_only=True)
class Slot:
    """Along which a shaft can be set: the middles of its ends."""

    start: Point = _point(needed=True)
    end: Point = _point(needed=True)

    @property
    def travel(self) -> float:
        """From end to end, m."""
        return math.dist(self.start, self.end)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """It has two ends."""
        if self.start == self.end:
            yield "end", "the same place as the start", "give the other end of the slot"


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """Something on a shaft between two faces: its width, and where it has to begin, from the first face.

    `wheel` says that it is a wheel of the line, such as "drive.stages[0] driver"; `spacer`, that it fills a gap;
    `bearing`, that it carries the shaft; `outside` is a bearing's outside diameter, `load_rating` the force with which
    it lasts a million turns, N.
    """

    name: str = reading.line(longest=200)
    width: float = reading.quantity("length", above=0.0, at_most=FARTHEST)
    at: float | None = reading.quantity("length", at_least=0.0, at_most=FARTHEST, default=None)
    wheel: str = reading.text(longest=200)
    spacer: bool = reading.flag()
    bearing: bool = reading.flag()
    outside: float | None = maybe_length()
    load_rating: float | None = reading.quantity("force", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stack:
    """What is on a shaft between two faces that are `between` apart, in order from the first face."""

    between: float = reading.quantity("length", above=0.0, at_most=FARTHEST)
    items: tuple[Item, ...] = reading.items(reading.object_reader(Item))

    @property
    def spans(self) -> list[tuple[float, float]]:
        """From where to where each item lies, m from the first face: where it says, else against the one before it."""
        pieces, end = [], 0.0
        for item in self.items:
            start = end if item.at is None else item.at
            end = start + item.width
            pieces.append((start, end))
        return pieces

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What has a place of its own comes in the order of the places."""
        starts = [item.at for item in self.items if item.at is not None]
        if any(after < before for before, after in pairwise(starts)):
            yield "items", "not in the order of their places", "sort them from the first face on"


@dataclass(frozen=True, slots=True, kw_only=True)
class ShaftMount:
    """How one shaft is mounted.

    Attributes:
        shaft: the path of what turns it. mount: fixed, on one of the holes, in a slot, or free to be drilled anywhere.
        at: where it stands; in a slot it follows from what it is tied to. slot: of one in a slot.
        eccentric: throw of a mount that is turned to move the shaft away from its partner, beginning in line with it.
        diameter, shape, length: of the shaft itself. overhang: of one that stands out, from its nearest bearing to the
        middle of what pulls. material, yield_strength, tensile: of the shaft, Pa; the others go before the first.
        notch: where it is loaded most.
        body: across what stands around it behind the plate, such as a motor. opening: in the plate, such as for a
        bearing or a motor's hub. bolts: around the opening. stack: what is on it.
    """

    shaft: str = reading.text(longest=200)
    mount: str = reading.choice(MOUNTS, default="holes")
    at: Point | None = _point(needed=False)
    slot: Slot | None = reading.nested(Slot, default=None)
    eccentric: float | None = maybe_length()
    diameter: float | None = maybe_length()
    shape: str = reading.choice(SHAPES, default="round")
    length: float | None = maybe_length()
    overhang: float | None = strength(
        "Overhang, from its bearing to what pulls",
        reading.quantity("length", at_least=0.0, at_most=FARTHEST, default=None),
    )
    material: str | None = strength("Material", reading.choice(MATERIAL_NAMES, default=None))
    yield_strength: float | None = strength(
        "Yield strength", reading.called("yield", reading.quantity("stress", above=0.0, default=None))
    )
    tensile: float | None = strength("Tensile strength", reading.quantity("stress", above=0.0, default=None))
    notch: str | None = strength("Notch where it is loaded most", reading.choice(NOTCHES, default=None))
    body: float | None = maybe_length()
    opening: float | None = maybe_length()
    bolts: Bolts | None = reading.nested(Bolts, default=None)
    stack: Stack | None = reading.nested(Stack, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A slot belongs to a shaft in one, a place to one that is fixed."""
        if self.mount == "slot" and self.slot is None:
            yield "slot", "missing", "a shaft in a slot needs its start and end"
        if self.mount != "slot" and self.slot is not None:
            yield "slot", f'given for a shaft that is mounted "{self.mount}"', 'leave it out, or say "mount": "slot"'
        if self.slot is not None and self.eccentric is not None:
            yield "eccentric", "given for a shaft in a slot", "leave one of the two out: one mount is set, not both"
        if self.mount == "fixed" and self.at is None:
            yield "at", "missing", "a fixed shaft stands somewhere: give x and y"


@dataclass(frozen=True, slots=True, kw_only=True)
class Tensioner:
    """A wheel without a stage of its own that takes up a loop's slack, from inside or outside."""

    at: Point = _point(needed=True)
    diameter: float = reading.quantity("length", above=0.0, at_most=FARTHEST)
    outside: bool = reading.flag(default=True)


@dataclass(frozen=True, slots=True, kw_only=True)
class LoopMount:
    """What belongs to one belt or chain: its length where the stage has none of its own, its tension, a tensioner.

    Attributes:
        stage: its path. length: of a V-belt, along the line on which it runs. tension: of a run at rest, to be set.
        mass_per_length: for the sound of a plucked run. tensioner: a wheel that presses on it.
    """

    stage: str = reading.text(longest=200)
    length: float | None = reading.quantity("length", above=0.0, at_most=100.0, default=None)
    tension: float | None = reading.quantity("force", above=0.0, default=None)
    mass_per_length: float | None = reading.quantity("linear density", above=0.0, default=None)
    tensioner: Tensioner | None = reading.nested(Tensioner, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class FrameLine:
    """An edge of the frame that nothing may touch."""

    name: str = reading.line(longest=200)
    start: Point = _point(needed=True)
    end: Point = _point(needed=True)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlateBehind:
    """The plate behind a stage that turns the axis, with places in its own plane: the path of that stage, the plate,
    and the frame around it.
    """

    stage: str = reading.text(longest=200)
    plate: Plate | None = reading.nested(Plate, default=None)
    frame: tuple[FrameLine, ...] = reading.items(reading.object_reader(FrameLine))


@dataclass(frozen=True, slots=True, kw_only=True)
class Mounting:
    """The whole section.

    Attributes:
        plate: without one, shafts stand wherever they are said to. shafts, loops, frame: in any order. behind: plates
        behind stages that turn the axis. adapters: between flanges, apart from any plate. tolerance: how much further
        apart than without backlash two gears may stand; without a word it follows the module
        (`fit.coupling.usual_tolerance`). loop_tolerance: how far from taut a loop may be. gap: that is left between
        what moves and what stands. ground_gap: under a wheel of the line.
    """

    plate: Plate | None = reading.nested(Plate, default=None)
    shafts: tuple[ShaftMount, ...] = reading.items(reading.object_reader(ShaftMount))
    loops: tuple[LoopMount, ...] = reading.items(reading.object_reader(LoopMount))
    frame: tuple[FrameLine, ...] = reading.items(reading.object_reader(FrameLine))
    behind: tuple[PlateBehind, ...] = reading.items(reading.object_reader(PlateBehind), most=12)
    adapters: tuple[FlangeAdapter, ...] = reading.items(reading.object_reader(FlangeAdapter), most=12)
    tolerance: float | None = reading.quantity("length", at_least=0.0, at_most=0.01, default=None)
    loop_tolerance: float = reading.quantity("length", at_least=0.0, at_most=0.05, default=3e-4)
    gap: float = reading.quantity("length", at_least=0.0, at_most=0.1, default=1e-3)
    ground_gap: float = reading.quantity("length", at_least=0.0, at_most=1.0, default=5e-3)

    def of(self, path: str) -> ShaftMount | None:
        """How the shaft of a path is mounted, where that is said."""
        return next((shaft for shaft in self.shafts if shaft.shaft == path), None)

    def loop(self, path: str) -> LoopMount | None:
        """What is said of the loop of a stage."""
        return next((loop for loop in self.loops if loop.stage == path), None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Each shaft, loop and plate once."""
        said = {
            "shafts": [shaft.shaft for shaft in self.shafts],
            "loops": [loop.stage for loop in self.loops],
            "behind": [plate.stage for plate in self.behind],
        }
        for key, paths in said.items():
            for place, path in enumerate(paths):
                if path in paths[:place]:
                    yield f"{key}[{place}]", f'"{path}" given twice', "say it once"
