"""What a search has found, as people look at it: rows with their lines, a field of points, and why the rest fails."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.base.tables.measures import NUMBERS, TARGETABLE
from ydrometer.document import names
from ydrometer.document.design import Document
from ydrometer.document.target import Target
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.targets import unbound
from ydrometer.loads.summary import in_short
from ydrometer.parts.names import called
from ydrometer.search.answer import design_of
from ydrometer.search.choices import StageSlot, slots, used
from ydrometer.search.classes import head_design
from ydrometer.search.groups import Group, grouped, leads
from ydrometer.search.known_stages import read_known
from ydrometer.search.nearest import nearest_changes
from ydrometer.search.on_plate import OnPlate
from ydrometer.search.option import Option
from ydrometer.search.option_row import OptionRow, OptionRows, Shown
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import SearchRequest

LISTED = 30
"""Rows of the list, at most."""
AT_FIRST = 10
"""Rows that are told at once where somebody waits, the others after them."""
IN_FIELD = 40
"""Options that stand in the field besides, at most."""
LESS_IS_BETTER = frozenset(
    {
        "time_to_distance",
        "time_to_speed",
        "sprint_and_stop",
        "stopping_distance",
        "pushing_bus_current",
        "launch_bus_current",
        "peak_bus_current",
        "cruise_bus_current",
        "energy_per_run",
        "price",
    }
)


@dataclass(frozen=True, slots=True)
class OptionMeasure:
    """A measure that options are compared by: what it refers to and is wanted to be, its bounds as lines in a field,
    and +1 where more is better, −1 where less is.
    """

    measure: str
    dimension: str
    at: float | None
    wanted: str
    lower: float | None
    upper: float | None
    better: int


@dataclass(frozen=True, slots=True)
class Failing:
    """How many of the options that do not meet all fail for a reason; `key` is a measure, or "held by …"."""

    key: str
    words: str
    count: int


@dataclass(frozen=True, slots=True)
class Addition:
    """One thing more that would help: what, whether all is met with it, and as a part for the bin where it is one."""

    words: str
    meets_all: bool
    shortfall: float
    part: dict[str, Any] | None


@dataclass(frozen=True, slots=True)
class Options:
    """The answer of a search.

    Attributes:
        combinations: that the limits leave. meeting_all: how many of them meet every target.
        measures: the targets first. present: the present design's values.
        rows: `listed` options that differ in what they do, the best first; those after them stand for the rest of the
        set, so that the field shows what lies around the best. whole: whether these are all the rows there are.
        failing: the commonest reason first.
        unpriced: parts counted as costing nothing.
        additions: what would help most, where nothing meets all.
    """

    combinations: int
    meeting_all: int
    measures: list[OptionMeasure]
    present: list[float | None]
    rows: list[OptionRow]
    listed: int
    whole: bool
    failing: list[Failing]
    unpriced: list[str]
    additions: list[Addition]


def options_of(request: SearchRequest, outcome: Outcome, *, at_first: bool = False) -> Options:
    """What was found, to be looked at.

    Args:
        request: what was searched for.
        outcome: what there is.
        at_first: only the first rows, which take a fifth of the time.
    """
    layouts = [slots(request, layout) for layout in request.body.layouts]
    own_targets = request.document.design.targets
    targets = [*own_targets, *(unbound(name) for name in NUMBERS if name not in {t.measure for t in own_targets})]
    plate = OnPlate(request, layouts)
    groups = _groups(request, layouts, outcome, targets, plate)
    listed = groups[: AT_FIRST if at_first else LISTED]
    kept = [*((group.options[0], group) for group in listed), *([] if at_first else _around(outcome, groups))]
    raw = [design_of(request, layouts[option.layout], option) for option, _ in kept]
    read = [_document(request, option, entry) for (option, _), entry in zip(kept, raw, strict=True)]
    evaluation = evaluate([request.document, *read])
    rows = OptionRows(request, layouts, evaluation, targets, plate)
    shown = [Shown(option, group, entry) for (option, group), entry in zip(kept, raw, strict=True)]
    return Options(
        combinations=outcome.combinations,
        meeting_all=outcome.meeting,
        measures=[_measure(request.document, target) for target in targets],
        present=rows.values(0, in_short(evaluation).known),
        rows=[rows.row(place, entry) for place, entry in enumerate(shown, start=1)],
        listed=len(listed),
        whole=not at_first,
        failing=[Failing(key, _reason(key), count) for key, count in outcome.failing.most_common()],
        unpriced=[
            called(request.raw["parts"][i]) for i in used(request, layouts) if request.body.parts[i].price is None
        ],
        additions=[
            Addition(entry["words"], entry["meets_all"], entry["shortfall"], entry.get("part"))
            for entry in nearest_changes(request, read[: len(listed)])
        ],
    )


def _document(request: SearchRequest, option: Option, raw: Mapping[str, Any]) -> Document:
    """An option's design: as reading the whole of it would give it, but only its stages are read."""
    layout = request.body.layouts[option.layout]
    design = head_design(request, layout, option.head, 0.0)
    if request.body.add_part_masses:
        design = replace(design, vehicle=replace(design.vehicle, mass=raw["vehicle"]["mass"]))
    branch, trunk = raw["drive"]["branches"][0]["stages"], raw["drive"]["stages"]
    branches = (replace(design.drive.branches[0], stages=read_known(branch)),)
    drive = replace(design.drive, branches=branches, stages=read_known(trunk))
    return replace(request.document, design=replace(design, drive=drive))


def _groups(
    request: SearchRequest,
    layouts: Sequence[list[StageSlot]],
    outcome: Outcome,
    shown: Sequence[Target],
    plate: OnPlate,
) -> list[Group]:
    """What was found, as options that differ in what they do."""
    compared = leads(outcome)
    read = [
        _document(request, lead.option, design_of(request, layouts[lead.option.layout], lead.option))
        for lead in compared
    ]
    return grouped(layouts, compared, evaluate(read), shown, plate) if read else []


def _around(outcome: Outcome, groups: Sequence[Group]) -> list[tuple[Option, None]]:
    """What lies around the list: groups that it has no room for, and the best of each stretch of overall ratios, evenly
    thinned where there are many.
    """
    listed = {option for group in groups[:LISTED] for option in group.options}
    others = [group.options[0] for group in groups[LISTED:]]
    others += [option for _, (_, option) in sorted(outcome.field.items()) if option not in listed]
    step = max(1, -(-len(others) // IN_FIELD))
    return [(option, None) for option in others[::step]]


def _measure(document: Document, target: Target) -> OptionMeasure:
    row = TARGETABLE[target.measure]
    at = target.about(document.design.run)
    wanted = target.lower is not None, target.upper is not None
    better = wanted[0] - wanted[1] if any(wanted) else (-1 if row.name in LESS_IS_BETTER else 1)
    return OptionMeasure(row.name, row.dimension, at, target.wanted, target.lower, target.upper, better)


def _reason(key: str) -> str:
    return f"will not start: {key}" if key.startswith("held by ") else f"miss {names.measure_name(key)}"
