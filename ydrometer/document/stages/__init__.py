"""The stages of a drive: one module a kind, one row here."""

from ydrometer.document.stages.belt import Belt
from ydrometer.document.stages.bevel import Bevel
from ydrometer.document.stages.chain import Chain
from ydrometer.document.stages.cycloidal import Cycloidal
from ydrometer.document.stages.friction import Friction
from ydrometer.document.stages.gear import Gear
from ydrometer.document.stages.gearbox import Gearbox
from ydrometer.document.stages.multi_speed_box import MultiSpeedBox
from ydrometer.document.stages.plane import Loop
from ydrometer.document.stages.planetary import Planetary
from ydrometer.document.stages.stage import Member, Stage, power_lost, stage_efficiency
from ydrometer.document.stages.strain_wave import StrainWave
from ydrometer.document.stages.v_belt import VBelt
from ydrometer.document.stages.worm import Worm

KINDS: dict[str, type[Stage]] = {
    kind.kind: kind
    for kind in (
        Gear,
        Belt,
        Chain,
        VBelt,
        Friction,
        Bevel,
        Planetary,
        Gearbox,
        Cycloidal,
        StrainWave,
        Worm,
        MultiSpeedBox,
    )
}
"""Every kind, in the order in which they are offered."""


def of_ratio(ratio: float, efficiency: float | None = None) -> Stage:
    """A stage known by its ratio alone, which stands for any other one of that ratio.

    Args:
        ratio: driver turns per driven turn.
        efficiency: of the whole of it; the usual one of a closed box where it is None.
    """
    return Gearbox(ratio=ratio, efficiency=efficiency)


def size_keys(kind: type[Stage]) -> frozenset[str]:
    """Keys of a kind that say how large its teeth are and how long its loop is, without which it still has a ratio.

    Args:
        kind: of stages.
    """
    loop = {kind.in_plane.pieces_key} if isinstance(kind.in_plane, Loop) else set()
    return frozenset({*(kind.form.size_keys if kind.form else ()), *loop})


def whole_kinds(part: str) -> tuple[type[Stage], ...]:
    """Kinds of stages that parts of a bin are as a whole.

    Args:
        part: kind of the parts.
    """
    return tuple(kind for kind in KINDS.values() if kind.whole_part == part and part)


__all__ = ["KINDS", "Member", "Stage", "of_ratio", "power_lost", "size_keys", "stage_efficiency", "whole_kinds"]
