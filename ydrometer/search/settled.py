"""Positions of an option's shafts and lengths of its loops, chosen as near to the present ones as possible."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.document import remounted
from ydrometer.document.mounting import Point
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.coupling import gear_reach, taut_reach
from ydrometer.fit.toothing import carrying
from ydrometer.geometry import loops
from ydrometer.search.choices import StageSlot
from ydrometer.search.layout import DriveLayout, Mount, PairChoice
from ydrometer.search.mount import Bools, Floats, distances, places_of
from ydrometer.search.request import SearchRequest
from ydrometer.search.room import SAME_PITCH

Suiting = tuple[Reach, float | None]
"""Distances that suit a pair, and the length of its loop then, m, None where it has none."""


def with_mounting(
    request: SearchRequest,
    layout: DriveLayout,
    options: Sequence[StageSlot],
    chosen: Sequence[int],
    document: dict[str, Any],
) -> dict[str, Any]:
    """An option's design with its `fit` section about its own stages, and set as the layout's mount allows.

    Args:
        request: to which the option belongs.
        layout: the option's.
        options: of each stage.
        chosen: which of them the option has.
        document: the option's design file, with the section as the request's design has it.
    """
    fit, paths = document.get("fit"), _stage_paths(document)
    before = _stage_paths(request.raw["design"])
    if fit is not None and len(before) == len(paths):
        fit = remounted.renamed(fit, dict(zip(before, paths, strict=True)))
        document = {**document, "fit": fit}
    if layout.mount is None:
        return document
    paired = [
        (path, slot, option)
        for path, slot, option in zip(paths, options, chosen, strict=True)
        if isinstance(slot.choice, PairChoice)
    ]
    mount = layout.mount
    wanted = [reaches(request, mount, i, slot, option) for i, (_, slot, option) in enumerate(paired)]
    fixed = settled(
        mount, wanted, [slot.places.goes(slot.places.kind[option]) for _, slot, option in paired if slot.places]
    )
    shafts = ["drive.branches[0].source", *(path for path, _, _ in paired)]
    at = {path: {"at": list(spot)} for path, spot in zip(shafts, fixed.spots, strict=True) if spot is not None}
    sized = {
        path: (slot, option, length)
        for (path, slot, option), length in zip(paired, fixed.lengths, strict=True)
        if length is not None
    }
    plain = {path: {"length": length} for path, (slot, _, length) in sized.items() if not slot.choice.loop.pieces}
    parts: Any = request.body.parts
    pieces = {
        path: {slot.choice.loop.pieces_key: round(length / parts[slot.parts[option][0]].tooth_size)}
        for path, (slot, option, length) in sized.items()
        if path not in plain
    }
    return _set(document, at, plain, pieces)


def _set(
    document: Mapping[str, Any], at: Mapping[str, Any], plain: Mapping[str, Any], pieces: Mapping[str, Any]
) -> dict[str, Any]:
    """A design file with changes to its shafts, loops and stages, each by its path."""
    fit, drive = dict(document.get("fit") or {}), document["drive"]
    for key, told_by, changes in (("shafts", "shaft", at), ("loops", "stage", plain)):
        if changes:
            fit[key] = remounted.merged(fit.get(key, []), told_by, changes)
    paths = iter(_stage_paths(document))
    branch = drive["branches"][0]
    own, trunk = (
        [{**stage, **pieces.get(next(paths), {})} for stage in stages]
        for stages in (branch.get("stages", []), drive.get("stages", []))
    )
    return {**document, "drive": {**drive, "branches": [{**branch, "stages": own}], "stages": trunk}, "fit": fit}


def _stage_paths(raw: Mapping[str, Any]) -> list[str]:
    """Paths of the stages of a design with one branch, in the order of power."""
    drive = raw["drive"]
    own, trunk = drive["branches"][0].get("stages", []), drive.get("stages", [])
    return [
        *(f"drive.branches[0].stages[{i}]" for i in range(len(own))),
        *(f"drive.stages[{i}]" for i in range(len(trunk))),
    ]


def reaches(request: SearchRequest, mount: Mount, pair: int, slot: StageSlot, option: int) -> list[Suiting]:
    """The distances that suit a pair of an option; of loops for each length that its shafts could take.

    Args:
        request: with the parts.
        mount: of the layout.
        pair: which one of the layout's pairs it is, from 0.
        slot: the stage's options.
        option: the one chosen.
    """
    choice, (first, second) = slot.choice, slot.parts[option].tolist()
    parts: Any = request.body.parts
    if choice.loop is None:
        size, teeth = parts[first].tooth_size, (parts[first].teeth, parts[second].teeth)
        angle = choice.usual.pressure_angle
        meshing = gear_reach(size, teeth, angle, mount.tolerance, ring=False)
        carried = carrying(meshing, size, teeth, angle, ring=False)
        return [] if carried is None else [(carried, None)]
    r1, r2 = (choice.form.loop_radius(parts[end].tooth_size, parts[end].measure) for end in (first, second))
    low, high, _ = distances(mount, pair)
    nearest, farthest = (max(apart, (r1 + r2) * (1.0 + 1e-9)) for apart in (low.min(), high.max()))
    give = mount.loop_tolerance
    between = loops.length(r1, r2, max(nearest - give, r1 + r2)), loops.length(r1, r2, farthest + give)
    suitings: list[Suiting] = []
    for length in _lengths(choice, parts[first].tooth_size, *between):
        taut = loops.centre_distance(length, r1, r2)
        if taut is not None:
            suitings.append((taut_reach(taut, give, choice.loop), length))
    return suitings or [(Reach(0.0, math.inf, nearest), None)]


def _lengths(choice: PairChoice, pitch: float, least: float, most: float) -> list[float]:
    """Possible lengths of a loop: those given, else any number of pieces between two lengths; of other V-belts none."""
    if choice.lengths is not None:
        return [
            known.length
            for known in choice.lengths
            if known.pitch is None or abs(pitch - known.pitch) <= SAME_PITCH * known.pitch
        ]
    if choice.loop is None or not choice.loop.pieces:
        return []
    piece = pitch * choice.loop.step
    return [n * piece for n in range(math.ceil(least / piece), math.floor(most / piece) + 1)]


@dataclass(frozen=True, slots=True)
class Settled:
    """Where shafts stand that may stand in several places, m, None of the others; and the lengths of loops, m."""

    spots: list[Point | None]
    lengths: list[float | None]


def settled(mount: Mount, wanted: Sequence[Sequence[Suiting]], goes: Sequence[Bools]) -> Settled:
    """The way that moves shafts least and keeps pairs nearest to their best distances, by dynamic programming: the
    sum of all these ways, m, is the least.

    Args:
        mount: where the shafts may stand.
        wanted: the distances that suit each pair, where at least one way goes.
        goes: between which places each pair goes, (places, places of the next shaft) each.
    """
    total = _moved(mount, 0)
    off: list[Floats] = []
    came: list[Any] = []
    for pair, suiting in enumerate(wanted):
        low, high, apart = distances(mount, pair)
        off.append(_costs(suiting, low, high))
        ways = total[:, None] + off[-1].min(axis=0)[apart] + _moved(mount, pair + 1)
        ways[~goes[pair]] = np.inf
        came.append(ways.argmin(axis=0))
        total = ways.min(axis=0)
    places = [int(total.argmin())]
    for before in reversed(came):
        places.insert(0, int(before[places[0]]))
    lengths = []
    for pair, suiting in enumerate(wanted):
        apart = distances(mount, pair)[2][places[pair], places[pair + 1]]
        lengths.append(suiting[int(off[pair][:, apart].argmin())][1])
    spots = [
        None if shaft.slot or len(shaft.at) == 1 else shaft.at[place]
        for shaft, place in zip(mount.shafts, places, strict=True)
    ]
    return Settled(spots, lengths)


def _moved(mount: Mount, shaft: int) -> Floats:
    """How far each place of a shaft is from the first, m; of a slot 0."""
    lines = places_of(mount, shaft)
    if mount.shafts[shaft].slot:
        return np.zeros(len(lines))
    return np.asarray(np.hypot(*(lines[:, 0] - lines[0, 0]).T))


def _costs(suiting: Sequence[Suiting], low: Floats, high: Floats) -> Floats:
    """How far each way to suit a pair is off its best at ranges of distance, m, infinite where it is out: (r, d)."""
    rows = []
    for reach, _ in suiting:
        off = np.maximum(0.0, np.maximum(low - reach.best, reach.best - high))
        rows.append(np.where((high >= reach.low - NOISE) & (low <= reach.high + NOISE), off, np.inf))
    return np.array(rows)
