"""Which single addition would help most: a tooth count not in the bin, one source more, one cell more, another wheel.

Each is tried on the best options found: exact for those, and so a hint, not a proof, for all others.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ydrometer.document.design import Document
from ydrometer.document.stages import Stage
from ydrometer.document.walk import own_stages, trunk_stages
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.sweep import with_wheels
from ydrometer.evaluation.variants import series_of, with_count, with_series, with_vehicle
from ydrometer.parts.fitting import SAME_SIZE
from ydrometer.parts.kinds import RoadWheelPart
from ydrometer.search.classes import LEAST_MARGIN, MOST_MARGIN, OF_THE_RUN
from ydrometer.search.layout import PAIRS
from ydrometer.search.request import SearchRequest

TRIED_ON = 3
"""Best options on which additions are tried."""
TOLD = 5
TEETH = range(8, 121)
HELPS = 1e-9

Addition = tuple[dict[str, Any], Document]


def nearest_changes(request: SearchRequest, best: Sequence[Document]) -> list[dict[str, Any]]:
    """The additions that would help most, the best first; none that would not help.

    Args:
        request: what was searched for.
        best: designs of the best options, the best first.
    """
    if not best or not request.targets:
        return []
    base = evaluate(list(best[:TRIED_ON]))
    least = min(_key(request, base, i) for i in range(len(base.documents)))
    if least[0] == 0.0:
        return []
    tried = [addition for document in base.documents for addition in _additions(request, document)]
    evaluation = evaluate([document for _, document in tried])
    nearest: dict[str, tuple[tuple[float, float], dict[str, Any]]] = {}
    for i, (entry, _) in enumerate(tried):
        key = _key(request, evaluation, i)
        words = entry["words"]
        if key[0] < least[0] - HELPS and (words not in nearest or key < nearest[words][0]):
            nearest[words] = key, {**entry, "shortfall": key[0], "meets_all": key[0] == 0.0}
    return [entry for _, entry in sorted(nearest.values(), key=lambda pair: pair[0])][:TOLD]


def _additions(request: SearchRequest, document: Document) -> Iterator[Addition]:
    design = document.design
    for path, stage in (*own_stages(design, 0), *trunk_stages(design)):
        if stage.exact_ratio is not None and stage.kind in PAIRS:
            yield from _teeth(request, document, path, stage)
    count = design.drive.branches[0].count
    words = f"{count + 1} sources instead of {count}"
    yield {"kind": "count", "words": words, "count": count + 1}, with_count(document, count + 1)
    series = series_of(document)
    if series is not None:
        words = f"{series + 1} cells in series"
        yield {"kind": "cells", "words": words, "series": series + 1}, with_series(document, series + 1)
    for part in request.body.parts:
        if isinstance(part, RoadWheelPart):
            entry = {"kind": "wheel", "words": f"the wheel {part.id}", "id": part.id}
            yield entry, with_vehicle(document, wheel_diameter=part.diameter)


def _teeth(request: SearchRequest, document: Document, path: str, stage: Stage) -> Iterator[Addition]:
    form = PAIRS[stage.kind].form
    known: list[tuple[int, Any]] = request.of_kind(form.part)
    kind, size, key = form.part, stage.tooth_size, form.size_keys[0]
    in_bin = {part.teeth for _, part in known if size is None or abs(part.tooth_size - size) <= SAME_SIZE * size}
    for end in ("driver", "driven"):
        for teeth in TEETH:
            changed = None if teeth in in_bin else with_wheels(document, path, {end: teeth})
            if changed is not None:
                words = f"a {kind} of {teeth} teeth as {end}"
                part = {"kind": kind, "teeth": teeth, **({key: f"{size * 1e3:.9g} mm"} if size else {})}
                yield {"kind": kind, "words": words, "end": end, "teeth": teeth, "part": part}, changed


def _key(request: SearchRequest, evaluation: Evaluation, index: int) -> tuple[float, float]:
    """The first two keys of the ranking; a target on price is left out, since nobody knows the addition's."""
    first = second = 0.0
    for target in request.targets:
        if target.measure == "price":
            continue
        margin = evaluation.judge(target, index).verdict.margin
        if margin is None or (target.measure in OF_THE_RUN and not evaluation.starts(index)):
            margin = LEAST_MARGIN
        margin = min(MOST_MARGIN, max(LEAST_MARGIN, margin))
        weight = request.weight(target.measure)
        first += weight * max(0.0, -margin) ** 2
        second -= weight * margin
    return first, second
