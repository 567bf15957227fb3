"""What a design says of the shafts that its wheels are on."""

from __future__ import annotations

from ydrometer.base.tables.strengths import USUAL_MATERIAL, USUAL_SOURCE_SHAFT
from ydrometer.document.design import Design
from ydrometer.document.mounting import Mounting, ShaftMount
from ydrometer.document.sources import SourceShaft
from ydrometer.document.walk import branch_of, in_trunk, place_of


def driver_shaft(design: Design, stage: str) -> str:
    """The shaft that the driver of a stage is on, by the path of what turns it.

    Args:
        design: as read.
        stage: path of the stage.
    """
    _, k = place_of(stage)
    if k > 0:
        return f"{stage.rpartition('[')[0]}[{k - 1}]"
    b = 0 if in_trunk(stage) else branch_of(stage)
    own = len(design.drive.branches[b].stages) if in_trunk(stage) else 0
    return f"drive.branches[{b}].stages[{own - 1}]" if own else f"drive.branches[{b}].source"


def joined_at(design: Design, stage: str, end: str) -> int:
    """How many sources come together at a wheel: at the last driven one of a branch all of that branch.

    Args:
        design: as read.
        stage: path of the stage.
        end: driver or driven.
    """
    if in_trunk(stage) or end == "driver":
        return 1
    branch = design.drive.branches[branch_of(stage)]
    return branch.count if place_of(stage)[1] == len(branch.stages) - 1 else 1


def own_shaft(design: Design, shaft: str) -> SourceShaft | None:
    """A source's own shaft, where a path is one and something is said of it."""
    branches = enumerate(design.drive.branches)
    return next((branch.source.shaft for b, branch in branches if shaft == f"drive.branches[{b}].source"), None)


def place_in_fit(design: Design, shaft: str) -> int:
    """Where the document speaks of a shaft in Fit, or would."""
    shafts = (design.fit or Mounting()).shafts
    return next((i for i, said in enumerate(shafts) if said.shaft == shaft), len(shafts))


def said_of(design: Design, shaft: str) -> SourceShaft | ShaftMount | None:
    """What is said of a shaft: of a source's own there, else in Fit; None where nothing is."""
    return own_shaft(design, shaft) or (design.fit or Mounting()).of(shaft)


def material_of(said: SourceShaft | ShaftMount | None) -> str:
    """Of a shaft, or what is usual: hardened of a source's own."""
    usual = USUAL_SOURCE_SHAFT if isinstance(said, SourceShaft) else USUAL_MATERIAL
    return (said.material or usual) if said is not None else usual
