"""What materials, teeth, belts, chains and fuses stand where no maker says, each with its source.

All of it is for choosing and comparing: a maker's own figure goes before it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from math import inf
from typing import Literal

import numpy as np

ZERO_CELSIUS = 273.15
"""K, by definition (ISO 80000-5)."""
Service = Literal["uniform", "light", "moderate", "heavy"]
APPLICATION = {
    "motor": {"uniform": 1.00, "light": 1.25, "moderate": 1.50, "heavy": 1.75},
    "engine": {"uniform": 1.50, "light": 1.75, "moderate": 2.00, "heavy": 2.25},
}
"""Application factor KA by what drives and how the load comes (ISO 6336-6, Calculation of load capacity of spur and
helical gears: Calculation of service life under variable load, guide values of the application factor; the engine has
one cylinder). It is defined on the nominal torque; here it multiplies the largest one, a margin."""
USUAL_SERVICE: Service = "light"


@dataclass(frozen=True, slots=True)
class Material:
    """What a material stands.

    Attributes:
        tooth: allowed stress at a tooth's root, Pa. yields: yield strength, Pa. softens: K, None of metals. tensile:
        strength, Pa; None of plastics, as it differs from piece to piece. endures: fatigue limit of a polished specimen
        as a share of that. endures_at_most: Pa that the limit does not pass. elasticity: Young's modulus, Pa.
        poisson: ratio. contact: pressure that lubricated tooth flanks stand a million times, Pa.
    """

    tooth: float
    yields: float
    softens: float | None
    tensile: float | None
    endures: float
    endures_at_most: float
    elasticity: float
    poisson: float
    contact: float


_MATERIALS = (
    # name            tooth  yield  softens  tensile  Se'/Sut  at most  E     ν     contact
    #                 MPa    MPa    °C       MPa               MPa      GPa         MPa
    ("hardened steel", 240.0, 600.0, None,   900.0,   0.5,     700.0,   210.0, 0.30, 1200.0),
    ("steel",          140.0, 235.0, None,   400.0,   0.5,     700.0,   210.0, 0.30, 500.0),
    ("cast iron",       55.0, 130.0, None,   200.0,   0.4,     inf,     105.0, 0.26, 350.0),
    ("brass",           60.0, 150.0, None,   350.0,   0.35,    inf,     100.0, 0.34, 250.0),
    ("aluminium",       80.0, 160.0, None,   300.0,   0.4,     130.0,   70.0,  0.33, 220.0),
    ("nylon",           40.0, 45.0,  75.0,   None,    0.2,     inf,     2.0,   0.40, 45.0),
    ("acetal",          40.0, 60.0,  100.0,  None,    0.2,     inf,     2.8,   0.35, 50.0),
    ("printed PLA",     18.0, 35.0,  55.0,   None,    0.2,     inf,     2.0,   0.35, 20.0),
    ("printed PETG",    18.0, 35.0,  72.0,   None,    0.2,     inf,     2.0,   0.35, 20.0),
    ("printed ABS",     15.0, 28.0,  95.0,   None,    0.2,     inf,     2.0,   0.35, 20.0),
    ("printed nylon",   20.0, 30.0,  70.0,   None,    0.2,     inf,     2.0,   0.35, 20.0),
)  # fmt: skip
MATERIALS = {
    name: Material(
        1e6 * tooth,
        1e6 * yields,
        None if softens is None else softens + ZERO_CELSIUS,
        None if tensile is None else 1e6 * tensile,
        endures,
        1e6 * most,
        1e9 * elasticity,
        poisson,
        1e6 * contact,
    )
    for name, tooth, yields, softens, tensile, endures, most, elasticity, poisson, contact in _MATERIALS
}
"""Usual values of machine design texts and of makers' data sheets; those of printed parts across the layers."""
MATERIAL_NAMES = tuple(MATERIALS)
USUAL_MATERIAL = "steel"
USUAL_SOURCE_SHAFT = "hardened steel"

_LEWIS = {
    10: 0.201, 11: 0.226, 12: 0.245, 13: 0.261, 14: 0.277, 15: 0.290, 16: 0.296, 17: 0.303, 18: 0.309, 19: 0.314,
    20: 0.322, 21: 0.328, 22: 0.331, 24: 0.337, 26: 0.346, 28: 0.353, 30: 0.359, 34: 0.371, 38: 0.384, 43: 0.397,
    50: 0.409, 60: 0.422, 75: 0.435, 100: 0.447, 150: 0.460, 300: 0.472,
}  # fmt: skip
_RACK = 0.485
LEAST_LEWIS = min(_LEWIS)
"""Teeth below which the form factor is that of this number."""


def lewis_form(teeth: float) -> float:
    """Lewis form factor Y of a full-depth tooth at 20° (Budynas and Nisbett, Shigley's Mechanical Engineering Design,
    chapter Spur and helical gears, table of values of the Lewis form factor).

    Args:
        teeth: of the gear; below the table its first value holds, above it that of the rack.
    """
    if teeth > max(_LEWIS):
        return _RACK
    return float(np.interp(teeth, list(_LEWIS), list(_LEWIS.values())))


