"""Practice as the page shows it: an exercise without its answer, what is said of an answer, and the map of ideas."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, get_args

from ydrometer.base import units
from ydrometer.drawing import LineDrawing
from ydrometer.practice import IDEAS, KINDS, Exercise
from ydrometer.practice.draw import said
from ydrometer.practice.memory import Grasp, Memory, grasp, next_idea
from ydrometer.practice.posed import ChoiceAsked, NumberAsked, PicksAsked, WheelAsked, number_of
from ydrometer.working.sheet import Working

AskKind = Literal["number", "choice", "arrow", "wheel", "picks"]
ASK_KINDS = get_args(AskKind)


@dataclass(frozen=True, slots=True)
class ChoiceShown:
    """One answer to choose from; of a wheel its path and member."""

    key: str
    words: str


@dataclass(frozen=True, slots=True)
class AskShown:
    """What kind of answer is asked for.

    Attributes:
        kind: a number, one of some choices, an arrow, a wheel of the drawing, or wheels picked from a bag.
        unit: of a number as it is shown, empty of a plain one. choices: of the next three.
        places, bag: what wheels are picked for, and their teeth.
    """

    kind: AskKind
    unit: str
    choices: list[ChoiceShown]
    places: list[str]
    bag: list[int]


@dataclass(frozen=True, slots=True)
class ExerciseShown:
    """An exercise to be answered; kind, level, seed and units give it again."""

    kind: str
    idea: str
    level: int
    seed: int
    units: str
    words: str
    ask: AskShown
    drawing: LineDrawing
    hints: list[str]


@dataclass(frozen=True, slots=True)
class Solved:
    """The answer, as words and as a key where it is a choice or a wheel, and how it comes about."""

    words: str
    key: str
    working: Working


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
    posed = exercise.posed
    return ExerciseShown(
        exercise.kind, exercise.idea, exercise.level, exercise.seed, exercise.units, posed.words, _ask(exercise),
        exercise.drawing(), list(posed.hints),
    )  # fmt: skip


def _ask(exercise: Exercise) -> AskShown:
    ask = exercise.posed.ask
    if isinstance(ask, NumberAsked):
        return AskShown("number", units.symbol(ask.unit), [], [], [])
    if isinstance(ask, PicksAsked):
        return AskShown("picks", "", [], list(ask.places), list(ask.bag))
    kind: AskKind = "wheel" if isinstance(ask, WheelAsked) else "arrow" if ask.arrows else "choice"
    return AskShown(kind, "", [ChoiceShown(choice.key, choice.words) for choice in ask.choices], [], [])


def solved(exercise: Exercise) -> Solved:
    """The answer with its working."""
    ask, answer = exercise.posed.ask, exercise.posed.answer
    working = exercise.working()
    if isinstance(ask, NumberAsked):
        return Solved(said(number_of(answer), ask.dimension, exercise.units), "", working)
    if isinstance(answer, tuple) and isinstance(ask, PicksAsked):
        told = [f"{place} {teeth}" for place, teeth in zip(ask.places, answer, strict=True)]
        return Solved(", ".join(told), "", working)
    assert isinstance(ask, ChoiceAsked | WheelAsked)
    words = next(choice.words for choice in ask.choices if choice.key == answer)
    return Solved(words, str(answer), working)


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
