"""Combinations that drive alike are one class: same head, ratios, efficiencies and mass. Each is computed once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

import numpy as np

from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.design import Design
from ydrometer.document.target import RUN_KEYS, Target
from ydrometer.evaluation import driveline, targets
from ydrometer.motion import measures
from ydrometer.motion.measures import Results, Wanted
from ydrometer.motion.plant import Batch
from ydrometer.search.choices import NO_PART, Floats, Head, Ints, StageSlot, trunk_from
from ydrometer.search.drives import Drive, Drives, drives_of
from ydrometer.search.layout import DriveLayout, Fixed
from ydrometer.search.request import SearchRequest
from ydrometer.taking import with_source

LEAST_MARGIN, MOST_MARGIN = -1.0, 0.25
OF_THE_RUN = frozenset(
    {
        "top_speed",
        "launch_acceleration",
        "time_to_distance",
        "speed_at_distance",
        "time_to_speed",
        "distance_in_time",
        "sprint_and_stop",
        "stopping_distance",
        "peak_bus_current",
        "cruise_bus_current",
        "energy_per_run",
        "endurance_at_top",
        "range_at_top",
    }
)
"""Measures that count as missed altogether if a design does not start."""
TOGETHER = 20_000
"""Classes computed as one batch, at most."""
MOST_REMEMBERED = 4_000_000
"""Classes of which one search remembers how they stand, at most."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How classes stand, each over them: margins clamped and whether met, (n, targets); codes of what holds, (n,)."""

    margins: Floats
    met: Any
    held_by: Ints

    @classmethod
    def unknown(cls, count: int, targets: int) -> Standing:
        """Room for so many classes."""
        return cls(np.zeros((count, targets)), np.zeros((count, targets), np.bool_), np.zeros(count, np.int64))

    def take(self, places: Ints, other: Standing) -> None:
        """Write down how the classes at some places stand."""
        self.margins[places], self.met[places], self.held_by[places] = other.margins, other.met, other.held_by

    def at(self, places: Ints) -> Standing:
        """Some of the classes."""
        return Standing(self.margins[places], self.met[places], self.held_by[places])


def head_design(request: SearchRequest, layout: DriveLayout, head: Head, mass: float) -> Design:
    """The design with a head's parts, without stages but a box of several speeds; `mass` is that of all parts, kg."""
    design = request.document.design
    parts: Any = request.body.parts
    branch = replace(design.drive.branches[0], count=head.count, stages=())
    drive = design.drive
    if head.source != NO_PART:
        branch = with_source(branch, parts[head.source])
    if head.supply != NO_PART:
        drive = replace(drive, supply=parts[head.supply].supply)
    elif branch.clutch is not None:
        drive = replace(drive, supply=None)
    vehicle = replace(design.vehicle, mass=design.vehicle.mass + mass)
    if head.wheel != NO_PART:
        vehicle = replace(vehicle, wheel_diameter=parts[head.wheel].diameter)
    boxes = [c.stage for c in layout.stages if isinstance(c, Fixed) and c.stage.several_speeds]
    return replace(design, vehicle=vehicle, drive=replace(drive, branches=(branch,), stages=tuple(boxes)))


class Known:
    """What pieces of one search have found out for each other: the drives of each layout, and how they stand."""

    def __init__(self) -> None:
        self._drives: dict[int, Drives | None] = {}
        self._stands: dict[tuple[int, Head], tuple[Any, Standing]] = {}
        self._kept = 0

    def drives(self, request: SearchRequest, number: int, slots: Sequence[StageSlot]) -> Drives | None:
        """The distinct drives of the layout of a number; None where masses tell its combinations apart, or where
        there are too many.
        """
        if number not in self._drives:
            trunk = trunk_from(request.body.layouts[number])
            self._drives[number] = None if request.body.add_part_masses else drives_of(slots, trunk)
        return self._drives[number]

    def standing(self, request: SearchRequest, number: int, head: Head, drive: Drive, usable: Ints) -> Standing:
        """Like the function `standing`, of some drives of the layout of a number, computing each only once.

        Args:
            request: what is looked through.
            number: of the layout.
            head: the drives' head.
            drive: all that the layout has, (d,).
            usable: which of them.
        """
        done, stands = self._of(number, head, len(drive.mass), len(request.targets))
        new = usable[~done[usable]]
        if len(new):
            stands.take(new, standing(request, request.body.layouts[number], head, 0.0, drive.at(new)))
            done[new] = True
        return stands.at(usable)

    def _of(self, number: int, head: Head, count: int, targets: int) -> tuple[Any, Standing]:
        """Of each drive whether it has been computed, and how those stand."""
        if (number, head) in self._stands:
            return self._stands[number, head]
        reached = np.zeros(count, np.bool_), Standing.unknown(count, targets)
        if self._kept + count <= MOST_REMEMBERED:
            self._stands[number, head] = reached
            self._kept += count
        return reached


