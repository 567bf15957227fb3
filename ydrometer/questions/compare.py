"""Designs side by side: their measures, how they stand against one set of targets, what differs, and their forces."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import Reading
from ydrometer.base.tables.measures import OF_LOADS, TARGETABLE
from ydrometer.document import design
from ydrometer.document.changes import changes
from ydrometer.document.target import Target
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.evaluation import curves
from ydrometer.evaluation.curves import ForceCurve
from ydrometer.evaluation.evaluate import NOTHING, Evaluation, Known, evaluate
from ydrometer.evaluation.readout import READOUT, shown_targets
from ydrometer.evaluation.targets import Standing, unbound
from ydrometer.loads.summary import in_short
from ydrometer.trials.measured import Measured
from ydrometer.trials.tried import essence

MOST = 5
"""Designs side by side."""
MORE = ("launch_bus_current", "stopping_distance", "energy_per_run", "range_at_top")
"""Measures beside those of the readout."""


@dataclass(frozen=True, slots=True)
class ComparedRow:
    """A measure as the first design asks for it: its name and kind, what it refers to, and the bound in words."""

    measure: str
    dimension: str
    at: float | None
    wanted: str


@dataclass(frozen=True, slots=True)
class ComparedValue:
    """A value, SI, how it stands against the first design's target, and what was measured, where it was."""

    value: float | None
    standing: Standing
    measured: float | None


@dataclass(frozen=True, slots=True)
class ComparedDesign:
    """One design.

    Attributes:
        name: as given. ratio: overall, of the first branch in the lowest gear. starts: whether it does.
        values: in the order of the rows. changes: from the first design to this one, in words.
        worst: the sentence of its loads that matters.
    """

    name: str
    ratio: float
    starts: bool
    values: list[ComparedValue]
    worst: str
    changes: list[str]
    force: ForceCurve
    line: LineDrawing


@dataclass(frozen=True, slots=True)
class Comparison:
    """Up to five designs by the same rows."""

    rows: list[ComparedRow]
    columns: list[ComparedDesign]


def compare(
    documents: Sequence[Mapping[str, Any]], measured: Sequence[Measured] = (), prices: Sequence[float] = ()
) -> Comparison:
    """Compare designs with the first of them.

    Args:
        documents: one to five raw documents.
        measured: what was measured with any of them.
        prices: of each, where somebody knows them.

    Raises:
        DocumentError: too many or none, or faults in one, their paths led by its number.
    """
    if not 1 <= len(documents) <= MOST:
        raise DocumentError([Fault("documents", f"{len(documents)} given", f"give 1 to {MOST}")])
    read, seen = [], Reading()
    for number, raw in enumerate(documents):
        try:
            read.append(design.read(raw))
        except DocumentError as error:
            seen.take(error, f"documents[{number}]")
    seen.refuse()
    first = read[0].design
    # All are asked for the same: the first one's targets and run.
    alike = [replace(d, design=replace(d.design, targets=first.targets, run=first.run)) for d in read]
    evaluation = evaluate(alike)
    targets = [target for _, target in shown_targets(first)]
    named = {target.measure for target in targets}
    priced = ("price",) if prices else ()
    targets += [unbound(name) for name in (*READOUT, *MORE, *priced, *OF_LOADS) if name not in named]
    rows = [_row(first, target) for target in targets]
    known: list[Known] = [{"price": price} for price in prices] or [NOTHING] * len(read)
    columns = [
        _column(evaluation, i, targets, documents, _own(measured, documents[i]), known[i]) for i in range(len(read))
    ]
    return Comparison(rows, columns)


def _row(first: design.Design, target: Target) -> ComparedRow:
    row = TARGETABLE[target.measure]
    return ComparedRow(target.measure, row.dimension, target.about(first.run), target.wanted)


def _own(measured: Sequence[Measured], document: Mapping[str, Any]) -> list[Measured]:
    """What was measured with one design."""
    own = essence(document)
    return [entry for entry in measured if entry.design == own]


def _column(
    evaluation: Evaluation,
    index: int,
    targets: Sequence[Target],
    documents: Sequence[Mapping[str, Any]],
    measured: Sequence[Measured],
    known: Known,
) -> ComparedDesign:
    its_design = evaluation.documents[index].design
    short = in_short(evaluation, index)
    verdicts = [evaluation.judge(target, index, {**short.known, **known}).verdict for target in targets]
    return ComparedDesign(
        name=its_design.name,
        ratio=evaluation.value("overall_ratio", index)[0],
        starts=evaluation.starts(index),
        values=[
            ComparedValue(
                verdict.value, verdict.standing, _measured(measured, target.measure, target.about(its_design.run))
            )
            for target, verdict in zip(targets, verdicts, strict=True)
        ],
        worst=short.words,
        changes=changes(documents[0], documents[index]) if index else [],
        force=curves.force_curve(evaluation, index),
        line=draw_line(its_design),
    )


def _measured(own: Sequence[Measured], measure: str, at: float | None) -> float | None:
    return next((entry.mean for entry in own if entry.answers(measure, at)), None)
