"""Checks of what carries current and what turns fast: motors, controllers, supply, fuse; and of warm mounts."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from ydrometer.base.tables.strengths import FUSE, MATERIALS
from ydrometer.document.supply import Battery
from ydrometer.loads.day import Floats, Stretch, bus_of, longest_currents, root_mean_square
from ydrometer.loads.load_case import MARGIN, LoadCase
from ydrometer.loads.moments import REVERSAL
from ydrometer.loads.rows import UseRow, by_moment, largest, row

AMPERE, VOLT, KELVIN, RADIANS = "A", "V", "K", "rad/s"
RUN, IN_THE_AIR = "run", "wheels in the air"


def _source(b: int) -> str:
    return f"drive.branches[{b}].source"


def motor_peak_current(case: LoadCase) -> Iterator[UseRow]:
    """The largest current of one motor against what its maker allows for a moment."""
    for b, motor in case.motors:
        current, moment, at = _peak(case, b)
        needs = [] if motor.peak_current else [f"{_source(b)}.peak_current"]
        marks = _marks(case, b, motor.peak_current)
        remarks = _unlimited(case, b, moment)
        yield row(
            "motor_peak_current",
            _source(b),
            AMPERE,
            current,
            motor.peak_current,
            moment=moment,
            needs=needs,
            remarks=remarks,
            marks=marks,
            at=at,
        )


def _peak(case: LoadCase, b: int) -> tuple[float, str, int]:
    """The largest current of one motor of a branch, by magnitude, its moment, and the place of that among all."""
    currents = np.abs(case.every.states.current[:, b])
    at = largest(currents)
    return float(currents[at]), case.every.names[at], at


def _marks(case: LoadCase, b: int, capacity: float | None) -> tuple[tuple[str, float], ...]:
    """Uses of a current of one motor in each moment; none where nobody knows what is allowed."""
    currents = np.abs(case.every.states.current[:, b])
    return by_moment(currents / capacity, case.every.names) if capacity else ()


def _unlimited(case: LoadCase, b: int, moment: str) -> list[str]:
    """A word about a reversal that nothing holds back."""
    controller = case.design.drive.branches[b].controller
    free = moment == REVERSAL and (controller is None or controller.current_limit is None)
    return ["no current limit of the controller: thrown into reverse, nothing holds its current back"] if free else []


def winding_temperature(case: LoadCase) -> Iterator[UseRow]:
    """The hottest winding of the day above ambient against its limit."""
    ambient = case.design.conditions.ambient
    for b, motor in case.motors:
        warmth = case.warmth.get(b)
        assumed = [] if motor.winding_limit else ["winding limit of 130 °C"]
        assumed += of_the_day(case)
        remarks = []
        if warmth is not None and warmth.day.nodes == 1:
            remarks.append("one node: good for minutes, not for seconds")
        remarks.append("a held brushless motor heats two of its three phases")
        yield row(
            "winding_temperature",
            _source(b),
            KELVIN,
            None if warmth is None else warmth.day.hottest_winding - ambient,
            case.limit(motor) - ambient,
            assumed=assumed,
            needs=[f"{_source(b)}.thermal"] if warmth is None else [],
            remarks=remarks,
        )


def of_the_day(case: LoadCase) -> list[str]:
    """What is assumed of the day."""
    return ["a usual day"] if case.heats.assumed else []


def mount_softening(case: LoadCase) -> Iterator[UseRow]:
    """The hottest case of the day above ambient against where a plastic mount gets soft."""
    ambient = case.design.conditions.ambient
    for b, motor in case.motors:
        softens = MATERIALS[motor.mount_material].softens if motor.mount_material else None
        if softens is None:
            continue
        warmth = case.warmth.get(b)
        demand = None if warmth is None else warmth.day.hottest_case - ambient
        yield row(
            "mount_softening",
            _source(b),
            KELVIN,
            demand,
            softens - MARGIN - ambient,
            assumed=[f"softening point of {motor.mount_material}", *of_the_day(case)],
            needs=[f"{_source(b)}.thermal"] if warmth is None else [],
        )


def source_speed(case: LoadCase) -> Iterator[UseRow]:
    """The fastest speed of the run, and with the wheels in the air, against what a source may turn."""
    for b, branch in enumerate(case.design.drive.branches):
        most = branch.source.max_speed
        needs = [] if most else [f"{_source(b)}.max_speed"]
        fastest = float(np.abs(case.moments.states.source_speed[:, b]).max())
        air = float(case.moments.airborne[b])
        run = [] if case.moments.run is None else [(RUN, fastest)]
        for moment, speed in (*run, (IN_THE_AIR, air)):
            yield row("source_speed", _source(b), RADIANS, speed, most, moment=moment, needs=needs)


def controller_peak(case: LoadCase) -> Iterator[UseRow]:
    """The same current against what the controller carries for a moment."""
    for b, _ in case.motors:
        path = f"drive.branches[{b}]"
        controller = case.design.drive.branches[b].controller
        peak = controller.peak_current if controller else None
        steady = controller.continuous_current if controller else None
        remarks = ["no peak figure: its continuous one is taken"] if peak is None and steady is not None else []
        needs = [] if peak or steady else [f"{path}.controller.peak_current"]
        current, moment, at = _peak(case, b)
        remarks += _unlimited(case, b, moment)
        marks = _marks(case, b, peak or steady)
        yield row(
            "controller_peak",
            path,
            AMPERE,
            current,
            peak or steady,
            moment=moment,
            needs=needs,
            remarks=remarks,
            marks=marks,
            at=at,
        )


def controller_continuous(case: LoadCase) -> Iterator[UseRow]:
    """The root mean square of a motor's current over the day against what the controller carries for long."""
    for b, _ in case.motors:
        path = f"drive.branches[{b}]"
        controller = case.design.drive.branches[b].controller
        steady = controller.continuous_current if controller else None
        mean = root_mean_square(case.heats, partial(current_of, b))
        needs = [] if steady else [f"{path}.controller.continuous_current"]
        yield row("controller_continuous", path, AMPERE, mean, steady, assumed=of_the_day(case), needs=needs)


