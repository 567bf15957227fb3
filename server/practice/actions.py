"""What practice changes: what somebody has of an idea, a scratch vehicle to look at an exercise, sets and pupils."""

from __future__ import annotations

import secrets
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from random import Random
from typing import Any

from django.db import transaction
from django.db.models import Count, Max
from django.utils import timezone

from server.accounts.models import User
from server.api.errors import Refused
from server.api.limits import MOST_ANSWERS, MOST_PUPILS, MOST_SETS
from server.api.moments import date_back
from server.api.quotas import need_room
from server.designs.actions import add_vehicle
from server.designs.models import Vehicle
from server.practice.models import ExerciseSet, Learnt, Pupil, PupilAnswer
from server.workshops.access import EDITORS, OWNERS, allowed
from server.workshops.models import Workshop
from ydrometer.practice import IDEAS, KINDS, Exercise, Judgement, exercise, judge
from ydrometer.practice.draw import SEEDS
from ydrometer.practice.memory import Memory, Went, after

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
"""Of join codes: without I and O, which look like figures."""
CODE = 6
SCRATCH_FOR = timedelta(days=1)
PUPILS_FOR = timedelta(days=90)
"""After so long a set's pupils are forgotten by themselves."""


def known_to(user: User | None) -> dict[str, Memory]:
    """What somebody has of ideas; nothing of those who are not signed in, or have no password of their own."""
    if not keeps(user):
        return {}
    return {row.idea: Memory(**row.memory) for row in Learnt.objects.filter(user=user) if row.idea in IDEAS}


def keeps(user: User | None) -> bool:
    """Whether anything is kept of them: the demo's visitor is everybody."""
    return user is not None and user.has_usable_password()


@transaction.atomic
def note(user: User, idea: str, went: Went) -> None:
    """Keep how an exercise went."""
    row = Learnt.objects.select_for_update().filter(user=user, idea=idea).first()
    memory = after(Memory(**row.memory) if row else None, went, timezone.now())
    Learnt.objects.update_or_create(user=user, idea=idea, defaults={"memory": asdict(memory)})


@allowed(EDITORS)
@transaction.atomic
def open_on_line(user: User, workshop: Workshop, drawn: Exercise) -> Vehicle:
    """A scratch vehicle of an exercise's design: it is on no bench, and goes after a day unless it is kept."""
    workshop.vehicles.filter(scratch=True, created_at__lt=timezone.now() - SCRATCH_FOR).delete()
    vehicle = add_vehicle(user, workshop, {**drawn.posed.design, "name": f"Exercise: {drawn.idea}"})
    vehicle.scratch = True
    vehicle.save(update_fields=["scratch"])
    return vehicle


@allowed(OWNERS)
@transaction.atomic
def make_set(user: User, workshop: Workshop, wanted: Mapping[str, Any]) -> ExerciseSet:
    """Make a set for a class: so many exercises of these ideas, in turn, at these levels.

    Raises:
        Full: there are too many sets.
    """
    need_room("sets", workshop.exercise_sets.count(), MOST_SETS)
    seed = secrets.randbelow(SEEDS)
    plan = _plan(wanted["ideas"], wanted["levels"], wanted["count"], seed)
    return ExerciseSet.objects.create(
        workshop=workshop,
        name=wanted["name"],
        plan=plan,
        own_numbers=wanted["own_numbers"],
        seed=seed,
        units=wanted["units"],
        code=_new_code(),
        author=user,
    )


@dataclass(frozen=True, slots=True)
class KeptPupil:
    """A pupil as kept elsewhere."""

    number: int
    nickname: str
    joined_at: datetime


@dataclass(frozen=True, slots=True)
class KeptSet:
    """A set as kept elsewhere, with its pupils."""

    name: str
    plan: Sequence[Mapping[str, Any]]
    own_numbers: bool
    seed: int
    units: str
    made_at: datetime
    pupils: Sequence[KeptPupil]


@dataclass(frozen=True, slots=True)
class KeptAnswer:
    """An answer as kept elsewhere, with the number of its pupil."""

    pupil: int
    place: int
    given: Any
    verdict: str
    mistake: str
    at: datetime


@allowed(OWNERS)
@transaction.atomic
def take_set(user: User, workshop: Workshop, kept: KeptSet) -> ExerciseSet:
    """Put a set here that was kept elsewhere, with its pupils; it has a new code.

    Raises:
        Full: there are too many sets or pupils.
    """
    need_room("sets", workshop.exercise_sets.count(), MOST_SETS)
    need_room("pupils", len(kept.pupils) - 1, MOST_PUPILS)
    row = ExerciseSet.objects.create(
        workshop=workshop,
        name=kept.name,
        plan=[dict(entry) for entry in kept.plan],
        own_numbers=kept.own_numbers,
        seed=kept.seed,
        units=kept.units,
        code=_new_code(),
        author=user,
    )
    date_back(row, "made_at", kept.made_at)
    now = timezone.now()
    pupils = [Pupil(set=row, number=pupil.number, nickname=pupil.nickname) for pupil in kept.pupils]
    for pupil, known in zip(Pupil.objects.bulk_create(pupils), kept.pupils, strict=True):
        pupil.joined_at = min(known.joined_at, now)
    Pupil.objects.bulk_update(pupils, ["joined_at"])
    return row


