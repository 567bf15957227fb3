"""Positions of the shafts on the plate: as the document says, else as their couplings require."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ydrometer.document.mounting import Mounting, Plate, Point, ShaftMount, Slot
from ydrometer.fit.along import NOISE
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.line import Plane
from ydrometer.fit.mounts import eccentric_angle
from ydrometer.fit.placing import crossings

SPACING = 1.35
"""Centre distance of two wheels where nothing determines it, relative to the sum of their radii."""
LEAST = 0.02
"""Room assumed around a shaft whose wheels are unknown, m."""
MESHES = 2
"""So many tell where a shaft between two others stands."""
START = (0.25, 0.5)
"""Default position of the first shaft, as shares of the plate's width and height."""

By = Literal["said", "tied", "guessed"]


@dataclass(frozen=True, slots=True)
class Turned:
    """An eccentric: where its shaft stands in line, its own middle, m, and how far it is turned from in line, rad."""

    home: Point
    middle: Point
    angle: float


@dataclass(frozen=True, slots=True)
class Stand:
    """Where a shaft stands, m, and by what: said, tied to what it follows from, or guessed for want of both.

    Of one in a slot `setting` is how far from its start it stands, m, and `short` how much longer the slot would have
    to be for what it is tied to: below 0 beyond its start. Of one on an eccentric `turned` tells how far. Of one that
    is right for two others, `other` is the second place that suits both as well, and `on_the_right` which of the two
    this is, as seen from the first of them to the second.
    """

    at: Point
    by: By
    setting: float | None = None
    short: float = 0.0
    turned: Turned | None = None
    other: Point | None = None
    on_the_right: bool = False


def stands(plane: Plane, mounting: Mounting, on_the_right: Collection[str] = ()) -> dict[str, Stand]:
    """Where each shaft of the plane stands.

    Said places come first; then slots and the rest follow from shafts that stand, the first coupling with a length
    telling how far.

    Args:
        plane: of the design.
        mounting: its `fit` section.
        on_the_right: shafts that stand on the right of two others, where they may stand on either side.
    """
    standing = {path: Stand(at, "said") for path in plane.shafts if (at := _said(mounting.of(path))) is not None}
    waiting = [path for path in plane.shafts if path not in standing]
    if not standing and waiting:
        first = next((path for path in waiting if not _in_slot(mounting.of(path))), waiting[0])
        standing[first] = Stand(_start(mounting.plate), "guessed")
        waiting.remove(first)
    while waiting:
        path = _next(plane, waiting, standing)
        stand = _follows(plane, mounting, path, standing)
        if path in on_the_right and stand.other is not None:
            stand = replace(stand, at=stand.other, other=stand.at, on_the_right=True)
        standing[path] = stand
        waiting.remove(path)
    for path in plane.shafts:
        shaft = mounting.of(path)
        if shaft is not None and shaft.eccentric:
            standing[path] = _on_eccentric(plane, path, shaft.eccentric, standing)
    return standing


def _on_eccentric(plane: Plane, path: str, throw: float, standing: Mapping[str, Stand]) -> Stand:
    """An eccentric turned so that its first coupling gets the distance it needs, as far as the throw allows.

    It may be turned either way: the way that suits its other couplings better, else anticlockwise.
    """
    stand = standing[path]
    tied = [
        (coupling, standing[coupling.partner(path)].at)
        for coupling in plane.couplings
        if coupling.partner(path) in standing and coupling.reaches
    ]
    if not tied:
        return stand
    (first, partner), *others = tied
    least = math.dist(stand.at, partner)
    if least == 0.0:
        return stand
    best = min((reach.best for reach in first.reaches), key=lambda best: abs(best - least - throw))
    angle = eccentric_angle(throw, least, min(max(best, least), least + 2.0 * throw)) or 0.0
    towards = math.atan2(partner[1] - stand.at[1], partner[0] - stand.at[0])
    middle = stand.at[0] - throw * math.cos(towards), stand.at[1] - throw * math.sin(towards)

    def turned(way: float) -> Stand:
        at = middle[0] + throw * math.cos(towards + way), middle[1] + throw * math.sin(towards + way)
        return replace(stand, at=at, turned=Turned(stand.at, middle, way))

    return min(
        (turned(angle), turned(-angle)),
        key=lambda stand: sum(coupling.off(math.dist(stand.at, other)) for coupling, other in others),
    )


