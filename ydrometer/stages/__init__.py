"""The stages of a drive: one module a kind, one row here."""

from ydrometer.stages.belt import Belt
from ydrometer.stages.chain import Chain
from ydrometer.stages.common import Stage, stage_efficiency
from ydrometer.stages.gear import Gear
from ydrometer.stages.gearbox import Gearbox

KINDS: dict[str, type] = {kind.kind: kind for kind in (Gear, Belt, Chain, Gearbox)}
LATER = ("bevel", "planetary", "worm", "v_belt", "speeds")

__all__ = ["KINDS", "LATER", "Belt", "Chain", "Gear", "Gearbox", "Stage", "stage_efficiency"]
