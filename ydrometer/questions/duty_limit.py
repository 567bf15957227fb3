"""The same top speed two ways: turned down in software, or geared right; and what each costs.

A converter at a duty d makes of a source with (V, I) one with (d·V, I/d), without loss. A drive whose duty is capped at
d is therefore the same drive on a supply with d·Voc and d²·Rb, of whose current the real supply gives d times as much.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from ydrometer.base.solving import root
from ydrometer.document.design import Document
from ydrometer.document.stages import of_ratio
from ydrometer.document.target import Target
from ydrometer.document.walk import stages_with_paths
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.sweep import with_wheels
from ydrometer.evaluation.variants import with_drive

LEAST_DUTY = 0.02
CLOSE, ABSOLUTE = 1e-5, 2e-12
"""Relative closeness at which a duty or a ratio is found, and an absolute one for those next to 0."""
MOST_REDUCTION = 20.0
"""How much shorter than now a gearing is looked for."""


@dataclass(frozen=True, slots=True)
class Way:
    """One way to the wanted top speed.

    Attributes:
        words: what it is. duty: the cap, 1 where there is none. ratio: overall, of the first branch.
        top_speed m/s, time_to_distance s, pushing_force N, launch_acceleration m/s².
        motor_current: of one motor in the hard start, A; bus_current: of the supply then, A; None where there is none.
        note: the nearest that real teeth come to it.
    """

    words: str
    duty: float
    ratio: float
    top_speed: float
    time_to_distance: float | None
    pushing_force: float
    launch_acceleration: float
    motor_current: float | None
    bus_current: float | None
    note: str


@dataclass(frozen=True, slots=True)
class DutyLimit:
    """The present design and the ways to the wanted speed, m/s; `why` says why there are none, or nothing wanted."""

    wanted: float | None
    why: str
    ways: list[Way]


def duty_limit(document: Document, speed: float | None = None) -> DutyLimit:
    """Compare a software limit with another gearing for one top speed.

    Args:
        document: the design.
        speed: the wanted top speed, m/s; where it is not given, the highest edge of the target below the present one.
    """
    present = evaluate([document])
    top = present.value("top_speed", 0) or 0.0
    wanted = _wanted(document.design.targets, top) if speed is None else speed
    ways = [_way("As it is", present, 0, 1.0, "")]
    if wanted is None:
        return DutyLimit(None, "Give the speed to compare at, here or as a target in the Brief.", ways)
    if top <= wanted * (1.0 + CLOSE):
        return DutyLimit(wanted, "It is no faster than that: there is nothing to turn down.", ways)
    return DutyLimit(wanted, "", [*ways, *_capped(document, wanted), *_geared(document, wanted)])


def _wanted(targets: Sequence[Target], top: float) -> float | None:
    edges = sorted(e for t in targets if t.measure == "top_speed" for e in (t.lower, t.upper) if e is not None)
    below = [edge for edge in edges if edge < top]
    return below[-1] if below else edges[0] if edges else None


def _capped(document: Document, wanted: float) -> Iterator[Way]:
    supply = document.design.drive.supply
    engines = any(branch.clutch for branch in document.design.drive.branches)
    if supply is None or engines:
        return

    def at(duty: float) -> Evaluation:
        return evaluate([with_drive(document, supply=supply.capped(duty))])

    duty = _root(lambda d: (at(d).value("top_speed", 0) or 0.0) - wanted, LEAST_DUTY, 1.0)
    if duty is not None:
        yield _way(
            "Turned down in software", at(duty), 0, duty, f"Full throttle is {100.0 * duty:.0f} % of the voltage."
        )


def _geared(document: Document, wanted: float) -> Iterator[Way]:
    stages = document.design.drive.stages

    def at(factor: float) -> Evaluation:
        # A stage without loss stands for the change of the whole.
        extra = of_ratio(factor, efficiency=1.0)
        return evaluate([with_drive(document, stages=(*stages, extra))])

    factor = _root(lambda f: (at(f).value("top_speed", 0) or 0.0) - wanted, MOST_REDUCTION, 1.0)
    if factor is not None:
        yield _way("Geared for it", at(factor), 0, 1.0, _nearest(document, factor))


def _nearest(document: Document, factor: float) -> str:
    """The single wheel whose whole teeth come closest to a change of the overall ratio by `factor`."""
    best, words = math.inf, ""
    for path, stage in stages_with_paths(document.design):
        for wheel in stage.members:
            if wheel.idle or not wheel.form.toothed:
                continue
            teeth = wheel.measure / factor if wheel.name == "driver" else wheel.measure * factor
            count = round(teeth)
            off = abs(count / teeth - 1.0)
            if off < best and with_wheels(document, path, {wheel.name: count}) is not None:
                best = off
                words = (
                    f"Nearest with one wheel: {wheel.name} {wheel.measure} → {count} teeth, {100.0 * off:.1f} % off."
                )
    return words


def _root(function: Callable[[float], float], low: float, high: float) -> float | None:
    """Where the function vanishes between two places; None where it has one sign at both."""
    if function(low) * function(high) > 0.0:
        return None
    return root(function, low, high, absolute=ABSOLUTE, relative=CLOSE)


def _way(words: str, evaluation: Evaluation, index: int, duty: float, note: str) -> Way:
    value = evaluation.value
    motor = next((a for a in value("launch_motor_current", index) if a is not None), None)
    bus = value("launch_bus_current", index)
    return Way(
        words=words,
        duty=duty,
        ratio=value("overall_ratio", index)[0],
        top_speed=value("top_speed", index) or 0.0,
        time_to_distance=value("time_to_distance", index),
        pushing_force=value("pushing_force", index),
        launch_acceleration=value("launch_acceleration", index),
        motor_current=motor,
        bus_current=None if bus is None else bus * duty,
        note=note,
    )
