"""How much one account or workshop may keep, said before it is reached."""

from __future__ import annotations

from rest_framework import status
from rest_framework.exceptions import APIException

MOST_WORKSHOPS = 30
"""That one account owns."""
MOST_INVITATIONS = 60
"""Of a workshop, open at once."""
MOST_TOKENS = 40
"""Of a workshop."""
MOST_RUNS = 5000
"""Of a vehicle."""
MOST_ENTRIES = 5000
"""Of a vehicle, said of its steps, and as many of its parts."""
MOST_PHOTOS = 200
"""Of a vehicle."""
MOST_INSPECTIONS = 1000
"""Of a vehicle."""
MOST_TEMPLATES = 100
"""Of own steps, in a workshop."""
MOST_SETS = 100
"""Of exercises, in a workshop."""
MOST_RACES = 100
"""In a workshop."""
MOST_PUPILS = 60
"""Of a set."""
MOST_ANSWERS = 1000
"""Of a pupil."""
MOST_LOG_FILES = 40
"""Of a vehicle; older ones go."""
MOST_VEHICLES = 400
"""Of a workshop."""
MOST_REVISION_BYTES = 400_000_000
"""Of all revisions in a workshop."""
MOST_OPEN_SEARCHES = 8
"""Of one account, waiting or running."""
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
