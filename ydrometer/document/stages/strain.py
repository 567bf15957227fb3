"""What a stage passes at many moments, and what its parts stand of that, as a kind tells it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from ydrometer.base.reckoning import Floats, Number, Reckoning
from ydrometer.base.tables.strengths import USUAL_SERVICE

NEAR = 0.8
"""Use from which on a part is near what it stands."""
WHOLE = ("fit.", "loads.", "vehicle.", "drive.")
"""How keys begin that are of the whole document."""
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
        speed_in, speed_out: (m,). factor: the application factor. service: what it is for, in words; empty where it was
        assumed. wet: whether its pulleys are. loop.
    """

    torque_in: Floats
    torque_out: Floats
    speed_in: Floats
    speed_out: Floats
    factor: float
    service: str
    wet: bool
    loop: LoopSaid

    def driver(self) -> Reckoning:
        """A reckoning that knows what comes to the driver: T_d and w_d."""
        r = Reckoning()
        r.put("T_d", "torque on the driver", self.torque_in, "torque", origin="solved")
        r.put("w_d", "speed of the driver", self.speed_in, "angular speed", origin="solved")
        return r

    def output(self) -> Reckoning:
        """A reckoning that knows what leaves the driven side, T_o, and how much more comes in jerks, K_A."""
        r = Reckoning()
        self.applied(r)
        r.put("T_o", "torque at the output", self.torque_out, "torque", origin="solved")
        return r

    def applied(self, r: Reckoning) -> None:
        """Put in how much more than reckoned comes in jerks: K_A."""
        note = f"{self.service} service" if self.service else f"{USUAL_SERVICE} service"
        r.put(
            "K_A",
            "application factor",
            self.factor,
            "ratio",
            "loads.service",
            origin="given" if self.service else "assumed",
            note=note,
        )

    def flung(self, r: Reckoning) -> None:
        """What a loop's own mass takes of its tension as it runs, of one whose driver's radius is known: c = ρ·v²
        (Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Flexible mechanical elements, centrifugal
        tension).
        """
        key = f"{self.loop.path}.mass_per_length"
        r.put("m_l", "mass per length", self.loop.mass_per_length, "linear density", key, origin="default")
        r.step("c", "what its own mass takes of its tension", "m_l*(w_d*r_d)**2", "force")


@dataclass(frozen=True, slots=True)
class SpeedLimit:
    """How fast a part of a stage may turn.

    Attributes:
        check: its name. end: driver or driven, whose shaft it turns with. of: how the limit comes about, at its symbol
        w_ok; where that is not there nobody knows it. member: the wheel; empty where it is the whole stage. assumed,
        needs: as of a `Strain`.
    """

    check: str
    end: str
    of: Reckoning
    member: str = ""
    assumed: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Strain:
    """A demand on one part, and what that stands.

    Attributes:
        check: its name. unit: of both. of: how demand and capacity come about. wants, stands: their symbols there; one
        that is not there cannot be known. member: the wheel or step; empty where it is the whole stage.
        assumed: what stands for the maker's figures, in words. needs: keys below the stage that would settle it; one
        that begins as in WHOLE is of the whole document. remarks. told: symbols of other numbers by their name.
        settled: of one without numbers whether it is all right.
    """

    check: str
    unit: str
    of: Reckoning
    wants: str = ""
    stands: str = ""
    member: str = ""
    assumed: tuple[str, ...] = ()
    needs: tuple[str, ...] = ()
    remarks: tuple[str, ...] = ()
    shown: Mapping[str, str] = field(default_factory=dict)
    settled: bool | None = None

    @property
    def demand(self) -> Floats | None:
        """(m,), or one number that holds at all moments, (1,); None where it cannot be known."""
        size = self.of.known.get(self.wants)
        return None if size is None else np.atleast_1d(size)

    @property
    def capacity(self) -> Number | None:
        """One number, or (m,); None where it cannot be known."""
        return self.of.known.get(self.stands)
