"""How each kind of stage is drawn, given the shaft it starts from: one function a kind, one row in `DRAW`."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Literal

from ydrometer.drawing import loops
from ydrometer.drawing.shapes import Box, BoxForm, Loop, Wheel, WheelForm
from ydrometer.stages import Belt, Bevel, Chain, Gear, Gearbox, Planetary, Speeds, VBelt, Worm

ASSUMED_MODULE = 1e-3
ASSUMED_BELT_PITCH = 5e-3
ASSUMED_CHAIN_PITCH = 6.35e-3
SPACING = 1.35
"""Centre distance of a loop of unknown length, relative to the sum of its wheels' radii."""
CLEAR = 0.5
"""Gap between a wheel's shaft and the case behind it, relative to the road wheel's radius."""
BELT_LINE = 0.11
"""How far a belt pulley's rim lies inside its pitch circle, relative to the pitch (ISO 13050, middle of the range)."""
ROLLER = 0.625
"""Roller diameter of a chain relative to its pitch (ISO 606, common sizes); half of it stands over the pitch circle."""


@dataclass(frozen=True, slots=True)
class Start:
    """Where a stage begins: its path, its place in the order of power, its driver's shaft."""

    path: str
    step: int
    x: float
    y: float
    sense: int
    road_radius: float


@dataclass(slots=True)
class Drawn:
    """What a stage adds, and where the next shaft stands."""

    x: float
    wheels: list[Wheel] = field(default_factory=list)
    loops: list[Loop] = field(default_factory=list)
    boxes: list[Box] = field(default_factory=list)
    assumed: bool = False


def gear(stage: Gear, start: Start) -> Drawn:
    """Pitch circles that touch, in one row; a ring holds its partner inside."""
    size = stage.tooth_size or ASSUMED_MODULE
    drawn = Drawn(start.x, assumed=stage.tooth_size is None)
    row = [stage.driver_teeth, *stage.idlers, stage.driven_teeth]
    names = ["driver", *(f"idler {i + 1}" for i in range(len(stage.idlers))), "driven"]
    sense, last = start.sense, len(row) - 1
    for place, (teeth, name) in enumerate(zip(row, names, strict=True)):
        ring = stage.internal and place == last
        if place:
            before = row[place - 1]
            drawn.x += size * (teeth - before if ring else teeth + before) / 2.0
            sense = sense if ring else -sense
        radius = size * teeth / 2.0
        form: WheelForm = "ring" if ring else "gear"
        outer = radius + (2.25 * size if ring else size)
        drawn.wheels.append(
            Wheel(
                start.path, name, form, start.step + (place == last), start.step,
                drawn.x, start.y, radius, outer, teeth, sense,
            )
        )  # fmt: skip
    return drawn


def belt(stage: Belt, start: Start) -> Drawn:
    """Pulleys on their pitch circles z·p/(2·π), and the belt's pitch line around them."""
    pitch = stage.pitch or ASSUMED_BELT_PITCH
    radii = (stage.driver_teeth * pitch / (2.0 * math.pi), stage.driven_teeth * pitch / (2.0 * math.pi))
    rims = (radii[0] - BELT_LINE * pitch, radii[1] - BELT_LINE * pitch)
    drawn = _looped(stage, start, "pulley", radii, radii, rims)
    drawn.assumed |= stage.pitch is None
    drawn.loops.append(_loop(start, drawn, "belt", pitch, stage.belt_teeth, radii))
    return drawn


def chain(stage: Chain, start: Start) -> Drawn:
    """Sprockets on their pitch circles p/(2·sin(π/z)), and the chain around them."""
    pitch = stage.pitch or ASSUMED_CHAIN_PITCH
    radii = (_sprocket(stage.driver_teeth, pitch), _sprocket(stage.driven_teeth, pitch))
    rims = (radii[0] + ROLLER * pitch / 2.0, radii[1] + ROLLER * pitch / 2.0)
    for_length = (stage.driver_teeth * pitch / (2.0 * math.pi), stage.driven_teeth * pitch / (2.0 * math.pi))
    drawn = _looped(stage, start, "sprocket", radii, for_length, rims)
    drawn.assumed |= stage.pitch is None
    drawn.loops.append(_loop(start, drawn, "chain", pitch, stage.links, radii))
    return drawn


