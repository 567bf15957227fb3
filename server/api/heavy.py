"""Work that takes long, in a process of its own beside the threads that answer; what takes too long is ended."""

from __future__ import annotations

import multiprocessing
import os
import threading
from collections.abc import Callable
from concurrent.futures import TimeoutError as TookTooLong
from concurrent.futures.process import BrokenProcessPool
from functools import cache
from multiprocessing.util import Finalize
from typing import Any, ParamSpec, TypeVar

from django.conf import settings
from pebble import ProcessExpired, ProcessPool
from rest_framework import status
from rest_framework.exceptions import APIException

from server.config.lifeline import die_with_parent

P = ParamSpec("P")
R = TypeVar("R")
LIMIT_S = 10.0
"""Seconds that anything may take."""
MOST_WAITING = 4
"""Requests of this process that wait for such work at once; each holds a thread."""


class Busy(APIException):
    """Others are before it."""

    status_code = status.HTTP_503_SERVICE_UNAVAILABLE
    default_detail = "The server has its hands full: try again in a few seconds."
    wait = 3


class TooLong(APIException):
    """It took longer than anything may."""

    status_code = status.HTTP_503_SERVICE_UNAVAILABLE
    default_detail = f"This took longer than {LIMIT_S:.0f} s and was ended: ask for less at once."


_places = threading.BoundedSemaphore(MOST_WAITING)


def aside(work: Callable[P, R], *args: P.args, **kwargs: P.kwargs) -> R:
    """What `work` returns or raises, worked out in the other process.

    Args:
        work: a function of the core, which knows neither request nor database; with its arguments it goes to the other
            process.

    Raises:
        Busy: too many wait already.
        TooLong: it was ended.
    """
    if not _places.acquire(blocking=False):
        raise Busy
    try:
        result: R = _working().schedule(work, args=args, kwargs=kwargs, timeout=LIMIT_S).result()
        return result
    except TookTooLong:
        raise TooLong from None
    except (ProcessExpired, BrokenProcessPool):
        raise Busy from None
    finally:
        _places.release()


def _working() -> ProcessPool:
    """The pool, begun anew where it has broken."""
    if not _pool().active:
        _pool.cache_clear()
    return _pool()


@cache
def _pool() -> ProcessPool:
    """One process, begun when it is first asked for. It is not forked: the threads here may hold locks."""
    context = multiprocessing.get_context("spawn")
    pool = ProcessPool(max_workers=1, context=context, initializer=_begin, initargs=[settings.POLITENESS])
    # A process waits for its children before it ends: they are told to end first.
    Finalize(None, _end, args=(pool,), exitpriority=10)
    return pool


def _end(pool: ProcessPool) -> None:
    pool.stop()
    pool.join()


def warm() -> None:
    """Have it ready before somebody waits for it."""
    _working().schedule(_nothing)


def _begin(politeness: int) -> None:
    die_with_parent()
    os.setpriority(os.PRIO_PROCESS, 0, politeness)
    from ydrometer.command.warm import warm as ready  # noqa: PLC0415  # only here: the parent has its own kernels

    ready()


def _nothing() -> Any:
    return None
