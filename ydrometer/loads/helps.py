"""What would relieve a part: each worked out on the changed design, so that what is promised is true.

A change that does not touch the motion (a width, a material, a tension) is worked out on the same moments; another
number of teeth or another current limit on the design evaluated anew.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import islice
from typing import Any

from ydrometer.document.design import Document
from ydrometer.document.walk import branch_of
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads import electrical, limits, shafts, wires
from ydrometer.loads.change import Change
from ydrometer.loads.changes import changes
from ydrometer.loads.limits import LoadRows
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow
from ydrometer.loads.words import part_title

MOST = 3
"""Helps of one row that are told."""
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

    def tried(changes: Iterable[Change]) -> Iterator[tuple[Change, Help]]:
        for change in changes:
            help_ = _tried(case, row, change, before)
            if help_ is not None:
                yield change, help_

    first, all_of_them = _best(tried(changes(case, row)))
    if not first or any(map(_settles, first)):
        return first
    settles = next((help_ for _, help_ in tried(_together(all_of_them)) if _settles(help_)), None)
    return first if settles is None else [*first[: MOST - 1], settles]


def _best(tried: Iterator[tuple[Change, Help]]) -> tuple[list[Help], list[tuple[Change, Help]]]:
    """The gentlest of all that relieve, and among them the first that settles it; and all that were looked at.

    No more is tried than that takes.
    """
    looked_at = list(islice(tried, MOST))
    first = [help_ for _, help_ in looked_at]
    while not any(map(_settles, first)):
        following = next(tried, None)
        if following is None:
            return first, looked_at
        looked_at.append(following)
        if _settles(following[1]):
            return [*first[: MOST - 1], following[1]], looked_at
    return first, looked_at


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
    new = Document(change.apply(case.design), document.values, document.assumed)
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


def _together(tried: Sequence[tuple[Change, Help]]) -> Iterator[Change]:
    """Changes that relieve, two and more at once, each about something else: the one that relieves most first."""
    best, *others = sorted(tried, key=lambda entry: math.inf if entry[1].use is None else entry[1].use)
    together = best[0]
    for change, _ in others:
        if not change.values.keys() & together.values.keys():
            together = together.with_(change)
            yield together


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
    stage = next(through.stage for through in case.line.stages if through.path == row.path)
    return [
        Help(words, None, {f"{row.path}.{key}": value for key, value in values.items()})
        for words, values in stage.rearranged(row.check)
    ]
