"""What else than a wheel of the line can be swept, and which sizes of it are tried."""

from __future__ import annotations

import copy
import math
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base.errors import DocumentError
from ydrometer.base.paths import put
from ydrometer.base.tables.typical import CELL_KINDS
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.supply import Battery, BenchSupply, Panel
from ydrometer.evaluation.sweep import SPAN, diameter_step
from ydrometer.parts.kinds import EnginePart, MotorPart, RoadWheelPart
from ydrometer.parts.read import read_part
from ydrometer.questions.typical import cells_in_series
from ydrometer.taking import branch_with

MOST_COUNT = 8
"""Sources of a branch up to which more of them are tried."""
LITHIUM = CELL_KINDS[0]
_BRANCH = re.compile(r"drive\.branches\[(\d+)\]\.source")


@dataclass(frozen=True, slots=True)
class Tried:
    """One size: how much, what it is called where it is a part, and what it changes in the document, by path."""

    size: float
    words: str
    changes: dict[str, Any]


@dataclass(frozen=True, slots=True)
class Swept:
    """One thing to sweep: its key and words, the dimension of its sizes, where the document has them, and the sizes.

    One size changes nothing: it is the present one.
    """

    key: str
    words: str
    dimension: str
    place: str
    tried: list[Tried]


def kinds_at(
    raw: Mapping[str, Any], document: Document, path: str, member: str, parts: Sequence[Mapping[str, Any]]
) -> list[Swept]:
    """What can be swept where a source, the supply or the road wheel is selected; nothing elsewhere.

    Args:
        raw: the design document.
        document: the same, read.
        path: of what is selected.
        member: of it.
        parts: documents of the bin; what cannot be read of them is left out.
    """
    if (path, member) == ("vehicle", "wheel"):
        return [_road_wheel(document, parts)]
    if (path, member) == ("drive.supply", "supply"):
        return list(_supply(document))
    branch = _BRANCH.fullmatch(path)
    if branch is None or member != "motor" or int(branch[1]) >= len(document.design.drive.branches):
        return []
    place = int(branch[1])
    kinds = [_count(document, place), *_sources(document, place, parts), *_supply(document)]
    return [kind for kind in kinds if len(kind.tried) > 1]


def readable(raw: dict[str, Any], changes: Mapping[str, Any]) -> Document | None:
    """The design with values at paths replaced; None where it has faults then."""
    copied = copy.deepcopy(raw)
    for path, value in changes.items():
        put(copied, path, value)
    try:
        return design.read(copied)
    except DocumentError:
        return None


def _count(document: Document, place: int) -> Swept:
    branch = document.design.drive.branches[place]
    path = f"drive.branches[{place}].count"
    noun = "engines a unit" if isinstance(branch.source, Engine) else "motors a unit"
    sizes = range(1, max(MOST_COUNT, branch.count + 2) + 1)
    return Swept("count", noun, "", path, [Tried(n, "", {} if n == branch.count else {path: n}) for n in sizes])


def _sources(document: Document, place: int, parts: Sequence[Mapping[str, Any]]) -> Iterator[Swept]:
    """The bin's motors by their speed constant, or its engines by their highest speed."""
    source = document.design.drive.branches[place].source
    engine = isinstance(source, Engine)
    path = f"drive.branches[{place}]"
    present = Tried(_measure(source), source.name, {})
    others = [
        Tried(_measure(part.source), part.name, _source_changes(path, raw, source.reversed))
        for raw, part in _read("engine" if engine else "motor", parts)
        if isinstance(part, MotorPart | EnginePart) and _law(part.source) != _law(source)
    ]
    tried = sorted([present, *others], key=lambda size: size.size)
    here = tried.index(present)
    words, dimension = ("engine of the bin", "angular speed") if engine else ("motor of the bin", "speed constant")
    yield Swept("part", words, dimension, "", tried[max(0, here - SPAN) : here + SPAN + 1])


def _measure(source: Motor | Engine) -> float:
    """What sources are put in order by: speed constant, rad/s per volt, or the highest speed, rad/s."""
    return source.torque_curve[-1][0] if isinstance(source, Engine) else 1.0 / motor_line(source).ke


def _law(source: Motor | Engine) -> object:
    """What makes two sources the same, whatever they are called."""
    return source.torque_curve if isinstance(source, Engine) else motor_line(source)


def _source_changes(branch: str, part: Mapping[str, Any], turned: bool) -> dict[str, Any]:
    """A part in the place of the source, turned as the present one, and what it brings."""
    taken = branch_with({}, part)
    taken["source"].update({"reversed": True} if turned else {})
    return {f"{branch}.{key}": value for key, value in taken.items()}


