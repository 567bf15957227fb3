"""The question turned round: for which reduction, wheel, mass or number of motors a target is met.

One unknown is let run over all that it could be; where the target is met is found as ranges, their edges solved for;
and beside each edge stand the nearest real parts.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.stages import Stage, of_ratio, stage_efficiency
from ydrometer.document.target import Target
from ydrometer.document.walk import stage_at, stages_with_paths
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.sweep import with_stage
from ydrometer.evaluation.variants import series_of, with_count, with_series, with_vehicle
from ydrometer.questions.candidates import Candidate, Sought, candidates, taking

SAMPLES = 96
"""Values at which a continuous unknown is looked at first; a range narrower than their spacing can be missed."""
SPLITS = 9
ROUNDS = 8
"""Each edge is split so often, so many times: 96 samples over a factor of 100 come to 1e-9 of the value."""
SPAN = 12.0
"""Factor by which a continuous unknown is looked at below and above the present value."""
MOST_COUNT = 64


@dataclass(frozen=True, slots=True)
class Range:
    """Where the target is met, both ends included; an end is None where it goes on beyond what was looked at."""

    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class Real:
    """A real part next to an edge.

    Attributes:
        words: what it is. side: "below" or "above" the edge. unknown: what it makes of the unknown.
        value: the measure with it. met: whether the target is. changes: what to put where in the document.
        part: its id in the bin, empty where it is in none.
    """

    words: str
    side: str
    unknown: float
    value: float | None
    met: bool
    changes: dict[str, Any]
    part: str


@dataclass(frozen=True, slots=True)
class Inverse:
    """The answer: in which ranges the target is met, the present value of the unknown, and real parts beside the edges.

    `dimension` is that of the measure; `whole` says that the unknown is a number of things.
    """

    unknown: Sought
    measure: str
    dimension: str
    wanted: str
    present: float
    present_met: bool
    whole: bool
    ranges: list[Range]
    real: list[Real]


def unknowns(document: Document) -> list[Sought]:
    """What can be asked for in a design."""
    its_design = document.design
    every_unknown = [
        Sought("reduction", f"reduction of the {_named(stage)}", "ratio", path)
        for path, stage in stages_with_paths(its_design)
        if not stage.several_speeds
    ]
    every_unknown += [
        Sought("wheel_diameter", "wheel", "length", ""),
        Sought("mass", "mass of the vehicle", "mass", ""),
        Sought("count", "number of motors or engines", "ratio", ""),
    ]
    if series_of(document) is not None:
        every_unknown.append(Sought("cells", "number of cells in series", "ratio", ""))
    return every_unknown


def _named(stage: Stage) -> str:
    """A stage as a question names it."""
    return f"{stage.noun} {stage.sizes_words}" if stage.members else stage.noun


def inverse(
    raw: Mapping[str, Any], key: str, path: str, target: Mapping[str, Any], parts: Sequence[Mapping[str, Any]] = ()
) -> Inverse:
    """For which values of one unknown a target is met.

    Args:
        raw: the design document.
        key: of the unknown, see `unknowns`.
        path: of its stage, empty where it has none.
        target: as in a document.
        parts: documents of the bin's parts, from which the nearest real ones are taken.

    Raises:
        DocumentError: faults in the design or the target, or no such unknown.
    """
    document = design.read({**raw, "targets": [target]})
    wanted = document.design.targets[0]
    unknown = next((u for u in unknowns(document) if (u.key, u.path) == (key, path)), None)
    if unknown is None:
        raise DocumentError([Fault("unknown", f'"{key[:40]}" at "{path[:60]}"', "ask for what the design has")])
    present = _present(document, unknown)
    whole = key in ("count", "cells")
    if whole:
        values = np.arange(1.0, MOST_COUNT + 1.0)
        met = _met(document, unknown, wanted, values)
        ranges = [Range(a + 1.0, None if b == len(values) - 1 else b + 1.0) for a, b in _runs(met)]
    else:
        ranges = _solved(document, unknown, wanted, present)
    return Inverse(
        unknown=unknown,
        measure=wanted.measure,
        dimension=MEASURES[wanted.measure].dimension,
        wanted=wanted.wanted,
        present=present,
        present_met=bool(_met(document, unknown, wanted, np.array([present]))[0]),
        whole=whole,
        ranges=ranges,
        real=[] if whole else list(_real(raw, document, unknown, wanted, ranges, parts)),
    )


def _present(document: Document, unknown: Sought) -> float:
    its_design = document.design
    if unknown.key == "reduction":
        stage = stage_at(its_design, unknown.path)
        assert stage is not None  # it came from the design's own stages
        return float(stage.ratio)
    if unknown.key == "count":
        return float(its_design.drive.branches[0].count)
    if unknown.key == "cells":
        return float(series_of(document) or 0)
    return float(getattr(its_design.vehicle, unknown.key))


def _variant(document: Document, unknown: Sought, value: float) -> Document:
    """The design with another value of the unknown."""
    if unknown.key == "reduction":
        stage = stage_at(document.design, unknown.path)
        assert stage is not None
        return with_stage(document, unknown.path, _with_ratio(stage, value))
    if unknown.key == "count":
        return with_count(document, int(value))
    if unknown.key == "cells":
        return with_series(document, int(value))
    return with_vehicle(document, **{unknown.key: value})


def _with_ratio(stage: Stage, ratio: float) -> Stage:
    """The stage with that ratio where it is free; else a box of that ratio stands for it, as teeth come in whole
    numbers only.
    """
    return stage.with_ratio(ratio) or of_ratio(ratio, stage_efficiency(stage))


def _judged(documents: Sequence[Document], target: Target) -> list[tuple[float | None, bool]]:
    """The measure and whether it is met, for each design."""
    evaluation = evaluate(documents)
    verdicts = [evaluation.judge(target, i).verdict for i in range(len(documents))]
    return [(verdict.value, bool(verdict.met)) for verdict in verdicts]


def _met(document: Document, unknown: Sought, target: Target, values: Any) -> list[bool]:
    return [met for _, met in _judged([_variant(document, unknown, float(v)) for v in values], target)]


def _runs(met: Sequence[bool]) -> Iterator[tuple[int, int]]:
    """First and last place of each stretch in which it is met."""
    start = None
    for place, now in enumerate([*met, False]):
        if now and start is None:
            start = place
        elif not now and start is not None:
            yield start, place - 1
            start = None


def _solved(document: Document, unknown: Sought, target: Target, present: float) -> list[Range]:
    values = np.geomspace(present / SPAN, present * SPAN, SAMPLES)
    met = _met(document, unknown, target, values)
    edges = [place for place in range(1, SAMPLES) if met[place] != met[place - 1]]
    solved = _edges(lambda v: _met(document, unknown, target, v), [(values[e - 1], values[e]) for e in edges], met[0])
    bounds: list[float | None] = ([None] if met[0] else []) + list(solved) + ([None] if met[-1] else [])
    return [Range(low, high) for low, high in zip(bounds[::2], bounds[1::2], strict=True)]


def _edges(met: Callable[[Any], list[bool]], cells: Sequence[tuple[float, float]], begins_met: bool) -> list[float]:
    """Where it changes in each cell: of the two sides the one on which it is met."""
    lows, highs = np.array([c[0] for c in cells]), np.array([c[1] for c in cells])
    if not len(cells):
        return []
    rising = np.array([(place % 2 == 0) != begins_met for place in range(len(cells))])
    for _ in range(ROUNDS):
        inner = np.linspace(lows, highs, SPLITS + 1, axis=1)
        known = np.array(met(inner.ravel())).reshape(inner.shape)
        # The first value whose answer differs from that at the lower end of its cell.
        change = np.argmax(known != ~rising[:, None], axis=1).clip(1)
        rows = np.arange(len(cells))
        lows, highs = inner[rows, change - 1], inner[rows, change]
    return [float(high if up else low) for low, high, up in zip(lows, highs, rising, strict=True)]


def _real(
    raw: Mapping[str, Any],
    document: Document,
    unknown: Sought,
    target: Target,
    ranges: Sequence[Range],
    parts: Sequence[Mapping[str, Any]],
) -> Iterator[Real]:
    """The nearest real parts below and above each edge."""
    known = list(candidates(document, unknown, parts))
    edges = sorted({edge for r in ranges for edge in (r.low, r.high) if edge is not None})
    chosen: dict[int, tuple[str, Candidate]] = {}
    for edge in edges:
        below = [c for c in known if c.value <= edge]
        above = [c for c in known if c.value > edge]
        if below:
            best = max(below, key=lambda c: c.value)
            chosen.setdefault(id(best), ("below", best))
        if above:
            best = min(above, key=lambda c: c.value)
            chosen.setdefault(id(best), ("above", best))
    judged = _judged([c.document for _, c in chosen.values()], target) if chosen else []
    for (side, c), (value, met) in zip(chosen.values(), judged, strict=True):
        yield Real(c.words, side, c.value, value, met, taking(raw, unknown.path, c), c.part)
