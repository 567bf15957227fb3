"""Work for the process beside. It stands alone: Django is not loaded there."""

import time


def slow(seconds: float) -> float:
    time.sleep(seconds)
    return seconds


def wrong() -> None:
    raise ValueError("as expected")
