"""Refusing to keep more than there is room for, said before it is reached; the limits are in `server.api.limits`."""

from __future__ import annotations

from rest_framework import status
from rest_framework.exceptions import APIException

NEAR = 0.8
"""The share at which it is told that room runs out."""


class Full(APIException):
    """There is no room for more."""

    status_code = status.HTTP_400_BAD_REQUEST


def need_room(what: str, used: float, most: float, remedy: str = "take some away first") -> None:
    """Refuse to keep more than there is room for.

    Raises:
        Full: it is full.
    """
    if used >= most:
        raise Full(f"There is room for {most:,.0f} {what}, and {used:,.0f} are there: {remedy}.")
