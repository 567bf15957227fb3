"""How long the bearings of a shaft last: the reaction that each holds over the turns of the day.

P = (ΣP³·n/Σn)^(1/3) against C·(10⁶/N)^(1/3), with N turns in the hours that it has to last (ISO 281, Rolling bearings:
Dynamic load ratings and rating life, basic rating life and equivalent load of a load that varies).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables.bearings import LIFE_POWER, REVOLUTIONS, load_rating
from ydrometer.document.loads import USUAL_HOURS
from ydrometer.document.mounting import Item, ShaftMount
from ydrometer.document.stages.strain import FORCE, Strain
from ydrometer.fit.setup import Setup
from ydrometer.loads.bending import SENSES, bearings_of, couplings_at, held, laid_out, pulls_of
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.on_shafts import place_in_fit
from ydrometer.loads.passing import PowerPath, Through
from ydrometer.loads.rows import UseRow, strained
from ydrometer.motion.states import States

CHECK = "bearing_life"


@dataclass(frozen=True, slots=True)
class Turned:
    """What two bearings hold while a shaft turns through one heat.

    Attributes:
        cubes: of the reaction over the turns, N³, by bearing and sense of turning, (2, 2). turns: of the shaft.
        seconds: of driving, without rests and waits.
    """

    cubes: Floats
    turns: float
    seconds: float


def lives(case: LoadCase, setup: Setup, mount: ShaftMount, path: str) -> Iterator[UseRow]:
    """A row for each of the two bearings of a shaft; none where it does not turn in the day.

    Args:
        case: the design.
        setup: of the plate that the shaft is on.
        mount: of the shaft, with its stack.
        path: of the shaft.
    """
    turned = _through_the_day(case, setup, mount, path)
    if turned is None or turned.turns <= 0.0:
        return
    stack = mount.stack
    assert stack is not None  # it has two bearings
    laid = zip(stack.items, stack.spans, range(len(stack.items)), strict=True)
    in_order = sorted((sum(span), place, item) for item, span, place in laid if item.bearing)
    shaft = place_in_fit(case.design, path)
    for cubes, (_, place, item) in zip(turned.cubes, in_order, strict=True):
        key = f"fit.shafts[{shaft}].stack.items[{place}]"
        yield _judged(case, path, mount, item, key, float(cubes.max()), turned)


def _judged(case: LoadCase, path: str, mount: ShaftMount, item: Item, key: str, cube: float, turned: Turned) -> UseRow:
    """The row of one bearing, of whose two senses the worse holds."""
    r = Reckoning()
    r.put("n_d", "turns of the shaft in one heat", turned.turns, "ratio", origin="solved")
    r.put("t_d", "driving in one heat", turned.seconds, "time", origin="solved")
    mean = (cube / turned.turns) ** (1.0 / LIFE_POWER)
    r.put("P_m", "what it holds, its cube averaged over the turns", mean, "force", origin="solved")
    hours = case.said.hours or USUAL_HOURS
    origin = "given" if case.said.hours else "assumed"
    r.put("t_h", "driving that it has to last", hours, "time", "loads.hours", origin=origin)
    r.step("N_t", "turns in that", "n_d/t_d*t_h", "ratio")
    usual = None
    if item.outside is not None and mount.diameter is not None:
        usual = load_rating(mount.diameter, item.outside, item.width)
    rating = item.load_rating or usual
    needs = () if rating else (f"{key}.{'load_rating' if item.outside else 'outside'}",)
    assumed = [] if case.said.hours else [f"{USUAL_HOURS / 3600.0:.0f} h of driving"]
    assumed += ["a usual day"] if case.heats.assumed else []
    shown = {}
    if rating:
        assumed += [] if item.load_rating else ["load rating of a usual ball bearing of its sizes"]
        r.put(
            "C_b", "load with which it lasts a million turns", rating, "force", f"{key}.load_rating", origin="assumed"
        )
        r.step(
            "C_N",
            "load with which it lasts as long as it has to",
            f"C_b*({REVOLUTIONS}/N_t)**(1/{LIFE_POWER})",
            "force",
        )
        if mean > 0.0:
            r.step("L_h", "driving that it lasts", f"(C_b/P_m)**{LIFE_POWER}*{REVOLUTIONS}/n_d*t_d", "time")
            shown = {"life": "L_h"}
    member = key[key.index("items[") :]
    strain = Strain(CHECK, FORCE, r, "P_m", "C_N", member, tuple(assumed), needs, shown=shown)
    return strained(path, strain, case.moments.names)


def _through_the_day(case: LoadCase, setup: Setup, mount: ShaftMount, path: str) -> Turned | None:
    """Of all stretches of one heat together; None where a force is not known."""
    cubes, turns, seconds = np.zeros((2, 2)), 0.0, 0.0
    for states, through, often in case.driven:
        part = _stretch(case, setup, mount, path, states, through)
        if part is None:
            return None
        cubes = cubes + often * part.cubes
        turns += often * part.turns
        seconds += often * part.seconds
    return Turned(cubes, turns, seconds)


def _stretch(
    case: LoadCase, setup: Setup, mount: ShaftMount, path: str, states: States, through: PowerPath
) -> Turned | None:
    """One stretch, once; while gears are changed a bearing holds nothing."""
    stages = {stage.path: stage for stage in through.stages}
    pulls = pulls_of(case, setup, path, stages)
    stack = mount.stack
    assert stack is not None  # it has two bearings
    laid = None if pulls is None else laid_out(stack, pulls)
    if laid is None:
        return None
    speed = np.abs(_speed(setup, path, stages, through)) / (2.0 * np.pi)
    driven = np.where(states.gear < 0, 0.0, 1.0)
    bearings = bearings_of(stack)
    both = [[np.hypot(*force) for force in held(bearings, laid, sense)] for sense in SENSES]
    cubes = [
        [np.trapezoid((driven * both[s][at]) ** LIFE_POWER * speed, states.time) for s in range(len(SENSES))]
        for at in range(2)
    ]
    turns = float(np.trapezoid(speed, states.time))
    return Turned(np.array(cubes), turns, float(states.time[-1] - states.time[0]))


def _speed(setup: Setup, path: str, stages: Mapping[str, Through], through: PowerPath) -> Floats:
    """Speed of a shaft over time, rad/s: of one that a stage or a source turns, or of an idler by its teeth."""
    if path in stages:
        return stages[path].speed_out
    turned = next((shaft for shaft in through.shafts if shaft.path == path), None)
    if turned is not None:
        return turned.speed
    idler = next(wheel for coupling in couplings_at(setup, path) for wheel in coupling.wheels if wheel.shaft == path)
    stage = stages[idler.path]
    return stage.speed_in * stage.stage.members[0].measure / idler.measure
