"""Mounting a closed box: level and vent, centred by its hub, coupling free, tight, turned by hand."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import Fitting, Hands, Job, Loose, kept_tight, made_fast

BOLTS = 4
"""Of a box of which nobody says how many it has."""


def jobs(hands: Hands, noun: str, first: str = "") -> Iterator[Job]:
    """The jobs of a bought box.

    Args:
        hands: at the stage.
        noun: what it is called.
        first: id of what has to be done to it before, empty where nothing is.
    """
    path = hands.path
    if not first:
        yield Job(
            place=path,
            verb="level",
            kind="box",
            minutes=10,
            parts=(path,),
            uses=("grease",),
            title=f"Look at the level of the {noun} and free its vent",
            why="A box without a vent pushes its seals out.",
            tools=("oil or grease as its maker says",),
        )
    yield Job(
        place=path,
        verb="mount",
        kind="box",
        minutes=20,
        after=(first or f"{path}:level",),
        parts=(path,),
        title=f"Centre the {noun} by its hub, then start all of its bolts, none tight",
        why="Bolts do not centre: pulled tight first, they pull it askew.",
        opens=(Loose(f"{path}:bolts", f"bolts of the {noun}"),),
        fittings=(
            Fitting("screws", f"screws for the {noun}, as its maker says", BOLTS),
            *kept_tight(hands.ways, f"screws of the {noun}", BOLTS),
        ),
        tools=("hex keys",),
    )
    yield Job(
        place=path,
        verb="couple",
        kind="box",
        minutes=10,
        after=(f"{path}:mount",),
        parts=(path,),
        title=f"Grease the key or spline and push the {noun} and its shafts together: the coupling stays free to slide",
        why="A coupling that is pushed tight loads both bearings.",
        uses=("grease",),
        tools=("grease",),
        cautions=(hands.fingers,),
    )
    yield Job(
        place=path,
        verb="tighten",
        kind="fasten",
        minutes=10,
        after=(f"{path}:couple",),
        parts=(path,),
        title=f"Tighten the bolts of the {noun}: {made_fast(hands.ways)}",
        closes=(f"{path}:bolts",),
        tools=("hex keys",),
    )
    yield Job(
        place=path,
        verb="turn",
        kind="check",
        minutes=5,
        after=(f"{path}:tighten",),
        parts=(path,),
        title=f"Turn the output of the {noun} by hand: even, without a hard place",
        cautions=(hands.fingers,),
    )
