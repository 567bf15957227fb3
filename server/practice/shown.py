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


def set_shown(found: ExerciseSet) -> SetShown:
    """A set with all that was answered so far."""
    pupils = list(found.pupils.all())
    answers: dict[tuple[UUID, int], list[PupilAnswer]] = {}
    for one in PupilAnswer.objects.filter(pupil__set=found).order_by("pk"):
        answers.setdefault((one.pupil_id, one.place), []).append(one)
    exercises = [_exercise(found, place, pupils, answers) for place in range(len(found.plan))]
    rows = [_pupil(found, pupil, answers) for pupil in pupils]
    every: Counter[str] = Counter()
    for exercise in exercises:
        every.update({mistake.name: mistake.count for mistake in exercise.mistakes})
    return SetShown(
        found.id, found.name, found.code, found.own_numbers, found.made_at, exercises, rows, _counted(every)
    )


def _exercise(
    found: ExerciseSet, place: int, pupils: list[Pupil], answers: dict[tuple[UUID, int], list[PupilAnswer]]
) -> SetExercise:
    entry = found.plan[place]
    of_it = [answers.get((pupil.pk, place), []) for pupil in pupils]
    mistakes = Counter(one.mistake for given in of_it for one in given if one.verdict not in RIGHT)
    right = sum(any(one.verdict in RIGHT for one in given) for given in of_it)
    tried = sum(bool(given) for given in of_it)
    words = of_set(found, place).posed.words
    return SetExercise(place, KINDS[entry["kind"]].idea, entry["level"], words, right, tried, _counted(mistakes))


def _counted(mistakes: Counter[str]) -> list[MistakeCount]:
    return [MistakeCount(name, count) for name, count in mistakes.most_common()]


def _pupil(
    found: ExerciseSet, pupil: Pupil, answers: dict[tuple[UUID, int], list[PupilAnswer]]
) -> PupilShown:  # fmt: skip
    done = [_state(answers.get((pupil.pk, place), [])) for place in range(len(found.plan))]
    return PupilShown(pupil.nickname, done, done.count("right"))


def _state(given: list[PupilAnswer]) -> str:
    if any(one.verdict in RIGHT for one in given):
        return "right"
    return (given[-1].mistake or "wrong") if given else ""


def class_shown(pupil: Pupil) -> ClassShown:
    """What a pupil has done of their set."""
    own: dict[int, list[PupilAnswer]] = {}
    for one in pupil.answers.all():
        own.setdefault(one.place, []).append(one)
    exercises = [
        PupilExercise(place, KINDS[entry["kind"]].idea, place in own, _state(own.get(place, [])) == "right")
        for place, entry in enumerate(pupil.set.plan)
    ]
    return ClassShown(pupil.set.name, pupil.nickname, exercises)
