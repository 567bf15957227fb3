"""Checks of teeth: whether enough of them carry at once, and what runs into each other in a ring."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from ydrometer.document.stages.plane import Mesh
from ydrometer.fit.along import NOISE, Reach
from ydrometer.fit.clash import Clash
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup, middle
from ydrometer.geometry.gears import contact_ratio, distance_of_contact, least_ring, tips_foul

LEAST_CONTACT = 1.1
"""Pairs of teeth that have to carry on average, or the next pair comes too late."""


def tips(setup: Setup) -> Iterator[Clash]:
    """The tips of a gear and of the ring around it pass each other."""
    for coupling in setup.plane.couplings:
        inner, ring, angle = coupling.driver.teeth, coupling.driven.teeth, coupling.pressure_angle
        if coupling.inside and tips_foul(inner, ring, angle):
            most = next((teeth for teeth in range(inner, 0, -1) if not tips_foul(teeth, ring, angle)), 0)
            names = f"the {coupling.driver.words} run into those of the {ring}-tooth ring"
            text = f"the tips of {names}: at most {most} teeth go in it"
            yield Clash("clash", text, coupling.path, 0.0, middle(setup, coupling))


def carried(setup: Setup, coupling: Coupling) -> float:
    """The contact ratio of a pair of gears as it stands."""
    teeth = coupling.driver.teeth, coupling.driven.teeth
    distance = setup.distance(coupling)
    return contact_ratio(coupling.driver.size, *teeth, coupling.pressure_angle, distance, internal=coupling.inside)


def suiting(coupling: Coupling) -> tuple[Reach, ...]:
    """The distances that suit a coupling; of gears those in which enough teeth carry, none where that is nowhere."""
    if not isinstance(coupling.stage.in_plane, Mesh):
        return coupling.reaches
    teeth = coupling.driver.teeth, coupling.driven.teeth
    carried = (
        carrying(reach, coupling.driver.size, teeth, coupling.pressure_angle, ring=coupling.inside)
        for reach in coupling.reaches
    )
    return tuple(reach for reach in carried if reach is not None)


def carrying(reach: Reach, size: float, teeth: tuple[int, int], angle: float, *, ring: bool) -> Reach | None:
    """The part of a range of distances in which enough teeth of two gears carry at once; None where there is none.

    Args:
        reach: that suits them otherwise.
        size, teeth, angle, ring: as for `coupling.gear_reach`.
    """
    edge = float(distance_of_contact(size, *teeth, angle, LEAST_CONTACT, internal=ring))
    if ring:
        return replace(reach, low=max(reach.low, edge), best=max(reach.best, edge)) if edge <= reach.high else None
    return replace(reach, high=min(reach.high, edge), best=min(reach.best, edge)) if edge >= reach.low else None


def contact(setup: Setup) -> Iterator[Clash]:
    """Enough teeth carry at once, of gears that are not too far apart altogether."""
    for coupling in setup.plane.couplings:
        if not isinstance(coupling.stage.in_plane, Mesh) or coupling.off(setup.distance(coupling)) > NOISE:
            continue
        ratio = carried(setup, coupling)
        if ratio < LEAST_CONTACT:
            nearer = "farther apart" if coupling.inside else "nearer"
            pair = f"{coupling.driver.words} and {coupling.driven.words}"
            text = f"{pair} have a contact ratio of {ratio:.2f}, at least {LEAST_CONTACT}: bring them {nearer}"
            yield Clash("clash", text, coupling.path, 0.0, middle(setup, coupling))


def small_rings(setup: Setup) -> Iterator[Clash]:
    """The tips of a ring have involutes."""
    for coupling in setup.plane.couplings:
        least = least_ring(coupling.pressure_angle) if coupling.inside else 0
        if coupling.driven.teeth < least:
            text = f"the {coupling.driven.teeth}-tooth ring has no involute at its tips: none has under {least} teeth"
            yield Clash("mind", text, coupling.path, 0.0, middle(setup, coupling))
