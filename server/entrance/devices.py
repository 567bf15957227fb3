"""Where one is signed in, and ending that."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.contrib.sessions.models import Session
from django.db.models import QuerySet
from django.utils import timezone

from server.accounts import patience
from server.accounts.models import SignedIn, User
from server.config.logs import security

NEWS = timedelta(minutes=5)
"""How old the time of the last visit may be before it is written anew."""


def note(request: Any, user: User) -> None:
    """Write down that the user is here, on this device."""
    key, now = request.session.session_key, timezone.now()
    if key is None:
        return
    seen: dict[str, Any] = {
        "user": user,
        "last_at": now,
        "address": patience.address_of(request) or None,
        "device": device_of(request.META.get("HTTP_USER_AGENT", "")),
    }
    if not SignedIn.objects.filter(session_key=key, user=user, last_at__gt=now - NEWS).exists():
        SignedIn.objects.update_or_create(session_key=key, defaults=seen)


def device_of(agent: str) -> str:
    """What sort of device a browser says it runs on."""
    if "iPad" in agent or "Tablet" in agent or ("Android" in agent and "Mobile" not in agent):
        return "tablet"
    return "phone" if "Mobi" in agent else "computer"


def of(user: User, here: str | None) -> QuerySet[SignedIn]:
    """The devices on which the user still is signed in. `here` is the session that asks: the demo's visitor is many
    people, who see nothing of each other.
    """
    alive = Session.objects.filter(expire_date__gt=timezone.now()).values("session_key")
    devices = user.devices.filter(session_key__in=alive)
    return devices if user.has_usable_password() else devices.filter(session_key=here)


def end(user: User, devices: QuerySet[SignedIn]) -> None:
    """Sign the user out on some of their devices."""
    keys = list(devices.filter(user=user).values_list("session_key", flat=True))
    Session.objects.filter(session_key__in=keys).delete()
    SignedIn.objects.filter(session_key__in=keys).delete()
    security.info("account %s ended %d sessions", user.pk, len(keys))
