"""Vehicles and the revisions of their design documents."""

import uuid

from django.conf import settings
from django.db import models

from server.workshops.models import Workshop


class Vehicle(models.Model):
    """A vehicle on the bench. Its newest revision is its present design; none is ever changed."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="vehicles")
    name = models.CharField(max_length=200)
    put_away = models.BooleanField(default=False)
    gone_at = models.DateTimeField(null=True)
    """When it goes for good, with all that belongs to it; it is put away until then."""
    scratch = models.BooleanField(default=False)
    """On no bench, and gone after a day unless somebody keeps it."""
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created_at"]

    def __str__(self) -> str:
        return self.name

    def lock(self) -> None:
        """Let nobody else change anything of it until the end of this transaction: what comes twice at once is one."""
        Vehicle.objects.select_for_update().get(pk=self.pk)


class Revision(models.Model):
    """One state of a vehicle's design, validated by the core before it was written.

    One that is worth coming back to has a name, and a summary of what was changed since the named one before it.
    """

    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    saved_at = models.DateTimeField(auto_now_add=True)
    name = models.CharField(max_length=200, blank=True, default="")
    summary = models.CharField(max_length=400, blank=True, default="")
    size = models.PositiveIntegerField(default=0)
    """Bytes of the document."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["vehicle", "number"], name="one_revision_a_number")]
        ordering = ["-number"]

    def __str__(self) -> str:
        return f"{self.vehicle}, revision {self.number}"


class Lesson(models.Model):
    """Values that were fitted to runs and put into a design, and how they vary together.

    `together` has paths, values and factors, see `ydrometer.evaluation.uncertainty.Together`; `runs` the ids that they
    rest on.
    """

    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="lessons")
    together = models.JSONField()
    runs = models.JSONField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    learnt_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-learnt_at", "-pk"]

    def __str__(self) -> str:
        return f"learnt about {self.vehicle} from {len(self.runs)} runs"


class Share(models.Model):
    """A design as it stood when it was shared: whoever brings the code sees it, and nothing else, until it expires.

    The code itself is not kept.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="shares")
    document = models.JSONField()
    code_hash = models.CharField(max_length=64, unique=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    opened = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["-made_at"]

    def __str__(self) -> str:
        return f"{self.vehicle}, shared until {self.expires_at}"


class AtVehicle(models.Model):
    """Who was at a vehicle last, and at which station."""

    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="at_it")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    station = models.CharField(max_length=20)
    at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["vehicle", "user"], name="one_place_each")]

    def __str__(self) -> str:
        return f"{self.user} at {self.station} of {self.vehicle}"
