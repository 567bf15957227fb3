"""All of Loads of one design: moments, rows, heat, and the worst row."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.loads import axle, electrical, hubs, mechanical, shafts, sources, wires
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow
from ydrometer.loads.shafts import NotJudged

ORDER = (
    "motor_peak_current",
    "winding_temperature",
    "mount_softening",
    "source_speed",
    "controller_peak",
    "controller_continuous",
    "supply_peak",
    "supply_continuous",
    "supply_voltage",
    "fuse",
    "gear_tooth",
    "belt_force",
    "belt_jump",
    "v_belt_slip",
    "chain_force",
    "chain_teeth",
    "box_torque",
    "box_speed",
    "shaft_stress",
    "brakes",
    "order_of_steps",
    "bus_voltage_high",
    "wire",
    "connector",
    "shaft_fatigue",
    "key",
    "set_screw",
    "clamp",
    "press",
    "bearing_life",
    "radial_load",
    "axle_stress",
    "chain_speed",
    "gear_pitting",
    "plate_tilt",
)
"""Checks in the order in which they are told."""
NO_LOADS = ("chain_teeth", "order_of_steps", "chain_speed")
"""Checks that are about no load or about wear, and so never the worst."""
CHECKS: tuple[Callable[[LoadCase], Iterator[UseRow]], ...] = (
    electrical.motor_peak_current,
    electrical.winding_temperature,
    electrical.mount_softening,
    electrical.source_speed,
    electrical.controller_peak,
    electrical.controller_continuous,
    electrical.supply_peak,
    electrical.supply_continuous,
    electrical.supply_voltage,
    electrical.fuse,
    mechanical.stages,
    mechanical.speed_limits,
    mechanical.brakes,
    wires.bus_voltage_high,
    wires.wire,
    wires.connector,
    hubs.hubs,
    sources.radial_load,
    sources.plate_tilt,
    axle.axle_stress,
)


@dataclass(frozen=True, slots=True)
class LoadRows:
    """The rows of a design in their order, what could not be judged, and the row of the largest use."""

    case: LoadCase
    rows: list[UseRow]
    not_judged: list[NotJudged]
    worst: UseRow | None


def limits(evaluation: Evaluation, index: int = 0) -> LoadRows:
    """What each part of one design has to stand, and does.

    Args:
        evaluation: holds the design.
        index: its place there.
    """
    case = LoadCase(evaluation, index)
    judged = [row for check in CHECKS for row in check(case)]
    of_shafts, not_judged = shafts.shafts(case)
    places = {shaft.path: place for place, shaft in enumerate(case.line.shafts)}
    rows = sorted([*judged, *of_shafts], key=lambda row: (ORDER.index(row.check), places.get(row.path, -1)))
    used = [row for row in rows if row.use is not None and row.check not in NO_LOADS]
    return LoadRows(case, rows, not_judged, max(used, key=lambda row: row.use or 0.0, default=None))
