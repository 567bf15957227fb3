"""Stages that are bought closed: known by their ratio, and rated by their maker at output and input."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from ydrometer.base.reckoning import Reckoning
from ydrometer.document.stages import bring
from ydrometer.document.stages.stage import Stage
from ydrometer.document.stages.strain import TORQUE, Passing, SpeedLimit, Strain


class Box(Stage):
    """A closed box: its maker says what its output passes, N·m, and how fast its input may turn, rad/s."""

    __slots__ = ()
    brings: ClassVar[tuple[bring.Bring, ...]] = bring.BOXES
    torque_rating: float | None
    max_speed: float | None

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The torque at its output."""
        r = passing.output()
        r.step("T_K", "torque with the application factor", "K_A*T_o", "torque")
        if self.torque_rating:
            r.put("T_ok", "torque that it is rated for", self.torque_rating, "torque", "torque_rating")
        needs = () if self.torque_rating else ("torque_rating",)
        yield Strain("box_torque", TORQUE, r, "T_K", "T_ok", needs=needs)

    def speed_limits(self) -> Iterator[SpeedLimit]:
        """Of its input."""
        r = Reckoning()
        if self.max_speed:
            r.put("w_ok", "how fast it may be turned", self.max_speed, "angular speed", "max_speed")
        yield SpeedLimit("box_speed", "driver", r, needs=() if self.max_speed else ("max_speed",))
