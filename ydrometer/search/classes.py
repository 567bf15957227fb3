"""Combinations that drive alike are one class: same head, ratios, efficiencies and mass. Each is computed once."""

from __future__ import annotations

import math
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
from ydrometer.search.choices import NO_PART, Floats, Head, Ints, Slot
from ydrometer.search.layout import Fixed, Layout
from ydrometer.search.request import SearchRequest

LEAST_MARGIN, MOST_MARGIN = -1.0, 0.25
OF_THE_RUN = frozenset({
    "top_speed", "launch_acceleration", "time_to_distance", "speed_at_distance", "time_to_speed", "distance_in_time",
    "sprint_and_stop", "stopping_distance", "peak_bus_current", "cruise_bus_current", "energy_per_run",
    "endurance_at_top", "range_at_top",
})  # fmt: skip
"""Measures that count as missed altogether if a design does not start."""
TOGETHER = 20_000
"""Classes computed as one batch."""


class Drive(NamedTuple):
    """What matters for motion in each of m stage combinations, (m,) each: ratios and efficiencies of branch and trunk,
    and the mass of the parts.
    """

    torque: Floats
    speed: Floats
    efficiency: Floats
    trunk_torque: Floats
    trunk_speed: Floats
    trunk_efficiency: Floats
    mass: Floats


def drives(slots: Sequence[Slot], trunk: int, chosen: Sequence[Ints], mass: Floats) -> Drive:
    """The drives of stage combinations.

    Args:
        slots: of the layout.
        trunk: the slot from which on stages belong to the trunk.
        chosen: for each slot the option of each combination, (m,).
        mass: of the parts, to be added to the vehicle's, (m,).
    """
    own = _product(slots[:trunk], chosen[:trunk], len(mass))
    return Drive(*own, *_product(slots[trunk:], chosen[trunk:], len(mass)), mass)


def _product(slots: Sequence[Slot], chosen: Sequence[Ints], size: int) -> tuple[Floats, Floats, Floats]:
    driver, driven = np.ones(size, np.int64), np.ones(size, np.int64)
    torque, speed, efficiency = np.ones(size), np.ones(size), np.ones(size)
    for slot, option in zip(slots, chosen, strict=True):
        driver *= slot.driver[option]
        driven *= slot.driven[option]
        torque *= slot.torque[option]
        speed *= slot.speed[option]
        efficiency *= slot.efficiency[option]
    # One division of whole numbers: equal fractions are equal floats, in whatever order the stages stand.
    teeth = driven / driver
    return teeth * torque, teeth * speed, efficiency


def distinct(slots: Sequence[Slot], trunk: int, chosen: Sequence[Ints], mass: Floats) -> tuple[Drive, Ints]:
    """The distinct drives of stage combinations, and for each combination which one it is.

    Many options of a stage drive alike. Where no masses tell them apart, each way to put together what drives
    differently is looked at once, and combinations are only looked up among these.

    Args:
        slots, trunk, chosen, mass: as for `drives`.
    """
    if not chosen or mass.any():
        return unique(drives(slots, trunk, chosen, mass))
    code, examples = np.zeros(len(mass), np.int64), []
    for slot, option in zip(slots, chosen, strict=True):
        place, example = _alike(slot, np.bincount(option, minlength=len(slot)) > 0)
        code = code * len(example) + place[option]
        examples.append(example)
    lengths = [len(example) for example in examples]
    size = math.prod(lengths)
    if size > len(mass):
        return unique(drives(slots, trunk, chosen, mass))
    every = np.unravel_index(np.arange(size), lengths)
    ways = [example[place] for example, place in zip(examples, every, strict=True)]
    drive, which = unique(drives(slots, trunk, ways, np.zeros(size)))
    return drive, which[code]


def _alike(slot: Slot, present: Any) -> tuple[Ints, Ints]:
    """For each option of a slot, to which of those that drive differently it belongs, and one option for each of them;
    only of options that are present.
    """
    options = np.flatnonzero(present)
    columns = (slot.driver, slot.driven, slot.torque, slot.speed, slot.efficiency)
    table = np.stack([np.asarray(column, float)[options] for column in columns], axis=1)
    _, example, inverse = np.unique(table, axis=0, return_index=True, return_inverse=True)
    place = np.zeros(len(slot), np.int64)
    place[options] = inverse.ravel()
    return place, options[example]


def unique(drive: Drive) -> tuple[Drive, Ints]:
    """The distinct drives, and for each combination which one it is."""
    varying = _varying(drive)
    if not varying:
        return Drive(*(column[:1] for column in drive)), np.zeros(len(drive.mass), np.int64)
    codes: Any = varying[0]
    for column in varying[1:]:
        values, inverse = np.unique(column, return_inverse=True)
        codes = np.unique(codes, return_inverse=True)[1] * len(values) + inverse
    _, first, inverse = np.unique(codes, return_index=True, return_inverse=True)
    return Drive(*(column[first] for column in drive)), inverse


def _varying(drive: Drive) -> list[Floats]:
    """Columns that distinguish combinations: neither constant nor equal to another column."""
    found: list[Floats] = []
    for column in drive:
        if (column != column[0]).any() and not any(np.array_equal(column, other) for other in found):
            found.append(column)
    return found


@dataclass(frozen=True, slots=True)
class Standing:
    """How classes stand, each over them: margins clamped and whether met, (n, targets); codes of what holds, (n,)."""

    margins: Floats
    met: Any
    held_by: Ints

    def joined(self, other: Standing) -> Standing:
        """These classes and then the others."""
        return Standing(
            np.concatenate([self.margins, other.margins]),
            np.concatenate([self.met, other.met]),
            np.concatenate([self.held_by, other.held_by]),
        )

    def at(self, places: Sequence[int]) -> Standing:
        """Some of the classes."""
        return Standing(self.margins[places], self.met[places], self.held_by[places])


