"""The stages of a drive: one module a kind, one row here."""

from ydrometer.stages.belt import Belt
from ydrometer.stages.bevel import Bevel
from ydrometer.stages.chain import Chain
from ydrometer.stages.common import Stage, Toothed, stage_efficiency
from ydrometer.stages.gear import Gear
from ydrometer.stages.gearbox import Gearbox
from ydrometer.stages.planetary import Planetary
from ydrometer.stages.speeds import Speeds
from ydrometer.stages.v_belt import VBelt
from ydrometer.stages.worm import Worm

KINDS: dict[str, type] = {
    kind.kind: kind for kind in (Gear, Bevel, Planetary, Gearbox, Worm, Belt, VBelt, Chain, Speeds)
}

LOOPS = (Belt, Chain, VBelt)
"""Those in which something runs around two wheels."""

__all__ = ["KINDS", "LOOPS", "Belt", "Bevel", "Chain", "Gear", "Gearbox", "Planetary", "Speeds", "Stage",
    "Toothed", "VBelt", "Worm",
           "stage_efficiency"]  # fmt: skip
