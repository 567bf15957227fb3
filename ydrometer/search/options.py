"""What a search has found, as people look at it: rows with their lines, a field of points, and why the rest fails."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.base.tables.measures import TARGETABLE
from ydrometer.document import design, names
from ydrometer.document.changes import changes
from ydrometer.document.design import Design, Document
from ydrometer.document.stages import Stage
from ydrometer.document.target import Target
from ydrometer.document.walk import stages_with_paths
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.targets import Standing, unbound
from ydrometer.parts.names import called
from ydrometer.search.answer import design_of
from ydrometer.search.choices import NO_PART, Slot, slots, used
from ydrometer.search.classes import head_design
from ydrometer.search.cost import head_needs
from ydrometer.search.found import Found, Option
from ydrometer.search.nearest import nearest_changes
from ydrometer.search.request import SearchRequest

LISTED = 30
"""Rows of the list, at most."""
IN_FIELD = 40
"""Options that stand in the field besides, at most."""
SIZES = ("module", "diametral_pitch", "pitch")
LEFT_OPEN = ("belt_teeth", "links", "width", "profile")
LESS_IS_BETTER = frozenset({
    "time_to_distance", "time_to_speed", "sprint_and_stop", "stopping_distance", "pushing_bus_current",
    "launch_bus_current", "peak_bus_current", "cruise_bus_current", "energy_per_run", "price",
})  # fmt: skip


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
class Use:
    """A part that an option takes: how many are needed, how many of them have to be bought, and what one costs."""

    id: str
    name: str
    needed: int
    buy: int
    price: float | None


@dataclass(frozen=True, slots=True)
class Standings:
    """A target's margin and the word for it."""

    margin: float | None
    standing: Standing


@dataclass(frozen=True, slots=True)
class OptionRow:
    """One option.

    Attributes:
        words: its stages in words. ratio: overall, in the lowest gear. line: in miniature, of those in the list.
        values: in the order of the measures. targets: how each target stands.
        price: of what has to be bought. buy: how many parts that is. uses: the parts it takes.
        changes: from the present design to it, in words. design: as a design file.
        alike: options that differ from it only in the order of equal places.
    """

    words: str
    ratio: float
    line: LineDrawing | None
    values: list[float | None]
    targets: list[Standings]
    price: float
    buy: int
    uses: list[Use]
    changes: list[str]
    design: dict[str, Any]
    alike: int


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
        rows: the best options, `listed` of them in the order of the ranking; those after them stand for other
        overall ratios, so that the field shows what lies around the best. failing: the commonest reason first.
        unpriced: parts counted as costing nothing.
        additions: what would help most, where nothing meets all.
    """

    combinations: int
    meeting_all: int
    measures: list[OptionMeasure]
    present: list[float | None]
    rows: list[OptionRow]
    listed: int
    failing: list[Failing]
    unpriced: list[str]
    additions: list[Addition]


def options_of(request: SearchRequest, found: Found) -> Options:
    """What was found, to be looked at.

    Args:
        request: what was searched for.
        found: what there is.
    """
    layouts = [slots(request, layout) for layout in request.body.layouts]
    listed = _folded(request, layouts, [option for _, option in found.best])[:LISTED]
    kept = listed + _around(found, [option for option, _ in listed])
    raw = [design_of(request, layouts[option.layout], option) for option, _ in kept]
    read = [_document(request, option, entry) for (option, _), entry in zip(kept, raw, strict=True)]
    asked = request.document.design.targets
    targets = [*asked, *(unbound(name) for name in TARGETABLE if name not in {t.measure for t in asked})]
    evaluation = evaluate([request.document, *read])
    present = _present(request.raw["design"])
    rows = [
        _row(
            request,
            layouts[option.layout],
            option,
            alike,
            raw[i],
            evaluation,
            i + 1,
            targets,
            present,
            drawn=i < len(listed),
        )
        for i, (option, alike) in enumerate(kept)
    ]
    return Options(
        combinations=found.combinations,
        meeting_all=found.meeting,
        measures=[_measure(request.document, target) for target in targets],
        present=[_value(evaluation, target, 0, None) for target in targets],
        rows=rows,
        listed=len(listed),
        failing=[Failing(key, _reason(key), count) for key, count in found.failing.most_common()],
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
    made = head_design(request, layout, option.head, 0.0)
    if request.body.add_part_masses:
        made = replace(made, vehicle=replace(made.vehicle, mass=raw["vehicle"]["mass"]))
    branch, trunk = raw["drive"]["branches"][0]["stages"], raw["drive"]["stages"]
    branches = (replace(made.drive.branches[0], stages=design.read_stages(branch)),)
    drive = replace(made.drive, branches=branches, stages=design.read_stages(trunk))
    return replace(request.document, design=replace(made, drive=drive))


def _around(found: Found, listed: Sequence[Option]) -> list[tuple[Option, int]]:
    """The best of each stretch of overall ratios that the list does not show, evenly thinned where there are many."""
    others = [option for _, (_, option) in sorted(found.field.items()) if option not in listed]
    step = max(1, -(-len(others) // IN_FIELD))
    return [(option, 0) for option in others[::step]]


def _folded(request: SearchRequest, layouts: Sequence[list[Slot]], best: Sequence[Option]) -> list[tuple[Option, int]]:
    """Options without those that only have the same parts in other, equal places; with how many those are."""
    kept: dict[Any, Option] = {}
    alike: Counter[Any] = Counter()
    for option in best:
        places = sorted(
            (slot.choice.kind, end, int(slot.parts[chosen][end]))
            if slot.parts[chosen][0] != NO_PART
            else (slot.choice.kind, end, place if end == 0 else NO_PART)
            for place, (slot, chosen) in enumerate(zip(layouts[option.layout], option.chosen, strict=True))
            for end in (0, 1)
        )
        key = (option.head, tuple(places))
        kept.setdefault(key, option)
        alike[key] += 1
    return [(option, alike[key] - 1) for key, option in kept.items()]


@dataclass(frozen=True, slots=True)
class _Present:
    """Of the present design what every option is told against: itself without open sizes, and its tooth sizes."""

    bare: dict[str, Any]
    sizes: set[str]


def _row(
    request: SearchRequest, options: list[Slot], option: Option, alike: int, raw: dict[str, Any],
    evaluation: Evaluation, index: int, targets: Sequence[Target], present: _Present, *, drawn: bool,
) -> OptionRow:  # fmt: skip
    made = evaluation.documents[index].design
    judged = [evaluation.judge(target, index, price=option.price).verdict for target in made.targets]
    return OptionRow(
        words=_words(raw, made, present.sizes),
        ratio=evaluation.value("overall_ratio", index)[0],
        line=draw_line(made) if drawn else None,
        values=[_value(evaluation, target, index, option.price) for target in targets],
        targets=[Standings(verdict.margin, verdict.standing) for verdict in judged],
        price=option.price,
        buy=option.buy,
        uses=_uses(request, options, option),
        changes=changes(present.bare, _without_sizes(raw)),
        design=raw,
        alike=alike,
    )


def _present(raw: Mapping[str, Any]) -> _Present:
    return _Present(_without_sizes(raw), {str(stage[key]) for stage in _stages(raw) for key in SIZES if key in stage})


def _stages(raw: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The stages of a design of one branch, as typed, in the order of power."""
    drive = raw["drive"]
    return [*drive["branches"][0].get("stages", []), *drive.get("stages", [])]


