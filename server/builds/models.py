"""The building of a vehicle: what was said of its steps and parts, photos, inspections, templates of own steps."""

import uuid

from django.conf import settings
from django.db import models

from server.designs.models import Vehicle
from server.workshops.models import Workshop
from ydrometer.build.purchase import PURCHASE_STATES
from ydrometer.screens.step_entries import DOINGS


class Build(models.Model):
    """What a builder says beside the design, see `ydrometer.build.book`; `version` counts its changes."""

    vehicle = models.OneToOneField(Vehicle, models.CASCADE, related_name="build")
    book = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    changed_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"build of {self.vehicle}"


class StepEntry(models.Model):
    """What somebody has said of a step; none is ever changed, the last one holds. Sent twice it is one.

    `at` is when it was said, on the device; `about`, `title` and `made_from` what the step was then.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="step_entries")
    step = models.CharField(max_length=200)
    doing = models.CharField(max_length=10, choices=[(doing, doing) for doing in DOINGS])
    at = models.DateTimeField()
    minutes = models.FloatField(null=True)
    value = models.CharField(max_length=100, blank=True, default="")
    note = models.TextField(blank=True, default="")
    reason = models.TextField(blank=True, default="")
    about = models.TextField(blank=True, default="")
    title = models.TextField(blank=True, default="")
    made_from = models.JSONField(default=list)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["at", "came_at", "pk"]

    def __str__(self) -> str:
        return f"{self.step} of {self.vehicle}: {self.doing}"


class PartEntry(models.Model):
    """What somebody has said of a line of the parts list, told by what it is; the last one holds."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="part_entries")
    key = models.CharField(max_length=300)
    state = models.CharField(max_length=10, choices=[(state, state) for state in PURCHASE_STATES])
    expected = models.DateField(null=True)
    paid = models.FloatField(null=True)
    at = models.DateTimeField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["at", "came_at", "pk"]

    def __str__(self) -> str:
        return f"{self.key} of {self.vehicle}: {self.state}"


class Photo(models.Model):
    """A photo of a step, made anew from what came: JPEG, without what a camera adds to it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="photos")
    step = models.CharField(max_length=200)
    data = models.BinaryField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    taken_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["taken_at"]

    def __str__(self) -> str:
        return f"photo of {self.step} of {self.vehicle}"


class InspectionEntry(models.Model):
    """An inspection, see `ydrometer.build.inspection`. Sent twice it is one."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="inspections")
    document = models.JSONField()
    at = models.DateTimeField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ["at", "pk"]

    def __str__(self) -> str:
        return f"inspection of {self.vehicle}"


class StepTemplate(models.Model):
    """Own steps kept in a workshop under a name, to be put into other builds."""

    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="step_templates")
    name = models.CharField(max_length=120)
    steps = models.JSONField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="one_step_template_a_name")]
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class BookletState(models.TextChoices):
    WAITING = "waiting"
    WRITING = "writing"
    DONE = "done"
    FAILED = "failed"


class Booklet(models.Model):
    """A booklet being written by a worker: of how many chapters how many are done, and the file."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="booklets")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, null=True, related_name="+")
    state = models.CharField(max_length=10, choices=BookletState.choices, default=BookletState.WAITING)
    written = models.PositiveIntegerField(default=0)
    chapters = models.PositiveIntegerField(default=0)
    data = models.BinaryField(null=True)
    trouble = models.TextField(blank=True, default="")
    begun_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return f"booklet of {self.vehicle}"
