"""A roller chain over two sprockets."""

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
from ydrometer.base.tables.strengths import (
    NARROW_BREAKS,
    NARROW_PITCH,
    SAME_PITCH,
    SPEED_TEETH,
    chain_breaks,
    chain_speed,
)
from ydrometer.document.stages import bring, chain_build, fields, forms, wheeled
from ydrometer.document.stages.assembly import Hands, Job
from ydrometer.document.stages.hubs import Hub
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.strain import FORCE, Passing, SpeedLimit, Strain

CHAIN_SAFETY = 5.0
"""How many times what it pulls a chain has to stand before it breaks."""
LEAST_SPROCKET = 11.0
"""Teeth below which a chain runs roughly and wears fast."""
STRETCH = 0.002
"""Share of its distance by which a chain may stand nearer than taut: it then sags by some 4 % of its span."""
SAG = 0.02
"""Depth at mid-span as a share of the span, of a chain whose slack run hangs level (makers' manuals)."""
WEAR = 0.01
"""Share of its distance by which a chain has to be tightened as it wears (makers' manuals: 2 % longer, then
replaced)."""
STRAIGHT = 0.0022
"""How far off the straight edge a sprocket may be: an eighth of a degree (makers' manuals)."""


MAY_LEAN = math.radians(0.5)
"""How far one of its shafts may lean before its plates wear on the teeth (makers' manuals)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Chain(wheeled.Toothed):
    """Driver and driven sprocket; pitch, links and width are needed for drawing and fit alone."""

    kind: ClassVar[str] = "chain"
    title: ClassVar[str] = "Roller chain"
    short: ClassVar[str] = "Chain"
    noun: ClassVar[str] = "chain"
    form: ClassVar[forms.Form] = forms.SPROCKET
    in_plane: ClassVar[Loop] = Loop(
        form="chain",
        part="chain",
        noun="chain",
        pieces="links",
        pieces_key="links",
        part_key="links",
        step=2,
        opens=True,
        stretch=STRETCH,
        sag=SAG,
        polygon=True,
        wear_share=WEAR,
        straight=STRAIGHT,
        check="Turn it by hand and look where it is tightest: it hangs through by that much there.",
    )
    may_lean: ClassVar[float] = MAY_LEAN
    brings: ClassVar[tuple[bring.Bring, ...]] = bring.CHAINS
    start: ClassVar[dict[str, object]] = {"driver_teeth": 11, "driven_teeth": 22, "pitch": "6.35 mm", "links": 60}

    driver_teeth: int = fields.teeth()
    driven_teeth: int = fields.teeth()
    pitch: float | None = fields.pitch()
    links: int | None = labelled("Links of the chain", reading.whole(10, 5000, default=None))
    width: float | None = fields.width()
    max_speed: float | None = strength(
        "Fastest speed of its smaller sprocket", reading.quantity("angular speed", above=0.0, default=None)
    )
    breaking_load: float | None = strength("Breaking load", reading.quantity("force", above=0.0, default=None))
    driver_hub: Hub | None = fields.hub("driver")
    driven_hub: Hub | None = fields.hub("driven")
    efficiency: float | None = fields.efficiency()

    @property
    def default_efficiency(self) -> float:
        """Of a lubricated roller chain."""
        return efficiencies.ROLLER_CHAIN

    @property
    def tooth_size(self) -> float | None:
        """The pitch."""
        return self.pitch

    @property
    def loop_length(self) -> float | None:
        """Of the chain: pieces times pitch."""
        return None if self.links is None or self.pitch is None else self.links * self.pitch

    @property
    def lacking(self) -> str:
        """Without a pitch nobody knows how large its sprockets are."""
        return "no pitch given" if self.pitch is None else ""

    def offers(self, check: str) -> Iterator[tuple[str, str, str]]:
        """What chains of its pitch break at."""
        breaks = chain_breaks(self.pitch) if check == "chain_force" and self.pitch and not self.breaking_load else None
        if breaks is not None:
            yield "breaking_load", f"{1e-3 * breaks:.3g} kN", f"chains of {1e3 * (self.pitch or 0.0):.4g} mm pitch"

    def jobs(self, hands: Hands) -> Iterator[Job]:
        """Counted, joined, in line, its sag set."""
        return chain_build.jobs(hands, self.links)

    def strains(self, passing: Passing) -> Iterator[Strain]:
        """The pull against a fifth of what breaks it, and whether its sprockets have teeth enough (makers' manuals of
        roller chains: safety against breaking, least teeth).
        """
        yield self._force(passing)
        small = min(self.members, key=lambda member: member.measure)
        r = Reckoning()
        r.put("z_ok", "teeth on which a chain runs well, at least", LEAST_SPROCKET, "ratio", origin="constant")
        r.put("z_s", f"teeth of the {small.name} sprocket", float(small.measure), "ratio", small.key)
        yield Strain("chain_teeth", "", r, "z_ok", "z_s", small.name)

    def speed_limits(self) -> Iterator[SpeedLimit]:
        """Of its smaller sprocket, where links and rollers strike the teeth: as its maker says, else that of one of 17
        teeth times √(z/17) (ISO 10823, Guidelines for the selection of roller chain drives).
        """
        small = min(self.members, key=lambda member: member.measure)
        r, usual = Reckoning(), None if self.pitch is None else chain_speed(self.pitch)
        if self.max_speed:
            r.put("w_ok", "how fast the smaller sprocket may turn", self.max_speed, "angular speed", "max_speed")
        elif usual:
            words = f"how fast a sprocket of {SPEED_TEETH} teeth may turn"
            r.put("w_17", words, usual, "angular speed", origin="assumed", note="chain of this pitch")
            r.put("z_s", f"teeth of the {small.name} sprocket", float(small.measure), "ratio", small.key)
            r.step("w_ok", "how fast the smaller sprocket may turn", f"w_17*sqrt(z_s/{SPEED_TEETH})", "angular speed")
        assumed = ("speed of a chain of this pitch",) if usual and not self.max_speed else ()
        needs = () if self.max_speed or usual else ("pitch",) if self.pitch is None else ("max_speed",)
        yield SpeedLimit("chain_speed", small.name, r, small.name, assumed, needs)

    def _rim(self, passing: Passing, pitch: float) -> Reckoning:
        """The force at the rim of the driver, and what the chain's own mass takes."""
        r = passing.driver()
        r.put("p", "pitch", pitch, "length", "pitch")
        r.put("z_d", "teeth of the driver", self.driver_teeth, "ratio", "driver_teeth")
        r.step("r_d", "pitch radius of the driver", f"p/(2*sin({math.pi}/z_d))", "length")
        r.step("F_t", "force at the teeth", "T_d/r_d", "force")
        passing.flung(r)
        return r

    def _force(self, passing: Passing) -> Strain:
        if self.pitch is None:
            return Strain("chain_force", FORCE, Reckoning(), needs=("pitch",))
        r = self._rim(passing, self.pitch)
        passing.applied(r)
        r.step("F", "pull with the application factor", "K_A*F_t + c", "force")
        breaks = self.breaking_load or chain_breaks(self.pitch)
        needs = () if breaks else ("breaking_load",)
        table = breaks is not None and self.breaking_load is None
        assumed = ("breaking load of a chain of this pitch",) if table else ()
        narrow = table and math.isclose(self.pitch, NARROW_PITCH, rel_tol=SAME_PITCH)
        remarks = (f"narrow chains of this pitch break from {1e-3 * NARROW_BREAKS:.1f} kN on",) if narrow else ()
        if breaks is not None:
            note = "chain of this pitch" if table else ""
            r.put("F_B", "breaking load", breaks, "force", "breaking_load", origin="assumed", note=note)
            r.step("F_ok", "what it may pull", f"F_B/{CHAIN_SAFETY:g}", "force")
        return Strain("chain_force", FORCE, r, "F", "F_ok", "", assumed, needs, remarks)

    def pull(self, passing: Passing) -> Floats | None:
        """The tight run alone: the slack one hangs."""
        if self.pitch is None:
            return None
        return np.asarray(self._rim(passing, self.pitch).known["F_t"])
