"""A set as the teacher and as a pupil see it."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from server.practice.actions import of_set
from server.practice.models import ExerciseSet, Pupil, PupilAnswer
from ydrometer.practice import KINDS

RIGHT = ("right", "rounded early")


@dataclass(frozen=True, slots=True)
class MistakeCount:
    """How often a mistake was made, by its name; empty of answers that are none of the usual mistakes."""

    name: str
    count: int


@dataclass(frozen=True, slots=True)
class SetExercise:
    """One exercise of a set: what it asks with the set's own numbers, how many have it, which mistakes were made."""

    place: int
    idea: str
    level: int
    words: str
    right: int
    tried: int
    mistakes: list[MistakeCount]


@dataclass(frozen=True, slots=True)
class PupilShown:
    """How far a pupil is: of each exercise "right", the name of the last mistake, "wrong", or nothing yet."""

    nickname: str
    done: list[str]
    right: int


@dataclass(frozen=True, slots=True)
class SetShown:
    """A set, live: its exercises, its pupils, and the mistakes made in all of it, the commonest first."""

    id: UUID
    name: str
    code: str
    own_numbers: bool
    made_at: datetime
    exercises: list[SetExercise]
    pupils: list[PupilShown]
    mistakes: list[MistakeCount]


@dataclass(frozen=True, slots=True)
class PupilExercise:
    """An exercise of a pupil's set: what it practises, and whether they have it."""

    place: int
    idea: str
    tried: bool
    right: bool


@dataclass(frozen=True, slots=True)
class ClassShown:
    """What a pupil sees: the set's name, their own nickname, and how far they are."""

    name: str
    nickname: str
    exercises: list[PupilExercise]


def set_shown(exercise_set: ExerciseSet) -> SetShown:
    """A set with all that was answered so far."""
    pupils = list(exercise_set.pupils.all())
    answers: dict[tuple[UUID, int], list[PupilAnswer]] = {}
    for answer in PupilAnswer.objects.filter(pupil__set=exercise_set).order_by("pk"):
        answers.setdefault((answer.pupil_id, answer.place), []).append(answer)
    exercises = [_exercise(exercise_set, place, pupils, answers) for place in range(len(exercise_set.plan))]
    rows = [_pupil(exercise_set, pupil, answers) for pupil in pupils]
    every: Counter[str] = Counter()
    for exercise in exercises:
        every.update({mistake.name: mistake.count for mistake in exercise.mistakes})
    return SetShown(
        exercise_set.id,
        exercise_set.name,
        exercise_set.code,
        exercise_set.own_numbers,
        exercise_set.made_at,
        exercises,
        rows,
        _counted(every),
    )


def _exercise(
    exercise_set: ExerciseSet, place: int, pupils: list[Pupil], answers: dict[tuple[UUID, int], list[PupilAnswer]]
) -> SetExercise:
    entry = exercise_set.plan[place]
    of_it = [answers.get((pupil.pk, place), []) for pupil in pupils]
    mistakes = Counter(answer.mistake for given in of_it for answer in given if answer.verdict not in RIGHT)
    right = sum(any(answer.verdict in RIGHT for answer in given) for given in of_it)
    tried = sum(bool(given) for given in of_it)
    words = of_set(exercise_set, place).posed.words
    return SetExercise(place, KINDS[entry["kind"]].idea, entry["level"], words, right, tried, _counted(mistakes))


def _counted(mistakes: Counter[str]) -> list[MistakeCount]:
    return [MistakeCount(name, count) for name, count in mistakes.most_common()]


def _pupil(exercise_set: ExerciseSet, pupil: Pupil, answers: dict[tuple[UUID, int], list[PupilAnswer]]) -> PupilShown:
    done = [_state(answers.get((pupil.pk, place), [])) for place in range(len(exercise_set.plan))]
    return PupilShown(pupil.nickname, done, done.count("right"))


def _state(given: list[PupilAnswer]) -> str:
    if any(answer.verdict in RIGHT for answer in given):
        return "right"
    return (given[-1].mistake or "wrong") if given else ""


def class_shown(pupil: Pupil) -> ClassShown:
    """What a pupil has done of their set."""
    own: dict[int, list[PupilAnswer]] = {}
    for answer in pupil.answers.all():
        own.setdefault(answer.place, []).append(answer)
    exercises = [
        PupilExercise(place, KINDS[entry["kind"]].idea, place in own, _state(own.get(place, [])) == "right")
        for place, entry in enumerate(pupil.set.plan)
    ]
    return ClassShown(pupil.set.name, pupil.nickname, exercises)
