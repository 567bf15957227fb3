"""What a worker does for practice without being asked."""

from procrastinate.contrib.django import app

from server.practice.actions import forget_old
from server.searches.queue import QUEUE


@app.periodic(cron="17 3 * * *")
@app.task(queue=QUEUE)
def forget(timestamp: int) -> None:
    """Every night: pupils who joined too long ago are forgotten."""
    forget_old()
