"""Mounting a worm drive: greased and closed, then as a box; it cannot be turned from behind."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages import box_build
from ydrometer.document.stages.assembly import Hands, Job


def jobs(hands: Hands) -> Iterator[Job]:
    """The jobs of the drive.

    Args:
        hands: at the stage.
    """
    path = hands.path
    yield Job(
        place=path,
        verb="grease",
        kind="box",
        minutes=10,
        parts=(path,),
        uses=("grease",),
        tools=("worm grease",),
        title="Fill the worm's housing with grease as its maker says, and turn it in from the worm's side",
        why="A worm rubs all the time; run dry it is gone in minutes. Most cannot be turned from the wheel.",
    )
    yield from box_build.jobs(hands, "worm", first=f"{path}:grease")
