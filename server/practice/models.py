"""What somebody has of each idea; sets of exercises for a class, its pupils and what they answered."""

import uuid

from django.conf import settings
from django.db import models

from server.workshops.models import Workshop


class Learnt(models.Model):
    """What an account has of one idea, see `ydrometer.practice.memory.Memory`."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="learnt")
    idea = models.CharField(max_length=60)
    memory = models.JSONField()
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "idea"], name="one_memory_an_idea")]

    def __str__(self) -> str:
        return f"{self.idea} of {self.user}"


class ExerciseSet(models.Model):
    """Exercises for a class: `plan` has kind and level of each; pupils join by the code.

    All pupils get the same numbers, or each their own.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="exercise_sets")
    name = models.CharField(max_length=120)
    plan = models.JSONField()
    own_numbers = models.BooleanField(default=False)
    seed = models.PositiveIntegerField()
    units = models.CharField(max_length=10)
    code = models.CharField(max_length=6, unique=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return self.name


class RaceBoard(models.Model):
    """A race as `ydrometer.practice.races` has it; `version` counts its changes."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="races")
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return str(self.document.get("name", "race"))


class Pupil(models.Model):
    """Somebody who joined a set under a nickname, without an account; forgotten with the set or after some time."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    set = models.ForeignKey(ExerciseSet, models.CASCADE, related_name="pupils")
    number = models.PositiveIntegerField()
    nickname = models.CharField(max_length=30)
    joined_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["set", "number"], name="one_number_a_pupil")]
        ordering = ["number"]

    def __str__(self) -> str:
        return self.nickname


class PupilAnswer(models.Model):
    """One answer of a pupil to one exercise of the set; none is changed, the last one counts."""

    pupil = models.ForeignKey(Pupil, models.CASCADE, related_name="answers")
    place = models.PositiveIntegerField()
    given = models.JSONField()
    verdict = models.CharField(max_length=20)
    mistake = models.CharField(max_length=60, blank=True, default="")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.pupil}, {self.place}: {self.verdict}"