def current_of(b: int, stretch: Stretch) -> Floats:
    """The current of one motor of a branch over a stretch, A."""
    return stretch.current[:, b]


SUPPLY = "drive.supply"


def supply_peak(case: LoadCase) -> Iterator[UseRow]:
    """The largest current of a battery, out of it or back, against its rating; a limit is none."""
    supply = case.design.drive.supply
    if not isinstance(supply, Battery):
        return
    currents = np.abs(case.every.states.bus_current)
    at = largest(currents)
    needs, remarks = [] if supply.peak_current else [f"{SUPPLY}.peak_current"], []
    if supply.current_limit and not supply.peak_current:
        remarks.append("its current_limit says what it gives, not what it stands")
    if case.every.states.bus_current[at] < 0.0:
        remarks.append("it flows back into the battery")
    rated = supply.peak_current
    yield row(
        "supply_peak",
        SUPPLY,
        AMPERE,
        float(currents[at]),
        rated,
        moment=case.every.names[at],
        needs=needs,
        remarks=remarks,
        marks=by_moment(currents / rated, case.every.names) if rated else (),
        at=at,
    )


def supply_continuous(case: LoadCase) -> Iterator[UseRow]:
    """The root mean square of a battery's current over the day against its rating."""
    supply = case.design.drive.supply
    if not isinstance(supply, Battery):
        return
    mean = root_mean_square(case.heats, bus_of)
    needs = [] if supply.continuous_current else [f"{SUPPLY}.continuous_current"]
    yield row(
        "supply_continuous", SUPPLY, AMPERE, mean, supply.continuous_current, assumed=of_the_day(case), needs=needs
    )


def supply_voltage(case: LoadCase) -> Iterator[UseRow]:
    """The voltage under which electronics drop out against the lowest of the bus."""
    supply, states = case.design.drive.supply, case.every.states
    if not isinstance(supply, Battery):
        return
    at = largest(-states.bus_voltage)
    needs = [] if supply.cutoff_voltage else [f"{SUPPLY}.cutoff_voltage"]
    yield row(
        "supply_voltage",
        SUPPLY,
        VOLT,
        supply.cutoff_voltage,
        float(states.bus_voltage[at]),
        moment=case.every.names[at],
        needs=needs,
        at=at,
    )


def fuse(case: LoadCase) -> Iterator[UseRow]:
    """Currents by how long they last against what a blade fuse is sure to carry for so long; the worst of the rows."""
    supply = case.design.drive.supply
    if supply is None or supply.fuse is None:
        return
    rating = supply.fuse.rating
    uses = [
        (current, multiple * rating) for current, (_, multiple) in zip(longest_currents(case.heats), FUSE, strict=True)
    ]
    demand, capacity = max(uses, key=lambda pair: pair[0] / pair[1])
    remarks = ["least times of blade fuses: it may hold longer"]
    yield row("fuse", SUPPLY, AMPERE, demand, capacity, assumed=of_the_day(case), remarks=remarks)
