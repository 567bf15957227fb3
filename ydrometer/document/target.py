"""What a design is wanted to reach: bounds on measures, and the distance, speed or time that they refer to."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.quantities import QUANTITY_FORMS, Schema, read_quantity
from ydrometer.base.seen import Reading, printable
from ydrometer.base.tables.measures import TARGETABLE


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
        key = TARGETABLE[self.measure].run
        condition: float | None = (getattr(self.run, key) or getattr(run, key)) if key else None
        return condition


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
            seen.fault(
                f"{path}.{printable(key)}", "unknown key", "known here: measure, " + ", ".join((*_BOUNDS, *RUN_KEYS))
            )
    given = [key for key in _BOUNDS if key in raw]
    if len(given) != 1:
        return seen.fault(path, f"{len(given)} bounds given", "give one of at_least, at_most, between")
    own = {key: raw[key] for key in RUN_KEYS if key in raw}
    run = reading.read_object(Run, own, path, seen)
    bound = raw[given[0]]
    if given[0] != "between":
        value = _read_bound(bound, f"{path}.{given[0]}", seen, measure.dimension)
        lower, upper = (value, None) if given[0] == "at_least" else (None, value)
        return Target(
            measure=measure.name,
            lower=lower,
            upper=upper,
            run=run,
            wanted=f"{given[0].replace('_', ' ')} {typed(bound, measure.unit)}",
        )
    return _read_band(bound, f"{path}.between", seen, measure.name, run)


def _target_schema() -> Schema:
    """One shape a bound; a measure's own kind of quantity is not told apart."""
    quantity = {"anyOf": [{"type": "number"}, *QUANTITY_FORMS]}
    run = {f.name: f.metadata["spec"].read.schema() for f in dataclasses.fields(Run)}
    shapes = []
    for bound in _BOUNDS:
        edges = {"type": "array", "items": quantity, "minItems": 2, "maxItems": 2}
        properties = {"measure": {"enum": list(TARGETABLE)}, bound: edges if bound == "between" else quantity, **run}
        shapes.append(
            {"type": "object", "properties": properties, "required": ["measure", bound], "additionalProperties": False}
        )
    return {"oneOf": shapes}


def _read_bound(raw: Any, path: str, seen: Reading, dimension: str) -> Any:
    value = read_quantity(raw, path, seen, dimension)
    if path in seen.values and seen.values[path].uncertainty:
        return seen.fault(path, "a target with a spread", "give the bound alone")
    return value


def _read_band(raw: Any, path: str, seen: Reading, name: str, run: Run) -> Any:
    measure = TARGETABLE[name]
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


TARGETS = reading.items(reading.Reader(_read_target, _target_schema))
"""The targets of a document."""
