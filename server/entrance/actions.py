"""Changes to accounts; each is told who acts."""

from __future__ import annotations

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from rest_framework import serializers

from server.accounts.models import User
from server.api.errors import Refused
from server.config.logs import security
from server.entrance import devices
from server.workshops import actions as workshops
from server.workshops.models import Role, Workshop


def sign_up(username: str, password: str) -> User:
    """A new account with a workshop of its own.

    Raises:
        serializers.ValidationError: the password is too weak, or the name was taken a moment ago.
    """
    user = User(username=username)
    check_password(user, password)
    user.set_password(password)
    with transaction.atomic():
        try:
            with transaction.atomic():
                user.save()
        except IntegrityError:
            raise serializers.ValidationError({"username": "That name is taken."}) from None
        workshops.create_workshop(user, f"{username}'s workshop")
    return user


@transaction.atomic
def delete_account(user: User) -> None:
    """Take an account away, and the workshops that are only theirs.

    What they did in others' workshops stays there, without their name.

    Raises:
        Refused: others work in a workshop of which they are the only owner.
    """
    needed = []
    for membership in user.memberships.select_related("workshop"):
        others = membership.workshop.memberships.exclude(user=user)
        if not others.exists():
            membership.workshop.delete()
        elif membership.role == Role.OWNER and not others.filter(role=Role.OWNER).exists():
            needed.append(membership.workshop.name)
    if needed:
        raise Refused(f"Others work in {', '.join(needed)}, and nobody else owns it: hand it over first.")
    devices.end(user, user.devices.all())
    security.warning("account %s was deleted by its owner", user.pk)
    user.delete()


def stand_at(user: User, workshop: Workshop) -> None:
    """Have a workshop's bench before one, now and at the next visit."""
    user.bench = workshop
    user.save(update_fields=["bench"])


def change_password(user: User, password: str) -> None:
    """Give the user another password."""
    check_password(user, password)
    user.set_password(password)
    user.save(update_fields=["password"])


def check_password(user: User, password: str) -> None:
    """Refuse a password that Django's validators find too weak, in the shape of the form's faults."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise serializers.ValidationError({"password": error.messages}) from None