def _said(shaft: ShaftMount | None) -> Point | None:
    return None if shaft is None or shaft.slot is not None else shaft.at


def _in_slot(shaft: ShaftMount | None) -> bool:
    return shaft is not None and shaft.slot is not None


def _start(plate: Plate | None) -> Point:
    if plate is None:
        return 0.0, 0.0
    left, bottom, right, top = plate.corners
    return plate.nearest((left + START[0] * (right - left), bottom + START[1] * (top - bottom)))


def _next(plane: Plane, waiting: list[str], standing: Mapping[str, Stand]) -> str:
    """The first waiting shaft that is coupled to a shaft with a position."""
    for path in waiting:
        if any(coupling.partner(path) in standing for coupling in plane.couplings):
            return path
    return waiting[0]


def _follows(plane: Plane, mounting: Mounting, path: str, standing: Mapping[str, Stand]) -> Stand:
    """Where a shaft stands of which nobody has said it: by the shafts that stand and are coupled to it."""
    shaft = mounting.of(path)
    coupled = [(c, standing[c.partner(path)].at) for c in plane.couplings if c.partner(path) in standing]
    if shaft is not None and shaft.slot is not None:
        return _set(shaft.slot, coupled)
    if not coupled:
        return Stand(_beside(plane, mounting, path, standing), "guessed")
    tied = [(coupling, at) for coupling, at in coupled if coupling.reaches]
    on_holes = shaft is not None and shaft.mount == "holes"
    both = None if on_holes else _where_both_meet(tied)
    if both is not None:
        return Stand(both[0], "tied", other=both[1])
    coupling, partner = (tied or coupled)[0]
    first = _first_motor(plane, coupling)
    if path == coupling.driver.shaft and coupling.around_driven and first in standing:
        return _around(coupling, partner, standing[first].at)
    return _in_line(coupling, path, partner, mounting.plate if on_holes else None)


def _in_line(coupling: Coupling, path: str, partner: Point, holes: Plate | None) -> Stand:
    """Beside its partner, on the nearest hole where it stands on holes: towards the wheels is to the right."""
    if coupling.reaches:
        distance = coupling.reaches[0].best
    else:
        distance = SPACING * (coupling.driver.outer_radius + coupling.driven.outer_radius)
    at = partner[0] + (distance if path == coupling.driven.shaft else -distance), partner[1]
    if holes is not None:
        return Stand(holes.nearest(at), "guessed")
    return Stand(at, "tied" if coupling.reaches else "guessed")


def _first_motor(plane: Plane, coupling: Coupling) -> str:
    """The shaft of the first motor on the gear of a coupling."""
    return next(
        mesh.driver.shaft for mesh in plane.couplings if mesh.driven == coupling.driven and not mesh.around_driven
    )


def _around(coupling: Coupling, driven: Point, first: Point) -> Stand:
    """A further motor on a gear: evenly around that from the first one."""
    angle = math.atan2(first[1] - driven[1], first[0] - driven[0]) + coupling.around_driven
    distance = coupling.reaches[0].best
    return Stand((driven[0] + distance * math.cos(angle), driven[1] + distance * math.sin(angle)), "tied")


def _where_both_meet(tied: Sequence[tuple[Coupling, Point]]) -> tuple[Point, Point] | None:
    """The two places where a shaft between two others is at its best distance from both, on the left from the first to
    the second and on the right; None where there are no two, or they are too far apart or too near for that.
    """
    if len(tied) < MESHES:
        return None
    (first, first_at), (second, other) = tied[:MESHES]
    spots = crossings(np.array([first_at]), first.reaches[0].best, np.array([other]), second.reaches[0].best)
    (x, y), (other_x, other_y) = (spot[0].tolist() for spot in spots)
    return None if math.isnan(x) else ((x, y), (other_x, other_y))


