"""Designs with a stage of each kind, before and behind others, and what can be asked of all of them."""

from __future__ import annotations

import copy
import dataclasses
from collections.abc import Iterator
from datetime import datetime
from typing import Any

import numpy as np

from tests.core.designs import PLAIN, changed
from ydrometer.base import paths
from ydrometer.base.reading import key_of
from ydrometer.document import design
from ydrometer.document.stages import KINDS, Stage
from ydrometer.document.stages.plane import Loop
from ydrometer.drawing import draw_line
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import result
from ydrometer.files.fit_report import report
from ydrometer.loads.limits import limits
from ydrometer.screens.build_shown import Site, build_shown
from ydrometer.screens.parts_shown import BenchKnown, parts_shown
from ydrometer.search.choices import slots, trunk_from
from ydrometer.search.drives import Drive, drives
from ydrometer.search.option import Option
from ydrometer.search.request import SearchRequest

PATH = "drive.stages[0]"
OWN = "drive.branches[0].stages[0]"
PLATE = {"plate": {"hole_pitch": "12 mm", "across": 40, "up": 12}}
AROUND: dict[str, Any] = {"kind": "chain", "driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm"}
"""What stands behind a stage."""
NOW = datetime(2027, 5, 3, 12)
OTHERWISE: dict[str, Any] = {
    "integer": 29,
    "boolean": True,
    "angle": "25 deg",
    "ratio": 0.41,
    "length": "7.7 mm",
    "force": "61 N",
    "torque": "1.3 N*m",
    "angular speed": "1234 rpm",
    "stress": "31 MPa",
    "inertia": "3e-4 kg*m^2",
    "mass": "0.7 kg",
    "time": "0.9 s",
    "force per width": "3 N/mm",
    "diametral pitch": "20 1/in",
}
"""Another value of each kind of field."""
LISTED: dict[str, Any] = {
    "idlers": [24],
    "reductions": [5, 2],
    "ratios": [4, 2, 1],
    "torque_ratings": ["2 N*m", "3 N*m"],
    "driver_hub": {"by": "press"},
    "driven_hub": {"by": "press"},
    "make": {"driven": {"outside": "150 mm"}},
}
NOT_GIVEN = {"belt_teeth": 97, "links": 71}
"""The same of whole numbers that a usual stage does not say."""
SAYS_NOTHING = {("chain", "width"): "kept as typed: no check knows yet how wide chains of a pitch are"}
"""Fields that change no answer, and why."""
WITHOUT: dict[tuple[str, str], str] = {("gear", "module"): "diametral_pitch", ("gear", "diametral_pitch"): "module"}
"""Of two fields that exclude each other the one that goes."""
WITH: dict[tuple[str, str], dict[str, Any]] = {
    ("belt", "profile"): {"width": "10 mm"},
    ("v_belt", "top_width"): {"section": "A"},
    ("gear", "make"): {"internal": True},
}
"""What a field says nothing without."""


def typed(kind: str) -> dict[str, Any]:
    """A usual stage of a kind, as typed."""
    return {"kind": kind, **copy.deepcopy(dict(KINDS[kind].start))}


def raw(kind: str, **more: Any) -> dict[str, Any]:
    """The plain design with one stage of a kind, as it is added, before the wheels."""
    return changed({"drive.stages": [typed(kind)], **more})


def each() -> Iterator[tuple[str, dict[str, Any], Stage]]:
    """Every kind, with a design and its stage."""
    for kind in KINDS:
        yield kind, raw(kind), design.read(raw(kind)).design.drive.stages[0]


def everywhere() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """Every kind where it may stand: in the trunk between two stages, first in a branch, and last before the wheels."""
    gears = PLAIN["drive"]["branches"][0]["stages"]
    for kind in KINDS:
        yield kind, PATH, changed({"drive.stages": [typed(kind), AROUND]})
        yield kind, "drive.stages[1]", changed({"drive.stages": [AROUND, typed(kind)]})
        if not KINDS[kind].several_speeds:
            yield kind, OWN, changed({"drive.branches.0.stages": [typed(kind), *gears]})
            yield kind, "drive.branches[0].stages[1]", changed({"drive.branches.0.stages": [*gears, typed(kind)]})


def bin_for(stage: Stage, document: dict[str, Any], path: str) -> list[dict[str, Any]]:
    """A bin that has what a stage is made of, and of each other size one part that is not it."""
    written = paths.value_at(document, path)
    if stage.whole_part:
        box = {"id": "box", "kind": stage.whole_part, stage.ratio_key: written[stage.ratio_key], "owned": 9}
        return [box, {"id": "other", "kind": stage.whole_part, "ratio": 1.2345, "owned": 9}]
    parts = []
    for member in stage.members:
        form = member.form
        if form.part:
            sizes = {key: written[key] for key in form.size_keys if key in written}
            measure = paths.value_at(document, f"{path}.{member.key}")
            parts.append({"id": member.name, "kind": form.part, form.measure: measure, **sizes, "owned": 9})
    if isinstance(stage.in_plane, Loop) and stage.in_plane.pieces_key:
        loop = stage.in_plane
        sizes = {key: written[key] for form in (stage.form,) if form for key in form.size_keys if key in written}
        parts.append({"id": "loop", "kind": loop.part, loop.part_key: written[loop.pieces_key], **sizes, "owned": 9})
    return parts


def fields_of(kind: str) -> set[str]:
    """Keys that a kind declares."""
    return {key_of(field) for field in dataclasses.fields(KINDS[kind])}  # type: ignore[arg-type]


def another(kind: type[Stage], key: str, stage: dict[str, Any]) -> Any:
    """Another value of a field than the one that stands there, as typed."""
    if key in LISTED:
        return LISTED[key]
    declared = next(field for field in dataclasses.fields(kind) if key_of(field) == key)  # type: ignore[arg-type]
    spec = declared.metadata["spec"]
    if spec.absent is not None:
        return OTHERWISE[spec.absent.dimension]
    schema = spec.read.schema()
    if "enum" in schema:
        return next(value for value in schema["enum"] if value != stage.get(key))
    present = stage.get(key)
    if schema["type"] == "integer" and present is not None:
        return present + 1 if present < schema["maximum"] else present - 1
    return NOT_GIVEN.get(key, OTHERWISE[schema["type"]])


def answers_about(document: dict[str, Any]) -> str:
    """All that is said of a design: figures, picture, plate, loads, parts and steps."""
    read = design.read({**document, "fit": PLATE})
    evaluation = evaluate([read])
    shown = parts_shown(read, BenchKnown())
    built = build_shown(read, Site(BenchKnown(), NOW))
    rows = [dataclasses.replace(row, strain=None) for row in limits(evaluation).rows]
    said = (
        result(evaluation),
        draw_line(read.design),
        report(read),
        rows,
        shown.lines,
        shown.mass,
        [step.title for step in built.steps],
    )
    return repr(said)


def drives_of_option(request: SearchRequest, option: Option) -> Iterator[Drive]:
    """What an option drives like, as the search has it."""
    layout = request.body.layouts[option.layout]
    chosen = [np.array([one]) for one in option.chosen]
    yield drives(slots(request, layout), trunk_from(layout), chosen, np.zeros(1))
