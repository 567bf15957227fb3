"""What a stage passes at many moments, and what its parts stand of that, as a kind tells it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
NEAR = 0.8
"""Use from which on a part is near what it stands."""
FORCE, TORQUE, STRESS = "N", "N·m", "Pa"


@dataclass(frozen=True, slots=True)
class LoopSaid:
    """What is known of a stage's loop.

    Attributes:
        path: where the document speaks of it, or would. tension: of a run at rest, N. mass_per_length: kg/m, 0 where it
        is not known. wraps: on driver and driven, rad; None where they cannot be known. lean: of a free run against the
        line of centres, rad. assumed: what had to be, in words; empty where nothing had.
    """

    path: str
    tension: float | None = None
    mass_per_length: float = 0.0
    wraps: tuple[float, float] | None = None
    lean: float = 0.0
    assumed: str = ""


@dataclass(frozen=True, slots=True)
class Passing:
    """What goes through a stage at m moments, without signs, SI.

    Attributes:
        torque_in, torque_out: of one source in the stages of a branch, of a whole unit in the trunk, (m,).
        speed_in, speed_out: (m,). factor: the application factor. wet: whether its pulleys are. loop.
    """

    torque_in: Floats
    torque_out: Floats
    speed_in: Floats
    speed_out: Floats
    factor: float
    wet: bool
    loop: LoopSaid

    def tangential(self, driver_radius: float) -> Floats:
        """Force at the rim of the driver, N, (m,): Ft = T/r."""
        return self.torque_in / driver_radius

    def flung(self, driver_radius: float) -> Floats:
        """What a loop's own mass takes of its tension as it runs, N, (m,): c = ρ·v² (Budynas and Nisbett, Shigley's
        Mechanical Engineering Design, chapter Flexible mechanical elements, centrifugal tension).
        """
        return self.loop.mass_per_length * np.square(self.speed_in * driver_radius)


@dataclass(frozen=True, slots=True)
class Strain:
    """A demand on one part, and what that stands.

    Attributes:
        check: its name. unit: of both. demand: (m,); None where it cannot be known. capacity: one number, or (m,); None
        likewise. member: the wheel or step; empty where it is the whole stage.
        assumed: what stands for the maker's figures, in words. needs: keys below the stage that would settle it; one
        that begins with "fit." is of the whole document. remarks. told: other numbers of it by name, each (m,).
        settled: of one without numbers whether it is all right.
    """

    check: str
    unit: str
    demand: Floats | None
    capacity: Floats | float | None
    member: str = ""
    assumed: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    remarks: tuple[str, ...] = ()
    told: Mapping[str, Floats] = field(default_factory=dict)
    settled: bool | None = None
