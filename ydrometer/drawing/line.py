"""Laying out the whole line, from the sources on the left to the wheel on the ground."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any, Literal

from ydrometer.document.design import Design
from ydrometer.document.sources import Engine
from ydrometer.document.stages import Stage
from ydrometer.document.stages.inside import BoxPart
from ydrometer.document.stages.plane import OtherPlane
from ydrometer.document.walk import own_stages, shaft_numbers, trunk_stages
from ydrometer.drawing.shapes import DrawnLoop, DrawnRow, DrawnShaft, LineDrawing, RoadWheel, Segment, SourceDisc
from ydrometer.drawing.stages import StageLayout, StageStart, lay_out

MOTOR_DENSITY = 4000.0
"""kg/m³ of a motor as a whole, to draw one of known mass at about its size."""
CLUTCH = 0.6
"""A clutch's drum relative to its engine."""
BETWEEN_BRANCHES = 1.15
"""Room between the sources of two branches, relative to their radii."""
WIDEST_FAN = 1.75
"""Largest angle between two branches where they join, rad."""
UNFOLDED = 1e9


@dataclass(slots=True)
class Stretch:
    """Stages in one straight row along +x from x = 0, and the shafts between them."""

    shafts: list[DrawnShaft]
    layouts: list[StageLayout] = field(default_factory=list)
    paths: list[str] = field(default_factory=list)

    @property
    def end(self) -> DrawnShaft:
        """Where the stretch ends."""
        return self.shafts[-1]

    def circles(self) -> Iterator[tuple[float, float, float]]:
        """x, y and radius of what takes room."""
        for layout in self.layouts:
            yield from ((w.x, w.y, w.outer_radius) for w in layout.wheels)
            yield from ((b.x, b.y, 0.5 * math.hypot(b.length, b.height)) for b in layout.boxes)


def draw_line(design: Design, longest: float = UNFOLDED) -> LineDrawing:
    """Draw the line of a design from its sources to the wheels, to scale.

    Shafts stand in one row at the height of the wheel's axle; branches join from different directions. Where a
    size is missing a usual one is drawn and the stage is named in `sizes_assumed`.

    Args:
        design: any.
        longest: how many times as long as high a row may be before the line is folded.
    """
    road_radius = design.vehicle.wheel_diameter / 2.0
    numbers, trunk_numbers = shaft_numbers(design)
    branches = [_branch(design, b, numbers[b], road_radius) for b in range(len(design.drive.branches))]
    first = branches[0]
    trunk = _stretch(trunk_stages(design), trunk_numbers, None, first.end, road_radius)
    placed = [first] if len(branches) == 1 else _fanned(design, branches, road_radius)
    # With one branch the trunk simply goes on where it ends; a fan ends at x = 0.
    start = first.end.x if len(branches) == 1 else 0.0
    trunk = _shifted(trunk, start)
    rows = _rows(design, placed, trunk, road_radius, longest)
    return LineDrawing(
        rows=rows,
        units=design.drive.units,
        sizes_assumed=[
            path
            for part in (*placed, trunk)
            for path, layout in zip(part.paths, part.layouts, strict=True)
            if layout.assumed
        ],
    )


def _branch(design: Design, b: int, numbers: list[int], road_radius: float) -> Stretch:
    source = design.drive.branches[b].source
    start = DrawnShaft(numbers[0], "source", b, 0.0, 0.0, -1 if source.reversed else 1, True, False)
    return _stretch(own_stages(design, b), numbers, b, start, road_radius)


def _stretch(
    stages: Iterable[tuple[str, Stage]], numbers: list[int], branch: int | None, start: DrawnShaft, road_radius: float
) -> Stretch:
    stretch = Stretch(
        [replace(start, index=numbers[0], branch=branch, x=0.0, role="source" if branch is not None else "middle")]
    )
    for step, (path, stage) in enumerate(stages):
        before = stretch.end
        shafts = (numbers[step], numbers[step + 1])
        layout = lay_out(stage, StageStart(path, shafts, before.x, before.rotation, road_radius))
        stretch.layouts.append(layout)
        stretch.paths.append(path)
        known = before.rotation_known and not isinstance(stage.in_plane, OtherPlane)
        stretch.shafts.append(
            DrawnShaft(shafts[1], "middle", branch, layout.x, 0.0, before.rotation * stage.rotation, known, False)
        )
    return stretch


def _fanned(design: Design, branches: Sequence[Stretch], road_radius: float) -> list[Stretch]:
    """The branches around the shaft where they join, at x = 0, the first one uppermost."""
    sources = [source_radius(design, b, branch, road_radius) for b, branch in enumerate(branches)]
    lengths = [branch.end.x for branch in branches if branch.end.x > 0.0]
    if not lengths:
        return list(branches)
    apart = BETWEEN_BRANCHES * max(radius + other for radius, other in pairwise(sources))
    angle = min(WIDEST_FAN, 2.0 * math.asin(min(1.0, 0.5 * apart / min(lengths))))
    middle = 0.5 * (len(branches) - 1)
    tilt = max(0.0, angle * middle - _lowest_angle(branches[-1].end.x, road_radius - sources[-1]))
    return [_turned(branch, angle * (b - middle) - tilt) for b, branch in enumerate(branches)]


def _lowest_angle(length: float, room: float) -> float:
    """How far down a branch may point so that its source stays above the ground, rad; `room` is below the axle, m."""
    return math.asin(min(1.0, max(-1.0, room / length))) if length > 0.0 else math.pi