def _supply(document: Document) -> Iterator[Swept]:
    """Cells of a battery, the voltage of a bench supply, panels in a row and side by side."""
    supply = document.design.drive.supply
    if isinstance(supply, Battery):
        yield _series(supply)
    elif isinstance(supply, BenchSupply):
        yield _voltage(supply)
    elif isinstance(supply, Panel):
        yield _panels("panels in series", supply, ("open_circuit_voltage", "max_power_voltage"), "V")
        yield _panels("panels side by side", supply, ("short_circuit_current", "max_power_current"), "A")


def _series(battery: Battery) -> Swept:
    """Cells in a row: as many as the battery says, or as many lithium cells as make up its voltage."""
    if battery.cells is not None:
        path, present = "drive.supply.cells.series", battery.cells.series
        tried = [Tried(n, "", {} if n == present else {path: n}) for n in _around(present)]
        return Swept("cells", "cells in series", "", path, tried)
    present = cells_in_series(LITHIUM, battery.voltage)
    each = battery.voltage / present, battery.internal_resistance / present
    tried = [Tried(n, "", {} if n == present else _pack_of(n, *each)) for n in _around(present)]
    return Swept("cells", f"cells of {each[0]:.3g} V in series", "", "", tried)


def _voltage(bench: BenchSupply) -> Swept:
    """Whole volts below and above the present voltage."""
    path, present = "drive.supply.voltage", bench.voltage
    below = [v for v in range(math.ceil(present) - SPAN, math.ceil(present)) if v > 0]
    above = range(math.floor(present) + 1, math.floor(present) + SPAN + 1)
    volts = [
        *(Tried(v, "", {path: f"{v} V"}) for v in below),
        Tried(present, "", {}),
        *(Tried(v, "", {path: f"{v} V"}) for v in above),
    ]
    return Swept("voltage", "voltage", "voltage", path, volts)


def _panels(words: str, panel: Panel, keys: Sequence[str], unit: str) -> Swept:
    """So many panels like this one: in a row their voltages add up, side by side their currents."""

    def with_(n: int) -> dict[str, Any]:
        return {f"drive.supply.{key}": f"{n * getattr(panel, key):.6g} {unit}" for key in keys}

    tried = [Tried(n, "", {} if n == 1 else with_(n)) for n in range(1, SPAN + 1)]
    return Swept(words, words, "", "", tried)


def _pack_of(count: int, voltage: float, resistance: float) -> dict[str, Any]:
    """A pack of so many cells that are each like the present one's."""
    return {
        "drive.supply.open_circuit_voltage": f"{count * voltage:.5g} V",
        "drive.supply.resistance": f"{1e3 * count * resistance:.5g} mohm",
    }


def _around(present: int) -> range:
    return range(max(1, present - SPAN), present + SPAN + 1)


def _road_wheel(document: Document, parts: Sequence[Mapping[str, Any]]) -> Swept:
    """The bin's wheels, and round sizes between them where the bin has few."""
    path, present = "vehicle.wheel_diameter", document.design.vehicle.wheel_diameter
    tried = {round(present, 9): Tried(present, "", {})}
    for raw, part in _read("wheel", parts):
        assert isinstance(part, RoadWheelPart)
        size = round(part.diameter, 9)
        tried.setdefault(size, Tried(part.diameter, part.name, {path: raw["diameter"]}))
    step = diameter_step(present)
    for n in (*range(1, SPAN + 1), *range(-1, -SPAN - 1, -1)):
        size = round(present + n * step, 9)
        side = [size for size in tried if (size > present) == (n > 0) and size != round(present, 9)]
        if size > 0.0 and len(side) < SPAN:
            tried.setdefault(size, Tried(size, "", {path: f"{1e3 * size:.6g} mm"}))
    ordered = [tried[size] for size in sorted(tried)]
    here = next(i for i, variant in enumerate(ordered) if not variant.changes)
    return Swept("wheel", "wheel", "length", path, ordered[max(0, here - SPAN) : here + SPAN + 1])


def _read(kind: str, parts: Sequence[Mapping[str, Any]]) -> Iterator[tuple[Mapping[str, Any], Any]]:
    """The bin's parts of a kind, as typed and as read."""
    for raw in parts:
        if raw.get("kind") != kind:
            continue
        try:
            yield raw, read_part(raw)
        except DocumentError:
            continue
