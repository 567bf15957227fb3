"""Checks of what the current goes through, and of the highest voltage of the bus."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables.wires import BUNDLED, FREE, INSULATION, POWER, USUAL_INSULATION
from ydrometer.document.supply import Battery
from ydrometer.document.walk import branch_of
from ydrometer.document.wire import Wire
from ydrometer.loads.day import bus_of, root_mean_square
from ydrometer.loads.electrical import AMPERE, SUPPLY, VOLT, current_of, of_the_day
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow, by_moment, largest, row

REST = "rest"


def bus_voltage_high(case: LoadCase) -> Iterator[UseRow]:
    """The highest voltage of the bus, at rest or driven back, against what controllers and battery stand."""
    supply, states = case.design.drive.supply, case.moments.states
    if supply is None:
        return
    volts = np.append(supply.voltage, states.bus_voltage)
    names = [REST, *case.moments.names]
    at = largest(volts)
    limits = [
        (f"drive.branches[{b}]", f"drive.branches[{b}].controller", case.design.drive.branches[b].controller)
        for b, _ in case.motors
    ]
    rated = [(path, f"{key}.max_voltage", part.max_voltage if part else None) for path, key, part in limits]
    if isinstance(supply, Battery):
        rated.append((SUPPLY, f"{SUPPLY}.max_voltage", supply.max_voltage))
    for path, key, most in rated:
        yield row(
            "bus_voltage_high",
            path,
            VOLT,
            float(volts[at]),
            most,
            moment=names[at],
            needs=[] if most else [key],
            marks=by_moment(volts / most, names) if most else (),
            at=at - 1 if at else None,
        )


def wire(case: LoadCase) -> Iterator[UseRow]:
    """The root mean square of a wire's current over the day against what it carries."""
    for path, said, demand in _currents(case):
        rating = said.rating or carried(said).known["I_w"]
        assumed = [] if said.rating else ["rating of a usual wire"]
        assumed += [] if said.rating or said.insulation else [f"{USUAL_INSULATION.upper()} insulation"]
        yield row("wire", path, AMPERE, demand, float(rating), assumed=[*assumed, *of_the_day(case)])


def connector(case: LoadCase) -> Iterator[UseRow]:
    """The same against what its connector carries."""
    for path, said, demand in _currents(case):
        needs = [] if said.connector_rating else [f"{path}.wire.connector_rating"]
        yield row("connector", path, AMPERE, demand, said.connector_rating, assumed=of_the_day(case), needs=needs)


def carried(said: Wire) -> Reckoning:
    """What a wire without a maker's rating carries for long, I_w, by area, how it lies and what insulates it."""
    r = Reckoning()
    r.put("A_w", "area of its copper", said.area, "area", "wire.area")
    base, words = (BUNDLED, "bundled") if said.bundled else (FREE, "laid free")
    r.put("I_1", f"what one of 1 mm² carries, {words}", base, "current", origin="constant")
    insulation = said.insulation or USUAL_INSULATION
    r.put("k_i", "times as much by its insulation", INSULATION[insulation], "ratio", origin="constant", note=insulation)
    r.step("I_w", "what it carries for long", f"I_1*k_i*(A_w/1e-6)**{POWER}", "current")
    return r


def wires(case: LoadCase) -> Iterator[tuple[str, Wire]]:
    """Wires with the paths of what they come from: a controller's branch, the supply."""
    for b, _ in case.motors:
        said = case.design.drive.branches[b].wire
        if said is not None:
            yield f"drive.branches[{b}]", said
    supply = case.design.drive.supply
    if supply is not None and supply.wire is not None:
        yield SUPPLY, supply.wire


def _currents(case: LoadCase) -> Iterator[tuple[str, Wire, float]]:
    """The same with the root mean squares of their currents."""
    for path, said in wires(case):
        of = bus_of if path == SUPPLY else partial(current_of, branch_of(path))
        yield path, said, root_mean_square(case.heats, of)
