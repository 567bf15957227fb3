"""The bin of a workshop."""

from typing import Any

from django.db import models

from server.workshops.models import Workshop
from ydrometer.parts.part import LONGEST_ID


def documents(workshop: Workshop) -> list[dict[str, Any]]:
    """The whole bin of a workshop, as typed."""
    return list(Part.objects.filter(workshop=workshop).values_list("document", flat=True))


class Part(models.Model):
    """One part as typed, read by the core before it was written; each change raises its version."""

    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="parts")
    ref = models.CharField(max_length=LONGEST_ID)
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "ref"], name="one_part_an_id")]
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.ref
