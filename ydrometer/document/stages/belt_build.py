"""Putting a toothed belt on."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages import loop_build
from ydrometer.document.stages.assembly import Hands, Job


def jobs(hands: Hands, length: str) -> Iterator[Job]:
    """The jobs of the belt.

    Args:
        hands: at the stage.
        length: of the belt in words, empty where it is not given.
    """
    slack = f"Slide {hands.slides} to the slack end" if hands.slides else "All slack"
    nearer = hands.setting("room_to_put_on", " ({} nearer)")
    yield Job(
        place=hands.path,
        verb="walk_on",
        kind="belt",
        minutes=10,
        title=f"{slack}{nearer}: walk the {f'{length} ' if length else ''}belt on by hand, never with a lever",
        why="A lever breaks the cords where nobody sees it.",
        parts=(hands.path, *hands.names),
        cautions=(hands.fingers,),
    )
    yield loop_build.straight(hands, after=(f"{hands.path}:walk_on",))
    yield from loop_build.tensioned(hands, *loop_build.judged(hands))
    yield loop_build.guarded(hands, "belt")
