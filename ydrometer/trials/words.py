"""What calibrations tell in sentences."""

from __future__ import annotations

import math

from ydrometer.trials.calibrate import SILENT, Calibration
from ydrometer.trials.unknowns import Unknown

APART = {
    "losses": "a coast with the drive attached",
    "rolling_resistance": "a tow or a coast",
    "drag_area": "a fast coast",
    "grip": "a push on the same ground",
    "motor_constant": "a spin of the motor with its voltage measured",
    "winding_resistance": "a current in a shove",
    "no_load_current": "a current in the air",
    "engine_torque": "a push",
    "supply_resistance": "a voltage under load",
    "wheel_diameter": "a rolled distance",
    "brakes": "a stop",
}
"""What tells an unknown from others."""


def unknown_words(unknown: Unknown) -> str:
    """What an unknown is called: "rolling resistance on the hall floor"."""
    name = unknown.kind.name.replace("_", " ")
    return f"{name} on {unknown.ground}" if unknown.ground else name


def correlation_words(first: Unknown, second: Unknown) -> str:
    """That two unknowns cannot be told apart, and what would."""
    apart = " or ".join(dict.fromkeys((APART[first.kind.name], APART[second.kind.name])))
    return f"{unknown_words(first)} and {unknown_words(second)} cannot be told apart by these runs; {apart} would"


def told_words(share: float) -> str:
    """How much of the doubt in an unknown is gone.

    Args:
        share: the share.
    """
    return "these runs say nothing of it" if share < SILENT else f"{100.0 * share:.0f} % of the doubt is gone"


def why_left_out(calibration: Calibration, k: int) -> str:
    """Why a run takes no part."""
    if math.isfinite(calibration.before[k]) and calibration.runs[k].counted:
        return "what was measured is not above the ambient temperature"
    return calibration.why(k)
