"""Parts that can be chosen: one type a kind, read like everything else of a document."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from ydrometer import reading, sources, supply
from ydrometer.stages import common

LONGEST_ID = 80
MOST_OWNED = 10_000


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """What every part has: its id, how many are owned, what one costs, what it weighs."""

    kind: ClassVar[str]
    id: str = reading.text(longest=LONGEST_ID)
    name: str = reading.text(longest=200)
    owned: int = reading.whole(0, MOST_OWNED, default=0)
    price: float | None = reading.quantity("price", at_least=0.0, default=None)
    mass: float | None = reading.quantity("mass", at_least=0.0, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A part is told by its id."""
        if not self.id:
            yield "id", "missing", "give each part a text of its own"


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
    """A battery, a panel or a bench supply."""

    kind: ClassVar[str] = "battery"
    supply: supply.Supply = reading.one_of(supply.KINDS)


@dataclass(frozen=True, slots=True, kw_only=True)
class GearPart(Part):
    """A spur gear of a tooth size."""

    kind: ClassVar[str] = "gear"
    teeth: int = common.teeth()
    module: float | None = reading.quantity("length", above=0.0, at_most=1.0, default=None)
    diametral_pitch: float | None = reading.quantity("diametral pitch", above=1.0, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Its tooth size is given one way."""
        yield from Part.faults(self)
        if (self.module is None) == (self.diametral_pitch is None):
            yield "module", "given twice or not at all", "give either module or diametral_pitch"

    @property
    def size(self) -> float:
        """Module, m."""
        return self.module if self.module is not None else 1.0 / (self.diametral_pitch or 1.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class PulleyPart(Part):
    """A pulley of a toothed belt."""

    kind: ClassVar[str] = "pulley"
    teeth: int = common.teeth()
    pitch: float = reading.quantity("length", above=0.0, at_most=1.0)

    @property
    def size(self) -> float:
        """Pitch of the belt, m."""
        return self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class SprocketPart(PulleyPart):
    """A sprocket of a roller chain."""

    kind: ClassVar[str] = "sprocket"


@dataclass(frozen=True, slots=True, kw_only=True)
class VPulleyPart(Part):
    """A V-pulley by the diameter on which the belt runs."""

    kind: ClassVar[str] = "v_pulley"
    pitch_diameter: float = reading.quantity("length", above=0.0, at_most=10.0)

    @property
    def size(self) -> float:
        """All go together: there is one section in a bin."""
        return 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class GearboxPart(Part):
    """A bought box of one ratio, or a planetary stack of `reductions`."""

    kind: ClassVar[str] = "gearbox"
    ratio: float | None = reading.quantity("ratio", above=0.0, at_most=1e6, default=None)
    reductions: tuple[float, ...] = reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1000.0), most=12)
    efficiency: float | None = common.efficiency()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """One ratio, or the steps of a stack."""
        yield from Part.faults(self)
        if (self.ratio is None) == (not self.reductions):
            yield "ratio", "given twice or not at all", "give either ratio or reductions"


@dataclass(frozen=True, slots=True, kw_only=True)
class WheelPart(Part):
    """A road wheel by its loaded rolling diameter."""

    kind: ClassVar[str] = "wheel"
    diameter: float = reading.quantity("length", above=0.0, at_most=10.0)


KINDS: dict[str, type[Part]] = {
    kind.kind: kind
    for kind in (MotorPart, EnginePart, SupplyPart, GearPart, PulleyPart, SprocketPart, VPulleyPart, GearboxPart,
                 WheelPart)
}  # fmt: skip
