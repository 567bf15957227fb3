"""What would help where no way places all shafts: each thing alone."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, cast

from ydrometer.document.design import Design
from ydrometer.document.mounting import LoopMount, Tensioner
from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import Loop, Mesh
from ydrometer.document.walk import own_stages, trunk_stages
from ydrometer.fit import placing
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.clash import called, mm
from ydrometer.fit.clashes import goes
from ydrometer.fit.clearances import clear
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.idlers import Idler, idlers
from ydrometer.fit.places import MOST_TRIED, Placing, as_problem, moved, way, with_distance
from ydrometer.fit.problem import Effort, Placement, Problem
from ydrometer.fit.setup import Setup, changed

MOST_LOOKED_AT = 40
"""Ways of which it is tried whether everything goes together, the best first."""
LOOK_COST = 4000
"""What looking at one of them takes, as `Effort` counts."""
SMALLEST = 1e-5
"""m; a give is told in steps of it, rounded up so that it is enough."""
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


def helps(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """Another length at hand, a tooth more or less, an idler, and the least give of one coupling that would do.

    Each is tried against everything that is checked in the plane before it is offered.

    Args:
        setup: a design for which there is no way.
        problem: as the solver takes it.
        couplings: in the order of the problem's pairs.
        effort: that the whole question may still cost; what is beyond is not tried.
    """
    kinds = (_gives, _other_lengths, _other_teeth, _idlers)
    gives, *others = [kind(setup, problem, couplings, effort) for kind in kinds]
    return [help_ for some in (*others, gives) for help_ in some]


def _gives(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """The least tolerance or slot of one coupling."""
    relaxed = placing.relaxations(problem, lambda going: clear(setup, going), effort)
    return [
        Help(_give_words(setup, couplings[give.pair], give.extra), give.extra, None, {}, None)
        for give in relaxed
        if give.extra > NOISE
    ]


def _give_words(setup: Setup, coupling: Coupling, extra: float) -> str:
    enough = math.ceil(extra / SMALLEST - NOISE) * SMALLEST
    if not coupling.is_loop:
        return f"{mm(enough)} more tolerance between the {coupling.driver.words} and the {coupling.driven.words}"
    names = ", ".join(setup.plane.named(shaft) for shaft in coupling.shafts)
    return f"a slot of {mm(2.0 * enough)} for one of: {names}"


def _first_that_goes(setup: Setup, problem: Problem, effort: Effort) -> Placement | None:
    """The best placement in which everything goes together in the plane.

    Args:
        setup: of a design with what would help.
        problem: as the solver takes it.
        effort: as for `helps`.
    """
    if effort.over:
        return None
    going = clear(setup, placing.placements(problem, MOST_TRIED, effort).placements)[:MOST_LOOKED_AT]
    return next((placement for placement in going if _goes(setup, placement, effort)), None)


def _goes(setup: Setup, placement: Placement, effort: Effort) -> bool:
    """Whether all goes together in a placement; when the effort is over, what was not looked at does not."""
    effort.spend(LOOK_COST)
    return not effort.over and goes(moved(setup, placement))


def _other_lengths(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """For each loop of one length: others of the bin with which everything goes together."""
    bare = changed(setup, _without_lengths(setup))
    lengths = []
    for place, coupling in enumerate(couplings):
        others = next((other.reaches for other in bare.plane.couplings if other.path == coupling.path), ())
        if not coupling.is_loop or not others:
            continue
        going = _first_that_goes(bare, _with_pair(problem, place, others), effort)
        if going is not None:
            standing = way(going, couplings)
            lengths.append(Help(f"another length: {standing.lengths[coupling.path]}", 0.0, standing, {}, None))
    return lengths


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


def _other_teeth(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """A gear with a tooth more or less than now."""
    other_teeth = []
    wheels = [wheel for coupling in couplings if _own_mesh(coupling) for wheel in coupling.wheels]
    for wheel in dict.fromkeys(wheels):
        for teeth in (wheel.teeth - MOST_TEETH, wheel.teeth + MOST_TEETH):
            design = _with_teeth(setup.design, wheel, teeth)
            if design is None:
                continue
            other = changed(setup, design)
            going = _first_that_goes(other, as_problem(other), effort)
            if going is not None:
                text = f"{teeth} teeth in place of the {wheel.words}"
                standing = way(going, with_distance(other.plane))
                other_teeth.append(Help(text, 0.0, standing, {wheel.place: teeth}, None))
    return other_teeth


def _own_mesh(coupling: Coupling) -> bool:
    """Whether gears mesh, and not those of a further motor, which has the teeth of the first one."""
    return isinstance(coupling.stage.in_plane, Mesh) and not coupling.around_driven


def _with_teeth(design: Design, wheel: Wheel, teeth: int) -> Design | None:
    """A design with another number of teeth; None where its stage cannot have that."""
    drive = design.drive
    branches = [dict(own_stages(design, b)) for b in range(len(drive.branches))]
    for stages in (*branches, trunk := dict(trunk_stages(design))):
        if wheel.path in stages:
            resized = stages[wheel.path].resized({wheel.member: teeth})
            if resized is None:
                return None
            stages[wheel.path] = resized
    changed = [
        replace(branch, stages=tuple(stages.values())) for branch, stages in zip(drive.branches, branches, strict=True)
    ]
    return replace(design, drive=replace(drive, branches=tuple(changed), stages=tuple(trunk.values())))


def _idlers(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """For each loop the way in which it is least too long that an idler can take up without a clash."""
    with_idler = []
    for place, coupling in enumerate(couplings):
        if not coupling.is_loop or coupling.stage.crossed or effort.over:
            continue
        longer = tuple(Reach(coupling.free, reach.best, reach.best, reach.name) for reach in coupling.reaches)
        tried = placing.placements(_with_pair(problem, place, longer), MOST_TRIED, effort).placements
        lengths = {name: length for length, name in coupling.lengths}
        for placement in clear(setup, tried)[:MOST_LOOKED_AT]:
            name = placement.reaches[place].name
            first, second = (placement.at[path] for path in coupling.shafts)
            idler = next(idlers(coupling, first, second, lengths[name]), None)
            if idler is not None and _goes(_with_idler(setup, coupling, idler), placement, effort):
                text = f"{_idler_words(idler)} on the {called(coupling)} of {name}"
                with_idler.append(Help(text, 0.0, way(placement, couplings), {}, idler))
                break
    return with_idler


def _idler_words(idler: Idler) -> str:
    side = "outside" if idler.outside else "inside"
    x, y = idler.at
    return f"an idler of {1e3 * idler.diameter:.0f} mm from {side} at {1e3 * x:.1f}, {1e3 * y:.1f} mm"


def _with_idler(setup: Setup, coupling: Coupling, idler: Idler) -> Setup:
    loops = {loop.stage: loop for loop in setup.mounting.loops}
    tensioner = Tensioner(at=idler.at, diameter=idler.diameter, outside=idler.outside)
    loops[coupling.path] = replace(loops.get(coupling.path) or LoopMount(stage=coupling.path), tensioner=tensioner)
    mounting = replace(setup.mounting, loops=tuple(loops.values()))
    return replace(setup, design=replace(setup.design, fit=mounting), mounting=mounting)


def _with_pair(problem: Problem, place: int, reaches: Sequence[Reach]) -> Problem:
    pairs = list(problem.pairs)
    pairs[place] = replace(pairs[place], reaches=tuple(reaches))
    return replace(problem, pairs=tuple(pairs))
