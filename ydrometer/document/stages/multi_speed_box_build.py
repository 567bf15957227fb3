"""Mounting a box of several speeds: as a box, then each gear engaged by hand."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages import box_build
from ydrometer.document.stages.assembly import Hands, Job


def jobs(hands: Hands, speeds: int) -> Iterator[Job]:
    """The jobs of the box.

    Args:
        hands: at the stage.
        speeds: how many it has.
    """
    yield from box_build.jobs(hands, "box of several speeds")
    yield Job(
        place=hands.path,
        verb="shift",
        kind="check",
        minutes=10,
        after=(f"{hands.path}:turn",),
        parts=(hands.path,),
        title=f"Engage each of its {speeds} gears by hand while turning, and neutral between: the lever reaches all",
        why="A lever that stops short lets a gear jump out under load.",
        cautions=(hands.fingers,),
    )
