"""What holds a hub on its shaft: set screws and clamping screws by their thread."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Screw:
    """What a set screw of a size holds on a round shaft, and how hard a clamping screw of it draws, N; ± 25 %."""

    holds: float
    preload: float


SCREWS = {
    "M3": Screw(400.0, 1300.0),
    "M4": Screw(750.0, 2300.0),
    "M5": Screw(1200.0, 3700.0),
    "M6": Screw(1900.0, 5200.0),
    "M8": Screw(3300.0, 9500.0),
}
"""Half the axial holding power of cup-point set screws (Budynas and Nisbett, Shigley's Mechanical Engineering Design,
chapter Shafts and shaft components, typical holding power of setscrews); preload at the usual torque of class 8.8."""
SIZES = ("M2", "M2.5", "M3", "M4", "M5", "M6", "M8", "M10")
ON_A_FLAT = 2.0
"""How many times as much a set screw holds on a flat."""
CLAMP_FRICTION = 0.12
