"""Real parts that an unknown of a question could be: wheels, boxes and pairs of gears of a bin."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base import paths
from ydrometer.document.design import Document
from ydrometer.document.stages import KINDS, Stage
from ydrometer.document.walk import stage_at
from ydrometer.evaluation.sweep import with_stage, with_wheels
from ydrometer.evaluation.variants import with_vehicle
from ydrometer.parts.boxes import GearboxPart
from ydrometer.parts.fitting import fits
from ydrometer.parts.kinds import RoadWheelPart
from ydrometer.parts.names import called
from ydrometer.parts.part import Part
from ydrometer.parts.read import read_parts
from ydrometer.taking import Changes, changes, pair_values
from ydrometer.taking.wheels import ENDS

TEETH = range(8, 121)


@dataclass(frozen=True, slots=True)
class Sought:
    """What can be asked for: its key, its words in a question, its dimension, and the stage it is about, if any."""

    key: str
    words: str
    dimension: str
    path: str


@dataclass(frozen=True, slots=True)
class Candidate:
    """A real part, or a pair of them.

    Attributes:
        value: of the unknown. words. document: the design with it, as far as motion is concerned.
        taken: what is taken, by the wheel that it becomes, empty of anything else; or, without a bin, whole teeth.
        part: its id, "bin" of a pair, empty where it is in none.
    """

    value: float
    words: str
    document: Document
    taken: Mapping[str, Mapping[str, Any] | int]
    part: str


def candidates(document: Document, unknown: Sought, parts: Sequence[Mapping[str, Any]]) -> Iterator[Candidate]:
    """Real parts that could be the unknown of a question.

    Args:
        document: the design.
        unknown: what is asked for.
        parts: documents of the bin's parts.
    """
    read = list(zip(read_parts(parts), parts, strict=True))
    if unknown.key == "wheel_diameter":
        yield from _wheels(document, read)
    elif unknown.key == "reduction":
        stage = stage_at(document.design, unknown.path)
        if stage is not None and stage.form is not None and stage.form.toothed:
            yield from _pairs(document, unknown.path, stage, parts)
        elif stage is not None:
            yield from _boxes(document, unknown.path, read)


def taking(raw: Mapping[str, Any], path: str, candidate: Candidate) -> Changes:
    """What it changes in the design as typed.

    Args:
        raw: the design document.
        path: of the unknown's stage.
        candidate: of that unknown.
    """
    parts = {member: part for member, part in candidate.taken.items() if isinstance(part, Mapping)}
    stage = paths.value_at(raw, path) if path else None
    if len(parts) == len(ENDS) and isinstance(stage, Mapping):
        values = pair_values(KINDS[str(stage["kind"])], parts, stage)
        return {f"{path}.{key}": value for key, value in values.items()}
    if parts:
        ((member, part),) = parts.items()
        return changes(raw, path, member, part)
    kind = KINDS[str(stage["kind"])] if isinstance(stage, Mapping) else None
    return {f"{path}.{kind.measure_key(member)}": teeth for member, teeth in candidate.taken.items() if kind}


def _wheels(document: Document, parts: Sequence[tuple[Part, Mapping[str, Any]]]) -> Iterator[Candidate]:
    for part, raw in parts:
        if isinstance(part, RoadWheelPart):
            changed = with_vehicle(document, wheel_diameter=part.diameter)
            yield Candidate(part.diameter, called(raw), changed, {"": raw}, part.id)


def _boxes(document: Document, path: str, parts: Sequence[tuple[Part, Mapping[str, Any]]]) -> Iterator[Candidate]:
    for part, raw in parts:
        if isinstance(part, GearboxPart) and not part.stage_kind.several_speeds:
            changed = with_stage(document, path, part.stage)
            yield Candidate(part.stage.speed_ratio, called(raw), changed, {"": raw}, part.id)


def _pairs(document: Document, path: str, stage: Stage, parts: Sequence[Mapping[str, Any]]) -> Iterator[Candidate]:
    """Pairs of the bin that have the stage's tooth size; without any, whole teeth with one wheel kept."""
    known = {str(raw.get("id")): raw for raw in parts}
    wheels: dict[int, Mapping[str, Any]] = {}
    for fit in fits(stage, parts):
        wheels.setdefault(int(fit.size), known[fit.id])
    now = int(stage.members[0].measure), int(stage.members[-1].measure)
    counts = (
        [(z, y) for z in wheels for y in wheels]
        if wheels
        else [*((now[0], y) for y in TEETH), *((z, now[1]) for z in TEETH)]
    )
    # Of equal ratios the one that keeps a wheel comes first.
    for driver, driven in sorted(counts, key=lambda c: (c[0] != now[0]) + (c[1] != now[1])):
        changed = with_wheels(document, path, {"driver": driver, "driven": driven})
        if changed is not None:
            taken = {"driver": wheels.get(driver, driver), "driven": wheels.get(driven, driven)}
            yield Candidate(driven / driver, f"{driver} : {driven} teeth", changed, taken, "bin" if wheels else "")
