"""All that the checks look at of one design: its moments, what its line passes, its day, how warm it gets."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ydrometer.base.tables.strengths import APPLICATION, USUAL_SERVICE
from ydrometer.document.design import Design
from ydrometer.document.loads import Loads
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages.strain import Passing
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.fit.setup import Setup, set_ups
from ydrometer.loads import day, heat
from ydrometer.loads.day import Heats
from ydrometer.loads.loops import loop_said
from ydrometer.loads.moments import Moments, moments
from ydrometer.loads.passing import Line, Through, line, speeds_in

USUAL_LIMIT = 403.15
"""K that a winding stands where its maker says nothing: insulation class B, 130 °C (IEC 60085, Electrical insulation:
Thermal evaluation and designation)."""
MARGIN = 10.0
"""K by which windings and mounts stay under their limits."""


@dataclass(frozen=True, slots=True)
class Warmth:
    """How warm one motor of a branch gets: one heat, all of the day, the hottest in moving air, K, how long it can be
    held at the shove's current, s, and the rest that each heat needs behind it, s; see `heat.until` and
    `heat.rest_needed`.
    """

    branch: int
    one: heat.Day
    day: heat.Heat
    winding_in_moving_air: float
    case_in_moving_air: float
    shove_until_limit: float | None
    rest_needed: float | None


class Asked:
    """One design, worked out as far as it is asked for."""

    def __init__(self, evaluation: Evaluation, index: int = 0) -> None:
        self.evaluation, self.index = evaluation, index
        self.design: Design = evaluation.documents[index].design
        self.said = self.design.loads or Loads()

    @cached_property
    def moments(self) -> Moments:
        """The moments."""
        return moments(self.evaluation, self.index)

    @cached_property
    def line(self) -> Line:
        """What goes through stages and shafts."""
        return line(self.design, self.moments.states)

    @cached_property
    def setups(self) -> Sequence[Setup]:
        """Where its shafts stand, one a plate."""
        return set_ups(self.design)

    @cached_property
    def airborne(self) -> dict[str, float]:
        """Input speed of each stage with the wheels in the air, rad/s."""
        return speeds_in(self.design, self.moments.airborne)

    @cached_property
    def heats(self) -> Heats:
        """The day, as far as the design can do it."""
        return day.heats(self.evaluation, self.index, self.moments)

    @cached_property
    def warmth(self) -> dict[int, Warmth]:
        """Of each branch of motors of which enough is known."""
        found = {b: self._warmth(b) for b in range(len(self.design.drive.branches))}
        return {b: warmth for b, warmth in found.items() if warmth is not None}

    @property
    def motors(self) -> list[tuple[int, Motor]]:
        """Branches of motors."""
        branches = enumerate(self.design.drive.branches)
        return [(b, branch.source) for b, branch in branches if isinstance(branch.source, Motor)]

    @property
    def service(self) -> list[str]:
        """What is assumed of how the load comes."""
        return [] if self.said.service else [f"{USUAL_SERVICE} service"]

    def factor(self, branch: int | None) -> float:
        """The application factor of a branch, or of the trunk: the largest of all branches."""
        factors = [
            APPLICATION["engine" if isinstance(b.source, Engine) else "motor"][self.said.service or USUAL_SERVICE]
            for b in self.design.drive.branches
        ]
        return max(factors) if branch is None else factors[branch]

    def limit(self, motor: Motor) -> float:
        """What its winding stands, K."""
        return motor.winding_limit or USUAL_LIMIT

    def passing(self, through: Through) -> Passing:
        """What goes through a stage, without signs."""
        return Passing(
            np.abs(through.torque_in), np.abs(through.torque_out), np.abs(through.speed_in), np.abs(through.speed_out),
            self.factor(through.branch), self.said.service or "", self.said.wet,
            loop_said(self.design, self.setups, through.path),
        )  # fmt: skip

    @cached_property
    def blocks(self) -> dict[int, list[heat.Block]]:
        """What heats one motor of each branch in one heat."""
        return {b: self._blocks(b) for b, _ in self.motors}

    def _blocks(self, b: int) -> list[heat.Block]:
        different = {id(stretch): stretch for stretch in self.heats.stretches}
        known = {name: day.block(stretch, b) for name, stretch in different.items()}
        return [known[id(stretch)] for stretch in self.heats.stretches]

    def _warmth(self, b: int) -> Warmth | None:
        source = self.design.drive.branches[b].source
        if not isinstance(source, Motor):
            return None
        ambient = self.design.conditions.ambient
        still, moving = (heat.network(source, ambient, moving_air=moved) for moved in (False, True))
        if still is None or moving is None:
            return None
        blocks = self.blocks[b]
        count, limit = self.heats.count, self.limit(source)
        one = heat.Day(still, blocks)
        shove = self.moments.states.current[self.moments.names.index("shove"), b]
        return Warmth(
            b,
            one,
            heat.gone_through(one, count),
            *heat.Day(moving, blocks).hottest(count),
            heat.until(still, float(shove) ** 2, limit),
            heat.rest_needed(one, count, limit - MARGIN),
        )
