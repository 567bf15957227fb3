"""The answer of a search as a document: the best options with their whole designs, and why the rest fails."""

from __future__ import annotations

from typing import Any

import numpy as np

from ydrometer.base.paths import put
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document import design
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.result import measure
from ydrometer.evaluation.result import target as target_document
from ydrometer.loads.summary import told_by_loads
from ydrometer.search.block import ids
from ydrometer.search.choices import NO_PART, StageSlot, slots, stage_json, trunk_from, used
from ydrometer.search.cost import head_cost, prices, stage_mass
from ydrometer.search.nearest import nearest_changes
from ydrometer.search.option import Option
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import SearchRequest
from ydrometer.search.run import search
from ydrometer.search.settled import with_mounting
from ydrometer.taking import branch_with, once_values

FORMAT = "ydrometer-options"


def answer(request: SearchRequest, processes: int = 1) -> dict[str, Any]:
    """Search, and put the best options into a document.

    Args:
        request: what to look through.
        processes: how many share the work.
    """
    return answer_from(request, search(request, processes))


def answer_from(request: SearchRequest, outcome: Outcome) -> dict[str, Any]:
    """The document of what a search has found."""
    layouts = [slots(request, layout) for layout in request.body.layouts]
    options = [option for _, option in outcome.best]
    documents = [design_of(request, layouts[option.layout], option) for option in options]
    read = [design.read(raw) for raw in documents]
    evaluation = evaluate(read) if read else None
    return {
        "format": FORMAT,
        "version": 1,
        "combinations": outcome.combinations,
        "meeting_all": outcome.meeting,
        "options": [
            _option(request, layouts[option.layout], option, raw, evaluation, i)
            for i, (option, raw) in enumerate(zip(options, documents, strict=True))
            if evaluation is not None
        ],
        "failing": dict(outcome.failing.most_common()),
        "unpriced": [request.body.parts[i].id for i in used(request, layouts) if request.body.parts[i].price is None],
        "nearest_change": nearest_changes(request, read),
    }


def _option(
    request: SearchRequest,
    options: list[StageSlot],
    option: Option,
    raw: dict[str, Any],
    evaluation: Evaluation,
    index: int,
) -> dict[str, Any]:
    measures = {name: measure(evaluation, name, index) for name in MEASURES}
    measures["price"] = {"value": option.price, "unit": ""}
    known = {**told_by_loads(evaluation, index), "price": option.price}
    judged = [evaluation.judge(t, index, known) for t in request.document.design.targets]
    return {
        "parts": list(ids(request, options, option)),
        "count": option.head.count,
        "price": option.price,
        "parts_to_buy": option.buy,
        "measures": measures,
        "targets": [target_document(entry) for entry in judged],
        "design": raw,
    }


def design_of(request: SearchRequest, options: list[StageSlot], option: Option) -> dict[str, Any]:
    """The whole design file of an option; what it has in common with the request's is shared with it, not copied."""
    raw, head, layout = request.raw["design"], option.head, request.body.layouts[option.layout]
    drive, vehicle = dict(raw["drive"]), dict(raw["vehicle"])
    branch = dict(drive["branches"][0])
    raw_parts = request.raw.get("parts", [])
    if head.count != branch.get("count", 1):
        branch["count"] = head.count
    if head.source != NO_PART:
        branch = branch_with(branch, raw_parts[head.source])
    if head.supply == NO_PART and branch["source"].get("kind") == "engine":
        drive.pop("supply", None)
    stages = [
        stage_json(request, slot, chosen, layout, place)
        for place, (slot, chosen) in enumerate(zip(options, option.chosen, strict=True))
    ]
    trunk = trunk_from(layout)
    if request.body.add_part_masses:
        vehicle["mass"] = request.document.design.vehicle.mass + _mass(request, options, option)
    branches = [{**branch, "stages": stages[:trunk]}]
    document = {**raw, "vehicle": vehicle, "drive": {**drive, "branches": branches, "stages": stages[trunk:]}}
    for place in (head.supply, head.wheel):
        for path, value in once_values(raw_parts[place]).items() if place != NO_PART else ():
            put(document, path, value)
    return with_mounting(request, layout, options, option.chosen, document)


def _mass(request: SearchRequest, options: list[StageSlot], option: Option) -> float:
    """Of all parts of an option, as many as are needed, kg."""
    table = prices(request)
    chosen = [np.array([c]) for c in option.chosen]
    return head_cost(request, table, option.head)[2] + float(stage_mass(request, table, options, chosen)[0])
