"""A design set up on its plates: the plane of each, and where all stands there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting, PlateBehind, ShaftMount
from ydrometer.fit.clashes import clashing
from ydrometer.fit.line import Plane, planes
from ydrometer.fit.setup import Setup
from ydrometer.fit.standing import stands
from ydrometer.fit.stock import NOTHING, Stock


def set_up(design: Design, stock: Stock = NOTHING, behind: str = "") -> Setup:
    """A design with the plane of one of its plates, where all stands there, and what is at hand.

    Args:
        design: its `fit` section may be missing.
        stock: what a bin has.
        behind: path of the stage that turns the axis, behind which the plate is; empty for the first plate.

    Raises:
        ValueError: there is no plate behind that stage.
    """
    wanted = next((setup for setup in set_ups(design, stock) if setup.plane.behind == behind), None)
    if wanted is None:
        raise ValueError(f"{behind} does not turn the axis: there is no plate behind it")
    return wanted


def set_ups(design: Design, stock: Stock = NOTHING) -> list[Setup]:
    """A design on each of its plates, the first one first.

    Args:
        design: its `fit` section may be missing.
        stock: what a bin has.
    """
    possible = planes(design, stock)
    said = design.fit or Mounting()
    return [_set_up(replace(design, fit=_of_plate(said, plane, possible)), plane, stock) for plane in possible]


def _of_plate(mounting: Mounting, plane: Plane, of: Sequence[Plane]) -> Mounting:
    """What the section says of one of several plates; of the first one also all that belongs to none."""
    if len(of) == 1:
        return mounting
    others = [other for other in of if other is not plane]
    shafts = {path for other in others for path in (*other.shafts, *other.in_line)}
    stages = {path for other in others for path in other.stages}
    mine = replace(
        mounting,
        shafts=tuple(shaft for shaft in mounting.shafts if shaft.shaft not in shafts),
        loops=tuple(loop for loop in mounting.loops if loop.stage not in stages),
    )
    if not plane.behind:
        return mine
    said = next((plate for plate in mounting.behind if plate.stage == plane.behind), PlateBehind(stage=plane.behind))
    return replace(
        mine,
        plate=said.plate,
        frame=said.frame,
        adapters=(),
        shafts=tuple(shaft for shaft in mine.shafts if shaft.shaft in (*plane.shafts, *plane.in_line)),
        loops=tuple(loop for loop in mine.loops if loop.stage in plane.stages),
    )


def changed(setup: Setup, design: Design) -> Setup:
    """The same plate of a changed design.

    Args:
        setup: as it was.
        design: its `fit` section speaks of that plate alone, as the one of `setup` does.
    """
    same_plane = next(plane for plane in planes(design, setup.stock) if plane.behind == setup.plane.behind)
    return _set_up(design, same_plane, setup.stock)


def _set_up(design: Design, plane: Plane, stock: Stock) -> Setup:
    mounting = design.fit or Mounting()
    mounts = {path: mounting.of(path) or ShaftMount(shaft=path, mount="free") for path in plane.shafts}
    for coupling in plane.couplings:
        path = coupling.driver.shaft
        if coupling.around_driven:
            mounts[path] = _as_the_first(mounts[path], mounts[path.rpartition("[")[0]])
    setup = Setup(design, mounting, plane, stands(plane, mounting), mounts, stock)
    for path, stand in setup.stands.items():
        if stand.other is not None and clashing(setup):
            setup = _clearer(setup, path)
    return setup


def _clearer(setup: Setup, path: str) -> Setup:
    """A design with a shaft in the other one of its two places, where less clashes then."""
    on_the_right = [other for other, stand in setup.stands.items() if stand.on_the_right]
    turned = replace(setup, stands=stands(setup.plane, setup.mounting, {*on_the_right, path}))
    return turned if clashing(turned) < clashing(setup) else setup


def _as_the_first(said: ShaftMount, first: ShaftMount) -> ShaftMount:
    """How a further motor is mounted: where it is said to be, and what is not said of it as of the first one."""
    return replace(
        said,
        diameter=said.diameter or first.diameter,
        shape=said.shape if said.diameter else first.shape,
        length=said.length or first.length,
        body=said.body or first.body,
        opening=said.opening or first.opening,
        bolts=said.bolts or first.bolts,
    )
