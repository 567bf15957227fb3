"""A stack of planetary steps with their rings held."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import fields, stage
from ydrometer.document.stages.box import Box
from ydrometer.document.stages.plane import Coaxial
from ydrometer.document.stages.strain import NEAR, TORQUE, Floats, Passing, Strain


@dataclass(frozen=True, slots=True, kw_only=True)
class Planetary(Box):
    """`reductions` from the motor end on; each step is one stage of loss, and keeps the turning sense."""

    kind: ClassVar[str] = "planetary"
    title: ClassVar[str] = "Planetary stack"
    short: ClassVar[str] = "Planetary"
    noun: ClassVar[str] = "planetary stack"
    in_plane: ClassVar[Coaxial] = Coaxial()
    whole_part: ClassVar[str] = "gearbox"
    start: ClassVar[dict[str, object]] = {"reductions": [4, 3]}

    reductions: tuple[float, ...] = labelled(
        "Reductions, from the motor on",
        reading.items(reading.quantity_reader("ratio", above=0.0, at_most=1000.0), least=1, most=12, required=True),
    )
    torque_ratings: tuple[float | None, ...] = reading.items(
        reading.or_null(reading.quantity_reader("torque", above=0.0)), most=12
    )
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

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The torque at the output of each step; the stack's loss is spread evenly over its steps."""
        for k, torque in enumerate(self._after_steps(passing)):
            rating = self._rating(k)
            needs = () if rating else (f"torque_ratings[{k}]",)
            yield Strain("box_torque", TORQUE, torque, rating, f"steps[{k}]", needs=needs)
        if len(self.reductions) > 1:
            yield self._order(passing)

    def _rating(self, k: int) -> float | None:
        return self.torque_ratings[k] if self.torque_ratings else None

    def _after_steps(self, passing: Passing) -> list[Floats]:
        """Torque with the application factor at the output of each step, N·m, each (m,)."""
        steps, share = len(self.reductions), stage.stage_efficiency(self) ** (1.0 / len(self.reductions))
        # In the part that speeds rotors up nothing is lost: what is passed at the end says how much that is.
        kept = passing.torque_in * self.ratio - passing.torque_out
        lost = kept / (self.ratio * (1.0 - share**steps)) if share < 1.0 else np.zeros_like(kept)
        found = []
        for k in range(1, steps + 1):
            ratio = math.prod(self.reductions[:k])
            found.append(passing.factor * ratio * (passing.torque_in - (1.0 - share**k) * lost))
        return found

    def _order(self, passing: Passing) -> Strain:
        """Whether a step with a lower rating comes behind one with a higher one where it carries more."""
        torques = [float(np.max(torque)) for torque in self._after_steps(passing)]
        ratings = [self._rating(k) for k in range(len(torques))]
        needs = tuple(f"torque_ratings[{k}]" for k, rating in enumerate(ratings) if rating is None)
        if needs:
            return Strain("order_of_steps", "", None, None, needs=needs)
        wrong = any(
            rating < earlier and torque > torques[j] and torque > NEAR * rating
            for k, (rating, torque) in enumerate(zip(ratings, torques, strict=True)) if rating is not None
            for j, earlier in enumerate(ratings[:k]) if earlier is not None
        )  # fmt: skip
        order = sorted(range(len(ratings)), key=lambda k: ratings[k] or 0.0)
        words = ", ".join(f"{self.reductions[k]:g}" for k in order)
        remark = (f"from the motor on {words} would carry it: the strongest step belongs at the output",)
        return Strain("order_of_steps", "", None, None, remarks=remark if wrong else (), settled=not wrong)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A rating a step."""
        if self.torque_ratings and len(self.torque_ratings) != len(self.reductions):
            given = f"{len(self.torque_ratings)} ratings given for {len(self.reductions)} steps"
            yield "torque_ratings", given, "give one a step, null where it is not known"
