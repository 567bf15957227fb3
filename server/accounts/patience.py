"""Who tries again and again waits, each time longer; nobody is locked out for it.

Tries are counted in the database, so that all processes count together. A try is counted before it is looked at: many
at once are as many tries.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta
from threading import BoundedSemaphore

from django.db import transaction
from django.utils import timezone
from rest_framework.exceptions import Throttled
from rest_framework.request import Request

from server.accounts.models import Attempts
from server.api.heavy import Busy
from server.config.logs import security

FORGOTTEN = timedelta(hours=2)
"""After so long without a try the count begins anew."""
KNOWN_FOR = timedelta(days=180)
"""How long an address from which somebody has signed in is theirs."""
CLOCKS_APART = timedelta(seconds=2)
"""By how much the clocks of two servers of one database may differ."""
HASHING = 2
"""Passwords of this process that are hashed at once: each takes a thread and most of a second."""
HASHING_WAIT_S = 5.0


@dataclass(frozen=True, slots=True)
class Limit:
    """`free` tries; then each waits twice as long as the one before, from `first_s` to at most `most_s` seconds."""

    name: str
    free: int
    first_s: float
    most_s: float

    def wait(self, count: int) -> float:
        """Seconds after the last of `count` tries until the next."""
        return 0.0 if count < self.free else min(self.most_s, self.first_s * 2.0 ** min(count - self.free, 30))


PAIR = Limit("pair", free=5, first_s=2.0, most_s=300.0)
"""One account from one address."""
ADDRESS = Limit("address", free=60, first_s=1.0, most_s=60.0)
"""Any account from one address: a class behind one address signs in at the same hour."""
ACCOUNT = Limit("account", free=20, first_s=2.0, most_s=30.0)
"""One account from addresses that it has never been used from."""
SIGN_UP = Limit("sign-up", free=60, first_s=5.0, most_s=300.0)
PASSWORD = Limit("password", free=5, first_s=2.0, most_s=300.0)
INVITATION = Limit("invitation", free=30, first_s=2.0, most_s=300.0)
CLASS = Limit("class", free=10, first_s=6.0, most_s=60.0)
"""Wrong codes of a class from one address: ten in a minute."""
SHARED = Limit("shared", free=20, first_s=2.0, most_s=300.0)
"""Wrong codes of shared designs from one address."""
RESET = Limit("reset", free=10, first_s=2.0, most_s=300.0)
JOINING = Limit("joining", free=10, first_s=2.0, most_s=300.0)


def address_of(request: Request) -> str:
    """Where a request comes from. What a client says of itself is not believed: where a trusted server stands in front,
    this has been put right before (see `server.config.serve`).
    """
    return str(request.META.get("REMOTE_ADDR", ""))


def count(*tries: tuple[Limit, str]) -> None:
    """Count a try under each of these keys, or refuse it.

    Raises:
        Throttled: one of them has to wait.
    """
    now = timezone.now()
    with transaction.atomic():
        # In the order of their keys, so that two requests never wait for each other.
        rows = [(limit, _row(_key(limit.name, of), now)) for limit, of in sorted(tries, key=lambda pair: pair[1])]
        waits = [_left(limit, row, now) for limit, row in rows]
        longest = max(waits, default=0.0)
        if longest <= 0.0:
            for _, row in rows:
                row.count, row.last_at = row.count + 1, now
                row.save(update_fields=["count", "last_at"])
    if longest > 0.0:
        security.warning("too many tries: %s", ", ".join(limit.name for limit, _ in tries))
        raise Throttled(wait=longest)


def _left(limit: Limit, row: Attempts, now: datetime) -> float:
    """Seconds that a try has to wait still. One at the same moment may have been counted a little after `now`: that
    alone is no reason to wait.
    """
    wait = limit.wait(row.count)
    return wait - (now - row.last_at).total_seconds() if wait > 0.0 else 0.0


def _row(key: str, now: datetime) -> Attempts:
    row, _ = Attempts.objects.select_for_update().get_or_create(key=key, defaults={"last_at": now})
    if row.last_at > now + CLOCKS_APART:
        # The clock was put back: nobody waits for it to come there again.
        row.last_at = now
        row.save(update_fields=["last_at"])
    if now - row.last_at > FORGOTTEN:
        row.count = 0
    return row


def forgive(*tries: tuple[Limit, str]) -> None:
    """Forget what was counted under these keys: it went well."""
    Attempts.objects.filter(key__in=[_key(limit.name, of) for limit, of in tries]).delete()


def count_sign_in(username: str, address: str) -> None:
    """Count a try to sign in.

    Raises:
        Throttled: to be tried again later.
    """
    account = username.lower()
    tries = [(PAIR, f"{account}|{address}"), (ADDRESS, address)]
    if not _known(account, address):
        tries.append((ACCOUNT, account))
    count(*tries)


def signed_in(username: str, address: str) -> None:
    """It went well: the address is the account's from now on, and what led there is forgotten."""
    account = username.lower()
    forgive((PAIR, f"{account}|{address}"))
    now = timezone.now()
    Attempts.objects.update_or_create(key=_key("known", f"{account}|{address}"), defaults={"last_at": now})
    Attempts.objects.filter(key=_key(ADDRESS.name, address), count__gt=0).update(count=0)
    Attempts.objects.exclude(key__startswith="known:").filter(last_at__lt=now - FORGOTTEN).delete()


def _known(account: str, address: str) -> bool:
    known = Attempts.objects.filter(key=_key("known", f"{account}|{address}"))
    return known.filter(last_at__gt=timezone.now() - KNOWN_FOR).exists()


def _key(name: str, of: str) -> str:
    return f"{name}:{hashlib.sha256(of.encode()).hexdigest()}"


_hashing = BoundedSemaphore(HASHING)


@contextmanager
def hashing() -> Iterator[None]:
    """Take a turn at hashing a password, so that guessing never holds all threads.

    Raises:
        Busy: none comes soon.
    """
    if not _hashing.acquire(timeout=HASHING_WAIT_S):
        raise Busy
    try:
        yield
    finally:
        _hashing.release()
