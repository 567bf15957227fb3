"""What is written down of each request, and how often the same failure is written whole."""

from __future__ import annotations

import logging
import threading
import time
import uuid
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponseBase

SLOW_S = 1.0
"""Requests that take longer are told of as slow."""
AGAIN_S = 60.0
"""Seconds between lines about a failure that was written whole before."""
ID_HEADER = "X-Request-ID"

access = logging.getLogger("ydrometer.access")
slow = logging.getLogger("ydrometer.slow")
security = logging.getLogger("ydrometer.security")
"""Who signs in or fails to, changes a password, joins, leaves, or is let in."""


def request_log(get_response: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """One line a request: who, what, how it ended, how long it took, and the id that its answer carries too."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        identity, begun = uuid.uuid4().hex[:12], time.perf_counter()
        request.META["ydrometer.id"] = identity
        response = get_response(request)
        taken = time.perf_counter() - begun
        response.headers[ID_HEADER] = identity
        line = "%s %s %s %s %s %.0f ms"
        values = (identity, _user(request), request.method, request.path, response.status_code, 1e3 * taken)
        access.info(line, *values)
        if taken > SLOW_S:
            slow.warning(line, *values)
        return response

    return respond


def _user(request: HttpRequest) -> str:
    user = getattr(request, "user", None)
    # A session that nobody has looked into is not looked into for the log.
    signed_in = getattr(request, "_cached_user", None) or (user if user is not None and not _lazy(user) else None)
    return str(getattr(signed_in, "pk", None) or "-")


def _lazy(user: Any) -> bool:
    return type(user).__name__ == "SimpleLazyObject"


class OnceWhole(logging.Filter):
    """Lets a failure's traceback through once; after that a line a minute says how often it came again."""

    def __init__(self) -> None:
        super().__init__()
        self._lock = threading.Lock()
        self._seen: dict[tuple[str, str, int], tuple[int, float]] = {}

    def filter(self, record: logging.LogRecord) -> bool:
        if not record.exc_info or record.exc_info[0] is None:
            return True
        key, now = _place(record.exc_info), time.monotonic()
        with self._lock:
            count, last = self._seen.get(key, (0, 0.0))
            whole, due = count == 0, now - last >= AGAIN_S
            self._seen[key] = (count + 1, now if whole or due else last)
        if not whole:
            record.msg, record.args = "%s in %s, line %d, again: %d times so far", (*key, count + 1)
            record.exc_info = record.exc_text = None
        return whole or due


def _place(raised: Any) -> tuple[str, str, int]:
    """What was raised and where."""
    kind, _, trace = raised
    while trace is not None and trace.tb_next is not None:
        trace = trace.tb_next
    return (kind.__name__, trace.tb_frame.f_code.co_filename, trace.tb_lineno) if trace else (kind.__name__, "", 0)


class Stamped(logging.Formatter):
    """Time in UTC, level, name, and the line; control characters of strangers shown, not written."""

    converter = staticmethod(time.gmtime)

    def __init__(self) -> None:
        super().__init__("%(asctime)s.%(msecs)03dZ %(levelname)s %(name)s %(message)s", "%Y-%m-%dT%H:%M:%S")

    def formatMessage(self, record: logging.LogRecord) -> str:  # noqa: N802  # the library's name
        line = super().formatMessage(record)
        return line if line.isprintable() else "".join(c if c.isprintable() else repr(c)[1:-1] for c in line)
