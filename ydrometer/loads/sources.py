"""Checks of a motor's own bearing and of the plate that it is screwed to: what its first wheel draws at its shaft."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.document.sources import Motor
from ydrometer.document.stages import Stage
from ydrometer.document.stages.strain import FORCE, Passing, Strain
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow, strained

RADIAL, TILT = "radial_load", "plate_tilt"


@dataclass(frozen=True, slots=True)
class Drawn:
    """A motor with what its first stage draws at its shaft: its path, the stage's, and what goes through that."""

    path: str
    motor: Motor
    stage_path: str
    stage: Stage
    passing: Passing


def radial_load(case: LoadCase) -> Iterator[UseRow]:
    """The force across a motor's shaft against what its maker says of its bearings."""
    for drawn in _drawn(case):
        r, needs = _forced(drawn)
        if not needs:
            drawn.passing.applied(r)
            r.step("F_K", "with the application factor", "K_A*F_r", "force")
        rating = drawn.motor.radial_rating
        if rating is not None:
            r.put("F_ok", "force that its shaft stands", rating, "force", "radial_rating")
        needs += [] if rating else ["radial_rating"]
        strain = Strain(RADIAL, FORCE, r, "F_K", "F_ok", needs=tuple(needs))
        assumed = [*case.service, *([drawn.passing.loop.assumed] if drawn.passing.loop.assumed else [])]
        yield strained(drawn.path, strain, case.moments.names, assumed)


def plate_tilt(case: LoadCase) -> Iterator[UseRow]:
    """How far an overhung motor leans with its plate: the slope at the end of a strip that is held at the other and
    bent by the moment F·overhang, F·overhang·span/(E·I) (Budynas and Nisbett, Shigley's Mechanical Engineering Design,
    table of beams, cantilever with a moment).
    """
    for drawn in _drawn(case):
        mount = drawn.motor.mount
        if mount is None:
            continue
        r, needs = _forced(drawn)
        fit = case.design.fit
        said = fit.of(drawn.path) if fit else None
        plate = fit.plate.thickness if fit and fit.plate else None
        thickness, width = mount.thickness or plate, mount.width or (said.body if said else None)
        needs += [] if drawn.motor.shaft else ["shaft.overhang"]
        needs += [] if thickness else ["mount.thickness"]
        needs += [] if width else ["mount.width"]
        needs += [] if drawn.motor.mount_material else ["mount_material"]
        r.put("a_ok", "how far it may lean", drawn.stage.may_lean or 0.0, "angle", origin="constant")
        if not needs and drawn.motor.shaft is not None and thickness is not None and width is not None:
            material = drawn.motor.mount_material or USUAL_MATERIAL
            r.put("l_o", "overhang of its shaft", drawn.motor.shaft.overhang, "length", "shaft.overhang")
            r.put("l_s", "from its axis to where the plate is held", mount.span, "length", "mount.span")
            r.put("t_p", "thickness of the plate", thickness, "length", "mount.thickness" if mount.thickness else "")
            r.put("b_p", "width of the plate", width, "length", "mount.width" if mount.width else "")
            r.put(
                "E_p",
                "elasticity of the plate",
                MATERIALS[material].elasticity,
                "stress",
                origin="assumed",
                note=material,
            )
            r.step("a_p", "how far it leans", "F_r*l_o*l_s/(E_p*b_p*t_p**3/12)", "angle")
        strain = Strain(TILT, "rad", r, "a_p", "a_ok", needs=tuple(needs))
        yield strained(drawn.path, strain, case.moments.names)


def _drawn(case: LoadCase) -> Iterator[Drawn]:
    """Motors whose first stage draws at their shaft."""
    for b, motor in case.motors:
        first = case.first_behind(b)
        if first is not None and first.stage.may_lean is not None:
            yield Drawn(f"drive.branches[{b}].source", motor, first.path, first.stage, case.passing(first))


def _forced(drawn: Drawn) -> tuple[Reckoning, list[str]]:
    """Put in the force across, F_r; and what has to be known for it."""
    r, force = Reckoning(), drawn.stage.pull(drawn.passing)
    if force is None:
        form = drawn.stage.form
        return r, [f"{drawn.stage_path}.{form.size_keys[0]}"] if form else []
    r.put("F_r", f"force of the {drawn.stage.noun} across its shaft", np.abs(force), "force", origin="solved")
    return r, []
