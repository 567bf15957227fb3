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
    slack = f"{hands.slide[0].upper()}{hands.slide[1:]} to the slack end" if hands.slides else "All slack"
    nearer = hands.setting("room_to_put_on", " ({} nearer)")
    belt = f"{length} belt" if length else "belt"
    walked = f"{slack}{nearer}: walk the {belt} on by hand, never with a lever"
    yield loop_build.put_on(hands, belt, walked, uses="belt")
    yield loop_build.straight(hands, after=(f"{hands.path}:walk_on",))
    yield from loop_build.tensioned(hands, *loop_build.judged(hands))
    yield loop_build.guarded(hands, "belt")
