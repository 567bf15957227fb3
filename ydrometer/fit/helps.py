"""What would help where no way places all shafts: each thing alone."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import islice
from typing import Any, cast

from ydrometer.document.design import Design
from ydrometer.document.mounting import LoopMount, Tensioner
from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import Loop, Mesh
from ydrometer.document.walk import own_stages, trunk_stages
from ydrometer.fit import placing
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.clash import called
from ydrometer.fit.clashes import goes
from ydrometer.fit.clearances import clear
from ydrometer.fit.coupling import Coupling, Wheel
from ydrometer.fit.gives import gives
from ydrometer.fit.help import Help
from ydrometer.fit.idlers import Idler, idlers
from ydrometer.fit.places import MOST_TRIED, as_problem, moved, way, with_distance
from ydrometer.fit.problem import Effort, Placement, Problem
from ydrometer.fit.setting_up import changed
from ydrometer.fit.setup import Setup

MOST_LOOKED_AT = 40
"""Ways of which it is tried whether everything goes together, the best first."""
LOOK_COST, PAIR_COST = 4000, 20
"""What looking at one of them takes, as `Effort` counts, and besides for each wheel with each shaft."""
MOST_TEETH = 1
"""A wheel is tried with so many teeth more and fewer."""


def helps(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """Another length at hand, a tooth more or less, an idler, and the least give of one coupling that would do.

    Each is tried against everything that is checked in the plane before it is offered.

    Args:
        setup: a design for which there is no way.
        problem: as the solver takes it.
        couplings: in the order of the problem's pairs.
        effort: that the whole question may still cost; what is beyond is not tried.
    """
    # What gives is tried first, as what is tried last may be too much, and told last: other parts are easier.
    giving = _gives(setup, problem, couplings, effort)
    kinds = (_other_lengths, _other_teeth, _idlers)
    return [*(help_ for kind in kinds for help_ in kind(setup, problem, couplings, effort)), *giving]


def _gives(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """For each pair the least tolerance of gears, or the shortest slot for a shaft of a loop, that would do."""
    found: list[Help] = []
    for relaxation in placing.relaxations(problem, lambda going: clear(setup, going, couplings), effort):
        tried = relaxation.placements[:MOST_LOOKED_AT] if relaxation.extra > NOISE else ()
        changes = (change for placed in tried for change in gives(setup, placed, couplings, relaxation.pair))
        found += islice((change.help for change in changes if _goes(change.setup, effort)), 1)
    return found


def _first_that_goes(setup: Setup, problem: Problem, effort: Effort) -> Placement | None:
    """The best placement in which everything goes together in the plane.

    Args:
        setup: of a design with what would help.
        problem: as the solver takes it.
        effort: as for `helps`.
    """
    if effort.over:
        return None
    placed = placing.placements(problem, MOST_TRIED, effort).placements
    going = clear(setup, placed, with_distance(setup.plane))[:MOST_LOOKED_AT]
    return next((placement for placement in going if _goes(moved(setup, placement), effort)), None)


def _goes(setup: Setup, effort: Effort) -> bool:
    """Whether all goes together as it stands; when the effort is over, what was not looked at does not."""
    _spend_on(setup, effort)
    return not effort.over and goes(setup)


def _spend_on(setup: Setup, effort: Effort) -> None:
    effort.spend(LOOK_COST + PAIR_COST * len(setup.plane.wheels) * len(setup.plane.shafts))


def _other_lengths(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """For each loop of one length: others of the bin with which everything goes together."""
    lengths = []
    for place, coupling in enumerate(couplings):
        bare = changed(setup, _without_length_of(setup, coupling.path)) if coupling.is_loop else setup
        others = next((other.reaches for other in bare.plane.couplings if other.path == coupling.path), ())
        if not coupling.is_loop or not others:
            continue
        going = _first_that_goes(bare, _with_pair(problem, place, others), effort)
        if going is not None:
            standing = way(going, couplings)
            lengths.append(Help(f"another length: {standing.lengths[coupling.path]}", 0.0, standing))
    return lengths


def _without_length_of(setup: Setup, path: str) -> Design:
    drive = setup.design.drive
    branches = tuple(
        replace(
            branch, stages=tuple(_bare(stage) if name == path else stage for name, stage in own_stages(setup.design, b))
        )
        for b, branch in enumerate(drive.branches)
    )
    trunk = tuple(_bare(stage) if name == path else stage for name, stage in trunk_stages(setup.design))
    loops = tuple(replace(loop, length=None) if loop.stage == path else loop for loop in setup.mounting.loops)
    fit = replace(setup.mounting, loops=loops)
    return replace(setup.design, drive=replace(drive, branches=branches, stages=trunk), fit=fit)


def _bare(stage: Stage) -> Any:
    loop, bare = stage.in_plane, cast(Any, stage)
    return replace(bare, **{loop.pieces_key: None}) if isinstance(loop, Loop) and loop.pieces_key else stage


def _other_teeth(setup: Setup, problem: Problem, couplings: Sequence[Coupling], effort: Effort) -> list[Help]:
    """A gear with a tooth more or less than now."""
    other_teeth = []
    wheels = [wheel for coupling in couplings if _own_mesh(coupling) for wheel in coupling.wheels]
    for wheel in dict.fromkeys(wheels):
        for teeth in (wheel.teeth - MOST_TEETH, wheel.teeth + MOST_TEETH):
            design = _with_teeth(setup.design, wheel, teeth)
            if design is None or effort.over:
                continue
            _spend_on(setup, effort)
            other = changed(setup, design)
            going = _first_that_goes(other, as_problem(other), effort)
            if going is not None:
                text = f"{teeth} teeth in place of the {wheel.words}"
                standing = way(going, with_distance(other.plane))
                other_teeth.append(Help(text, 0.0, standing, teeth={wheel.place: teeth}))
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
    with_idler: list[Help] = []
    for place, coupling in enumerate(couplings):
        if not coupling.is_loop or coupling.stage.crossed or effort.over:
            continue
        longer = tuple(Reach(coupling.free, reach.best, reach.best, reach.name) for reach in coupling.reaches)
        placed = placing.placements(_with_pair(problem, place, longer), MOST_TRIED, effort).placements
        going = clear(setup, placed, couplings, but=coupling)[:MOST_LOOKED_AT]
        with_idler += islice(_taken_up(setup, going, couplings, place, effort), 1)
    return with_idler


def _taken_up(
    setup: Setup, going: Sequence[Placement], couplings: Sequence[Coupling], place: int, effort: Effort
) -> Iterator[Help]:
    """The placements of a loop that is too long with an idler that takes that up."""
    coupling = couplings[place]
    lengths = {name: length for length, name in coupling.lengths}
    for placement in going:
        name = placement.reaches[place].name
        first, second = (placement.at[path] for path in coupling.shafts)
        for idler in idlers(coupling, first, second, lengths[name]):
            if _goes(moved(_with_idler(setup, coupling, idler), placement), effort):
                text = f"{_idler_words(idler)} on the {called(coupling)} of {name}"
                yield Help(text, 0.0, way(placement, couplings), idler=idler)


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
