"""Practice as the page shows it: an exercise without its answer, what is said of an answer, and the map of ideas."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, get_args

from ydrometer.base import units
from ydrometer.drawing import LineDrawing
from ydrometer.drawing.plan import PlanDrawing
from ydrometer.practice import IDEAS, KINDS, Exercise
from ydrometer.practice.draw import said
from ydrometer.practice.memory import Grasp, Memory, grasp, next_idea
from ydrometer.practice.posed import Ask, ChoiceAsked, NumberAsked, PicksAsked, WheelAsked, number_of
from ydrometer.working.sheet import Working

AskKind = Literal["number", "choice", "arrow", "wheel", "picks"]
ASK_KINDS = get_args(AskKind)


@dataclass(frozen=True, slots=True)
class Spot:
    """A place on a plate, m."""

    x: float
    y: float


@dataclass(frozen=True, slots=True)
class ChoiceShown:
    """One answer to choose from; of a wheel its path and member; of a place on a plate where that is, m."""

    key: str
    words: str
    hole: Spot | None


@dataclass(frozen=True, slots=True)
class AskShown:
    """What kind of answer is asked for.

    Attributes:
        kind: a number, one of some choices, an arrow, a wheel of the drawing, or wheels picked from a bag.
        unit: of a number as it is shown, empty of a plain one. choices: of the next three.
        around: the wheel, by path and member, around which an arrow is marked, empty of other kinds.
        places, bag: what wheels are picked for, and their teeth.
    """

    kind: AskKind
    unit: str
    choices: list[ChoiceShown]
    around: str
    places: list[str]
    bag: list[int]


@dataclass(frozen=True, slots=True)
class ExerciseShown:
    """An exercise to be answered; kind, level, seed and units give it again. `plate` where holes are asked for."""

    kind: str
    idea: str
    level: int
    seed: int
    units: str
    words: str
    ask: AskShown
    drawing: LineDrawing
    plate: PlanDrawing | None
    hints: list[str]


@dataclass(frozen=True, slots=True)
class Solved:
    """The answer, as words and as a key where it is a choice or a wheel, and how it comes about; where holes are
    asked for, the plate with all in its place.
    """

    words: str
    key: str
    working: Working
    plate: PlanDrawing | None


@dataclass(frozen=True, slots=True)
class IdeaShown:
    """One idea on the map: how well it is had, the level that comes next, how many exercises went right and wrong."""

    idea: str
    kinds: list[str]
    grasp: Grasp
    level: int
    right: int
    wrong: int


@dataclass(frozen=True, slots=True)
class PracticeShown:
    """The map of ideas, and which of them comes next."""

    ideas: list[IdeaShown]
    next: str


def exercise_shown(exercise: Exercise) -> ExerciseShown:
    """An exercise without its answer."""
    posed, plate = exercise.posed, exercise.plate()
    return ExerciseShown(
        exercise.kind,
        exercise.idea,
        exercise.level,
        exercise.seed,
        exercise.units,
        posed.words,
        _ask(posed.ask, plate),
        exercise.drawing(),
        plate,
        list(posed.hints),
    )


def _ask(ask: Ask, plate: PlanDrawing | None) -> AskShown:
    if isinstance(ask, NumberAsked):
        return AskShown("number", units.symbol(ask.unit), [], "", [], [])
    if isinstance(ask, PicksAsked):
        return AskShown("picks", "", [], "", list(ask.places), list(ask.bag))
    if isinstance(ask, WheelAsked):
        return AskShown(
            "wheel", "", [ChoiceShown(choice.key, choice.words, None) for choice in ask.choices], "", [], []
        )
    kind: AskKind = "arrow" if ask.around else "choice"
    return AskShown(kind, "", _choices(ask, plate), ask.around, [], [])


def _choices(ask: ChoiceAsked, plate: PlanDrawing | None) -> list[ChoiceShown]:
    """What is to choose from, with its hole where the plate is drawn."""
    if plate is None or plate.plate is None:
        return [ChoiceShown(choice.key, choice.words, None) for choice in ask.choices]
    home, pitch = plate.shafts[0], plate.plate.hole_pitch
    return [
        ChoiceShown(choice.key, choice.words, Spot(home.x + pitch * across, home.y + pitch * up))
        for choice, (across, up) in zip(ask.choices, ask.holes, strict=True)
    ]


def solved(exercise: Exercise) -> Solved:
    """The answer with its working."""
    ask, answer = exercise.posed.ask, exercise.posed.answer
    working = exercise.working()
    if isinstance(ask, NumberAsked):
        return Solved(said(number_of(answer), ask.dimension, exercise.units), "", working, None)
    if isinstance(answer, tuple) and isinstance(ask, PicksAsked):
        lines = [f"{place} {teeth}" for place, teeth in zip(ask.places, answer, strict=True)]
        return Solved(", ".join(lines), "", working, None)
    assert isinstance(ask, ChoiceAsked | WheelAsked)
    words = next(choice.words for choice in ask.choices if choice.key == answer)
    return Solved(words, str(answer), working, exercise.plate(whole=True))


def practice_shown(known: Mapping[str, Memory], now: datetime) -> PracticeShown:
    """The map of what somebody has of each idea.

    Args:
        known: by idea; of those that are new nothing.
        now: with its zone.
    """
    ideas = [_idea(idea, known.get(idea), now) for idea in IDEAS]
    return PracticeShown(ideas, next_idea(known, now))


def _idea(idea: str, memory: Memory | None, now: datetime) -> IdeaShown:
    kinds = [kind.name for kind in KINDS.values() if kind.idea == idea]
    level, right, wrong = (memory.level, memory.right, memory.wrong) if memory else (1, 0, 0)
    return IdeaShown(idea, kinds, grasp(memory, now), level, right, wrong)
