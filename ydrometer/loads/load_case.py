"""All that the checks look at of one design: its moments, what its line passes, its day, how warm it gets."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from functools import cached_property

import numpy as np

from ydrometer.base.tables.strengths import APPLICATION, USUAL_SERVICE
from ydrometer.document.design import Design
from ydrometer.document.loads import Loads
from ydrometer.document.sources import Engine, Motor
from ydrometer.document.stages.strain import Passing
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.fit.setting_up import set_ups
from ydrometer.fit.setup import Setup
from ydrometer.loads import day, heat
from ydrometer.loads.day import Heats
from ydrometer.loads.heat import HeatBlock, Network
from ydrometer.loads.loops import loop_said
from ydrometer.loads.low import near_empty
from ydrometer.loads.moments import SHOVE, Moments, moments, near_the_end, together
from ydrometer.loads.passing import PowerPath, Through, line, speeds_in
from ydrometer.motion.states import States

USUAL_LIMIT = 403.15
"""K that a winding stands where its maker says nothing: insulation class B, 130 °C (IEC 60085, Electrical insulation:
Thermal evaluation and designation)."""
MARGIN = 10.0
"""K by which windings and mounts stay under their limits."""


class Warmth:
    """How warm one motor of a branch gets, worked out as far as it is asked for; K and s."""

    def __init__(self, branch: int, networks: tuple[Network, Network], blocks: list[HeatBlock], count: int) -> None:
        """Keep what all of it follows from.

        Args:
            branch: of the motor.
            networks: in still and in moving air.
            blocks: of one heat.
            count: heats.
        """
        self.branch, self.blocks, self.count = branch, blocks, count
        self.still, self.moving = networks

    @cached_property
    def one_heat(self) -> heat.HeatDay:
        """One heat."""
        return heat.HeatDay(self.still, self.blocks)

    @cached_property
    def day(self) -> heat.Heat:
        """All heats."""
        return heat.gone_through(self.one_heat, self.count)

    @cached_property
    def in_moving_air(self) -> tuple[float, float]:
        """The hottest winding and case where air is blown over it."""
        return heat.HeatDay(self.moving, self.blocks).hottest(self.count)

    def held(self, current: float, limit: float) -> float | None:
        """How long a current is carried from ambient, see `heat.until`."""
        return heat.until(self.still, current**2, limit)

    def rest_needed(self, limit: float) -> float | None:
        """The rest that each heat needs behind it to stay under a limit, see `heat.rest_needed`."""
        return heat.rest_needed(self.one_heat, self.count, limit)


class LoadCase:
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
    def low(self) -> LoadCase | None:
        """The same with its battery near the end; None without a battery."""
        document = near_empty(self.evaluation.documents[self.index])
        return None if document is None else LoadCase(evaluate([document]))

    @cached_property
    def every(self) -> Moments:
        """The moments, and those with the battery near its end behind them: what currents and voltages are about."""
        return self.moments if self.low is None else together(self.moments, near_the_end(self.low.moments))

    @cached_property
    def line(self) -> PowerPath:
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
    def driven(self) -> list[tuple[States, PowerPath, int]]:
        """States over time in which it is driven in one heat, what goes through its line there, and how often each
        comes.
        """
        often: Counter[int] = Counter()
        for stretch in self.heats.stretches:
            often[id(stretch.states)] += stretch.count
        different = {id(stretch.states): stretch.states for stretch in self.heats.stretches if len(stretch.time) > 1}
        return [(states, line(self.design, states), often[name]) for name, states in different.items()]

    @cached_property
    def warmth(self) -> dict[int, Warmth]:
        """Of each branch of motors of which enough is known."""
        by_branch = {b: self._warmth(b) for b in range(len(self.design.drive.branches))}
        return {b: warmth for b, warmth in by_branch.items() if warmth is not None}

    @property
    def motors(self) -> list[tuple[int, Motor]]:
        """Branches of motors."""
        branches = enumerate(self.design.drive.branches)
        return [(b, branch.source) for b, branch in branches if isinstance(branch.source, Motor)]

    def first_behind(self, branch: int) -> Through | None:
        """The first stage behind the sources of a branch; None where there is none."""
        return next((through for through in self.line.stages if through.branch in (branch, None)), None)

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
            np.abs(through.torque_in),
            np.abs(through.torque_out),
            np.abs(through.speed_in),
            np.abs(through.speed_out),
            self.factor(through.branch),
            self.said.service or "",
            self.said.wet,
            loop_said(self.design, self.setups, through.path),
        )

    @cached_property
    def blocks(self) -> dict[int, list[HeatBlock]]:
        """What heats one motor of each branch in one heat."""
        return {b: self._blocks(b) for b, _ in self.motors}

    def _blocks(self, b: int) -> list[HeatBlock]:
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
        return Warmth(b, (still, moving), self.blocks[b], self.heats.count)

    def shove_until_limit(self, warmth: Warmth) -> float | None:
        """How long a motor is held against a wall until its winding is at its limit, s; None where it never is."""
        shove = self.moments.states.current[self.moments.names.index(SHOVE), warmth.branch]
        return warmth.held(float(shove), self.limit(dict(self.motors)[warmth.branch]))

    def rest_needed(self, warmth: Warmth) -> float | None:
        """The rest that each heat needs behind it to stay well under the limit, s; None where no rest helps."""
        return warmth.rest_needed(self.limit(dict(self.motors)[warmth.branch]) - MARGIN)
