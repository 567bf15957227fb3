"""The design document: the whole of what a builder has decided, as frozen types in SI."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.quantities import Schema, quantity_definition
from ydrometer.base.seen import Reading, Value
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.document.building import Building
from ydrometer.document.drive import STAGE, Drive
from ydrometer.document.loads import Loads
from ydrometer.document.mounting import Mounting
from ydrometer.document.sources import Engine
from ydrometer.document.stages import Stage
from ydrometer.document.supply import Panel
from ydrometer.document.target import TARGETS, Run, Target
from ydrometer.document.vehicle import Conditions, Vehicle
from ydrometer.document.walk import stages_with_paths

FORMAT = "ydrometer-design"
VERSION = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Design:
    """A whole design, every quantity in SI."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(VERSION, VERSION)
    name: str = reading.line(longest=200)
    notes: str = reading.text(longest=20_000)
    vehicle: Vehicle = reading.nested(Vehicle)
    conditions: Conditions = reading.nested(Conditions, default=Conditions())
    drive: Drive = reading.nested(Drive)
    run: Run = reading.nested(Run, default=Run())
    targets: tuple[Target, ...] = TARGETS
    loads: Loads | None = reading.nested(Loads, default=None)
    fit: Mounting | None = reading.nested(Mounting, default=None)
    build: Building | None = reading.nested(Building, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Motors alone are thrown into reverse, from a supply that takes current back."""
        if self.loads is None or not self.loads.reverses:
            return
        if any(isinstance(branch.source, Engine) for branch in self.drive.branches):
            yield "loads.reverses", "given with an engine", "leave it out: only motors turn back at full speed"
        if isinstance(self.drive.supply, Panel):
            yield "loads.reverses", "given with a panel", "leave it out: a panel takes no current back"


@dataclass(frozen=True, slots=True)
class Document:
    """A design as read: the types, every quantity found by its path, and what had to be assumed."""

    design: Design
    values: dict[str, Value]
    assumed: tuple[str, ...]


def schema() -> Schema:
    """The JSON Schema of a design document. What only shows in combination of values is checked by reading alone."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Ydrometer design",
        **reading.object_schema(Design),
        "$defs": {"quantity": quantity_definition()},
    }


def read(raw: Any) -> Document:
    """Read a design from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
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
    stages: tuple[Stage, ...] = reading.list_reader(STAGE).read(raw, "", seen)
    return reading.finish(stages, seen)


def _note_efficiencies(design: Design, seen: Reading) -> None:
    """What stages are assumed to lose stands among the values as if it had been read."""
    for path, stage in stages_with_paths(design):
        if stage.efficiency is None:
            place, value = f"{path}.efficiency", stage.default_efficiency
            seen.values[place] = Value(value, "ratio", "assumed", bounds=(0.0, -math.inf, 1.0))
            seen.assumed.append(f"{place} = {value:.4g}")
