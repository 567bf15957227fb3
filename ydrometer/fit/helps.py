"""What would help where no way places all shafts: each thing alone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.document.design import Design
from ydrometer.document.mounting import Loop, Shaft, Tensioner
from ydrometer.fit import placing
from ydrometer.fit.clash import called
from ydrometer.fit.clashes import clashes
from ydrometer.fit.clearances import clear
from ydrometer.fit.idlers import Idler, idlers
from ydrometer.fit.line import Tie, Wheel, plane
from ydrometer.fit.places import MOST_TRIED, Placing, way
from ydrometer.fit.placing import Placement, Reach
from ydrometer.fit.setup import Setup, set_up

MOST_IDLERS = 40
"""Ways that are tried with an idler, those first in which it has least to take up."""
MOST_TEETH = 1
"""A wheel is tried with so many teeth more and fewer."""


@dataclass(frozen=True, slots=True)
class Help:
    """One thing that would make it go.

    Attributes:
        text: in words. extra: how much more that is, m, where it is a length. way: how all would then stand, where it
        is a matter of parts alone. teeth: tooth counts that it takes, by their path in the document. idler: that it
        takes.
    """

    text: str
    extra: float
    way: Placing | None
    teeth: dict[str, int]
    idler: Idler | None


def helps(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """Another length at stock, a tooth more or less, an idler, and the least give of one tie that would do.

    Args:
        setup: a design for which there is no way.
        problem: as the solver takes it.
        ties: in the order of the problem's pairs.
    """
    found = [
        Help(_give_words(setup, ties[relaxation.pair], relaxation.extra), relaxation.extra, None, {}, None)
        for relaxation in placing.relaxations(problem)
    ]
    others = _other_lengths(setup, problem, ties) + _other_teeth(setup, problem, ties)
    return others + _idlers(setup, problem, ties) + found


def _give_words(setup: Setup, tie: Tie, extra: float) -> str:
    told = f"{extra * 1e3:.2f} mm"
    if not tie.is_loop:
        return f"{told} more tolerance between the {tie.driver.words} and the {tie.driven.words}"
    names = ", ".join(setup.plane.named(shaft) for shaft in tie.shafts)
    return f"a slot of {2e3 * extra:.2f} mm for one of: {names}"


def _other_lengths(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """For each loop of one length: others of the bin with which everything goes together."""
    bare = plane(_without_lengths(setup), setup.stock)
    found = []
    for place, tie in enumerate(ties):
        others = next((other.reaches for other in bare.ties if other.path == tie.path), ())
        if not tie.is_loop or not others:
            continue
        going = clear(setup, placing.placements(_with_pair(problem, place, others), MOST_TRIED))
        if going:
            standing = way(going[0], ties)
            found.append(Help(f"another length: {standing.lengths[tie.path]}", 0.0, standing, {}, None))
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
                going = clear(setup, placing.placements(_with_pair(problem, place, moved), MOST_TRIED))
                if going:
                    teeth = (wheel.teeth or 0) + more
                    text = f"{teeth} teeth in place of the {wheel.words}"
                    found.append(Help(text, 0.0, way(going[0], ties), {_teeth_path(wheel): teeth}, None))
    return found


def _idlers(setup: Setup, problem: placing.Plate, ties: Sequence[Tie]) -> list[Help]:
    """For each loop the way in which it is least too long that an idler can take up without a clash."""
    found = []
    for place, tie in enumerate(ties):
        if not tie.is_loop or tie.crossed:
            continue
        longer = tuple(Reach(tie.free, reach.best, reach.best, reach.name) for reach in tie.reaches)
        going = clear(setup, placing.placements(_with_pair(problem, place, longer), MOST_TRIED))[:MOST_IDLERS]
        lengths = {name: length for length, name in tie.lengths}
        for placement in going:
            length = lengths[placement.reaches[place].name]
            one, other = (placement.at[path] for path in tie.shafts)
            idler = next(idlers(tie, one, other, length), None)
            if idler is None or _clashes_with(setup, placement, tie, idler):
                continue
            touching = "outside" if idler.outside else "inside"
            name = placement.reaches[place].name
            text = f"an idler of {1e3 * idler.diameter:.0f} mm from {touching} on the {called(tie)} of {name}"
            found.append(Help(text, 0.0, way(placement, ties), {}, idler))
            break
    return found


def _clashes_with(setup: Setup, placement: Placement, tie: Tie, idler: Idler) -> bool:
    """Whether anything clashes where shafts stand so and a loop has the idler."""
    said = {shaft.shaft: shaft for shaft in setup.mounting.shafts}
    shafts = {
        path: replace(said.get(path) or Shaft(shaft=path), at=at)
        for path, at in placement.at.items() if path not in said or said[path].slot is None
    }  # fmt: skip
    loops = {loop.stage: loop for loop in setup.mounting.loops}
    tensioner = Tensioner(at=idler.at, diameter=idler.diameter, outside=idler.outside)
    loops[tie.path] = replace(loops.get(tie.path) or Loop(stage=tie.path), tensioner=tensioner)
    mounting = replace(setup.mounting, shafts=tuple({**said, **shafts}.values()), loops=tuple(loops.values()))
    changed = set_up(replace(setup.design, fit=mounting), setup.stock)
    return any(clash.level == "clash" for clash in clashes(changed))


def _teeth_path(wheel: Wheel) -> str:
    """Where a wheel's tooth count stands in the document."""
    if wheel.member.startswith("idler "):
        return f"{wheel.path}.idlers[{int(wheel.member[6:]) - 1}]"
    return f"{wheel.path}.{wheel.member}_teeth"


def _with_pair(problem: placing.Plate, place: int, reaches: Sequence[Reach]) -> placing.Plate:
    pairs = list(problem.pairs)
    pairs[place] = replace(pairs[place], reaches=tuple(reaches))
    return replace(problem, pairs=tuple(pairs))
