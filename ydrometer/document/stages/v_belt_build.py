"""Putting a V-belt on."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages import loop_build
from ydrometer.document.stages.assembly import Hands, Job


def jobs(hands: Hands, *, crossed: bool) -> Iterator[Job]:
    """The jobs of the belt.

    Args:
        hands: at the stage.
        crossed: whether its runs cross.
    """
    slack = f"{hands.slide} to the slack end" if hands.slides else "all slack"
    nearer = hands.setting("room_to_put_on", " ({} nearer)")
    way = "crossed, half a turn between the pulleys" if crossed else "by hand, one groove at a time"
    walked = f"Wipe the grooves dry, {slack}{nearer}, and lay the V-belt on {way}"
    yield loop_build.put_on(hands, "V-belt, crossed," if crossed else "V-belt", walked, uses="v_belt")
    yield loop_build.straight(hands, after=(f"{hands.path}:walk_on",))
    yield from loop_build.tensioned(hands, *loop_build.judged(hands))
    yield loop_build.guarded(hands, "V-belt")
