"""Designs under the conditions of runs, as arrays that unknown factors can be laid on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields, replace

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Design
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.stages import Stage, stage_efficiency
from ydrometer.document.supply import Battery, BenchSupply, Supply
from ydrometer.evaluation import driveline
from ydrometer.motion.plant import Batch

LEAST_EFFICIENCY = 0.05
"""However large losses are guessed, so much gets through a stage."""


@dataclass(frozen=True, slots=True)
class Conditions:
    """What a run may say of how it was made; None where the design holds. SI."""

    grade: float | None = None
    supply_voltage: float | None = None
    payload: float | None = None
    mass: float | None = None
    air_density: float | None = None
    ambient: float | None = None
    supply: Supply | None = None

    def applied(self, design: Design) -> Design:
        """The design under these conditions."""
        vehicle = {key: getattr(self, key) for key in ("payload", "mass") if getattr(self, key) is not None}
        around = {
            key: getattr(self, key) for key in ("grade", "air_density", "ambient") if getattr(self, key) is not None
        }
        supply = self.supply or design.drive.supply
        if self.supply_voltage is not None:
            supply = at_voltage(supply, self.supply_voltage)
        return replace(
            design,
            vehicle=replace(design.vehicle, **vehicle),
            conditions=replace(design.conditions, **around),
            drive=replace(design.drive, supply=supply),
        )


def at_voltage(supply: Supply | None, voltage: float) -> Supply | None:
    """A battery or bench supply with another voltage at rest; anything else as it is."""
    if isinstance(supply, BenchSupply):
        return replace(supply, voltage=voltage)
    if isinstance(supply, Battery) and supply.cells is not None:
        return replace(supply, cells=replace(supply.cells, cell_voltage=voltage / supply.cells.series))
    return replace(supply, open_circuit_voltage=voltage) if isinstance(supply, Battery) else supply


@dataclass(slots=True)
class Factors:
    """What quantities of designs are multiplied by: (n,) each, or (n, J) one a branch."""

    rolling: Floats
    grip: Floats
    losses: Floats
    air: Floats
    brakes: Floats
    radius: Floats
    supply: Floats
    reduction: Floats
    speed_constant: Floats
    winding: Floats
    no_load: Floats
    engine: Floats

    @classmethod
    def ones(cls, n: int, branches: int) -> Factors:
        """Nothing is changed."""
        whole, each = (n,), (n, branches)
        return cls(*(np.ones(whole) for _ in range(8)), *(np.ones(each) for _ in range(4)))

    def of(self, rows: slice) -> Factors:
        """Some of them."""
        return Factors(*(getattr(self, field.name)[rows] for field in fields(self)))


@dataclass(frozen=True, slots=True)
class TrialCase:
    """A design under the conditions of a run; `sure` are paths of stages whose efficiency was measured: their losses
    stay.
    """

    design: Design
    sure: frozenset[str] = frozenset()

    @property
    def branches(self) -> int:
        """How many it has."""
        return len(self.design.drive.branches)

    def lost(self, prefix: str, stages: Sequence[Stage]) -> tuple[list[float], float]:
        """What is lost in each stage whose losses are only guessed, and the efficiency of all others."""
        guessed, known = [], 1.0
        for k, stage in enumerate(stages):
            if f"{prefix}.stages[{k}]" in self.sure:
                known *= stage_efficiency(stage)
            else:
                guessed.append(1.0 - stage_efficiency(stage))
        return guessed, known


class Losses:
    """What stages in a row lose, of G designs: so that factors can be laid on all at once."""

    def __init__(self, rows: Sequence[tuple[list[float], float]]) -> None:
        most = max((len(lost) for lost, _ in rows), default=0)
        self.lost = np.array([[*lost, *([0.0] * (most - len(lost)))] for lost, _ in rows]).reshape(len(rows), most)
        self.known = np.array([known for _, known in rows])

    def efficiency(self, factors: Floats) -> Floats:
        """Of all stages together, (G·n,), the rows of one design after those of the one before."""
        n = len(factors) // len(self.known)
        through = 1.0 - np.repeat(self.lost, n, axis=0) * factors[:, None]
        product: Floats = np.repeat(self.known, n) * np.maximum(LEAST_EFFICIENCY, through).prod(axis=1)
        return product


class Stack:
    """Cases of one shape, so that factors are laid on all of them at once."""

    def __init__(self, cases: Sequence[TrialCase]) -> None:
        """Put together what is multiplied.

        Args:
            cases: G of them, all of one shape.
        """
        designs = [case.design for case in cases]
        self.cases, self.batch = tuple(cases), driveline.assemble(designs)
        sources = [[branch.source for branch in design.drive.branches] for design in designs]
        self._winding = np.array(
            [[motor_line(s).resistance if isinstance(s, Motor) else 0.0 for s in row] for row in sources]
        )
        self._engines = any(isinstance(s, Engine) for row in sources for s in row)
        self._batteries = np.array([isinstance(design.drive.supply, Battery) for design in designs])
        self._trunk = Losses([case.lost("drive", case.design.drive.stages) for case in cases])
        self._own = [
            Losses([case.lost(f"drive.branches[{b}]", case.design.drive.branches[b].stages) for case in cases])
            for b in range(len(sources[0]))
        ]

    def with_factors(self, factors: Factors) -> Batch:
        """Each design n times with its losses and constants multiplied, as one batch.

        Args:
            factors: of G·n rows, those of one design after those of the one before.
        """
        n = len(factors.rolling) // len(self.cases)
        vehicle, law, gears, sources, curves = (np.repeat(field, n, axis=0) for field in self.batch)
        rolling = vehicle["rolling_coefficient"][:, 0]
        vehicle["rolling"][:, 0] += (factors.rolling - 1.0) * rolling * vehicle["weight"][:, 0]
        vehicle["rolling_coefficient"][:, 0] = rolling * factors.rolling
        for key, factor in (
            ("grip", factors.grip),
            ("air", factors.air),
            ("brake_force", factors.brakes),
            ("radius", factors.radius),
        ):
            vehicle[key][:, 0] *= factor
        vehicle["trunk_efficiency"][:, 0] = self._trunk.efficiency(factors.losses)
        for b, own in enumerate(self._own):
            sources["efficiency"][:, b] = own.efficiency(factors.losses)
        for key in ("ke", "kt"):
            sources[key] /= factors.speed_constant
        sources["no_load_current"] *= factors.no_load
        sources["resistance"] += (factors.winding - 1.0) * np.repeat(self._winding, n, axis=0)
        if self._engines:
            curves["torque"] *= factors.engine[:, :, None]
        law["q"] *= np.where(np.repeat(self._batteries, n), factors.supply, 1.0)[:, None]
        gears["ratio"] *= factors.reduction[:, None]
        gears["turning"] *= (factors.reduction / factors.radius)[:, None]
        changed = Batch(vehicle, law, gears, sources, curves)
        gears["inertial_mass"] = driveline.inertial_mass(changed)
        return changed