def v_belt(stage: VBelt, start: Start) -> Drawn:
    """Grooved pulleys on the pitch circles where the belt runs; a crossed belt turns the driven one round."""
    radii = (stage.driver_pitch_diameter / 2.0, stage.driven_pitch_diameter / 2.0)
    distance = SPACING * max(sum(radii), 1.2 * start.road_radius)
    drawn = Drawn(start.x + distance, assumed=True)
    rim = 1.06
    for end, (member, x, sense) in enumerate(
        (("driver", start.x, start.sense), ("driven", drawn.x, start.sense * stage.sense))
    ):
        drawn.wheels.append(
            Wheel(
                start.path, member, "grooved", start.step + end, start.step,
                x, start.y, radii[end], rim * radii[end], None, sense,
            )
        )  # fmt: skip
    shape = loops.crossed_path if stage.crossed else loops.path
    segments = shape((start.x, start.y), radii[0], (drawn.x, start.y), radii[1])
    wraps = loops.crossed_wraps(*radii, distance) if stage.crossed else loops.wraps(*radii, distance)
    drawn.loops.append(Loop(start.path, "v_belt", None, None, distance, True, *wraps, segments))
    return drawn


def bevel(stage: Bevel, start: Start) -> Drawn:
    """Both gears turned into the plane of the drawing; sizes are symbols with the right ratio."""
    large = 0.55 * start.road_radius
    most = max(stage.driver_teeth, stage.driven_teeth)
    radii = (large * stage.driver_teeth / most, large * stage.driven_teeth / most)
    drawn = Drawn(start.x + sum(radii), assumed=True)
    ends = (("driver", start.x, stage.driver_teeth), ("driven", drawn.x, stage.driven_teeth))
    for end, (member, x, teeth) in enumerate(ends):
        drawn.wheels.append(
            Wheel(
                start.path, member, "bevel", start.step + end, start.step,
                x, start.y, radii[end], radii[end] * (1.0 + 2.0 / teeth), teeth, start.sense,
            )
        )  # fmt: skip
    return drawn


def planetary(stage: Planetary, start: Start) -> Drawn:
    """A case as long as it has steps."""
    return _box(start, "planetary", stage.ratio, list(stage.reductions), 0.5 + 0.25 * len(stage.reductions))


def gearbox(stage: Gearbox, start: Start) -> Drawn:
    """A case between its two shafts, which are in line; its size is a symbol."""
    return _box(start, "gearbox", stage.ratio, [], 0.9)


def worm(stage: Worm, start: Start) -> Drawn:
    """A case; the worm's crossed axes are turned into the plane."""
    return _box(start, "worm", stage.ratio, [], 0.7)


def speeds(stage: Speeds, start: Start) -> Drawn:
    """A case with its gears."""
    return _box(start, "speeds", stage.ratio, list(stage.ratios), 0.6 + 0.2 * len(stage.ratios))


def _box(start: Start, form: BoxForm, ratio: float, steps: list[float], long: float) -> Drawn:
    # The case stands clear of the wheel before it on the same shaft.
    near = start.x + CLEAR * start.road_radius
    end = near + long * start.road_radius
    box = Box(start.path, form, steps, near, end, start.y, 0.6 * start.road_radius, ratio, start.step + 1,
              start.step)  # fmt: skip
    return Drawn(end + CLEAR * start.road_radius, boxes=[box], assumed=True)


def _looped(
    stage: Belt | Chain,
    start: Start,
    form: Literal["pulley", "sprocket"],
    radii: tuple[float, float],
    for_length: tuple[float, float],
    rims: tuple[float, float],
) -> Drawn:
    pieces = stage.belt_teeth if isinstance(stage, Belt) else stage.links
    pitch = stage.pitch
    taut = loops.centre_distance(pieces * pitch, *for_length) if pieces and pitch else None
    distance = taut or SPACING * max(sum(radii), 1.2 * start.road_radius)
    drawn = Drawn(start.x + distance, assumed=taut is None)
    ends = (("driver", start.x, stage.driver_teeth), ("driven", drawn.x, stage.driven_teeth))
    for end, (member, x, teeth) in enumerate(ends):
        drawn.wheels.append(
            Wheel(
                start.path, member, form, start.step + end, start.step,
                x, start.y, radii[end], rims[end], teeth, start.sense,
            )
        )  # fmt: skip
    return drawn


def _loop(
    start: Start,
    drawn: Drawn,
    form: Literal["belt", "chain"],
    pitch: float,
    pieces: int | None,
    radii: tuple[float, float],
) -> Loop:
    distance = drawn.x - start.x
    segments = loops.path((start.x, start.y), radii[0], (drawn.x, start.y), radii[1])
    return Loop(start.path, form, pitch, pieces, distance, drawn.assumed, *loops.wraps(*radii, distance), segments)


def _sprocket(teeth: int, pitch: float) -> float:
    return pitch / (2.0 * math.sin(math.pi / teeth))


DRAW: dict[str, Callable[[Any, Start], Drawn]] = {
    "gear": gear,
    "bevel": bevel,
    "planetary": planetary,
    "gearbox": gearbox,
    "worm": worm,
    "belt": belt,
    "v_belt": v_belt,
    "chain": chain,
    "speeds": speeds,
}
