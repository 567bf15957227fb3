"""What would relieve a part: each worked out on the changed design, so that what is promised is true.

A change that does not touch the motion (a width, a material, a tension) is worked out on the same moments; another
number of teeth or another current limit on the design evaluated anew.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from itertools import chain, islice
from typing import Any

from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.document.design import Document
from ydrometer.document.mounting import LoopMount, Mounting
from ydrometer.document.sources import Controller
from ydrometer.document.stages import Stage
from ydrometer.document.walk import branch_of
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.sweep import put_stage
from ydrometer.loads import electrical, limits, shafts, wires
from ydrometer.loads.limits import LoadRows
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.next_sizes import Change, next_sizes, put_branch
from ydrometer.loads.rows import UseRow
from ydrometer.loads.words import part_title

MOST = 3
"""Helps of one row that are told."""
EASED = 0.97
"""Use that a help by tension aims at, and the one that a help by width does."""
WELL = 0.8
RELIEF = 0.95
"""Of its use before that a help leaves to a row, at most."""
SAME = 0.005
"""Relative change of the top speed that is none."""
OF_HEAT = (
    electrical.winding_temperature,
    electrical.mount_softening,
    electrical.controller_continuous,
    electrical.supply_continuous,
    electrical.fuse,
    wires.connector,
)
"""Checks of the whole day, which a change is not tried on."""
CHECKS = tuple(check for check in limits.CHECKS if check not in OF_HEAT)
"""All that a change may make worse, but for heat."""


@dataclass(frozen=True, slots=True)
class Help:
    """One change: in words with the use that it leads to, and what to put where in the document, by path.

    A use of None is that of a row that then is all right without a number.
    """

    text: str
    use: float | None
    changes: Mapping[str, Any]


def helps(rows: LoadRows, row: UseRow) -> list[Help]:
    """At most three changes that relieve a row which is near or over, the gentlest first.

    Args:
        rows: of the design.
        row: of it.
    """
    case = rows.case
    if row.state not in ("near", "over"):
        return []
    if row.check == "order_of_steps":
        return _rearranged(case, row)
    if row.check == "winding_temperature":
        return _rested(case, row)
    before = {_key(row): row for row in rows.rows}
    sizes = next_sizes(case.design, row)
    tried = (_tried(case, row, change, before) for change in chain(_changes(case, row), sizes))
    return _best(help_ for help_ in tried if help_ is not None)


def _best(tried: Iterator[Help]) -> list[Help]:
    """The gentlest of all that relieve, and among them the first that settles it; no more is tried than that takes."""
    first = list(islice(tried, MOST))
    if any(map(_settles, first)):
        return first
    settles = next(filter(_settles, tried), None)
    return first if settles is None else [*first[: MOST - 1], settles]


def _settles(help_: Help) -> bool:
    return help_.use is not None and help_.use <= 1.0


def _rows(case: LoadCase) -> list[UseRow]:
    return [row for check in CHECKS for row in check(case)] + shafts.shafts(case)[0]


def _key(row: UseRow) -> tuple[str, str, str | None, str]:
    """What tells rows apart whose moment may be another after a change."""
    air = row.moment or ""
    return row.check, row.path, row.member, air if air == electrical.IN_THE_AIR else ""


def _tried(case: LoadCase, row: UseRow, change: Change, before: Mapping[Any, UseRow]) -> Help | None:
    """A change worked out; None where it does not relieve the row."""
    other = _changed(case, change)
    after = {_key(row): row for row in _rows(other)}
    row_after = after.get(_key(row))
    if row_after is None or row_after.use is None or (row.use is not None and row_after.use > RELIEF * row.use):
        return None
    worse = [row for key, row in after.items() if row.state == "over" and key in before and _worse(before[key], row)]
    text = f"{change.words}: {row_after.use:.2f}"
    text += f" ({_cost(case, other)})" if change.moves else ""
    if worse:
        text += f"; the {part_title(other.design, worse[0])} is over then"
    return Help(text, row_after.use, change.values)


def _worse(before: UseRow, after: UseRow) -> bool:
    return before.state != "over" and after.state == "over"


def _changed(case: LoadCase, change: Change) -> LoadCase:
    document = case.evaluation.documents[case.index]
    new = Document(change.design, document.values, document.assumed)
    if change.moves:
        return LoadCase(evaluate([new]))
    documents = tuple(new if i == case.index else document for i, document in enumerate(case.evaluation.documents))
    changed = LoadCase(replace(case.evaluation, documents=documents), case.index)
    changed.__dict__["moments"] = case.moments
    return changed


def _cost(case: LoadCase, other: LoadCase) -> str:
    """What a change does to top speed and push."""
    speeds = [each.evaluation.value("top_speed", each.index) or 0.0 for each in (case, other)]
    push = other.evaluation.value("pushing_force", other.index) or 0.0
    same = math.isclose(*speeds, rel_tol=SAME)
    return f"top speed {'as it is' if same else f'{speeds[1]:.3g} m/s'}, push {push:.3g} N"


def _changes(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """What might relieve a row, by its check."""
    if row.check in ("gear_tooth", "gear_pitting"):
        yield from _wider(case, row)
        yield from _stronger(case, row)
        yield from _teeth(case, row)
    elif row.check in ("belt_force", "chain_force"):
        yield from _wider(case, row)
        yield from _teeth(case, row)
    elif row.check == "radial_load":
        yield from _teeth_behind(case, row)
    elif row.check in ("belt_jump", "v_belt_slip"):
        yield from _tighter(case, row)
        yield from _teeth(case, row)
    elif row.check in ("motor_peak_current", "controller_peak"):
        yield from _limited(case, row)


def _stage(case: LoadCase, path: str) -> Stage:
    return next(through.stage for through in case.line.stages if through.path == path)


def _wider(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """As wide as eases it well, in whole millimetres; at most twice as wide as now."""
    stage: Any = _stage(case, row.path)
    if row.check == "chain_force" or not stage.width or row.use is None:
        return
    wanted = math.ceil(1e3 * stage.width * min(2.0, max(row.use / WELL, 1.0)) - 1e-9)
    if 1e-3 * wanted > stage.width:
        design = put_stage(case.design, row.path, replace(stage, width=1e-3 * wanted))
        yield Change(f"width {wanted} mm", design, {f"{row.path}.width": f"{wanted} mm"}, moves=False)


def _stronger(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """The weakest material that eases it, where the maker's own figure is not given."""
    stage: Any = _stage(case, row.path)
    end = row.member if row.member in ("driver", "driven") else "driven"
    flanks = row.check == "gear_pitting"
    given = getattr(stage, f"{end}_allowed_contact" if flanks else f"{end}_allowed_stress")
    if given is not None or row.demand is None:
        return
    stands = {name: m.contact if flanks else m.tooth for name, m in MATERIALS.items()}
    now = stands[getattr(stage, f"{end}_material") or USUAL_MATERIAL]
    better = sorted((stress, name) for name, stress in stands.items() if stress > now)
    enough = [(stress, name) for stress, name in better if stress >= row.demand] or better[-1:]
    for _, name in enough[:1]:
        design = put_stage(case.design, row.path, replace(stage, **{f"{end}_material": name}))
        yield Change(f"{name} for the {end}", design, {f"{row.path}.{end}_material": name}, moves=False)


