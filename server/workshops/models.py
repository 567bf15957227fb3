"""Workshops: what people share, who belongs to one, who is asked to, and which instruments may send readings."""

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
    closed_at = models.DateTimeField(null=True)
    """When an owner has closed it; nothing of it is seen until an owner opens it again."""
    coming = models.BooleanField(default=False)
    """Whether an archive is being opened into it; nothing of it is seen until all of that is there."""

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


class Invitation(models.Model):
    """An open question to one person: do you want to belong to this workshop?

    It is put to an account by name, or to whoever brings the code; the code itself is not kept.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Role.choices)
    to = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, null=True, related_name="invitations")
    code_hash = models.CharField(max_length=64, null=True, unique=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    expires_at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workshop", "to"], name="one_invitation_each")]
        ordering = ["expires_at"]

    def __str__(self) -> str:
        return f"to {self.workshop} as {self.role}"


class Token(models.Model):
    """What an instrument shows so that it may send readings into a workshop; the secret itself is not kept."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workshop = models.ForeignKey(Workshop, models.CASCADE, related_name="tokens")
    name = models.CharField(max_length=120)
    secret_hash = models.CharField(max_length=64, unique=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField(null=True)
    uses = models.PositiveBigIntegerField(default=0)

    class Meta:
        ordering = ["created_at"]

    def __str__(self) -> str:
        return f"{self.name} of {self.workshop}"
