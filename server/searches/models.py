"""Searches that a workshop has asked for, each with its request and what was found."""

import uuid

from django.conf import settings
from django.db import models

from server.designs.models import Vehicle
from server.workshops.models import Workshop


class State(models.TextChoices):
    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    CANCELLED = "cancelled"
    FAILED = "failed"


class Search(models.Model):
    """One search. A small one is done when it is written; a large one waits for its workshop's turn."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="searches")
    vehicle = models.ForeignKey(Vehicle, models.SET_NULL, null=True, related_name="searches")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    request = models.JSONField()
    words = models.CharField(max_length=400)
    combinations = models.BigIntegerField()
    state = models.CharField(max_length=10, choices=State.choices)
    found = models.JSONField(null=True)
    meeting = models.BigIntegerField(null=True)
    trouble = models.CharField(max_length=400, blank=True, default="")
    created_at = models.DateTimeField(auto_now_add=True)
    started_at = models.DateTimeField(null=True)
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-created_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["workshop"], condition=models.Q(state="running"), name="one_running_a_workshop"
            )
        ]

    def __str__(self) -> str:
        return self.words


class Piece(models.Model):
    """A stretch of a large search's combinations, and what was found in it once a worker has been through."""

    search = models.ForeignKey(Search, models.CASCADE, related_name="pieces")
    number = models.PositiveIntegerField()
    layout = models.PositiveIntegerField()
    low = models.BigIntegerField()
    high = models.BigIntegerField()
    found = models.JSONField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["search", "number"], name="one_piece_a_number")]
        ordering = ["number"]

    def __str__(self) -> str:
        return f"{self.search}, piece {self.number}"