def _teeth_behind(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """The same of the stage behind a motor."""
    first = case.first_behind(branch_of(row.path))
    if first is not None:
        yield from _teeth(case, replace(row, path=first.path))


def _teeth(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """A driver with one or two teeth more: less force at its rim, and another gearing."""
    stage = _stage(case, row.path)
    if not stage.members or not stage.members[0].form.toothed:
        return
    driver = stage.members[0]
    for teeth in (int(driver.measure) + 1, int(driver.measure) + 2):
        resized = stage.resized({driver.name: teeth})
        if resized is not None:
            words = f"{teeth}-tooth driver"
            values = {f"{row.path}.{driver.key}": teeth}
            yield Change(words, put_stage(case.design, row.path, resized), values, moves=True)


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
    loops = (*fit.loops[:place], replace(said, tension=float(wanted)), *fit.loops[place + 1 :])
    design = replace(case.design, fit=replace(fit, loops=loops))
    yield Change(f"tension {wanted} N", design, {f"fit.loops[{place}].tension": f"{wanted} N"}, moves=False)


def _limited(case: LoadCase, row: UseRow) -> Iterator[Change]:
    """A current limit of the controller that just holds."""
    b = branch_of(row.path)
    branch = case.design.drive.branches[b]
    if row.capacity is None:
        return
    controller = replace(branch.controller or Controller(), current_limit=row.capacity)
    design = put_branch(case.design, b, replace(branch, controller=controller))
    path = f"drive.branches[{b}].controller.current_limit"
    yield Change(f"current limit {row.capacity:.3g} A", design, {path: f"{row.capacity:.6g} A"}, moves=True)


def _rested(case: LoadCase, row: UseRow) -> list[Help]:
    b = branch_of(row.path)
    rest = case.rest_needed(case.warmth[b])
    if not rest:
        return []
    minutes = math.ceil(rest / 60.0)
    last = len(case.said.day)
    changes = {f"loads.day[{last}]": {"do": "rest", "for": f"{minutes} min"}} if last else {}
    return [Help(f"rest of {minutes} min more between heats", None, changes)]


def _rearranged(case: LoadCase, row: UseRow) -> list[Help]:
    """What the kind of stage would put in another order."""
    return [
        Help(words, None, {f"{row.path}.{key}": value for key, value in values.items()})
        for words, values in _stage(case, row.path).rearranged(row.check)
    ]
