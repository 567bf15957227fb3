"""A process that ends with the one that started it, however that one ends."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable
from pathlib import Path

EVERY_S = 0.2


FAREWELL_S = 1.5
"""What is under way when a process ends has so long to be done."""


def die_with_parent(grace_s: float = 0.0, commander: int = 0, farewell: Callable[[], object] | None = None) -> None:
    """From now on, end this process when its parent is gone: nothing is left behind that holds a port.

    Args:
        grace_s: how long to go on without the parent, while another one takes its place.
        commander: the process that puts another one there; when it is gone too, this one ends at once.
        farewell: called when the grace is over, before the end: to take on nothing new.
    """
    watched = (os.getppid(), grace_s, commander, farewell)
    threading.Thread(target=_watch, args=watched, name="lifeline", daemon=True).start()


def _watch(parent: int, grace_s: float, commander: int, farewell: Callable[[], object] | None) -> None:
    while os.getppid() == parent:
        time.sleep(EVERY_S)
    limit = time.monotonic() + grace_s
    while time.monotonic() < limit and lives(commander):
        time.sleep(EVERY_S)
    if farewell is not None and lives(commander):
        farewell()
        time.sleep(FAREWELL_S)
    os._exit(1)


def lives(process: int) -> bool:
    """Whether a process is there and not merely waiting to be missed."""
    try:
        state = Path(f"/proc/{process}/stat").read_text().rpartition(")")[2].split()[0]
    except OSError:
        return False
    return state != "Z"
