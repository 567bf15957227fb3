"""A stage of the drive: what all kinds have in common, and everything that a kind says of itself.

Whoever needs to know how kinds differ asks the stage: no other module names a kind, but the kind's own and its drawing.
"""

from __future__ import annotations

import dataclasses
from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping
from fractions import Fraction
from typing import Any, ClassVar, NamedTuple, Self

from ydrometer.base.reckoning import Floats
from ydrometer.document.stages import box_build
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.bring import Bring
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.plane import InPlane
from ydrometer.document.stages.steps import Given, Step
from ydrometer.document.stages.strain import Passing, Strain


class Member(NamedTuple):
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


class Reversal(NamedTuple):
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
    brings: ClassVar[tuple[Bring, ...]] = ()

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

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """What its parts have to stand, and what they do; nothing of a kind of which nothing is known.

        Args:
            passing: what goes through it.
        """
        return iter(())

    def pull(self, passing: Passing) -> Floats | None:
        """Force with which its loop draws its two shafts together, N, (m,); None where none does.

        Args:
            passing: what goes through it, the geometry of its loop known.
        """
        return None

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """How it is put together, in order; of a kind that says nothing of its own, as a closed box is.

        Args:
            hands: what is at hand there.
        """
        return box_build.jobs(hands, self.noun)

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


def stage_efficiency(stage: Stage) -> float:
    """The given efficiency, else the one to assume."""
    return stage.default_efficiency if stage.efficiency is None else stage.efficiency


def power_lost(stage: Stage) -> float:
    """Share of the power that a driving stage loses, slip included: 1 − η·(1 − s)."""
    return 1.0 - stage_efficiency(stage) * (1.0 - stage.slip)