_BELTS = {
    "curved": {2.0: 4.0, 3.0: 8.0, 5.0: 16.0, 8.0: 28.0, 14.0: 60.0},
    "trapezoidal": {2.032: 2.0, 2.5: 3.0, 5.0: 9.0, 5.08: 5.3, 9.525: 9.6, 10.0: 20.0, 12.7: 27.0},
}
"""Allowed force per width at full mesh of belts of usual width, N/mm, by pitch, mm (ISO 5295, Synchronous belts:
Calculation of power rating and drive centre distance; the low end of makers' data)."""
BELT_PROFILES = tuple(_BELTS)
_BASE_WIDTHS = {
    "curved": {2.0: 6.0, 3.0: 6.0, 5.0: 9.0, 8.0: 20.0, 14.0: 40.0},
    "trapezoidal": {2.032: 6.4, 5.08: 9.5, 9.525: 25.4, 12.7: 76.2},
}
"""Widths, mm, for which those forces hold; of the others, of metric trapezoidal teeth (DIN 7721), they hold for all."""
WIDTH_POWER = 0.14
"""Power of the width, over that one, with which the force per width grows: wide belts lose less at their edges (ISO
5295, width factor of power 1.14)."""
_CHAINS = {6.35: 3.5, 8.0: 4.4, 9.525: 7.9, 12.7: 13.8, 15.875: 21.8, 19.05: 28.9}
"""Breaking load, kN, by pitch, mm (ISO 606, Short-pitch transmission precision roller and bush chains)."""
NARROW_PITCH, NARROW_BREAKS = 12.7e-3, 6.7e3
"""Narrow chains of this pitch, m, break from this load on, N."""
SAME_PITCH = 1e-3
"""Relative difference within which a pitch is one of a table."""


def _at_pitch(table: dict[float, float], pitch: float) -> float | None:
    return next((value for mm, value in table.items() if math.isclose(1e3 * pitch, mm, rel_tol=SAME_PITCH)), None)


@dataclass(frozen=True, slots=True)
class BeltForce:
    """What a toothed belt is allowed to pull at full mesh, N/m, at its base width, m; None where it holds for all."""

    per_width: float
    base_width: float | None

    def at(self, width: float | None) -> float:
        """Of a belt of a width, m; of a usual one where that is not known, N/m."""
        return (
            self.per_width * ((width or self.base_width) / self.base_width) ** WIDTH_POWER
            if self.base_width
            else self.per_width
        )


def belt_force(pitch: float, profile: str | None) -> BeltForce | None:
    """The allowed force per width of a toothed belt; None of a pitch that is not known.

    Args:
        pitch: m.
        profile: curved or trapezoidal; without one the lower value of its pitch holds.
    """
    known = [
        (value, name)
        for name in ([profile] if profile else _BELTS)
        if (value := _at_pitch(_BELTS[name], pitch)) is not None
    ]
    if not known:
        return None
    value, name = min(known)
    base = _at_pitch(_BASE_WIDTHS[name], pitch)
    return BeltForce(1e3 * value, None if base is None else 1e-3 * base)


def chain_breaks(pitch: float) -> float | None:
    """Breaking load of a roller chain, N; None of a pitch, m, that is not known."""
    force = _at_pitch(_CHAINS, pitch)
    return None if force is None else 1e3 * force


_CHAIN_SPEEDS = {6.35: 5000.0, 8.0: 4500.0, 9.525: 4000.0, 12.7: 3000.0, 15.875: 2200.0, 19.05: 1800.0}
"""rpm that a sprocket of 17 teeth may turn with a lubricated chain, by pitch, mm (ISO 10823, Guidelines for the
selection of roller chain drives)."""
SPEED_TEETH = 17


def chain_speed(pitch: float) -> float | None:
    """How fast a sprocket of 17 teeth may turn, rad/s; None of a pitch, m, that is not known."""
    rpm = _at_pitch(_CHAIN_SPEEDS, pitch)
    return None if rpm is None else rpm * math.pi / 30.0


V_FRICTION = {"cast iron": 0.35, "pressed steel": 0.30, "aluminium": 0.30, "plastic": 0.27}
"""Friction of a clean V-belt on its pulleys at the point of slip."""
V_DESIGN = 0.512
"""What makers size V-belts by in place of friction over the sine of half the groove's angle: five to one around half a
turn (Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Flexible mechanical elements, V-belts)."""
V_SURFACE = {"cast iron": 1.0, "pressed steel": 0.9, "aluminium": 0.9, "plastic": 0.8}
"""Share of that which is left by what the pulleys are made of."""
V_GROOVES = (34.0, 38.0)
"""Degrees between which grooves are made that a V-belt fits."""
SURFACES = tuple(V_FRICTION)
WET = 0.6
"""What is left of friction on wet pulleys."""

FUSE = ((0.75, 1.10), (0.25, 1.35), (0.15, 1.6), (0.04, 2.0), (0.02, 3.5), (0.0, 6.0))
"""Times, s, and multiples of its rating that a blade fuse is sure to carry for no longer than that (ISO 8820-3, Road
vehicles: Fuse-links, fuse-links with tabs, operating times: the least ones; it may hold longer)."""
