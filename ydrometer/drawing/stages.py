"""Each kind of stage as it is drawn: circles that touch, loops around them, boxes where sizes are not given."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from ydrometer.document.stages import Stage
from ydrometer.document.stages.belt import Belt
from ydrometer.document.stages.bevel import Bevel
from ydrometer.document.stages.chain import Chain
from ydrometer.document.stages.friction import Friction
from ydrometer.document.stages.gear import Gear
from ydrometer.document.stages.gearbox import Gearbox
from ydrometer.document.stages.multi_speed_box import MultiSpeedBox
from ydrometer.document.stages.planetary import Planetary
from ydrometer.document.stages.v_belt import VBelt
from ydrometer.document.stages.worm import Worm
from ydrometer.drawing import boxes, loops, wheels
from ydrometer.drawing.boxes import CLEAR
from ydrometer.drawing.shapes import Box, BoxForm, DrawnLoop, DrawnWheel, LoopForm
from ydrometer.drawing.wheels import Spot
from ydrometer.geometry.loops import centre_distance, crossed_wraps, wraps

ASSUMED_MODULE = 1e-3
ASSUMED_BELT_PITCH = 5e-3
ASSUMED_CHAIN_PITCH = 6.35e-3
SPACING = 1.35
"""Centre distance of a loop of unknown length, relative to the sum of its wheels' radii."""
BEVEL_SIZE = 0.55
"""Radius of the larger gear of a bevel pair relative to the road wheel's."""
BOX_SIZE = 0.6
"""Height of a case relative to the road wheel's radius."""
GEARBOX_LENGTH = 0.9
"""Length of a closed case relative to the road wheel's radius."""


@dataclass(frozen=True, slots=True)
class Start:
    """Where a stage begins: its path, the shafts of its driver and its driven, x of the first, which way that turns."""

    path: str
    shafts: tuple[int, int]
    x: float
    rotation: int
    road_radius: float


@dataclass(slots=True)
class Layout:
    """What a stage adds, and where the next shaft stands."""

    x: float
    wheels: list[DrawnWheel] = field(default_factory=list)
    loops: list[DrawnLoop] = field(default_factory=list)
    boxes: list[Box] = field(default_factory=list)
    assumed: bool = False


def gear(stage: Gear, start: Start) -> Layout:
    """Pitch circles that touch, in one row; a ring holds its partner inside."""
    size = stage.tooth_size or ASSUMED_MODULE
    made = Layout(start.x, assumed=stage.tooth_size is None)
    row, rotation, phase = stage.members, start.rotation, 0.0
    for place, member in enumerate(row):
        ring = member.form.encloses
        if place:
            before = row[place - 1].measure
            made.x += size * (member.measure - before if ring else member.measure + before) / 2.0
            rotation = rotation if ring else -rotation
            phase = wheels.meshing_phase(made.wheels[-1], int(member.measure), ring=ring)
        spot = Spot.of(member, start.path, start.shafts[member.name == "driven"], made.x, rotation)
        angle = stage.pressure_angle
        made.wheels.append(wheels.wheel(spot, member.form, size, member.measure, angle=angle, phase=phase))
    return made


def belt(stage: Belt, start: Start) -> Layout:
    """Pulleys and the belt's pitch line around them, as far apart as its length says."""
    return _looped(stage, start, "belt", stage.pitch or ASSUMED_BELT_PITCH, stage.belt_teeth)


def chain(stage: Chain, start: Start) -> Layout:
    """Sprockets on their pitch circles, and the chain; its length follows the circles of z·p/(2·π)."""
    return _looped(stage, start, "chain", stage.pitch or ASSUMED_CHAIN_PITCH, stage.links)


def v_belt(stage: VBelt, start: Start) -> Layout:
    """Grooved pulleys on the circles where the belt runs; a crossed belt turns the driven one round."""
    return _looped(stage, start, "v_belt", 0.0, None)


def friction(stage: Friction, start: Start) -> Layout:
    """Two rims that touch."""
    driver, driven = (member.form.pitch_radius(0.0, member.measure) for member in stage.members)
    made = Layout(start.x + driver + driven)
    made.wheels = _pair(stage, start, 0.0, made.x)
    return made


