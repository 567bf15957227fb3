"""The bin as a table: which columns each kind of part has."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from ydrometer.base.tables.fatigue import SHAPES
from ydrometer.base.tables.strengths import BELT_PROFILES
from ydrometer.parts.boxes import BOX, BROUGHT, RATIOS, BoxValue
from ydrometer.parts.part import SUNDRIES

Type = Literal["text", "whole", "quantity", "quantities", "ratios", "choice", "curve"]


@dataclass(frozen=True, slots=True)
class PartColumn:
    """One column.

    Attributes:
        path: where its value stands in the part, dots between. head: its words.
        type: what its cells hold. dimension: of a quantity. choices: of a choice, the first where nothing is given.
        needed: a part is nothing without it. wide: how many characters a cell usually has.
    """

    path: str
    head: str
    type: Type
    dimension: str
    choices: tuple[str, ...]
    needed: bool
    wide: int


@dataclass(frozen=True, slots=True)
class PartTable:
    """A kind of part: its name for one and for many, its columns, and what its parts hold besides."""

    kind: str
    singular: str
    plural: str
    columns: tuple[PartColumn, ...]
    fixed: Mapping[str, Any]


def _column(
    path: str,
    head: str,
    type_: Type,
    dimension: str = "",
    *,
    choices: tuple[str, ...] = (),
    needed: bool = False,
    wide: int = 9,
) -> PartColumn:
    return PartColumn(path, head, type_, dimension, choices, needed, wide)


def _text(path: str, head: str, wide: int = 16) -> PartColumn:
    return _column(path, head, "text", wide=wide)


def _size(path: str, head: str = "", *, needed: bool = False, dimension: str = "length") -> PartColumn:
    return _column(path, head or path.rpartition(".")[2].replace("_", " "), "quantity", dimension, needed=needed)


def _whole(path: str, head: str, *, needed: bool = False) -> PartColumn:
    return _column(path, head, "whole", needed=needed, wide=6)


def _shape(path: str, head: str) -> PartColumn:
    return _column(path, head, "choice", choices=SHAPES)


_OF_SCHEMA: dict[str, Type] = {"integer": "whole", "string": "text"}
"""What a cell holds, by the JSON type of a value that is neither a quantity nor a list."""


def _of_box(value: BoxValue) -> PartColumn:
    """The column of what a kind of box says, by how that kind reads it."""
    spec = value.declared.metadata["spec"]
    if spec.absent is not None:
        return _column(value.key, value.head, "quantity", spec.absent.dimension)
    if value.is_list:
        return _column(value.key, value.head, "quantities" if value.each else "ratios", value.each)
    return _column(value.key, value.head, _OF_SCHEMA[spec.read.schema()["type"]])


_NAME = _text("name", "name", 26)
_BORE = (_size("bore"), _shape("bore_shape", "bore shape"))
_COMMON = (
    _whole("owned", "owned"),
    _size("price", dimension="price"),
    _size("mass", dimension="mass"),
    _size("lead_time", "lead time", dimension="lead time"),
)
_NOTE = _text("note", "note", 20)
_PITCH = _size("pitch", needed=True)
_TEETH = _whole("teeth", "teeth", needed=True)
_PANEL = (
    _size("supply.open_circuit_voltage", "open-circuit voltage", dimension="voltage", needed=True),
    _size("supply.short_circuit_current", "short-circuit current", dimension="current", needed=True),
    _size("supply.max_power_voltage", "voltage at most power", dimension="voltage", needed=True),
    _size("supply.max_power_current", "current at most power", dimension="current", needed=True),
)

_ROWS: tuple[tuple[str, str, str, tuple[PartColumn, ...], dict[str, Any]], ...] = (
    (
        "motor",
        "motor",
        "Motors",
        (
            _size("source.constants.kv", "speed constant", dimension="speed constant"),
            _size("source.constants.resistance", "resistance", dimension="resistance"),
            _size("source.constants.no_load_current", "no-load current", dimension="current"),
            _size("source.bench_points.nominal_voltage", "nominal voltage", dimension="voltage"),
            _size("source.bench_points.free_speed", "free speed", dimension="angular speed"),
            _size("source.bench_points.free_current", "free current", dimension="current"),
            _size("source.bench_points.stall_torque", "stall torque", dimension="torque"),
            _size("source.bench_points.stall_current", "stall current", dimension="current"),
            _size("source.rotor_inertia", "rotor inertia", dimension="inertia"),
            _size("source.max_speed", "highest speed", dimension="angular speed"),
            _size("source.continuous_current", "continuous current", dimension="current"),
            _size("source.peak_current", "peak current", dimension="current"),
            _size("source.winding_limit", "winding limit", dimension="temperature"),
            _size("source.thermal.winding_capacity", "winding's heat capacity", dimension="heat capacity"),
            _size("source.thermal.winding_to_case", "winding to case", dimension="thermal resistance"),
            _size("source.thermal.case_capacity", "case's heat capacity", dimension="heat capacity"),
            _size("source.thermal.case_to_air", "case to air", dimension="thermal resistance"),
            _size("source.shaft.diameter", "shaft", dimension="length"),
            _size("source.shaft.overhang", "shaft's overhang", dimension="length"),
            _size("source.radial_rating", "force across its shaft", dimension="force"),
            _size("controller.current_limit", "controller limit", dimension="current"),
            _size("controller.resistance", "controller resistance", dimension="resistance"),
            _size("controller.continuous_current", "controller, continuous", dimension="current"),
            _size("controller.peak_current", "controller, peak", dimension="current"),
            _size("controller.max_voltage", "controller, highest voltage", dimension="voltage"),
        ),
        {"source": {"kind": "motor"}},
    ),
    (
        "engine",
        "engine",
        "Engines",
        (
            _column("source.torque_curve", "torque curve", "curve", needed=True, wide=30),
            _size("source.inertia", "inertia", dimension="inertia"),
            _size("source.max_speed", "highest speed", dimension="angular speed"),
            _size("clutch.engagement_speed", "clutch engages", dimension="angular speed"),
        ),
        {"source": {"kind": "engine"}},
    ),
    (
        "battery",
        "battery",
        "Batteries",
        (
            _size("supply.open_circuit_voltage", "open-circuit voltage", dimension="voltage"),
            _size("supply.resistance", "resistance", dimension="resistance"),
            _size("supply.current_limit", "current limit", dimension="current"),
            _size("supply.capacity", "capacity", dimension="charge"),
            _whole("supply.cells.series", "cells in series"),
            _whole("supply.cells.parallel", "rows side by side"),
            _size("supply.cells.cell_voltage", "cell voltage", dimension="voltage"),
            _size("supply.cells.cell_resistance", "cell resistance", dimension="resistance"),
            _size("supply.cells.cell_capacity", "cell capacity", dimension="charge"),
            _size("supply.cells.extra_resistance", "resistance of leads", dimension="resistance"),
            _size("supply.continuous_current", "continuous current", dimension="current"),
            _size("supply.peak_current", "peak current", dimension="current"),
            _size("supply.cutoff_voltage", "electronics drop out below", dimension="voltage"),
            _size("supply.max_voltage", "highest voltage", dimension="voltage"),
            _size("supply.fuse.rating", "fuse", dimension="current"),
        ),
        {"supply": {"kind": "battery"}},
    ),
    ("panel", "panel", "Panels", _PANEL, {"supply": {"kind": "panel"}}),
    (
        "controller",
        "controller",
        "Controllers",
        (
            _size("controller.current_limit", "current limit", dimension="current", needed=True),
            _size("controller.resistance", "resistance", dimension="resistance"),
            _size("controller.continuous_current", "continuous current", dimension="current"),
            _size("controller.peak_current", "peak current", dimension="current"),
            _size("controller.max_voltage", "highest voltage", dimension="voltage"),
        ),
        {"controller": {}},
    ),
    (
        "gear",
        "gear",
        "Gears",
        (
            _TEETH,
            _size("module"),
            _size("diametral_pitch", dimension="diametral pitch"),
            _size("pressure_angle", dimension="angle"),
            _size("width"),
            *_BORE,
            _text("material", "material"),
            _size("allowed_stress", "stress its teeth stand", dimension="stress"),
            _size("allowed_contact", "pressure its flanks stand", dimension="stress"),
        ),
        {},
    ),
    ("pulley", "pulley", "Pulleys", (_TEETH, _PITCH, _size("width"), *_BORE, _size("flange_diameter")), {}),
    (
        "belt",
        "belt",
        "Belts",
        (
            _PITCH,
            _TEETH,
            _size("width"),
            _column("profile", "profile", "choice", choices=("", *BELT_PROFILES)),
            _size("allowed_force_per_width", dimension="force per width"),
        ),
        {},
    ),
    ("sprocket", "sprocket", "Sprockets", (_TEETH, _PITCH, _size("width"), *_BORE), {}),
    (
        "chain",
        "chain",
        "Chains",
        (
            _PITCH,
            _whole("links", "links"),
            _size("breaking_load", dimension="force"),
            _size("max_speed", "highest speed", dimension="angular speed"),
        ),
        {},
    ),
    (
        "v_pulley",
        "V-pulley",
        "V-pulleys",
        (
            _size("pitch_diameter", "pitch diameter", needed=True),
            _size("outside_diameter"),
            _size("width"),
            *_BORE,
        ),
        {},
    ),
    ("v_belt", "V-belt", "V-belts", (_size("length", needed=True), _size("width")), {}),
    (
        BOX,
        "gearbox",
        "Gearboxes",
        (
            *(_of_box(value) for value in (*RATIOS.values(), *BROUGHT.values())),
            _size("bore"),
            _size("shaft"),
        ),
        {},
    ),
    ("wheel", "wheel", "Wheels", (_size("diameter", "rolling diameter", needed=True), _size("width"), *_BORE), {}),
    ("spacer", "spacer", "Spacers", (_size("thickness", needed=True), _size("bore"), _size("outside_diameter")), {}),
    (
        "bearing",
        "bearing",
        "Bearings",
        (
            _size("bore", needed=True),
            _size("outside_diameter", needed=True),
            _size("width", needed=True),
            _size("load_rating", "load rating", dimension="force"),
        ),
        {},
    ),
    (
        "adapter",
        "adapter",
        "Adapters",
        (
            _size("shaft", needed=True),
            _shape("shaft_shape", "shaft shape"),
            _size("outside"),
            _shape("outside_shape", "outside shape"),
            _size("width"),
        ),
        {},
    ),
    ("sleeve", "sleeve", "Sleeves", (_size("shaft", needed=True), _size("outside", needed=True), _size("width")), {}),
    ("sundry", "sundry", "Sundries", (_column("what", "what", "choice", choices=SUNDRIES), _text("size", "size")), {}),
)

_NAMED = ("motor", "engine", "battery", "panel", BOX)
"""Kinds whose parts people tell by a name; all others by their sizes."""


def _ordered(kind: str, own: tuple[PartColumn, ...]) -> tuple[PartColumn, ...]:
    """What a part is told by comes first, then how many are owned."""
    owned, *rest = _COMMON
    if kind in _NAMED:
        return (_NAME, owned, *own, *rest, _NOTE)
    return (*own[:2], owned, *own[2:], *rest, _NAME, _NOTE)


TABLE: dict[str, PartTable] = {
    kind: PartTable(kind, singular, many, _ordered(kind, own), fixed) for kind, singular, many, own, fixed in _ROWS
}
"""The columns of each kind, in the order of `kinds.KINDS`."""
