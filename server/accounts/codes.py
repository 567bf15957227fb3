"""Codes that open one thing to whoever brings them: drawn here, told once, kept as a hash alone."""

from __future__ import annotations

import hashlib
import secrets

from server.accounts.models import ResetCode, User


def draw() -> tuple[str, str]:
    """A new code, and its hash."""
    code = secrets.token_urlsafe(24)
    return code, hash_of(code)


def hash_of(code: str) -> str:
    """By which a code is found again. It is long and drawn: a plain hash is enough."""
    return hashlib.sha256(code.encode()).hexdigest()


def end_given(user: User) -> None:
    """End links for a new password that an owner has given: the account has more now than that owner may see."""
    ResetCode.objects.filter(user=user, author__isnull=False).delete()