@allowed(OWNERS)
@transaction.atomic
def take_answers(user: User, exercise_set: ExerciseSet, kept: Sequence[KeptAnswer]) -> None:
    """Put answers to a set's pupils that were kept elsewhere; one that no pupil has given is left out.

    Raises:
        Full: a pupil has too many.
    """
    pupils = {pupil.number: pupil for pupil in exercise_set.pupils.annotate(count=Count("answers"))}
    counts = Counter(answer.pupil for answer in kept)
    for number, pupil in pupils.items():
        need_room("answers", pupil.count + counts[number] - 1, MOST_ANSWERS)
    now = timezone.now()
    rows = [
        PupilAnswer(
            pupil=pupils[known.pupil],
            place=known.place,
            given=known.given,
            verdict=known.verdict,
            mistake=known.mistake,
        )
        for known in kept
        if known.pupil in pupils
    ]
    for row, known in zip(PupilAnswer.objects.bulk_create(rows), (k for k in kept if k.pupil in pupils), strict=True):
        row.at = min(known.at, now)
    PupilAnswer.objects.bulk_update(rows, ["at"], batch_size=500)


def _plan(ideas: Sequence[str], levels: Sequence[int], count: int, seed: int) -> list[dict[str, Any]]:
    """Kinds and levels: ideas in the order in which they are taught, their kinds and the levels in turn."""
    random = Random(seed)
    kinds = {idea: [kind.name for kind in KINDS.values() if kind.idea == idea] for idea in IDEAS if idea in ideas}
    for names in kinds.values():
        random.shuffle(names)
    ordered = list(kinds)
    plan = [(ordered[k % len(ordered)], k // len(ordered)) for k in range(count)]
    plan.sort(key=lambda entry: (ordered.index(entry[0]), entry[1]))
    return [
        {"kind": kinds[idea][turn % len(kinds[idea])], "level": sorted(levels)[turn % len(levels)]}
        for idea, turn in plan
    ]


def _new_code() -> str:
    while True:
        code = "".join(secrets.choice(LETTERS) for _ in range(CODE))
        if not ExerciseSet.objects.filter(code=code).exists():
            return code


def of_set(exercise_set: ExerciseSet, place: int, number: int = 0) -> Exercise:
    """One exercise of a set, by its place from 0, for the pupil of a number where each has their own."""
    entry = exercise_set.plan[place]
    own = number if exercise_set.own_numbers else 0
    return exercise(
        entry["kind"], entry["level"], (exercise_set.seed + 7919 * place + 104_729 * own) % SEEDS, exercise_set.units
    )


@transaction.atomic
def join(code: str, nickname: str) -> Pupil | None:
    """Let somebody into the set of a code; None where there is no such code.

    Raises:
        Full: too many have joined.
        Refused: somebody of that name is there.
    """
    exercise_set = ExerciseSet.objects.select_for_update().filter(code=code.strip().upper()).first()
    if exercise_set is None or exercise_set.workshop.closed_at is not None:
        return None
    need_room("pupils", exercise_set.pupils.count(), MOST_PUPILS, "ask the teacher")
    if exercise_set.pupils.filter(nickname__iexact=nickname).exists():
        raise Refused(f'There is a "{nickname}" already: take another name.')
    number = (exercise_set.pupils.aggregate(last=Max("number"))["last"] or 0) + 1
    return Pupil.objects.create(set=exercise_set, number=number, nickname=nickname)


def answer(pupil: Pupil, place: int, given: object) -> Judgement:
    """Judge and keep a pupil's answer.

    Raises:
        DocumentError: it is no answer.
        Full: there are too many.
    """
    drawn = of_set(pupil.set, place, pupil.number)
    verdict = judge(drawn, given)
    need_room("answers", pupil.answers.count(), MOST_ANSWERS, "ask the teacher")
    PupilAnswer.objects.create(pupil=pupil, place=place, given=given, verdict=verdict.verdict, mistake=verdict.mistake)
    return verdict


@allowed(OWNERS)
def delete_set(user: User, exercise_set: ExerciseSet) -> None:
    """Take a set away for good, its pupils with it."""
    exercise_set.delete()


@allowed(OWNERS)
def forget_pupils(user: User, exercise_set: ExerciseSet) -> None:
    """Take away all pupils of a set with their answers; the set stays."""
    exercise_set.pupils.all().delete()


def forget_old() -> int:
    """Take away pupils who joined too long ago; how many there were."""
    old = Pupil.objects.filter(joined_at__lt=timezone.now() - PUPILS_FOR)
    count = old.count()
    old.delete()
    return count
