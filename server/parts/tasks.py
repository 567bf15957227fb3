"""What workers do for bins: writing them as files."""

from __future__ import annotations

from uuid import UUID

from procrastinate.contrib.django import app

from server.parts.books import WRITE, write
from server.searches.queue import QUEUE


@app.task(name=WRITE, queue=QUEUE)
def write_book(book: str) -> None:
    """One file."""
    write(UUID(book))
