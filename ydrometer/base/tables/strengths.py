"""What materials, teeth, belts, chains and fuses stand where no maker says, each with its source.

All of it is for choosing and comparing: a maker's own figure goes before it.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
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
    """What a material stands: allowed stress at a tooth's root, yield strength, Pa, and where it softens, K.

    Attributes:
        tooth, yields. softens: None of metals.
    """

    tooth: float
    yields: float
    softens: float | None


_MATERIALS = (
    # name             tooth MPa  yield MPa  softens °C
    ("hardened steel", 240.0,     600.0,     None),
    ("steel",          140.0,     235.0,     None),
    ("cast iron",       55.0,     130.0,     None),
    ("brass",           60.0,     150.0,     None),
    ("aluminium",       80.0,     160.0,     None),
    ("nylon",           40.0,      45.0,     75.0),
    ("acetal",          40.0,      60.0,     100.0),
    ("printed PLA",     18.0,      35.0,     55.0),
    ("printed PETG",    18.0,      35.0,     72.0),
    ("printed ABS",     15.0,      28.0,     95.0),
    ("printed nylon",   20.0,      30.0,     70.0),
)  # fmt: skip
MATERIALS = {
    name: Material(1e6 * tooth, 1e6 * yields, None if softens is None else softens + ZERO_CELSIUS)
    for name, tooth, yields, softens in _MATERIALS
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
"""Allowed force per width at full mesh, N/mm, by pitch, mm (ISO 5295, Synchronous belts: Calculation of power rating
and drive centre distance; the low end of makers' data)."""
BELT_PROFILES = tuple(_BELTS)
_CHAINS = {6.35: 3.5, 8.0: 4.4, 9.525: 7.9, 12.7: 13.8, 15.875: 21.8, 19.05: 28.9}
"""Breaking load, kN, by pitch, mm (ISO 606, Short-pitch transmission precision roller and bush chains)."""
NARROW_PITCH, NARROW_BREAKS = 12.7e-3, 6.7e3
"""Narrow chains of this pitch, m, break from this load on, N."""
SAME_PITCH = 1e-3
"""Relative difference within which a pitch is one of a table."""


def _at_pitch(table: dict[float, float], pitch: float) -> float | None:
    return next((value for mm, value in table.items() if math.isclose(1e3 * pitch, mm, rel_tol=SAME_PITCH)), None)


def belt_force_per_width(pitch: float, profile: str | None) -> float | None:
    """What a toothed belt is allowed to pull at full mesh, N/m; None of a pitch that is not known.

    Args:
        pitch: m.
        profile: curved or trapezoidal; without one the lower value of its pitch holds.
    """
    tables = [_BELTS[profile]] if profile else list(_BELTS.values())
    forces = [value for table in tables if (value := _at_pitch(table, pitch)) is not None]
    return 1e3 * min(forces) if forces else None


def chain_breaks(pitch: float) -> float | None:
    """Breaking load of a roller chain, N; None of a pitch, m, that is not known."""
    force = _at_pitch(_CHAINS, pitch)
    return None if force is None else 1e3 * force


V_FRICTION = {"cast iron": 0.35, "pressed steel": 0.30, "aluminium": 0.30, "plastic": 0.27}
"""Design values of the friction of a V-belt on its pulleys; at the point of slip a clean belt has more."""
SURFACES = tuple(V_FRICTION)
WET = 0.6
"""What is left of friction on wet pulleys."""

FUSE = ((0.75, 1.10), (0.25, 1.35), (0.15, 1.6), (0.04, 2.0), (0.02, 3.5), (0.0, 6.0))
"""Times, s, and multiples of its rating that a blade fuse is sure to carry for no longer than that (ISO 8820-3, Road
vehicles: Fuse-links, fuse-links with tabs, operating times: the least ones; it may hold longer)."""
