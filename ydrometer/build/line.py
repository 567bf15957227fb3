"""The line as hands meet it: which shafts there are, what sits on each, and what is moved to set each stage."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting
from ydrometer.document.sources import Engine
from ydrometer.document.stages import Stage
from ydrometer.document.stages.plane import Coaxial, OtherPlane
from ydrometer.document.walk import branch_of, further_motors, own_stages, trunk_stages


@dataclass(frozen=True, slots=True)
class Sitting:
    """A wheel on its shaft.

    Attributes:
        name: as stacks name it: the path of its stage and what it is there. words: "56-tooth gear".
        kind: on the parts list. stage, shaft: their paths. times: how often a unit has it.
    """

    name: str
    words: str
    kind: str
    stage: str
    shaft: str
    times: int = 1


@dataclass(frozen=True, slots=True)
class Between:
    """A stage between two shafts; `drivers` are those of all motors that work on it side by side, in their order."""

    path: str
    stage: Stage
    drivers: tuple[str, ...]
    driven: str

    @property
    def idle(self) -> tuple[str, ...]:
        """The shafts of wheels between them."""
        return tuple(f"{self.path}.{member.key}" for member in self.stage.members if member.idle)

    @property
    def shafts(self) -> tuple[str, ...]:
        """All that it touches."""
        return (*self.drivers, *self.idle, self.driven)


@dataclass(frozen=True, slots=True)
class Line:
    """The line of one drive unit.

    Attributes:
        shafts: their paths with what they are called, in the order of power; where branches join it is one shaft.
        sources: paths of the motors or engines with how many stand for each path: 1, or all where none has a name.
        stages. wheels. axle: the shaft with the road wheels. hidden: shafts that a closed box brings along.
        moved: by a stage's path the shafts that are moved to set it; empty where nothing moves.
        movable: all shafts that can be moved, for whatever stage.
    """

    shafts: Mapping[str, str]
    sources: Mapping[str, int]
    stages: Sequence[Between]
    wheels: Sequence[Sitting]
    axle: str
    hidden: frozenset[str]
    moved: Mapping[str, tuple[str, ...]]
    movable: frozenset[str]

    def on(self, shaft: str) -> list[Sitting]:
        """The wheels on a shaft."""
        return [wheel for wheel in self.wheels if wheel.shaft == shaft]

    def of(self, stage: str) -> list[Sitting]:
        """The wheels of a stage, from driver to driven."""
        return [wheel for wheel in self.wheels if wheel.stage == stage]

    def at(self, shaft: str) -> list[Between]:
        """The stages that touch a shaft."""
        return [between for between in self.stages if shaft in between.shafts]


def line(design: Design) -> Line:
    """The line of a design.

    Args:
        design: with or without a `fit` section.
    """
    stages: list[Between] = []
    sources: dict[str, int] = {}
    joint = ""
    for b, branch in enumerate(design.drive.branches):
        source = f"drive.branches[{b}].source"
        motors = [source, *(path for path, _ in further_motors(source, branch.count))]
        sources |= {path: branch.count // len(motors) for path in motors}
        own = list(own_stages(design, b))
        stages += list(_between(motors, own, joint))
        joint = joint or (own[-1][0] if own else source)
    trunk = list(trunk_stages(design))
    stages += list(_between([joint], trunk, ""))
    axle = trunk[-1][0] if trunk else joint
    wheels = [wheel for between in stages for wheel in _wheels(between, design)]
    names = dict(_named(design, sources, stages, wheels, axle))
    boxes = {between.driven for between in stages if not between.stage.members}
    hidden = frozenset(boxes - {between.driven for between in stages if between.stage.members} - set(sources))
    fit = design.fit or Mounting()
    movable = frozenset(shaft for shaft in names if shaft not in hidden and _movable(fit, shaft, set(sources)))
    return Line(names, sources, stages, wheels, axle, hidden, _moved(stages, set(sources), hidden, movable), movable)


def _between(motors: Sequence[str], stages: Sequence[tuple[str, Stage]], joint: str) -> Iterator[Between]:
    """Stages in a row from the motors on; the last one of a further branch turns the joint of the first."""
    drivers = tuple(motors)
    for place, (path, stage) in enumerate(stages):
        driven = joint if joint and place == len(stages) - 1 else path
        yield Between(path, stage, drivers, driven)
        drivers = (driven,)


def _wheels(between: Between, design: Design) -> Iterator[Sitting]:
    path, members = between.path, between.stage.members
    for member in members:
        words, kind = member.form.words(member.measure), member.form.bought_as or between.stage.kind
        if member.idle:
            yield Sitting(f"{path} {member.name}", words, kind, path, f"{path}.{member.key}")
        elif member.name == "driver":
            yield from _drivers(between, words, kind, design)
        else:
            yield Sitting(f"{path} {member.name}", words, kind, path, between.driven)


def _drivers(between: Between, words: str, kind: str, design: Design) -> Iterator[Sitting]:
    """The driver on each motor's shaft; one for all where the motors have no names of their own."""
    times = 1
    if between.drivers[0].endswith(".source"):
        branch = design.drive.branches[branch_of(between.drivers[0])]
        times = branch.count // len(between.drivers)
    for number, shaft in enumerate(between.drivers, 1):
        name = f"{between.path} driver" + (f" {number}" if number > 1 else "")
        yield Sitting(name, words, kind, between.path, shaft, times)


