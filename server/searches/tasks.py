"""What workers do: pieces of searches, and again what a worker that died has left."""

from __future__ import annotations

import logging
from uuid import UUID

from procrastinate import RetryStrategy
from procrastinate.contrib.django import app

from server.searches import actions
from server.searches.queue import GO_THROUGH, QUEUE

STALLED_S = 12.0
"""Seconds without a sign of life after which a worker is taken for dead."""
log = logging.getLogger(__name__)


@app.task(name=GO_THROUGH, queue=QUEUE)
def go_through(search: str, number: int) -> None:
    """One piece of a search. Doing it twice does no harm: it is written down once."""
    try:
        actions.go_through_piece(UUID(search), number)
    except Exception as error:
        log.exception("piece %s of search %s", number, search)
        actions.fail(UUID(search), f"A worker could not go through it: {error}")
        raise


@app.periodic(cron="* * * * * */10")
@app.task(queue=QUEUE, queueing_lock="again", priority=1000, retry=RetryStrategy(max_attempts=1))
async def again(timestamp: int) -> None:
    """Every ten seconds: what a dead worker was doing is given to another."""
    for job in await app.job_manager.get_stalled_jobs(queue=QUEUE, seconds_since_heartbeat=STALLED_S):
        await app.job_manager.retry_job(job)
