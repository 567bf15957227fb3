"""What works beside the server, as a thread of the test."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from django.db import connection

OFTEN_S = 0.1


@contextmanager
def at_work(work: Callable[[], object]) -> Iterator[None]:
    """Do some work again and again, as long as the test is in here."""
    over = threading.Event()

    def again_and_again() -> None:
        while not over.wait(OFTEN_S):
            work()
        connection.close()

    thread = threading.Thread(target=again_and_again)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()
