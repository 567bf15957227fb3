"""A stage of the drive: what all kinds have in common, and everything that a kind says of itself.

Whoever needs to know how kinds differ asks the stage: no other module names a kind, but the kind's own and its drawing.
"""

from __future__ import annotations

import dataclasses
import math
from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, ClassVar, Self

from ydrometer.base import reading
from ydrometer.document.stages.forms import LEAST_TEETH, MOST_DIAMETER, MOST_TEETH, Form
from ydrometer.document.stages.plane import InPlane
from ydrometer.document.stages.steps import Derived, Given, Step


@dataclass(frozen=True, slots=True)
class Member:
    """A wheel of a stage.

    Attributes:
        name: driver, driven, or idler with its number. key: where the document has its measure, below the stage.
        form. measure: teeth, or a diameter, m. idle: whether it carries power on to the next without a shaft out.
    """

    name: str
    key: str
    form: Form
    measure: float
    idle: bool = False


@dataclass(frozen=True, slots=True)
class Reversal:
    """A change of one value that turns a stage's output the other way; an empty list or False takes it out."""

    words: str
    key: str
    value: bool | list[int]


class Stage(ABC):
    """One reduction of the drive, from the shaft power enters by to the one it leaves by.

    Class attributes, said by each kind:
        kind: as the file has it. title, short, noun: its words as a heading, in a row of many, and in a sentence.
        in_plane: how it lies in the plane of a plate.
        start: a usual stage of the kind, as typed, to be changed.
        form: of its wheels, None of one known by its ratio alone.
        whole_part: kind of a bin's parts that are the whole stage, empty where there are none.
        several_speeds: whether it has several ratios, changed while driving.
        minds_torque: whether `cautions` has something to say about torque.
    """

    __slots__ = ()

    kind: ClassVar[str]
    title: ClassVar[str]
    short: ClassVar[str]
    noun: ClassVar[str]
    in_plane: ClassVar[InPlane]
    start: ClassVar[Mapping[str, Any]]
    form: ClassVar[Form | None] = None
    whole_part: ClassVar[str] = ""
    several_speeds: ClassVar[bool] = False
    minds_torque: ClassVar[bool] = False

    efficiency: float | None

    @property
    @abstractmethod
    def ratio(self) -> float:
        """Driven torque per driver torque before losses; with several speeds in the lowest gear."""

    @property
    def slip(self) -> float:
        """Share by which the driven member turns slower than the ratio says; 0 where nothing slips."""
        return 0.0

    @property
    def speed_ratio(self) -> float:
        """Driver turns per driven turn; differs from `ratio` only where something slips."""
        return self.ratio

    def ratio_in(self, gear: int) -> float:
        """The torque ratio in a gear, from 0; only one with several speeds has more than one."""
        return self.ratio

    @property
    @abstractmethod
    def default_efficiency(self) -> float:
        """Torque that gets through, as a share, to assume where none is given; slip is not part of it."""

    @property
    def rotation(self) -> int:
        """+1 where the driven member turns the way the driver does, −1 where it turns against it."""
        return 1

    @property
    def members(self) -> tuple[Member, ...]:
        """Its wheels from driver to driven; none of a stage known by its ratio alone."""
        return ()

    @property
    def tooth_size(self) -> float | None:
        """Module or pitch of its teeth, m; None where it is not given or there are none."""
        return None

    @property
    def lacking(self) -> str:
        """What is not given that says where its shafts stand; empty where nothing is."""
        return ""

    @property
    def crossed(self) -> bool:
        """Whether the runs of its loop cross."""
        return False

    @property
    def loop_length(self) -> float | None:
        """Length of what runs around its wheels, m; None where it does not say."""
        return None

    @property
    def loop_width(self) -> float | None:
        """Width of what runs on its wheels and must not be wider than they are, m; None where it does not say."""
        return None

    @property
    def exact_ratio(self) -> Fraction | None:
        """The ratio as a fraction of whole teeth; None where it has none."""
        return None

    @property
    def told(self) -> str:
        """Its sizes as people say them: "14 : 56"; empty where it has none."""
        return f"{self.ratio:.6g} : 1"

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """How its torque ratio i_<symbol> comes about, and, where it slips, its speed ratio j_<symbol>.

        Args:
            symbol: that tells it from other stages.
            gear: engaged, from 0.
        """
        yield Given(f"i_{symbol}", f"ratio of the {self.noun}", "", self.ratio)

    def reversals(self) -> Iterator[Reversal]:
        """Changes that turn its output the other way."""
        return iter(())

    @property
    def remark(self) -> str:
        """What is worth a word about its teeth; empty where nothing is."""
        return ""

    def cautions(self, torque: float) -> Iterator[tuple[str, str]]:
        """Keys and texts of what to mind at the largest torque on its driver, N·m."""
        return iter(())

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Key, problem and remedy of what only shows in combination."""
        return iter(())

    def member(self, name: str) -> Member | None:
        """The wheel of a name; None where it has none such."""
        return next((member for member in self.members if member.name == name), None)

    def resized(self, measures: Mapping[str, float]) -> Self | None:
        """The stage with other wheels; None where that cannot be.

        Args:
            measures: teeth, or diameters in m, by the names of its wheels.

        Raises:
            KeyError: it has no wheel of that name.
        """
        made = self
        for name, measure in measures.items():
            member = made.member(name)
            if member is None:
                raise KeyError(name)
            if not member.form.least <= measure <= member.form.most:
                return None
            made = made._with(member, measure)
        return None if any(made.faults()) else made

    def _with(self, member: Member, measure: float) -> Self:
        made: Self = dataclasses.replace(self, **{member.key: measure})  # type: ignore[type-var]  # kinds are dataclasses
        return made


class Wheeled(Stage):
    """A stage told by the measures of its driver and its driven wheel."""

    __slots__ = ()
    form: ClassVar[Form]

    @property
    def members(self) -> tuple[Member, ...]:
        """Driver and driven."""
        keys = [(end, f"{end}_{self.form.measure}") for end in ("driver", "driven")]
        return tuple(Member(end, key, self.form, getattr(self, key)) for end, key in keys)

    @property
    def told(self) -> str:
        """Driver and driven."""
        driver, driven = self.members[0], self.members[-1]
        if self.form.toothed:
            return f"{driver.measure} : {driven.measure}"
        return f"{1e3 * driver.measure:.5g} : {1e3 * driven.measure:.5g} mm"

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """Driven over driver; where something slips, the speed ratio besides."""
        driver, driven = self.members[0], self.members[-1]
        letter = "z" if self.form.toothed else "d"
        for end, member in (("a", driver), ("b", driven)):
            words = f"{self.noun}: {member.name} {'teeth' if self.form.toothed else 'diameter'}"
            # Teeth are plain numbers; diameters are quantities of the document.
            value = member.measure if self.form.toothed else None
            yield Given(f"{letter}_{symbol}{end}", words, member.key, value)
        yield Derived(f"i_{symbol}", f"ratio of the {self.noun}", f"{letter}_{symbol}b/{letter}_{symbol}a")


class Toothed(Wheeled):
    """A driver and a driven wheel told by their teeth."""

    __slots__ = ()
    driver_teeth: int
    driven_teeth: int

    @property
    def ratio(self) -> float:
        """Driven teeth over driver teeth."""
        return self.driven_teeth / self.driver_teeth

    @property
    def loop_length(self) -> float | None:
        """Length of what runs around its wheels, m; None where it does not say."""
        return None

    @property
    def loop_width(self) -> float | None:
        """Width of what runs on its wheels and must not be wider than they are, m; None where it does not say."""
        return None

    @property
    def exact_ratio(self) -> Fraction | None:
        """Driven teeth over driver teeth."""
        return Fraction(self.driven_teeth, self.driver_teeth)


class Slipping(Wheeled):
    """Two wheels without teeth: the driven one lags under load."""

    __slots__ = ()
    slip_key: ClassVar[str]
    slip_noun: ClassVar[str]

    @property
    def speed_ratio(self) -> float:
        """The driven wheel turns slower by the slip s: i/(1 − s)."""
        return self.ratio / (1.0 - self.slip)

    def working(self, symbol: str, gear: int) -> Iterator[Step]:
        """Slip takes speed and no torque."""
        yield from super().working(symbol, gear)
        yield Given(f"s_{symbol}", f"{self.slip_noun} of the {self.noun}", self.slip_key)
        yield Derived(f"j_{symbol}", "its ratio of speeds", f"i_{symbol}/(1 - s_{symbol})")


def teeth() -> Any:
    """A field holding a number of teeth."""
    return reading.whole(LEAST_TEETH, MOST_TEETH)


def efficiency() -> Any:
    """The optional field every stage takes."""
    optional = reading.quantity("ratio", above=0.0, at_most=1.0, default=None)
    return reading.labelled("Efficiency (empty: assumed)", optional)


def ratio_field() -> Any:
    """The ratio of a stage that is known by it alone."""
    return reading.labelled("Ratio, driver turns per driven turn", reading.quantity("ratio", above=0.0, at_most=1e6))


def pitch() -> Any:
    """The pitch of a belt or chain; needed for drawing and Fit alone."""
    return reading.labelled("Pitch", reading.quantity("length", above=0.0, at_most=1.0, default=None))


def diameter(label: str) -> Any:
    """A field holding the diameter on which a wheel without teeth works."""
    return reading.labelled(label, reading.quantity("length", above=0.0, at_most=MOST_DIAMETER))


def slip_field(label: str, usual: float) -> Any:
    """A field holding the share by which a driven wheel lags, assumed where it is not given."""
    return reading.labelled(label, reading.quantity("ratio", at_least=0.0, at_most=0.5, default=usual, assumed=True))


def width() -> Any:
    """How wide a wheel or what runs on it is; needed for Fit alone."""
    return reading.quantity("length", above=0.0, default=None)


def stage_efficiency(stage: Stage) -> float:
    """The given efficiency, else the one to assume."""
    return stage.default_efficiency if stage.efficiency is None else stage.efficiency


def power_lost(stage: Stage) -> float:
    """Share of the power that a driving stage loses, slip included: 1 − η·(1 − s)."""
    return 1.0 - stage_efficiency(stage) * (1.0 - stage.slip)


def hunting_remark(driver: int, driven: int) -> str:
    """Where the same teeth of two wheels keep meeting; empty where they do not.

    Wear is even where the numbers of teeth have no common factor ("hunting tooth": Dudley, Handbook of
    Practical Gear Design).

    Args:
        driver: its teeth.
        driven: its teeth.
    """
    shared = math.gcd(driver, driven)
    if shared == 1:
        return ""
    return (
        f"Both counts are multiples of {shared}: the same teeth meet again after {driven // shared} turns of the "
        f"driver. Without a common factor they would wear evenly."
    )
