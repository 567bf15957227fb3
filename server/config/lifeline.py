"""A process that ends with the one that started it, however that one ends."""

from __future__ import annotations

import os
import threading
import time

EVERY_S = 0.2


def die_with_parent() -> None:
    """From now on, end this process at once when its parent is gone: nothing is left behind that holds a port."""
    parent = os.getppid()
    threading.Thread(target=_watch, args=(parent,), name="lifeline", daemon=True).start()


def _watch(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(EVERY_S)
    os._exit(1)
