"""A pair of spur gears, external or internal, with or without idlers between them."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar, Self

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled, parts, strength
from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables import efficiencies
from ydrometer.base.tables.strengths import LEAST_LEWIS, MATERIALS, USUAL_MATERIAL, lewis_form
from ydrometer.document.stages import bring, fields, forms, gear_build, gear_contact, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.made import MadeWheels
from ydrometer.document.stages.plane import Mesh
from ydrometer.document.stages.stage import Member, Reversal
from ydrometer.document.stages.strain import STRESS, Passing, Strain

USUAL_ANGLE = math.radians(20.0)
OTHER_ANGLE = "the form factor is that of teeth at 20 degrees"
BARTH = 6.1
"""m/s of Barth's factor for cut teeth."""
REVERSED = 0.7
"""Share of its strength that a tooth has left which is bent both ways."""
MAY_LEAN = math.radians(0.2)
"""How far one of its shafts may lean before its teeth bear on one end alone (makers' manuals)."""
IDLER = 20
"""Teeth of an idler that is offered."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Gear(wheeled.Toothed):
    """Driver and driven gear; an idler changes no ratio: one more mesh of loss, one more reversal.

    Sizes (module or diametral pitch) are needed for drawing and fit alone.
    """

    kind: ClassVar[str] = "gear"
    title: ClassVar[str] = "Gear pair"
    short: ClassVar[str] = "Gears"
    noun: ClassVar[str] = "gears"
    form: ClassVar[forms.Form] = forms.GEAR
    idlers_key: ClassVar[str] = "idlers"
    in_plane: ClassVar[Mesh] = Mesh(
        "A strip of paper of that thickness runs through the mesh and comes out creased, not cut."
    )
    brings: ClassVar[tuple[bring.Bring, ...]] = bring.GEARS
    may_lean: ClassVar[float] = MAY_LEAN
    start: ClassVar[dict[str, object]] = {"driver_teeth": 16, "driven_teeth": 48, "module": "1 mm"}

    driver_teeth: int = fields.teeth()
    driven_teeth: int = fields.teeth()
    idlers: tuple[int, ...] = reading.items(reading.whole_reader(forms.LEAST_TEETH, forms.MOST_TEETH))
    module: float | None = labelled("Module", reading.quantity("length", above=0.0, at_most=1.0, default=None))
    diametral_pitch: float | None = reading.quantity("diametral pitch", above=1.0, default=None)
    pressure_angle: float = reading.quantity("angle", above=0.0, at_most=0.8, default=0.3490658503988659)
    width: float | None = fields.width()
    driver_material: str | None = fields.material("Material of the driver")
    driven_material: str | None = fields.material("Material of the driven gear")
    driver_allowed_stress: float | None = fields.allowed_stress("Stress that the driver's teeth stand")
    driven_allowed_stress: float | None = fields.allowed_stress("Stress that the driven teeth stand")
    driver_allowed_contact: float | None = fields.allowed_stress("Pressure that the driver's flanks stand")
    driven_allowed_contact: float | None = fields.allowed_stress("Pressure that the driven flanks stand")
    dry: bool = strength("Runs dry", reading.flag())
    driver_hub: Hub | None = fields.hub("driver")
    driven_hub: Hub | None = fields.hub("driven")
    internal: bool = labelled("Internal: the driven gear is a ring", reading.flag())
    make: MadeWheels | None = parts(MadeWheels, reading.nested(MadeWheels, default=None), group="The ring")
    efficiency: float | None = fields.efficiency()

    @property
    def meshes(self) -> int:
        """Tooth contacts that power passes on its way."""
        return 1 + len(self.idlers)

    @property
    def default_efficiency(self) -> float:
        """Every mesh loses its share; the last one is the internal one where the driven gear is a ring."""
        last = efficiencies.INTERNAL_MESH if self.internal else efficiencies.EXTERNAL_MESH
        return float(last * efficiencies.EXTERNAL_MESH ** len(self.idlers))

    @property
    def rotation(self) -> int:
        """Each external mesh reverses, an internal one does not."""
        external = self.meshes - self.internal
        return -1 if external % 2 else 1

    @property
    def members(self) -> tuple[Member, ...]:
        """Driver, idlers, driven."""
        idlers = (
            Member(f"idler {i + 1}", self.measure_key(f"idler {i + 1}"), forms.GEAR, teeth, idle=True)
            for i, teeth in enumerate(self.idlers)
        )
        driven = Member("driven", "driven_teeth", forms.GEAR, self.driven_teeth)
        if self.internal:
            driven = driven._replace(form=forms.RING, outside=self._outside)
        return Member("driver", "driver_teeth", forms.GEAR, self.driver_teeth), *idlers, driven

    @property
    def _outside(self) -> float | None:
        return self.make.driven.outside if self.make and self.make.driven else None

    @property
    def tooth_size(self) -> float | None:
        """Module in metres, from whichever size was given (ISO 54, Cylindrical gears: Modules: m = 25.4 mm/DP)."""
        return self.module if self.diametral_pitch is None else 1.0 / self.diametral_pitch

    @property
    def wheel_width(self) -> float | None:
        """Its face width."""
        return self.width

    @property
    def lacking(self) -> str:
        """Without the size of its teeth nobody knows how far apart its shafts stand."""
        return "" if self.tooth_size else "no tooth size given: give module or diametral pitch"

    def reversals(self) -> Iterator[Reversal]:
        """One idler more or less."""
        if self.idlers:
            yield Reversal("Take one idler out between the gears.", "idlers", list(self.idlers[:-1]))
        else:
            yield Reversal(
                "Put one idler between the gears; it changes only turning sense and distance, and costs one mesh.",
                "idlers",
                [IDLER],
            )

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Loosely in mesh, in line, the play set."""
        return gear_build.jobs(hands)

    @property
    def remark(self) -> str:
        """About idlers, else about teeth that keep meeting."""
        if self.idlers:
            return "An idler changes nothing but turning sense and distance, and costs one mesh."
        return wheeled.hunting_remark(self.driver_teeth, self.driven_teeth)

    def hub(self, end: str) -> Hub | None:
        """Of the material of its wheel, where it says no other."""
        hub = super(Gear, self).hub(end)
        return hub and dataclasses.replace(hub, material=hub.material or getattr(self, f"{end}_material"))

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """Bending of its teeth at the root, and pressure between their flanks."""
        yield from self._bending(passing)
        yield from gear_contact.pitting(self._flanks(), self.running(passing), self._sizes_wanted)

    def _flanks(self) -> gear_contact.Flanks:
        return gear_contact.Flanks(
            self.members,
            self.width,
            self.pressure_angle,
            {"driver": self.driver_material, "driven": self.driven_material},
            {"driver": self.driver_allowed_contact, "driven": self.driven_allowed_contact},
            self.dry,
        )

    @property
    def _sizes_wanted(self) -> tuple[str, ...]:
        """Keys of the sizes that teeth are judged by and that are not known."""
        return (*(() if self.width else ("width",)), *(() if self.tooth_size else ("module",)))

    def pull(self, passing: Passing) -> Floats | None:
        """The whole force between the teeth of its driver and what that meshes with: Ft/cos α."""
        force = self.running(passing).known.get("F_t")
        return None if force is None else np.asarray(force / math.cos(self.pressure_angle))

    def _bending(self, passing: Passing) -> Iterator[Strain]:
        """Bending at the root of each tooth but those of a ring, by Lewis with Barth's factor: σ = KA·Ft·Kv/(b·m·Y),
        Kv = (6.1 + v)/6.1 (Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Spur and helical
        gears: AGMA stress equations, Lewis bending equation and dynamic effects for cut or milled profiles).
        """
        remarks = () if math.isclose(self.pressure_angle, USUAL_ANGLE, abs_tol=1e-3) else (OTHER_ANGLE,)
        few = (f"fewer than {LEAST_LEWIS} teeth: the form factor of {LEAST_LEWIS} is taken",)
        for member in self.members:
            if member.form.encloses:
                continue
            r = self._bent(passing, member)
            assumed = self._allowed(r, member)
            yield Strain(
                "gear_tooth",
                STRESS,
                r,
                "sigma",
                "sigma_ok",
                member.key if member.idle else member.name,
                assumed,
                self._sizes_wanted,
                remarks + (few if member.measure < LEAST_LEWIS else ()),
            )

    def running(self, passing: Passing) -> Reckoning:
        """The force at the teeth with both its factors, F_t, K_A and K_B, as far as sizes are known."""
        r = passing.driver()
        passing.applied(r)
        if self.tooth_size is None:
            return r
        if self.diametral_pitch is None:
            r.put("m_n", "module", self.tooth_size, "length", "module")
        else:
            r.put("P_d", "diametral pitch", self.diametral_pitch, "diametral pitch", "diametral_pitch")
            r.step("m_n", "module", "1/P_d", "length")
        r.put("z_d", "teeth of the driver", self.driver_teeth, "ratio", "driver_teeth")
        r.step("r_d", "pitch radius of the driver", "m_n*z_d/2", "length")
        r.step("F_t", "force at the teeth", "T_d/r_d", "force")
        r.put("v_B", "speed of Barth's factor", BARTH, "speed", origin="constant")
        r.step("K_B", "Barth's factor for teeth that run", "(v_B + w_d*r_d)/v_B", "ratio")
        return r

    def _bent(self, passing: Passing, member: Member) -> Reckoning:
        """The stress at the root of a tooth, as far as sizes are known."""
        r = self.running(passing)
        if self.width is None or self.tooth_size is None:
            return r
        r.put("b_w", "width", self.width, "length", "width")
        r.put("Y", f"form factor of {member.measure} teeth", lewis_form(member.measure), "ratio", origin="constant")
        r.step("sigma", "stress at the root", "K_A*F_t*K_B/(b_w*m_n*Y)", "stress")
        return r

    def _allowed(self, r: Reckoning, member: Member) -> tuple[str, ...]:
        """Put in the stress that a tooth stands; returns what was assumed for it. Teeth of an idler are bent both ways
        and stand 0.7 times the lower of the two (ISO 6336-5, Calculation of load capacity of spur and helical gears:
        Strength and quality of materials, reversed bending).
        """
        ends = [
            (self.driver_allowed_stress, self.driver_material, "driver"),
            (self.driven_allowed_stress, self.driven_material, "driven"),
        ]
        wanted = ends if member.idle else [end for end in ends if end[2] == member.name]
        assumed = []
        for given, material, end in wanted:
            words = f"stress that teeth of the {end} gear stand"
            if given is None:
                assumed.append(f"allowed stress of {material or USUAL_MATERIAL}")
                stress = MATERIALS[material or USUAL_MATERIAL].tooth
                r.put(f"s_{end}", words, stress, "stress", origin="assumed", note=material or USUAL_MATERIAL)
            else:
                r.put(f"s_{end}", words, given, "stress", f"{end}_allowed_stress")
        allowed = f"{REVERSED}*min(s_driver, s_driven)" if member.idle else f"s_{member.name}"
        words = "that of teeth bent both ways" if member.idle else "what its teeth stand"
        r.step("sigma_ok", words, allowed, "stress")
        return tuple(dict.fromkeys(assumed))

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """One size of teeth; a ring that holds what runs inside it."""
        if self.module is not None and self.diametral_pitch is not None:
            yield "diametral_pitch", "given beside module", "give one of the two"
        innermost = self.idlers[-1] if self.idlers else self.driver_teeth
        if self.internal and self.driven_teeth <= innermost:
            yield (
                "driven_teeth",
                f"{self.driven_teeth} teeth cannot hold {innermost} inside",
                f"an internal gear needs more than {innermost} teeth",
            )
        yield from self._ring_faults()

    def _ring_faults(self) -> Iterator[tuple[str, str, str]]:
        outside, size = self._outside, self.tooth_size
        if outside is None:
            return
        roots = None if size is None else size * (self.driven_teeth + 2.0 * forms.ROOT)
        if not self.internal:
            yield "make.driven.outside", "given for a gear that is no ring", 'leave it out, or say "internal": true'
        elif roots is not None and outside <= roots:
            given = f"{outside * 1e3:.4g} mm, its roots are {roots * 1e3:.4g} mm across"
            yield "make.driven.outside", given, "give a larger diameter, or leave it out"

    def _with(self, member: Member, measure: float) -> Self:
        if not member.idle:
            return super(Gear, self)._with(member, int(measure))
        place = int(member.name.removeprefix("idler ")) - 1
        return dataclasses.replace(self, idlers=(*self.idlers[:place], int(measure), *self.idlers[place + 1 :]))
