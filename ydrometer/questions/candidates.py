"""Real parts that an unknown of a question could be: wheels, boxes and pairs of gears of a bin."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document.design import Document
from ydrometer.document.stages import Stage
from ydrometer.document.stages.gearbox import Gearbox
from ydrometer.evaluation.sweep import stage_at, with_stage, with_wheels
from ydrometer.evaluation.variants import with_vehicle
from ydrometer.parts.fitting import fits
from ydrometer.parts.kinds import GearboxPart, RoadWheelPart
from ydrometer.parts.names import called
from ydrometer.parts.part import Part
from ydrometer.parts.read import read_parts

TEETH = range(8, 121)


@dataclass(frozen=True, slots=True)
class Unknown:
    """What can be asked for: its key, its words in a question, its dimension, and the stage it is about, if any."""

    key: str
    words: str
    dimension: str
    path: str


@dataclass(frozen=True, slots=True)
class Candidate:
    """A real part: its value of the unknown, in words, the design with it, what it changes in the document, its id."""

    value: float
    words: str
    document: Document
    changes: dict[str, Any]
    part: str


def candidates(document: Document, unknown: Unknown, parts: Sequence[Mapping[str, Any]]) -> Iterator[Candidate]:
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
        if stage is not None and stage.exact_ratio is not None:
            yield from _pairs(document, unknown.path, stage, parts)
        elif stage is not None:
            yield from _boxes(document, unknown.path, read)


def _wheels(document: Document, parts: Sequence[tuple[Part, Mapping[str, Any]]]) -> Iterator[Candidate]:
    for part, raw in parts:
        if isinstance(part, RoadWheelPart):
            made = with_vehicle(document, wheel_diameter=part.diameter)
            yield Candidate(part.diameter, called(raw), made, {"vehicle.wheel_diameter": raw["diameter"]}, part.id)


def _boxes(document: Document, path: str, parts: Sequence[tuple[Part, Mapping[str, Any]]]) -> Iterator[Candidate]:
    for part, raw in parts:
        if isinstance(part, GearboxPart) and part.ratio is not None:
            made = with_stage(document, path, Gearbox(ratio=part.ratio, efficiency=part.efficiency))
            stage = {"kind": "gearbox", "ratio": raw["ratio"]}
            stage |= {"efficiency": raw["efficiency"]} if raw.get("efficiency") is not None else {}
            yield Candidate(part.ratio, called(raw), made, {path: stage}, part.id)


def _pairs(document: Document, path: str, stage: Stage, parts: Sequence[Mapping[str, Any]]) -> Iterator[Candidate]:
    """Pairs of the bin that have the stage's tooth size; without any, whole teeth with one wheel kept."""
    teeth = sorted({int(fit.size) for fit in fits(stage, parts)})
    now = int(stage.members[0].measure), int(stage.members[-1].measure)
    counts = [(z, y) for z in teeth for y in teeth] if teeth else [
        *((now[0], y) for y in TEETH), *((z, now[1]) for z in TEETH)]  # fmt: skip
    # Of equal ratios the one that keeps a wheel comes first.
    for driver, driven in sorted(counts, key=lambda c: (c[0] != now[0]) + (c[1] != now[1])):
        made = with_wheels(document, path, {"driver": driver, "driven": driven})
        if made is not None:
            changes = {f"{path}.driver_teeth": driver, f"{path}.driven_teeth": driven}
            yield Candidate(driven / driver, f"{driver} : {driven} teeth", made, changes, "bin" if teeth else "")
