"""The usual cautions, where a figure of the design calls for them. They never say that a design is safe."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.document.design import Design
from ydrometer.document.supply import Battery

RIDER = 25.0
"""Payload from which on it is taken for a person, kg."""
BRISK = 6.0
"""Speed from which on it is about stopping, m/s; about 22 km/h."""
USUAL_STOP = 12.0
"""Distance within which a small vehicle should stand where no target says otherwise, m."""
LITHIUM_CELL = (3.0, 4.4)
"""Voltages of a lithium cell, empty to full, V."""


@dataclass(frozen=True, slots=True)
class Caution:
    """What to mind, and the value it is about."""

    path: str
    text: str


def cautions(design: Design, top_speed: float | None, stopping_distance: float | None) -> Iterator[Caution]:
    """What a design calls for, the weightiest first.

    Args:
        design: the design.
        top_speed, stopping_distance: its measures, m/s and m, None where it has none.
    """
    yield from _stopping(design, top_speed, stopping_distance)
    if design.vehicle.payload >= RIDER:
        yield Caution(
            "vehicle.payload",
            "Somebody rides on it: helmet, proper ground, an off switch within reach of rider and bystander. "
            "Event rules and local law come first.",
        )
    supply = design.drive.supply
    if isinstance(supply, Battery) and supply.current_limit is None:
        yield Caution("drive.supply.current_limit", "Put a fuse or breaker close to the battery.")
    if isinstance(supply, Battery) and supply.cells and LITHIUM_CELL[0] <= supply.cells.cell_voltage <= LITHIUM_CELL[1]:
        yield Caution("drive.supply.cells", "Charge lithium packs watched and in a fire-safe place.")


def _stopping(design: Design, top: float | None, distance: float | None) -> Iterator[Caution]:
    if top is None or distance is None:
        return
    stated = [t.upper for t in design.targets if t.measure == "stopping_distance" and t.upper is not None]
    allowed = min(stated) if stated else USUAL_STOP
    if distance > allowed and (stated or top >= BRISK):
        yield Caution(
            "vehicle.brake_force",
            f"From its top speed it takes {distance:.1f} m to stop, {allowed:g} m "
            f"{'are allowed' if stated else 'is a usual bound'}: match the brakes before the speed is raised, "
            "more so on hills.",
        )
