"""Workshops: what people share. Everything later belongs to one."""

import uuid

from django.conf import settings
from django.db import models


class Role(models.TextChoices):
    OWNER = "owner"
    EDITOR = "editor"
    VIEWER = "viewer"


class Workshop(models.Model):
    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    name = models.CharField(max_length=120)
    created_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.name


class Membership(models.Model):
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="memberships")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "user"], name="one_membership_each")]
        ordering = ["user__username"]

    def __str__(self) -> str:
        return f"{self.user} as {self.role} of {self.workshop}"
