"""Checks of couplings: distances, slots and the room they leave, tensioners, teeth in mesh."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ydrometer.document.mounting import Point
from ydrometer.document.stages.plane import Contact, Loop, OtherPlane
from ydrometer.document.walk import shaft_paths, stages_with_paths, wheel_names
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.clash import Clash, Level, called, mm
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.room import nearest_length, room_wanted, way_around
from ydrometer.fit.running import Running
from ydrometer.fit.setup import Setup, depth, middle, running
from ydrometer.fit.setup import tensioner as pressing
from ydrometer.fit.touching import beside_own_run
from ydrometer.geometry import gears, loops


def strangers(setup: Setup) -> Iterator[Clash]:
    """Every shaft, loop and wheel that the section names exists in the design, and what is said of it is used."""
    for shaft in setup.mounting.shafts:
        if shaft.shaft not in shaft_paths(setup.design):
            text = f"something is said of the mounting of {shaft.shaft}, which this design does not have"
            yield Clash("mind", text, shaft.shaft, 0.0, None)
    yield from _strange_loops(setup)
    yield from _strange_plates(setup)
    yield from _strange_wheels(setup)


def _strange_loops(setup: Setup) -> Iterator[Clash]:
    stages = dict(stages_with_paths(setup.design))
    for said in setup.mounting.loops:
        stage = stages.get(said.stage)
        loop = stage.in_plane if stage is not None else None
        if stage is None:
            text = f"something is said of the loop of {said.stage}, which this design does not have"
        elif not isinstance(loop, Loop):
            text = f"something is said of a loop of {said.stage}, a {stage.noun}, which has none: it is not used"
        elif loop.pieces and said.length is not None:
            text = f"a length is said of the {loop.noun} of {said.stage}: its {loop.pieces} count, in the stage"
        else:
            continue
        yield Clash("mind", text, said.stage, 0.0, None)


def _strange_plates(setup: Setup) -> Iterator[Clash]:
    stages = dict(stages_with_paths(setup.design))
    for said in setup.mounting.behind if not setup.plane.behind else ():
        stage = stages.get(said.stage)
        if stage is None or not isinstance(stage.in_plane, OtherPlane):
            text = f"a plate is given behind {said.stage}, which does not turn the axis: it is not used"
            yield Clash("mind", text, said.stage, 0.0, None)


def _strange_wheels(setup: Setup) -> Iterator[Clash]:
    """Every wheel that a stack names exists, and is on that shaft: else nobody would look at its depth."""
    known, on = wheel_names(setup.design), {wheel.name: wheel.shaft for wheel in setup.plane.wheels}
    for shaft in setup.mounting.shafts:
        for item in shaft.stack.items if shaft.stack else ():
            if not item.wheel or (on.get(item.wheel, shaft.shaft) == shaft.shaft and item.wheel in known):
                continue
            wrong = "is on another shaft" if item.wheel in known else "this design does not have"
            text = f"the stack of {shaft.shaft} has the wheel {item.wheel}, which {wrong}: its depth is not looked at"
            yield Clash("mind", text, shaft.shaft, 0.0, None)


def level(setup: Setup) -> Iterator[Clash]:
    """Driver and driven lie in the same depth, as far as stacks say so; a loop runs straight."""
    for coupling in setup.plane.couplings:
        spans = [depth(setup, wheel) for wheel in coupling.wheels]
        if spans[0] is None or spans[1] is None:
            continue
        (start, end), (begin, stop) = spans[0], spans[1]
        beside = max(start, begin) - min(end, stop)
        aside = abs(0.5 * (start + end) - 0.5 * (begin + stop))
        pair, at = f"{coupling.driver.words} and {coupling.driven.words}", middle(setup, coupling)
        if beside >= -NOISE:
            text = f"{pair} lie in different depths: they miss each other by {mm(max(0.0, beside))}"
            yield Clash("clash", text, coupling.path, beside, at)
        elif coupling.loop is not None and aside > coupling.loop.straight * setup.distance(coupling) + NOISE:
            most = coupling.loop.straight * setup.distance(coupling)
            text = f"the {called(coupling)} runs {mm(aside)} askew between {pair}: {mm(most)} is the most"
            yield Clash("clash", text, coupling.path, aside, at)
        elif coupling.loop is None and min(end, stop) - max(start, begin) < min(end - start, stop - begin) - NOISE:
            text = f"{pair} meet over {mm(-beside)} of their width alone"
            yield Clash("mind", text, coupling.path, min(end - start, stop - begin) + beside, at)


def on_the_plate(setup: Setup) -> Iterator[Clash]:
    """Shafts mounted on holes stand on holes, and all shafts stand on the plate."""
    plate = setup.mounting.plate
    if plate is None:
        return
    left, bottom, right, top = plate.corners
    for path in setup.plane.shafts:
        at, shaft = setup.said(path), setup.shaft(path)
        name = setup.plane.named(path)
        off = math.dist(at, plate.nearest(at))
        if shaft.mount == "holes" and off > 1e-6:
            yield Clash("clash", f"the {name} stands {mm(off)} off the nearest hole", path, off, at)
        beyond = max(left - at[0], at[0] - right, bottom - at[1], at[1] - top)
        if beyond > NOISE:
            yield Clash("clash", f"the {name} stands {mm(beyond)} beside the plate", path, beyond, at)


def apart(setup: Setup) -> Iterator[Clash]:
    """The shafts of each coupling stand at a distance that suits it."""
    for coupling in setup.plane.couplings:
        distance = setup.distance(coupling)
        if coupling.is_loop and distance <= coupling.free + NOISE:
            text = f"the wheels of the {called(coupling)} touch: their shafts stand {mm(distance)} apart"
            yield Clash("clash", text, coupling.path, coupling.free - distance, middle(setup, coupling))
        elif coupling.off(distance) > NOISE:
            nearest = min(coupling.reaches, key=lambda reach: reach.off(distance))
            yield _wrong_distance(setup, coupling, nearest, distance)
    for path, text in setup.plane.impossible.items():
        yield Clash("clash", text, path, 0.0, None)
    for path, text in setup.plane.missing.items():
        yield Clash("mind", text, path, 0.0, None)


def _wrong_distance(setup: Setup, coupling: Coupling, reach: Reach, distance: float) -> Clash:
    near = distance < reach.low
    off = reach.best - distance if near else distance - reach.best
    sentence = f"the shafts stand {mm(distance)} apart, {mm(reach.best)} is wanted"
    if coupling.is_loop:
        way = "loose" if near else "short"
        off = abs(way_around(coupling, reach.best) - way_around(coupling, distance))
        text = f"{called(coupling)} of {reach.name}: too {way} by {mm(off)}; {sentence}"
    elif coupling.inside:
        text = f"{coupling.driver.words} in the ring: {'too much play' if near else 'too tight'}; {sentence}"
    elif near:
        text = (
            f"{coupling.driver.words} and {coupling.driven.words} do not go together: {mm(off)} too close; {sentence}"
        )
    elif isinstance(coupling.stage.in_plane, Contact):
        text = (
            f"the rims of {coupling.driver.words} and {coupling.driven.words} do not touch: {mm(off)} apart; {sentence}"
        )
    else:
        teeth = coupling.driver.teeth, coupling.driven.teeth
        backlash = gears.backlash(distance, coupling.driver.size, *teeth, coupling.pressure_angle)
        pair = f"{coupling.driver.words} and {coupling.driven.words}"
        text = f"{pair} have {mm(backlash)} play, {mm(off)} too far apart; {sentence}"
    return Clash("clash", text, coupling.path, off, middle(setup, coupling))


def slots(setup: Setup) -> Iterator[Clash]:
    """A slot is long enough, and leaves room to put a loop on and to tighten it."""
    for path in setup.plane.shafts:
        shaft, stand = setup.shaft(path), setup.stands[path]
        if shaft.slot is None:
            continue
        if abs(stand.short) > NOISE:
            end = "end" if stand.short > 0.0 else "start"
            name = setup.plane.named(path)
            text = f"the slot of the {name} would have to go {mm(abs(stand.short))} beyond its {end}"
            yield Clash("clash", text, path, abs(stand.short), stand.at)
            continue
        for coupling in setup.plane.couplings:
            if coupling.loop and path in coupling.shafts and coupling.reaches:
                yield from _room(setup, coupling, coupling.loop, path)


def _room(setup: Setup, coupling: Coupling, loop: Loop, path: str) -> Iterator[Clash]:
    low, high = setup.reach(coupling)
    distance = setup.distance(coupling)
    if distance <= coupling.free:
        return
    on, tighten = room_wanted(coupling, loop, nearest_length(coupling, distance))
    for word, has, wants in (("put it on", distance - low, on), ("tighten it", high - distance, tighten)):
        if has < wants - NOISE:
            sentence = f"{mm(max(0.0, has))} of the slot left to {word}, {mm(wants)} is usual"
            other = "shorter" if word == "tighten it" else "longer"
            text = f"{loop.noun}: {sentence}; lengthen the slot by {mm(wants - has)}, or take a {other} {loop.noun}"
            level: Level = "clash" if word == "put it on" else "mind"
            yield Clash(level, text, coupling.path, wants - has, setup.at(path))


def with_tensioner(setup: Setup) -> Iterator[Clash]:
    """A loop with a tensioner has the length of the path around all three wheels."""
    for coupling in setup.plane.couplings:
        tensioner = pressing(setup, coupling)
        if tensioner is None or setup.distance(coupling) <= coupling.free:
            continue
        noun, at = called(coupling), tensioner.at
        if coupling.stage.crossed and tensioner.outside:
            yield Clash("clash", f"a crossed {noun} takes no tensioner on its outside", coupling.path, 0.0, at)
            continue
        try:
            loop = running(setup, coupling)
            yield from _over_tensioner(setup, coupling, loop, at)
            yield from _around_all(setup, coupling, loop, at)
        except ValueError:
            yield Clash("clash", f"the tensioner stands in a wheel of the {noun}", coupling.path, 0.0, at)


def _over_tensioner(setup: Setup, coupling: Coupling, loop: Running, at: Point) -> Iterator[Clash]:
    """A loop reaches its tensioner, which is clear of the run beside that; raises as `Running.taut`."""
    noun = called(coupling)
    if not loop.reached:
        text = f"the tensioner does not reach the {noun}, which runs as without it"
        yield Clash("clash", text, coupling.path, 0.0, at)
        return
    short = beside_own_run(setup, coupling) - loop.beside
    if short > NOISE:
        word = "cuts" if loop.beside < 0.0 else "leaves too little to"
        text = f"the tensioner of the {noun} {word} its other run: {mm(short)} more is wanted"
        yield Clash("clash", f"{text}; take a smaller one, or another place", coupling.path, short, at)


def _around_all(setup: Setup, coupling: Coupling, loop: Running, at: Point) -> Iterator[Clash]:
    """A loop is as long as its way around; raises as `Running.taut`."""
    if not coupling.lengths:
        return
    way = loop.taut.length
    length, name = min(coupling.lengths, key=lambda entry: abs(entry[0] - way))
    off = length - way
    if abs(off) > setup.mounting.loop_tolerance:
        word, around = "longer" if off > 0.0 else "shorter", " with the tensioner" if loop.reached else ""
        text = f"{called(coupling)} of {name} is {mm(abs(off))} {word} than the way around{around}"
        yield Clash("clash", text, coupling.path, abs(off), at)


def holding(setup: Setup) -> Iterator[Clash]:
    """Enough teeth hold a belt; a chain has an even number of links."""
    for coupling in setup.plane.couplings:
        if coupling.loop is not None:
            yield from _held(setup, coupling, coupling.loop)
            yield from _odd(setup, coupling, coupling.loop)


def _held(setup: Setup, coupling: Coupling, loop: Loop) -> Iterator[Clash]:
    if not loop.least_in_mesh or setup.distance(coupling) <= coupling.free:
        return
    try:
        wraps = running(setup, coupling).wraps
    except ValueError:  # the tensioner stands in a wheel, which is told
        return
    for wheel, wrap in zip(coupling.wheels, wraps, strict=True):
        held = loops.in_mesh(wheel.teeth, wrap)
        if held < loop.least_in_mesh:
            text = f"{held} teeth of the {wheel.words} hold the {loop.noun}: fewer than {loop.least_in_mesh} carry less"
            yield Clash("mind", text, coupling.path, 0.0, setup.at(wheel.shaft))


def _odd(setup: Setup, coupling: Coupling, loop: Loop) -> Iterator[Clash]:
    count = (coupling.stage.loop_length or 0.0) / (coupling.driver.size or 1.0)
    if round(count) % loop.step:
        text = f"{count:.0f} {loop.pieces} need an offset link, which carries less: take an even number"
        yield Clash("mind", text, coupling.path, 0.0, middle(setup, coupling))
