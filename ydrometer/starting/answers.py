"""From a vehicle to start from and a few answers in plain words to a design; every answer may be left out."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading, units
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.reading import finish, read_object
from ydrometer.base.seen import Reading
from ydrometer.base.tables import typical as tables
from ydrometer.document import design
from ydrometer.questions import typical
from ydrometer.starting.starts import Start, design_of
from ydrometer.taking import branch_with

FROM_LABEL = "from its label"
SIZES = {size.words: size for size in tables.MOTOR_SIZES}
CELLS = {kind.words: kind for kind in tables.CELL_KINDS}
FOOTINGS = {footing.words: footing for footing in tables.FOOTINGS}


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorLabel:
    """What somebody knows of a motor who only has its label: its size, and its speed constant."""

    size: str = reading.choice(tuple(SIZES))
    kv: float = reading.quantity("speed constant", above=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class EngineLabel:
    """The same of an engine: its rated power, and the speed at which it gives it."""

    power: float = reading.quantity("power", above=0.0)
    speed: float = reading.quantity("angular speed", above=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class PackLabel:
    """The same of a battery: its kind of cell, its voltage when full, and its capacity."""

    cells: str = reading.choice(tuple(CELLS))
    voltage: float = reading.quantity("voltage", above=0.0)
    capacity: float = reading.quantity("charge", above=0.0)


_BOUNDS = ("at_least", "at_most", "between")


def _read_goal(raw: Any, path: str, seen: Reading) -> Any:
    """Bounds of a target, which are read with the design: what is right there is said by its measure."""
    if not isinstance(raw, Mapping) or not set(raw) <= set(_BOUNDS):
        return seen.fault(path, "not the bounds of a target", "give " + ", ".join(_BOUNDS))
    return dict(raw)


_GOAL = reading.Reader(_read_goal, lambda: {"type": "object"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Answers:
    """What somebody answered; what they left out stays as the start has it.

    Attributes:
        name. mass: all of it together, kg. wheel_diameter: m. footing: what it stands on, by its words in the table.
        source, supply: ids of parts of the bin. motor, engine, pack: what a label says instead.
        goals: bounds of the start's targets in their order, as typed: {"at_least": "6 m/s"}.
    """

    name: str = reading.text(longest=200)
    mass: float | None = reading.quantity("mass", above=0.0, default=None)
    wheel_diameter: float | None = reading.quantity("length", above=0.0, default=None)
    footing: str | None = reading.choice(tuple(FOOTINGS), default=None)
    source: str = reading.text()
    motor: MotorLabel | None = reading.nested(MotorLabel, default=None)
    engine: EngineLabel | None = reading.nested(EngineLabel, default=None)
    supply: str = reading.text()
    pack: PackLabel | None = reading.nested(PackLabel, default=None)
    goals: tuple[Mapping[str, Any], ...] = reading.items(_GOAL, most=8)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What drives it is said once."""
        if sum(bool(given) for given in (self.source, self.motor, self.engine)) > 1:
            yield "source", "given beside a label", "give either a part of the bin or what its label says"
        if self.supply and self.pack:
            yield "supply", "given beside a label", "give either a part of the bin or what its label says"


def begun(start: Start, raw: Mapping[str, Any], parts: Sequence[Mapping[str, Any]] = ()) -> dict[str, Any]:
    """The design document that somebody begins with.

    Args:
        start: what they start from.
        raw: their answers, as typed.
        parts: documents of the bin that they may choose from.

    Raises:
        DocumentError: with paths below "answers" for what was answered; goals by their paths in the design.
    """
    seen = Reading()
    answers = finish(read_object(Answers, raw, "answers", seen), seen)
    document = design_of(start)
    document["name"] = answers.name or start.title
    _vehicle(document["vehicle"], raw, answers)
    _source(document["drive"], raw, answers, parts)
    _supply(document["drive"], raw, answers, parts)
    for place, goal in enumerate(answers.goals[: len(document["targets"])]):
        if goal:
            document["targets"][place] = {"measure": document["targets"][place]["measure"], **goal}
    design.read(document)
    return document


