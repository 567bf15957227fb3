"""Setting a pair of bevel gears: two distances, shims for both."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import Fitting, Hands, Job, Record, in_line


def jobs(hands: Hands) -> Iterator[Job]:
    """The jobs of the pair.

    Args:
        hands: at the stage.
    """
    yield Job(
        place=hands.path,
        verb="shim",
        kind="gear",
        minutes=25,
        parts=(hands.path, *hands.names),
        title="Shim the bevel gears until their large ends are flush and a touch of play is left, all round",
        why="Each has a place of its own along its shaft; one shim too many on either and they bind or jump.",
        record=Record("play at the large end", "mm"),
        fittings=tuple(Fitting("shims", f"shims behind the {wheel}, 0.1 to 0.5 mm") for wheel in hands.wheels),
        tools=("shims", "feeler gauge"),
        cautions=(hands.fingers,),
    )
    yield in_line(hands, "with the marks of the large ends", after=(f"{hands.path}:shim",))
    yield Job(
        place=hands.path,
        verb="turn",
        kind="check",
        minutes=5,
        after=(f"{hands.path}:line_up",),
        parts=(hands.path,),
        title="Turn the bevel gears by hand once round: free everywhere, and a dab of grease on the teeth",
        uses=("grease",),
        tools=("grease",),
        cautions=(hands.fingers,),
    )
