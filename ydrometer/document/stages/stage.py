"""A stage of the drive: what all kinds have in common, and everything that a kind says of itself.

Whoever needs to know how kinds differ asks the stage: no other module names a kind, but the kind's own.
"""

from __future__ import annotations

import copy
import dataclasses
from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping
from fractions import Fraction
from typing import Any, ClassVar, NamedTuple, Self

from ydrometer.base.reckoning import Floats
from ydrometer.document.stages import box_build, started
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.bring import Bring
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.inside import Inside, closed
from ydrometer.document.stages.plane import InPlane, Loop
from ydrometer.document.stages.steps import Given, Step
from ydrometer.document.stages.strain import Passing, SpeedLimit, Strain


class Member(NamedTuple):
    """A wheel of a stage.

    Attributes:
        name: driver, driven, or idler with its number. key: where the document has its measure, below the stage.
        form. measure: teeth, or a diameter, m. idle: whether it carries power on to the next without a shaft out.
        outside: diameter over all of it, m, where the design says that.
    """

    name: str
    key: str
    form: Form
    measure: float
    idle: bool = False
    outside: float | None = None


class Reversal(NamedTuple):
    """A change of one value that turns a stage's output the other way; an empty list or False takes it out."""

    words: str
    key: str
    value: bool | list[int]


