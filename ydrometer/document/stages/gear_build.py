"""Putting a pair of gears together: loosely in mesh, in line, the play set, tight, and felt again."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import Hands, Job, Record, in_line, mm, tightened

PAPER = (0.06e-3, 0.12e-3)
"""Thickness of the paper that lies about, m: from thin to printer's (80 g/m2 is 0.1 mm)."""
STRIPS = {1: "a paper strip of {}", 2: "two paper strips of {} together"}
TOOLS = {"paper": ("paper strip",), "rim": ("dial or feeler gauge",), "ear": ()}


def jobs(hands: Hands) -> Iterator[Job]:
    """The jobs of the pair, from driver to driven with what idles between them.

    Args:
        hands: at the stage.
    """
    yield Job(
        place=hands.path,
        verb="mesh",
        kind="gear",
        minutes=10,
        title=f"Bring the {' and the '.join(hands.wheels)} into mesh, all loose, and turn them by hand once round",
        parts=(hands.path, *hands.names),
        cautions=(hands.fingers,),
    )
    yield in_line(hands, "by their faces", after=(f"{hands.path}:mesh",))
    yield _played(hands)
    last = "play"
    if hands.slides:
        yield tightened(hands, f"{hands.path}:play")
        last = "tighten"
    yield Job(
        place=hands.path,
        verb="check",
        kind="check",
        minutes=5,
        after=(f"{hands.path}:{last}",),
        title=f"Feel the play again at four places of the {hands.driven}, a quarter turn apart",
        why="Tightening moves it, and a wheel that runs out is tight at one place and loose at the other.",
        record=Record("play at the pitch circle, where it is least", "mm"),
        parts=(hands.path,),
        cautions=(hands.fingers,),
    )


def _played(hands: Hands) -> Job:
    way = _way(hands)
    how = _HOW[way](hands)
    move = f", sliding {hands.slides}" if hands.slides else ", with shims where it is not right"
    return Job(
        place=hands.path,
        verb="play",
        kind="gear",
        minutes=15,
        title=f"Set the play{move}: {how}",
        why="Too tight heats the motor and wears the teeth; too loose strips them.",
        after=(f"{hands.path}:line_up",),
        record=Record("play at the pitch circle", "mm"),
        parts=(hands.path,),
        tools=TOOLS[way],
        cautions=(hands.fingers,),
    )


def _way(hands: Hands) -> str:
    """How the play is set: by paper only where one or two strips of such paper as there is leave it."""
    thick = hands.settings.get("paper_for_play")
    no_such_paper = thick is not None and not _strips(thick)
    return "rim" if hands.ways.backlash == "paper" and no_such_paper else hands.ways.backlash


def _strips(thick: float) -> int:
    """How many strips of paper are together so thick, m; 0 where none are."""
    return next((count for count in STRIPS if PAPER[0] <= round(thick / count, 6) <= PAPER[1]), 0)


def _by_paper(hands: Hands) -> str:
    thick = hands.settings.get("paper_for_play")
    count = _strips(thick) if thick is not None else 0
    strip = STRIPS[count].format(mm(thick / count)) if thick is not None and count else "a strip of thin paper"
    return f"{strip} through the mesh comes out creased, not cut{_then_felt(hands)}"


def _then_felt(hands: Hands) -> str:
    return hands.setting("play_at_100_mm", "; then {} to be felt 100 mm out")


def _by_rim(hands: Hands) -> str:
    felt = hands.setting("play_at_100_mm", "{} of rocking")
    return f"driver held, {felt or 'a little rocking'} 100 mm out on the {hands.driven}"


def _by_ear(hands: Hands) -> str:
    return "spin it by hand: a howl is too tight, a rattle too loose, an even whisper is right" + (
        f" (usual play {mm(hands.settings['play'])})" if "play" in hands.settings else ""
    )


_HOW = {"paper": _by_paper, "rim": _by_rim, "ear": _by_ear}
