"""What is cleared away by itself."""

from __future__ import annotations

from django.contrib.sessions.backends.db import SessionStore
from django.contrib.sessions.models import Session
from django.utils import timezone
from procrastinate.contrib.django import app

from server.accounts.models import ResetCode, SignedIn


@app.periodic(cron="27 * * * *")
@app.task(queue="housekeeping")
def clear_away(timestamp: int) -> None:
    """Sessions that ran out, the devices they belonged to, and codes that no longer stand."""
    SessionStore.clear_expired()
    SignedIn.objects.exclude(session_key__in=Session.objects.values("session_key")).delete()
    ResetCode.objects.filter(expires_at__lte=timezone.now()).delete()
