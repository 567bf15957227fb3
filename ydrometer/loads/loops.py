"""How belts and chains lie around their wheels, as far as the document says or has to be assumed."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting
from ydrometer.document.stages.strain import LoopSaid
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup, running

SMALL_SHARE = 3.0
"""Where no distance is known: of so many diameters of the small wheel and one of the large one half the sum, or the
large diameter where that is more (makers' manuals of belt drives)."""


def loop_said(design: Design, setups: Sequence[Setup], path: str) -> LoopSaid:
    """What is known of the loop of a stage.

    Args:
        design: as read.
        setups: of it, one a plate.
        path: of the stage.
    """
    loops = (design.fit or Mounting()).loops
    place = next((i for i, loop in enumerate(loops) if loop.stage == path), len(loops))
    said = loops[place] if place < len(loops) else None
    said_loop = next(
        ((setup, c) for setup in setups for c in setup.plane.couplings if c.path == path and c.loop is not None), None
    )
    where = f"fit.loops[{place}]"
    tension = said.tension if said else None
    mass = said.mass_per_length or 0.0 if said else 0.0
    if said_loop is None:
        return LoopSaid(where, tension, mass)
    wraps, lean, assumed = _around(*said_loop)
    return LoopSaid(where, tension, mass, wraps, lean, assumed)


def _around(setup: Setup, coupling: Coupling) -> tuple[tuple[float, float], float, str]:
    """Wraps, lean, and what had to be assumed: as it stands, else by its length, else by the usual distance."""
    pitch = coupling.driver.pitch_radius, coupling.driven.pitch_radius
    if said(setup, coupling):
        try:
            distance = setup.distance(coupling)
            return running(setup, coupling).wraps, coupling.around.lean(*pitch, distance), ""
        except ValueError:  # its wheels overlap there, which Fit tells
            pass
    known = [coupling.around.centre_distance(length, *coupling.radii) for length, _ in coupling.lengths[:1]]
    if known and known[0] is not None:
        return coupling.around.wraps(*coupling.radii, known[0]), coupling.around.lean(*pitch, known[0]), ""
    small, large = sorted(2.0 * radius for radius in pitch)
    distance = max(large, 0.5 * (SMALL_SHARE * small + large))
    words = f"shafts {1e3 * distance:.0f} mm apart"
    return coupling.around.wraps(*coupling.radii, distance), coupling.around.lean(*pitch, distance), words


def said(setup: Setup, coupling: Coupling) -> bool:
    """Whether both shafts of a coupling have a place, or a slot, that is said."""
    return all(setup.stands[path].by == "said" or setup.stands[path].setting is not None for path in coupling.shafts)
