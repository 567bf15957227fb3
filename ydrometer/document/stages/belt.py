"""A toothed (synchronous) belt over two pulleys."""

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
from ydrometer.base.tables.strengths import BELT_PROFILES, WIDTH_POWER, BeltForce, belt_force
from ydrometer.document.stages import belt_build, bring, fields, forms, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.strain import FORCE, Passing, Strain
from ydrometer.geometry import loops

LEAST_IN_MESH = 6
"""Teeth of a small pulley below which a toothed belt is rated lower (makers' manuals of synchronous drives)."""
MESH_STEP, LEAST_MESH = 0.2, 0.2
"""Share of its force that a belt loses with each tooth fewer than that, and the share that is left at least."""
USUAL_TENSION = 0.75
"""Tension at rest of a run that is set well, as a share of the pull (makers' manuals)."""
PUT_ON = 1.0
"""Pitches by which the shafts have to come nearer, for a belt to be lifted over the teeth (makers' manuals)."""
TIGHTEN = 0.002
"""Share of its length by which the way around has to be longer to tighten a belt (makers' manuals)."""
STRAIGHT = 0.0044
"""How far off the straight edge a pulley may be: a quarter of a degree (makers' manuals)."""
MAY_LEAN = math.radians(0.25)
"""How far one of its shafts may lean before the belt climbs its flange (makers' manuals)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Belt(wheeled.Toothed):
    """Driver and driven pulley; pitch, belt length and width are needed for drawing and fit alone."""

    kind: ClassVar[str] = "belt"
    title: ClassVar[str] = "Toothed belt"
    short: ClassVar[str] = "Belt"
    noun: ClassVar[str] = "toothed belt"
    form: ClassVar[forms.Form] = forms.PULLEY
    in_plane: ClassVar[Loop] = Loop(
        form="belt",
        part="belt",
        noun="belt",
        pieces="teeth",
        pieces_key="belt_teeth",
        part_key="teeth",
        least_in_mesh=LEAST_IN_MESH,
        put_on_pieces=PUT_ON,
        tighten_share=TIGHTEN,
        straight=STRAIGHT,
        check="At mid-span finger and thumb can just turn it by a quarter turn.",
    )
    may_lean: ClassVar[float] = MAY_LEAN
    brings: ClassVar[tuple[bring.Bring, ...]] = bring.BELTS
    start: ClassVar[dict[str, object]] = {"driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm", "belt_teeth": 84}

    driver_teeth: int = fields.teeth()
    driven_teeth: int = fields.teeth()
    pitch: float | None = fields.pitch()
    belt_teeth: int | None = labelled("Teeth of the belt", reading.whole(10, 5000, default=None))
    width: float | None = fields.width()
    profile: str | None = strength("Profile of its teeth", reading.choice(BELT_PROFILES, default=None))
    allowed_force_per_width: float | None = strength(
        "Allowed force per width", reading.quantity("force per width", above=0.0, default=None)
    )
    driver_hub: Hub | None = fields.hub("driver")
    driven_hub: Hub | None = fields.hub("driven")
    efficiency: float | None = fields.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of a synchronous belt."""
        return efficiencies.SYNCHRONOUS_BELT

    @property
    def tooth_size(self) -> float | None:
        """The pitch."""
        return self.pitch

    @property
    def loop_length(self) -> float | None:
        """Of the belt: pieces times pitch."""
        return None if self.belt_teeth is None or self.pitch is None else self.belt_teeth * self.pitch

    @property
    def loop_width(self) -> float | None:
        """The width of the belt."""
        return self.width

    @property
    def lacking(self) -> str:
        """Without a pitch nobody knows how large its pulleys are."""
        return "no pitch given" if self.pitch is None else ""

    def offers(self, check: str) -> Iterator[tuple[str, str, str]]:
        """What belts of its pitch and profile, or of each profile, are allowed."""
        if check != "belt_force" or not self.pitch or self.allowed_force_per_width:
            return
        for profile in (self.profile,) if self.profile else BELT_PROFILES:
            allowed = belt_force(self.pitch, profile)
            if allowed is not None:
                of = f"{profile} belts of {1e3 * self.pitch:.4g} mm pitch"
                of += f", {1e3 * self.width:.3g} mm wide" if self.width and allowed.base_width else ""
                yield "allowed_force_per_width", f"{1e-3 * allowed.at(self.width):.3g} N/mm", of

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Walked on, in line, tensioned."""
        return belt_build.jobs(hands, f"{self.belt_teeth}-tooth" if self.belt_teeth else "")

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The pull against what its width carries, and whether its slack run still holds the teeth down (ISO 5295,
        Synchronous belts: Calculation of power rating and drive centre distance; half the pull is what the slack run
        loses against rest).
        """
        yield self._force(passing)
        yield self._jump(passing)

    def _force(self, passing: Passing) -> Strain:
        loop = passing.loop
        r = self._rim(passing)
        assumed = [loop.assumed] if loop.assumed else []
        given = self.allowed_force_per_width
        usual = belt_force(self.pitch, self.profile) if given is None and self.pitch is not None else None
        if given is None and self.pitch is not None:
            assumed.append(f"allowed force per width of a {self.profile or 'toothed'} belt of this pitch")
        if self.pitch is not None:
            passing.applied(r)
            r.step("F", "pull with the application factor", "K_A*F_t + c", "force")
        needs = [key for key in ("pitch", "width") if getattr(self, key) is None]
        needs += [] if given or usual else ["allowed_force_per_width"]
        if (given or usual) and self.width and loop.wraps:
            r.put("b_w", "width", self.width, "length", "width")
            self._per_width(r, usual)
            self._mesh_factor(r, loop.wraps)
            r.step("F_ok", "what its width carries", "f_w*b_w*k_m", "force")
        return Strain("belt_force", FORCE, r, "F", "F_ok", "", tuple(assumed), tuple(needs))

    def _per_width(self, r: Reckoning, usual: BeltForce | None) -> None:
        """Put in what a millimetre of its width is allowed: a maker's figure, else that of a table by its width."""
        words, key = "allowed force per width", "allowed_force_per_width"
        if usual is None:
            r.put("f_w", words, self.allowed_force_per_width or 0.0, "force per width", key)
            return
        note = f"{self.profile or 'toothed'} belt of this pitch"
        if usual.base_width is None:
            r.put("f_w", words, usual.per_width, "force per width", key, origin="assumed", note=note)
            return
        r.put("f_0", f"{words} of a usual one", usual.per_width, "force per width", key, origin="assumed", note=note)
        r.put("b_0", "width of that one", usual.base_width, "length", origin="constant")
        r.step("f_w", f"{words} of this one", f"f_0*(b_w/b_0)**{WIDTH_POWER}", "force per width")

    def _rim(self, passing: Passing) -> Reckoning:
        """The force at the rim of the driver, and what the belt's own mass takes."""
        r = passing.driver()
        if self.pitch is not None:
            r.put("p", "pitch", self.pitch, "length", "pitch")
            r.put("z_d", "teeth of the driver", self.driver_teeth, "ratio", "driver_teeth")
            r.step("r_d", "pitch radius of the driver", f"p*z_d/(2*{math.pi})", "length")
            r.step("F_t", "force at the teeth", "T_d/r_d", "force")
            passing.flung(r)
        return r

    def _mesh_factor(self, r: Reckoning, wraps: tuple[float, float]) -> None:
        """Each tooth fewer than six in mesh takes a fifth of the force away; a fifth is left at least."""
        teeth = (self.driver_teeth, self.driven_teeth)
        held = min(loops.in_mesh(z, wrap) for z, wrap in zip(teeth, wraps, strict=True))
        r.put("z_m", "whole teeth in mesh, of the pulley with fewer", held, "ratio", origin="solved")
        share = f"min(1, max({LEAST_MESH}, 1 - {MESH_STEP}*({LEAST_IN_MESH} - z_m)))"
        r.step("k_m", "share for the teeth in mesh", share, "ratio")

    def _jump(self, passing: Passing) -> Strain:
        tension = passing.loop.tension
        needs: tuple[str, ...] = () if tension else (f"{passing.loop.path}.tension",)
        r = self._rim(passing)
        if self.pitch is None:
            return Strain("belt_jump", FORCE, r, needs=("pitch", *needs))
        r.step("F_s", "what the slack run loses", "F_t/2", "force")
        if tension is not None:
            r.put("F_i", "tension at rest", tension, "force", f"{passing.loop.path}.tension")
            r.step("F_h", "what holds its teeth down", "F_i - c", "force")
        return Strain("belt_jump", FORCE, r, "F_s", "F_h", needs=needs)

    def pull(self, passing: Passing) -> Floats | None:
        """Both runs together: twice the tension at rest, or the whole pull where the slack run has none left."""
        if self.pitch is None:
            return None
        force = self._rim(passing).known["F_t"]
        rest = passing.loop.tension or USUAL_TENSION * force
        return np.maximum(2.0 * rest, force) * math.cos(passing.loop.lean)
