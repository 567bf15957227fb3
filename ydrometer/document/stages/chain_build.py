"""Putting a roller chain on."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages import loop_build
from ydrometer.document.stages.assembly import EYES, Hands, Job, Record


def jobs(hands: Hands, links: int | None) -> Iterator[Job]:
    """The jobs of the chain.

    Args:
        hands: at the stage.
        links: of the chain, None where that is not given.
    """
    even = None if links is None else links - links % 2
    counted = "Count the links of the chain" if even is None else f"Count {even} links of the chain"
    offset = f"; with the offset link they are {links}" if links and links % 2 else ""
    yield Job(
        place=hands.path,
        verb="count",
        kind="chain",
        minutes=10,
        title=f"{counted} and part it there{offset}",
        parts=(hands.path,),
        uses=("chain",),
        tools=("chain tool",),
        cautions=(EYES,),
    )
    yield Job(
        place=hands.path,
        verb="walk_on",
        kind="chain",
        minutes=10,
        after=(f"{hands.path}:count",),
        title="Lay the chain on and join it: the clip's closed end leads the way it runs, and it snaps in audibly",
        why="An open end that leads catches on something and comes off.",
        parts=(hands.path, *hands.names),
        uses=("joining link", "offset link"),
        tools=("pliers",),
        cautions=(EYES, hands.fingers),
    )
    yield loop_build.straight(hands, after=(f"{hands.path}:walk_on",))
    sag = hands.setting("sag", "it hangs through by {} at mid-span where it is tightest")
    how = sag or "it hangs through a little at mid-span where it is tightest"
    yield from loop_build.tensioned(hands, how, Record("sag at mid-span, where it is tightest", "mm"), ("ruler",))
    yield Job(
        place=hands.path,
        verb="sides",
        kind="check",
        minutes=10,
        after=(f"{hands.path}:turn",),
        parts=(hands.path,),
        title="Measure from shaft to shaft on both sides: alike; oil the chain",
        why="A skewed shaft wears it out.",
        record=Record("difference of both sides", "mm"),
        tools=("ruler", "chain oil"),
    )
    yield loop_build.guarded(hands, "chain")
