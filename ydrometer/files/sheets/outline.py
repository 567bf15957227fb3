"""What is drilled and cut, as plain shapes on named layers, in metres; each format draws the same."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from ydrometer.document.flanges import Bolts
from ydrometer.document.mounting import Plate, Point, ShaftMount, Slot
from ydrometer.fit.bodies import free_side
from ydrometer.fit.flanges import plates
from ydrometer.fit.setup import Setup

OUTLINE, HOLES, SHAFTS, SLOTS, BOLTS, FRAME, NOTES = (
    "OUTLINE",
    "HOLES",
    "SHAFTS",
    "SLOTS",
    "BOLTS",
    "FRAME",
    "NOTES",
)
LAYERS = (OUTLINE, HOLES, SHAFTS, SLOTS, BOLTS, FRAME, NOTES)
CROSS = 4e-3
"""Half the length of the lines that mark a middle, m."""
WALL = 2.0
"""What an adapter has beyond its outermost hole, in diameters of that hole."""
LEAST_WALL = 6e-3
"""m; and no less than this."""
TEXT = 3e-3
"""Height of letters, m."""
ROOM = 5e-3
"""m around everything."""


@dataclass(frozen=True, slots=True)
class Circle:
    """A hole or a round outline."""

    layer: str
    x: float
    y: float
    radius: float


@dataclass(frozen=True, slots=True)
class StraightLine:
    """A straight line."""

    layer: str
    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class Oblong:
    """A slot: from the middle of one end to that of the other, with half its width."""

    layer: str
    x1: float
    y1: float
    x2: float
    y2: float
    radius: float

    @property
    def sides(self) -> tuple[tuple[Point, Point], tuple[Point, Point]]:
        """The two straight sides, as their ends: the left one forth, the right one back."""
        angle = math.atan2(self.y2 - self.y1, self.x2 - self.x1) + 0.5 * math.pi
        dx, dy = self.radius * math.cos(angle), self.radius * math.sin(angle)
        left = (self.x1 + dx, self.y1 + dy), (self.x2 + dx, self.y2 + dy)
        return left, ((self.x2 - dx, self.y2 - dy), (self.x1 - dx, self.y1 - dy))

    @property
    def ends(self) -> tuple[tuple[Point, float], tuple[Point, float]]:
        """The two half circles: their middles, and the angle that each begins at, degrees counterclockwise."""
        along = math.degrees(math.atan2(self.y2 - self.y1, self.x2 - self.x1))
        return ((self.x1, self.y1), along + 90.0), ((self.x2, self.y2), along - 90.0)


@dataclass(frozen=True, slots=True)
class Text:
    """A note at its lower left."""

    layer: str
    x: float
    y: float
    text: str


Shape = Circle | StraightLine | Oblong | Text


@dataclass(slots=True)
class Outline:
    """All of a template with its extent, m."""

    name: str
    shapes: list[Shape] = field(default_factory=list)

    @property
    def extent(self) -> tuple[float, float, float, float]:
        """Left, bottom, right, top, with a little room."""
        boxes = [box(shape) for shape in self.shapes]
        left, bottom, right, top = zip(*boxes, strict=True)
        return min(left) - ROOM, min(bottom) - ROOM, max(right) + ROOM, max(top) + ROOM


def box(shape: Shape) -> tuple[float, float, float, float]:
    """Left, bottom, right, top of what a shape covers, m."""
    match shape:
        case Circle(x=x, y=y, radius=r):
            return x - r, y - r, x + r, y + r
        case Text(x=x, y=y):
            return x, y, x + 0.6 * TEXT * len(shape.text), y + TEXT
        case Oblong(radius=r):
            grown = r
        case StraightLine():
            grown = 0.0
    left, right = sorted((shape.x1, shape.x2))
    bottom, top = sorted((shape.y1, shape.y2))
    return left - grown, bottom - grown, right + grown, top + grown


def plate_outline(setup: Setup) -> Outline:
    """The plate with its grid, and all that goes through it.

    Args:
        setup: a design with where all stands.

    Raises:
        ValueError: nothing of it would be drilled or cut.
    """
    outline = Outline(setup.design.name or "Plate")
    plate = setup.mounting.plate
    if plate is not None:
        outline.shapes += _plate(plate)
    for path in setup.plane.shafts:
        outline.shapes += _shaft(setup.shaft(path), setup.bored(path), setup.plane.named(path))
        body = setup.shaft(path).body
        if body is not None:
            outline.shapes += _body(setup, path, 0.5 * body)
    outline.shapes += [StraightLine(FRAME, *line.start, *line.end) for line in setup.mounting.frame]
    return outline


def _body(setup: Setup, path: str, radius: float) -> Iterator[Shape]:
    """What stands behind the plate, and where its wires have most room."""
    x, y = setup.at(path)
    yield Circle(NOTES, x, y, radius)
    way = free_side(setup, path) or 0.0
    across, up = math.cos(way), math.sin(way)
    yield StraightLine(NOTES, x + radius * across, y + radius * up, x + 1.4 * radius * across, y + 1.4 * radius * up)
    yield Text(NOTES, x + 1.45 * radius * across, y + 1.45 * radius * up, "wires")


def adapter_outline(setup: Setup, path: str) -> Outline:
    """A round adapter for one shaft: its opening and its circle of bolts, centred on the hub.

    Args:
        setup: a design.
        path: of a shaft that stands on the plate.

    Raises:
        ValueError: no such shaft, or neither opening nor bolts are given for it.
    """
    if path not in setup.plane.shafts:
        raise ValueError(f'there is no shaft "{path}" on this plate: there are {", ".join(setup.plane.shafts)}')
    shaft = setup.shaft(path)
    if shaft.opening is None and shaft.bolts is None:
        raise ValueError(
            f"nothing goes through an adapter for the {setup.plane.named(path)}: give the hole in the "
            "plate or its circle of bolts"
        )
    bare = replace(shaft, slot=None)
    outline = Outline(f"Adapter, {setup.plane.named(path)}", list(_shaft(bare, (0.0, 0.0), "")))
    holes = [shape for shape in outline.shapes if isinstance(shape, Circle)]
    outermost = max(holes, key=lambda hole: math.hypot(hole.x, hole.y) + hole.radius)
    reach = math.hypot(outermost.x, outermost.y) + outermost.radius
    outline.shapes.append(Circle(OUTLINE, 0.0, 0.0, reach + max(LEAST_WALL, WALL * outermost.radius)))
    return outline


def flange_outline(setup: Setup, path: str) -> Outline:
    """One plate of an adapter between two flanges, seen from the first side.

    Args:
        setup: a design.
        path: of the plate: fit.adapters[i].plates[j].

    Raises:
        ValueError: there is no such plate.
    """
    layer_of = {
        f"fit.adapters[{i}].plates[{j}]": plate
        for i, adapter in enumerate(setup.mounting.adapters)
        for j, plate in enumerate(plates(adapter))
    }
    if path not in layer_of:
        raise ValueError(f'there is no plate "{path}": there are {", ".join(layer_of) or "none"}')
    plate = layer_of[path]
    layers = {"centring": SHAFTS, "coupling": SHAFTS}
    outline = Outline(plate.name, [Circle(layers.get(h.what, BOLTS), h.x, h.y, h.radius) for h in plate.holes])
    outline.shapes.append(Circle(OUTLINE, 0.0, 0.0, plate.outside))
    outline.shapes += list(_cross((0.0, 0.0)))
    for spigot in (plate.spigot, plate.other_spigot):
        if spigot:
            outline.shapes.append(Circle(NOTES, 0.0, 0.0, spigot))
    if plate.thickness is not None:
        outline.shapes.append(
            Text(NOTES, -plate.outside, plate.outside + TEXT, f"{1e3 * plate.thickness:.2f} mm thick")
        )
    return outline


def _plate(plate: Plate) -> Iterator[Shape]:
    left, bottom, right, top = plate.corners
    corners = [(left, bottom), (right, bottom), (right, top), (left, top)]
    for first, second in zip(corners, [*corners[1:], corners[0]], strict=True):
        yield StraightLine(OUTLINE, *first, *second)
    if plate.hole is not None:
        for x, y in plate.holes():
            yield Circle(HOLES, x, y, 0.5 * plate.hole)


def _shaft(shaft: ShaftMount, at: Point, name: str) -> Iterator[Shape]:
    across = shaft.opening or shaft.diameter
    slot = shaft.slot
    if slot is not None:
        if across:
            yield Oblong(SLOTS, *slot.start, *slot.end, 0.5 * across)
        for end in (slot.start, slot.end):
            yield from _cross(end)
    else:
        if across:
            yield Circle(SHAFTS, *at, 0.5 * across)
        yield from _cross(at)
    if shaft.bolts is not None:
        yield from _bolts(shaft.bolts, at, slot)
    if name:
        place, clear = slot.end if slot is not None else at, max(CROSS, 0.5 * (across or 0.0))
        yield Text(NOTES, place[0] + 0.7 * clear, place[1] + clear + 0.5 * TEXT, name)


def _bolts(bolts: Bolts, at: Point, slot: Slot | None) -> Iterator[Shape]:
    """Holes around a shaft; around one in a slot they are slots as well, or it would not move."""
    for dx, dy in bolts.around:
        if slot is None:
            yield Circle(BOLTS, at[0] + dx, at[1] + dy, 0.5 * bolts.hole)
        else:
            start, end = slot.start, slot.end
            yield Oblong(BOLTS, start[0] + dx, start[1] + dy, end[0] + dx, end[1] + dy, 0.5 * bolts.hole)


def _cross(at: Point) -> Iterator[Shape]:
    yield StraightLine(NOTES, at[0] - CROSS, at[1], at[0] + CROSS, at[1])
    yield StraightLine(NOTES, at[0], at[1] - CROSS, at[0], at[1] + CROSS)
