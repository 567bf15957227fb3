"""Who uses the application."""

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """Django's own user, with the workshop whose bench they had before them last."""

    bench = models.ForeignKey("workshops.Workshop", models.SET_NULL, null=True, related_name="+")


class Attempts(models.Model):
    """How often something that can be guessed or overdone was tried, under one key: an account, an address, both."""

    key = models.CharField(max_length=200, primary_key=True)
    count = models.PositiveIntegerField(default=0)
    last_at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["last_at"])]

    def __str__(self) -> str:
        return f"{self.key}: {self.count}"
