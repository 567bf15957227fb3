"""Who uses the application."""

import uuid

from django.conf import settings
from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models.functions import Lower


class User(AbstractUser):
    """Django's own user, with the workshop whose bench they had before them last."""

    bench = models.ForeignKey("workshops.Workshop", models.SET_NULL, null=True, related_name="+")

    class Meta(AbstractUser.Meta):
        constraints = [models.UniqueConstraint(Lower("username"), name="one_account_a_name_without_case")]


class Attempts(models.Model):
    """How often something that can be guessed or overdone was tried, under one key: an account, an address, both."""

    key = models.CharField(max_length=200, primary_key=True)
    count = models.PositiveIntegerField(default=0)
    last_at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["last_at"])]

    def __str__(self) -> str:
        return f"{self.key}: {self.count}"


class SignedIn(models.Model):
    """A device on which somebody is signed in; it ends with Django's session of the same key."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE, related_name="devices")
    session_key = models.CharField(max_length=40, unique=True)
    device = models.CharField(max_length=10)
    """"phone", "tablet" or "computer", by what its browser says of itself."""
    address = models.GenericIPAddressField(null=True)
    since = models.DateTimeField(auto_now_add=True)
    last_at = models.DateTimeField()

    class Meta:
        ordering = ["-last_at"]

    def __str__(self) -> str:
        return f"{self.user} on a {self.device}"


class ResetCode(models.Model):
    """Who brings the code may choose a new password for one account, once; the code itself is not kept."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, related_name="reset_code")
    code_hash = models.CharField(max_length=64, unique=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True, related_name="+")
    expires_at = models.DateTimeField()

    def __str__(self) -> str:
        return f"a new password for {self.user}"
