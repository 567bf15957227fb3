"""What is cleared away by itself."""

from __future__ import annotations

from django.utils import timezone
from procrastinate.contrib.django import app

from server.designs import actions
from server.designs.models import Share


@app.periodic(cron="17 * * * *")
@app.task(queue="housekeeping")
def clear_away(timestamp: int) -> None:
    """Once an hour, so that a machine that is on for an evening gets there: deleted vehicles, links that ran out."""
    actions.remove_gone()
    Share.objects.filter(expires_at__lte=timezone.now()).delete()
