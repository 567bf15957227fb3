"""How each kind of stage is drawn along +x from its driver's shaft: one function a kind, one row in `DRAW`."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ydrometer.document.stages import Belt, Bevel, Chain, Gear, Gearbox, Planetary, Speeds, VBelt, Worm
from ydrometer.drawing import boxes, loops, wheels
from ydrometer.drawing.boxes import CLEAR
from ydrometer.drawing.shapes import Box, Loop, LoopForm, Wheel
from ydrometer.fit.loops import centre_distance, crossed_wraps, pitch_radius, wraps

ASSUMED_MODULE = 1e-3
ASSUMED_BELT_PITCH = 5e-3
ASSUMED_CHAIN_PITCH = 6.35e-3
SPACING = 1.35
"""Centre distance of a loop of unknown length, relative to the sum of its wheels' radii."""
GROOVE = 1.06
"""Rim of a V-pulley relative to the circle on which the belt runs."""


@dataclass(frozen=True, slots=True)
class Start:
    """Where a stage begins: its path, the shafts of its driver and its driven, x of the first, its sense."""

    path: str
    shafts: tuple[int, int]
    x: float
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
    sense, phase, last = start.sense, 0.0, len(row) - 1
    for place, (teeth, name) in enumerate(zip(row, names, strict=True)):
        ring = stage.internal and place == last
        if place:
            before = row[place - 1]
            drawn.x += size * (teeth - before if ring else teeth + before) / 2.0
            sense = sense if ring else -sense
            phase = wheels.meshing_phase(drawn.wheels[-1], teeth, ring=ring)
        shaft = start.shafts[place == last]
        drawn.wheels.append(
            wheels.gear(start.path, name, shaft, drawn.x, teeth, size, stage.pressure_angle, ring=ring, sense=sense,
                        phase=phase)
        )  # fmt: skip
    return drawn


def belt(stage: Belt, start: Start) -> Drawn:
    """Pulleys and the belt's pitch line around them, as far apart as its length says."""
    pitch = stage.pitch or ASSUMED_BELT_PITCH
    radii = (pitch_radius(pitch, stage.driver_teeth), pitch_radius(pitch, stage.driven_teeth))
    distance, assumed = _distance(start, stage.belt_teeth, stage.pitch, radii)
    drawn = Drawn(start.x + distance, assumed=assumed)
    for end, teeth in enumerate((stage.driver_teeth, stage.driven_teeth)):
        x = (start.x, drawn.x)[end]
        drawn.wheels.append(wheels.pulley(start.path, MEMBERS[end], start.shafts[end], x, teeth, pitch, start.sense))
    drawn.loops.append(_loop(start, "belt", pitch, stage.belt_teeth, radii, distance, assumed=assumed))
    return drawn


def chain(stage: Chain, start: Start) -> Drawn:
    """Sprockets on their pitch circles, and the chain; its length follows the circles of z·p/(2·π)."""
    pitch = stage.pitch or ASSUMED_CHAIN_PITCH
    teeth = (stage.driver_teeth, stage.driven_teeth)
    for_length = (pitch_radius(pitch, teeth[0]), pitch_radius(pitch, teeth[1]))
    distance, assumed = _distance(start, stage.links, stage.pitch, for_length)
    drawn = Drawn(start.x + distance, assumed=assumed)
    for end, count in enumerate(teeth):
        x = (start.x, drawn.x)[end]
        drawn.wheels.append(wheels.sprocket(start.path, MEMBERS[end], start.shafts[end], x, count, pitch, start.sense))
    radii = (drawn.wheels[0].pitch_radius, drawn.wheels[1].pitch_radius)
    drawn.loops.append(_loop(start, "chain", pitch, stage.links, radii, distance, assumed=assumed))
    return drawn


