"""No request takes longer than the limit: its thread is interrupted, and where that does not help its process ends."""

from __future__ import annotations

import ctypes
import logging
import os
import threading
import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponseBase

from server.api.heavy import LIMIT_S, TooLong

LOOK_S = 0.5
LAST_S = 3.0 * LIMIT_S
"""Seconds after which a thread that could not be interrupted takes its process along; another process replaces it."""
log = logging.getLogger("ydrometer.slow")

_begun: dict[int, float] = {}
_told: set[int] = set()
_lock = threading.Lock()


def deadline(get_response: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """Note when a request's thread began with it."""

    def respond(request: HttpRequest) -> HttpResponseBase:
        thread = threading.get_ident()
        _begun[thread] = time.monotonic()
        try:
            return get_response(request)
        finally:
            with _lock:
                del _begun[thread]
                _told.discard(thread)

    return respond


def watch() -> None:
    """Look after the threads of this process from now on."""
    threading.Thread(target=_watch, name="deadline", daemon=True).start()


def _watch() -> None:
    while True:
        time.sleep(LOOK_S)
        with _lock:
            late = {thread: time.monotonic() - begun for thread, begun in _begun.items()}
            for thread, taken in late.items():
                if taken > LIMIT_S and thread not in _told:
                    _told.add(thread)
                    interrupt(thread)
        if max(late.values(), default=0.0) > LAST_S:
            log.critical("a request has taken %.0f s and cannot be interrupted: this process ends", LAST_S)
            os._exit(70)


def interrupt(thread: int) -> None:
    """Raise `TooLong` in a thread as soon as it runs Python again."""
    ctypes.pythonapi.PyThreadState_SetAsyncExc(ctypes.c_ulong(thread), ctypes.py_object(TooLong))
