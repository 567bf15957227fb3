"""Room that a loop needs: its shafts nearer to put it on, and farther to tighten it."""

from __future__ import annotations

from ydrometer.document.stages.plane import Loop
from ydrometer.fit.coupling import Coupling


def way_around(coupling: Coupling, distance: float) -> float:
    """Length of the way around the two wheels of a loop that stand apart, m.

    Args:
        coupling: of the loop.
        distance: of its shafts, m, more than `coupling.free`.
    """
    return coupling.around.length(*coupling.radii, distance)


def nearest_length(coupling: Coupling, distance: float) -> float:
    """Of the lengths that a loop may have the one that is nearest to the way around; that where none is known, m."""
    way = way_around(coupling, distance)
    return min((length for length, _ in coupling.lengths), key=lambda length: abs(length - way), default=way)


def room_wanted(coupling: Coupling, loop: Loop, length: float) -> tuple[float, float]:
    """By how much the distance of a loop has to be made shorter to put it on, and longer to tighten it, m.

    A V-belt's shares of its length are changes of the distance (DIN 2218, Endless V-belts: Calculation of drives; ISO
    155, Belt drives: Pulleys: Limiting values for adjustment of centres), as are pitches, and what a chain wears. The
    share of a toothed belt is a change of its length; by how much the shafts move for it follows from its geometry.

    Args:
        coupling: of the loop.
        loop: what runs around.
        length: of it, m.
    """
    taut = _taut(coupling, length)
    on = loop.put_on_pieces * coupling.driver.size + loop.put_on_share * length
    stretched = _taut(coupling, length * (1.0 + loop.tighten_share)) - taut
    return on, stretched + loop.take_up_share * length + loop.wear_share * taut


def _taut(coupling: Coupling, length: float) -> float:
    """Distance at which a length is taut, m; where the wheels would touch, that at which they do."""
    return coupling.around.centre_distance(length, *coupling.radii) or coupling.free
