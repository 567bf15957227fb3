"""Work that takes long, in a process of its own beside the threads that answer; what takes too long is ended.

A process takes work once it is warm: it has then loaded its libraries and run its kernels once. Whoever asks before
that is told to come again, and starting counts as no work. Where a work may have to be ended, another process is warmed
meanwhile, so that it can take the place at once.
"""

from __future__ import annotations

import multiprocessing
import os
import threading
from collections.abc import Callable
from concurrent.futures import CancelledError, Future, wait
from concurrent.futures.process import BrokenProcessPool
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
"""Seconds that anything may take, its wait for what is before it included."""
SPARE_AFTER_S = 5.0
"""Seconds after which another process is warmed: this work may have to be ended."""
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
_change = threading.Lock()


class _Process:
    """A process for heavy work. It is not forked: the threads here may hold locks."""

    def __init__(self) -> None:
        context = multiprocessing.get_context("spawn")
        politeness = [settings.POLITENESS]
        self.pool = ProcessPool(max_workers=1, context=context, initializer=_begin, initargs=politeness)
        self.warmed = self.pool.schedule(_nothing)
        # A process waits for its children before it ends: they are told to end first.
        self.end = Finalize(self, _end, args=(self.pool,), exitpriority=10)

    def is_warm(self, patience_s: float) -> bool:
        """Whether it can take work, now or within some seconds."""
        try:
            self.warmed.result(patience_s)
        except (TimeoutError, CancelledError, ProcessExpired, BrokenProcessPool):
            return False
        return bool(self.pool.active)


class _Processes:
    """The process that takes work, and the one that is to take its place."""

    def __init__(self) -> None:
        self.present: _Process | None = None
        self.spare: _Process | None = None

    def take(self) -> _Process:
        """The one that takes work, begun anew where it has died."""
        with _change:
            if self.present is None or not self.present.pool.active:
                self.present, self.spare = self.spare or _Process(), None
            return self.present

    def prepare(self) -> None:
        """Warm another one."""
        with _change:
            self.spare = self.spare or _Process()

    def drop_spare(self) -> None:
        """End the one that is not needed after all."""
        with _change:
            spare, self.spare = self.spare, None
        if spare is not None:
            _end_aside(spare)

    def replace(self, process: _Process) -> None:
        """End a process, and let the next one take its place."""
        with _change:
            if self.present is process:
                self.present, self.spare = self.spare or _Process(), None
        _end_aside(process)


_processes = _Processes()


def aside(work: Callable[P, R], *args: P.args, **kwargs: P.kwargs) -> R:
    """What `work` returns or raises, worked out in the other process.

    Args:
        work: a function of the core, which knows neither request nor database; with its arguments it goes to the other
            process.

    Raises:
        Busy: too many wait already, or the process is not warm yet.
        TooLong: it was ended.
    """
    if not _places.acquire(blocking=False):
        raise Busy
    try:
        process = _processes.take()
        if not process.is_warm(settings.WARM_PATIENCE_S):
            raise Busy
        return _result(process, process.pool.schedule(work, args=args, kwargs=kwargs))
    except (ProcessExpired, BrokenProcessPool):
        _processes.replace(process)
        raise Busy from None
    except CancelledError:
        raise Busy from None
    finally:
        _places.release()


def _result(process: _Process, future: Future[R]) -> R:
    """What comes of a work within its time; whatever is still running then is ended with its process."""
    done, _ = wait([future], SPARE_AFTER_S)
    if not done:
        _processes.prepare()
        done, _ = wait([future], LIMIT_S - SPARE_AFTER_S)
    if done:
        _processes.drop_spare()
        return future.result()
    if future.running():
        _processes.replace(process)
        raise TooLong
    future.cancel()
    raise Busy


def _end_aside(process: _Process) -> None:
    """End a process without waiting for it."""
    threading.Thread(target=process.end, name="end", daemon=True).start()


def _end(pool: ProcessPool) -> None:
    pool.stop()
    pool.join()


def warm() -> None:
    """Have it ready before somebody waits for it."""
    _processes.take()


def _begin(politeness: int) -> None:
    die_with_parent()
    os.setpriority(os.PRIO_PROCESS, 0, politeness)
    from ydrometer.command.warm import warm as ready  # noqa: PLC0415  # only here: the parent has its own kernels

    ready()


def _nothing() -> Any:
    return None