def _beside(plane: Plane, mounting: Mounting, path: str, standing: Mapping[str, Stand]) -> Point:
    """To the right of the shaft before it, with room for the wheels of both."""
    number = plane.shafts.index(path)
    before = plane.shafts[number - 1] if number else None
    if before is None or before not in standing:
        return _start(mounting.plate)
    reach = sum(max([LEAST, *(w.outer_radius for w in plane.wheels if w.shaft == shaft)]) for shaft in (before, path))
    x, y = standing[before].at
    return x + SPACING * reach, y


def _set(slot: Slot, couplings: list[tuple[Coupling, Point]]) -> Stand:
    """The place in a slot that its couplings ask for: one that suits them all, else the one of the length for which the
    slot has to be lengthened least.
    """
    bests = [
        s for coupling, partner in couplings for reach in coupling.reaches for s in on_line(slot, partner, reach.best)
    ]
    if not bests:
        return Stand(_along(slot, 0.5 * slot.travel), "guessed", 0.5 * slot.travel)
    edges = [
        s
        for coupling, partner in couplings
        for reach in coupling.reaches
        for edge in (reach.low, reach.high)
        for s in on_line(slot, partner, edge)
    ]
    suiting = [
        s for s in (*bests, *edges, 0.0, slot.travel) if 0.0 <= s <= slot.travel and _suits(_along(slot, s), couplings)
    ]
    if suiting:
        setting = min(suiting, key=lambda s: (s not in bests, abs(s - 0.5 * slot.travel)))
        return Stand(_along(slot, setting), "tied", setting)
    wanted = min(bests, key=lambda s: (max(0.0, -s, s - slot.travel), abs(s - 0.5 * slot.travel)))
    setting = min(slot.travel, max(0.0, wanted))
    return Stand(_along(slot, setting), "tied", setting, wanted - setting)


def _suits(at: Point, couplings: list[tuple[Coupling, Point]]) -> bool:
    """Whether a point satisfies all couplings, not necessarily at their best distances."""
    return all(coupling.off(math.dist(at, partner)) <= NOISE for coupling, partner in couplings)


def on_line(slot: Slot, partner: Point, distance: float) -> list[float]:
    """Points on the infinite line through a slot at a given distance from a partner, as distances from its start, m.

    Where the line does not come so near, the nearest place on it.
    """
    across, up = (slot.end[0] - slot.start[0]) / slot.travel, (slot.end[1] - slot.start[1]) / slot.travel
    dx, dy = partner[0] - slot.start[0], partner[1] - slot.start[1]
    foot, off = across * dx + up * dy, across * dy - up * dx
    if abs(off) >= distance:
        return [foot]
    half = math.sqrt(distance**2 - off**2)
    return [foot - half, foot + half]


def _along(slot: Slot, setting: float) -> Point:
    share = setting / slot.travel
    return (
        slot.start[0] + share * (slot.end[0] - slot.start[0]),
        slot.start[1] + share * (slot.end[1] - slot.start[1]),
    )


def reach_between(first: Point, slot: Slot | None, second: Point, other_slot: Slot | None) -> tuple[float, float]:
    """Least and largest distance that two shafts can have, m: over the slot of either, else as they stand.

    Args:
        first: where it stands, m.
        slot: of it, where it has one.
        second: where the other one stands, m.
        other_slot: of that.
    """
    if slot is not None:
        return distances(slot, second)
    if other_slot is not None:
        return distances(other_slot, first)
    return math.dist(first, second), math.dist(first, second)


def distances(slot: Slot, partner: Point) -> tuple[float, float]:
    """Least and largest distance from a partner over a slot, m."""
    foot = min(max(on_line(slot, partner, 0.0)[0], 0.0), slot.travel)
    ends = (math.dist(slot.start, partner), math.dist(slot.end, partner))
    return min(*ends, math.dist(_along(slot, foot), partner)), max(ends)
