"""The design document: the whole of what a builder has decided, as frozen types in SI."""

from __future__ import annotations

import dataclasses
import json
import math
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.reading import Reading, Value
from ydrometer.base.tables.measures import MEASURES, TARGETABLE
from ydrometer.document import sources, stages, supply
from ydrometer.document.mounting import Mounting
from ydrometer.document.stages import Speeds, Stage
from ydrometer.document.vehicle import Conditions, Vehicle

FORMAT = "ydrometer-design"
VERSION = 1
LARGEST = 1_000_000
"""Bytes of a document, at most."""
DEEPEST = 32
"""Levels of nesting, at most."""

_STAGES = reading.kind_reader(stages.KINDS)


@dataclass(frozen=True, slots=True, kw_only=True)
class Branch:
    """One kind of motor or engine, how many of it, and the stages that are its own."""

    count: int = reading.whole(1, 64, default=1)
    source: sources.Source = reading.one_of(sources.KINDS)
    controller: sources.Controller | None = reading.nested(sources.Controller, default=None)
    clutch: sources.Clutch | None = reading.nested(sources.Clutch, default=None)
    stages: tuple[Stage, ...] = reading.items(_STAGES)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A controller belongs to a motor, a clutch to an engine."""
        engine = isinstance(self.source, sources.Engine)
        if engine and self.clutch is None:
            yield (
                "clutch",
                "missing",
                "without a clutch an engine cannot start a vehicle from rest: give its engagement_speed "
                "(of a hand clutch, the chosen launch speed)",
            )
        if not engine and self.clutch is not None:
            yield "clutch", "given for a motor", "leave it out: a motor starts from rest by itself"
        if engine and self.controller is not None:
            yield "controller", "given for an engine", "leave it out: it belongs to a motor"
        for index, stage in enumerate(self.stages):
            if isinstance(stage, Speeds):
                yield f"stages[{index}]", "a box of several speeds in a branch", "put it among drive.stages"


@dataclass(frozen=True, slots=True, kw_only=True)
class Drive:
    """`units` identical drive units, each of branches and the trunk stages they share."""

    units: int = reading.whole(1, 64, default=1)
    supply: supply.Supply | None = reading.one_of(supply.KINDS, default=None)
    branches: tuple[Branch, ...] = reading.items(reading.object_reader(Branch), least=1, required=True)
    stages: tuple[Stage, ...] = reading.items(_STAGES)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Motors need a supply, engines have none; one box of several speeds is enough."""
        electric = any(isinstance(branch.source, sources.Motor) for branch in self.branches)
        if electric and self.supply is None:
            yield "supply", "missing", "motors need a battery, panel or bench supply"
        if not electric and self.supply is not None:
            yield "supply", "given for engines alone", "leave it out: an engine draws nothing from it"
        for index in [i for i, stage in enumerate(self.stages) if isinstance(stage, Speeds)][1:]:
            yield f"stages[{index}]", "a second box of several speeds", "one is computed at most"

    @property
    def box(self) -> Speeds | None:
        """The box of several speeds, where there is one."""
        return next((stage for stage in self.stages if isinstance(stage, Speeds)), None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """What the run measures refer to: a distance in m, a speed in m/s, a time in s."""

    distance: float | None = reading.quantity("distance", above=0.0, default=None)
    speed: float | None = reading.quantity("speed", above=0.0, default=None)
    time: float | None = reading.quantity("time", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Target:
    """A bound on one measure, in SI, with what was typed kept for the words of the answer."""

    measure: str
    lower: float | None
    upper: float | None
    wanted: str
    run: Run

    def about(self, run: Run) -> float | None:
        """The distance, speed or time that the measure refers to: its own, else the run's; None where it has none."""
        key = MEASURES[self.measure].run
        found: float | None = (getattr(self.run, key) or getattr(run, key)) if key else None
        return found


_BOUNDS = ("at_least", "at_most", "between")
RUN_KEYS = ("distance", "speed", "time")


def _read_target(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, Mapping):
        return seen.fault(path, "not an object", 'give for example {"measure": "top_speed", "at_least": "5 m/s"}')
    measure = TARGETABLE.get(str(raw.get("measure")))
    if measure is None:
        names = ", ".join(TARGETABLE)
        return seen.fault(f"{path}.measure", "no measure of one number", f"use one of {names}")
    for key in raw:
        if key not in ("measure", *_BOUNDS, *RUN_KEYS):
            seen.fault(f"{path}.{reading.printable(key)}", "unknown key", "known here: measure, "
                       + ", ".join((*_BOUNDS, *RUN_KEYS)))  # fmt: skip
    given = [key for key in _BOUNDS if key in raw]
    if len(given) != 1:
        return seen.fault(path, f"{len(given)} bounds given", "give one of at_least, at_most, between")
    own = {key: raw[key] for key in RUN_KEYS if key in raw}
    run = reading.read_object(Run, own, path, seen)
    bound = raw[given[0]]
    if given[0] != "between":
        value = _read_bound(bound, f"{path}.{given[0]}", seen, measure.dimension)
        lower, upper = (value, None) if given[0] == "at_least" else (None, value)
        return Target(measure=measure.name, lower=lower, upper=upper, run=run,
                      wanted=f"{given[0].replace('_', ' ')} {typed(bound, measure.unit)}")  # fmt: skip
    return _read_band(bound, f"{path}.between", seen, measure.name, run)


def _target_schema() -> reading.Schema:
    """One shape a bound; a measure's own kind of quantity is not told apart."""
    quantity = {"anyOf": [{"type": "number"}, *reading.QUANTITY_FORMS]}
    run = {f.name: f.metadata["spec"].read.schema() for f in dataclasses.fields(Run)}
    shapes = []
    for bound in _BOUNDS:
        edges = {"type": "array", "items": quantity, "minItems": 2, "maxItems": 2}
        properties = {"measure": {"enum": list(TARGETABLE)}, bound: edges if bound == "between" else quantity, **run}
        shapes.append({"type": "object", "properties": properties, "required": ["measure", bound],
                       "additionalProperties": False})  # fmt: skip
    return {"oneOf": shapes}


def schema() -> reading.Schema:
    """The JSON Schema of a design document. What only shows in combination of values is checked by reading alone."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Ydrometer design",
        **reading.object_schema(Design),
        "$defs": {"quantity": reading.quantity_definition()},
    }


def _read_bound(raw: Any, path: str, seen: Reading, dimension: str) -> Any:
    value = reading.read_quantity(raw, path, seen, dimension)
    if path in seen.values and seen.values[path].spread:
        return seen.fault(path, "a target with a spread", "give the bound alone")
    return value


def _read_band(raw: Any, path: str, seen: Reading, name: str, run: Run) -> Any:
    measure = MEASURES[name]
    if not isinstance(raw, list | tuple) or len(raw) != 2:
        return seen.fault(path, "not two values", "give the lower and the upper edge")
    edges = [_read_bound(edge, f"{path}[{i}]", seen, measure.dimension) for i, edge in enumerate(raw)]
    if all(isinstance(edge, float) for edge in edges) and not edges[0] < edges[1]:
        return seen.fault(path, "the lower edge is not below the upper", "give the lower one first")
    wanted = f"between {typed(raw[0], measure.unit)} and {typed(raw[1], measure.unit)}"
    return Target(measure=name, lower=edges[0], upper=edges[1], wanted=wanted, run=run)


def typed(raw: Any, unit: str) -> str:
    """The quantity in words as it was typed; a bare number gets the SI unit it stands for."""
    if isinstance(raw, Mapping):
        raw = raw.get("value")
    return raw if isinstance(raw, str) else f"{raw:g} {unit}".strip() if isinstance(raw, int | float) else ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Design:
    """A whole design, every quantity in SI."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(VERSION, VERSION)
    name: str = reading.text(longest=200)
    notes: str = reading.text(longest=20_000)
    vehicle: Vehicle = reading.nested(Vehicle)
    conditions: Conditions = reading.nested(Conditions, default=Conditions())
    drive: Drive = reading.nested(Drive)
    run: Run = reading.nested(Run, default=Run())
    targets: tuple[Target, ...] = reading.items(reading.Reader(_read_target, _target_schema))
    fit: Mounting | None = reading.nested(Mounting, default=None)


@dataclass(frozen=True, slots=True)
class Document:
    """A design as read: the types, every quantity found by its path, and what had to be assumed."""

    design: Design
    values: dict[str, Value]
    assumed: tuple[str, ...]


def read(raw: Any) -> Document:
    """Read a design from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    _refuse_unsafe(raw, DEEPEST)
    seen = Reading()
    design = reading.read_object(Design, raw, "", seen)
    reading.finish(design, seen)
    _note_efficiencies(design, seen)
    return Document(design, seen.values, tuple(seen.assumed))


def read_stages(raw: Any) -> tuple[Stage, ...]:
    """Read a list of stages by itself, such as a search puts together.

    Raises:
        DocumentError: with every fault at once.
    """
    seen = Reading()
    made: tuple[Stage, ...] = reading.list_reader(_STAGES).read(raw, "", seen)
    return reading.finish(made, seen)


def load(data: bytes, *, largest: int = LARGEST, deepest: int = DEEPEST) -> Any:
    """Parse JSON from strangers: UTF-8, at most `largest` bytes and `deepest` levels, no key twice.

    Raises:
        DocumentError: not such a document.
    """
    if len(data) > largest:
        raise _whole(f"{len(data)} bytes given", f"at most {largest} bytes are read")
    try:
        raw = json.loads(data.decode("utf-8"), object_pairs_hook=_pairs, parse_constant=_constant)
    except UnicodeDecodeError:
        raise _whole("not UTF-8", "save the file as UTF-8") from None
    except RecursionError:
        raise _whole("nested too deep", f"at most {deepest} levels are read") from None
    except ValueError as error:
        raise _whole(f"not JSON ({error})", "give one JSON document") from None
    _refuse_unsafe(raw, deepest)
    return raw


def _pairs(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) < len(pairs):
        raise ValueError("a key is given twice in one object")
    return made


def _constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number")


def _refuse_unsafe(raw: Any, deepest: int) -> None:
    """Refuse what is nested too deep, and texts that no file or database can keep."""
    level = [raw]
    for _ in range(deepest + 1):
        if any(isinstance(node, str) and not _keepable(node) for node in level):
            raise _whole("a text holds characters that are none", "leave out NUL and lone surrogates")
        level = [child for node in level for child in _children(node)]
        if not level:
            return
    raise _whole("nested too deep", f"at most {deepest} levels are read")


_UNKEEPABLE = re.compile("[\0\ud800-\udfff]")


def _keepable(text: str) -> bool:
    return _UNKEEPABLE.search(text) is None


def _children(node: Any) -> list[Any]:
    if isinstance(node, Mapping):
        return [*node.keys(), *node.values()]
    return node if isinstance(node, list) else []


def _whole(problem: str, remedy: str) -> DocumentError:
    return DocumentError([Fault("$", problem, remedy)])


def stages_with_paths(design: Design) -> Iterator[tuple[str, Stage]]:
    """Every stage in the order power meets them, with its path in the document."""
    for b in range(len(design.drive.branches)):
        yield from own_stages(design, b)
    yield from trunk_stages(design)


def shaft_numbers(design: Design) -> tuple[list[list[int]], list[int]]:
    """Numbers of the shafts of each branch, from its source to where it joins, and of the trunk, from there on.

    The first branch and the trunk count from 0 on, the other branches after them; where they join is one shaft.
    """
    first, *others = (len(branch.stages) for branch in design.drive.branches)
    last = first + len(design.drive.stages)
    branches, free = [list(range(first + 1))], last + 1
    for own in others:
        branches.append([*range(free, free + own), first])
        free += own
    return branches, list(range(first, last + 1))


def shaft_paths(design: Design) -> list[str]:
    """A name for each shaft: the path of what turns it, a source, a stage or one of its idlers; in the order of power.

    Where branches join, the stages of several turn the same shaft.
    """
    found = []
    for b in range(len(design.drive.branches)):
        found.append(f"drive.branches[{b}].source")
        found += [path for stage in own_stages(design, b) for path in _turned(*stage)]
    return found + [path for stage in trunk_stages(design) for path in _turned(*stage)]


def _turned(path: str, stage: Stage) -> list[str]:
    return [*(f"{path}.idlers[{i}]" for i in range(len(getattr(stage, "idlers", ())))), path]


def loop_paths(design: Design) -> list[str]:
    """Paths of the stages with a belt or chain."""
    return [path for path, stage in stages_with_paths(design) if isinstance(stage, stages.LOOPS)]


def own_stages(design: Design, branch: int) -> Iterator[tuple[str, Stage]]:
    """The stages of one branch, with their paths."""
    for s, stage in enumerate(design.drive.branches[branch].stages):
        yield f"drive.branches[{branch}].stages[{s}]", stage


def trunk_stages(design: Design) -> Iterator[tuple[str, Stage]]:
    """The stages that all branches share, with their paths."""
    for s, stage in enumerate(design.drive.stages):
        yield f"drive.stages[{s}]", stage


def _note_efficiencies(design: Design, seen: Reading) -> None:
    """What stages are assumed to lose stands among the values as if it had been read."""
    for path, stage in stages_with_paths(design):
        if stage.efficiency is None:
            place, value = f"{path}.efficiency", stage.default_efficiency
            seen.values[place] = Value(value, "ratio", "assumed", bounds=(0.0, -math.inf, 1.0))
            seen.assumed.append(f"{place} = {value:.4g}")
