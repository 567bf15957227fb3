"""From design documents to results: all measures, how the targets stand, and what deserves a word."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.design import RUN_KEYS, Design, Document, Run, Target
from ydrometer.document.sources import DISAGREEMENT, Motor, motor_line
from ydrometer.evaluation import driveline, targets
from ydrometer.evaluation.cautions import cautions
from ydrometer.evaluation.rotation import senses
from ydrometer.motion import measures
from ydrometer.motion.measures import WORDS, Results, Wanted
from ydrometer.motion.plant import Array, Batch

RPM = 60.0 / (2.0 * math.pi)
"""Revolutions per minute in one rad/s."""


@dataclass(frozen=True, slots=True)
class Message:
    """Something the builder should know, and what it is about."""

    level: str
    path: str
    text: str


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
        found = self.raw(name, index)
        if MEASURES[name].shape == "text":
            return None if math.isnan(found) else str(WORDS[int(found)]) or None
        if MEASURES[name].shape == "branches":
            return [_plain(entry) for entry in found]
        return _plain(found[0] if MEASURES[name].run else found)

    def target_results(self, index: int) -> list[TargetResult]:
        """How each target of this design stands."""
        design = self.documents[index].design
        return [self.judge(target, index) for target in design.targets]

    def value_for(self, target: Target, index: int) -> float | None:
        """The measure a target names, at the target's own distance, speed or time."""
        key = MEASURES[target.measure].run
        own = getattr(target.run, key) if key else None
        if own is None:
            made: float | None = self.value(target.measure, index)
            return made
        column = self.group(index)[0].columns[key, own]
        return _plain(self.raw(target.measure, index)[column])

    def judge(self, target: Target, index: int, price: float | None = None) -> TargetResult:
        """How a target stands for the design at `index`; `price` where that is known."""
        if target.measure == "price":
            return TargetResult(target, targets.judge(target, price, runs=True))
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
    asked: dict[str, Array] = {}
    columns: dict[tuple[str, float], int] = {}
    for key in RUN_KEYS:
        own = sorted({getattr(t.run, key) for d in designs for t in d.targets} - {None})
        asked[key] = np.array([[_wanted(design.run, key), *own] for design in designs])
        columns |= {(key, value): place for place, value in enumerate(own, start=1)}
    wanted = Wanted(asked["distance"], asked["speed"], asked["time"])
    return Group(batch, measures.measure(batch, wanted), columns)


Bands = dict[str, dict[str, Any]]
"""By measure, what a result says of how sure it is: low, high and spread_from."""


def result(evaluation: Evaluation, index: int = 0, bands: Bands | None = None) -> dict[str, Any]:
    """The result document of one design, as the command line prints it; with `bands`, how sure each number is."""
    state: dict[str, Any] = {"state": "ok"}
    if not evaluation.starts(index):
        state = {"state": "will not start", "held_by": evaluation.held_by(index)}
    known = bands or {}
    return {
        "format": "ydrometer-result",
        "version": 1,
        **state,
        "measures": {name: {**measure(evaluation, name, index), **known.get(name, {})} for name in MEASURES},
        "assumed": list(evaluation.documents[index].assumed),
        "messages": [{"level": m.level, "path": m.path, "text": m.text} for m in messages(evaluation, index)],
        "targets": [target(entry) for entry in evaluation.target_results(index)],
    }


def measure(evaluation: Evaluation, name: str, index: int) -> dict[str, Any]:
    """A measure of one design as the result document has it: value and unit."""
    row = MEASURES[name]
    if row.shape == "ratios":
        ratios = driveline.overall_ratios(evaluation.documents[index].design)
        return {"value": [{"branch": b, "gear": g, "value": ratio} for b, g, ratio in ratios], "unit": row.unit}
    value = evaluation.value(name, index)
    if row.unit == "rpm":
        value = [in_rpm(entry) for entry in value] if isinstance(value, list) else in_rpm(value)
    return {"value": value, "unit": row.unit}


