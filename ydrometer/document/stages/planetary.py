"""A stack of planetary steps with their rings held."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import bring, fields, planetary_build, planetary_inside, stage, started
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.inside import Inside
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.strain import NEAR, TORQUE, Passing, Strain

MOST_OF_A_STEP = 1000.0
STEP_RATING = reading.or_null(reading.quantity_reader("torque", above=0.0))
"""Reads what a step's output is rated for; null where that is not known."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Planetary(Box):
    """`reductions` from the motor end on; each step is one stage of loss, and keeps the turning sense."""

    kind: ClassVar[str] = "planetary"
    title: ClassVar[str] = "Planetary stack"
    short: ClassVar[str] = "Planetary"
    noun: ClassVar[str] = "planetary stack"
    in_plane: ClassVar[Coaxial] = Coaxial()
    ratio_key: ClassVar[str] = "reductions"
    ratio_head: ClassVar[str] = "planetary steps"
    whole_part: ClassVar[str] = "gearbox"
    motor_last: ClassVar[bool] = True
    brings: ClassVar[tuple[bring.Bring, ...]] = bring.STACKS
    start: ClassVar[dict[str, object]] = {"reductions": [4, 3]}

    reductions: tuple[float, ...] = labelled(
        "Reductions, from the motor on",
        reading.items(
            reading.quantity_reader("ratio", above=0.0, at_most=MOST_OF_A_STEP), least=1, most=12, required=True
        ),
    )
    torque_ratings: tuple[float | None, ...] = reading.items(STEP_RATING, most=12)
    max_speed: float | None = fields.max_speed()
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """The product of the steps."""
        return math.prod(self.reductions)

    @property
    def default_efficiency(self) -> float:
        """Every step loses its share."""
        return float(efficiencies.PLANETARY_STEP ** len(self.reductions))

    @classmethod
    def typed_ratio(cls, ratio: float) -> Any:
        """One step of that reduction."""
        return [started.short_ratio(min(ratio, MOST_OF_A_STEP))]

    def inside(self, height: float) -> Inside:
        """Sun, planets and ring of each step."""
        return planetary_inside.inside(self.reductions, height)

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """In order, greased, closed, mounted."""
        return planetary_build.jobs(hands, self.reductions)

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The torque at the output of each step; the stack's loss is spread evenly over its steps."""
        for k in range(len(self.reductions)):
            rating, r = self._rating(k), self._after(passing, k)
            if rating:
                r.put("T_ok", "torque that the step is rated for", rating, "torque", f"torque_ratings[{k}]")
            needs = () if rating else (f"torque_ratings[{k}]",)
            yield Strain("box_torque", TORQUE, r, "T_K", "T_ok", f"steps[{k}]", needs=needs)
        if len(self.reductions) > 1:
            yield self._order(passing)

    def _rating(self, k: int) -> float | None:
        return self.torque_ratings[k] if self.torque_ratings else None

    def _after(self, passing: Passing, k: int) -> Reckoning:
        """Torque with the application factor at the output of a step."""
        r, steps = passing.driver(), len(self.reductions)
        passing.applied(r)
        r.put("T_o", "torque at the output of the stack", passing.torque_out, "torque", origin="solved")
        r.put("i_p", "ratio of the stack", self.ratio, "ratio", "reductions")
        r.put("i_k", f"ratio up to step {k + 1}", math.prod(self.reductions[: k + 1]), "ratio", "reductions")
        share = stage.stage_efficiency(self)
        r.put("eta_p", "efficiency of the stack", share, "ratio", "efficiency", origin="assumed")
        # In the part that speeds rotors up nothing is lost: what is passed at the end says how much that is.
        r.step(
            "T_f", "what of the torque meets losses", "(T_d - T_o/i_p)/(1 - eta_p)" if share < 1.0 else "0", "torque"
        )
        left = f"(1 - eta_p**({k + 1}/{steps}))"
        r.step("T_k", f"torque at the output of step {k + 1}", f"i_k*(T_d - {left}*T_f)", "torque")
        r.step("T_K", "torque with the application factor", "K_A*T_k", "torque")
        return r

    def _order(self, passing: Passing) -> Strain:
        """Whether a step with a lower rating comes behind one with a higher one where it carries more."""
        steps = range(len(self.reductions))
        torques = [float(np.max(self._after(passing, k).known["T_K"])) for k in steps]
        ratings = [self._rating(k) for k in steps]
        needs = tuple(f"torque_ratings[{k}]" for k, rating in enumerate(ratings) if rating is None)
        if needs:
            return Strain("order_of_steps", "", Reckoning(), needs=needs)
        wrong = any(
            rating < earlier and torque > torques[j] and torque > NEAR * rating
            for k, (rating, torque) in enumerate(zip(ratings, torques, strict=True))
            if rating is not None
            for j, earlier in enumerate(ratings[:k])
            if earlier is not None
        )
        order = sorted(range(len(ratings)), key=lambda k: ratings[k] or 0.0)
        words = ", ".join(f"{self.reductions[k]:g}" for k in order)
        remark = (f"from the motor on {words} would carry it: the strongest step belongs at the output",)
        return Strain("order_of_steps", "", Reckoning(), remarks=remark if wrong else (), settled=not wrong)

    def rearranged(self, check: str) -> Iterator[tuple[str, dict[str, Any]]]:
        """The steps in the order of their ratings, the strongest at the output."""
        if check == "order_of_steps":
            order = sorted(range(len(self.reductions)), key=lambda k: self._rating(k) or 0.0)
            yield (
                "steps swapped",
                {
                    "reductions": [self.reductions[k] for k in order],
                    "torque_ratings": [self._rating(k) for k in order],
                },
            )

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A rating a step."""
        if self.torque_ratings and len(self.torque_ratings) != len(self.reductions):
            given = f"{len(self.torque_ratings)} ratings given for {len(self.reductions)} steps"
            yield "torque_ratings", given, "give one a step, null where it is not known"
