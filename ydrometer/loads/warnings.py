"""What should not go unsaid about ratings: those that contradict each other, or that nobody has looked up."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base.tables.strengths import FUSE
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.supply import Battery
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.moments import SHOVE

LONG = max(FUSE)
"""Of a fuse's table the row of the longest time: s, and the multiple of its rating that it carries for longer."""


@dataclass(frozen=True, slots=True)
class Word:
    """A word about a part: its path, and the text."""

    path: str
    text: str


def warnings(case: LoadCase) -> list[Word]:
    """All of them, source first."""
    words: list[Word] = []
    for b, branch in enumerate(case.design.drive.branches):
        path = f"drive.branches[{b}]"
        words += _ratings(f"{path}.source", "motor", branch.source)
        words += _ratings(path, "controller", branch.controller)
        if branch.controller is not None:
            words += _limit_over_rating(path, branch.controller)
        if isinstance(branch.source, Motor):
            words += _stall(case, b, branch.source)
        else:
            words += _engine_in_the_air(case, b, branch.source)
    supply = case.design.drive.supply
    if isinstance(supply, Battery):
        words += _ratings("drive.supply", "battery", supply)
        words += _cut_off(case, supply)
    return words + list(_fuse(case))


def _ratings(path: str, noun: str, part: object) -> Iterator[Word]:
    """A peak below what is carried for long."""
    peak, steady = getattr(part, "peak_current", None), getattr(part, "continuous_current", None)
    if peak is not None and steady is not None and peak < steady:
        yield Word(
            path,
            f"The {noun}'s peak current of {peak:.3g} A is below its continuous {steady:.3g} A: "
            "one of the two is mistaken, look them up again.",
        )


def _limit_over_rating(path: str, controller: object) -> Iterator[Word]:
    limit, peak = getattr(controller, "current_limit", None), getattr(controller, "peak_current", None)
    if limit is not None and peak is not None and limit > peak:
        yield Word(
            path,
            f"The controller's limit is set to {limit:.3g} A, above the {peak:.3g} A that it stands for a moment: "
            "set it lower.",
        )


def _stall(case: LoadCase, b: int, motor: Motor) -> Iterator[Word]:
    """Nobody has said what motor or controller stand, and nothing holds the current back."""
    controller = case.design.drive.branches[b].controller
    held = controller is not None and controller.current_limit is not None
    rated = controller is not None and (controller.peak_current or controller.continuous_current)
    if held or rated or motor.peak_current:
        return
    supply = case.design.drive.supply
    volts = supply.voltage if supply is not None and hasattr(supply, "voltage") else None
    if volts is None:
        return
    resistance = motor_line(motor).resistance + (controller.resistance if controller else 0.0)
    yield Word(
        f"drive.branches[{b}].source",
        f"Held still at {volts:.3g} V one motor would draw {volts / resistance:.3g} A, and nobody has said what it or "
        "its controller stands: look its stall current up before the first hard start.",
    )


def _engine_in_the_air(case: LoadCase, b: int, engine: Engine) -> Iterator[Word]:
    most, air = engine.max_speed, float(case.moments.airborne[b])
    if most is not None and air > most:
        yield Word(
            f"drive.branches[{b}].source",
            "With the wheels in the air the engine would pass its safe speed: never defeat its governor, and keep "
            "bystanders clear.",
        )


def _cut_off(case: LoadCase, supply: Battery) -> Iterator[Word]:
    lowest = float(case.moments.states.bus_voltage.min())
    if supply.cutoff_voltage is not None and lowest < supply.cutoff_voltage:
        yield Word(
            "drive.supply",
            f"The bus sags to {lowest:.3g} V, below the {supply.cutoff_voltage:.3g} V at which electronics drop out: "
            "it would restart in the middle of it.",
        )


def _fuse(case: LoadCase) -> Iterator[Word]:
    """A shove that is held is longer than any row of the fuse's table."""
    supply, moments = case.design.drive.supply, case.moments
    fuse = getattr(supply, "fuse", None)
    if fuse is None or SHOVE not in moments.names:
        return
    current = float(moments.states.bus_current[moments.names.index(SHOVE)])
    if current > LONG[1] * fuse.rating:
        yield Word(
            "drive.supply",
            f"The fuse of {fuse.rating:.3g} A need not carry the first shove: {current:.3g} A flow as long as it is "
            "held. Never put in a larger one than leads and battery stand.",
        )
