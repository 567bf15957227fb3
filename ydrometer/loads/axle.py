"""The check of what a road wheel turns on: bent by its share of the weight and by what pushes it aside.

M = 1.5·N·(overhang + mu·r): a wheel that goes over a step carries half as much again, and its tyre slides at the
ground; of a live axle T = KA·F·r over the driven wheels besides (von Mises in shafts: Budynas and Nisbett, Shigley's
Mechanical Engineering Design, chapter Shafts and shaft components).
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document.stages.strain import STRESS, Strain
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.rows import UseRow, strained

CHECK = "axle_stress"
UNEVEN = 1.5
"""How many times its share of the weight a wheel carries on uneven ground."""
SAFETY = 2.0
FOUR = 4


def axle_stress(case: LoadCase) -> Iterator[UseRow]:
    """Bending, and twist where it turns with the wheel, against half the yield strength."""
    vehicle, r = case.design.vehicle, Reckoning()
    axle = vehicle.axle
    if axle is None:
        return
    _weight(case, r)
    r.put("l_a", "from its bearing to the middle of the wheel", axle.overhang, "length", "vehicle.axle.overhang")
    r.put("d_a", "diameter of the axle", axle.diameter, "length", "vehicle.axle.diameter")
    r.put("mu", "grip", vehicle.grip, "ratio", "vehicle.grip", origin="assumed")
    r.put("d_w", "diameter of the wheels", vehicle.wheel_diameter, "length", "vehicle.wheel_diameter")
    r.step("M_a", "bending moment, on uneven ground", f"{UNEVEN}*N_w*(l_a + mu*d_w/2)", "torque")
    r.step("sigma_b", "stress by bending", f"32*M_a/({math.pi}*d_a**3)", "stress")
    assumed = [] if axle.yield_strength else [f"yield strength of {axle.material or USUAL_MATERIAL}"]
    if axle.live:
        r.put("K_A", "application factor", case.factor(None), "ratio", origin="constant")
        force = np.abs(case.moments.states.force)
        r.put("F_w", "force at all driven wheels", force, "force", origin="solved")
        r.put("n_w", "driven wheels", float(vehicle.driven_wheels), "ratio", "vehicle.wheels", origin="default")
        r.step("T_a", "torque that it brings its wheel", "K_A*F_w*d_w/2/n_w", "torque")
        r.step("tau", "stress by twist", f"16*T_a/({math.pi}*d_a**3)", "stress")
        r.step("sigma", "both together", "sqrt(sigma_b**2 + 3*tau**2)", "stress")
        assumed = [*case.service, *assumed]
    else:
        r.step("sigma", "all of it", "sigma_b", "stress")
    material = axle.material or USUAL_MATERIAL
    yields = axle.yield_strength or MATERIALS[material].yields
    r.put("s_y", "yield strength", yields, "stress", "vehicle.axle.yield", origin="assumed", note=material)
    r.step("sigma_ok", "what it is allowed", f"s_y/{SAFETY:g}", "stress")
    strain = Strain(CHECK, STRESS, r, "sigma", "sigma_ok", assumed=tuple(assumed))
    yield strained("vehicle", strain, case.moments.names)


def _weight(case: LoadCase, r: Reckoning) -> None:
    """Put in what the most loaded wheel carries on the level, N_w: its share, of four the larger of both axles'."""
    vehicle = case.design.vehicle
    r.put("m_v", "mass, all-up", vehicle.total_mass, "mass", origin="solved")
    r.put("g_n", "gravity", STANDARD_GRAVITY, "acceleration", origin="constant")
    geometry = vehicle.geometry
    if vehicle.wheels == FOUR and geometry is not None:
        r.put("L_w", "wheelbase", geometry.wheelbase, "length", "vehicle.wheelbase")
        r.put("b_m", "centre of mass before the rear", geometry.ahead_of_rear, "length", "vehicle.cg_ahead_of_rear")
        r.step("N_w", "on the most loaded wheel", "m_v*g_n*max(b_m, L_w - b_m)/(2*L_w)", "force")
    else:
        r.put("n_v", "wheels", float(vehicle.wheels), "ratio", "vehicle.wheels", origin="default")
        r.step("N_w", "on each wheel", "m_v*g_n/n_v", "force")
