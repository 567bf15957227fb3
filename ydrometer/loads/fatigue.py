"""What a shaft endures that is bent anew with every turn, while what it passes twists it one way.

n = 16/(π·d³)·(2·Kf·M/Se + √3·Kfs·T/Sut), against 1 over a margin; Se = ka·kb·Se' of the limit that a polished specimen
endures without end (Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and shaft components,
DE-Goodman criterion; chapter Fatigue failure resulting from variable loading, Marin factors).
"""

from __future__ import annotations

import math

from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables.fatigue import (
    LARGE,
    LARGE_SIZE,
    LARGE_SIZE_POWER,
    SIZE,
    SIZE_POWER,
    SURFACE,
    SURFACE_POWER,
    concentration,
)
from ydrometer.base.tables.strengths import MATERIALS
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.sources import SourceShaft

FATIGUE = "shaft_fatigue"
MARGIN = 1.5
ENDURES = 1.0 / MARGIN
"""Share of what it endures that a shaft is allowed."""


def endures(r: Reckoning, shaft: SourceShaft | ShaftMount, material: str, mine: str, turns: Floats) -> bool:
    """Put in what share of its endurance a shaft takes, n_f, and what it is allowed, n_ok; whether that is known.

    Args:
        r: knows M, T_z, d_z and K_A.
        shaft: of known diameter.
        material: of it.
        mine: how the keys of the shaft begin.
        turns: 1 at each moment at which it turns, 0 at others, (m,).
    """
    r.put("n_ok", "share that it is allowed", ENDURES, "ratio", origin="constant")
    tensile = _tensile(r, shaft, material, mine)
    if tensile is None or shaft.diameter is None:
        return False
    _limit(r, material, shaft.diameter)
    raised = concentration(shaft.shape, shaft.notch)
    words = " and ".join([shaft.shape, *([shaft.notch] if shaft.notch else [])])
    r.put("K_f", "how much its shape and notch raise bending", raised.bent, "ratio", f"{mine}notch", note=words)
    r.put("K_fs", "how much they raise twist", raised.twisted, "ratio", f"{mine}notch", note=words)
    r.put("q_t", "1 where it turns", turns, "ratio", origin="solved")
    bending, twist = "2*K_f*M/S_e", "sqrt(3)*K_fs*T_z/S_ut"
    share = f"q_t*K_A*16/({math.pi}*d_z**3)*({bending} + {twist})"
    r.step("n_f", "share of what it endures", share, "ratio")
    return True


def _tensile(r: Reckoning, shaft: SourceShaft | ShaftMount, material: str, mine: str) -> float | None:
    """Put in the tensile strength, S_ut: as given, else of the material, and never below a yield strength that is."""
    given, usual = shaft.tensile, MATERIALS[material].tensile
    if given is None and usual is None:
        return None
    tensile = given or usual or 0.0
    note = "" if given else material
    if shaft.yield_strength is not None and shaft.yield_strength > tensile:
        tensile, note = shaft.yield_strength, "no less than its yield strength"
    r.put("S_ut", "tensile strength", tensile, "stress", f"{mine}tensile", origin="assumed", note=note)
    return tensile


def _limit(r: Reckoning, material: str, diameter: float) -> None:
    """Put in the stress that the shaft endures without end, S_e, of one whose strength is known."""
    data = MATERIALS[material]
    r.put("k_e", "fatigue limit of a specimen over that", data.endures, "ratio", origin="constant", note=material)
    if math.isinf(data.endures_at_most):
        r.step("S_e0", "fatigue limit of a polished specimen", "k_e*S_ut", "stress")
    else:
        r.put("S_em", "which is no more than", data.endures_at_most, "stress", origin="constant", note=material)
        r.step("S_e0", "fatigue limit of a polished specimen", "min(k_e*S_ut, S_em)", "stress")
    r.step("k_a", "left by a machined surface", f"min(1, {SURFACE}*(S_ut/1e6)**({SURFACE_POWER}))", "ratio")
    size, power = (LARGE_SIZE, LARGE_SIZE_POWER) if diameter > LARGE else (SIZE, SIZE_POWER)
    r.step("k_b", "left by its size", f"min(1, {size}*(1e3*d_z)**({power}))", "ratio")
    r.step("S_e", "stress that it endures without end", "k_a*k_b*S_e0", "stress")
