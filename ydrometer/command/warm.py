"""What a process does before its first request: load the units library, compile the kernels or load them compiled."""

from typing import Any

from ydrometer.document import design
from ydrometer.document.template import new_vehicle
from ydrometer.screens.live import look
from ydrometer.screens.loads import loads_shown
from ydrometer.search import read_request
from ydrometer.search.run import search


def warm() -> None:
    """Look at designs, so that the first request does not pay for what is loaded on the way."""
    look(new_vehicle("warm"))
    loads_shown(design.read(_turning()))
    search(read_request(_two_gears()))


def _turning() -> dict[str, Any]:
    """A vehicle of two units with a fuse: all that loads are asked about it can tell."""
    vehicle = new_vehicle("warm")
    vehicle["vehicle"] |= {"track": "300 mm", "wheelbase": "300 mm"}
    vehicle["drive"]["units"] = 2
    vehicle["drive"]["supply"]["fuse"] = {"rating": "40 A"}
    return vehicle


def _two_gears() -> dict[str, Any]:
    """The smallest search: one pair."""
    gears = [{"id": str(teeth), "kind": "gear", "teeth": teeth, "module": "1 mm"} for teeth in (12, 24)]
    layouts = [{"stages": [{"kind": "gear"}]}]
    return {
        "format": "ydrometer-search",
        "version": 1,
        "design": new_vehicle("warm"),
        "parts": gears,
        "layouts": layouts,
    }


if __name__ == "__main__":
    warm()
