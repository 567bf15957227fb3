"""The stages of a drive: one module a kind, one row here."""

from ydrometer.document.stages.belt import Belt
from ydrometer.document.stages.bevel import Bevel
from ydrometer.document.stages.chain import Chain
from ydrometer.document.stages.friction import Friction
from ydrometer.document.stages.gear import Gear
from ydrometer.document.stages.gearbox import Gearbox
from ydrometer.document.stages.multi_speed_box import MultiSpeedBox
from ydrometer.document.stages.planetary import Planetary
from ydrometer.document.stages.stage import Member, Stage, power_lost, stage_efficiency
from ydrometer.document.stages.v_belt import VBelt
from ydrometer.document.stages.worm import Worm

KINDS: dict[str, type[Stage]] = {
    kind.kind: kind for kind in (Gear, Belt, Chain, VBelt, Friction, Bevel, Planetary, Gearbox, Worm, MultiSpeedBox)
}
"""Every kind, in the order in which they are offered."""

__all__ = ["KINDS", "Member", "Stage", "power_lost", "stage_efficiency"]
