"""Asking for the password again before what cannot be undone, or would give the account away."""

from __future__ import annotations

from rest_framework import serializers

from server.accounts import patience
from server.accounts.models import User
from server.config.logs import security


def confirm(user: User, password: str, field: str = "password") -> None:
    """Be sure that it is the user who asks. Tries are counted.

    Raises:
        serializers.ValidationError: another password, told at the field of the form.
        Throttled, Busy: to be tried again later.
    """
    key = (patience.PASSWORD, str(user.pk))
    patience.count(key)
    with patience.hashing():
        if not user.check_password(password):
            security.warning("account %s gave a wrong present password", user.pk)
            raise serializers.ValidationError({field: "This is not the present password."})
    patience.forgive(key)
