"""What might relieve a row of Loads, the gentlest first: other stages, other limits, the next size of what there is."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.document.design import Design
from ydrometer.document.mounting import LoopMount, Mounting
from ydrometer.document.sources import Controller
from ydrometer.document.stages import Stage
from ydrometer.document.stages.stage import Member
from ydrometer.document.walk import branch_of, stage_at
from ydrometer.loads.change import Change, put_branch, with_stage
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.next_sizes import next_sizes
from ydrometer.loads.rows import UseRow

EASED = 0.97
"""Use that a help by tension aims at, and the one that a help by width does."""
WELL = 0.8
LARGER = (1.12, 1.25, 1.4, 1.6, 2.0)
"""Of a driven wheel that are tried: every second preferred number (ISO 3, Preferred numbers)."""


def changes(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """What might relieve a row, by its check.

    Args:
        case: of the design.
        row: near its limit or over it.
    """
    for kind in _BY_CHECK.get(row.check, ()):
        yield from kind(case, row)
    yield from next_sizes(case.design, row)


def _stage(case: LoadCase, path: str) -> Stage:
    return next(through.stage for through in case.line.stages if through.path == path)


def _wider(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """As wide as eases it well, in whole millimetres; at most twice as wide as now."""
    stage: Any = _stage(case, row.path)
    if row.check == "chain_force" or not stage.width or row.use is None:
        return
    wanted = math.ceil(1e3 * stage.width * min(2.0, max(row.use / WELL, 1.0)) - 1e-9)
    if 1e-3 * wanted > stage.width:
        apply = with_stage(row.path, lambda stage: replace(stage, width=1e-3 * wanted))
        yield Change(f"width {wanted} mm", apply, {f"{row.path}.width": f"{wanted} mm"}, moves=False)


def _stronger(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """The weakest material that eases it, where the maker's own figure is not given."""
    stage: Any = _stage(case, row.path)
    end = row.member if row.member in ("driver", "driven") else "driven"
    flanks = row.check == "gear_pitting"
    given = getattr(stage, f"{end}_allowed_contact" if flanks else f"{end}_allowed_stress")
    if given is not None or row.demand is None:
        return
    stands = {name: m.contact if flanks else m.tooth for name, m in MATERIALS.items()}
    key = f"{end}_material"
    now = stands[getattr(stage, key) or USUAL_MATERIAL]
    better = sorted((stress, name) for name, stress in stands.items() if stress > now)
    enough = [(stress, name) for stress, name in better if stress >= row.demand] or better[-1:]
    for _, name in enough[:1]:
        yield _said(row.path, f"{name} for the {end}", key, name)


def _eased(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """What the kind of stage would have in place of what it says."""
    for words, key, value in _stage(case, row.path).eased(row.check):
        yield _said(row.path, words, key, value)


def _said(path: str, words: str, key: str, value: Any) -> Change:
    apply = with_stage(path, lambda stage: replace(stage, **{key: value}))
    return Change(words, apply, {f"{path}.{key}": value}, moves=False)


def _driver(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """A driver with one or two teeth more: less force at its rim, and another gearing."""
    yield from _other_driver(case, row.path, (1, 2))


def _driver_behind(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """The same of the stage behind a motor."""
    first = case.first_behind(branch_of(row.path))
    if first is not None:
        yield from _other_driver(case, first.path, (1, 2))


def _around(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """Shorter gearing before it passes less of what a motor gives, and behind it less of what the ground holds."""
    own = next(through.branch for through in case.line.stages if through.path == row.path)
    only = 0 if len(case.design.drive.branches) == 1 else None
    order = [through.path for through in case.line.stages if through.branch in (own, only, None)]
    place = order.index(row.path)
    for path in order[:place]:
        yield from _other_driver(case, path, (1, 2, 4))
    for path in order[place + 1 :]:
        yield from _other_driver(case, path, (-1, -2, -4))


def _other_driver(case: LoadCase, path: str, more: Sequence[int]) -> Iterator[Change]:
    members = _stage(case, path).members
    if members and members[0].form.toothed:
        driver = members[0]
        for step in more:
            teeth = int(driver.measure) + step
            yield from _resized(case.design, path, driver, teeth, f"{teeth}-tooth driver", teeth)


def _driven(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """A larger driven wheel: less force at its rim for what the ground holds."""
    members = _stage(case, row.path).members
    if not members:
        return
    driven = members[-1]
    for factor in LARGER:
        if driven.form.toothed:
            teeth = round(driven.measure * factor)
            yield from _resized(case.design, row.path, driven, teeth, f"{teeth}-tooth driven wheel", teeth)
        else:
            size = round(1e3 * driven.measure * factor)
            words = f"driven wheel of {size} mm"
            yield from _resized(case.design, row.path, driven, 1e-3 * size, words, f"{size} mm")


def _resized(design: Design, path: str, member: Member, measure: float, words: str, typed: Any) -> Iterator[Change]:
    """A stage with a wheel of another size; nothing where it cannot have that."""

    def other(stage: Stage) -> Stage | None:
        return stage.resized({member.name: measure})

    now = stage_at(design, path)
    if now is not None and other(now) is not None:
        apply = with_stage(path, lambda stage: other(stage) or stage)
        yield Change(words, apply, {f"{path}.{member.key}": typed}, moves=True)


def _tighter(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """The tension at rest with which it just holds."""
    fit = case.design.fit or Mounting()
    place = next((i for i, loop in enumerate(fit.loops) if loop.stage == row.path), len(fit.loops))
    said = fit.loops[place] if place < len(fit.loops) else LoopMount(stage=row.path)
    if said.tension is None or row.demand is None or row.capacity is None:
        return
    flung = max(0.0, said.tension - row.capacity) if row.check == "belt_jump" else 0.0
    needed = row.demand / EASED + flung if row.check == "belt_jump" else row.shown["needs_tension"] / EASED
    wanted = math.ceil(needed)

    def apply(design: Design) -> Design:
        present = design.fit or Mounting()
        loops = (*present.loops[:place], replace(said, tension=float(wanted)), *present.loops[place + 1 :])
        return replace(design, fit=replace(present, loops=loops))

    yield Change(f"tension {wanted} N", apply, {f"fit.loops[{place}].tension": f"{wanted} N"}, moves=False)


def _limited(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """A current limit of the controller that just holds."""
    b = branch_of(row.path)
    if row.capacity is None:
        return

    def apply(design: Design) -> Design:
        branch = design.drive.branches[b]
        controller = replace(branch.controller or Controller(), current_limit=row.capacity)
        return put_branch(design, b, replace(branch, controller=controller))

    path = f"drive.branches[{b}].controller.current_limit"
    yield Change(f"current limit {row.capacity:.3g} A", apply, {path: f"{row.capacity:.6g} A"}, moves=True)


_Kind = Callable[[LoadCase, UseRow], Iterator[Change]]
_BY_CHECK: dict[str, tuple[_Kind, ...]] = {
    "gear_tooth": (_wider, _stronger, _driver, _driven, _around),
    "gear_pitting": (_wider, _stronger, _driver, _driven, _around),
    "belt_force": (_wider, _driver, _driven, _around),
    "chain_force": (_wider, _driver, _driven, _around),
    "belt_jump": (_tighter, _driver, _driven, _around),
    "v_belt_slip": (_tighter, _eased, _driver, _driven, _around),
    "radial_load": (_driver_behind,),
    "motor_peak_current": (_limited,),
    "controller_peak": (_limited,),
}
