"""Typical values of a field: what its value usually is, for those who do not have the figure yet."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base import units
from ydrometer.base.errors import QuantityError
from ydrometer.base.paths import value_at
from ydrometer.base.tables import typical as tables
from ydrometer.base.tables.typical import Range

HOUR = 3600.0
OVER_FULL = 1.02
"""How far above a full cell's voltage one may be, by rounding and by meters."""
_INDEX = re.compile(r"\[\d+\]")


@dataclass(frozen=True, slots=True)
class TypicalValue:
    """A typical value of a field.

    Attributes:
        of: what it is typical of. low, high: its range, in the SI unit of `dimension`.
        value: as it is kept in the design: the middle of the range with its uncertainty, marked as assumed.
        source: where the range is from.
    """

    of: str
    low: float
    high: float
    dimension: str
    value: dict[str, str]
    source: str


_Values = Callable[[Mapping[str, Any], str], Iterator[TypicalValue]]


def offers(raw: Mapping[str, Any], path: str) -> list[TypicalValue]:
    """Typical values of the field at a path of a design, those nearest to the rest of the design first.

    Args:
        raw: a design document; it may have faults elsewhere.
        path: such as "vehicle.grip" or "drive.branches[0].source.constants.resistance". A field for which there is no
            table, or whose table needs a value that the design does not give, has none.
    """
    table = _TABLES.get(pattern(path))
    return [] if table is None else list(table(raw, path))


def pattern(path: str) -> str:
    """A path with any place in a list left open: "drive.branches[].source.constants.resistance"."""
    return _INDEX.sub("[]", path)


