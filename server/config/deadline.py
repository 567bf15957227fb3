"""No request takes longer than the limit: its thread is interrupted. A process of which no thread answers is replaced.

A thread that cannot be interrupted is lost, and the others go on. That a process answers is asked of its own threads: a
question is put before all that waits for them. The parent of the processes looks at when it was answered last, since a
process that hangs whole could not even end itself.
"""

from __future__ import annotations

import ctypes
import logging
import threading
import time
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponseBase

from server.api import heavy
from server.api.heavy import TooLong
from server.config.heartbeat import Heartbeat

LOOK_S = 0.5
LIMIT_S = heavy.LIMIT_S + 2.0
"""Seconds for a request; heavy work in it is ended before that."""
LOST_S = 3.0 * LIMIT_S
"""Seconds after which a thread counts as lost."""
log = logging.getLogger("ydrometer.slow")

_begun: dict[int, float] = {}
_told: set[int] = set()
_lost: set[int] = set()
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
                _lost.discard(thread)

    return respond


def watch(dispatcher: Any, heartbeat: Heartbeat) -> None:
    """Look after the threads of this process from now on.

    Args:
        dispatcher: gives work to the threads that answer.
        heartbeat: of this process.
    """
    threading.Thread(target=_watch, args=(dispatcher, heartbeat), name="deadline", daemon=True).start()


class _Question:
    """Asks the threads whether one of them is there; it answers by a beat."""

    def __init__(self, heartbeat: Heartbeat) -> None:
        self._heartbeat, self.answered = heartbeat, True

    def service(self) -> None:
        """Called by a thread that is free."""
        self._heartbeat.beat()
        self.answered = True

    def cancel(self) -> None:
        """Called when the server ends."""


def _watch(dispatcher: Any, heartbeat: Heartbeat) -> None:
    question = _Question(heartbeat)
    while True:
        time.sleep(LOOK_S)
        _interrupt_late()
        if question.answered:
            question.answered = False
            ask(dispatcher, question)


def ask(dispatcher: Any, question: _Question) -> None:
    """Put a question before all that waits for a thread."""
    with dispatcher.lock:
        dispatcher.queue.appendleft(question)
        dispatcher.queue_cv.notify()


def _interrupt_late() -> None:
    """Interrupt threads that take too long, once each; tell of those that this does not reach."""
    with _lock:
        late = {thread: time.monotonic() - begun for thread, begun in _begun.items()}
        for thread, taken in late.items():
            if taken > LIMIT_S and thread not in _told:
                _told.add(thread)
                interrupt(thread)
            elif taken > LOST_S and thread not in _lost:
                _lost.add(thread)
                log.critical("a request has taken %.0f s and cannot be interrupted: its thread is lost", taken)


def interrupt(thread: int) -> None:
    """Raise `TooLong` in a thread as soon as it runs Python again."""
    ctypes.pythonapi.PyThreadState_SetAsyncExc(ctypes.c_ulong(thread), ctypes.py_object(TooLong))
