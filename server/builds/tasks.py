"""What workers do for builds: writing booklets."""

from __future__ import annotations

from uuid import UUID

from procrastinate.contrib.django import app

from server.builds.booklets import WRITE, write
from server.searches.queue import QUEUE


@app.task(name=WRITE, queue=QUEUE)
def write_booklet(booklet: str) -> None:
    """One booklet."""
    write(UUID(booklet))
