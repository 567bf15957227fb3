"""What all that runs around two wheels has in common: put on, in line, tensioned, tight, turned, guarded."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import (
    GUARD,
    Fitting,
    Hands,
    Job,
    Loose,
    Record,
    in_line,
    kept_tight,
    made_fast,
    tightened,
)

SOUND_OFF, FORCE_OFF = 0.1, 0.2
"""Shares by which a sound, which goes with the root of the tension, and a force may be off (belt makers' manuals: the
tension to within a fifth)."""
TENSIONER_SCREWS = 2


def put_on(hands: Hands, belt: str, walked: str, *, uses: str) -> Job:
    """The belt on its pulleys; where they cannot come nearer, together with them.

    Args:
        hands: at the stage.
        belt: in words, with its length.
        walked: the title where there is room to put it on.
        uses: its kind on the parts list.
    """
    both = " and the ".join(hands.wheels)
    return Job(
        place=hands.path,
        verb="walk_on",
        kind="belt",
        minutes=20 if hands.shut_in else 10,
        title=f"Lay the {belt} around the {both} on the bench and push both onto their shafts with it, square, a "
        "little at a time: nothing slides here"
        if hands.shut_in
        else walked,
        why="Forced over the rim of a pulley that cannot come nearer, it breaks cords where nobody sees it."
        if hands.shut_in
        else "A lever breaks the cords where nobody sees it.",
        parts=(hands.path, *hands.names),
        opens=hands.fastenings if hands.shut_in else (),
        uses=(uses, *(hands.kinds if hands.shut_in else ())),
        cautions=(hands.fingers,),
    )


def straight(hands: Hands, *, after: tuple[str, ...]) -> Job:
    """Its wheels in line by a straight edge.

    Args:
        hands: at the stage.
        after: ids of jobs before it.
    """
    off = hands.setting("straight_edge", ", no further off than {}")
    return in_line(hands, f"by a straight edge across both faces{off}", after=after)


def tensioned(hands: Hands, how: str, what: Record | None, tools: tuple[str, ...]) -> Iterator[Job]:
    """Tension set, made fast, turned by hand, and looked at again.

    Args:
        hands: at the stage.
        how: the tension is judged, in words.
        what: is measured.
        tools: for it.
    """
    by = "nothing slides here, so the length alone sets it"
    if hands.slides or hands.tensioner:
        by = hands.slide if hands.slides else "move the tensioner"
    if hands.tensioner:
        yield _tensioner(hands)
    yield Job(
        place=hands.path,
        verb="tension",
        kind="belt",
        minutes=15,
        title=f"Set the tension: {by}; {how}",
        why="Too tight bends the shaft and eats bearings, too loose jumps or slips.",
        after=(f"{hands.path}:line_up", f"{hands.path}:tensioner"),
        record=what,
        parts=(hands.path,),
        tools=tools,
        cautions=(hands.fingers,),
    )
    last = f"{hands.path}:tension"
    if hands.tensioner:
        yield _tensioner_tight(hands, last)
        last = f"{hands.path}:tighten_tensioner"
    if hands.slides:
        yield tightened(hands, last)
        last = f"{hands.path}:tighten"
    yield Job(
        place=hands.path,
        verb="turn",
        kind="check",
        minutes=5,
        after=(last,),
        parts=(hands.path,),
        title=f"Turn it by hand ten times round, then look again: tension and line as before ({how})",
        why="It settles in the first turns.",
        record=what,
        tools=tools,
        cautions=(hands.fingers,),
    )


def _loose_tensioner(hands: Hands) -> Loose:
    return Loose(f"{hands.path}:tensioner_screws", f"screws of the tensioner beside the {hands.driver}")


def _tensioner(hands: Hands) -> Job:
    """The tensioner on its place, to be moved still."""
    return Job(
        place=hands.path,
        verb="tensioner",
        kind="belt",
        minutes=10,
        after=(f"{hands.path}:line_up",),
        title="Mount the tensioner on the slack run, its wheel in line with the others; its screws finger tight",
        why="It takes up the slack on the side that pulls nothing.",
        opens=(_loose_tensioner(hands),),
        parts=(hands.path,),
        uses=("tensioner",),
        fittings=(
            Fitting("screws", "screws for a tensioner", TENSIONER_SCREWS),
            *kept_tight(hands.ways, "screws of a tensioner", TENSIONER_SCREWS, through=True),
        ),
        tools=("hex keys", "straight edge"),
        cautions=(hands.fingers,),
    )


def _tensioner_tight(hands: Hands, last: str) -> Job:
    return Job(
        place=hands.path,
        verb="tighten_tensioner",
        kind="tighten",
        minutes=5,
        after=(last,),
        title=f"Tighten the screws of the tensioner, {made_fast(hands.ways, through=True)}",
        closes=(_loose_tensioner(hands).id,),
        parts=(hands.path,),
        tools=("hex keys",),
        cautions=(hands.fingers,),
    )


def guarded(hands: Hands, noun: str) -> Job:
    """A guard over what draws fingers in.

    Args:
        hands: at the stage.
        noun: what runs around, in words.
    """
    return Job(
        place=hands.path,
        verb="guard",
        kind="guard",
        minutes=15,
        after=(f"{hands.path}:turn",),
        title=f"Put the guard over the {noun} and turn it by hand: nothing touches",
        parts=(hands.path,),
        fittings=(Fitting("guard", f"guard over the {noun}, with its screws"),),
        tools=("hex keys",),
        cautions=(GUARD,),
    )


def _near(wanted: float, off: float) -> tuple[float, float]:
    """Least and most of a reading that may be off by a share of what is wanted."""
    return float(f"{(1.0 - off) * wanted:.3g}"), float(f"{(1.0 + off) * wanted:.3g}")


def judged(hands: Hands) -> tuple[str, Record | None, tuple[str, ...]]:
    """How the tension of a belt is judged, by the builder's school: words, what is measured, tools.

    Args:
        hands: at the stage; without a tension given there is only the rough check.
    """
    known = hands.settings
    if hands.ways.tension == "pluck" and "note" in known:
        sound = Record("sound of a plucked run", "Hz", _near(known["note"], SOUND_OFF))
        return f"a plucked run sounds at {known['note']:.0f} Hz", sound, ("phone",)
    if hands.ways.tension != "twist" and "push" in known:
        depth = hands.setting("deflection", "{}")
        words = f"{known['push']:.1f} N push it in by {depth} at mid-span"
        return (
            words,
            Record(f"force that pushes it in by {depth}", "N", _near(known["push"], FORCE_OFF)),
            ("spring scale", "straight edge"),
        )
    return "at mid-span finger and thumb can just turn it by a quarter turn", None, ()
