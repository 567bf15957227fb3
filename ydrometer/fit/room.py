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

    Shares of the length are changes of it (DIN 2218, Endless V-belts: Calculation of drives); by how much the shafts
    move for them follows from the geometry of the loop. Pitches, and what a chain wears, are changes of the distance.

    Args:
        coupling: of the loop.
        loop: what runs around.
        length: of it, m.
    """
    taut = _taut(coupling, length)
    on = loop.put_on_pieces * coupling.driver.size + taut - _taut(coupling, length * (1.0 - loop.put_on_share))
    tighten = _taut(coupling, length * (1.0 + loop.tighten_share)) - taut + loop.wear_share * taut
    return on, tighten


def _taut(coupling: Coupling, length: float) -> float:
    """Distance at which a length is taut, m; where the wheels would touch, that at which they do."""
    return coupling.around.centre_distance(length, *coupling.radii) or coupling.free
