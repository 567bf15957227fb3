"""Laying out the whole line, from the motor on the left to the wheel on the ground."""

from __future__ import annotations

import math

from ydrometer.design import Design, first_line
from ydrometer.drawing.shapes import Box, Disc, LineDrawing, Loop, Shaft, Wheel
from ydrometer.drawing.stages import DRAW, Start
from ydrometer.sources import Engine

MOTOR_DENSITY = 4000.0
"""kg/m³ of a motor as a whole, to draw one of known mass at about its size."""


def draw_line(design: Design) -> LineDrawing:
    """Draw the line of a design from its first branch to the wheels, to scale.

    Shafts stand in one row at the height of the wheel's axle. Where a size is missing a usual one is
    drawn and the stage is named in `sizes_assumed`.
    """
    source = design.drive.branches[0].source
    road_radius = design.vehicle.wheel_diameter / 2.0
    sense = -1 if source.reversed else 1
    shafts = [Shaft(0, "source", 0.0, 0.0, sense)]
    wheels: list[Wheel] = []
    loops: list[Loop] = []
    boxes: list[Box] = []
    assumed: list[str] = []
    x = 0.0
    for step, (path, stage) in enumerate(first_line(design)):
        drawn = DRAW[stage.kind](stage, Start(path, step, x, 0.0, sense, road_radius))
        x, sense = drawn.x, sense * stage.sense
        shafts.append(Shaft(step + 1, "middle", x, 0.0, sense))
        wheels += drawn.wheels
        loops += drawn.loops
        boxes += drawn.boxes
        if drawn.assumed:
            assumed.append(path)
    last = shafts[-1]
    shafts[-1] = Shaft(last.index, "wheel", last.x, last.y, last.sense)
    motor = Disc(0.0, 0.0, _motor_radius(source.mass, wheels, road_radius), shafts[0].sense,
                 "drive.branches[0].source")  # fmt: skip
    road = Disc(x, 0.0, road_radius, sense, "vehicle.wheel_diameter")
    circles = [(d.x, d.radius) for d in (motor, road)] + [(w.x, w.outer_radius) for w in wheels]
    tallest = max(radius for _, radius in circles)
    return LineDrawing(
        shafts=shafts,
        wheels=wheels,
        loops=loops,
        boxes=boxes,
        source="engine" if isinstance(source, Engine) else "motor",
        motor=motor,
        road_wheel=road,
        forwards=sense > 0,
        ground=-road_radius,
        left=min(cx - radius for cx, radius in circles),
        right=max(cx + radius for cx, radius in circles),
        bottom=-tallest,
        top=tallest,
        sizes_assumed=assumed,
    )


def _motor_radius(mass: float | None, wheels: list[Wheel], road_radius: float) -> float:
    """A motor of known mass as a cylinder as long as it is wide; else large enough to be seen behind its pinion."""
    if mass is not None:
        return math.cbrt(mass / (2.0 * math.pi * MOTOR_DENSITY))
    first = wheels[0].outer_radius if wheels and wheels[0].shaft == 0 else 0.0
    return min(max(2.2 * first, 0.3 * road_radius), 0.7 * road_radius)
