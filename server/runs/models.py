"""Test runs of a vehicle, and the designs they were made with."""

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

from server.designs.models import Vehicle
from server.pieces.models import HeldFile


class Origin(models.TextChoices):
    """Who or what has read the readings."""

    TYPED = "typed"
    INSTRUMENT = "instrument"
    RIG = "rig"
    FILE = "file"


class Tried(models.Model):
    """A design that was run, kept whole however its revisions are thinned; of what no run depends on it has one state.

    `digest` is that of its essence, see `ydrometer.trials.tried`; `revision` the number it had when it was first run.
    """

    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="tried")
    digest = models.CharField(max_length=64)
    document = models.JSONField()
    revision = models.PositiveIntegerField(null=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["vehicle", "digest"], name="one_tried_design_each")]
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.vehicle}, as tried first at revision {self.revision}"


class Run(models.Model):
    """One run, as in a runs file but for its design. It is put away rather than deleted.

    Its id is made where it was typed, so that one sent twice is one. `version` counts its changes. `measured` is the
    mean of its readings and `predicted` what its design predicted, SI; `off` their relative difference. `changed` says
    what of the design was other than in the run before, in words.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="runs")
    tried = models.ForeignKey(Tried, models.RESTRICT, related_name="runs")
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    origin = models.CharField(max_length=10, choices=Origin.choices, default=Origin.TYPED)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    made_at = models.DateTimeField(default=timezone.now)
    put_away = models.BooleanField(default=False)
    words = models.CharField(max_length=200)
    dimension = models.CharField(max_length=40)
    measured = models.FloatField()
    predicted = models.FloatField(null=True)
    off = models.FloatField(null=True)
    changed = models.JSONField(default=list)

    class Meta:
        ordering = ["made_at", "pk"]

    def __str__(self) -> str:
        return f"{self.words} of {self.vehicle}"


class LearntAnswer(models.Model):
    """What the runs of a vehicle show, as it was worked out last; `stamp` says of which runs and which design."""

    vehicle = models.OneToOneField(Vehicle, models.CASCADE, related_name="learnt_answer")
    stamp = models.CharField(max_length=200)
    answer = models.JSONField()

    def __str__(self) -> str:
        return f"what runs show of {self.vehicle}"


class Rig(models.Model):
    """A practice rig for a vehicle: what is hidden of it, and what it remembers.

    `seed` and `base` say what is hidden, see `ydrometer.instruments.rig`; `state` is that of its battery and winding.
    `shown` says whether somebody has asked to see it.
    """

    vehicle = models.OneToOneField(Vehicle, models.CASCADE, related_name="rig")
    seed = models.PositiveBigIntegerField()
    base = models.JSONField()
    state = models.JSONField(default=dict)
    shown = models.BooleanField(default=False)

    def __str__(self) -> str:
        return f"rig of {self.vehicle}"


class OrderState(models.TextChoices):
    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    STOPPED = "stopped"


class Order(models.Model):
    """Something the rig is to do: an action a few times, with a design. Its lines are written as time goes by."""

    rig = models.ForeignKey(Rig, models.CASCADE, related_name="orders")
    action = models.CharField(max_length=10)
    repeats = models.PositiveSmallIntegerField()
    tried = models.ForeignKey(Tried, models.CASCADE, related_name="+")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    state = models.CharField(max_length=10, choices=OrderState.choices, default=OrderState.WAITING)
    ordered_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.action} {self.repeats} times on the {self.rig}"


class Line(models.Model):
    """A line that the rig has spoken; its key counts up, so that whoever listens knows where to go on."""

    order = models.ForeignKey(Order, models.CASCADE, related_name="lines")
    text = models.TextField()

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.text


class Plan(models.Model):
    """What is to be tried with a vehicle, see `ydrometer.trials.plan`; `version` counts its changes."""

    vehicle = models.OneToOneField(Vehicle, models.CASCADE, related_name="plan")
    document = models.JSONField()
    version = models.PositiveIntegerField(default=1)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    changed_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"plan for {self.vehicle}"


class FileState(models.TextChoices):
    COMING = "coming"
    WAITING = "waiting"
    READING = "reading"
    DONE = "done"
    CANCELLED = "cancelled"
    FAILED = "failed"


class LogFile(models.Model):
    """A logger's file of a vehicle: what was said of its columns, how far it has been read, and what was found in it.

    `held` has its bytes until they have been read. `header` is its line of names, by which what was said is remembered
    for the next file of the kind; `document` the design that was driven; `found` is a
    `ydrometer.screens.logged_file.FileShown`.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    vehicle = models.ForeignKey(Vehicle, models.CASCADE, related_name="log_files")
    name = models.CharField(max_length=200)
    size = models.PositiveIntegerField()
    held = models.OneToOneField(HeldFile, models.SET_NULL, null=True, related_name="+")
    header = models.TextField(blank=True, default="")
    layout = models.JSONField()
    document = models.JSONField()
    state = models.CharField(max_length=10, choices=FileState.choices, default=FileState.COMING)
    rows = models.PositiveIntegerField(default=0)
    found = models.JSONField(null=True)
    trouble = models.TextField(blank=True, default="")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    begun_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-begun_at"]

    def __str__(self) -> str:
        return f"{self.name} of {self.vehicle}"
