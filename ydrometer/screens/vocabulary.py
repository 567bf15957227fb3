"""The tables a screen needs to show numbers: kinds of quantity with their units, and the measures."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any

from ydrometer.base import units
from ydrometer.base.labels import LabelledField, labelled_fields
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.tables.fatigue import SHAPES
from ydrometer.base.tables.measures import OF_LOADS, TARGETABLE
from ydrometer.document.drive import Branch
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.sources import Controller, Engine, Motor
from ydrometer.document.stages import KINDS, Stage
from ydrometer.document.stages.forms import LEAST_TEETH, MOST_TEETH
from ydrometer.document.stages.plane import Loop
from ydrometer.document.supply import Battery, BenchSupply, Panel
from ydrometer.document.vehicle import Vehicle
from ydrometer.parts import bulk
from ydrometer.parts.columns import TABLE, PartColumn
from ydrometer.questions.aids import AIDS, Aid
from ydrometer.questions.grid import MOST
from ydrometer.questions.typical import OFFERED
from ydrometer.search.layout import CHOICES
from ydrometer.trials.kinds import KINDS as RUN_KINDS
from ydrometer.trials.trial import CONDITIONS, Trial


@dataclass(frozen=True, slots=True)
class DisplayUnit:
    """How a value is shown: shown = (si − offset)/factor, followed by `symbol`; `typed` is how it is entered."""

    symbol: str
    typed: str
    factor: float
    offset: float


@dataclass(frozen=True, slots=True)
class DimensionEntry:
    """A kind of quantity in both systems of units, with an example as typed."""

    name: str
    metric: DisplayUnit
    inch: DisplayUnit
    example: str


@dataclass(frozen=True, slots=True)
class MeasureEntry:
    """A measure a target can name; `run` is what it depends on (distance, speed or time), if anything; `loads` whether
    Loads tells it.
    """

    name: str
    dimension: str
    run: str
    loads: bool


@dataclass(frozen=True, slots=True)
class PartKind:
    """A kind of part in the bin: its words, its columns, what a new one holds, and whether lists of it can be typed."""

    kind: str
    one: str
    many: str
    columns: list[PartColumn]
    fixed: dict[str, Any]
    listed: bool


@dataclass(frozen=True, slots=True)
class StageKind:
    """A kind of stage.

    Attributes:
        kind. title, short, noun: its words as a heading, in a row of many, and in a sentence.
        fields: what is typed besides the teeth of its wheels. start: a usual one, as typed.
        measure: key of what tells its wheels apart, behind "driver_" and "driven_"; empty of one known by its ratio.
        toothed: whether that is a number of teeth. least: the least of it, teeth or m.
        part: kind of the bin's parts that its wheels are, empty where a bin has none.
        whole_part: kind of the parts that are the whole stage, likewise.
        loop_key: key under which it says how long what runs around it is; empty where it does not.
        loop_part, loop_noun: kind of the parts that run around its wheels, and what that is called; empty of others.
        trunk_only: whether it stands among the stages that all branches share, and only once.
        searched: whether a search can choose its parts.
    """

    kind: str
    title: str
    short: str
    noun: str
    fields: list[LabelledField]
    start: dict[str, Any]
    measure: str
    toothed: bool
    least: float
    part: str
    whole_part: str
    loop_key: str
    loop_part: str
    loop_noun: str
    trunk_only: bool
    searched: bool


@dataclass(frozen=True, slots=True)
class RatedKind:
    """What is typed of how much a part stands that is no stage: a motor, a battery, a wire, a shaft, an axle."""

    kind: str
    fields: list[LabelledField]


def _ratings() -> dict[str, list[LabelledField]]:
    return {
        "motor": labelled_fields(Motor),
        "engine": labelled_fields(Engine),
        "controller": labelled_fields(Controller),
        "wire": labelled_fields(Branch),
        "axle": labelled_fields(Vehicle),
        "shaft": labelled_fields(ShaftMount),
        "battery": labelled_fields(Battery),
        "panel": labelled_fields(Panel),
        "bench": labelled_fields(BenchSupply),
    }


@dataclass(frozen=True, slots=True)
class RunKind:
    """A kind of test run: its words, the kind of quantity that is read, and what else is said of it.

    `fields` say what exactly is measured, `conditions` how it was made; `rig` what the practice rig does to measure it,
    empty where it cannot.
    """

    kind: str
    title: str
    dimension: str
    fields: list[LabelledField]
    conditions: list[LabelledField]
    rig: str


@dataclass(frozen=True, slots=True)
class TeethLimits:
    """Least and most teeth of a wheel, and most counts in one table of pairs."""

    least_teeth: int
    most_teeth: int
    most_counts: int


@dataclass(frozen=True, slots=True)
class Vocabulary:
    """Everything the page would otherwise have to copy; `typical` are the fields with typical values, any place in a
    list left open.
    """

    dimensions: list[DimensionEntry]
    measures: list[MeasureEntry]
    aids: list[Aid]
    parts: list[PartKind]
    stages: list[StageKind]
    ratings: list[RatedKind]
    runs: list[RunKind]
    shapes: list[str]
    typical: list[str]
    limits: TeethLimits


@cache
def vocabulary() -> Vocabulary:
    """The tables, with conversion factors worked out by the units library."""
    return Vocabulary(
        [
            DimensionEntry(d.name, _unit(d.metric, d.name), _unit(d.inch, d.name), d.example)
            for d in DIMENSIONS.values()
        ],
        [MeasureEntry(row.name, row.dimension, row.run, row.name in OF_LOADS) for row in TARGETABLE.values()],
        list(AIDS),
        [
            PartKind(k.kind, k.singular, k.plural, list(k.columns), dict(k.fixed), k.kind in bulk.LISTED)
            for k in TABLE.values()
        ],
        [_stage_kind(kind) for kind in KINDS.values()],
        [RatedKind(kind, fields) for kind, fields in _ratings().items()],
        [_run_kind(kind) for kind in RUN_KINDS.values()],
        list(SHAPES),
        list(OFFERED),
        TeethLimits(LEAST_TEETH, MOST_TEETH, MOST),
    )


def _run_kind(kind: type[Trial]) -> RunKind:
    fields = labelled_fields(kind)
    return RunKind(
        kind.kind,
        kind.title,
        kind.dimension,
        [field for field in fields if field.group != CONDITIONS],
        [field for field in fields if field.group == CONDITIONS],
        kind.rig,
    )


def _stage_kind(kind: type[Stage]) -> StageKind:
    form, loop = kind.form, kind.in_plane
    return StageKind(
        kind=kind.kind,
        title=kind.title,
        short=kind.short,
        noun=kind.noun,
        fields=labelled_fields(kind),
        start={"kind": kind.kind, **kind.start},
        measure=form.measure if form else "",
        toothed=bool(form and form.toothed),
        least=form.least if form else 0.0,
        part=form.part if form else "",
        whole_part=kind.whole_part,
        loop_key=loop.pieces_key if isinstance(loop, Loop) else "",
        loop_part=loop.part if isinstance(loop, Loop) and loop.pieces_key else "",
        loop_noun=loop.noun if isinstance(loop, Loop) else "",
        trunk_only=kind.several_speeds,
        searched=kind.kind in CHOICES,
    )


def _unit(text: str, dimension: str) -> DisplayUnit:
    factor, offset = units.scale(text, dimension)
    return DisplayUnit(units.symbol(text), text, factor, offset)
