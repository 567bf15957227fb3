"""What workers do for runs: reading loggers' files."""

from __future__ import annotations

from uuid import UUID

from procrastinate.contrib.django import app

from server.runs.log_files import READ, read_file
from server.searches.queue import QUEUE


@app.task(name=READ, queue=QUEUE)
def read_log_file(file: str) -> None:
    """One file. Doing it twice does no harm: it is read once."""
    read_file(UUID(file))
