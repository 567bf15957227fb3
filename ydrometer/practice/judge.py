"""What is to be said of an answer: right, right but rounded early, a usual mistake by its name, or not that."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ydrometer.base import units
from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.practice.exercise import Exercise
from ydrometer.practice.mistakes import MISTAKES
from ydrometer.practice.posed import Answer, ChoiceAsked, NumberAsked, PicksAsked, WheelAsked, number_of

RIGHT, EARLY = 0.01, 0.03
"""Relative distance within which a number is right, and within which it was only rounded early."""
BY_MISTAKE = 0.015
"""Within which a number is that of a usual mistake."""
SAME = 1e-6
"""Within which picked wheels come to the same."""

Verdict = Literal["right", "rounded early", "mistake", "wrong"]


@dataclass(frozen=True, slots=True)
class Judgement:
    """A verdict; the name of the mistake, empty where it is none of the usual ones; and a sentence."""

    verdict: Verdict
    mistake: str
    words: str


SAID: dict[Verdict, str] = {
    "right": "Right.",
    "rounded early": "Right, but rounded too early: keep three digits until the end.",
    "wrong": "Not yet. Try once more, or take a hint.",
}
NOT_A_NUMBER = "give a number, with its unit where it is not the one that is shown"


def judge(exercise: Exercise, given: object) -> Judgement:
    """Judge an answer.

    Args:
        exercise: it was given to.
        given: a number with or without a unit as typed, the key of a choice or wheel, or teeth of picked wheels.

    Raises:
        DocumentError: it is no answer of the kind that was asked for.
    """
    posed = exercise.posed
    answer = read_answer(exercise, given)
    if isinstance(posed.ask, NumberAsked):
        return _judge_number(exercise, number_of(answer))
    if _same(exercise, answer, posed.answer):
        return Judgement("right", "", SAID["right"])
    mistake = next(
        (known_mistake.name for known_mistake in posed.mistakes if _same(exercise, answer, known_mistake.answer)), ""
    )
    return _missed(mistake)


def read_answer(exercise: Exercise, given: object) -> Answer:
    """An answer as typed or sent, read.

    Raises:
        DocumentError: as for `judge`.
    """
    ask = exercise.posed.ask
    if isinstance(ask, NumberAsked):
        return _read_number(ask, given)
    if isinstance(ask, PicksAsked):
        return _read_picks(ask, given)
    assert isinstance(ask, ChoiceAsked | WheelAsked)
    keys = [choice.key for choice in ask.choices]
    if given not in keys:
        raise DocumentError([Fault("answer", "not one of the choices", f"give one of {', '.join(keys)}")])
    return str(given)


def _read_number(ask: NumberAsked, given: object) -> float:
    if not isinstance(given, str) or not given.strip():
        raise DocumentError([Fault("answer", "missing", NOT_A_NUMBER)])
    for text in (given, f"{given} {ask.unit}"):
        try:
            return units.parse(text, ask.dimension)
        except QuantityError as error:
            fault = Fault("answer", str(error), NOT_A_NUMBER)
    raise DocumentError([fault])


def _read_picks(ask: PicksAsked, given: object) -> tuple[int, ...]:
    picks = list(given) if isinstance(given, Sequence) and not isinstance(given, str) else []
    left = list(ask.bag)
    for teeth in picks:
        if teeth not in left:
            raise DocumentError([Fault("answer", "a wheel that is not in the bag", "pick each wheel once")])
        left.remove(teeth)
    if len(picks) != len(ask.places):
        raise DocumentError([Fault("answer", f"{len(picks)} wheels picked", f"pick {', '.join(ask.places)}")])
    return tuple(int(teeth) for teeth in picks)


def _judge_number(exercise: Exercise, value: float) -> Judgement:
    right = number_of(exercise.posed.answer)
    off = abs(value - right) / abs(right)
    if off <= RIGHT:
        return Judgement("right", "", SAID["right"])
    near = [
        mistake
        for mistake in exercise.posed.mistakes
        if abs(value - number_of(mistake.answer)) <= BY_MISTAKE * abs(number_of(mistake.answer))
    ]
    if off <= EARLY and not near:
        return Judgement("rounded early", "", SAID["rounded early"])
    return _missed(near[0].name if near else "")


def _missed(name: str) -> Judgement:
    return Judgement("mistake", name, MISTAKES[name]) if name else Judgement("wrong", "", SAID["wrong"])


def _same(exercise: Exercise, this: Answer, other: Answer) -> bool:
    ask = exercise.posed.ask
    if isinstance(ask, PicksAsked) and isinstance(this, tuple) and isinstance(other, tuple):
        first, second = ask.ratio(this), ask.ratio(other)
        return abs(first - second) <= SAME * second
    return this == other
