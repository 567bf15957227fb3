"""The stages of a drive: one module a kind, one row here."""

from ydrometer.document.stages.belt import Belt
from ydrometer.document.stages.bevel import Bevel
from ydrometer.document.stages.chain import Chain
from ydrometer.document.stages.common import Stage, Toothed, stage_efficiency
from ydrometer.document.stages.gear import Gear
from ydrometer.document.stages.gearbox import Gearbox
from ydrometer.document.stages.planetary import Planetary
from ydrometer.document.stages.speeds import Speeds
from ydrometer.document.stages.v_belt import VBelt
from ydrometer.document.stages.worm import Worm

KINDS: dict[str, type] = {
    kind.kind: kind for kind in (Gear, Bevel, Planetary, Gearbox, Worm, Belt, VBelt, Chain, Speeds)
}

LOOPS = (Belt, Chain, VBelt)
"""Those in which something runs around two wheels."""

__all__ = ["KINDS", "LOOPS", "Belt", "Bevel", "Chain", "Gear", "Gearbox", "Planetary", "Speeds", "Stage",
    "Toothed", "VBelt", "Worm",
           "stage_efficiency"]  # fmt: skip
