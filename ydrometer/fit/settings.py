"""Numbers for the hands: how far apart, how much backlash, how tight, how straight; of each stage as it stands."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from ydrometer.document.stages.plane import Contact, Loop, Mesh
from ydrometer.fit import hands, mounts
from ydrometer.fit.coupling import USUAL_BACKLASH, Coupling
from ydrometer.fit.room import nearest_length, room_wanted
from ydrometer.fit.setup import Setup, running
from ydrometer.fit.stock import lengths_in_stock
from ydrometer.fit.toothing import carried
from ydrometer.geometry import chains, gears, loops

ROCKED_AT = 0.1
"""m; a finger's reach from the middle of a wheel, where rocking is felt."""
PUSHED = 1.0 / 64.0
"""Depth at mid-span as a share of the span, to which a belt is pushed to feel its tension (makers' manuals)."""


@dataclass(frozen=True, slots=True)
class Setting:
    """One number: its name, what it is in words, its value in SI, its kind of quantity ("" of a plain number)."""

    name: str
    words: str
    value: float
    dimension: str


@dataclass(frozen=True, slots=True)
class ToothChoice:
    """Another pinion, or another length at hand: in words, the distance it wants, m, and what this mount lacks for it:
    0 where it goes, else how much longer a slot would have to be, or how far the shafts stand off, m.
    """

    words: str
    distance: float
    missing: float


@dataclass(frozen=True, slots=True)
class StageSettings:
    """The numbers of one stage.

    Attributes:
        path, kind: of the stage. title: in words. settings. choices: what else its mount would take.
        choices_title: what those are. lacking: what a mount is for one of them that does not go.
        check: the rough check without tools. caution: what the hands have to mind.
        is_loop: whether something runs around its wheels. asks_length: whether the length of that is said with its
        mounting, as it is counted in no pieces.
    """

    path: str
    kind: str
    title: str
    settings: list[Setting]
    choices: list[ToothChoice]
    choices_title: str
    lacking: str
    check: str
    caution: str
    is_loop: bool
    asks_length: bool


NEIGHBOURS = 3
"""So many pinions either side of the present one are told, with the first ones that do not go."""
MOST_LENGTHS = 8


HANDS_OUT = (
    "Battery disconnected and motor blocked while hands are in belts, chains or gears: fingers are drawn in when "
    "turning by hand too. The maker's figures go before these."
)


def settings(setup: Setup) -> list[StageSettings]:
    """The numbers of every stage that stands on the plate; of a row of gears with idlers one entry a pair.

    Args:
        setup: a design with where all stands.
    """
    return [_settings(setup, coupling) for coupling in setup.plane.couplings]


def _settings(setup: Setup, coupling: Coupling) -> StageSettings:
    lies = coupling.stage.in_plane
    assert isinstance(lies, Mesh | Contact | Loop)  # nothing else couples shafts
    stage, loop = coupling.stage, coupling.loop
    shafts_apart = Setting("distance", "shafts apart", setup.distance(coupling), "length")
    return StageSettings(
        path=coupling.path,
        kind=stage.kind,
        title=stage.title if coupling.own else f"{stage.title}, {setup.plane.named(coupling.path)}",
        settings=[shafts_apart, *_TELL[type(lies)](setup, coupling)],
        choices=_choices(setup, coupling),
        choices_title="lengths at hand" if loop else "pinions that this slot takes",
        lacking="off" if loop else "short",
        check=lies.check,
        caution=HANDS_OUT,
        is_loop=loop is not None,
        asks_length=loop is not None and not loop.pieces,
    )


def _mesh(setup: Setup, coupling: Coupling) -> Iterator[Setting]:
    driver, driven, angle = coupling.driver, coupling.driven, coupling.pressure_angle
    size, teeth, ring = driver.size, (driver.teeth, driven.teeth), coupling.inside
    distance, wanted = setup.distance(coupling), USUAL_BACKLASH * driver.size
    here = gears.backlash(distance, size, *teeth, angle, internal=ring)
    loose = gears.centre_distance(size, *teeth, angle, internal=ring, backlash=wanted)
    felt = gears.rocking(wanted, driven.pitch_radius, ROCKED_AT)
    yield Setting("centre_distance", "apart without play", coupling.free, "length")
    yield Setting("centre_distance_with_play", "apart with usual play", loose, "length")
    yield Setting("play_here", "play as it stands", here, "length")
    yield Setting("contact_ratio", "pairs of teeth that carry on average", carried(setup, coupling), "")
    yield from _eccentric(setup, coupling)
    yield Setting("play", "usual play at the pitch circle", wanted, "length")
    yield Setting(
        "play_at_100_mm", f"usual play felt {ROCKED_AT * 1e3:.0f} mm out on the {driven.words}", felt, "length"
    )
    yield Setting("paper_for_play", "paper strip that leaves it", hands.paper_for(wanted, angle), "length")
    least = math.ceil(gears.least_teeth(angle))
    for wheel in (driver,) if ring else (driver, driven):
        if wheel.teeth < least:
            words = f"fewest teeth that no rack undercuts, {wheel.words}"
            yield Setting(f"{'driver' if wheel is driver else 'driven'}_least_teeth", words, float(least), "")
        words = f"over the teeth of the {wheel.words}"
        yield Setting(
            f"{'driver' if wheel is driver else 'driven'}_outside_diameter", words, 2.0 * wheel.outer_radius, "length"
        )


def _contact(setup: Setup, coupling: Coupling) -> Iterator[Setting]:
    yield Setting("centre_distance", "apart where the rims touch", coupling.free, "length")
    yield from _eccentric(setup, coupling)