def _rolling(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    diameter = known_at(raw, "vehicle.wheel_diameter", "length")
    for footing in _standing(raw):
        yield _offer(footing.words, footing.rolling_of(diameter), "ratio", "", tables.FOOTINGS_FROM)


def _grip(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    for footing in _standing(raw):
        yield _offer(footing.words, footing.grip, "ratio", "", tables.FOOTINGS_FROM)


def _standing(raw: Mapping[str, Any]) -> list[tables.Footing]:
    """All footings, first the one that another value of the vehicle names already."""
    notes = [value.get("note", "") for value in (value_at(raw, "vehicle") or {}).values() if isinstance(value, Mapping)]
    return sorted(tables.FOOTINGS, key=lambda footing: not any(footing.words in str(note) for note in notes))


def _drag_area(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    for words, span in tables.DRAG_AREAS:
        yield _offer(words, span, "area", "m^2", tables.DRAG_AREAS_FROM)


def _height(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    for words, span in tables.HEIGHTS:
        yield _offer(words, span, "length", "mm", tables.HEIGHTS_FROM)


def winding_resistance(size: tables.MotorSize, kv: float, mass: float | None = None) -> Range:
    """Range of the winding's resistance, ohm: R = (kt/Km)² with kt = 1/Kv (Hughes and Drury, Electric Motors and
    Drives, chapter 3, Conventional d.c. motors).

    Args:
        size: of the motor.
        kv: its speed constant, rad/s per volt, above 0.
        mass: kg, where it is known.
    """
    low, high = size.constant_of(mass)
    return 1.0 / (kv * high) ** 2, 1.0 / (kv * low) ** 2


def no_load_current(size: tables.MotorSize, kv: float, mass: float | None = None) -> Range:
    """Range of the current of a motor that runs free, A: I0 = M/kt = M·Kv with its drag M (the same).

    Args:
        size: of the motor.
        kv: its speed constant, rad/s per volt, above 0.
        mass: kg; all motors of a size have the same range.
    """
    low, high = size.drag
    return low * kv, high * kv


def _sizes(mass: float | None) -> list[tables.MotorSize]:
    """Sizes of motors, nearest to the motor's mass, kg, first where that is known."""
    if mass is None:
        return list(tables.MOTOR_SIZES)
    return sorted(tables.MOTOR_SIZES, key=lambda size: abs(math.log(mass / math.sqrt(size.mass[0] * size.mass[1]))))


_Law = Callable[[tables.MotorSize, float, float | None], Range]


def _of_motor(key: str, law: _Law, dimension: str, unit: str) -> _Values:
    """Typical values of one of a motor's constants, which follow from its size and its speed constant by a law."""

    def offered(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
        source = path.removesuffix(f".constants.{key}")
        kv = known_at(raw, f"{source}.constants.kv", "speed constant")
        if kv is None:
            return
        mass = known_at(raw, f"{source}.mass", "mass")
        for size in _sizes(mass):
            yield _offer(size.words, law(size, kv, mass), dimension, unit, tables.MOTOR_SIZES_FROM)

    return offered


def _radial(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    mass = known_at(raw, path.replace("radial_rating", "mass"), "mass")
    for words, (low, high) in tables.RADIAL_RATINGS if mass is not None else ():
        yield _offer(words, (low * (mass or 0.0), high * (mass or 0.0)), "force", "N", tables.RADIAL_RATINGS_FROM)


def _cell_voltage(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    for kind in tables.CELL_KINDS:
        words = f"{kind.words}, nominal to full"
        yield _offer(words, (kind.nominal, kind.full), "voltage", "V", tables.CELL_KINDS_FROM)


def _cell(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    capacity = known_at(raw, path.replace("cell_resistance", "cell_capacity"), "charge")
    if capacity is None:
        return
    for kind in tables.CELL_KINDS:
        yield _offer(kind.words, pack_resistance(kind, 1, capacity), "resistance", "mohm", tables.CELL_KINDS_FROM)


def _pack(raw: Mapping[str, Any], path: str) -> Iterator[TypicalValue]:
    supply = path.removesuffix(".resistance")
    voltage, capacity = (
        known_at(raw, f"{supply}.open_circuit_voltage", "voltage"),
        known_at(raw, f"{supply}.capacity", "charge"),
    )
    if voltage is None or capacity is None:
        return
    for kind in tables.CELL_KINDS:
        cells = cells_in_series(kind, voltage)
        yield _offer(
            pack_words(kind, cells),
            pack_resistance(kind, cells, capacity),
            "resistance",
            "mohm",
            tables.CELL_KINDS_FROM,
        )


def pack_words(kind: tables.CellKind, cells: int) -> str:
    """A pack as people say it: "6 lithium pouch cells for high currents"."""
    return f"{cells} {kind.words.replace(' cell', ' cells')}" if cells > 1 else kind.words


def cells_in_series(kind: tables.CellKind, voltage: float) -> int:
    """The fewest cells in a row that give a pack's voltage, V, full or not; at least one."""
    return max(1, math.ceil(voltage / (OVER_FULL * kind.full)))


def pack_resistance(kind: tables.CellKind, cells: int, capacity: float) -> Range:
    """Range of a pack's internal resistance, ohm: cells in a row add up, and resistance falls as capacity rises
    (Linden and Reddy, Handbook of Batteries, internal resistance of each system).

    Args:
        kind: of its cells.
        cells: in a row.
        capacity: A·s, above 0.
    """
    low, high = kind.resistance
    return cells * low * HOUR / capacity, cells * high * HOUR / capacity


_TABLES: dict[str, _Values] = {
    "vehicle.rolling_resistance": _rolling,
    "vehicle.grip": _grip,
    "vehicle.drag_area": _drag_area,
    "vehicle.cg_height": _height,
    "drive.branches[].source.constants.resistance": _of_motor("resistance", winding_resistance, "resistance", "mohm"),
    "drive.branches[].source.constants.no_load_current": _of_motor("no_load_current", no_load_current, "current", "A"),
    "drive.supply.resistance": _pack,
    "drive.supply.cells.cell_resistance": _cell,
    "drive.supply.cells.cell_voltage": _cell_voltage,
    "drive.branches[].source.radial_rating": _radial,
}
OFFERED = tuple(_TABLES)
"""Paths of the fields that have typical values, any place in a list left open."""


def assumed(of: str, span: Range, dimension: str, unit: str) -> dict[str, str]:
    """A value as it is kept: the middle of its range with an uncertainty, marked as assumed.

    Args:
        of: what it is typical of.
        span: its range, SI.
        dimension: its kind of quantity.
        unit: it is written in, empty for a plain number.
    """
    unit = "ohm" if unit == "mohm" and span[0] >= 1.0 else unit
    low, high = (_in(end, dimension, unit) for end in span)
    tail = f" {unit}" if unit else ""
    ends = f"{units.digits(low, 3)} to {units.digits(high, 3)} {units.symbol(unit)}".rstrip()
    value = f"{units.digits((low + high) / 2, 3)}{tail} +/- {units.digits((high - low) / tables.SIGMAS, 2)}{tail}"
    return {"value": value, "origin": "assumed", "note": f"typical of {of}: {ends}"}


def _offer(of: str, span: Range, dimension: str, unit: str, source: str) -> TypicalValue:
    return TypicalValue(of, *span, dimension, assumed(of, span, dimension, unit), source)


def _in(si: float, dimension: str, unit: str) -> float:
    factor, offset = units.scale(unit, dimension) if unit else (1.0, 0.0)
    return (si - offset) / factor


def known_at(raw: Mapping[str, Any], path: str, dimension: str) -> float | None:
    """The quantity at a path, SI; None where there is none that can be read, or none above 0.

    Args:
        raw: a design document, or a part of one; it may have faults.
        path: in it.
        dimension: its kind of quantity.
    """
    typed = value_at(raw, path)
    typed = typed.get("value") if isinstance(typed, Mapping) else typed
    if typed is None:
        return None
    try:
        value, _ = units.parse_uncertain(typed, dimension)
    except QuantityError:
        return None
    return value if value > 0.0 else None
