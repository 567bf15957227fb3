"""Checks of shafts: bent by what pulls at their wheels, twisted by what they pass.

Forces are in the plane of the plate. At a mesh the driven gear is pushed along the motion of the driver's teeth by Ft
and away by Ft·tan α, the driver by the opposite; a loop draws its two shafts together. A design turns either way:
tangential forces are reckoned for both, and the larger sum counts. Stress is compared as σv = √(σb² + 3·τ²), σb =
32·M/(π·d³), τ = 16·T/(π·d³) (von Mises in shafts: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter
Shafts and shaft components, shaft stresses).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL, USUAL_SOURCE_SHAFT
from ydrometer.document.mounting import Mounting, ShaftMount, Stack
from ydrometer.document.sources import SourceShaft
from ydrometer.document.stages.plane import Contact, Mesh
from ydrometer.document.stages.strain import STRESS, Strain
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.loops import said
from ydrometer.loads.passing import Through
from ydrometer.loads.rows import UseRow, strained

CHECK = "shaft_stress"
SAFETY = 2.0
"""Share of its yield strength that a shaft is allowed: one half."""
SENSES = (1.0, -1.0)
TWO = 2


@dataclass(frozen=True, slots=True)
class NotJudged:
    """A check that nothing can be said about."""

    check: str
    path: str


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


def shafts(case: LoadCase) -> tuple[list[UseRow], list[NotJudged]]:
    """The rows of all shafts, and those that nothing can be said about."""
    rows, unjudged = [], []
    through = {stage.path: stage for stage in case.line.stages}
    for setup in case.setups:
        for path in setup.plane.shafts:
            if not any(path in coupling.shafts for coupling in setup.plane.couplings) and not _lacking(setup, path):
                continue
            row = _row(case, setup, path, through)
            if row is None:
                unjudged.append(NotJudged(CHECK, path))
            else:
                rows.append(row)
    return rows, unjudged


def _lacking(setup: Setup, path: str) -> list[str]:
    """Stages at a shaft of which nobody knows how large their wheels are."""
    stages = setup.plane.stages
    after = stages.index(path) + 1 if path in stages else 0
    near = [path, *stages[after : after + 1]]
    return [
        stage
        for stage in near
        if stage in setup.plane.missing
        and "given" in setup.plane.missing[stage]
        and not any(c.path == stage for c in setup.plane.couplings)
    ]


def _row(case: LoadCase, setup: Setup, path: str, through: dict[str, Through]) -> UseRow | None:
    """The row of one shaft; None where nothing can be said."""
    mine = [coupling for coupling in setup.plane.couplings if path in coupling.shafts and not coupling.around_driven]
    own, mount = _own(case, path), setup.mounting.of(path)
    bearings = _bearings(mount.stack) if mount and mount.stack else []
    if not _is_of_one_piece(case, setup, path) or not _is_carried(own, mount, bearings) or not _is_told(setup, mine):
        return None
    lacking = _lacking(setup, path)
    if lacking:
        needs = tuple(f"{stage}.{_size_key(case, stage)}" for stage in lacking)
        return UseRow(
            CHECK, path, None, None, None, _capacity(own or mount, path), STRESS, None, "unknown", needs=needs
        )
    pulls = [pull for c in mine if (pull := _pull(case, setup, c, path, through)) is not None]
    if len(pulls) < len(mine):
        return None
    bent = _bent(own, mount, bearings, pulls, _passed(case, path, through))
    return None if bent is None else _judged(case, path, own or mount, bent)


def _is_of_one_piece(case: LoadCase, setup: Setup, path: str) -> bool:
    """Whether a shaft is one: not the two in line of a box, nor several sources that come together."""
    return path not in setup.plane.in_line.values() and not _joins_several(case, path)


def _is_carried(own: SourceShaft | None, mount: ShaftMount | None, bearings: Sequence[float]) -> bool:
    """Whether it is known how a shaft is carried: a source's own, overhung, or on two bearings."""
    return own is not None or (mount is not None and (mount.overhang is not None or len(bearings) == TWO))