def bevel(stage: Bevel, start: Start) -> Layout:
    """Both gears turned into the plane of the drawing; sizes are symbols with the right ratio."""
    size = 2.0 * BEVEL_SIZE * start.road_radius / max(stage.driver_teeth, stage.driven_teeth)
    made = Layout(start.x + 0.5 * size * (stage.driver_teeth + stage.driven_teeth), assumed=True)
    made.wheels = _pair(stage, start, size, made.x)
    return made


def planetary(stage: Planetary, start: Start) -> Layout:
    """A cut through each step, side by side though they share one axis."""
    inner = boxes.planetary(stage.reductions, BOX_SIZE * start.road_radius)
    return _boxed(stage, start, inner, "planetary", stage.reductions)


def gearbox(stage: Gearbox, start: Start) -> Layout:
    """A closed case between its two shafts, which are in line; its size is a symbol."""
    inner = boxes.closed(GEARBOX_LENGTH * start.road_radius, BOX_SIZE * start.road_radius)
    return _boxed(stage, start, inner, "gearbox", ())


def worm(stage: Worm, start: Start) -> Layout:
    """The worm across the shafts, its wheel end on: crossed axes turned into the plane."""
    return _boxed(stage, start, boxes.worm(BOX_SIZE * start.road_radius), "worm", ())


def speeds(stage: MultiSpeedBox, start: Start) -> Layout:
    """A pair of wheels for each gear, all at one centre distance."""
    inner = boxes.speeds(stage.ratios, BOX_SIZE * start.road_radius)
    return _boxed(stage, start, inner, "speeds", stage.ratios)


def _pair(stage: Stage, start: Start, size: float, x: float) -> list[DrawnWheel]:
    """Driver and driven on their shafts, the driven one at x."""
    made = []
    for end, member in enumerate(stage.members):
        rotation = start.rotation * (stage.rotation if end else 1)
        spot = Spot.of(member, start.path, start.shafts[end], (start.x, x)[end], rotation)
        made.append(wheels.wheel(spot, member.form, size, member.measure))
    return made


def _looped(stage: Stage, start: Start, form: LoopForm, pitch: float, pieces: int | None) -> Layout:
    """Two wheels and what runs around them, as far apart as its length says, else as is usual."""
    members = stage.members
    by_length = [member.form.loop_radius(pitch, member.measure) for member in members]
    r1, r2 = (member.form.pitch_radius(pitch, member.measure) for member in members)
    taut = centre_distance(stage.loop_length, *by_length) if stage.loop_length else None
    distance = taut or SPACING * max(sum(by_length), 1.2 * start.road_radius)
    made = Layout(start.x + distance, assumed=not taut)
    made.wheels = _pair(stage, start, pitch, made.x)
    shape = loops.crossed_path if stage.crossed else loops.path
    contact = (crossed_wraps if stage.crossed else wraps)(r1, r2, distance)
    segments = shape((start.x, 0.0), r1, (start.x + distance, 0.0), r2)
    made.loops = [DrawnLoop(start.path, form, pitch or None, pieces, distance, not taut, *contact, segments)]
    return made


def _boxed(stage: Stage, start: Start, inner: boxes.Inner, form: BoxForm, steps: Sequence[float]) -> Layout:
    # The case stands clear of the wheel before it on the same shaft.
    near = start.x + CLEAR * start.road_radius
    middle = near + 0.5 * inner.length
    box = Box(start.path, stage.title, form, list(steps), middle, 0.0, inner.length, inner.height, 0.0,
              inner.placed(near), stage.ratio, start.shafts[1])  # fmt: skip
    return Layout(near + inner.length + CLEAR * start.road_radius, boxes=[box], assumed=True)


DRAW: dict[str, Callable[[Any, Start], Layout]] = {
    Gear.kind: gear,
    Bevel.kind: bevel,
    Planetary.kind: planetary,
    Gearbox.kind: gearbox,
    Worm.kind: worm,
    Belt.kind: belt,
    VBelt.kind: v_belt,
    Friction.kind: friction,
    Chain.kind: chain,
    MultiSpeedBox.kind: speeds,
}
"""How each kind is drawn."""
