"""Numbers for the hands: how far apart, how much play, how tight, how straight; of each stage as it stands."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ydrometer.document.stages import Gear
from ydrometer.fit import around, chains, hands, loops, mounts, pairs
from ydrometer.fit.line import USUAL_PLAY, Tie
from ydrometer.fit.meeting import room_wanted
from ydrometer.fit.setup import Setup, tensioned
from ydrometer.fit.stock import lengths_at_hand

ROCKED_AT = 0.1
"""m; a finger's reach from the middle of a wheel, where rocking is felt."""
USUAL_SAG = 0.02
"""Depth at mid-span as a share of the span, of a chain whose slack run hangs level (makers' manuals)."""
PUSHED = 1.0 / 64.0
"""Depth at mid-span as a share of the span, to which a belt is pushed to feel its tension (makers' manuals)."""
STRAIGHT = {"belt": 0.0044, "v_belt": 0.0087, "chain": 0.0022}
"""How far from the straight edge the other wheel may be, as a share of the distance: a quarter, a half and an eighth of
a degree (makers' manuals)."""


@dataclass(frozen=True, slots=True)
class Setting:
    """One number: its name, what it is in words, its value in SI, its kind of quantity ("" of a plain number)."""

    name: str
    words: str
    value: float
    dimension: str


@dataclass(frozen=True, slots=True)
class Choice:
    """Another pinion, or another length at hand: in words, the distance it wants, m, and what this mount lacks for it:
    0 where it goes, else how much longer a slot would have to be, or how far the shafts stand off, m.
    """

    words: str
    distance: float
    missing: float


@dataclass(frozen=True, slots=True)
class StageSettings:
    """Of one stage: its path and kind, its numbers, what else its mount would take, the rough check without
    tools, and what the hands have to mind."""

    path: str
    kind: str
    settings: list[Setting]
    choices: list[Choice]
    check: str
    caution: str


NEIGHBOURS = 3
"""So many pinions either side of the present one are told, with the first ones that do not go."""
MOST_LENGTHS = 8


CHECKS = {
    "gear": "A strip of paper of that thickness runs through the mesh and comes out creased, not cut.",
    "belt": "At mid-span finger and thumb can just turn it by a quarter turn.",
    "v_belt": "At mid-span finger and thumb can just turn it by a quarter turn.",
    "chain": "Turn it by hand and look where it is tightest: it hangs through by that much there.",
}
"""Rough checks of common practice; the numbers come first."""
HANDS_OUT = (
    "Battery disconnected and motor blocked while hands are in belts, chains or gears: fingers are drawn in when "
    "turning by hand too. The maker's figures go before these."
)


def settings(setup: Setup) -> list[StageSettings]:
    """The numbers of every stage that stands on the plate; of a row of gears with idlers one entry a pair.

    Args:
        setup: a design with where all stands.
    """
    return [
        StageSettings(
            tie.path, tie.kind, list(_TELL[tie.kind](setup, tie)), _choices(setup, tie), CHECKS[tie.kind], HANDS_OUT
        )
        for tie in setup.plane.ties
    ]


def _gear(setup: Setup, tie: Tie) -> Iterator[Setting]:
    assert isinstance(tie.stage, Gear)  # only gears are tied so
    angle, size, ring = tie.stage.pressure_angle, tie.driver.size, tie.driven.form == "ring"
    teeth = tie.driver.teeth or 0, tie.driven.teeth or 0
    distance = setup.distance(tie)
    wanted = USUAL_PLAY * size
    rim = tie.driven.pitch_radius
    here = pairs.play(distance, size, *teeth, angle, internal=ring)
    yield Setting("distance", "shafts apart", distance, "length")
    yield Setting("centre_distance", "apart without play", tie.free, "length")
    loose = pairs.centre_distance(size, *teeth, angle, internal=ring, play=wanted)
    yield Setting("centre_distance_with_play", "apart with usual play", loose, "length")
    yield Setting("play_here", "play as it stands", here, "length")
    yield from _eccentric(setup, tie)
    yield Setting("play", "usual play at the pitch circle", wanted, "length")
    yield Setting("play_at_100_mm", f"usual play felt {ROCKED_AT * 1e3:.0f} mm out on the {tie.driven.words}",
                  pairs.rocking(wanted, rim, ROCKED_AT), "length")  # fmt: skip
    yield Setting("paper_for_play", "paper strip that leaves it", hands.paper_for(wanted, angle), "length")
    yield Setting("driver_outside_diameter", f"over the teeth of the {tie.driver.words}",
                  2.0 * tie.driver.outer_radius, "length")  # fmt: skip
    if not ring:
        yield Setting("driven_outside_diameter", f"over the teeth of the {tie.driven.words}",
                      2.0 * tie.driven.outer_radius, "length")  # fmt: skip


def _eccentric(setup: Setup, tie: Tie) -> Iterator[Setting]:
    """How far an eccentric mount is turned from in line, to stand as it should."""
    for path in tie.shafts:
        turned = setup.stands[path].turned
        if turned is not None:
            yield Setting("eccentric_angle", "eccentric turned from in line", turned.angle, "angle")


