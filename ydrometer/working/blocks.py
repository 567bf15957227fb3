"""Pieces that many workings share: weight, resistance, ratios, sources with their supply, grip, brakes."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.document.design import Design
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.working.sheet import Sheet


@dataclass(frozen=True, slots=True)
class WorkingCase:
    """One design of an evaluation, and the sheet its working is written on."""

    evaluation: Evaluation
    index: int
    sheet: Sheet

    @property
    def design(self) -> Design:
        """The design."""
        return self.evaluation.documents[self.index].design

    def suffix(self, branch: int) -> str:
        """Distinguishes symbols of several branches."""
        return f"_{branch + 1}" if len(self.design.drive.branches) > 1 else ""


def weight(case: WorkingCase) -> None:
    """m, th and W = m·g·cos(th)."""
    s = case.sheet
    s.given("m_v", "mass of the vehicle", "vehicle.mass")
    s.given("m_p", "payload", "vehicle.payload")
    s.put("g", "standard gravity", STANDARD_GRAVITY, "acceleration")
    s.given("slope", "slope, rise over run", "conditions.grade")
    s.step("m", "all-up mass", "m_v + m_p", "mass")
    s.step("th", "angle of the slope", "atan(slope)", "angle")
    s.step("W", "weight on the ground", "m*g*cos(th)", "force")


def standing_resistance(case: WorkingCase) -> None:
    """F_rr and F_grade."""
    s = case.sheet
    weight(case)
    s.given("C_rr", "rolling resistance", "vehicle.rolling_resistance")
    s.given("F_fixed", "drag that is always there", "vehicle.fixed_drag")
    s.step("F_rr", "rolling resistance and fixed drag", "C_rr*W + F_fixed", "force")
    s.step("F_grade", "pull of the slope", "m*g*sin(th)", "force")


def resistance(case: WorkingCase) -> None:
    """F_res at the speed v."""
    s = case.sheet
    standing_resistance(case)
    s.given("rho", "density of the air", "conditions.air_density")
    s.given("C_dA", "drag area", "vehicle.drag_area")
    s.step("F_air", "drag of the air", "0.5*rho*C_dA*v**2", "force")
    s.step("F_res", "resistance", "F_rr + F_air + F_grade", "force")


def radius(case: WorkingCase) -> None:
    """r from the rolling diameter."""
    case.sheet.given("D", "rolling diameter, loaded", "vehicle.wheel_diameter")
    case.sheet.step("r", "rolling radius", "D/2", "length")


def geometry(case: WorkingCase) -> bool:
    """L, b and h where they are given."""
    if case.design.vehicle.geometry is None:
        return False
    s = case.sheet
    s.given("L", "wheelbase", "vehicle.wheelbase")
    s.given("b", "centre of mass ahead of the rear axle", "vehicle.cg_ahead_of_rear")
    s.given("h", "height of the centre of mass", "vehicle.cg_height")
    return True


def axle_share(case: WorkingCase) -> str:
    """The share of the weight on the driven wheels at rest, as an expression."""
    vehicle, s = case.design.vehicle, case.sheet
    if vehicle.driven_share is not None:
        s.given("share", "share of the weight on the driven wheels", "vehicle.driven_share")
        return "share"
    if geometry(case):
        return {"all": "1", "rear": "(L - b)/L", "front": "b/L"}[vehicle.driven]
    return "1"


def traction(case: WorkingCase) -> None:
    """F_trac at the speed v, with weight transfer and the lifting of the front wheels."""
    s, vehicle = case.sheet, case.design.vehicle
    resistance(case)
    s.given("mu", "grip", "vehicle.grip")
    share = axle_share(case)
    transfer = {"all": "0", "rear": "h/L", "front": "-h/L"}[vehicle.driven] if vehicle.geometry else "0"
    moving = "(F_rr + F_air)"
    held = f"mu*({share}*W - {transfer}*{moving})/(1 - mu*{transfer})" if transfer != "0" else f"mu*{share}*W"
    lifts = vehicle.geometry is not None and vehicle.driven != "front"
    if lifts:
        s.step("F_lift", "force at which the front wheels lift", f"W*b/h + {moving}", "force")
        beyond = transfer != "0" and s.known["mu"] * s.known["h"] / s.known["L"] >= 1.0
        held = "F_lift" if beyond else f"min({held}, F_lift)"
    s.step("F_trac", "what the tyres hold", held, "force")


def wall(case: WorkingCase) -> None:
    """What the tyres hold at a wall."""
    s, vehicle = case.sheet, case.design.vehicle
    standing_resistance(case)
    s.given("mu", "grip", "vehicle.grip")
    share = axle_share(case)
    sign = {"all": "", "rear": " + h/L*F_grade", "front": " - h/L*F_grade"}[vehicle.driven] if vehicle.geometry else ""
    s.step("F_wall", "what the tyres hold at a wall", f"max(0, min(mu*({share}*W{sign}), mu*W))", "force")


def braking(case: WorkingCase) -> None:
    """The constant deceleration of the brakes."""
    s, vehicle = case.sheet, case.design.vehicle
    standing_resistance(case)
    s.given("mu", "grip", "vehicle.grip")
    s.given("s_b", "share of the weight that brakes", "vehicle.braked_share")
    held = ["mu*W*s_b"]
    if vehicle.brake_force is not None:
        s.given("F_b", "force of the brakes", "vehicle.brake_force")
        held.append("F_b")
    if geometry(case):
        held.append("W*(L - b)/h")
    s.step("F_brake", "braking force", f"min({', '.join(held)})" if len(held) > 1 else held[0], "force")
    s.step("b_rate", "deceleration", "F_brake/m + g*sin(th)", "acceleration")
