"""Putting a planetary stack together: the steps in order, greased, closed flush, then mounted as a box."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ydrometer.document.stages import box_build
from ydrometer.document.stages.assembly import Hands, Job


def jobs(hands: Hands, reductions: Sequence[float]) -> Iterator[Job]:
    """The jobs of the stack.

    Args:
        hands: at the stage.
        reductions: of its steps, from the motor on.
    """
    path, number = hands.path, len(reductions)
    order = ", then ".join(f"{reduction:g} : 1" for reduction in reductions)
    steps = "1 step" if number == 1 else f"{number} steps"
    yield Job(
        place=path,
        verb="order",
        kind="box",
        minutes=10,
        parts=(path,),
        title=f"Lay the steps out in order from the motor on: {order}",
        why="The torque grows from step to step; the strongest belongs at the output.",
    )
    yield Job(
        place=path,
        verb="grease",
        kind="box",
        minutes=10,
        after=(f"{path}:order",),
        parts=(path,),
        title="Grease planets and rings of each step",
        why="Nobody gets at them once it is closed.",
        tools=("grease",),
    )
    yield Job(
        place=path,
        verb="close",
        kind="box",
        minutes=20,
        after=(f"{path}:grease",),
        buries=(f"{path}:grease",),
        title=f"Close the stack with the screws for {steps}: faces flush without a gap, a little at a time all round",
        why="Screws for another number of steps bottom out before they hold, or stand into a planet.",
        parts=(path,),
        tools=("hex keys",),
    )
    yield from box_build.jobs(hands, "planetary stack", first=f"{path}:close")
