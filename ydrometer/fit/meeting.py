"""Whether what is tied together meets: distances, slots and the room they leave, tensioners, teeth that hold."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ydrometer.document.design import loop_paths, shaft_paths
from ydrometer.document.stages import Chain, Gear
from ydrometer.fit import around, loops, pairs
from ydrometer.fit.clash import Clash, Level, called, mm
from ydrometer.fit.line import Tie
from ydrometer.fit.placing import NOISE, Reach
from ydrometer.fit.setup import Setup, middle, tensioned

V_BELT_ON, V_BELT_TIGHTEN = 0.015, 0.03
"""Ways by which a V-belt's distance has to be shortened to put it on, and lengthened to tighten it, as shares of its
length (DIN 2218)."""
CHAIN_WEAR = 0.01
"""Share of a chain's distance to be lengthened as it wears (makers' manuals of chains: 2 % longer, then replaced)."""
BELT_TIGHTEN = 0.002
"""Share of a toothed belt's length by which its distance has to be lengthened to tighten it (makers' manuals)."""


def strangers(setup: Setup) -> Iterator[Clash]:
    """What is said of mounting is about shafts and loops that there are."""
    for said, known in (
        ([shaft.shaft for shaft in setup.mounting.shafts], shaft_paths(setup.design)),
        ([loop.stage for loop in setup.mounting.loops], loop_paths(setup.design)),
    ):
        for path in said:
            if path not in known:
                text = f"something is said of the mounting of {path}, which this design does not have"
                yield Clash("mind", text, path, 0.0, None)


def on_the_plate(setup: Setup) -> Iterator[Clash]:
    """Shafts on holes stand on holes; none stands beside the plate."""
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
    """Each tie has a distance that suits it."""
    for tie in setup.plane.ties:
        distance = setup.distance(tie)
        if tie.is_loop and distance <= tie.free + NOISE:
            text = f"the wheels of the {called(tie)} touch: their shafts stand {mm(distance)} apart"
            yield Clash("clash", text, tie.path, tie.free - distance, middle(setup, tie))
        elif tie.reaches and not any(r.low - NOISE <= distance <= r.high + NOISE for r in tie.reaches):
            nearest = min(tie.reaches, key=lambda reach: _off(reach, distance))
            yield _wrong_distance(setup, tie, nearest, distance)
    for path, text in setup.plane.impossible.items():
        yield Clash("clash", text, path, 0.0, None)
    for path, text in setup.plane.missing.items():
        yield Clash("mind", text, path, 0.0, None)


def _off(reach: Reach, distance: float) -> float:
    return max(reach.low - distance, distance - reach.high)


def _wrong_distance(setup: Setup, tie: Tie, reach: Reach, distance: float) -> Clash:
    near = distance < reach.low
    off = reach.best - distance if near else distance - reach.best
    told = f"the shafts stand {mm(distance)} apart, {mm(reach.best)} is wanted"
    if tie.is_loop:
        way = "loose" if near else "short"
        text = f"{called(tie)} of {reach.name}: too {way} by {mm(2.0 * off)}; {told}"
    elif tie.driven.form == "ring":
        text = f"{tie.driver.words} in the ring: {'too much play' if near else 'too tight'}; {told}"
    elif near:
        text = f"{tie.driver.words} and {tie.driven.words} do not go together: {mm(off)} too close; {told}"
    else:
        assert isinstance(tie.stage, Gear)  # else it is a loop
        teeth = tie.driver.teeth or 0, tie.driven.teeth or 0
        play = pairs.play(distance, tie.driver.size, *teeth, tie.stage.pressure_angle)
        text = f"{tie.driver.words} and {tie.driven.words} have {mm(play)} play, {mm(off)} too far apart; {told}"
    return Clash("clash", text, tie.path, off, middle(setup, tie))


def slots(setup: Setup) -> Iterator[Clash]:
    """A slot is long enough, and leaves the way to put a loop on and to tighten it."""
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
        for tie in setup.plane.ties:
            if tie.is_loop and path in tie.shafts and tie.reaches:
                yield from _room(setup, tie, path)


def _room(setup: Setup, tie: Tie, path: str) -> Iterator[Clash]:
    low, high = setup.reach(tie)
    distance = setup.distance(tie)
    on, tighten = room_wanted(tie, distance)
    for word, has, wants in (("put it on", distance - low, on), ("tighten it", high - distance, tighten)):
        if has < wants - NOISE:
            told = f"{mm(max(0.0, has))} of the slot left to {word}, {mm(wants)} is usual"
            other = "shorter" if word == "tighten it" else "longer"
            text = f"{called(tie)}: {told}; lengthen the slot by {mm(wants - has)}, or take a {other} {called(tie)}"
            level: Level = "clash" if word == "put it on" else "mind"
            yield Clash(level, text, tie.path, wants - has, setup.at(path))


def room_wanted(tie: Tie, distance: float) -> tuple[float, float]:
    """By how much the distance of a loop has to be made shorter to put it on, and longer to tighten it, m.

    A toothed belt has to come over the teeth, by about a pitch; a chain is closed in its place.
    """
    length = 2.0 * distance + math.pi * sum(tie.radii)
    if tie.kind == "v_belt":
        return V_BELT_ON * length, V_BELT_TIGHTEN * length
    if tie.kind == "chain":
        return 0.0, CHAIN_WEAR * distance
    return tie.driver.size, BELT_TIGHTEN * length


def with_tensioner(setup: Setup) -> Iterator[Clash]:
    """A loop with a tensioner is as long as the way around all three."""
    for tie in setup.plane.ties:
        lengths = tie.lengths
        said = setup.mounting.loop(tie.path)
        if not (tie.is_loop and said and said.tensioner and lengths):
            continue
        at = said.tensioner.at
        wheels = tensioned(setup, tie, said.tensioner)
        try:
            loop = around.taut(wheels)
        except ValueError:
            yield Clash("clash", f"the tensioner stands in a wheel of the {called(tie)}", tie.path, 0.0, at)
            continue
        third = next(i for i, wheel in enumerate(wheels) if (wheel.x, wheel.y) == at)
        if loop.wraps[third] > math.pi:
            yield Clash("clash", f"the tensioner does not reach the {called(tie)}", tie.path, 0.0, at)
            continue
        way = loop.length
        length, name = min(lengths, key=lambda entry: abs(entry[0] - way))
        off = length - way
        if abs(off) > setup.mounting.loop_tolerance:
            word = "longer" if off > 0.0 else "shorter"
            text = f"{called(tie)} of {name} is {mm(abs(off))} {word} than the way around with the tensioner"
            yield Clash("clash", text, tie.path, abs(off), at)


def holding(setup: Setup) -> Iterator[Clash]:
    """Enough teeth hold a belt; a chain has an even number of links."""
    for tie in setup.plane.ties:
        if tie.kind == "belt" and setup.distance(tie) > tie.free:
            wraps = loops.wraps(*tie.radii, setup.distance(tie))
            for wheel, wrap in zip(tie.wheels, wraps, strict=True):
                held = loops.in_mesh(wheel.teeth or 0, wrap)
                if held < loops.LEAST_IN_MESH:
                    text = f"{held} teeth of the {wheel.words} hold the belt: fewer than {loops.LEAST_IN_MESH}"
                    yield Clash("mind", f"{text} carry less", tie.path, 0.0, setup.at(wheel.shaft))
        if isinstance(tie.stage, Chain) and (tie.stage.links or 0) % 2:
            text = f"{tie.stage.links} links need an offset link, which carries less: take an even number"
            yield Clash("mind", text, tie.path, 0.0, middle(setup, tie))