def _is_told(setup: Setup, couplings: Sequence[Coupling]) -> bool:
    """Whether the forces of all couplings can be told: their shafts have places, and nothing is pressed on."""
    return all(not isinstance(coupling.stage.in_plane, Contact) and said(setup, coupling) for coupling in couplings)


def _size_key(case: LoadCase, path: str) -> str:
    """The key of the size of a stage's teeth."""
    form = next(through.stage for through in case.line.stages if through.path == path).form
    assert form is not None  # it has wheels of which nobody knows how large they are
    return form.size_keys[0]


def _own(case: LoadCase, path: str) -> SourceShaft | None:
    """A source's own shaft, where its path is one."""
    for b, branch in enumerate(case.design.drive.branches):
        if path == f"drive.branches[{b}].source":
            return branch.source.shaft
    return None


def _joins_several(case: LoadCase, path: str) -> bool:
    """Whether several sources of a branch come together on a shaft."""
    for b, branch in enumerate(case.design.drive.branches):
        last = f"drive.branches[{b}].stages[{len(branch.stages) - 1}]" if branch.stages else ""
        if branch.count > 1 and path == last:
            return True
    return False


def _bearings(stack: Stack) -> list[float]:
    """Middles of what carries a shaft, m."""
    laid = zip(stack.items, stack.spans, strict=True)
    return sorted(0.5 * sum(span) for item, span in laid if item.bearing)


def _passed(case: LoadCase, path: str, through: dict[str, Through]) -> Floats:
    """Torque on a shaft of one source, or of a unit where all have come together, N·m, (m,)."""
    for b, branch in enumerate(case.design.drive.branches):
        if path == f"drive.branches[{b}].source":
            whole = next(shaft for shaft in case.line.shafts if shaft.path == path)
            return np.abs(whole.torque) / branch.count
    if path not in through:
        return np.zeros(len(case.moments.names))  # an idler passes nothing along its shaft
    joint = next((shaft for shaft in case.line.shafts if shaft.path == path), None)
    several = len(case.design.drive.branches) > 1 and joint is not None and through[path].branch is not None
    last = f"drive.branches[0].stages[{len(case.design.drive.branches[0].stages) - 1}]"
    return np.abs(joint.torque) if several and joint and path == last else np.abs(through[path].torque_out)


def _pull(case: LoadCase, setup: Setup, coupling: Coupling, path: str, through: dict[str, Through]) -> Pull | None:
    """What a coupling does to one of its two shafts; None where that is not known."""
    stage = through[coupling.driver.path]
    passing = case.passing(stage)
    driving = coupling.driver.shaft == path
    wheel = coupling.driver if driving else coupling.driven
    first, second = (np.array(setup.at(shaft)) for shaft in coupling.shafts)
    towards = (second - first) / math.dist(first, second)
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


def _brought(coupling: Coupling, driving: bool, torque_in: Floats, torque_out: Floats) -> Floats:
    """What a coupling brings to a shaft, N·m: a driven wheel brings it, a driver takes it, an idler passes it on."""
    wheel = coupling.driver if driving else coupling.driven
    if wheel.member.startswith("idler"):
        return np.zeros_like(torque_in)
    return -torque_in if driving else torque_out


def _bent(
    own: SourceShaft | None, mount: ShaftMount | None, bearings: Sequence[float], pulls: Sequence[Pull], passed: Floats
) -> Reckoning | None:
    """Largest bending moment M and torque T of a shaft; None where a wheel has no place on it."""
    overhang = own.overhang if own is not None else mount.overhang if mount is not None else None
    if overhang is not None:
        return _overhung(overhang, "shaft.overhang" if own is not None else "", pulls, passed)
    assert mount is not None  # the caller has looked
    assert mount.stack is not None
    places = _places(mount.stack)
    if any(pull.wheel not in places for pull in pulls):
        return None
    return _carried(bearings, sorted(((places[pull.wheel], pull) for pull in pulls), key=lambda placed: placed[0]))


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


