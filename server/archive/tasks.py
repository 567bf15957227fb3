"""What workers do for archives: writing and opening them, and forgetting old ones."""

from __future__ import annotations

from uuid import UUID

from procrastinate.contrib.django import app

from server.archive.work import WORK, forget_old, work
from server.searches.queue import QUEUE


@app.task(name=WORK, queue=QUEUE)
def work_on_archive(archive: str) -> None:
    """As much of one as is done at a time. Doing it twice does no harm: each step is done once."""
    work(UUID(archive))


@app.periodic(cron="37 * * * *")
@app.task(queue="housekeeping")
def clear_away(timestamp: int) -> None:
    """What nobody asks about any more."""
    forget_old()
