"""What a process does before its first request: load the units library, compile the kernels or load them compiled."""

from ydrometer.document.template import new_vehicle
from ydrometer.screens.live import look


def warm() -> None:
    """Look at one design, so that the first request does not pay for what is loaded on the way."""
    look(new_vehicle("warm"))


if __name__ == "__main__":
    warm()
