"""The kinds of parts that a bin holds: one type a kind, read like everything else of a document.

What a search can choose (motors, supplies, wheels, pairs of gears …) and what Fit needs beside it (belts, spacers,
bearings …). Dimensions are optional: a part whose bore nobody has measured is still a part.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.document import sources, supply
from ydrometer.document.mounting import SHAPES
from ydrometer.document.stages import stage as common
from ydrometer.document.stages.forms import GEAR, GROOVED, PULLEY, SPROCKET, Form

LONGEST_ID = 80
MOST_OWNED = 10_000


def _size() -> Any:
    """A length above 0 that need not be known."""
    return reading.quantity("length", above=0.0, at_most=10.0, default=None)


def _measure() -> Any:
    """A length above 0 without which the part cannot be told."""
    return reading.quantity("length", above=0.0, at_most=10.0)


def _shape() -> Any:
    return reading.choice(SHAPES, default="round")


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """What every part has: its id, how many are owned, what one costs, what it weighs."""

    kind: ClassVar[str]
    id: str = reading.text(longest=LONGEST_ID)
    name: str = reading.text(longest=200)
    owned: int = reading.whole(0, MOST_OWNED, default=0)
    price: float | None = reading.quantity("price", at_least=0.0, default=None)
    mass: float | None = reading.quantity("mass", at_least=0.0, default=None)
    note: str = reading.text()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A part is told by its id."""
        if not self.id:
            yield "id", "missing", "give each part a text of its own"


@dataclass(frozen=True, slots=True, kw_only=True)
class OnShaft(Part):
    """What sits on a shaft with a bore."""

    width: float | None = _size()
    bore: float | None = _size()
    bore_shape: str = _shape()


class PowerWheel(OnShaft):
    """A wheel that passes power on, told by its teeth and their size, or by a diameter."""

    __slots__ = ()
    form: ClassVar[Form]

    @property
    def tooth_size(self) -> float:
        """Module or pitch, m; 0 where it has no teeth."""
        return 0.0

    @property
    def measure(self) -> float:
        """Teeth, or a diameter, m."""
        found: float = getattr(self, self.form.measure)
        return found

    @property
    def rim(self) -> float | None:
        """Diameter over flanges or rim, m, where it is known."""
        return None


