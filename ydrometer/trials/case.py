"""A design under the conditions of a run, as arrays that unknown factors can be laid on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Design, Document
from ydrometer.document.loads import Loads
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.stages import Stage, stage_efficiency
from ydrometer.document.supply import Battery, Bench, Supply
from ydrometer.evaluation import driveline
from ydrometer.motion.measures import Results, Wanted, measure, measure_standing
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
    if isinstance(supply, Bench):
        return replace(supply, voltage=voltage)
    if isinstance(supply, Battery) and supply.cells is not None:
        return replace(supply, cells=replace(supply.cells, cell_voltage=voltage / supply.cells.series))
    return replace(supply, open_circuit_voltage=voltage) if isinstance(supply, Battery) else supply


@dataclass(slots=True)
class Factors:
    """What quantities of a design are multiplied by, n times over: (n,), or (n, J) one a branch."""

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


class Case:
    """A design under conditions: its batch of one, and what of it the batch no longer tells apart."""

    def __init__(self, design: Design, sure: frozenset[str] = frozenset()) -> None:
        """Keep what is multiplied.

        Args:
            design: under the conditions of a run.
            sure: paths of stages whose efficiency was measured: their losses stay.
        """
        self.design, self.sure = design, sure
        self.branches = len(design.drive.branches)

    @cached_property
    def batch(self) -> Batch:
        """Of the design as it is."""
        return driveline.assemble([self.design])

    @cached_property
    def _winding(self) -> Floats:
        """Resistance of the winding alone, without the controller's, ohm, (J,)."""
        sources = [branch.source for branch in self.design.drive.branches]
        return np.array([motor_line(s).resistance if isinstance(s, Motor) else 0.0 for s in sources])

    def with_factors(self, factors: Factors) -> Batch:
        """The design n times with its losses and constants multiplied, as one batch.

        Args:
            factors: each (n,) or (n, J).
        """
        n = len(factors.rolling)
        old = Batch(*(np.repeat(field, n, axis=0) for field in self.batch))
        vehicle, law, gears, sources, curves = (field.copy() for field in old)
        rolling = vehicle["rolling_coefficient"][:, 0]
        vehicle["rolling"][:, 0] += (factors.rolling - 1.0) * rolling * vehicle["weight"][:, 0]
        vehicle["rolling_coefficient"][:, 0] = rolling * factors.rolling
        for key, factor in (("grip", factors.grip), ("air", factors.air), ("brake_force", factors.brakes),
                            ("radius", factors.radius)):  # fmt: skip
            vehicle[key][:, 0] *= factor
        drive = self.design.drive
        vehicle["trunk_efficiency"][:, 0] = self._efficiency("drive", drive.stages, factors.losses)
        for b, branch in enumerate(drive.branches):
            sources["efficiency"][:, b] = self._efficiency(f"drive.branches[{b}]", branch.stages, factors.losses)
        for key in ("ke", "kt"):
            sources[key] /= factors.speed_constant
        sources["no_load_current"] *= factors.no_load
        sources["resistance"] += (factors.winding - 1.0) * self._winding
        engines = np.array([isinstance(branch.source, Engine) for branch in drive.branches])
        if engines.any():
            curves["torque"] *= factors.engine[:, :, None]
        if isinstance(drive.supply, Battery):
            law["q"] *= factors.supply[:, None]
        gears["ratio"] *= factors.reduction[:, None]
        gears["turning"] *= (factors.reduction / factors.radius)[:, None]
        wheels = np.full(n, self.design.vehicle.wheels_inertia)
        rotors = np.array([branch.source.rotor_inertia for branch in drive.branches])
        turning = driveline.turning_mass(wheels, rotors, vehicle[:, 0], sources, gears)
        gears["inertial_mass"] = vehicle["mass"] + turning
        return Batch(vehicle, law, gears, sources, curves)

    def _efficiency(self, prefix: str, stages: Sequence[Stage], losses: Floats) -> Floats:
        made = np.ones(len(losses))
        for k, stage in enumerate(stages):
            lost = 1.0 - stage_efficiency(stage)
            factor = np.ones_like(losses) if f"{prefix}.stages[{k}]" in self.sure else losses
            made = made * np.maximum(LEAST_EFFICIENCY, 1.0 - lost * factor)
        return made


class Rows:
    """A case n times with other factors, measured as far as its runs ask."""

    def __init__(
        self, case: Case, factors: Factors, distances: Sequence[float] = (), speeds: Sequence[float] = (),
        times: Sequence[float] = (), *, moving: bool = True,
    ) -> None:  # fmt: skip
        """Lay factors on a case.

        Args:
            case: the design under its conditions.
            factors: of each row.
            distances, speeds, times: that any run asks about, m, m/s and s.
            moving: whether anything of the run is asked: it takes ten times as long as the rest.
        """
        self.case, self.factors, self.moving = case, factors, moving
        self.batch = case.with_factors(factors)
        self.asked = {"distance": list(distances), "speed": list(speeds), "time": list(times)}
        self._results: Results | None = None
        self._together: list[Rows] = [self]

    def __len__(self) -> int:
        return len(self.factors.rolling)

    def document_with(self, loads: Loads) -> Document:
        """The design with a day of its own."""
        return Document(replace(self.case.design, loads=loads), {}, ())

    @property
    def results(self) -> Results:
        """All measures, the run's at the distances, speeds and times that are asked about; those of standing still and
        of spinning in the air alone where nothing of the run is asked.
        """
        if self._results is None:
            _measured(self._together)
        assert self._results is not None  # it has just been worked out
        return self._results

    def of_the_run(self, name: str, key: str, at: float) -> Floats:
        """A measure of the run, (n,).

        Args:
            name: of the measure.
            key: what it refers to: distance, speed or time.
            at: which one, SI.
        """
        column: Floats = getattr(self.results, name)[:, self.asked[key].index(at)]
        return column


def together(rows: Sequence[Rows]) -> None:
    """Measure rows of the same shape that are asked for the same in one go, once one of them is asked for it."""
    shapes: dict[tuple[Any, ...], list[Rows]] = {}
    for one in rows:
        shapes.setdefault((one.moving, *(field.shape[1:] for field in one.batch)), []).append(one)
    for alike in shapes.values():
        for one in alike:
            one._together = alike  # of the same module


def _measured(rows: Sequence[Rows]) -> None:
    """Work out the measures of rows of one shape as one batch."""
    batch = Batch(*(np.concatenate(fields) for fields in zip(*(one.batch for one in rows), strict=True)))
    if rows[0].moving:
        found = measure(batch, Wanted(*(_columns(rows, key) for key in ("distance", "speed", "time"))))
    else:
        found = measure_standing(batch)
    ends = np.cumsum([len(one) for one in rows])
    for one, end in zip(rows, ends, strict=True):
        one._results = Results(*(field[end - len(one) : end] for field in found))


def _columns(rows: Sequence[Rows], key: str) -> Floats:
    """What each row's run is asked for, as many columns as any of them needs."""
    most = max(1, *(len(one.asked[key]) for one in rows))
    padded = [[*one.asked[key], *([np.nan] * (most - len(one.asked[key])))] for one in rows]
    return np.concatenate([np.tile(np.array(asked), (len(one), 1)) for one, asked in zip(rows, padded, strict=True)])
