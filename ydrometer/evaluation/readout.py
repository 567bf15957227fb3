"""Which values of a design are shown: its targets first, then the usual measures that none of them names."""

from __future__ import annotations

from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.design import Design
from ydrometer.document.target import Target
from ydrometer.evaluation.targets import unbound

READOUT = (
    "top_speed",
    "time_to_distance",
    "pushing_force",
    "peak_bus_current",
    "max_grade",
    "launch_acceleration",
    "no_load_speed",
)
"""What the readout shows beside the targets, in this order, while there is room."""
READOUT_LENGTH = 6


def shown_targets(design: Design) -> list[tuple[int | None, Target]]:
    """The design's targets by their number, then usual measures that none of them names, without one."""
    shown: list[tuple[int | None, Target]] = list(enumerate(design.targets))
    named = {target.measure for target in design.targets}
    for name in READOUT:
        key = MEASURES[name].run
        known = (not key or getattr(design.run, key) is not None) and (design.drive.supply or "current" not in name)
        if len(shown) < READOUT_LENGTH and name not in named and known:
            shown.append((None, unbound(name)))
    return shown