def v_belt(stage: VBelt, start: Start) -> Drawn:
    """Grooved pulleys on the circles where the belt runs; a crossed belt turns the driven one round."""
    radii = (stage.driver_pitch_diameter / 2.0, stage.driven_pitch_diameter / 2.0)
    distance, _ = _distance(start, None, None, radii)
    drawn = Drawn(start.x + distance, assumed=True)
    for end, radius in enumerate(radii):
        x, sense = (start.x, drawn.x)[end], (start.sense, start.sense * stage.sense)[end]
        drawn.wheels.append(
            Wheel(start.path, MEMBERS[end], "grooved", start.shafts[end], x, 0.0, radius, GROOVE * radius, None, None,
                  0.0, sense)
        )  # fmt: skip
    drawn.loops.append(_loop(start, "v_belt", None, None, radii, distance, assumed=True, crossed=stage.crossed))
    return drawn


def bevel(stage: Bevel, start: Start) -> Drawn:
    """Both gears turned into the plane of the drawing; sizes are symbols with the right ratio."""
    large = 0.55 * start.road_radius
    most = max(stage.driver_teeth, stage.driven_teeth)
    radii = (large * stage.driver_teeth / most, large * stage.driven_teeth / most)
    drawn = Drawn(start.x + sum(radii), assumed=True)
    for end, teeth in enumerate((stage.driver_teeth, stage.driven_teeth)):
        x, outer = (start.x, drawn.x)[end], radii[end] * (1.0 + 2.0 / teeth)
        drawn.wheels.append(
            Wheel(start.path, MEMBERS[end], "bevel", start.shafts[end], x, 0.0, radii[end], outer, teeth, None, 0.0,
                  start.sense)
        )  # fmt: skip
    return drawn


def planetary(stage: Planetary, start: Start) -> Drawn:
    """A cut through each step, side by side though they share one axis."""
    return _boxed(start, boxes.planetary(stage.reductions, 0.6 * start.road_radius), "planetary", stage)


def gearbox(stage: Gearbox, start: Start) -> Drawn:
    """A closed case between its two shafts, which are in line; its size is a symbol."""
    return _boxed(start, boxes.closed(0.9 * start.road_radius, 0.6 * start.road_radius), "gearbox", stage)


def worm(stage: Worm, start: Start) -> Drawn:
    """The worm across the shafts, its wheel end on: crossed axes turned into the plane."""
    return _boxed(start, boxes.worm(0.6 * start.road_radius), "worm", stage)


def speeds(stage: Speeds, start: Start) -> Drawn:
    """A pair of wheels for each gear, all at one centre distance."""
    return _boxed(start, boxes.speeds(stage.ratios, 0.6 * start.road_radius), "speeds", stage)


MEMBERS = ("driver", "driven")
_STEPS: dict[str, Callable[[Any], list[float]]] = {
    "planetary": lambda stage: list(stage.reductions),
    "speeds": lambda stage: list(stage.ratios),
}


def _boxed(start: Start, inner: boxes.Inner, form: Any, stage: Any) -> Drawn:
    # The case stands clear of the wheel before it on the same shaft.
    near = start.x + CLEAR * start.road_radius
    middle = near + 0.5 * inner.length
    steps = _STEPS.get(form, lambda _: [])(stage)
    box = Box(start.path, form, steps, middle, 0.0, inner.length, inner.height, 0.0, inner.placed(middle), stage.ratio,
              start.shafts[1])  # fmt: skip
    return Drawn(near + inner.length + CLEAR * start.road_radius, boxes=[box], assumed=True)


def _distance(start: Start, pieces: int | None, pitch: float | None, radii: tuple[float, float]) -> tuple[float, bool]:
    """Between the shafts of a loop: as its length has it, else a usual one, and then True."""
    taut = centre_distance(pieces * pitch, *radii) if pieces and pitch else None
    return (taut, False) if taut else (SPACING * max(sum(radii), 1.2 * start.road_radius), True)


def _loop(
    start: Start, form: LoopForm, pitch: float | None, pieces: int | None, radii: tuple[float, float],
    distance: float, *, assumed: bool, crossed: bool = False,
) -> Loop:  # fmt: skip
    shape = loops.crossed_path if crossed else loops.path
    contact = (crossed_wraps if crossed else wraps)(*radii, distance)
    segments = shape((start.x, 0.0), radii[0], (start.x + distance, 0.0), radii[1])
    return Loop(start.path, form, pitch, pieces, distance, assumed, *contact, segments)


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
