"""Who uses the application."""

from django.contrib.auth.models import AbstractUser


class User(AbstractUser):
    """Django's own user; a model of ours so that it can grow."""
