"""A check of teeth by their numbers: what runs into each other in a ring."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.fit.clash import Clash
from ydrometer.fit.setup import Setup, middle
from ydrometer.geometry.gears import tips_foul


def tips(setup: Setup) -> Iterator[Clash]:
    """The tips of a gear and of the ring around it pass each other."""
    for coupling in setup.plane.couplings:
        inner, ring, angle = coupling.driver.teeth, coupling.driven.teeth, coupling.pressure_angle
        if coupling.inside and tips_foul(inner, ring, angle):
            most = next((teeth for teeth in range(inner, 0, -1) if not tips_foul(teeth, ring, angle)), 0)
            names = f"the {coupling.driver.words} run into those of the {ring}-tooth ring"
            text = f"the tips of {names}: at most {most} teeth go in it"
            yield Clash("clash", text, coupling.path, 0.0, middle(setup, coupling))