def source_radius(design: Design, b: int, branch: Stretch, road_radius: float) -> float:
    """A source of known mass as a cylinder as long as it is wide; else large enough to be seen behind its pinion."""
    mass = design.drive.branches[b].source.mass
    if mass is not None:
        return math.cbrt(mass / (2.0 * math.pi * MOTOR_DENSITY))
    wheels = branch.layouts[0].wheels if branch.layouts else []
    first = wheels[0].outer_radius if wheels else 0.0
    return min(max(2.2 * first, 0.3 * road_radius), 0.7 * road_radius)


def _rows(
    design: Design, branches: list[Stretch], trunk: Stretch, road_radius: float, longest: float
) -> list[DrawnRow]:
    """Rows no longer than they may be, each from where the one before ends; a fan of branches stays whole."""
    line = _joined(branches[0], trunk) if len(branches) == 1 else trunk
    others = branches if len(branches) > 1 else []
    tallest = 2.0 * max([road_radius, *(radius for _, _, radius in line.circles())])
    breaks, row_start = [0], line.shafts[0].x - max([0.0, *(-p.shafts[0].x for p in others)])
    for step, shaft in enumerate(line.shafts[1:], start=1):
        if shaft.x - row_start > longest * tallest and step - 1 > breaks[-1]:
            breaks.append(step - 1)
            row_start = line.shafts[step - 1].x
    rows = []
    for place, low in enumerate(breaks):
        last = place == len(breaks) - 1
        high = len(line.shafts) - 1 if last else breaks[place + 1]
        part = _shifted(Stretch(line.shafts[low : high + 1], line.layouts[low:high]), -line.shafts[low].x)
        part.shafts[-1] = replace(part.end, carried=not last, role="wheel" if last else part.end.role)
        sources = branches if place == 0 else []
        rows.append(_row(design, part, others if place == 0 else [], sources, road_radius if last else None))
    return rows


def _joined(branch: Stretch, trunk: Stretch) -> Stretch:
    """One stretch of a branch and the trunk behind it."""
    if not trunk.layouts:
        return branch
    return Stretch([*branch.shafts, *trunk.shafts[1:]], branch.layouts + trunk.layouts, branch.paths + trunk.paths)


def _row(
    design: Design, line: Stretch, fan: list[Stretch], sources: list[Stretch], road_radius: float | None
) -> DrawnRow:
    parts = [*fan, line]
    # The shaft where branches join is drawn once, with the trunk; a branch without stages is nothing but that shaft.
    shafts = [shaft for part in fan for shaft in part.shafts[:-1]] + line.shafts
    discs = [_disc(design, b, branch, line, design.vehicle.wheel_diameter / 2.0) for b, branch in enumerate(sources)]
    road = None if road_radius is None else RoadWheel(line.end.x, line.end.y, road_radius, line.end.rotation)
    circles = [circle for part in parts for circle in part.circles()] + [(d.x, d.y, d.radius) for d in discs]
    if road is not None:
        circles.append((road.x, road.y, road.radius))
    return DrawnRow(
        shafts=shafts,
        wheels=[wheel for part in parts for layout in part.layouts for wheel in layout.wheels],
        loops=[loop for part in parts for layout in part.layouts for loop in layout.loops],
        boxes=[box for part in parts for layout in part.layouts for box in layout.boxes],
        sources=discs,
        road_wheel=road,
        left=min(x - radius for x, _, radius in circles),
        right=max(x + radius for x, _, radius in circles),
        bottom=min(y - radius for _, y, radius in circles),
        top=max(y + radius for _, y, radius in circles),
    )


def _disc(design: Design, b: int, branch: Stretch, line: Stretch, road_radius: float) -> SourceDisc:
    own = design.drive.branches[b]
    shaft = branch.shafts[0] if branch.layouts else line.shafts[0]
    radius = source_radius(design, b, branch, road_radius)
    kind: Literal["motor", "engine"] = "engine" if isinstance(own.source, Engine) else "motor"
    clutch = CLUTCH * radius if own.clutch else None
    rotation = -1 if own.source.reversed else 1
    return SourceDisc(f"drive.branches[{b}].source", b, kind, own.count, shaft.x, shaft.y, radius, clutch, rotation)


def _shifted(part: Stretch, by: float) -> Stretch:
    return _moved(part, 0.0, -by) if by else part


def _turned(part: Stretch, angle: float) -> Stretch:
    """The stretch turned so that it comes to its end, then at x = 0, from another direction."""
    return _moved(part, angle, part.end.x)


def _turned_part(part: BoxPart, angle: float) -> BoxPart:
    """A piece of a box whose outline turns with it."""
    return replace(part, angles=tuple(at + angle for at in part.angles)) if part.angles else part


def _moved(part: Stretch, angle: float, pivot: float) -> Stretch:
    """The stretch turned about (pivot, 0), which becomes the origin."""
    cosine, sine = math.cos(angle), math.sin(angle)

    def at(x: float, y: float) -> tuple[float, float]:
        return cosine * (x - pivot) - sine * y, sine * (x - pivot) + cosine * y

    def put(shape: Any, **more: Any) -> Any:
        x, y = at(shape.x, shape.y)
        return replace(shape, x=x, y=y, **more)

    def segment(s: Segment) -> Segment:
        return Segment(*at(s.x1, s.y1), *at(s.x2, s.y2), s.radius, s.wrap)

    def loop(old: DrawnLoop) -> DrawnLoop:
        return replace(old, segments=[segment(s) for s in old.segments])

    drawn = [
        StageLayout(
            d.x - pivot,
            [put(w, phase=w.phase + angle) for w in d.wheels],
            [loop(path) for path in d.loops],
            [put(b, angle=b.angle + angle, parts=[_turned_part(put(p), angle) for p in b.parts]) for b in d.boxes],
            d.assumed,
        )
        for d in part.layouts
    ]
    return Stretch([put(shaft) for shaft in part.shafts], drawn, part.paths)
