"""The design document: the whole of what a builder has decided, as frozen types in SI."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer import reading, sources, stages, supply, units
from ydrometer.errors import DocumentError, Fault
from ydrometer.reading import Reading, Value
from ydrometer.tables.measures import MEASURES, TARGETABLE
from ydrometer.vehicle import Conditions, Vehicle

FORMAT = "ydrometer-design"
VERSION = 1
LARGEST = 1_000_000
"""Bytes of a document, at most."""
DEEPEST = 32
"""Levels of nesting, at most."""

_STAGES = reading.kind_reader(stages.KINDS, stages.LATER)


@dataclass(frozen=True, slots=True, kw_only=True)
class Branch:
    """One kind of motor, how many of it, and the stages that are its own."""

    count: int = reading.whole(1, 64, default=1)
    source: sources.Motor = reading.one_of({"motor": sources.Motor}, later=("engine",))
    controller: sources.Controller = reading.nested(sources.Controller, default=sources.Controller())
    clutch: None = reading.not_yet()
    stages: tuple[stages.Stage, ...] = reading.items(_STAGES)


def _read_branch(raw: Any, path: str, seen: Reading) -> Any:
    if not path.endswith("[0]"):
        return reading.refuse_not_yet(path, seen, "this version computes one branch")
    return reading.read_object(Branch, raw, path, seen)


@dataclass(frozen=True, slots=True, kw_only=True)
class Drive:
    """`units` identical drive units, each of branches and the trunk stages they share."""

    units: int = reading.whole(1, 64, default=1)
    supply: supply.Supply = reading.one_of(supply.KINDS, later=supply.LATER)
    branches: tuple[Branch, ...] = reading.items(_read_branch, least=1)
    stages: tuple[stages.Stage, ...] = reading.items(_STAGES, default=())


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


_BOUNDS = ("at_least", "at_most", "between")
_RUN_KEYS = ("distance", "speed", "time")


def _read_target(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, Mapping):
        return seen.fault(path, "not an object", 'give for example {"measure": "top_speed", "at_least": "5 m/s"}')
    if raw.get("measure") == "price":
        return reading.refuse_not_yet(f"{path}.measure", seen, "leave it out")
    measure = TARGETABLE.get(str(raw.get("measure")))
    if measure is None:
        names = ", ".join(TARGETABLE)
        return seen.fault(f"{path}.measure", "no measure of one number", f"use one of {names}")
    for key in raw:
        if key not in ("measure", *_BOUNDS, *_RUN_KEYS):
            seen.fault(f"{path}.{reading.printable(key)}", "unknown key", "known here: measure, "
                       + ", ".join((*_BOUNDS, *_RUN_KEYS)))  # fmt: skip
    given = [key for key in _BOUNDS if key in raw]
    if len(given) != 1:
        return seen.fault(path, f"{len(given)} bounds given", "give one of at_least, at_most, between")
    own = {key: raw[key] for key in _RUN_KEYS if key in raw}
    run = reading.read_object(Run, own, path, seen)
    bound = raw[given[0]]
    if given[0] != "between":
        value = reading.read_quantity(bound, f"{path}.{given[0]}", seen, measure.dimension)
        lower, upper = (value, None) if given[0] == "at_least" else (None, value)
        return Target(measure=measure.name, lower=lower, upper=upper, run=run,
                      wanted=f"{given[0].replace('_', ' ')} {typed(bound, measure.unit)}")  # fmt: skip
    return _read_band(bound, f"{path}.between", seen, measure.name, run)


def _read_band(raw: Any, path: str, seen: Reading, name: str, run: Run) -> Any:
    measure = MEASURES[name]
    if not isinstance(raw, list | tuple) or len(raw) != 2:
        return seen.fault(path, "not two values", "give the lower and the upper edge")
    edges = [reading.read_quantity(edge, f"{path}[{i}]", seen, measure.dimension) for i, edge in enumerate(raw)]
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
    targets: tuple[Target, ...] = reading.items(_read_target)


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
    return Document(design, seen.values, (*seen.assumed, *_assumed_efficiencies(design)))


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


def _keepable(text: str) -> bool:
    return "\0" not in text and not any("\ud800" <= c <= "\udfff" for c in text)


def _children(node: Any) -> list[Any]:
    if isinstance(node, Mapping):
        return [*node.keys(), *node.values()]
    return node if isinstance(node, list) else []


def _whole(problem: str, remedy: str) -> DocumentError:
    return DocumentError([Fault("$", problem, remedy)])


def stages_with_paths(design: Design) -> Iterator[tuple[str, stages.Stage]]:
    """Every stage in the order power meets them, with its path in the document."""
    for b, branch in enumerate(design.drive.branches):
        for s, stage in enumerate(branch.stages):
            yield f"drive.branches[{b}].stages[{s}]", stage
    for s, stage in enumerate(design.drive.stages):
        yield f"drive.stages[{s}]", stage


def _assumed_efficiencies(design: Design) -> Iterator[str]:
    for path, stage in stages_with_paths(design):
        if stage.efficiency is None:
            yield f"{path}.efficiency = {stage.default_efficiency:.4g}"


def warm() -> None:
    """Load the units library now, so that the first document does not pay for it."""
    units.parse("1 kg", "mass")
