"""What would let two shafts stand where they do not suit each other: a larger tolerance, or a slot for one of them."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ydrometer.document.mounting import Point, ShaftMount, Slot
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.clash import mm
from ydrometer.fit.coupling import Coupling, usual_tolerance
from ydrometer.fit.help import Help, NewSlot
from ydrometer.fit.places import moved, way
from ydrometer.fit.problem import Placement
from ydrometer.fit.room import room_wanted
from ydrometer.fit.setting_up import changed
from ydrometer.fit.setup import Setup
from ydrometer.fit.standing import on_line

SMALLEST = 1e-5
"""m; a give is told in steps of it, rounded up so that it is enough."""


@dataclass(frozen=True, slots=True)
class Tried:
    """Something that may help, and the design as it would then stand."""

    help: Help
    setup: Setup


def gives(setup: Setup, placement: Placement, couplings: Sequence[Coupling], pair: int) -> Iterator[Tried]:
    """What would let the shafts of a pair stand as they do: of a loop each slot that one of them could have.

    Args:
        setup: of the design.
        placement: in which the pair is off all distances that suit it, and nothing else is.
        couplings: in the order of the problem's pairs.
        pair: the number of the pair.
    """
    coupling = couplings[pair]
    if coupling.is_loop:
        for path in coupling.shafts:
            if setup.shaft(path).slot is None:
                yield from _slots(setup, placement, couplings, pair, path)
    else:
        yield _tolerance(setup, placement, couplings, coupling)


def _tolerance(setup: Setup, placement: Placement, couplings: Sequence[Coupling], coupling: Coupling) -> Tried:
    extra = coupling.off(_distance(placement, coupling))
    enough = math.ceil(extra / SMALLEST - NOISE) * SMALLEST
    said = setup.mounting.tolerance
    tolerance = enough + (float(usual_tolerance(coupling.driver.size)) if said is None else said)
    wider = changed(setup, replace(setup.design, fit=replace(setup.mounting, tolerance=tolerance)))
    text = f"{mm(enough)} more tolerance between the {coupling.driver.words} and the {coupling.driven.words}"
    return Tried(Help(text, extra, way(placement, couplings), tolerance=tolerance), moved(wider, placement))


def _slots(setup: Setup, placement: Placement, couplings: Sequence[Coupling], pair: int, path: str) -> Iterator[Tried]:
    """Slots in which a shaft stands as its loop wants it, with room to put that on and to tighten it."""
    coupling = couplings[pair]
    here, partner = placement.at[path], placement.at[coupling.partner(path)]
    for along in _directions(setup, placement, coupling, path):
        ends = _ends(coupling, _suiting(coupling, placement, pair), here, along, partner)
        if ends is None:
            continue
        slot = Slot(start=ends[0], end=ends[1])
        slotted = _with_slot(setup, placement, path, slot)
        standing = replace(way(placement, couplings), at={name: slotted.at(name) for name in placement.at})
        words = f"from {_spot(slot.start)} to {_spot(slot.end)} mm"
        text = f"a slot of {mm(slot.travel)} for the {setup.plane.named(path)}, {words}"
        yield Tried(Help(text, slot.travel, standing, slot=NewSlot(path, slot.start, slot.end)), slotted)


def _suiting(coupling: Coupling, placement: Placement, pair: int) -> Reach:
    """The range of the length that a placement has, as it is without the give."""
    name = placement.reaches[pair].name
    return next(reach for reach in coupling.reaches if reach.name == name)


def _directions(setup: Setup, placement: Placement, coupling: Coupling, path: str) -> Iterator[Point]:
    """Unit vectors: towards the loop's other wheel, and across the line to what the shaft is coupled to besides."""
    x, y = placement.at[path]
    for other in setup.plane.couplings:
        partner = other.partner(path)
        if not partner:
            continue
        across, up = placement.at[partner][0] - x, placement.at[partner][1] - y
        distance = math.hypot(across, up)
        yield (across / distance, up / distance) if other is coupling else (-up / distance, across / distance)


def _ends(coupling: Coupling, reach: Reach, here: Point, along: Point, partner: Point) -> tuple[Point, Point] | None:
    """The ends of a slot through a place, from where a loop can be put on to where it is tightened; None where a line
    in that direction does not come near enough.
    """
    assert coupling.loop is not None  # only loops get a slot
    length = next(length for length, name in coupling.lengths if name == reach.name)
    on, tighten = room_wanted(coupling, coupling.loop, length)
    line = Slot(start=here, end=(here[0] + along[0], here[1] + along[1]))
    settings = [
        min(on_line(line, partner, distance), key=abs)
        for distance in (reach.best - on, reach.best, reach.best + tighten)
    ]
    low, high = min(settings) - SMALLEST, max(settings) + SMALLEST

    def at(setting: float) -> Point:
        x, y = here[0] + setting * along[0], here[1] + setting * along[1]
        return SMALLEST * round(x / SMALLEST), SMALLEST * round(y / SMALLEST)

    apart = math.dist(at(low), partner), math.dist(at(high), partner)
    reached = min(apart) <= reach.best - on and max(apart) >= reach.best + tighten
    return (at(low), at(high)) if reached else None


def _with_slot(setup: Setup, placement: Placement, path: str, slot: Slot) -> Setup:
    standing = moved(setup, placement)
    said = {shaft.shaft: shaft for shaft in standing.mounting.shafts}
    said[path] = replace(said.get(path) or ShaftMount(shaft=path), mount="slot", slot=slot, at=None, eccentric=None)
    mounting = replace(standing.mounting, shafts=tuple(said.values()))
    return changed(setup, replace(setup.design, fit=mounting))


def _spot(at: Point) -> str:
    return f"{1e3 * at[0]:.2f}, {1e3 * at[1]:.2f}"


def _distance(placement: Placement, coupling: Coupling) -> float:
    first, second = coupling.shafts
    return math.dist(placement.at[first], placement.at[second])
