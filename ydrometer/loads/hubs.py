"""Checks of how wheels are held on their shafts: keys, set screws, clamps, press fits.

A key is crushed by 2·T/(d·l·(h − t1)) and sheared by 2·T/(d·b·l) (DIN 6892, Parallel keys: Calculation and design); a
set screw holds the force of its size at the shaft's surface, a clamp what friction makes of its preload (Budynas and
Nisbett, Shigley's Mechanical Engineering Design, chapter Shafts and shaft components, setscrews, keys and pins).
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables.keys import key_for
from ydrometer.base.tables.screws import CLAMP_FRICTION, ON_A_FLAT, SCREWS
from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.document.mounting import ShaftMount
from ydrometer.document.sources import SourceShaft
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.strain import STRESS, TORQUE, Strain
from ydrometer.loads.load_case import LoadCase
from ydrometer.loads.on_shafts import driver_shaft, joined_at, material_of, said_of
from ydrometer.loads.passing import Through
from ydrometer.loads.rows import UseRow, strained

Shaft = SourceShaft | ShaftMount | None
CRUSHED, SHEARED = 1.5, 2.0
"""Margins of a key against yielding: crushed at its sides, and sheared along."""
SHEAR = 0.577
"""Yield in shear over that in tension (von Mises)."""
CHECKS = {"key": "key", "set screw": "set_screw", "clamp": "clamp", "press": "press"}
"""What each way to hold a hub is called among the checks."""


def hubs(case: LoadCase) -> Iterator[UseRow]:
    """A row for each wheel of which it is said how it is held."""
    for through in case.line.stages:
        for end in ("driver", "driven"):
            hub = through.stage.hub(end)
            if hub is not None:
                yield _judged(case, through, end, hub)


def _judged(case: LoadCase, through: Through, end: str, hub: Hub) -> UseRow:
    passing = case.passing(through)
    r = passing.driver() if end == "driver" else passing.output()
    if end == "driver":
        passing.applied(r)
    path = through.path if end == "driven" else driver_shaft(case.design, through.path)
    shaft = said_of(case.design, path)
    joined = float(joined_at(case.design, through.path, end))
    r.put("n_j", "how many sources come together at it", joined, "ratio", origin="solved")
    torque = "T_d" if end == "driver" else "T_o"
    r.step("T_h", "torque that it passes, with the application factor", f"K_A*n_j*{torque}", "torque")
    key = f"{end}_hub"
    if hub.torque is not None:
        r.put("T_ok", "torque that its maker allows", hub.torque, "torque", f"{key}.torque")
        return _row(case, through, Strain(CHECKS[hub.by], TORQUE, r, "T_h", "T_ok", end))
    size = hub.bore or (shaft.diameter if shaft else None)
    if hub.by == "press":
        return _row(case, through, Strain("press", TORQUE, r, "T_h", "", end, needs=(f"{key}.torque",)))
    needs = [] if size else [f"{key}.bore"]
    if size:
        r.put("d_h", "diameter that it is held on", size, "length", f"{key}.bore" if hub.bore else "")
    if hub.by == "key":
        return _row(case, through, _keyed(r, hub, end, shaft, size, needs))
    return _row(case, through, _screwed(r, hub, end, size, needs))


def _row(case: LoadCase, through: Through, strain: Strain) -> UseRow:
    return strained(through.path, strain, case.moments.names, case.service)


def _screwed(r: Reckoning, hub: Hub, end: str, size: float | None, needs: list[str]) -> Strain:
    """Held by the points of set screws, or by the friction that clamping screws make."""
    check, key = CHECKS[hub.by], f"{end}_hub"
    screw = SCREWS.get(hub.screw or "")
    # Of sizes that the table does not have only the maker knows.
    needs += [] if screw else [f"{key}.torque" if hub.screw else f"{key}.screw"]
    if needs or screw is None or size is None:
        return Strain(check, TORQUE, r, "T_h", "", end, needs=tuple(needs))
    r.put("n_s", "screws", float(hub.count), "ratio", f"{key}.count", origin="default")
    note = hub.screw or ""
    if hub.by == "clamp":
        r.put("F_p", f"preload of a screw of {note}", screw.preload, "force", origin="assumed", note=note)
        r.put("mu_c", "friction of a clamp", CLAMP_FRICTION, "ratio", origin="constant")
        r.step("T_ok", "torque that it holds", "mu_c*F_p*d_h*n_s", "torque")
    else:
        r.put("F_s", f"force that a screw of {note} holds", screw.holds, "force", origin="assumed", note=note)
        r.put("k_f", "times as much on a flat", ON_A_FLAT if hub.flat else 1.0, "ratio", origin="constant")
        r.step("T_ok", "torque that they hold", "F_s*k_f*d_h/2*n_s", "torque")
    assumed = (f"what a screw of {note} holds, ± 25 %",)
    return Strain(check, TORQUE, r, "T_h", "T_ok", end, assumed, tuple(needs))


def _keyed(r: Reckoning, hub: Hub, end: str, shaft: Shaft, size: float | None, needs: list[str]) -> Strain:
    """Held by a parallel key: crushed at its sides, or sheared along, whichever is the worse."""
    key = f"{end}_hub"
    section = key_for(size) if size else None
    needs += [f"{key}.torque"] if size and section is None else []
    needs += [] if hub.length else [f"{key}.length"]
    if needs or section is None or hub.length is None:
        return Strain("key", STRESS, r, needs=tuple(needs), member=end)
    r.put("l_k", "length of its straight part", hub.length, "length", f"{key}.length")
    for symbol, words, value in (
        ("b_k", "width", section.width),
        ("h_k", "height", section.height),
        ("t_1", "depth in the shaft", section.in_shaft),
    ):
        r.put(symbol, f"{words} of its key", value, "length", origin="constant", note="by the diameter of the shaft")
    r.step("p_k", "pressure at its sides", "2*T_h/(d_h*l_k*(h_k - t_1))", "stress")
    r.step("tau_k", "shear along it", "2*T_h/(d_h*b_k*l_k)", "stress")
    assumed = _yields(r, hub, shaft)
    r.step("p_ok", "pressure that the softest of the three is allowed", f"min(min(s_s, s_h), s_k)/{CRUSHED}", "stress")
    r.step("tau_ok", "shear that the key is allowed", f"{SHEAR}*s_k/{SHEARED}", "stress")
    crushed = float(np.max(r.known["p_k"])) / float(r.known["p_ok"])
    sheared = float(np.max(r.known["tau_k"])) / float(r.known["tau_ok"])
    wants, stands = ("p_k", "p_ok") if crushed >= sheared else ("tau_k", "tau_ok")
    return Strain("key", STRESS, r, wants, stands, end, assumed)


def _yields(r: Reckoning, hub: Hub, shaft: Shaft) -> tuple[str, ...]:
    """Put in yield strengths of shaft, hub and key; returns what was assumed."""
    given, material = shaft.yield_strength if shaft else None, material_of(shaft)
    if given is not None:
        r.put("s_s", "yield strength of the shaft", given, "stress", origin="given")
    else:
        r.put(
            "s_s", "yield strength of the shaft", MATERIALS[material].yields, "stress", origin="assumed", note=material
        )
    assumed = [] if given is not None else [f"yield strength of {material}"]
    for symbol, words, named in (("s_h", "hub", hub.material), ("s_k", "key", hub.key_material)):
        name = named or USUAL_MATERIAL
        r.put(symbol, f"yield strength of the {words}", MATERIALS[name].yields, "stress", origin="assumed", note=name)
        assumed.append(f"yield strength of {name}")
    return tuple(dict.fromkeys(assumed))