def _vehicle(vehicle: dict[str, Any], raw: Mapping[str, Any], answers: Answers) -> None:
    if answers.mass is not None:
        vehicle["mass"] = raw["mass"]
        vehicle.pop("payload", None)
    if answers.wheel_diameter is not None:
        vehicle["wheel_diameter"] = raw["wheel_diameter"]
    if answers.footing is not None:
        footing = FOOTINGS[answers.footing]
        rolling = footing.rolling_of(typical.known_at(vehicle, "wheel_diameter", "length"))
        vehicle["rolling_resistance"] = typical.assumed(footing.words, rolling, "ratio", "")
        vehicle["grip"] = typical.assumed(footing.words, footing.grip, "ratio", "")


def _source(
    drive: dict[str, Any], raw: Mapping[str, Any], answers: Answers, parts: Sequence[Mapping[str, Any]]
) -> None:
    branch = drive["branches"][0]
    if answers.source:
        turned = {"reversed": True} if branch["source"].get("reversed") else {}
        branch = branch_with(branch, _part(parts, answers.source, "answers.source"))
        branch["source"].update(turned)
        drive["branches"][0] = branch
    elif answers.motor is not None:
        branch["source"] = _motor(branch["source"], raw["motor"], answers.motor)
    elif answers.engine is not None:
        branch["source"] = _engine(branch["source"], answers.engine)


def _part(parts: Sequence[Mapping[str, Any]], wanted: str, path: str) -> Mapping[str, Any]:
    bin_part = next((part for part in parts if part["id"] == wanted), None)
    if bin_part is None:
        raise DocumentError([Fault(path, f'there is no "{wanted}" in the bin', "choose a part of the bin")])
    return bin_part


def _motor(present: Mapping[str, Any], raw: Mapping[str, Any], label: MotorLabel) -> dict[str, Any]:
    size = SIZES[label.size]
    constants = {
        "kv": {"value": raw["kv"], "origin": "given", "note": FROM_LABEL},
        "resistance": typical.assumed(size.words, typical.winding_resistance(size, label.kv), "resistance", "mohm"),
        "no_load_current": typical.assumed(size.words, typical.no_load_current(size, label.kv), "current", "A"),
    }
    turned = {"reversed": True} if present.get("reversed") else {}
    return {"kind": "motor", "name": size.words, "constants": constants, **turned}


_CURVE = ((0.5, 1.05), (0.67, 1.15), (0.83, 1.10), (1.0, 1.0), (1.07, 0.0))
"""A small governed engine: speeds and torques in parts of those at its rated power (Heywood, Internal Combustion Engine
Fundamentals, section on performance maps; the governor closes over the last few per cent)."""


def _engine(present: Mapping[str, Any], label: EngineLabel) -> dict[str, Any]:
    rpm, torque = label.speed / units.scale("rpm", "angular speed")[0], label.power / label.speed
    curve = [[f"{part * rpm:.0f} rpm", f"{share * torque:.3g} N*m"] for part, share in _CURVE]
    kept = {key: value for key, value in present.items() if key in ("inertia", "reversed")}
    name = f"engine, {label.power / 1000.0:.3g} kW"
    return {"kind": "engine", "name": name, "torque_curve": curve, "max_speed": curve[-1][0], **kept}


def _supply(
    drive: dict[str, Any], raw: Mapping[str, Any], answers: Answers, parts: Sequence[Mapping[str, Any]]
) -> None:
    if answers.supply:
        drive["supply"] = dict(_part(parts, answers.supply, "answers.supply")["supply"])
    elif answers.pack is not None:
        kind, label = CELLS[answers.pack.cells], answers.pack
        cells = typical.cells_in_series(kind, label.voltage)
        span = typical.pack_resistance(kind, cells, label.capacity)
        of = typical.pack_words(kind, cells)
        kept = {key: value for key, value in drive.get("supply", {}).items() if key == "current_limit"}
        drive["supply"] = {
            "kind": "battery",
            "open_circuit_voltage": raw["pack"]["voltage"],
            "capacity": raw["pack"]["capacity"],
            "resistance": typical.assumed(of, span, "resistance", "mohm"),
            **kept,
        }
