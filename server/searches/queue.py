"""The row in which pieces of searches wait for a worker; a piece is named here, so that what asks for it need not know
who does it.
"""

from __future__ import annotations

from uuid import UUID

from procrastinate.contrib.django import app

QUEUE = "searches"
GO_THROUGH = "server.searches.tasks.go_through"
"""The name of the task that does one piece."""


def put(search: UUID, number: int) -> None:
    """Let a worker do one piece of a search.

    First pieces go first, whosever they are: a short search does not wait for a long one of another workshop.
    """
    app.configure_task(GO_THROUGH, queue=QUEUE, priority=-number).defer(search=str(search), number=number)