def _eccentric(setup: Setup, coupling: Coupling) -> Iterator[Setting]:
    """How far an eccentric mount is turned from in line, to stand as it should."""
    for path in coupling.shafts:
        turned = setup.stands[path].turned
        if turned is not None:
            yield Setting("eccentric_angle", "eccentric turned from in line", turned.angle, "angle")


def _loop(setup: Setup, coupling: Coupling) -> Iterator[Setting]:
    distance, loop = setup.distance(coupling), coupling.stage.in_plane
    assert isinstance(loop, Loop)  # see _TELL
    for reach in sorted(coupling.reaches, key=lambda r: abs(r.best - distance))[:1]:
        yield Setting("centre_distance", f"apart for {reach.name}, taut", reach.best, "length")
    if distance > coupling.free:
        yield from _running(setup, coupling, loop, distance)
    if loop.polygon:
        teeth = min(wheel.teeth for wheel in coupling.wheels)
        yield Setting("ripple", "speed ripple of the polygon", chains.ripple(teeth), "grade")


def _running(setup: Setup, coupling: Coupling, loop: Loop, distance: float) -> Iterator[Setting]:
    """Of a loop whose wheels do not touch."""
    length, span, wraps = _way(setup, coupling)
    yield Setting("length_here", "way around as it stands", length, "length")
    yield Setting("span", "free span", span, "length")
    for end, wheel, wrap in zip(("driver", "driven"), coupling.wheels, wraps, strict=True):
        yield Setting(f"{end}_wrap", f"wrap on the {wheel.words}", wrap, "angle")
        if loop.least_in_mesh:
            held = float(loops.in_mesh(wheel.teeth, wrap))
            yield Setting(f"{end}_teeth_in_mesh", f"teeth in mesh, {wheel.words}", held, "")
    on, tighten = room_wanted(coupling, loop, nearest_length(coupling, distance))
    if on:
        yield Setting("room_to_put_on", "nearer to put it on", on, "length")
    yield Setting("room_to_tighten", "farther to tighten it", tighten, "length")
    yield from _tension(setup, coupling, span)
    yield from _eccentric(setup, coupling)
    yield Setting("straight_edge", "off the straight edge, at most", loop.straight * distance, "length")
    if loop.sag:
        yield Setting("sag", "sag at mid-span", loop.sag * span, "length")


def _way(setup: Setup, coupling: Coupling) -> tuple[float, float, tuple[float, float]]:
    """Length, longest free span, m, and wraps on driver and driven, rad, of a loop as it runs."""
    loop = running(setup, coupling)
    try:
        return loop.taut.length, loop.taut.longest, loop.wraps
    except ValueError:  # the tensioner stands in a wheel, which is told as a clash
        bare = replace(loop, tensioner=None)
        return bare.taut.length, bare.taut.longest, bare.wraps


def _tension(setup: Setup, coupling: Coupling, span: float) -> Iterator[Setting]:
    """What a stated tension feels and sounds like; without one there is the rough check of a quarter turn."""
    said = setup.mounting.loop(coupling.path)
    if said is None or said.tension is None:
        return
    depth = PUSHED * span
    yield Setting("tension", "tension at rest", said.tension, "force")
    yield Setting("deflection", "pushed in at mid-span", depth, "length")
    yield Setting("push", "force that does it", hands.push(said.tension, span, depth), "force")
    if said.mass_per_length is not None:
        yield Setting(
            "note", "sound of a plucked run", hands.note(said.tension, span, said.mass_per_length), "frequency"
        )


def _choices(setup: Setup, coupling: Coupling) -> list[ToothChoice]:
    """Pinions and lengths around what is there, the nearest ones, by their distance."""
    low, high = setup.reach(coupling)
    if isinstance(coupling.stage.in_plane, Mesh):
        return _pinions(coupling, low, high)
    loop = coupling.loop
    known = [] if loop is None else lengths_in_stock(setup.stock, loop, coupling.driver.size)
    lengths = {*coupling.lengths, *known}
    taut = [(name, coupling.around.centre_distance(length, *coupling.radii)) for length, name in lengths]
    choices = [
        ToothChoice(name, distance, _missing(setup, distance, low, high))
        for name, distance in taut
        if distance is not None
    ]
    middle = 0.5 * (low + high)
    nearest = sorted(choices, key=lambda choice: abs(choice.distance - middle))[:MOST_LENGTHS]
    return sorted(nearest, key=lambda choice: choice.distance)


def _pinions(coupling: Coupling, low: float, high: float) -> list[ToothChoice]:
    """What a slot takes in place of the driver; nothing without a slot, or inside a ring."""
    driver, driven = coupling.wheels
    if coupling.inside or low == high:
        return []
    backlash = USUAL_BACKLASH * driver.size
    pinions = mounts.pinions(driver.size, driven.teeth, low, high, coupling.pressure_angle, backlash)
    near = [p for p in pinions if p.missing > 0.0 or abs(p.teeth - driver.teeth) <= NEIGHBOURS]
    return [ToothChoice(f"{p.teeth} teeth", p.distance, p.missing) for p in near]


def _missing(setup: Setup, distance: float, low: float, high: float) -> float:
    off = max(low - distance, distance - high)
    return off if off > setup.mounting.loop_tolerance else 0.0


_TELL: dict[type, Callable[[Setup, Coupling], Iterator[Setting]]] = {Mesh: _mesh, Contact: _contact, Loop: _loop}
