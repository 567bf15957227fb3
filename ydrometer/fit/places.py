"""All ways to place the shafts of a design on its plate, and what would help where there is none."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ydrometer.design import Design
from ydrometer.fit import placing, touching
from ydrometer.fit.line import Plane, Tie, Wheel, plane
from ydrometer.fit.placing import Clear, Floats, Frame, Pair, Placement, Reach
from ydrometer.fit.setup import Setup
from ydrometer.mounting import Plate, Point

MOST_SHOWN = 60
"""Placements that are handed on, the best first."""
MOST_TRIED = 20_000
MOST_TEETH = 1
"""A wheel is tried with so many teeth more and fewer."""


@dataclass(frozen=True, slots=True)
class Placing:
    """One way to place everything: where each shaft stands, m, and the length of each loop in words, by stage.

    Attributes:
        at. lengths. error: sum of the distances from the best ones, m. room: the least that a slot leaves, m, None
        without a slot. size: half the way around everything, m.
    """

    at: dict[str, Point]
    lengths: dict[str, str]
    error: float
    room: float | None
    size: float


@dataclass(frozen=True, slots=True)
class Help:
    """One thing that would make it go.

    Attributes:
        text: in words. extra: how much more that is, m, where it is a length. way: how all would then stand, where it
        is a matter of parts alone. teeth: tooth counts that it takes, by their path in the document.
    """

    text: str
    extra: float
    way: Placing | None
    teeth: dict[str, int]


@dataclass(frozen=True, slots=True)
class Ways:
    """The answer: the best ways, how many there are (at most `MOST_TRIED` are looked at), and what would help."""

    ways: list[Placing]
    count: int
    helps: list[Help]


def ways(setup: Setup) -> Ways:
    """Every way that satisfies all ties at once and keeps clear of shafts and frame; the least error first.

    Shafts said to be fixed stay, and so do free ones that have a place and those that nothing ties; where none is
    fixed, the first one stays. Those on holes, and those of which nothing is said, may stand on any hole; slots are
    set.

    Args:
        setup: a design with a plate.

    Raises:
        ValueError: there is no plate, or two shafts in slots are tied to each other.
    """
    problem = as_problem(setup)
    ties = _tied(setup.plane)
    found = _clear(setup, placing.placements(problem, MOST_TRIED))
    shown = [_way(placement, ties) for placement in found[:MOST_SHOWN]]
    return Ways(shown, len(found), [] if found else _helps(setup, problem, ties))


def as_problem(setup: Setup) -> placing.Plate:
    """The plate as the solver takes it."""
    plate = setup.mounting.plate
    if plate is None:
        raise ValueError("no plate is given: give hole_pitch, across and up")
    ties = _tied(setup.plane)
    tied = {path for tie in ties for path in tie.shafts}
    stay = set(setup.plane.shafts) - tied
    if not any(shaft.mount == "fixed" for shaft in setup.mounting.shafts):
        stay.add(setup.plane.shafts[0])
    shafts = tuple(_shaft(setup, path, plate, stay) for path in setup.plane.shafts)
    pairs = tuple(Pair(*tie.shafts, tie.reaches) for tie in ties)
    clears = tuple(
        Clear(wheel.shaft, path, touching.clear_of_shaft(setup, wheel.outer_radius, path))
        for wheel, path in touching.shafts_beside(setup)
    )
    frames = tuple(
        Frame(wheel.shaft, line.start, line.end, wheel.outer_radius + setup.mounting.gap)
        for wheel, line in touching.frame_beside(setup)
    )
    return placing.Plate(shafts, pairs, clears, frames)


def _tied(found: Plane) -> list[Tie]:
    return [tie for tie in found.ties if tie.reaches]


def _shaft(setup: Setup, path: str, plate: Plate, stay: Collection[str]) -> placing.Shaft:
    shaft = setup.mounting.of(path)
    if path in stay:
        return placing.Shaft(path, (setup.at(path),))
    if shaft is not None and shaft.slot is not None:
        return placing.Shaft(path, (shaft.slot.start, shaft.slot.end), slot=True)
    if shaft is not None and shaft.mount in ("fixed", "free") and shaft.at is not None:
        return placing.Shaft(path, (shaft.at,))
    return placing.Shaft(path, tuple(plate.holes()))


def _clear(setup: Setup, found: list[Placement]) -> list[Placement]:
    """Those in which no loop runs into a shaft or the frame; looked at all at once."""
    if not found:
        return found
    at = {path: np.array([placement.at[path] for placement in found]) for path in setup.plane.shafts}
    good = np.ones(len(found), bool)
    for tie in setup.plane.ties:
        if not tie.is_loop:
            continue
        keep = touching.thickness(tie) + setup.mounting.gap
        for start, end in _runs(tie, *(at[path] for path in tie.shafts)):
            for path in setup.plane.shafts:
                if path not in tie.shafts:
                    wanted = touching.clear_of_shaft(setup, touching.thickness(tie), path)
                    good &= _from_run(start, end, at[path]) >= wanted - placing.NOISE
            for line in setup.mounting.frame:
                first, second = (np.broadcast_to(spot, start.shape) for spot in (line.start, line.end))
                good &= ~_cross(start, end, first, second)
                for off in (_from_run(start, end, first), _from_run(start, end, second),
                            _from_run(first, second, start), _from_run(first, second, end)):  # fmt: skip
                    good &= off >= keep - placing.NOISE
    return [placement for placement, is_good in zip(found, good, strict=True) if is_good]


def _runs(tie: Tie, one: Floats, other: Floats) -> list[tuple[Floats, Floats]]:
    """The two free runs of a loop in n placements at once, (n, 2) each end; as `loops.runs`."""
    step = other - one
    distance = np.hypot(*step.T)
    towards = np.arctan2(step[:, 1], step[:, 0])
    r1, r2 = tie.radii[0], -tie.radii[1] if tie.crossed else tie.radii[1]
    half = 0.5 * np.pi + np.arcsin(np.clip((r2 - r1) / distance, -1.0, 1.0))
    found = []
    for angle in (towards + half, towards - half):
        way = np.stack([np.cos(angle), np.sin(angle)], axis=1)
        found.append((one + r1 * way, other + r2 * way))
    return found


def _from_run(start: Floats, end: Floats, at: Floats) -> Floats:
    """How far places are from straight lines, all (n, 2); (n,)."""
    along = end - start
    length = np.maximum((along**2).sum(axis=1), 1e-30)
    share = np.clip(((at - start) * along).sum(axis=1) / length, 0.0, 1.0)
    return np.asarray(np.hypot(*(at - start - share[:, None] * along).T))


def _cross(a: Floats, b: Floats, c: Floats, d: Floats) -> NDArray[np.bool_]:
    """Whether the lines from a to b and from c to d cross, all (n, 2); (n,)."""

    def side(one: Floats, other: Floats, at: Floats) -> Floats:
        step, off = other - one, at - one
        return np.asarray(step[:, 0] * off[:, 1] - step[:, 1] * off[:, 0])

    return np.asarray((side(a, b, c) * side(a, b, d) < 0.0) & (side(c, d, a) * side(c, d, b) < 0.0))


def _way(placement: Placement, ties: Sequence[Tie]) -> Placing:
    lengths = {
        tie.path: reach.name for tie, reach in zip(ties, placement.reaches, strict=True) if tie.is_loop
    }  # fmt: skip
    room = None if placement.room == float("inf") else placement.room
    return Placing(placement.at, lengths, placement.error, room, placement.size)


def _helps(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """The least give of one tie that would do, another length at hand, and a tooth more or less."""
    found = [
        Help(_give_words(setup, ties[relaxation.pair], relaxation.extra), relaxation.extra, None, {})
        for relaxation in placing.relaxations(problem)
    ]
    return _other_lengths(setup, problem, ties) + _other_teeth(setup, problem, ties) + found


def _give_words(setup: Setup, tie: Tie, extra: float) -> str:
    told = f"{extra * 1e3:.2f} mm"
    if not tie.is_loop:
        return f"{told} more tolerance between the {tie.driver.words} and the {tie.driven.words}"
    names = ", ".join(setup.plane.named(shaft) for shaft in tie.shafts)
    return f"a slot of {2e3 * extra:.2f} mm for one of: {names}; or a tensioner on that loop"


def _other_lengths(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """For each loop of one length: others of the bin with which everything goes together."""
    bare = plane(_without_lengths(setup), setup.hand)
    found = []
    for place, tie in enumerate(ties):
        others = next((other.reaches for other in bare.ties if other.path == tie.path), ())
        if not tie.is_loop or not others:
            continue
        going = _clear(setup, placing.placements(_with_pair(problem, place, others), MOST_TRIED))
        if going:
            way = _way(going[0], ties)
            found.append(Help(f"another length: {way.lengths[tie.path]}", 0.0, way, {}))
    return found


def _without_lengths(setup: Setup) -> Design:
    drive = setup.design.drive

    def bare(stages: Sequence[Any]) -> tuple[Any, ...]:
        return tuple(
            replace(stage, **{key: None for key in ("belt_teeth", "links") if hasattr(stage, key)}) for stage in stages
        )

    branches = tuple(replace(branch, stages=bare(branch.stages)) for branch in drive.branches)
    fit = replace(setup.mounting, loops=tuple(replace(loop, length=None) for loop in setup.mounting.loops))
    return replace(setup.design, drive=replace(drive, branches=branches, stages=bare(drive.stages)), fit=fit)


def _other_teeth(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """A gear with a tooth more or less than now, by how far that moves its pair."""
    found = []
    for place, tie in enumerate(ties):
        if tie.is_loop:
            continue
        for wheel in tie.wheels:
            sign = -1.0 if tie.driven.form == "ring" and wheel is tie.driver else 1.0
            for more in (-MOST_TEETH, MOST_TEETH):
                by = 0.5 * sign * more * wheel.size
                moved = tuple(replace(r, low=r.low + by, high=r.high + by, best=r.best + by) for r in tie.reaches)
                going = _clear(setup, placing.placements(_with_pair(problem, place, moved), MOST_TRIED))
                if going:
                    teeth = (wheel.teeth or 0) + more
                    text = f"{teeth} teeth in place of the {wheel.words}"
                    found.append(Help(text, 0.0, _way(going[0], ties), {_teeth_path(wheel): teeth}))
    return found


def _teeth_path(wheel: Wheel) -> str:
    """Where a wheel's tooth count stands in the document."""
    if wheel.member.startswith("idler "):
        return f"{wheel.path}.idlers[{int(wheel.member[6:]) - 1}]"
    return f"{wheel.path}.{wheel.member}_teeth"


def _with_pair(problem: placing.Plate, place: int, reaches: Sequence[Reach]) -> placing.Plate:
    pairs = list(problem.pairs)
    pairs[place] = replace(pairs[place], reaches=tuple(reaches))
    return replace(problem, pairs=tuple(pairs))
