"""What a process does before its first request."""

from ydrometer import design
from ydrometer.live import look
from ydrometer.template import new_vehicle


def warm() -> None:
    """Load the units library and run the core once."""
    design.warm()
    look(new_vehicle("warm"))
