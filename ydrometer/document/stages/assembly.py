"""What a kind of stage says of putting it together: jobs, each of which opens, closes or buries something.

A kind knows its own jobs and the names of its neighbours' loose things, never who else builds what. `ydrometer.build`
gathers the jobs of a whole design, repeats them for each drive unit and puts them in order.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

from ydrometer.document.building import Building

_NUMBER = re.compile(r"-?\d+(?:[.,]\d+)?")
DAY_S = 24.0 * 3600.0
CURE = DAY_S
"""s until medium thread locker or retaining compound has its full strength (makers' data sheets: 24 h at 20 degC)."""

EYES = "Eye protection; hold the work in a vice; no gloves near turning parts."
FUMES = "Air the room and keep it off the skin; its maker's instructions come first."
WHEELS = 2
"""Of a stage without idlers."""
GUARD = "Never run it without the guard, nor reach past it."


class Loose(NamedTuple):
    """Something that is left loose on purpose: its id, and what the ledger calls it."""

    id: str
    words: str


class Record(NamedTuple):
    """A value that a step measures: what, and the unit in which it is written down.

    `right` are the least and the most that it may be, in that unit; None where anything may be read.
    """

    what: str
    unit: str
    right: tuple[float, float] | None = None

    def beside(self, value: str) -> str:
        """What is wrong with a value as it was typed, in words; empty where it is right, or no number of this unit.

        Args:
            value: with or without its unit.
        """
        number = _NUMBER.match(value.strip())
        if self.right is None or number is None or value.strip()[number.end() :].strip() not in ("", self.unit):
            return ""
        read, (least, most) = float(number[0].replace(",", ".")), self.right
        if least <= read <= most:
            return ""
        wanted = f"at most {most:.3g}" if least == 0.0 else f"{least:.4g} to {most:.4g}"
        return f"{self.what}: {read:g} {self.unit} is not {wanted} {self.unit}"


@dataclass(frozen=True, slots=True)
class Fitting:
    """A small thing that a job puts in and no part of the line names.

    Attributes:
        kind: on the parts list. words: what it is, with its sizes. number: of them.
        sizes: the same in SI, by which one is told from another; "hole" is that through which a thread goes.
    """

    kind: str
    words: str
    number: int = 1
    sizes: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class Job:
    """One thing to do at one place of the design.

    Attributes:
        place: path of the stage, shaft, source or section. verb: what is done there; place and verb are its id.
        title: imperative, with its numbers. kind: of work. minutes: for whoever does it a second time.
        why: where the title does not say it.
        after: ids of jobs that come before it; those that a design does not have are left out.
        opens: what it leaves loose. closes: ids of what others left loose. buries: ids of jobs that nobody can do after
        it. wait: s until the next one, for glue to cure or a pack to charge.
        parts: paths of the design that it handles. uses: kinds of the parts list without which it cannot be done there.
        fittings: small things that it puts in besides; they are used too.
        tools, cautions: in words. record: what is measured.
    """

    place: str
    verb: str
    title: str
    kind: str
    minutes: float
    why: str = ""
    after: tuple[str, ...] = ()
    opens: tuple[Loose, ...] = ()
    closes: tuple[str, ...] = ()
    buries: tuple[str, ...] = ()
    wait: float = 0.0
    parts: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    fittings: tuple[Fitting, ...] = ()
    tools: tuple[str, ...] = ()
    record: Record | None = None
    cautions: tuple[str, ...] = ()

    @property
    def id(self) -> str:
        """Of the first unit's job; it stays the same as long as its place does."""
        return f"{self.place}:{self.verb}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Hands:
    """What the hands have in front of them at a stage.

    Attributes:
        path: of the stage. wheels: its wheels in words, from driver to driven. names: the same as stacks name them.
        kinds: of the parts list that go with the wheels on their shafts.
        fastenings: what holds each wheel on its shaft and is loose until it is in line.
        slides: what is moved to set the stage, in words, empty where nothing is; turned: whether an eccentric is turned
        to move it; mount: ids of what holds that and is loose; covered: wheels that stand over those screws, in words;
        through: whether they go through.
        tensioner: whether a wheel of its own takes up slack. shut_in: whether what runs around its wheels can only be
        put on together with them.
        meshes: of a row of gears each pair as hands of its own, from the driver on; empty of everything else.
        settings: Fit's numbers by name, SI; none where it does not know where the shafts stand.
        fingers: the caution where something can be turned, of what the vehicle has. ways: the builder's schools.
    """

    path: str
    wheels: tuple[str, ...] = ()
    names: tuple[str, ...] = ()
    kinds: tuple[str, ...] = ()
    fastenings: tuple[Loose, ...] = ()
    slides: str = ""
    turned: bool = False
    mount: tuple[str, ...] = ()
    covered: str = ""
    through: bool = False
    tensioner: bool = False
    shut_in: bool = False
    meshes: tuple[Hands, ...] = ()
    settings: Mapping[str, float] = field(default_factory=dict)
    fingers: str = "Power off and what turns blocked while hands are in here; turning by hand draws fingers in too."
    ways: Building = field(default_factory=Building)

    @property
    def sliding(self) -> str:
        """What is done to set the stage while it is done: "sliding the motor"."""
        return f"{'turning' if self.turned else 'sliding'} {self.slides}"

    @property
    def slide(self) -> str:
        """The same as it is asked for: "slide the motor"."""
        return f"{'turn' if self.turned else 'slide'} {self.slides}"

    @property
    def driver(self) -> str:
        """Its first wheel in words."""
        return self.wheels[0]

    @property
    def driven(self) -> str:
        """Its last wheel in words."""
        return self.wheels[-1]

    def setting(self, name: str, words: str) -> str:
        """A phrase with one of Fit's lengths in it, empty where that is not known.

        Args:
            name: of the setting.
            words: with {} where the length goes.
        """
        return words.format(mm(self.settings[name])) if name in self.settings else ""


def known_sizes(**sizes: float | None) -> dict[str, float]:
    """Those of some sizes, SI, that somebody has given."""
    return {name: size for name, size in sizes.items() if size is not None}


def screw_words(hole: float, length: float | None) -> str:
    """Screws as a list calls them: "screws for 3.2 mm holes, 12 mm long".

    Args:
        hole: that they go through, m.
        length: under the head, m; None where nobody says.
    """
    return f"screws for {mm(hole)} holes" + (f", {mm(length)} long" if length else "")


def mm(size: float) -> str:
    """A length as hands can set it: hundredths below 100 mm, tenths above, no zeros behind."""
    return f"{round(1e3 * size, 2 if abs(size) < 0.1 else 1):g} mm"


def made_fast(ways: Building, *, through: bool = False) -> str:
    """How screws are tightened, in words; locker comes last of all, on one day for the whole unit.

    Args:
        ways: of the builder.
        through: whether the screws go through, so that nuts go on them; else they end in a thread of what they hold.
    """
    kept = {"lock nuts": "with lock nuts, " if through else "with lock washers, "}
    return f"{kept.get(ways.locking, '')}a little at a time, crosswise"


def drop_of_locker(ways: Building) -> str:
    """What keeps screws that nobody reaches later from backing out, as it follows on how they are tightened.

    Args:
        ways: of the builder.
    """
    return ", a drop of locker on each now" if ways.locking == "locker" else ", for good"


def kept_tight(
    ways: Building, screws: str, number: int, *, hole: float | None = None, through: bool = False
) -> tuple[Fitting, ...]:
    """What keeps screws from backing out, besides locker.

    Args:
        ways: of the builder.
        screws: what they are, in words, such as "screws in 3.2 mm holes".
        number: of them.
        hole: through which they go, m; None where nobody says.
        through: whether they go through what they hold.
    """
    if ways.locking != "lock nuts":
        return ()
    kind = "lock nut" if through else "lock washer"
    return (Fitting(kind, f"{kind} for {screws}", number, {"hole": hole} if hole else {}),)


def in_line(hands: Hands, how: str, *, after: tuple[str, ...] = ()) -> Job:
    """The wheels of a stage set in line and held on their shafts.

    Args:
        hands: at the stage.
        how: they are set in line.
        after: ids of jobs before it.
    """
    all_ = " and the ".join(dict.fromkeys(hands.wheels))
    each = "all" if len(hands.wheels) > WHEELS else "both"
    return Job(
        place=hands.path,
        verb="line_up",
        kind="align",
        minutes=15,
        title=f"Set the {all_} in line {how}, then fasten {each} and pull at each",
        why="A wheel that walks along its shaft throws the belt or wears half of its teeth.",
        after=after,
        closes=tuple(loose.id for loose in hands.fastenings),
        parts=(hands.path, *hands.names),
        tools=("straight edge", "hex keys"),
        cautions=(hands.fingers,),
    )


def tightened(hands: Hands, after: str) -> Job:
    """What was moved to set a stage made fast.

    Args:
        hands: at the stage.
        after: id of the job that set it.
    """
    aside = f"Scribe where it stands and draw the {hands.covered} aside, which covers its screws; "
    tight = f"ighten {hands.slides}: {made_fast(hands.ways, through=hands.through)}"
    return Job(
        place=hands.path,
        verb="tighten",
        kind="fasten",
        minutes=20 if hands.covered else 10,
        title=f"{aside}t{tight}{drop_of_locker(hands.ways)}" if hands.covered else f"T{tight}",
        why="Tightening moves it: a little at a time, all round, keeps the setting.",
        after=(after,),
        closes=hands.mount,
        parts=(hands.path,),
        tools=("hex keys",),
    )
