"""Archives on their way out of a workshop, or into one."""

import uuid

from django.conf import settings
from django.db import models

from server.pieces.models import HeldFile
from server.workshops.models import Workshop


class Direction(models.TextChoices):
    OUT = "out"
    IN = "in"


class ArchiveState(models.TextChoices):
    COMING = "coming"
    WAITING = "waiting"
    WORKING = "working"
    DONE = "done"
    CANCELLED = "cancelled"
    FAILED = "failed"


class Archive(models.Model):
    """A workshop's archive: written by a worker, or sent by a page and opened by a worker step by step.

    `workshop` is the one that is written, or the one that is filled; `held` the bytes; `done` of `steps` are through;
    `vehicles` has what each vehicle of an archive became here, by its place; `faults` are those that ended it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="archives")
    direction = models.CharField(max_length=3, choices=Direction.choices)
    workshop = models.ForeignKey(Workshop, models.SET_NULL, null=True, related_name="archives")
    held = models.OneToOneField(HeldFile, models.SET_NULL, null=True, related_name="+")
    name = models.CharField(max_length=200)
    state = models.CharField(max_length=10, choices=ArchiveState.choices)
    done = models.PositiveIntegerField(default=0)
    steps = models.PositiveIntegerField(default=0)
    vehicles = models.JSONField(default=dict)
    faults = models.JSONField(default=list)
    begun_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return f"{self.name}, {self.direction}: {self.state}"
