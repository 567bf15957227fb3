"""Turning on the spot: a vehicle with one drive unit a side, whose units work against each other."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document.design import Design
from ydrometer.document.sources import Motor
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.motion import states, trace
from ydrometer.motion.plant import Batch
from ydrometer.motion.states import States

SIDES = 2
"""Units of a drive that can turn on the spot: one a side."""
MORE = 1.02
"""How many times the shove's current is told as more."""


@dataclass(frozen=True, slots=True)
class Turn:
    """Turning on the spot: whether it can, the sliding force along each side, N, how fast it turns, rad/s, and the
    current of one motor of each branch and of the supply, A: in the turn, or stalled where it cannot.
    """

    possible: bool
    force_each_side: float
    rate: float | None
    currents: list[float]
    bus_current: float


def turning(evaluation: Evaluation, index: int = 0) -> Turn | None:
    """The turn of one design; None where it cannot be asked.

    Args:
        evaluation: holds the design.
        index: its place there.
    """
    group, row = evaluation.group(index)
    return turn_on_the_spot(evaluation.documents[index].design, group.batch, row)[0]


def turn_remark(evaluation: Evaluation, index: int = 0) -> str:
    """What a turn is worth a word for: that it draws more than a shove, or that motors stall in it; else empty."""
    turn = turning(evaluation, index)
    if turn is None:
        return ""
    if not turn.possible:
        return f"It cannot turn on the spot: its motors stall there at {max(turn.currents):.3g} A each."
    group, row = evaluation.group(index)
    shove = trace.standing(group.batch, row, pushing=True).bus_current
    if turn.bus_current > MORE * shove:
        more = f"{turn.bus_current:.3g} A from the supply, more than the {shove:.3g} A of a shove"
        return f"Turning on the spot draws {more}."
    return ""


def turn_on_the_spot(design: Design, batch: Batch, row: int) -> tuple[Turn | None, States | None]:
    """The steady turn on the spot of a vehicle with one unit a side, and its state where it is possible.

    Four contacts of equal load slide with Coulomb friction; along each side that takes mu·m·g/2·L/√(L² + W²), and one
    unit drives the two wheels of its side against their rolling resistance besides (Wong, Theory of Ground Vehicles,
    chapter Steering of tracked vehicles, skid-steering; equal loads).
    """
    vehicle, drive = design.vehicle, design.drive
    if drive.units != SIDES or vehicle.driven != "all" or vehicle.driven_share is not None:
        return None, None
    if not all(isinstance(branch.source, Motor) for branch in drive.branches):
        return None, None
    if vehicle.track is None or vehicle.wheelbase is None:
        return None, None
    weight, across = vehicle.total_mass * STANDARD_GRAVITY, math.hypot(vehicle.wheelbase, vehicle.track)
    body = batch.vehicle[row, 0]
    force = float(body["grip"]) * 0.5 * weight * vehicle.wheelbase / across
    state = states.at_force(batch, row, SIDES * force + weight * float(body["rolling_coefficient"]))
    if state is None:
        stalled = trace.standing(batch, row, pushing=False)
        return Turn(False, force, None, stalled.current.tolist(), stalled.bus_current), None
    rate = 2.0 * vehicle.track * float(state.speed[0]) / across**2
    return Turn(True, force, rate, state.current[0].tolist(), float(state.bus_current[0])), state
