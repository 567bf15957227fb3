"""Checks of shafts: bent by what pulls at their wheels, twisted by what they pass.

Stress is compared as σv = √(σb² + 3·τ²), σb = 32·M/(π·d³), τ = 16·T/(π·d³) (von Mises in shafts: Budynas and Nisbett,
Shigley's Mechanical Engineering Design, chapter Shafts and shaft components, shaft stresses).
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables.strengths import MATERIALS
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.sources import SourceShaft
from ydrometer.document.stages.plane import Contact
from ydrometer.document.stages.strain import STRESS, Strain
from ydrometer.fit.coupling import Coupling
from ydrometer.fit.setup import Setup
from ydrometer.loads.bearings import lives
from ydrometer.loads.bending import bearings_of, bent, couplings_at, pulls_of
from ydrometer.loads.fatigue import ENDURES, FATIGUE, endures
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.loops import said
from ydrometer.loads.moments import SHOVE
from ydrometer.loads.on_shafts import material_of, own_shaft, place_in_fit
from ydrometer.loads.passing import Through
from ydrometer.loads.rows import UseRow, strained

CHECK = "shaft_stress"
SAFETY = 2.0
"""Share of its yield strength that a shaft is allowed: one half."""
TWO = 2


@dataclass(frozen=True, slots=True)
class NotJudged:
    """A check that nothing can be said about."""

    check: str
    path: str


def shafts(case: LoadCase) -> tuple[list[UseRow], list[NotJudged]]:
    """The rows of all shafts, and those that nothing can be said about."""
    rows, unjudged = [], []
    for setup in case.setups:
        for path in setup.plane.shafts:
            if not any(path in coupling.shafts for coupling in setup.plane.couplings) and not _lacking(setup, path):
                continue
            mine = _rows(case, setup, path)
            rows += mine
            unjudged += [] if mine else [NotJudged(CHECK, path)]
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


def _rows(case: LoadCase, setup: Setup, path: str) -> list[UseRow]:
    """The rows of one shaft; none where nothing can be said."""
    own, mount = own_shaft(case.design, path), setup.mounting.of(path)
    bearings = bearings_of(mount.stack) if mount and mount.stack else []
    mine = couplings_at(setup, path)
    whole = _is_of_one_piece(case, setup, path) and _is_carried(own, mount, bearings)
    if not whole or not _is_told(setup, mine, alone=own is not None):
        return []
    shaft = own or mount
    assert shaft is not None  # it is carried
    lacking = _lacking(setup, path)
    if lacking:
        return [*_unknown(case, path, shaft, [f"{stage}.{_size_key(case, stage)}" for stage in lacking])]
    through = {stage.path: stage for stage in case.line.stages}
    pulls = pulls_of(case, setup, path, through)
    bend = None if pulls is None else bent(own, mount, bearings, pulls, _passed(case, path, through))
    if bend is None:
        return []
    if shaft.diameter is None:
        return [*_unknown(case, path, shaft, [f"{_place(case, path, shaft)}diameter"])]
    rows = [_stress(case, path, shaft, bend.copy()), _fatigue(case, path, shaft, bend)]
    if mount is not None and own is None and mount.overhang is None:
        rows += lives(case, setup, mount, path)
    return rows


def _is_of_one_piece(case: LoadCase, setup: Setup, path: str) -> bool:
    """Whether a shaft is one: not the two in line of a box, nor several sources that come together."""
    return path not in setup.plane.in_line.values() and not _joins_several(case, path)


def _is_carried(own: SourceShaft | None, mount: ShaftMount | None, bearings: Sequence[float]) -> bool:
    """Whether it is known how a shaft is carried: a source's own, overhung, or on two bearings."""
    return own is not None or (mount is not None and (mount.overhang is not None or len(bearings) == TWO))


def _is_told(setup: Setup, couplings: Sequence[Coupling], *, alone: bool) -> bool:
    """Whether the forces of all couplings can be told: nothing is pressed on, and their shafts have places. Of a
    source's own shaft that does not matter: one force acts on it, in whatever direction.
    """
    pressed = any(isinstance(coupling.stage.in_plane, Contact) for coupling in couplings)
    return not pressed and (alone or all(said(setup, coupling) for coupling in couplings))


