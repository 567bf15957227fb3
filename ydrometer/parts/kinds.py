"""The kinds of parts that a bin holds: one type a kind, read like everything else of a document.

What a search can choose (motors, supplies, wheels, pairs of gears …) and what Fit needs beside it (belts, spacers,
bearings …). Dimensions are optional: a part whose bore nobody has measured is still a part.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables.strengths import BELT_PROFILES
from ydrometer.document import sources, supply
from ydrometer.document.stages import fields
from ydrometer.document.stages.forms import GEAR, GROOVED, PULLEY, SPROCKET, Form
from ydrometer.parts.boxes import GearboxPart
from ydrometer.parts.part import SUNDRIES, AroundPart, OnShaft, Part, PowerWheel, needed_length, optional_length, shape


@dataclass(frozen=True, slots=True, kw_only=True)
class Pitched(PowerWheel):
    """What a belt or chain runs on, by its teeth and their pitch."""

    teeth: int = fields.teeth()
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
    """A motor controller by itself."""

    kind: ClassVar[str] = "controller"
    controller: sources.Controller = reading.nested(sources.Controller)


@dataclass(frozen=True, slots=True, kw_only=True)
class GearPart(PowerWheel):
    """A spur gear of a tooth size."""

    kind: ClassVar[str] = "gear"
    form: ClassVar[Form] = GEAR
    teeth: int = fields.teeth()
    module: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    diametral_pitch: float | None = reading.quantity("diametral pitch", above=1.0, default=None)
    pressure_angle: float = reading.quantity("angle", above=0.0, at_most=0.8, default=0.3490658503988659)
    material: str = reading.text(longest=80)
    allowed_stress: float | None = reading.quantity("stress", above=0.0, default=None)
    allowed_contact: float | None = reading.quantity("stress", above=0.0, default=None)

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
    flange_diameter: float | None = optional_length()

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
    pitch_diameter: float = needed_length()
    outside_diameter: float | None = optional_length()

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
    width: float | None = optional_length()
    profile: str | None = reading.choice(BELT_PROFILES, default=None)
    allowed_force_per_width: float | None = reading.quantity("force per width", above=0.0, default=None)

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
    width: float | None = optional_length()

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
    max_speed: float | None = reading.quantity("angular speed", above=0.0, default=None)

    @property
    def around(self) -> float | None:
        """Links times pitch; None of a chain by the metre."""
        return None if self.links is None else self.links * self.pitch

    @property
    def loop_pitch(self) -> float:
        """Its pitch, m."""
        return self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class RoadWheelPart(OnShaft):
    """A road wheel by its loaded rolling diameter."""

    kind: ClassVar[str] = "wheel"
    diameter: float = needed_length()


@dataclass(frozen=True, slots=True, kw_only=True)
class SpacerPart(Part):
    """A ring that keeps things apart on a shaft."""

    kind: ClassVar[str] = "spacer"
    thickness: float = needed_length()
    bore: float | None = optional_length()
    outside_diameter: float | None = optional_length()


@dataclass(frozen=True, slots=True, kw_only=True)
class BearingPart(Part):
    """A rolling bearing or a bush."""

    kind: ClassVar[str] = "bearing"
    bore: float = needed_length()
    outside_diameter: float = needed_length()
    width: float = needed_length()
    load_rating: float | None = reading.quantity("force", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class AdapterPart(Part):
    """What carries a wheel with one bore on a shaft of another size or shape."""

    kind: ClassVar[str] = "adapter"
    shaft: float = needed_length()
    shaft_shape: str = shape()
    outside: float | None = optional_length()
    outside_shape: str = shape()
    width: float | None = optional_length()


@dataclass(frozen=True, slots=True, kw_only=True)
class SleevePart(Part):
    """A tube that fills a bore down to a smaller round shaft."""

    kind: ClassVar[str] = "sleeve"
    shaft: float = needed_length()
    outside: float = needed_length()
    width: float | None = optional_length()


@dataclass(frozen=True, slots=True, kw_only=True)
class SundryPart(Part):
    """Screws, a fuse, locker and other small things, told by what they are and a size in words."""

    kind: ClassVar[str] = "sundry"
    what: str = reading.choice(SUNDRIES, default="other")
    size: str = reading.text(longest=80)


KINDS: dict[str, type[Part]] = {
    kind.kind: kind
    for kind in (
        MotorPart,
        EnginePart,
        SupplyPart,
        PanelPart,
        ControllerPart,
        GearPart,
        PulleyPart,
        BeltPart,
        SprocketPart,
        ChainPart,
        VPulleyPart,
        VBeltPart,
        GearboxPart,
        RoadWheelPart,
        SpacerPart,
        BearingPart,
        AdapterPart,
        SleevePart,
        SundryPart,
    )
}
