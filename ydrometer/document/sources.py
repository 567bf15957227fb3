"""What turns the first shaft: electric motors with their controller, and engines with their clutch."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import parts, strength
from ydrometer.base.quantities import Schema
from ydrometer.base.seen import Reading
from ydrometer.base.tables.fatigue import NOTCHES, SHAPES
from ydrometer.base.tables.strengths import MATERIAL_NAMES


def _current() -> Any:
    """A current above 0 that need not be known."""
    return reading.quantity("current", above=0.0, default=None)


DISAGREEMENT = 0.05
"""Relative difference of kt and ke above which a maker's five figures contradict each other."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Constants:
    """A motor by its constants: `kv` in rad/s per volt, `resistance` in ohm, `no_load_current` in A."""

    kv: float = reading.quantity("speed constant", above=0.0)
    resistance: float = reading.quantity("resistance", above=0.0)
    no_load_current: float = reading.quantity("current", at_least=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchPoints:
    """A motor by what was measured at its nominal voltage: running free, and held still."""

    nominal_voltage: float = reading.quantity("voltage", above=0.0)
    free_speed: float = reading.quantity("angular speed", above=0.0)
    free_current: float = reading.quantity("current", at_least=0.0)
    stall_torque: float = reading.quantity("torque", above=0.0)
    stall_current: float = reading.quantity("current", above=0.0)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """What only shows in combination."""
        if self.stall_current <= self.free_current:
            yield (
                "stall_current",
                "not above free_current",
                "a motor held still draws more than one running free",
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class Thermal:
    """How a motor warms: heat capacities of winding and case, J/K, and how heat gets from one to the other, K/W."""

    winding_capacity: float = strength("Heat capacity of the winding", reading.quantity("heat capacity", above=0.0))
    winding_to_case: float = strength("From winding to case", reading.quantity("thermal resistance", above=0.0))
    case_capacity: float = strength("Heat capacity of the case", reading.quantity("heat capacity", above=0.0))
    case_to_air: float = strength("From case to air", reading.quantity("thermal resistance", above=0.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class SourceShaft:
    """A source's own shaft: its diameter, and how far the middle of the first wheel is from its bearing, m.

    Yield and tensile strength, Pa, go before those of the material. The notch is where it is loaded most.
    """

    diameter: float = strength("Diameter", reading.quantity("length", above=0.0, at_most=1.0))
    overhang: float = strength(
        "From its bearing to the first wheel", reading.quantity("length", at_least=0.0, at_most=10.0)
    )
    material: str | None = strength("Material", reading.choice(MATERIAL_NAMES, default=None))
    yield_strength: float | None = strength(
        "Yield strength", reading.called("yield", reading.quantity("stress", above=0.0, default=None))
    )
    tensile: float | None = strength("Tensile strength", reading.quantity("stress", above=0.0, default=None))
    shape: str = strength("Shape", reading.choice(SHAPES, default="round"))
    notch: str | None = strength("Notch where it is loaded most", reading.choice(NOTCHES, default=None))


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorPlate:
    """The plate that a motor is screwed to, as far as it stands out from where the plate is held.

    Attributes:
        span: from the motor's axis to the nearest place at which the plate is held firmly, m. thickness: m; that of the
        design's plate where it is not given. width: m; across the motor where it is not given.
    """

    span: float = strength(
        "From its axis to where the plate is held", reading.quantity("length", above=0.0, at_most=10.0)
    )
    thickness: float | None = strength(
        "Thickness (empty: the design's plate)", reading.quantity("length", above=0.0, at_most=1.0, default=None)
    )
    width: float | None = strength(
        "Width (empty: across the motor)", reading.quantity("length", above=0.0, at_most=10.0, default=None)
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Motor:
    """An electric motor at full throttle in steady state: V = I·R + ke·w, T = kt·(I − I0)."""

    kind: ClassVar[str] = "motor"
    name: str = reading.line()
    constants: Constants | None = reading.nested(Constants, default=None)
    bench_points: BenchPoints | None = reading.nested(BenchPoints, default=None)
    rotor_inertia: float = reading.quantity("inertia", at_least=0.0, default=0.0)
    max_speed: float | None = reading.quantity("angular speed", above=0.0, default=None)
    mass: float | None = strength("Mass", reading.quantity("mass", above=0.0, default=None))
    continuous_current: float | None = strength("Continuous current", _current())
    peak_current: float | None = strength("Peak current", _current())
    thermal: Thermal | None = parts(Thermal, reading.nested(Thermal, default=None))
    winding_limit: float | None = strength(
        "Winding limit (empty: 130 °C)", reading.quantity("temperature", above=0.0, default=None)
    )
    mount_material: str | None = strength("Material of its mount", reading.choice(MATERIAL_NAMES, default=None))
    shaft: SourceShaft | None = parts(SourceShaft, reading.nested(SourceShaft, default=None), group="Its shaft")
    radial_rating: float | None = strength(
        "Force across that its shaft stands", reading.quantity("force", above=0.0, default=None)
    )
    mount: MotorPlate | None = parts(MotorPlate, reading.nested(MotorPlate, default=None), group="Its plate")
    reversed: bool = reading.flag()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A motor is given one way or the other."""
        if (self.constants is None) == (self.bench_points is None):
            problem = "missing" if self.constants is None else "given beside bench_points"
            yield "constants", problem, "give either constants or bench_points"


@dataclass(frozen=True, slots=True, kw_only=True)
class Controller:
    """Between supply and motor: a bound on the motor's driving current, and a series resistance."""

    current_limit: float | None = _current()
    resistance: float = reading.quantity("resistance", at_least=0.0, default=0.0)
    continuous_current: float | None = strength("Continuous current, motor side", _current())
    peak_current: float | None = strength("Peak current, motor side", _current())
    max_voltage: float | None = strength("Highest voltage", reading.quantity("voltage", above=0.0, default=None))


MOST_POINTS = 1000
"""Points of a torque curve, at most."""
_SPEED = reading.quantity_reader("angular speed", at_least=0.0)
_TORQUE = reading.quantity_reader("torque", at_least=0.0)


def _point_schema() -> Schema:
    return {"type": "array", "prefixItems": [_SPEED.schema(), _TORQUE.schema()], "minItems": 2, "maxItems": 2}


def _read_point(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, list | tuple) or len(raw) != 2:
        return seen.fault(path, "not a pair", 'give speed and torque, such as ["1800 rpm", "6.1 N*m"]')
    return _SPEED(raw[0], f"{path}[0]", seen), _TORQUE(raw[1], f"{path}[1]", seen)


@dataclass(frozen=True, slots=True, kw_only=True)
class Engine:
    """An engine by points (rad/s, N·m) of its full-throttle torque; the governor is the falling end of the curve."""

    kind: ClassVar[str] = "engine"
    name: str = reading.line()
    torque_curve: tuple[tuple[float, float], ...] = reading.items(
        reading.Reader(_read_point, _point_schema), least=1, most=MOST_POINTS, required=True
    )
    inertia: float = reading.quantity("inertia", at_least=0.0, default=0.0)
    max_speed: float | None = reading.quantity("angular speed", above=0.0, default=None)
    mass: float | None = reading.quantity("mass", above=0.0, default=None)
    shaft: SourceShaft | None = parts(SourceShaft, reading.nested(SourceShaft, default=None), group="Its shaft")
    reversed: bool = reading.flag()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """The points rise in speed."""
        for index, (before, after) in enumerate(pairwise(self.torque_curve), start=1):
            if not before[0] < after[0]:
                yield f"torque_curve[{index}][0]", "not above the speed before it", "give the points rising in speed"
        if self.torque_curve[-1][0] <= 0.0:
            yield "torque_curve", "ends at standstill", "give points up to the governed speed"

    @property
    def rotor_inertia(self) -> float:
        """Counted as a rotor's throughout, a stated simplification."""
        return self.inertia


@dataclass(frozen=True, slots=True, kw_only=True)
class Clutch:
    """A centrifugal clutch on the engine's own shaft; a hand clutch is the same at its chosen launch speed."""

    engagement_speed: float = reading.quantity("angular speed", above=0.0)


Source = Motor | Engine
KINDS: dict[str, type] = {"motor": Motor, "engine": Engine}


@dataclass(frozen=True, slots=True)
class MotorLine:
    """The four numbers of the straight torque-speed line.

    Attributes:
        ke: voltage per speed, V·s/rad.
        kt: torque per current, N·m/A.
        resistance: the winding's, ohm.
        no_load_current: taken as constant, A.
    """

    ke: float
    kt: float
    resistance: float
    no_load_current: float

    @property
    def disagreement(self) -> float:
        """How far kt lies from ke, relative to the smaller; a real motor has them equal."""
        return abs(self.kt - self.ke) / min(self.kt, self.ke)


def motor_line(motor: Motor) -> MotorLine:
    """The line through what the maker gives (steady-state DC motor: Hughes and Drury, Electric
    Motors and Drives, chapter 3, Conventional d.c. motors).

    By constants, kt = ke = 1/Kv. By bench points the line passes exactly through both points:
    R = Vn/Is, I0 = If, kt = Ts/(Is − If), ke = (Vn − If·R)/wf.
    """
    if motor.constants is not None:
        constant = 1.0 / motor.constants.kv
        return MotorLine(constant, constant, motor.constants.resistance, motor.constants.no_load_current)
    points = motor.bench_points
    assert points is not None  # the reader refuses a motor without either
    resistance = points.nominal_voltage / points.stall_current
    return MotorLine(
        ke=(points.nominal_voltage - points.free_current * resistance) / points.free_speed,
        kt=points.stall_torque / (points.stall_current - points.free_current),
        resistance=resistance,
        no_load_current=points.free_current,
    )