def _size_key(case: LoadCase, path: str) -> str:
    """The key of the size of a stage's teeth."""
    form = next(through.stage for through in case.line.stages if through.path == path).form
    assert form is not None  # it has wheels of which nobody knows how large they are
    return form.size_keys[0]


def _joins_several(case: LoadCase, path: str) -> bool:
    """Whether several sources of a branch come together on a shaft."""
    for b, branch in enumerate(case.design.drive.branches):
        last = f"drive.branches[{b}].stages[{len(branch.stages) - 1}]" if branch.stages else ""
        if branch.count > 1 and path == last:
            return True
    return False


def _passed(case: LoadCase, path: str, through: Mapping[str, Through]) -> Floats:
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


def _place(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount) -> str:
    """How the keys of a shaft begin: below its source, or of the whole document."""
    if isinstance(shaft, SourceShaft):
        return f"{path}.shaft."
    return f"fit.shafts[{place_in_fit(case.design, path)}]."


def _unknown(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount, needs: Sequence[str]) -> Iterator[UseRow]:
    """The rows of a shaft of which a size is not known."""
    allowed = (shaft.yield_strength or MATERIALS[material_of(shaft)].yields) / SAFETY
    for check, capacity, unit in ((CHECK, allowed, STRESS), (FATIGUE, ENDURES, "")):
        assumed = _assumed(case, shaft, yields=check == CHECK)
        yield UseRow(check, path, None, None, None, capacity, unit, None, "unknown", assumed, tuple(needs))


def _assumed(case: LoadCase, shaft: SourceShaft | ShaftMount, *, yields: bool) -> tuple[str, ...]:
    given = shaft.yield_strength if yields else shaft.tensile
    name = "yield strength" if yields else "tensile strength"
    return (*case.service, *(() if given else (f"{name} of {material_of(shaft)}",)))


def _remarks(case: LoadCase, path: str) -> tuple[str, ...]:
    return ("without weight and push of the road wheels",) if path == _last(case) else ()


def _loaded(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount, r: Reckoning) -> str:
    """Put in diameter and application factor; returns how the keys of the shaft begin."""
    mine = _place(case, path, shaft).removeprefix(f"{path}.")
    r.put("d_z", "diameter of the shaft", shaft.diameter or 0.0, "length", f"{mine}diameter")
    r.put("K_A", "application factor", case.factor(_branch(case, path)), "ratio", origin="constant")
    return mine


def _stress(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount, r: Reckoning) -> UseRow:
    """Bending and twist against half the yield strength."""
    mine = _loaded(case, path, shaft, r)
    material = material_of(shaft)
    r.step("sigma_b", "stress by bending", f"32*M/({math.pi}*d_z**3)", "stress")
    r.step("tau", "stress by twist", f"16*T_z/({math.pi}*d_z**3)", "stress")
    r.step("sigma", "both together, with the application factor", "K_A*sqrt(sigma_b**2 + 3*tau**2)", "stress")
    yields = shaft.yield_strength or MATERIALS[material].yields
    r.put("s_y", "yield strength", yields, "stress", f"{mine}yield", origin="assumed", note=material)
    r.step("sigma_ok", "what it is allowed", f"s_y/{SAFETY:g}", "stress")
    assumed = _assumed(case, shaft, yields=True)
    strain = Strain(CHECK, STRESS, r, "sigma", "sigma_ok", assumed=assumed, remarks=_remarks(case, path))
    return strained(path, strain, case.moments.names)


def _fatigue(case: LoadCase, path: str, shaft: SourceShaft | ShaftMount, r: Reckoning) -> UseRow:
    """Bent anew with every turn, and twisted: as a share of what it endures without end."""
    mine = _loaded(case, path, shaft, r)
    turns = np.array([name != SHOVE for name in case.moments.names], float)
    known = endures(r, shaft, material_of(shaft), mine, turns)
    needs = () if known else (f"{_place(case, path, shaft)}tensile",)
    assumed = _assumed(case, shaft, yields=False) if known else tuple(case.service)
    strain = Strain(FATIGUE, "", r, "n_f", "n_ok", "", assumed, needs, _remarks(case, path))
    return strained(path, strain, case.moments.names)


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