def standing(request: SearchRequest, layout: DriveLayout, head: Head, head_mass: float, drive: Drive) -> Standing:
    """How the classes of one head stand against the targets, but for a target on price."""
    parts = [
        _standing(request, layout, head, head_mass, drive.at(slice(low, low + TOGETHER)))
        for low in range(0, len(drive.mass), TOGETHER)
    ]
    columns = zip(*((part.margins, part.met, part.held_by) for part in parts), strict=True)
    return Standing(*(np.concatenate(column) for column in columns))


def _standing(request: SearchRequest, layout: DriveLayout, head: Head, head_mass: float, drive: Drive) -> Standing:
    size, measured = len(drive.mass), _measured(request, layout, head, head_mass, drive)
    judged = [_judged(target, measured) for target in request.targets]
    margins = np.stack([m for m, _ in judged], axis=1) if judged else np.zeros((size, 0))
    met = np.stack([m for _, m in judged], axis=1) if judged else np.zeros((size, 0), np.bool_)
    return Standing(margins, met, measured.results.held_by.astype(np.int64))


class _Measured(NamedTuple):
    """Results of classes; `columns` says which column belongs to a target's own distance, speed or time."""

    design: Design
    batch: Batch
    results: Results
    columns: dict[tuple[str, float], int]


def _measured(request: SearchRequest, layout: DriveLayout, head: Head, head_mass: float, drive: Drive) -> _Measured:
    weights = request.body.add_part_masses
    masses, which = (
        np.unique(drive.mass, return_inverse=True) if weights else (np.zeros(1), np.zeros(len(drive.mass), int))
    )
    bases = [head_design(request, layout, head, head_mass + mass if weights else 0.0) for mass in masses]
    assembled = driveline.assemble(bases)
    batch = Batch(*(field[which] for field in assembled))
    batch = driveline.with_ratios(batch, bases[0], drive.branch, drive.trunk)
    design = request.document.design
    measured_at: dict[str, Any] = {}
    columns: dict[tuple[str, float], int] = {}
    for key in RUN_KEYS:
        own = sorted({getattr(t.run, key) for t in request.targets} - {None})
        columns |= {(key, value): place for place, value in enumerate(own, start=1)}
        # What no target refers to need not be looked for in the run.
        needed = any(MEASURES[t.measure].run == key and getattr(t.run, key) is None for t in request.targets)
        run = getattr(design.run, key) if needed else None
        row = np.array([np.nan if run is None else run, *own])
        measured_at[key] = np.tile(row, (len(drive.mass), 1))
    peak = any(target.measure == "peak_bus_current" for target in request.targets)
    wanted = Wanted(measured_at["distance"], measured_at["speed"], measured_at["time"], peak)
    return _Measured(bases[0], batch, measures.measure(batch, wanted), columns)


def _judged(target: Target, measured: _Measured) -> tuple[Floats, Any]:
    """Margins for the ranking, and whether met, of all classes; a price is judged with each combination."""
    size = len(measured.results.held_by)
    if target.measure == "price":
        return np.zeros(size), np.ones(size, bool)
    values = _values(target, measured)
    starts = measured.results.held_by == 0
    known = np.isfinite(values)
    met, margins = known.copy(), np.full(size, np.inf)
    with np.errstate(invalid="ignore"):
        if target.lower is not None:
            met &= values >= target.lower
            margins = np.minimum(margins, (values - target.lower) / target.lower)
        if target.upper is not None:
            met &= values <= target.upper
            margins = np.minimum(margins, (target.upper - values) / target.upper)
    margins[~known] = LEAST_MARGIN
    if target.measure in OF_THE_RUN:
        margins[~starts] = LEAST_MARGIN
    return np.clip(margins, LEAST_MARGIN, MOST_MARGIN), met


def _values(target: Target, measured: _Measured) -> Floats:
    results = measured.results
    name = target.measure
    if name == "no_load_wheel_rpm":
        return np.asarray(results.no_load_speed / measured.batch.vehicle["radius"][:, 0])
    if name in ("endurance_at_top", "range_at_top"):
        return _lasting(name, measured.design, results)
    values = getattr(results, name)
    key = MEASURES[name].run
    if not key:
        return np.asarray(values)
    own = getattr(target.run, key)
    return np.asarray(values[:, 0 if own is None else measured.columns[key, own]])


def _lasting(name: str, design: Design, results: Results) -> Floats:
    """Endurance and range at top speed."""
    charge = design.drive.supply.charge if design.drive.supply else None
    with np.errstate(invalid="ignore", divide="ignore"):
        lasting = np.where(results.cruise_bus_current > 0.0, (charge or np.nan) / results.cruise_bus_current, np.nan)
    return np.asarray(lasting if name == "endurance_at_top" else lasting * results.top_speed)


def price_standing(target: Target, price: Floats) -> tuple[Floats, Any]:
    """Margins and whether met, of a target on price."""
    known, which = np.unique(price, return_inverse=True)
    verdicts = [targets.judge(target, float(p), runs=True) for p in known]
    margins = np.clip([verdict.margin or 0.0 for verdict in verdicts], LEAST_MARGIN, MOST_MARGIN)
    return margins[which], np.array([bool(verdict.met) for verdict in verdicts])[which]
