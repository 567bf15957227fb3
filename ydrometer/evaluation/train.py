"""Stages in a row as one: how they turn torque and speed, what is left after losses, what turns in them.

This is the one place where stages are put together. An evaluation does it with the numbers of single stages, a search
with columns of options: the same functions take both.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, NamedTuple, Self

from ydrometer.document.stages import Stage, stage_efficiency


class StageFigures(NamedTuple):
    """What matters of a stage for motion: numbers, or columns of options (m,) each.

    Attributes:
        driver, driven: teeth, or any whole numbers in the ratio of the stage; 1 where its ratio is no such fraction.
        torque, speed: ratio of what has no teeth, else 1; the first without slip, the second with it.
        efficiency. inertia: about its input, kg·m².
        several_speeds: whether it is the box whose ratio changes while driving; its ratio is that of the lowest gear.
    """

    driver: Any
    driven: Any
    torque: Any
    speed: Any
    efficiency: Any
    inertia: Any
    several_speeds: bool

    @classmethod
    def of(cls, stage: Stage) -> Self:
        """Of a single stage."""
        exact, efficiency = stage.exact_ratio, stage_efficiency(stage)
        if exact is None:
            return cls(1, 1, stage.ratio, stage.speed_ratio, efficiency, stage.inertia, stage.several_speeds)
        return cls(
            exact.denominator,
            exact.numerator,
            1.0,
            stage.speed_ratio / stage.ratio,
            efficiency,
            stage.inertia,
            stage.several_speeds,
        )


class Overall(NamedTuple):
    """Stages in a row as one, numbers or columns (m,).

    Attributes:
        torque, speed: driver turns per driven turn, without and with slip; in the lowest gear. efficiency.
        inertia: of what turns in them at the same ratio in all gears, about their output, kg·m².
        geared: the same of what stands before a box of several speeds, in the lowest gear: in another one it is
        (i/i_lowest)² times as much.
    """

    torque: Any
    speed: Any
    efficiency: Any
    inertia: Any
    geared: Any


class Train(NamedTuple):
    """Stages put in a row one by one, from where power enters; numbers or columns (m,), see `StageFigures`."""

    driver: Any
    driven: Any
    torque: Any
    speed: Any
    efficiency: Any
    inertia: Any
    geared: Any

    @classmethod
    def without_stages(cls, unit_ratio: Any = 1, unit: Any = 1.0) -> Self:
        """Nothing but a shaft.

        Args:
            unit_ratio: whole numbers 1, or a column of them. unit: the same as floating-point numbers.
        """
        nothing = 0.0 * unit
        return cls(unit_ratio, unit_ratio, unit, unit, unit, nothing, nothing)

    def on(self, stage: StageFigures) -> Self:
        """With one more stage behind."""
        # Reflected through a ratio i an inertia is i² times as large (Gillespie, Fundamentals of Vehicle Dynamics,
        # chapter Acceleration performance, rotational inertia).
        squared = (stage.driven / stage.driver * stage.speed) ** 2
        before, geared = self.inertia + stage.inertia, self.geared
        if stage.several_speeds:
            before, geared = 0.0 * before, geared + before
        return type(self)(
            self.driver * stage.driver,
            self.driven * stage.driven,
            self.torque * stage.torque,
            self.speed * stage.speed,
            self.efficiency * stage.efficiency,
            before * squared,
            geared * squared,
        )

    def at(self, places: Any) -> Self:
        """Some rows of columns."""
        return type(self)(*(column[places] for column in self))

    @property
    def teeth(self) -> Any:
        """Ratio of all that has teeth: one division of whole numbers, so that equal fractions are equal floats in
        whatever order the stages stand.
        """
        return self.driven / self.driver

    @property
    def overall(self) -> Overall:
        """The whole row."""
        return Overall(self.teeth * self.torque, self.teeth * self.speed, self.efficiency, self.inertia, self.geared)


def overall(stages: Iterable[Stage]) -> Overall:
    """Stages in a row as one."""
    train = Train.without_stages()
    for stage in stages:
        train = train.on(StageFigures.of(stage))
    return train.overall