def target(entry: TargetResult) -> dict[str, Any]:
    """A target as the result document has it."""
    verdict, row = entry.verdict, MEASURES[entry.target.measure]
    return {
        "measure": row.name,
        "wanted": entry.target.wanted,
        "value": in_rpm(verdict.value) if row.unit == "rpm" else verdict.value,
        "met": verdict.met,
        "margin": verdict.margin,
    }


def in_rpm(speed: float | None) -> float | None:
    """rad/s as revolutions per minute."""
    return None if speed is None else speed * RPM


def messages(evaluation: Evaluation, index: int = 0) -> list[Message]:
    """What deserves a word about this design, the weightiest first."""
    found: list[Message] = []
    design = evaluation.documents[index].design
    if not evaluation.starts(index):
        found.append(_held(evaluation.held_by(index)))
    elif math.isinf(evaluation.raw("top_speed", index)):
        found.append(Message("warning", "conditions.grade", "Nothing holds it back on this slope: it gathers speed "
                             "without end, so the run has no figures."))  # fmt: skip
    if evaluation.starts(index) and math.isnan(evaluation.raw("stopping_distance", index)):
        found.append(Message("warning", "vehicle.brake_force", "The slope beats the brakes: it will not stop."))
    found += _turning(design)
    if evaluation.raw("lifts", index):
        found.append(Message("warning", "vehicle.cg_height", "The front wheels lift before the tyres slip."))
    speeds = evaluation.value("motor_speed_at_top", index)
    for b, branch in enumerate(design.drive.branches):
        path = f"drive.branches[{b}].source"
        if isinstance(branch.source, Motor):
            found += _disagreement(branch.source, path)
        found += _over_speed(branch.source.max_speed, speeds[b], path)
    top, stop = (evaluation.value(name, index) for name in ("top_speed", "stopping_distance"))
    return found + [Message("caution", c.path, c.text) for c in cautions(design, top, stop)]


def _turning(design: Design) -> Iterator[Message]:
    turning = senses(design)
    for b in turning.against:
        yield Message("warning", f"drive.branches[{b}].source",
                      f"Branch {b + 1} turns against branch 1 where they join: reverse one of them.")  # fmt: skip
    if not turning.known:
        yield Message("note", "drive", "Which way the wheels turn depends on how the bevel or worm is mounted: try it "
                      "with the wheels off the ground.")  # fmt: skip
    elif not turning.against and not turning.forwards:
        yield Message("warning", "drive", "As drawn the vehicle would run backwards.")


def _held(reason: str) -> Message:
    if reason == "torque":
        return Message("warning", "drive", "It will not start: the drive is too weak for the resistance.")
    return Message("warning", "vehicle.grip", "It will not start: the tyres hold too little for the resistance.")


def _disagreement(motor: Motor, path: str) -> Iterator[Message]:
    line = motor_line(motor)
    if line.disagreement > DISAGREEMENT:
        yield Message(
            "warning",
            f"{path}.bench_points",
            f"The five figures do not agree: they make torque per ampere {line.kt:.4g} N·m/A but volts per "
            f"rad/s {line.ke:.4g}, and the two should be equal. Check nominal_voltage, free_speed, "
            "free_current, stall_torque and stall_current.",
        )


def _over_speed(most: float | None, speed: float | None, path: str) -> Iterator[Message]:
    if most is not None and speed is not None and speed > most:
        yield Message(
            "warning",
            f"{path}.max_speed",
            f"At top speed it turns {speed * RPM:.0f} rpm, above its {most * RPM:.0f} rpm. "
            "Stay below what its maker allows.",
        )


def _wanted(run: Run, key: str) -> float:
    value = getattr(run, key)
    return math.nan if value is None else float(value)


def _plain(entry: Any) -> float | None:
    number = float(entry)
    return number if math.isfinite(number) else None
