"""Pressure between the flanks of a pair of gears, which wears pits into them.

σH = ZE·√(KA·Kv·Ft/(b·d1)·(u ± 1)/u·2/(cos α·sin α)), with minus where the larger wheel is a ring, 1/ZE² = π·Σ(1 − ν²)/E
(ISO 6336-2, Calculation of load capacity of spur and helical gears: Calculation of surface durability (pitting), for a
contact at the pitch point).
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ydrometer.base.reckoning import Reckoning
from ydrometer.base.tables.strengths import MATERIALS, USUAL_MATERIAL
from ydrometer.document.stages.stage import Member
from ydrometer.document.stages.strain import STRESS, Strain

CHECK = "gear_pitting"
DRY = 0.7
"""Share of what lubricated flanks stand that dry ones do."""
LUBRICATED = "lubricated, for a million changes"


@dataclass(frozen=True, slots=True)
class Flanks:
    """The wheels of a row of gears, as far as their flanks matter.

    Attributes:
        members: in their order. width: m, None where it is not known. pressure_angle: rad. materials: by driver and
        driven; as is usual where it is not said. allowed: pressures that their makers give, by the same, Pa; None where
        none does. dry: whether they run without lubricant.
    """

    members: Sequence[Member]
    width: float | None
    pressure_angle: float
    materials: Mapping[str, str | None]
    allowed: Mapping[str, float | None]
    dry: bool

    def material(self, end: str) -> str:
        """Of driver or driven."""
        return self.materials[end] or USUAL_MATERIAL


def pitting(gear: Flanks, running: Reckoning, needs: tuple[str, ...]) -> Iterator[Strain]:
    """A row a wheel, each of its worse mesh.

    Args:
        gear: the row of gears.
        running: what its teeth pass, with its factors, as far as sizes are known.
        needs: keys of sizes that are not.
    """
    for at, member in enumerate(gear.members):
        r = running.copy()
        if not needs:
            _pressed(gear, r, at)
        assumed = _allowed(gear, r, member)
        name = member.key if member.idle else member.name
        yield Strain(CHECK, STRESS, r, "sigma_H", "sigma_Hok", name, assumed, needs)


def _pressed(gear: Flanks, r: Reckoning, at: int) -> None:
    """Put in the pressure at the worse mesh of the wheel at a place of the row."""
    meshes = [pair for pair in pairwise(range(len(gear.members))) if at in pair]
    first, second = max(meshes, key=lambda pair: _shape(gear, *pair))
    small, large = sorted((gear.members[first], gear.members[second]), key=lambda m: (m.form.encloses, m.measure))
    r.put("b_w", "width", gear.width or 0.0, "length", "width")
    r.put("z_1", f"teeth of the smaller wheel, the {small.name}", small.measure, "ratio", small.key)
    r.put("z_2", f"teeth of the {large.name}", large.measure, "ratio", large.key)
    r.put("alpha", "pressure angle", gear.pressure_angle, "angle", "pressure_angle")
    for number, member in ((1, small), (2, large)):
        material = _material(gear, member)
        data = MATERIALS[material]
        note = {"origin": "assumed", "note": material}
        r.put(f"E_{number}", f"elasticity of the {member.name}", data.elasticity, "stress", **note)
        r.put(f"nu_{number}", f"Poisson's ratio of the {member.name}", data.poisson, "ratio", **note)
    r.step("Z_E2", "elasticity of both, squared", f"1/({math.pi}*((1 - nu_1**2)/E_1 + (1 - nu_2**2)/E_2))", "stress")
    r.step("z_u", "ratio of their teeth", "z_2/z_1", "ratio")
    sign = "-" if large.form.encloses else "+"
    shape = f"(z_u {sign} 1)/z_u*2/(cos(alpha)*sin(alpha))"
    r.step("p_H", "what presses, over the width of the mesh", f"K_A*K_B*F_t/(b_w*m_n*z_1)*{shape}", "stress")
    r.step("sigma_H", "pressure between the flanks", "sqrt(Z_E2*p_H)", "stress")


def _shape(gear: Flanks, first: int, second: int) -> float:
    """What of a mesh's pressure follows from its two wheels alone: ZE²·(u ± 1)/(u·z1)."""
    small, large = sorted((gear.members[first], gear.members[second]), key=lambda m: (m.form.encloses, m.measure))
    data = [MATERIALS[_material(gear, member)] for member in (small, large)]
    yielding = sum((1.0 - each.poisson**2) / each.elasticity for each in data)
    u = large.measure / small.measure
    return (u - 1.0 if large.form.encloses else u + 1.0) / (u * small.measure * yielding)


def _material(gear: Flanks, member: Member) -> str:
    """Of a wheel; of an idler the softer of the two, as nobody says its own."""
    driver, driven = gear.material("driver"), gear.material("driven")
    if member.idle:
        return min((driver, driven), key=lambda name: MATERIALS[name].contact)
    return driver if member.name == "driver" else driven


def _allowed(gear: Flanks, r: Reckoning, member: Member) -> tuple[str, ...]:
    """Put in the pressure that the flanks of a wheel stand; returns what was assumed for it."""
    assumed = []
    ends = ("driver", "driven") if member.idle else (member.name,)
    for end in ends:
        given = gear.allowed[end]
        words = f"pressure that flanks of the {end} gear stand"
        if given is not None:
            r.put(f"p_{end}", words, given, "stress", f"{end}_allowed_contact")
            continue
        material = gear.material(end)
        assumed.append(f"allowed pressure of {material}, {'dry' if gear.dry else LUBRICATED}")
        stress = MATERIALS[material].contact
        r.put(f"s_{end}", f"{words} lubricated", stress, "stress", origin="assumed", note=material)
        r.put(f"k_{end}", "share of that which is left dry", DRY if gear.dry else 1.0, "ratio", origin="constant")
        r.step(f"p_{end}", words, f"k_{end}*s_{end}", "stress")
    softer = "min(p_driver, p_driven)" if member.idle else f"p_{member.name}"
    r.step("sigma_Hok", "what its flanks stand", softer, "stress")
    return tuple(dict.fromkeys(assumed))