def _beam(bearings: Sequence[float], laid: Sequence[tuple[float, Pull]], sense: float) -> tuple[Floats, Floats]:
    """Largest bending moment of a shaft on two supports, N·m, and its place, m, (m,) each."""
    left, right = bearings
    loads = [(z, pull.steady + sense * pull.turning) for z, pull in laid]
    at_right = -sum(force * (z - left) for z, force in loads) / (right - left)
    at_left = -sum(force for _, force in loads) - at_right
    acting = [*loads, (left, np.asarray(at_left)), (right, np.asarray(at_right))]
    moments = [
        np.hypot(*sum((force * (place - z) for z, force in acting if z < place), np.zeros_like(acting[0][1])))
        for place, _ in acting
    ]
    at = np.argmax(moments, axis=0)
    return np.max(moments, axis=0), np.array([place for place, _ in acting])[at]


def _capacity(shaft: SourceShaft | ShaftMount | None, path: str) -> float:
    usual = USUAL_SOURCE_SHAFT if isinstance(shaft, SourceShaft) else USUAL_MATERIAL
    if shaft is None:
        return MATERIALS[usual].yields / SAFETY
    return (shaft.yield_strength or MATERIALS[shaft.material or usual].yields) / SAFETY


def _judged(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount | None, r: Reckoning) -> UseRow:
    """The row of a shaft of which all but its diameter is known."""
    capacity = _capacity(shaft, path)
    usual = USUAL_SOURCE_SHAFT if isinstance(shaft, SourceShaft) else USUAL_MATERIAL
    assumed = list(case.service)
    if shaft is not None and shaft.yield_strength is None:
        assumed.append(f"yield strength of {shaft.material or usual}")
    remarks = ("without weight and push of the road wheels",) if path == _last(case) else ()
    diameter = shaft.diameter if shaft is not None else None
    entry = _entry(case.design.fit or Mounting(), path)
    if diameter is None:
        return UseRow(
            CHECK,
            path,
            None,
            None,
            None,
            capacity,
            STRESS,
            None,
            "unknown",
            tuple(assumed),
            (f"fit.shafts[{entry}].diameter",),
            remarks,
        )
    mine = f"fit.shafts[{entry}]." if isinstance(shaft, ShaftMount) else "shaft."
    r.put("d_z", "diameter of the shaft", diameter, "length", f"{mine}diameter")
    r.put("K_A", "application factor", case.factor(_branch(case, path)), "ratio", origin="constant")
    r.step("sigma_b", "stress by bending", f"32*M/({math.pi}*d_z**3)", "stress")
    r.step("tau", "stress by twist", f"16*T_z/({math.pi}*d_z**3)", "stress")
    r.step("sigma", "both together, with the application factor", "K_A*sqrt(sigma_b**2 + 3*tau**2)", "stress")
    r.put("s_y", "yield strength", SAFETY * capacity, "stress", f"{mine}yield", origin="assumed")
    r.step("sigma_ok", "what it is allowed", f"s_y/{SAFETY:g}", "stress")
    strain = Strain(CHECK, STRESS, r, "sigma", "sigma_ok", assumed=tuple(assumed), remarks=remarks)
    return strained(path, strain, case.moments.names)


def _entry(mounting: Mounting, path: str) -> int:
    """Where the document speaks of a shaft, or would."""
    return next((i for i, shaft in enumerate(mounting.shafts) if shaft.shaft == path), len(mounting.shafts))


def _branch(case: LoadCase, path: str) -> int | None:
    """The branch that a shaft belongs to; None of the trunk's, and of the one where several branches join."""
    for b, branch in enumerate(case.design.drive.branches):
        last = f"drive.branches[{b}].stages[{len(branch.stages) - 1}]"
        if len(case.design.drive.branches) > 1 and path == last:
            return None
        if path.startswith(f"drive.branches[{b}]."):
            return b
    return None


def _last(case: LoadCase) -> str:
    """The shaft with the road wheels."""
    return case.line.shafts[-1].path
