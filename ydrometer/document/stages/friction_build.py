"""Pressing a friction roller on its tyre or drum."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import Hands, Job, Record, in_line, tightened


def jobs(hands: Hands, press_force: float) -> Iterator[Job]:
    """The jobs of the roller.

    Args:
        hands: at the stage.
        press_force: that presses both together, N.
    """
    yield Job(
        place=hands.path,
        verb="clean",
        kind="friction",
        minutes=5,
        parts=(hands.path, *hands.names),
        title=f"Clean both rims dry and bring the {hands.driver} up to the {hands.driven}, all loose",
        why="A film of oil halves the grip.",
        cautions=(hands.fingers,),
    )
    yield in_line(hands, "so that the rims touch over their whole width", after=(f"{hands.path}:clean",))
    yield Job(
        place=hands.path,
        verb="press",
        kind="friction",
        minutes=15,
        after=(f"{hands.path}:line_up",),
        title=f"Press them together with {press_force:.0f} N; turned by hand the tyre turns and nothing skids",
        record=Record("force that presses them together", "N"),
        parts=(hands.path,),
        tools=("spring scale",),
        cautions=(hands.fingers,),
    )
    if hands.slides:
        yield tightened(hands, f"{hands.path}:press")
