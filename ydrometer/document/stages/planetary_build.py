"""Putting a planetary stack together: steps in order, greased, the sun on, closed flush, mounted, the motor last."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ydrometer.document.stages import box_build
from ydrometer.document.stages.assembly import Fitting, Hands, Job, made_fast

STACK_SCREWS = 4
"""Through all steps, where nobody says how many there are."""


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
        uses=("grease",),
        tools=("grease",),
    )
    if hands.slides:
        yield _sun(hands)
    yield Job(
        place=path,
        verb="close",
        kind="box",
        minutes=20,
        after=(f"{path}:grease", f"{path}:sun"),
        buries=(f"{path}:grease",),
        title=f"Close the stack with the screws for {steps}: faces flush without a gap, a little at a time all round",
        why="Screws for another number of steps bottom out before they hold, or stand into a planet.",
        parts=(path,),
        fittings=(Fitting("screws", f"screws for a stack of {steps}, as its maker says", STACK_SCREWS),),
        tools=("hex keys",),
    )
    yield from box_build.jobs(hands, "planetary stack", first=f"{path}:close")
    if hands.slides:
        yield _motor_last(hands)


def _sun(hands: Hands) -> Job:
    """The pinion on the motor, while the stack is open and it can be seen how deep it stands."""
    return Job(
        place=hands.path,
        verb="sun",
        kind="box",
        minutes=15,
        after=(f"{hands.path}:order",),
        parts=(hands.path,),
        title=f"Put the sun of the first step on the shaft of {hands.slides}, as far as its maker says; over the flat "
        "or with its key, and pull at it",
        why="Too far in it rubs on the carrier, too far out half of its teeth carry all.",
        tools=("hex keys", "caliper"),
        cautions=(hands.fingers,),
    )


def _motor_last(hands: Hands) -> Job:
    """The motor's screws come last: tightened first they press the sun against the carrier."""
    return Job(
        place=hands.path,
        verb="motor",
        kind="fasten",
        minutes=10,
        after=(f"{hands.path}:turn",),
        parts=(hands.path,),
        title=f"Tighten {hands.slides} last, {made_fast(hands.ways)}, turning the output by hand: it stays as light",
        why="The stack wants a little play along its shaft; a motor that is pulled up hard takes it.",
        closes=hands.mount,
        tools=("hex keys",),
        cautions=(hands.fingers,),
    )
