"""The bin of a workshop."""

import uuid
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


class BinBook(models.Model):
    """A bin as an XLSX file: of one kind of parts, or of all where `kind` is empty.

    `bin_was` tells for which state of the bin it is; `data` is empty until a worker has written it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="bin_books")
    kind = models.CharField(max_length=40, blank=True)
    bin_was = models.CharField(max_length=80)
    data = models.BinaryField(null=True)
    asked_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "kind", "bin_was"], name="one_book_a_bin")]

    def __str__(self) -> str:
        return f"bin of {self.workshop}, {self.kind or 'all kinds'}"