def _without_sizes(raw: Mapping[str, Any]) -> dict[str, Any]:
    """A design of one branch without the sizes that a search leaves open, all its stages in the trunk."""
    drive = raw["drive"]
    stages = [{key: value for key, value in stage.items() if key not in LEFT_OPEN} for stage in _stages(raw)]
    return {**raw, "drive": {**drive, "branches": [{**drive["branches"][0], "stages": []}], "stages": stages}}


def _words(raw: Mapping[str, Any], made: Design, usual: set[str]) -> str:
    read = [stage for _, stage in stages_with_paths(made)]
    return " · ".join(_stage_words(typed, stage, usual) for typed, stage in zip(_stages(raw), read, strict=True))


def _stage_words(stage: dict[str, Any], made: Stage, usual: set[str]) -> str:
    """A stage as people say it, with its tooth size where that is not a usual one: "gears 14 : 56, 0.5 mm"."""
    noun = made.noun.removeprefix("toothed ")
    size = next((str(stage[key]) for key in SIZES if key in stage), "")
    return f"{noun} {made.told}" + (f", {size}" if size and size not in usual else "")


def _uses(request: SearchRequest, options: list[Slot], option: Option) -> list[Use]:
    units = request.document.design.drive.units
    needed: Counter[int] = Counter()
    for place, number in head_needs(request, option.head):
        needed[place] += number
    for slot, chosen in zip(options, option.chosen, strict=True):
        for place in slot.parts[chosen].tolist():
            needed[place] += units
    needed.pop(NO_PART, None)
    parts = request.body.parts
    return [
        Use(parts[i].id, called(request.raw["parts"][i]), number, max(0, number - parts[i].owned), parts[i].price)
        for i, number in needed.items()
    ]


def _measure(document: Document, target: Target) -> OptionMeasure:
    row = TARGETABLE[target.measure]
    at = target.about(document.design.run)
    wanted = target.lower is not None, target.upper is not None
    better = wanted[0] - wanted[1] if any(wanted) else (-1 if row.name in LESS_IS_BETTER else 1)
    return OptionMeasure(row.name, row.dimension, at, target.wanted, target.lower, target.upper, better)


def _value(evaluation: Evaluation, target: Target, index: int, price: float | None) -> float | None:
    if target.measure == "price":
        return price
    return evaluation.value_for(target, index)


def _reason(key: str) -> str:
    return f"will not start: {key}" if key.startswith("held by ") else f"miss {names.measure_name(key)}"
