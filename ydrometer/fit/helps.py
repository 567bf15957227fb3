"""What would help where no way places all shafts: each thing alone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, cast

from ydrometer.document.design import Design
from ydrometer.document.mounting import LoopMount, ShaftMount, Tensioner
from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import Loop, Mesh
from ydrometer.fit import placing
from ydrometer.fit.clash import called
from ydrometer.fit.clashes import clashes
from ydrometer.fit.clearances import clear
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.idlers import Idler, idlers
from ydrometer.fit.line import plane
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


def helps(setup: Setup, problem: placing.Problem, couplings: Sequence[Coupling]) -> list[Help]:
    """Another length at hand, a tooth more or less, an idler, and the least give of one coupling that would do.

    Args:
        setup: a design for which there is no way.
        problem: as the solver takes it.
        couplings: in the order of the problem's pairs.
    """
    found = [
        Help(_give_words(setup, couplings[relaxation.pair], relaxation.extra), relaxation.extra, None, {}, None)
        for relaxation in placing.relaxations(problem)
    ]
    others = _other_lengths(setup, problem, couplings) + _other_teeth(setup, problem, couplings)
    return others + _idlers(setup, problem, couplings) + found


def _give_words(setup: Setup, coupling: Coupling, extra: float) -> str:
    told = f"{extra * 1e3:.2f} mm"
    if not coupling.is_loop:
        return f"{told} more tolerance between the {coupling.driver.words} and the {coupling.driven.words}"
    names = ", ".join(setup.plane.named(shaft) for shaft in coupling.shafts)
    return f"a slot of {2e3 * extra:.2f} mm for one of: {names}"


def _other_lengths(setup: Setup, problem: placing.Problem, couplings: Sequence[Coupling]) -> list[Help]:
    """For each loop of one length: others of the bin with which everything goes together."""
    bare = plane(_without_lengths(setup), setup.stock)
    found = []
    for place, coupling in enumerate(couplings):
        others = next((other.reaches for other in bare.couplings if other.path == coupling.path), ())
        if not coupling.is_loop or not others:
            continue
        going = clear(setup, placing.placements(_with_pair(problem, place, others), MOST_TRIED))
        if going:
            standing = way(going[0], couplings)
            found.append(Help(f"another length: {standing.lengths[coupling.path]}", 0.0, standing, {}, None))
    return found


def _without_lengths(setup: Setup) -> Design:
    drive = setup.design.drive

    def bare(stages: Sequence[Any]) -> tuple[Any, ...]:
        return tuple(_without_length(stage) for stage in stages)

    branches = tuple(replace(branch, stages=bare(branch.stages)) for branch in drive.branches)
    fit = replace(setup.mounting, loops=tuple(replace(loop, length=None) for loop in setup.mounting.loops))
    return replace(setup.design, drive=replace(drive, branches=branches, stages=bare(drive.stages)), fit=fit)


def _without_length(stage: Stage) -> Any:
    loop, bare = stage.in_plane, cast(Any, stage)
    return replace(bare, **{loop.pieces_key: None}) if isinstance(loop, Loop) and loop.pieces_key else stage


def _other_teeth(setup: Setup, problem: placing.Problem, couplings: Sequence[Coupling]) -> list[Help]:
    """A gear with a tooth more or less than now, by how far that moves its pair."""
    found = []
    for place, coupling in enumerate(couplings):
        if not isinstance(coupling.stage.in_plane, Mesh):
            continue
        for wheel in coupling.wheels:
            sign = -1.0 if coupling.inside and wheel is coupling.driver else 1.0
            for more in (-MOST_TEETH, MOST_TEETH):
                by = 0.5 * sign * more * wheel.size
                moved = tuple(replace(r, low=r.low + by, high=r.high + by, best=r.best + by) for r in coupling.reaches)
                going = clear(setup, placing.placements(_with_pair(problem, place, moved), MOST_TRIED))
                if going:
                    teeth = wheel.teeth + more
                    text = f"{teeth} teeth in place of the {wheel.words}"
                    found.append(Help(text, 0.0, way(going[0], couplings), {wheel.place: teeth}, None))
    return found


def _idlers(setup: Setup, problem: placing.Problem, couplings: Sequence[Coupling]) -> list[Help]:
    """For each loop the way in which it is least too long that an idler can take up without a clash."""
    found = []
    for place, coupling in enumerate(couplings):
        if not coupling.is_loop or coupling.stage.crossed:
            continue
        longer = tuple(Reach(coupling.free, reach.best, reach.best, reach.name) for reach in coupling.reaches)
        going = clear(setup, placing.placements(_with_pair(problem, place, longer), MOST_TRIED))[:MOST_IDLERS]
        lengths = {name: length for length, name in coupling.lengths}
        for placement in going:
            length = lengths[placement.reaches[place].name]
            one, other = (placement.at[path] for path in coupling.shafts)
            idler = next(idlers(coupling, one, other, length), None)
            if idler is None or _clashes_with(setup, placement, coupling, idler):
                continue
            touching = "outside" if idler.outside else "inside"
            name = placement.reaches[place].name
            text = f"an idler of {1e3 * idler.diameter:.0f} mm from {touching} on the {called(coupling)} of {name}"
            found.append(Help(text, 0.0, way(placement, couplings), {}, idler))
            break
    return found


def _clashes_with(setup: Setup, placement: Placement, coupling: Coupling, idler: Idler) -> bool:
    """Whether anything clashes where shafts stand so and a loop has the idler."""
    said = {shaft.shaft: shaft for shaft in setup.mounting.shafts}
    shafts = {
        path: replace(said.get(path) or ShaftMount(shaft=path), at=at)
        for path, at in placement.at.items() if path not in said or said[path].slot is None
    }  # fmt: skip
    loops = {loop.stage: loop for loop in setup.mounting.loops}
    tensioner = Tensioner(at=idler.at, diameter=idler.diameter, outside=idler.outside)
    loops[coupling.path] = replace(loops.get(coupling.path) or LoopMount(stage=coupling.path), tensioner=tensioner)
    mounting = replace(setup.mounting, shafts=tuple({**said, **shafts}.values()), loops=tuple(loops.values()))
    changed = set_up(replace(setup.design, fit=mounting), setup.stock)
    return any(clash.level == "clash" for clash in clashes(changed))


def _with_pair(problem: placing.Problem, place: int, reaches: Sequence[Reach]) -> placing.Problem:
    pairs = list(problem.pairs)
    pairs[place] = replace(pairs[place], reaches=tuple(reaches))
    return replace(problem, pairs=tuple(pairs))