class Stage(ABC):
    """One reduction of the drive, from the shaft power enters by to the one it leaves by.

    **To write a kind.** It is a frozen dataclass below `Stage`, or below `Toothed` or `Slipping` (`wheeled.py`) where
    it has two wheels, or below `Box` (`box.py`) where it is bought closed. What is typed of it are its fields,
    declared with the functions of `base/reading.py` and `fields.py`: a label for screens, units, bounds and a default.

    It must have, as class attributes:
        kind: as the file has it. title, short, noun: its words as a heading, in a row of many, and in a sentence.
        in_plane: how it lies on a plate (`plane.py`). start: a usual stage of the kind, as typed, to be changed.

    and as properties:
        ratio, default_efficiency.

    It says, where the default is not true of it:

    | subject | hooks |
    |---|---|
    | ratio | `ratio_key`, `exact_ratio`, `with_ratio`, `typed_ratio`; `slip` and `speed_ratio` |
    | several speeds | `several_speeds`, `gears`, `shift_time` |
    | its wheels | `form`, `members`, `tooth_size`, `lacking`, `pressure_angle` |
    | its loop | `crossed`, `loop_length`, `loop_width` |
    | how it turns | `rotation`, `reversals` |
    | what it weighs | `inertia`, `mass` |
    | parts of a bin | `whole_part`, `ratio_head`, `brings` |
    | its picture | `inside`, of one without wheels |
    | words | `sizes_words`, `remark`, `cautions` with `minds_torque`, `working` |
    | Loads | `strains`, `speed_limits`, `pull`, `may_lean`, `hub`, `offers`, `rearranged` |
    | Build | `jobs`, `motor_last` |
    | reading | `faults`, for what only shows in combination |

    The rest follows: evaluation, working, drawing, Fit, Loads, the bin, the parts list, Build, search, page and schema
    ask these hooks and nothing else. `tests/core/test_every_kind.py` asks each kind all of it.

    Class attributes with a default:
        ratio_key: where the document has the ratio of one that is known by it alone, or its ratios, or what makes it.
        ratio_head: what a table of parts calls that.
        form: of its wheels, None of one known by its ratio alone. idlers_key: where it lists the measures of idlers.
        whole_part: kind of a bin's parts that are the whole stage, empty where there are none; the part of that kind
        which says something under `ratio_key` is a stage of this kind.
        brings: what parts of a bin say of it besides.
        several_speeds: whether it has several ratios, changed while driving.
        minds_torque: whether `cautions` has something to say about torque.
        may_lean: how far the shaft of a motor before it may lean, rad; None where it does not draw on that shaft.
        motor_last: whether the screws of a motor before it are tightened last, when all behind it is tight.
    """

    __slots__ = ()

    kind: ClassVar[str]
    title: ClassVar[str]
    short: ClassVar[str]
    noun: ClassVar[str]
    in_plane: ClassVar[InPlane]
    start: ClassVar[Mapping[str, Any]]
    ratio_key: ClassVar[str] = ""
    ratio_head: ClassVar[str] = ""
    form: ClassVar[Form | None] = None
    idlers_key: ClassVar[str] = ""
    whole_part: ClassVar[str] = ""
    several_speeds: ClassVar[bool] = False
    minds_torque: ClassVar[bool] = False
    motor_last: ClassVar[bool] = False
    may_lean: ClassVar[float | None] = None
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

    @property
    def gears(self) -> tuple[float, ...]:
        """Its torque ratios from the lowest gear up; only one with several speeds has more than one."""
        return (self.ratio,)

    def ratio_in(self, gear: int) -> float:
        """The torque ratio in a gear of the vehicle, from 0, which changes only in one with several speeds."""
        return self.gears[gear] if self.several_speeds else self.ratio

    @property
    def shift_time(self) -> float:
        """How long a change of gear takes, s."""
        return 0.0

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
    def pressure_angle(self) -> float:
        """At which its teeth push on each other, rad; 0 where none mesh."""
        return 0.0

    @property
    def inertia(self) -> float:
        """Inertia of what turns in it about its input, kg·m²: its output's, through the ratio, is part of it."""
        return 0.0

    @property
    def mass(self) -> float | None:
        """What one weighs, kg, where the stage says it."""
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
    def loop_pieces(self) -> int | None:
        """Number of teeth or links of what runs around its wheels; None where it does not say."""
        key = self.in_plane.pieces_key if isinstance(self.in_plane, Loop) else ""
        return getattr(self, key) if key else None

    @property
    def loop_width(self) -> float | None:
        """Width of what runs on its wheels and must not be wider than they are, m; None where it does not say."""
        return None

    @property
    def wheel_width(self) -> float | None:
        """How wide its wheels have to be, m; None where nobody says."""
        return self.loop_width

    @property
    def exact_ratio(self) -> Fraction | None:
        """The ratio as a fraction of whole teeth; None where it has none."""
        return None

    @property
    def sizes_words(self) -> str:
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

    def speed_limits(self) -> Iterator[SpeedLimit]:
        """How fast its parts may turn; nothing of a kind of which nobody asks it."""
        return iter(())

    def pull(self, passing: Passing) -> Floats | None:
        """Force with which its loop draws its two shafts together, N, (m,); None where none does.

        Args:
            passing: what goes through it, the geometry of its loop known.
        """
        return None

    def hub(self, end: str) -> Hub | None:
        """How its driver or driven wheel is held on its shaft; None where nobody says it.

        Args:
            end: driver or driven.
        """
        return getattr(self, f"{end}_hub", None)

    def offers(self, check: str) -> Iterator[tuple[str, str, str]]:
        """Usual values for what a check of it wants or has assumed: key, value as typed, and what it is usual of.

        Args:
            check: name of the check.
        """
        return iter(())

    def eased(self, check: str) -> Iterator[tuple[str, str, str]]:
        """What it might have in place of what it says to relieve a check of it: in words, the key, and the value.

        Args:
            check: name of the check.
        """
        return iter(())

    def rearranged(self, check: str) -> Iterator[tuple[str, dict[str, Any]]]:
        """What of it might be put in another order to relieve a check of it: in words, and values by their keys.

        Args:
            check: name of the check.
        """
        return iter(())

    def inside(self, height: float) -> Inside:
        """What is seen of one without wheels, in a case of this height, m; a closed case of a kind that says nothing.

        Args:
            height: of the case, m.
        """
        return closed(height)

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

    @classmethod
    def measure_key(cls, member: str) -> str:
        """Where the document has the measure of a wheel, below the stage; empty of a kind that has no such wheel.

        Args:
            member: driver, driven, or idler with its number.
        """
        if cls.form and member in ("driver", "driven"):
            return f"{member}_{cls.form.measure}"
        idle, _, number = member.partition(" ")
        if cls.idlers_key and idle == "idler" and number.isdecimal() and int(number) > 0:
            return f"{cls.idlers_key}[{int(number) - 1}]"
        return ""

    @classmethod
    def started(cls, ratio: float) -> dict[str, Any]:
        """A usual stage of the kind, as typed, with about this ratio.

        Args:
            ratio: driver turns per driven turn, above 0.
        """
        stage = {"kind": cls.kind, **copy.deepcopy(dict(cls.start))}
        if cls.form is not None:
            return stage | started.driven_for(cls.form, stage, ratio)
        return stage | ({cls.ratio_key: cls.typed_ratio(ratio)} if cls.ratio_key else {})

    @classmethod
    def typed_ratio(cls, ratio: float) -> Any:
        """What stands under `ratio_key` for about this ratio, as typed.

        Args:
            ratio: driver turns per driven turn, above 0.
        """
        return started.short_ratio(ratio)

    def with_ratio(self, ratio: float) -> Self | None:
        """The stage with another ratio; None of one whose ratio is not free, as with teeth.

        Args:
            ratio: driver turns per driven turn, above 0.
        """
        if self.form is not None:
            free = not self.members[-1].form.toothed
            return self.resized({"driven": self.members[0].measure * ratio}) if free else None
        if self.ratio_key != "ratio":
            return None
        stage: Self = dataclasses.replace(self, ratio=ratio)  # type: ignore[type-var]  # kinds are dataclasses
        return stage

    def resized(self, measures: Mapping[str, float]) -> Self | None:
        """The stage with other wheels; None where that cannot be.

        Args:
            measures: teeth, or diameters in m, by the names of its wheels.

        Raises:
            KeyError: it has no wheel of that name.
        """
        stage = self
        for name, measure in measures.items():
            member = stage.member(name)
            if member is None:
                raise KeyError(name)
            if not member.form.least <= measure <= member.form.most:
                return None
            stage = stage._with(member, measure)
        return None if any(stage.faults()) else stage

    def _with(self, member: Member, measure: float) -> Self:
        stage: Self = dataclasses.replace(self, **{member.key: measure})  # type: ignore[type-var]  # kinds are dataclasses
        return stage


def stage_efficiency(stage: Stage) -> float:
    """The given efficiency, else the one to assume."""
    return stage.default_efficiency if stage.efficiency is None else stage.efficiency


def power_lost(stage: Stage) -> float:
    """Share of the power that a driving stage loses, slip included: 1 − η·(1 − s)."""
    return 1.0 - stage_efficiency(stage) * (1.0 - stage.slip)
