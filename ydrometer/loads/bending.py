"""What bends a shaft: the forces at its wheels, and the moment and twist that follow from them.

Forces are in the plane of the plate. At a mesh the driven gear is pushed along the motion of the driver's teeth by Ft
and away by Ft·tan α, the driver by the opposite; a loop draws its two shafts together. A design turns either way:
tangential forces are reckoned for both, and the larger sum counts.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.document.mounting import ShaftMount, Stack
from ydrometer.document.sources import SourceShaft
from ydrometer.document.stages.plane import Mesh
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.passing import Through

SENSES = (1.0, -1.0)


@dataclass(frozen=True, slots=True)
class Pull:
    """What acts at one wheel of a shaft at m moments.

    Attributes:
        wheel: its name, as a stack has it. words: the wheel in words. steady: force that does not turn round with the
        sense of turning, N, (2, m). turning: force that does, (2, m). torque: what it brings to the shaft, below 0 what
        it takes, N·m, (m,).
    """

    wheel: str
    words: str
    steady: Floats
    turning: Floats
    torque: Floats


def _pull(case: LoadCase, setup: Setup, coupling: Coupling, path: str, through: Mapping[str, Through]) -> Pull | None:
    """What a coupling does to one of its two shafts; None where that is not known."""
    stage = through[coupling.driver.path]
    passing = case.passing(stage)
    driving = coupling.driver.shaft == path
    wheel = coupling.driver if driving else coupling.driven
    first, second = (np.array(setup.at(shaft)) for shaft in coupling.shafts)
    apart = math.dist(first, second)
    towards = (second - first) / apart if apart > 0.0 else np.array([1.0, 0.0])
    words = f"{wheel.member} of the {coupling.stage.noun}"
    torque = _brought(coupling, driving, passing.torque_in, passing.torque_out)
    if not isinstance(coupling.stage.in_plane, Mesh):
        force = coupling.stage.pull(passing)
        if force is None:
            return None
        drawn = np.outer(towards if driving else -towards, force)
        return Pull(wheel.name, words, drawn, np.zeros_like(drawn), torque)
    size = coupling.stage.tooth_size or 0.0
    radius = 0.5 * size * coupling.stage.members[0].measure
    force = passing.torque_in / radius
    sense = coupling.turns * (-1.0 if coupling.inside else 1.0)
    along = sense * np.array([towards[1], -towards[0]])
    away = towards * math.tan(coupling.pressure_angle) * (-1.0 if coupling.inside else 1.0)
    sign = -1.0 if driving else 1.0
    return Pull(wheel.name, words, sign * np.outer(away, force), sign * np.outer(along, force), torque)


def couplings_at(setup: Setup, path: str) -> list[Coupling]:
    """What couples a shaft with others; of further motors on the same gear it is said once."""
    return [coupling for coupling in setup.plane.couplings if path in coupling.shafts and not coupling.around_driven]


def pulls_of(case: LoadCase, setup: Setup, path: str, through: Mapping[str, Through]) -> list[Pull] | None:
    """What acts at all wheels of a shaft; None where one of them is not known.

    Args:
        case: the design.
        setup: of the plate that the shaft is on.
        path: of the shaft.
        through: what goes through the stages, by their paths.
    """
    mine = couplings_at(setup, path)
    pulls = [_pull(case, setup, coupling, path, through) for coupling in mine]
    known = [pull for pull in pulls if pull is not None]
    return known if len(known) == len(mine) else None


def _brought(coupling: Coupling, driving: bool, torque_in: Floats, torque_out: Floats) -> Floats:
    """What a coupling brings to a shaft, N·m: a driven wheel brings it, a driver takes it, an idler passes it on."""
    wheel = coupling.driver if driving else coupling.driven
    if wheel.member.startswith("idler"):
        return np.zeros_like(torque_in)
    return -torque_in if driving else torque_out


def bearings_of(stack: Stack) -> list[float]:
    """Middles of what carries a shaft, m."""
    laid = zip(stack.items, stack.spans, strict=True)
    return sorted(0.5 * sum(span) for item, span in laid if item.bearing)


def bent(
    own: SourceShaft | None, mount: ShaftMount | None, bearings: Sequence[float], pulls: Sequence[Pull], passed: Floats
) -> Reckoning | None:
    """Largest bending moment M and torque T of a shaft; None where a wheel has no place on it."""
    overhang = own.overhang if own is not None else mount.overhang if mount is not None else None
    if overhang is not None:
        return _overhung(overhang, "shaft.overhang" if own is not None else "", pulls, passed)
    assert mount is not None  # the caller has looked
    assert mount.stack is not None
    laid = laid_out(mount.stack, pulls)
    return None if laid is None else _carried(bearings, laid)


def laid_out(stack: Stack, pulls: Sequence[Pull]) -> list[tuple[float, Pull]] | None:
    """Places and forces of the wheels of a stack, in their order; None where one of them is not in it."""
    places = _places(stack)
    if any(pull.wheel not in places for pull in pulls):
        return None
    return sorted(((places[pull.wheel], pull) for pull in pulls), key=lambda placed: placed[0])


def _acting(r: Reckoning, pulls: Sequence[Pull], senses: Floats) -> None:
    """Put in the forces of all wheels in one sense of turning at each moment: X_1, Y_1 and so on."""
    for i, pull in enumerate(pulls, 1):
        x, y = pull.steady + senses * pull.turning
        r.put(f"X_{i}", f"force at the {pull.words}, along the plate", x, "force", origin="solved")
        r.put(f"Y_{i}", "the same, across", y, "force", origin="solved")


def _overhung(overhang: float, key: str, pulls: Sequence[Pull], passed: Floats) -> Reckoning:
    """A shaft whose wheels stand together out from its bearing."""
    r = Reckoning()
    both = [np.sum([p.steady + sense * p.turning for p in pulls], axis=0) for sense in SENSES]
    sums = [np.hypot(total[0], total[1]) for total in both]
    _acting(r, pulls, np.where(sums[0] >= sums[1], *SENSES))
    r.put("l_o", "overhang, from the bearing to the middle of what pulls", overhang, "length", key)
    x, y = (" + ".join(f"{axis}_{i}" for i in range(1, len(pulls) + 1)) for axis in "XY")
    r.step("M", "bending moment", f"hypot({x}, {y})*l_o", "torque")
    r.put("T_z", "torque that it passes", passed, "torque", origin="solved")
    return r


def _carried(bearings: Sequence[float], laid: Sequence[tuple[float, Pull]]) -> Reckoning:
    """A shaft on two bearings: a beam on two supports, bent most at a wheel or a bearing, where forces act."""
    r = Reckoning()
    beams = [_beam(bearings, laid, sense) for sense in SENSES]
    worse = beams[0][0] >= beams[1][0]
    _acting(r, [pull for _, pull in laid], np.where(worse, *SENSES))
    for symbol, words, place in (("z_A", "first bearing", bearings[0]), ("z_B", "second bearing", bearings[1])):
        r.put(symbol, f"place of the {words}", place, "length")
    for i, (z, pull) in enumerate(laid, 1):
        r.put(f"z_{i}", f"place of the {pull.words}", z, "length")
    r.put("z_M", "place at which it is bent most", np.where(worse, beams[0][1], beams[1][1]), "length", origin="solved")
    numbers = range(1, len(laid) + 1)
    for axis in "XY":
        turned = " + ".join(f"{axis}_{i}*(z_{i} - z_A)" for i in numbers)
        r.step(f"B_{axis}", "what the second bearing holds", f"-({turned})/(z_B - z_A)", "force")
        total = " + ".join(f"{axis}_{i}" for i in numbers)
        r.step(f"A_{axis}", "what the first bearing holds", f"-({total}) - B_{axis}", "force")
        acting = [*((f"{axis}_{i}", f"z_{i}") for i in numbers), (f"A_{axis}", "z_A"), (f"B_{axis}", "z_B")]
        before = [f"{force}*max(z_M - {z}, 0)" for force, z in acting]
        r.step(f"M_{axis}", "moment of what lies before that place", " + ".join(before), "torque")
    r.step("M", "bending moment", "hypot(M_X, M_Y)", "torque")
    twist = np.max(np.abs(np.cumsum([pull.torque for _, pull in laid], axis=0)), axis=0)
    r.put("T_z", "largest torque between its wheels", twist, "torque", origin="solved")
    return r


def _places(stack: Stack) -> dict[str, float]:
    """Middles of the wheels of a stack, m, by name."""
    laid = zip(stack.items, stack.spans, strict=True)
    return {item.wheel: 0.5 * sum(span) for item, span in laid if item.wheel}


def held(bearings: Sequence[float], laid: Sequence[tuple[float, Pull]], sense: float) -> tuple[Floats, Floats]:
    """What the first and the second bearing of a shaft hold, N, (2, m) each.

    Args:
        bearings: their middles, m.
        laid: places and forces of its wheels, in their order.
        sense: of turning, 1 or −1.
    """
    left, right = bearings
    loads = [(z, pull.steady + sense * pull.turning) for z, pull in laid]
    at_right = -sum((force * (z - left) for z, force in loads), np.zeros_like(loads[0][1])) / (right - left)
    at_left = -sum((force for _, force in loads), np.zeros_like(loads[0][1])) - at_right
    return at_left, at_right


def _beam(bearings: Sequence[float], laid: Sequence[tuple[float, Pull]], sense: float) -> tuple[Floats, Floats]:
    """Largest bending moment of a shaft on two supports, N·m, and its place, m, (m,) each."""
    left, right = bearings
    loads = [(z, pull.steady + sense * pull.turning) for z, pull in laid]
    at_left, at_right = held(bearings, laid, sense)
    acting = [*loads, (left, at_left), (right, at_right)]
    moments = [
        np.hypot(*sum((force * (place - z) for z, force in acting if z < place), np.zeros_like(acting[0][1])))
        for place, _ in acting
    ]
    at = np.argmax(moments, axis=0)
    return np.max(moments, axis=0), np.array([place for place, _ in acting])[at]
