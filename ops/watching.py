"""Looking after the processes that serve: what dies is started again, and nothing dead stays behind."""

from __future__ import annotations

import contextlib
import ctypes
import os
import shutil
import subprocess
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from ops.cluster import Cluster
from ops.say import GiveUp

WATCH_S = 0.2
"""Seconds between looks at what runs."""
SHORT_S = 10.0
"""A process that lived shorter than this did not come up."""
MOST_SHORT = 10
"""So many of these one after another are no accident."""
PR_SET_CHILD_SUBREAPER = 36
"""Of Linux' `prctl`, which Python does not name."""
LARGEST_LOG = 20_000_000
"""Bytes of a log, after which it begins anew beside the one before."""


@dataclass
class Watched:
    """A process that is started again when it dies."""

    name: str
    launch: Callable[[], subprocess.Popen[bytes]]
    running: subprocess.Popen[bytes] | None = None
    born: float = 0.0
    short_lives: int = 0

    def start(self) -> None:
        self.running, self.born = self.launch(), time.monotonic()

    def mend(self) -> None:
        """Start it again where it has died; at once, or with a pause where it has just been started.

        Raises:
            GiveUp: it dies again and again.
        """
        if self.running is None or self.running.poll() is None:
            return
        lived = time.monotonic() - self.born
        if lived > SHORT_S:
            self.short_lives = 0
        elif lived < self.short_lives:
            return
        self.short_lives += 1
        if self.short_lives > MOST_SHORT:
            raise GiveUp(f"the {self.name} ends again and again: ./ydro logs says why")
        print(f"· the {self.name} has ended; it starts again", flush=True)
        self.start()

    def end(self) -> None:
        end(self.running)


def look_after(parts: list[Watched], cluster: Cluster | None, log: Path) -> None:
    """Start again what dies, first the database where it is ours; never returns by itself."""
    while True:
        bury_orphans()
        if cluster is not None and not cluster.alive():
            print("· the database has ended; it starts again", flush=True)
            cluster.revive()
        for part in parts:
            part.mend()
        turn(log)
        time.sleep(WATCH_S)


def end(application: subprocess.Popen[bytes] | None) -> None:
    if application is None or application.poll() is not None:
        return
    application.terminate()
    try:
        application.wait(timeout=10)
    except subprocess.TimeoutExpired:
        application.kill()


def adopt_orphans() -> None:
    """Be the parent of all that is started from here, once what started it has ended: the database server, for one."""
    if ctypes.CDLL(None, use_errno=True).prctl(PR_SET_CHILD_SUBREAPER, 1, 0, 0, 0):
        raise OSError(ctypes.get_errno(), "prctl")


def bury_orphans() -> None:
    """Let the dead among them go: the number of one that is still to be missed looks as if it were alive."""
    with contextlib.suppress(ChildProcessError):
        while os.waitpid(-1, os.WNOHANG)[0]:
            pass


def turn(log: Path) -> None:
    """Begin a log anew once it is large; the one before is kept beside it."""
    if log.exists() and log.stat().st_size > LARGEST_LOG:
        # Its writers hold it open and append: it is emptied, not moved.
        shutil.copyfile(log, log.with_suffix(".log.1"))
        os.truncate(log, 0)