def _named(
    design: Design, sources: Mapping[str, int], stages: Sequence[Between], wheels: Sequence[Sitting], axle: str
) -> Iterator[tuple[str, str]]:
    """Every shaft once, with what it is called."""
    several = len(sources) > 1
    for number, path in enumerate(sources, 1):
        branch = design.drive.branches[branch_of(path)]
        word = "engine" if isinstance(branch.source, Engine) else "motor"
        yield path, f"{word} {number}" if several else word
    for between in stages:
        for member in between.stage.members:
            if member.idle:
                yield f"{between.path}.{member.key}", f"shaft of the {member.form.words(member.measure)}"
        driven = next((wheel.words for wheel in wheels if wheel.shaft == between.driven), "")
        words = f"shaft of the {driven}" if between.stage.members else f"output of the {between.stage.noun}"
        yield between.driven, "axle" if between.driven == axle else words


def _moved(
    stages: Sequence[Between], sources: set[str], hidden: frozenset[str], movable: frozenset[str]
) -> dict[str, tuple[str, ...]]:
    """Which shafts are moved to set each stage: its driver where that can be moved, else its driven one.

    A shaft is moved for one stage alone: whoever moves it again upsets what was set before.
    """
    taken: set[str] = set()
    moved: dict[str, tuple[str, ...]] = {}
    chosen: tuple[str, ...]
    for between in stages:
        left = [shaft for shaft in between.shafts if shaft not in taken and shaft not in hidden]
        if isinstance(between.stage.in_plane, Coaxial | OtherPlane):
            chosen = _in_line(between, left, sources)
        else:
            chosen = _chosen(between, [shaft for shaft in left if shaft in movable])
        taken |= set(chosen)
        moved[between.path] = chosen
    return moved


def _in_line(between: Between, left: Sequence[str], sources: set[str]) -> tuple[str, ...]:
    """Motors before a box that are tightened behind it."""
    motors = between.drivers if between.stage.motor_last else ()
    return tuple(shaft for shaft in motors if shaft in sources and shaft in left)


def _chosen(between: Between, free: Sequence[str]) -> tuple[str, ...]:
    """Which of the shafts that are free to move are moved for a stage: its idlers, and its drivers or its driven."""
    idle = [shaft for shaft in free if shaft in between.idle]
    ends = [shaft for shaft in free if shaft in between.drivers] or [s for s in free if s == between.driven]
    return (*idle, *ends)


def _movable(fit: Mounting, shaft: str, sources: set[str]) -> bool:
    """Whether a shaft can be moved: in a slot, or turned in an eccentric; a motor of which nothing is said has a slot,
    and a further motor of a branch is mounted as the first one.
    """
    said = fit.of(shaft) or fit.of(shaft.partition("source[")[0] + "source" if "source[" in shaft else shaft)
    return shaft in sources if said is None else said.slot is not None or said.eccentric is not None