class AroundPart(Part):
    """What runs around wheels, by its length."""

    __slots__ = ()

    @property
    def around(self) -> float | None:
        """Its length, m; None where it is not cut to one."""
        raise NotImplementedError

    @property
    def loop_pitch(self) -> float:
        """Its pitch, m; 0 where it has none."""
        return 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Pitched(PowerWheel):
    """What a belt or chain runs on, by its teeth and their pitch."""

    teeth: int = common.teeth()
    pitch: float = reading.quantity("length", above=0.0, at_most=1.0)

    @property
    def tooth_size(self) -> float:
        """Pitch of the belt or chain, m."""
        return self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorPart(Part):
    """A motor, with the controller it is used with."""

    kind: ClassVar[str] = "motor"
    source: sources.Source = reading.one_of({"motor": sources.KINDS["motor"]})
    controller: sources.Controller | None = reading.nested(sources.Controller, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class EnginePart(Part):
    """An engine, with its clutch."""

    kind: ClassVar[str] = "engine"
    source: sources.Source = reading.one_of({"engine": sources.KINDS["engine"]})
    clutch: sources.Clutch | None = reading.nested(sources.Clutch, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class SupplyPart(Part):
    """A battery; or whatever else feeds the drive."""

    kind: ClassVar[str] = "battery"
    supply: supply.Supply = reading.one_of(supply.KINDS)


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelPart(Part):
    """A light panel."""

    kind: ClassVar[str] = "panel"
    supply: supply.Supply = reading.one_of({"panel": supply.KINDS["panel"]})


@dataclass(frozen=True, slots=True, kw_only=True)
class ControllerPart(Part):
    """A motor controller by itself; `continuous_current` is its maker's rating."""

    kind: ClassVar[str] = "controller"
    controller: sources.Controller = reading.nested(sources.Controller)
    continuous_current: float | None = reading.quantity("current", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class GearPart(PowerWheel):
    """A spur gear of a tooth size."""

    kind: ClassVar[str] = "gear"
    form: ClassVar[Form] = GEAR
    teeth: int = common.teeth()
    module: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    diametral_pitch: float | None = reading.quantity("diametral pitch", above=1.0, default=None)
    pressure_angle: float = reading.quantity("angle", above=0.0, at_most=0.8, default=0.3490658503988659)
    material: str = reading.text(longest=80)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Its tooth size is given one way."""
        yield from Part.faults(self)
        if (self.module is None) == (self.diametral_pitch is None):
            yield "module", "given twice or not at all", "give either module or diametral_pitch"

    @property
    def tooth_size(self) -> float:
        """Module, m."""
        return self.module if self.module is not None else 1.0 / (self.diametral_pitch or 1.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class PulleyPart(Pitched):
    """A pulley of a toothed belt."""

    kind: ClassVar[str] = "pulley"
    form: ClassVar[Form] = PULLEY
    flange_diameter: float | None = _size()

    @property
    def rim(self) -> float | None:
        """Over its flanges."""
        return self.flange_diameter


@dataclass(frozen=True, slots=True, kw_only=True)
class SprocketPart(Pitched):
    """A sprocket of a roller chain."""

    kind: ClassVar[str] = "sprocket"
    form: ClassVar[Form] = SPROCKET


@dataclass(frozen=True, slots=True, kw_only=True)
class VPulleyPart(PowerWheel):
    """A V-pulley by the diameter on which the belt runs; there is one section in a bin."""

    kind: ClassVar[str] = "v_pulley"
    form: ClassVar[Form] = GROOVED
    pitch_diameter: float = _measure()
    outside_diameter: float | None = _size()

    @property
    def rim(self) -> float | None:
        """Over its rim."""
        return self.outside_diameter


@dataclass(frozen=True, slots=True, kw_only=True)
class BeltPart(AroundPart):
    """A toothed belt, closed."""

    kind: ClassVar[str] = "belt"
    pitch: float = reading.quantity("length", above=0.0, at_most=1.0)
    teeth: int = reading.whole(10, 10_000)
    width: float | None = _size()

    @property
    def around(self) -> float | None:
        """Teeth times pitch."""
        return self.teeth * self.pitch

    @property
    def loop_pitch(self) -> float:
        """Its pitch, m."""
        return self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class VBeltPart(AroundPart):
    """A V-belt by its length along the line on which it runs."""

    kind: ClassVar[str] = "v_belt"
    length: float = reading.quantity("length", above=0.0, at_most=100.0)
    width: float | None = _size()

    @property
    def around(self) -> float | None:
        """Its length."""
        return self.length


@dataclass(frozen=True, slots=True, kw_only=True)
class ChainPart(AroundPart):
    """A roller chain; a length of it where `links` are given."""

    kind: ClassVar[str] = "chain"
    pitch: float = reading.quantity("length", above=0.0, at_most=1.0)
    links: int | None = reading.whole(4, 100_000, default=None)
    breaking_load: float | None = reading.quantity("force", above=0.0, default=None)

    @property
    def around(self) -> float | None:
        """Links times pitch; None of a chain by the metre."""
        return None if self.links is None else self.links * self.pitch

    @property
    def loop_pitch(self) -> float:
        """Its pitch, m."""
        return self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class GearboxPart(Part):
    """A bought box: of one ratio, a planetary stack of `reductions`, or of several speeds, `ratios`."""

    kind: ClassVar[str] = "gearbox"
    ratio: float | None = reading.quantity("ratio", above=0.0, at_most=1e6, default=None)
    reductions: tuple[float, ...] = reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1000.0), most=12)
    ratios: tuple[float, ...] = reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1000.0), most=12)
    efficiency: float | None = common.efficiency()
    torque_rating: float | None = reading.quantity("torque", above=0.0, default=None)
    max_speed: float | None = reading.quantity("angular speed", above=0.0, default=None)
    bore: float | None = _size()
    shaft: float | None = _size()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """One ratio, the steps of a stack, or the ratios of several speeds."""
        yield from Part.faults(self)
        if (self.ratio is not None) + bool(self.reductions) + bool(self.ratios) != 1:
            yield "ratio", "given twice or not at all", "give one of ratio, reductions and ratios"
        if list(self.ratios) != sorted(set(self.ratios), reverse=True):
            yield "ratios", "not falling", "give the ratios from the lowest gear up, such as 3.2 1.9 1.2"


@dataclass(frozen=True, slots=True, kw_only=True)
class RoadWheelPart(OnShaft):
    """A road wheel by its loaded rolling diameter."""

    kind: ClassVar[str] = "wheel"
    diameter: float = _measure()


@dataclass(frozen=True, slots=True, kw_only=True)
class SpacerPart(Part):
    """A ring that keeps things apart on a shaft."""

    kind: ClassVar[str] = "spacer"
    thickness: float = _measure()
    bore: float | None = _size()
    outside_diameter: float | None = _size()


@dataclass(frozen=True, slots=True, kw_only=True)
class BearingPart(Part):
    """A rolling bearing or a bush."""

    kind: ClassVar[str] = "bearing"
    bore: float = _measure()
    outside_diameter: float = _measure()
    width: float = _measure()


@dataclass(frozen=True, slots=True, kw_only=True)
class AdapterPart(Part):
    """What carries a wheel with one bore on a shaft of another size or shape."""

    kind: ClassVar[str] = "adapter"
    shaft: float = _measure()
    shaft_shape: str = _shape()
    outside: float | None = _size()
    outside_shape: str = _shape()
    width: float | None = _size()


@dataclass(frozen=True, slots=True, kw_only=True)
class SleevePart(Part):
    """A tube that fills a bore down to a smaller round shaft."""

    kind: ClassVar[str] = "sleeve"
    shaft: float = _measure()
    outside: float = _measure()
    width: float | None = _size()


KINDS: dict[str, type[Part]] = {
    kind.kind: kind
    for kind in (MotorPart, EnginePart, SupplyPart, PanelPart, ControllerPart, GearPart, PulleyPart, BeltPart,
                 SprocketPart, ChainPart, VPulleyPart, VBeltPart, GearboxPart, RoadWheelPart, SpacerPart, BearingPart,
                 AdapterPart, SleevePart)
}  # fmt: skip
