"""What a step is made from: the design's own numbers about all that it handles, so that a change of one is told."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ydrometer.build.line import Between, Sitting
from ydrometer.build.workshop import BuildShop, plate_path
from ydrometer.document.mounting import Plate, Point, ShaftMount
from ydrometer.document.stages.assembly import mm
from ydrometer.document.walk import branch_of

ABOUT_SHAFTS = ("shaft", "bearing", "plate", "make")
"""Kinds of work on what turns; at other places of a stage it is the stage that is set."""
SET_BY_HAND = {"play", "sag", "deflection"}
"""Those of Fit's numbers that do not follow from sizes and places alone."""
NEVER_MIND_WHERE = ("shaft", "make")
"""Kinds of work that are the same wherever a shaft stands."""


def facts(shop: BuildShop, kind: str, parts: Sequence[str]) -> tuple[str, ...]:
    """The numbers a step is made from, each with what it is of.

    Args:
        shop: of the design.
        kind: of the step's work.
        parts: paths of the design that it handles.
    """
    wheels = {wheel.name: wheel for wheel in shop.line.wheels}
    stages = {between.path: between for between in shop.line.stages}
    plates = {plate_path(setup) for setup in shop.plates} if kind == "plate" else set()
    where = kind not in NEVER_MIND_WHERE and not (kind == "motor" and wheels.keys() & set(parts))
    said: list[str] = []
    for path in parts:
        if path in plates:
            said += _plate(shop, path)
        elif path in wheels:
            said += _wheel(shop, wheels[path])
        elif path in stages and kind not in ABOUT_SHAFTS:
            said += _stage(shop, stages[path])
        elif path in shop.line.shafts:
            said += _shaft(shop, path, where=where)
        else:
            said += _other(shop, path)
    return tuple(dict.fromkeys(said))


def _wheel(shop: BuildShop, wheel: Sitting) -> Iterator[str]:
    stage = next(between.stage for between in shop.line.stages if between.path == wheel.stage)
    size = f", {stage.members[0].form.size_words(stage.tooth_size)}" if stage.tooth_size else ""
    wide = f", {mm(stage.loop_width)} wide" if stage.loop_width else ""
    said = shop.mount(wheel.shaft)
    bored = said.diameter is not None and not shop.on_drum(wheel.shaft)
    on = f", on a {mm(said.diameter or 0.0)} {said.shape} shaft" if bored else ""
    yield f"{wheel.words}{size}{wide}{on}"


def _stage(shop: BuildShop, between: Between) -> Iterator[str]:
    """What has to be set at a stage: its loop, where its shafts stand, and Fit's numbers of it."""
    stage, path = between.stage, between.path
    said = shop.fit.loop(path)
    length = shop.loop_length(between)
    if length:
        yield f"{stage.noun} of {mm(length)}"
    if said is not None and said.tension:
        yield f"{stage.noun} at {said.tension:.4g} N"
    if said is not None and said.tensioner is not None:
        yield f"tensioner of the {stage.noun} at {_point(said.tensioner.at)}"
    if not stage.members:
        yield f"{stage.noun} {stage.sizes_words}"
    for shaft in between.shafts:
        yield from _where(shop, shaft)
    for name in sorted(SET_BY_HAND & shop.settings.get(path, {}).keys()):
        yield f"{name} of {mm(shop.settings[path][name])}"


def _shaft(shop: BuildShop, path: str, *, where: bool) -> Iterator[str]:
    said, name = shop.mount(path), shop.shaft(path)
    if said.diameter:
        long = f", {mm(said.length)} long" if said.length else ""
        yield f"{name}: {mm(said.diameter)} {said.shape}{long}"
    if said.stack is not None:
        yield f"{name}: {shop.in_order(path)}"
    if where:
        yield from _where(shop, path)
        yield from _holes(name, said)


def _where(shop: BuildShop, path: str) -> Iterator[str]:
    said, name = shop.mount(path), shop.shaft(path)
    if said.slot is not None:
        yield f"{name} in a slot from {_point(said.slot.start)} to {_point(said.slot.end)}"
    elif said.at is not None:
        turned = f", eccentric by {mm(said.eccentric)}" if said.eccentric else ""
        yield f"{name} at {_point(said.at)}{turned}"


def _holes(name: str, said: ShaftMount) -> Iterator[str]:
    if said.opening:
        yield f"opening of {mm(said.opening)} for the {name}"
    if said.bolts is not None:
        long = f", screws of {mm(said.bolts.length)}" if said.bolts.length else ""
        yield f"{name}: {said.bolts.count} holes of {mm(said.bolts.hole)} on {mm(said.bolts.circle)}{long}"


def _other(shop: BuildShop, path: str) -> Iterator[str]:
    """Of the supply, a controller and the road wheels."""
    drive = shop.design.drive
    if path == "drive.supply" and drive.supply is not None:
        yield f"{drive.supply.kind} of {shop.volts:.4g} V" if shop.volts else drive.supply.kind
        if shop.fuse is not None:
            yield f"fuse of {shop.fuse.rating:.4g} A"
    elif path.endswith(".controller"):
        controller = drive.branches[branch_of(path)].controller
        if controller is not None and controller.current_limit:
            yield f"current limit of {controller.current_limit:.4g} A"
    elif path == "vehicle.wheel_diameter":
        yield f"road wheels of {mm(shop.design.vehicle.wheel_diameter)}"


def _plate(shop: BuildShop, path: str) -> Iterator[str]:
    for setup in shop.plates:
        plate = setup.mounting.plate
        if plate is not None and path == plate_path(setup):
            yield from _sheet(plate)
            for shaft in setup.plane.shafts:
                if shaft in shop.line.shafts:
                    yield from _where(shop, shaft)
                    yield from _holes(shop.shaft(shaft), shop.mount(shaft))


def _sheet(plate: Plate) -> Iterator[str]:
    thick = f", {mm(plate.thickness)} thick" if plate.thickness else ""
    hole = f", holes of {mm(plate.hole)}" if plate.hole else ""
    yield f"plate of {plate.across} × {plate.up} holes every {mm(plate.hole_pitch)}{hole}{thick}"


def _point(point: Point) -> str:
    return f"{1e3 * point[0]:.5g}, {1e3 * point[1]:.5g} mm"
