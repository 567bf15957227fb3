"""What is cleared away by itself."""

from __future__ import annotations

from procrastinate.contrib.django import app

from server.pieces.store import clear_old


@app.periodic(cron="*/20 * * * *")
@app.task(queue="housekeeping")
def clear_away(timestamp: int) -> None:
    """Files that were begun and went no further, and those that nobody has fetched."""
    clear_old()
