"""Designs that were tried: what each is called beside the others, and what has changed since a run."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from ydrometer.base.paths import keys_of
from ydrometer.document.design import Design, Document
from ydrometer.document.names import input_name
from ydrometer.document.sources import Motor, Source
from ydrometer.document.walk import stages_with_paths
from ydrometer.evaluation.driveline import overall_ratios
from ydrometer.evaluation.uncertainty import replaced
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.trial import Trial
from ydrometer.trials.unknowns import KINDS
from ydrometer.trials.written import typed

ASIDE = ("name", "notes", "targets", "fit", "loads", "run")
"""What of a document no run depends on."""
SAME = 1e-9
"""Relative difference below which values are the same."""
_OF_A_STAGE = re.compile(r"stages\[\d+\]")
_OF_A_RUN = re.compile(r"(targets|loads|fit|run)\b")


def essence(raw: Mapping[str, Any]) -> dict[str, Any]:
    """A document without what no run depends on: designs with the same one are the same gearing of the same vehicle.

    Numbers are of one kind: what wrote the document may have made 1 of 1.0.
    """
    return {key: _plain(value) for key, value in raw.items() if key not in ASIDE}


def but_wheels(raw: Mapping[str, Any]) -> dict[str, Any]:
    """What is left of an essence without the stages: of gearings of one and the same vehicle it is the same."""
    drive = raw.get("drive", {})
    branches = [{k: v for k, v in branch.items() if k != "stages"} for branch in drive.get("branches", ())]
    return essence({**raw, "drive": {**drive, "branches": branches, "stages": []}})


def _plain(value: Any) -> Any:
    if isinstance(value, Mapping):
        return {key: _plain(entry) for key, entry in value.items()}
    if isinstance(value, list | tuple):
        return [_plain(entry) for entry in value]
    return float(value) if isinstance(value, int) and not isinstance(value, bool) else value


def reduction(design: Design) -> float:
    """Motor turns per wheel turn of the first branch, in the lowest gear."""
    return overall_ratios(design)[0][2]


@dataclass(frozen=True, slots=True)
class TriedWheel:
    """A wheel of a stage by its size: teeth, or its diameter in words."""

    stage: str
    member: str
    size: str
    toothed: bool


def names(documents: Sequence[Document]) -> list[str]:
    """What each design is called beside the others: "12 teeth", "12:60", else by its reduction; no two alike.

    Of several with the same wheels the last one has the plain name.

    Args:
        documents: the designs, at least one.
    """
    wheels = [{(w.stage, w.member): w for w in _wheels(document.design)} for document in documents]
    shapes = {tuple(shape) for shape in wheels}
    varied = (
        [key for key in wheels[0] if len({design_wheels[key].size for design_wheels in wheels}) > 1]
        if len(shapes) == 1
        else []
    )
    words: list[str] = []
    for design_wheels, document in zip(reversed(wheels), reversed(documents), strict=True):
        name = _sizes([design_wheels[key] for key in varied]) or f"{reduction(document.design):.3g} : 1"
        earlier = sum(other == name or other.startswith(f"{name}, earlier") for other in words)
        words.append(name if not earlier else f"{name}, earlier" if earlier == 1 else f"{name}, earlier ({earlier})")
    return words[::-1]


def _wheels(design: Design) -> Iterator[TriedWheel]:
    for path, stage in stages_with_paths(design):
        for member in stage.members:
            toothed = member.form.toothed
            yield TriedWheel(
                path, member.name, f"{member.measure:g}" if toothed else f"{1e3 * member.measure:g} mm", toothed
            )


def _sizes(varied: Sequence[TriedWheel]) -> str:
    stages: dict[str, list[str]] = {}
    for wheel in varied:
        stages.setdefault(wheel.stage, []).append(wheel.size)
    text = " and ".join(":".join(sizes) for sizes in stages.values())
    single = all(len(sizes) == 1 for sizes in stages.values())
    return f"{text} teeth" if text and single and all(wheel.toothed for wheel in varied) else text


def changed_since(run: Trial, then: Document, now: Document) -> list[str]:
    """What the measure of a run depends on, beside the wheels under test, and has changed since: "mass 0.61 → 0.72 kg".

    What has only become better known counts as no change: a value that is measured now where one was guessed.

    Args:
        run: any.
        then: the design that it was made with.
        now: the present one.
    """
    steps = list(_steps(then, now))
    if not steps:
        return []
    designs = {"": then, **{str(k): Document(design, {}, ()) for k, (_, design) in enumerate(steps)}}
    posed = [PosedQuestion(run, name, "", run.conditions) for name in designs]
    before, *after = Model(designs, posed).values([], np.zeros((1, 0)))[0]
    same = np.isclose(after, before, rtol=SAME, atol=0.0, equal_nan=True)
    return [words for (words, _), alike in zip(steps, same, strict=True) if not alike]


def _steps(then: Document, now: Document) -> Iterator[tuple[str, Design]]:
    """Each change in words, with the earlier design in which it alone is made."""
    yield from _other_parts(then.design, now.design)
    branches = range(len(then.design.drive.branches))
    known = {path for kind in KINDS for b in branches for path in _paths(kind.held(then, b))}
    for path, value in then.values.items():
        other = now.values.get(path)
        if other is None or _OF_A_STAGE.search(path) or _OF_A_RUN.match(path):
            continue
        if abs(other.si - value.si) <= SAME * max(abs(other.si), abs(value.si)):
            continue
        if path in known and other.origin == "measured":
            continue
        name = input_name(then.design, path).removeprefix("the ")
        words = f"{name} {_number(value.si, value.dimension)} → {typed(other.si, value.dimension, places=3)}"
        try:
            yield words, replaced(then.design, {keys_of(path): other.si})
        except (AttributeError, KeyError, TypeError):
            # It stands in a part of another kind, which is told as another part.
            continue


def _paths(held: Any) -> tuple[str, ...]:
    return held.paths if held is not None else ()


def _number(value: float, dimension: str) -> str:
    return str(typed(value, dimension, places=3)).split(" ")[0]


def _other_parts(then: Design, now: Design) -> Iterator[tuple[str, Design]]:
    """Parts of another kind, and other numbers of them."""
    drive, other = then.drive, now.drive
    if type(drive.supply) is not type(other.supply):
        yield "another supply", replace(then, drive=replace(drive, supply=other.supply))
    if drive.units != other.units:
        yield f"drive units {drive.units} → {other.units}", replace(then, drive=replace(drive, units=other.units))
    if then.vehicle.driven != now.vehicle.driven:
        vehicle = replace(then.vehicle, driven=now.vehicle.driven)
        yield f"driven wheels {then.vehicle.driven} → {now.vehicle.driven}", replace(then, vehicle=vehicle)
    for b, (branch, new) in enumerate(zip(drive.branches, other.branches, strict=False)):
        if branch.count != new.count:
            yield f"motors {branch.count} → {new.count}", _with_branch(then, b, count=new.count)
        if _sort(branch.source) != _sort(new.source):
            yield "another motor", _with_branch(then, b, source=new.source, clutch=new.clutch)
        if (branch.controller is None) != (new.controller is None):
            yield "another controller", _with_branch(then, b, controller=new.controller)


def _sort(source: Source) -> tuple[Any, ...]:
    return type(source), source.bench_points is None if isinstance(source, Motor) else None, source.name


def _with_branch(design: Design, b: int, **changes: Any) -> Design:
    branches = list(design.drive.branches)
    branches[b] = replace(branches[b], **changes)
    return replace(design, drive=replace(design.drive, branches=tuple(branches)))