def head_design(request: SearchRequest, layout: Layout, head: Head, mass: float) -> Design:
    """The design with a head's parts, without stages but a box of several speeds; `mass` is that of all parts, kg."""
    made = request.document.design
    parts: Any = request.body.parts
    branch = replace(made.drive.branches[0], count=head.count, stages=())
    drive = made.drive
    if head.source != NO_PART:
        branch = with_source(branch, parts[head.source])
    if head.supply != NO_PART:
        drive = replace(drive, supply=parts[head.supply].supply)
    elif branch.clutch is not None:
        drive = replace(drive, supply=None)
    vehicle = replace(made.vehicle, mass=made.vehicle.mass + mass)
    if head.wheel != NO_PART:
        vehicle = replace(vehicle, wheel_diameter=parts[head.wheel].diameter)
    boxes = [c.stage for c in layout.stages if isinstance(c, Fixed) and c.stage.several_speeds]
    return replace(made, vehicle=vehicle, drive=replace(drive, branches=(branch,), stages=tuple(boxes)))


def with_source(branch: Any, part: Any) -> Any:
    """The branch with another source, which brings its controller or clutch where it has one."""
    if part.kind == "engine":
        return replace(branch, source=part.source, clutch=part.clutch or branch.clutch, controller=None)
    return replace(branch, source=part.source, controller=part.controller or branch.controller, clutch=None)


class Known:
    """Cache of computed classes, by layout and head, so that no piece of a search computes one twice.

    Where the mass of the parts counts, hardly two pieces have a class in common, and nothing is kept.
    """

    def __init__(self) -> None:
        self._places: dict[tuple[int, Head], dict[bytes, int]] = {}
        self._stands: dict[tuple[int, Head], Standing] = {}

    def standing(
        self, request: SearchRequest, number: int, layout: Layout, head: Head, head_mass: float, drive: Drive
    ) -> Standing:
        """Like the function `standing`, for the layout of a number, but computing each class only once."""
        if request.body.add_part_masses:
            return standing(request, layout, head, head_mass, drive)
        places = self._places.setdefault((number, head), {})
        table = np.ascontiguousarray(np.stack(drive, axis=1))
        keys: list[Any] = table.view(np.dtype((np.void, table.shape[1] * table.itemsize))).ravel().tolist()
        new = [i for i, key in enumerate(keys) if key not in places]
        if new:
            made = standing(request, layout, head, head_mass, Drive(*(column[new] for column in drive)))
            places.update({keys[i]: len(places) + n for n, i in enumerate(new)})
            before = self._stands.get((number, head))
            self._stands[number, head] = made if before is None else before.joined(made)
        return self._stands[number, head].at([places[key] for key in keys])


def standing(request: SearchRequest, layout: Layout, head: Head, head_mass: float, drive: Drive) -> Standing:
    """How the classes of one head stand against the targets, but for a target on price."""
    asked = request.asked
    margins, met, held = [], [], []
    for low in range(0, len(drive.mass), TOGETHER):
        part = Drive(*(column[low : low + TOGETHER] for column in drive))
        measured = _measured(request, layout, head, head_mass, part)
        judged = [_judged(target, measured) for target in asked]
        size = len(part.mass)
        margins.append(np.stack([m for m, _ in judged], axis=1) if judged else np.zeros((size, 0)))
        met.append(np.stack([m for _, m in judged], axis=1) if judged else np.zeros((size, 0), bool))
        held.append(measured.results.held_by.astype(np.int64))
    return Standing(np.concatenate(margins), np.concatenate(met), np.concatenate(held))


class _Measured(NamedTuple):
    """Results of classes; `columns` says which column belongs to a target's own distance, speed or time."""

    design: Design
    batch: Batch
    results: Results
    columns: dict[tuple[str, float], int]


def _measured(request: SearchRequest, layout: Layout, head: Head, head_mass: float, drive: Drive) -> _Measured:
    weights = request.body.add_part_masses
    masses, which = (
        np.unique(drive.mass, return_inverse=True) if weights else (np.zeros(1), np.zeros(len(drive.mass), int))
    )
    bases = [head_design(request, layout, head, head_mass + mass if weights else 0.0) for mass in masses]
    made = driveline.assemble(bases)
    batch = Batch(*(field[which] for field in made))
    batch = driveline.with_ratios(batch, bases[0], drive[:3], drive[3:6])
    design = request.document.design
    asked: dict[str, Any] = {}
    columns: dict[tuple[str, float], int] = {}
    for key in RUN_KEYS:
        own = sorted({getattr(t.run, key) for t in request.asked} - {None})
        columns |= {(key, value): place for place, value in enumerate(own, start=1)}
        # What no target refers to need not be looked for in the run.
        needed = any(MEASURES[t.measure].run == key and getattr(t.run, key) is None for t in request.asked)
        run = getattr(design.run, key) if needed else None
        row = np.array([np.nan if run is None else run, *own])
        asked[key] = np.tile(row, (len(drive.mass), 1))
    wanted = Wanted(asked["distance"], asked["speed"], asked["time"])
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
    found = getattr(results, name)
    key = MEASURES[name].run
    if not key:
        return np.asarray(found)
    own = getattr(target.run, key)
    return np.asarray(found[:, 0 if own is None else measured.columns[key, own]])


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
