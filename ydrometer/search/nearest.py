"""Which single addition would help most: a tooth count not in the bin, one source more, one cell more, another wheel.

Each is tried on the best options found: exact for those, and so a hint, not a proof, for all others.
"""

from __future__ import annotations

import copy
from collections.abc import Iterator, Sequence
from typing import Any

from ydrometer import design
from ydrometer.design import Document
from ydrometer.errors import DocumentError
from ydrometer.evaluate import Evaluation, evaluate
from ydrometer.search.classes import LEAST_MARGIN, MOST_MARGIN, OF_THE_RUN
from ydrometer.search.parts import WheelPart
from ydrometer.search.request import SearchRequest

TRIED_ON = 5
"""Best options on which additions are tried."""
TOLD = 5
TEETH = range(8, 121)
PAIRED = ("gear", "belt", "chain")
HELPS = 1e-9


def nearest_changes(request: SearchRequest, best: Sequence[dict[str, Any]]) -> list[dict[str, Any]]:
    """The additions that would help most, the best first; none that would not help."""
    if not best or not request.document.design.targets:
        return []
    tried = [entry for raw in best[:TRIED_ON] for entry in _additions(request, raw)]
    read = [(entry, document) for entry, document in ((e, _read(raw)) for e, raw in tried) if document is not None]
    base = [document for document in (_read(raw) for raw in best[:TRIED_ON]) if document is not None]
    evaluation = evaluate([*base, *(document for _, document in read)])
    least = min(_key(request, evaluation, i) for i in range(len(base)))
    found: dict[str, tuple[tuple[float, float], dict[str, Any]]] = {}
    for i, (entry, _) in enumerate(read):
        key = _key(request, evaluation, len(base) + i)
        words = entry["words"]
        if key[0] < least[0] - HELPS and (words not in found or key < found[words][0]):
            found[words] = key, {**entry, "shortfall": key[0], "meets_all": key[0] == 0.0}
    return [entry for _, entry in sorted(found.values(), key=lambda pair: pair[0])][:TOLD]


def _additions(request: SearchRequest, raw: dict[str, Any]) -> Iterator[tuple[dict[str, Any], dict[str, Any]]]:
    drive = raw["drive"]
    for where in (drive["branches"][0]["stages"], drive["stages"]):
        for place, stage in enumerate(where):
            if stage["kind"] in PAIRED:
                yield from _teeth(request, raw, where, place)
    more = copy.deepcopy(raw)
    count = more["drive"]["branches"][0]["count"] + 1
    more["drive"]["branches"][0]["count"] = count
    yield {"kind": "count", "words": f"{count} sources instead of {count - 1}", "count": count}, more
    cells = (drive.get("supply") or {}).get("cells")
    if cells:
        longer = copy.deepcopy(raw)
        longer["drive"]["supply"]["cells"]["series"] = cells["series"] + 1
        yield (
            {"kind": "cells", "words": f"{cells['series'] + 1} cells in series", "series": cells["series"] + 1},
            longer,
        )
    for part in request.body.parts:
        if isinstance(part, WheelPart):
            other = copy.deepcopy(raw)
            other["vehicle"]["wheel_diameter"] = part.diameter
            yield {"kind": "wheel", "words": f"the wheel {part.id}", "id": part.id}, other


def _teeth(
    request: SearchRequest, raw: dict[str, Any], where: list[dict[str, Any]], place: int
) -> Iterator[tuple[dict[str, Any], dict[str, Any]]]:
    kind = where[place]["kind"]
    in_bin = {getattr(part, "teeth", None) for part in request.body.parts if part.kind == _PART[kind]}
    trunk = where is raw["drive"]["stages"]
    for end in ("driver", "driven"):
        for teeth in TEETH:
            if teeth in in_bin:
                continue
            made = copy.deepcopy(raw)
            stages = made["drive"]["stages"] if trunk else made["drive"]["branches"][0]["stages"]
            stages[place][f"{end}_teeth"] = teeth
            words = f"a {_PART[kind]} of {teeth} teeth as {end}"
            yield {"kind": kind, "words": words, "end": end, "teeth": teeth}, made


_PART = {"gear": "gear", "belt": "pulley", "chain": "sprocket"}


def _read(raw: dict[str, Any]) -> Document | None:
    try:
        return design.read(raw)
    except DocumentError:
        return None


def _key(request: SearchRequest, evaluation: Evaluation, index: int) -> tuple[float, float]:
    """The first two keys of the ranking; a target on price is left out, since nobody knows the addition's."""
    first = second = 0.0
    for target in request.document.design.targets:
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