def _loop(setup: Setup, tie: Tie) -> Iterator[Setting]:
    distance = setup.distance(tie)
    yield Setting("distance", "shafts apart", distance, "length")
    for reach in sorted(tie.reaches, key=lambda r: abs(r.best - distance))[:1]:
        yield Setting("centre_distance", f"apart for {reach.name}, taut", reach.best, "length")
    if distance <= tie.free:
        return
    length, span, wraps = _way(setup, tie, distance)
    yield Setting("length_here", "way around as it stands", length, "length")
    yield Setting("span", "free span", span, "length")
    for end, wheel, wrap in zip(("driver", "driven"), tie.wheels, wraps, strict=True):
        yield Setting(f"{end}_wrap", f"wrap on the {wheel.words}", wrap, "angle")
        if wheel.teeth is not None and tie.kind == "belt":
            yield Setting(f"{end}_teeth_in_mesh", f"teeth in mesh, {wheel.words}",
                          float(loops.in_mesh(wheel.teeth, wrap)), "")  # fmt: skip
    on, tighten = room_wanted(tie, distance)
    if on:
        yield Setting("room_to_put_on", "nearer to put it on", on, "length")
    yield Setting("room_to_tighten", "farther to tighten it", tighten, "length")
    yield from _tension(setup, tie, span)
    yield from _eccentric(setup, tie)
    yield Setting("straight_edge", "off the straight edge, at most", STRAIGHT[tie.kind] * distance, "length")


def _way(setup: Setup, tie: Tie, distance: float) -> tuple[float, float, tuple[float, float]]:
    """Length, longest free span, m, and wraps on driver and driven, rad; with a tensioner where there is one."""
    said = setup.mounting.loop(tie.path)
    if said is not None and said.tensioner is not None:
        wheels = tensioned(setup, tie, said.tensioner)
        try:
            taut = around.taut(wheels)
        except ValueError:  # it stands in a wheel, which is told as a clash
            pass
        else:
            ends = [(wheel.x, wheel.y) for wheel in wheels]
            one, other = (taut.wraps[ends.index(setup.at(path))] for path in tie.shafts)
            return taut.length, max(taut.runs), (one, other)
    span = distance * math.cos(tie.around.lean(*tie.radii, distance))
    return tie.around.length(*tie.radii, distance), span, tie.around.wraps(*tie.radii, distance)


def _tension(setup: Setup, tie: Tie, span: float) -> Iterator[Setting]:
    """What a stated tension feels and sounds like; without one there is the rough check of a quarter turn."""
    said = setup.mounting.loop(tie.path)
    if said is None or said.tension is None:
        return
    depth = PUSHED * span
    yield Setting("tension", "tension at rest", said.tension, "force")
    yield Setting("deflection", "pushed in at mid-span", depth, "length")
    yield Setting("push", "force that does it", hands.push(said.tension, span, depth), "force")
    if said.mass_per_length is not None:
        yield Setting("note", "sound of a plucked run", hands.note(said.tension, span, said.mass_per_length),
                      "frequency")  # fmt: skip


def _chain(setup: Setup, tie: Tie) -> Iterator[Setting]:
    found = list(_loop(setup, tie))
    yield from found
    for setting in found:
        if setting.name == "span":
            yield Setting("sag", "sag at mid-span", USUAL_SAG * setting.value, "length")
    teeth = min(wheel.teeth or 0 for wheel in tie.wheels)
    yield Setting("ripple", "speed ripple of the polygon", chains.ripple(teeth), "grade")


def _choices(setup: Setup, tie: Tie) -> list[Choice]:
    """Pinions and lengths around what is there, the nearest ones, by their distance."""
    low, high = setup.reach(tie)
    if isinstance(tie.stage, Gear):
        if tie.driven.form == "ring" or low == high:
            return []
        play = USUAL_PLAY * tie.driver.size
        found = mounts.pinions(tie.driver.size, tie.driven.teeth or 0, low, high, tie.stage.pressure_angle, play)
        near = [p for p in found if p.missing > 0.0 or abs(p.teeth - (tie.driver.teeth or 0)) <= NEIGHBOURS]
        return [Choice(f"{p.teeth} teeth", p.distance, p.missing) for p in near]
    lengths = {*tie.lengths, *lengths_at_hand(setup.stock, tie.kind, tie.driver.size)}
    taut = [(name, tie.around.centre_distance(length, *tie.radii)) for length, name in lengths]
    known = [
        Choice(name, distance, _missing(setup, distance, low, high)) for name, distance in taut if distance is not None
    ]
    middle = 0.5 * (low + high)
    nearest = sorted(known, key=lambda choice: abs(choice.distance - middle))[:MOST_LENGTHS]
    return sorted(nearest, key=lambda choice: choice.distance)


def _missing(setup: Setup, distance: float, low: float, high: float) -> float:
    off = max(low - distance, distance - high)
    return off if off > setup.mounting.loop_tolerance else 0.0


_TELL: dict[str, Callable[[Setup, Tie], Iterator[Setting]]] = {
    "gear": _gear, "belt": _loop, "v_belt": _loop, "chain": _chain,
}  # fmt: skip
