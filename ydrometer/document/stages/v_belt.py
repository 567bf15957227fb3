"""A V-belt over two grooved pulleys."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import labelled, strength
from ydrometer.base.reckoning import Floats, Reckoning
from ydrometer.base.tables import efficiencies
from ydrometer.base.tables.strengths import SURFACES, V_DESIGN, V_FRICTION, V_GROOVES, V_SURFACE, WET
from ydrometer.document.stages import fields, forms, v_belt_build, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.stage import Reversal
from ydrometer.document.stages.strain import FORCE, Passing, Strain

USUAL_CREEP = 0.015
"""Share by which a driven V-pulley lags under load: middle of the usual 1 to 2 % (Budynas and Nisbett, Shigley's
Mechanical Engineering Design, chapter Flexible Mechanical Elements)."""
PUT_ON, TIGHTEN = 0.015, 0.03
"""Changes of the distance of its shafts to put a V-belt on and to tighten it, as shares of its length (DIN 2218,
Endless V-belts: Calculation of drives; ISO 155)."""
_OFF_GROOVE = "sin(min(max(g_a/2, {0!r}), {1!r}))/sin(g_a/2)"
"""A groove wider than is made for it wedges a belt less, a narrower one more."""
USUAL_SURFACE = "pressed steel"
USUAL_GROOVE = math.radians(38.0)
STRAIGHT = 0.0087
"""How far off the straight edge a V-pulley may be: half a degree (makers' manuals)."""
MAY_LEAN = math.radians(0.5)
"""How far one of its shafts may lean (makers' manuals)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class VBelt(wheeled.Slipping):
    """Works on pitch diameters, where the belt runs, not on those of the rims."""

    kind: ClassVar[str] = "v_belt"
    title: ClassVar[str] = "V-belt"
    short: ClassVar[str] = "V-belt"
    noun: ClassVar[str] = "V-belt"
    slip_key: ClassVar[str] = "creep"
    slip_noun: ClassVar[str] = "creep"
    form: ClassVar[forms.Form] = forms.GROOVED
    in_plane: ClassVar[Loop] = Loop(
        form="v_belt",
        part="v_belt",
        noun="V-belt",
        put_on_share=PUT_ON,
        take_up_share=TIGHTEN,
        straight=STRAIGHT,
        check="At mid-span finger and thumb can just turn it by a quarter turn.",
    )
    may_lean: ClassVar[float] = MAY_LEAN
    start: ClassVar[dict[str, object]] = {"driver_pitch_diameter": "60 mm", "driven_pitch_diameter": "150 mm"}

    driver_pitch_diameter: float = fields.diameter("Driver, running diameter")
    driven_pitch_diameter: float = fields.diameter("Driven, running diameter")
    creep: float = fields.slip_field("Creep (empty: assumed)", USUAL_CREEP)
    surface: str | None = strength("Surface of its pulleys", reading.choice(SURFACES, default=None))
    groove_angle: float | None = strength(
        "Angle of the groove", reading.quantity("angle", above=0.0, at_most=0.5 * math.pi, default=None)
    )
    crossed: bool = labelled("Crossed", reading.flag())
    driver_hub: Hub | None = fields.hub("driver")
    driven_hub: Hub | None = fields.hub("driven")
    efficiency: float | None = fields.efficiency()

    @property
    def ratio(self) -> float:
        """Driven over driver pitch diameter: creep takes no torque."""
        return self.driven_pitch_diameter / self.driver_pitch_diameter

    @property
    def slip(self) -> float:
        """The creep."""
        return self.creep

    @property
    def default_efficiency(self) -> float:
        """Of a V-belt's torque; the speed lost by creep comes on top."""
        return efficiencies.V_BELT

    @property
    def rotation(self) -> int:
        """A crossed belt reverses."""
        return -1 if self.crossed else 1

    def reversals(self) -> Iterator[Reversal]:
        """Crossed or not."""
        yield Reversal("Uncross the V-belt." if self.crossed else "Cross the V-belt.", "crossed", not self.crossed)

    def eased(self, check: str) -> Iterator[tuple[str, str, str]]:
        """Pulleys on which it holds better."""
        now = V_SURFACE[self.surface or USUAL_SURFACE]
        for surface, share in sorted(V_SURFACE.items(), key=lambda entry: entry[1]):
            if check == "v_belt_slip" and share > now:
                yield f"pulleys of {surface}", "surface", surface

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Laid on, in line, tensioned."""
        return v_belt_build.jobs(hands, crossed=self.crossed)

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """Where it slips: Ft against 2·(Fi − c)·(e^x − 1)/(e^x + 1), x = mu·wrap/sin(groove/2) (capstan equation with
        wedge: Budynas and Nisbett, Shigley's Mechanical Engineering Design, chapter Flexible mechanical elements).
        """
        loop = passing.loop
        assumed = [f"friction of a belt on {self.surface or USUAL_SURFACE}"]
        assumed += [] if self.groove_angle else [f"groove of {math.degrees(USUAL_GROOVE):.0f} degrees"]
        assumed += [loop.assumed] if loop.assumed else []
        needs = () if loop.tension else (f"{loop.path}.tension",)
        r = self._held(passing)
        shown = {"needs_tension": "F_n"} if "F_n" in r.known else {}
        if loop.tension is not None and shown:
            r.put("F_i", "tension at rest", loop.tension, "force", f"{loop.path}.tension")
            self._at_slip(r)
            shown = {**shown, "holds_clean": "F_c"}
            r.step("F_ok", "what it holds by the figures that makers size by", "2*(F_i - c)*k_p", "force")
        yield Strain("v_belt_slip", FORCE, r, "F_t", "F_ok", "", tuple(assumed), needs, (), shown)

    def _at_slip(self, r: Reckoning) -> None:
        """Put in what a clean belt holds at the point of slip, which is more than it is sized by: F_c."""
        surface = self.surface or USUAL_SURFACE
        r.put("mu_s", "friction of a clean belt", V_FRICTION[surface], "ratio", origin="constant", note=f"on {surface}")
        r.step("x_c", "exponent of the wedge, clean", "mu_s*a_w/sin(g_a/2)", "ratio")
        r.step("F_c", "what it holds at the point of slip, clean", "2*(F_i - c)*(exp(x_c) - 1)/(exp(x_c) + 1)", "force")

    def pull(self, passing: Passing) -> Floats | None:
        """Both runs together: twice the tension at rest, or the whole pull where the slack run has none left."""
        known = self._held(passing).known
        if "F_n" not in known:
            return None
        rest = passing.loop.tension or known["F_n"]
        return np.maximum(2.0 * rest, known["F_t"]) * math.cos(passing.loop.lean)

    def _held(self, passing: Passing) -> Reckoning:
        """The force at the rim; where the wrap is known what is passed just before it slips, as a share of the sum of
        both tensions, and the tension at rest that just holds.
        """
        r = passing.driver()
        r.put("d_d", "running diameter of the driver", self.driver_pitch_diameter, "length", "driver_pitch_diameter")
        r.step("r_d", "running radius of the driver", "d_d/2", "length")
        r.step("F_t", "force at the rim", "T_d/r_d", "force")
        passing.flung(r)
        if passing.loop.wraps is None:
            return r
        surface = self.surface or USUAL_SURFACE
        r.put("mu_e", "friction over the wedge, for design", V_DESIGN, "ratio", origin="constant")
        share = V_SURFACE[surface]
        r.put("k_s", "of that on its pulleys", share, "ratio", origin="assumed", note=f"belt on {surface}")
        r.put(
            "k_wet",
            "of that where it is wet",
            WET if passing.wet else 1.0,
            "ratio",
            origin="constant",
            note="wet" if passing.wet else "dry",
        )
        r.put(
            "g_a", "angle of the groove", self.groove_angle or USUAL_GROOVE, "angle", "groove_angle", origin="assumed"
        )
        r.put("a_w", "wrap, the smaller of the two", min(passing.loop.wraps), "angle", origin="solved")
        narrow, wide = (math.radians(0.5 * degrees) for degrees in V_GROOVES)
        r.step("k_g", "of that in a groove that is not made for it", _OFF_GROOVE.format(narrow, wide), "ratio")
        r.step("x_s", "exponent of the wedge", "mu_e*k_s*k_wet*k_g*a_w", "ratio")
        r.step("k_p", "share of both tensions that is passed", "(exp(x_s) - 1)/(exp(x_s) + 1)", "ratio")
        r.step("F_n", "tension at rest that just holds", "F_t/2/k_p + c", "force")
        return r
