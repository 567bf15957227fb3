"""From design documents to all their measures, and how the targets stand."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.tables.measures import ELSEWHERE, MEASURES
from ydrometer.document.design import Design, Document
from ydrometer.document.target import RUN_KEYS, Run, Target
from ydrometer.evaluation import driveline, targets
from ydrometer.motion import measures
from ydrometer.motion.measures import WORDS, Results, Wanted
from ydrometer.motion.plant import Array, Batch

Known = Mapping[str, float | None]
NOTHING: Known = {}


@dataclass(frozen=True, slots=True)
class TargetResult:
    """A target, the value it was compared with (SI) and how that stands."""

    target: Target
    verdict: targets.Verdict


@dataclass(frozen=True, slots=True)
class Group:
    """Designs of one shape, evaluated as one batch.

    `columns` says which column of the run's measures belongs to which distance, speed or time of a target's own;
    column 0 is that of the design's own run.
    """

    batch: Batch
    results: Results
    columns: dict[tuple[str, float], int]


@dataclass(frozen=True, slots=True)
class Evaluation:
    """Designs evaluated together, and one result for each, by the same index.

    Attributes:
        documents: the designs. groups: their batches. places: group and row of each design.
    """

    documents: tuple[Document, ...]
    groups: tuple[Group, ...]
    places: tuple[tuple[int, int], ...]

    def group(self, index: int) -> tuple[Group, int]:
        """The batch that holds a design, and its row there."""
        group, row = self.places[index]
        return self.groups[group], row

    def raw(self, name: str, index: int) -> Any:
        """A result of the kernels as it is, see `motion.measures.Results`."""
        group, row = self.group(index)
        return getattr(group.results, name)[row]

    def starts(self, index: int) -> bool:
        """Whether this design starts at all."""
        return bool(self.raw("held_by", index) == 0)

    def held_by(self, index: int) -> str:
        """What holds a design that does not start; empty where it does."""
        return str(WORDS[int(self.raw("held_by", index))])

    def value(self, name: str, index: int) -> Any:
        """A measure in SI: a number, a text, a list of one a branch, or None where it has no meaning."""
        if name in _DERIVED:
            return _plain(_DERIVED[name](self, index))
        if name == "overall_ratio":
            return [ratio for _, _, ratio in driveline.overall_ratios(self.documents[index].design)]
        raw_value = self.raw(name, index)
        if MEASURES[name].shape == "text":
            return None if math.isnan(raw_value) else str(WORDS[int(raw_value)]) or None
        if MEASURES[name].shape == "branches":
            return [_plain(entry) for entry in raw_value]
        return _plain(raw_value[0] if MEASURES[name].run else raw_value)

    def target_results(self, index: int, known: Known = NOTHING) -> list[TargetResult]:
        """How each target of this design stands; `known` as for `judge`."""
        design = self.documents[index].design
        return [self.judge(target, index, known) for target in design.targets]

    def value_for(self, target: Target, index: int) -> float | None:
        """The measure a target names, at the target's own distance, speed or time."""
        if target.measure in ELSEWHERE:
            return None
        key = MEASURES[target.measure].run
        own = getattr(target.run, key) if key else None
        if own is None:
            value: float | None = self.value(target.measure, index)
            return value
        column = self.group(index)[0].columns[key, own]
        return _plain(self.raw(target.measure, index)[column])

    def judge(self, target: Target, index: int, known: Known = NOTHING) -> TargetResult:
        """How a target stands for the design at `index`.

        Args:
            target: of it, or of another one.
            index: of the design.
            known: values by measure that an evaluation alone cannot tell, as far as somebody else could.
        """
        if target.measure in ELSEWHERE:
            return TargetResult(target, targets.judge(target, known.get(target.measure), runs=True))
        return TargetResult(target, targets.judge(target, self.value_for(target, index), runs=self.starts(index)))


def _endurance(evaluation: Evaluation, index: int) -> float:
    supply = evaluation.documents[index].design.drive.supply
    charge = supply.charge if supply else None
    drawn = float(evaluation.raw("cruise_bus_current", index))
    return math.nan if charge is None or not drawn > 0.0 else charge / drawn


_DERIVED: dict[str, Callable[[Evaluation, int], float]] = {
    "no_load_wheel_rpm": lambda e, i: e.raw("no_load_speed", i) / e.documents[i].design.vehicle.wheel_diameter * 2.0,
    "endurance_at_top": _endurance,
    "range_at_top": lambda e, i: _endurance(e, i) * e.raw("top_speed", i),
    "price": lambda e, i: math.nan,  # known once parts with prices are
}


def evaluate(documents: Sequence[Document]) -> Evaluation:
    """Evaluate designs, those of one shape in one batch.

    Args:
        documents: at least one.
    """
    shapes = [driveline.shape(document.design) for document in documents]
    order = list(dict.fromkeys(shapes))
    members = [[d.design for d, shape in zip(documents, shapes, strict=True) if shape == wanted] for wanted in order]
    places, rows = [], dict.fromkeys(order, 0)
    for shape in shapes:
        places.append((order.index(shape), rows[shape]))
        rows[shape] += 1
    return Evaluation(tuple(documents), tuple(map(evaluate_group, members)), tuple(places))


def evaluate_group(designs: Sequence[Design]) -> Group:
    """Evaluate designs of one shape as one batch."""
    batch = driveline.assemble(designs)
    outputs: dict[str, Array] = {}
    columns: dict[tuple[str, float], int] = {}
    for key in RUN_KEYS:
        own = sorted({getattr(t.run, key) for d in designs for t in d.targets} - {None})
        outputs[key] = np.array([[_wanted(design.run, key), *own] for design in designs])
        columns |= {(key, value): place for place, value in enumerate(own, start=1)}
    wanted = Wanted(outputs["distance"], outputs["speed"], outputs["time"])
    return Group(batch, measures.measure(batch, wanted), columns)


def _wanted(run: Run, key: str) -> float:
    value = getattr(run, key)
    return math.nan if value is None else float(value)


def _plain(entry: Any) -> float | None:
    number = float(entry)
    return number if math.isfinite(number) else None
