"""Putting a pair of gears together: loosely in mesh, in line, the play set, tight, and felt again."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.document.stages.assembly import Fitting, Hands, Job, Record, in_line, mm, tightened

PAPER = (0.06e-3, 0.12e-3)
"""Thickness of the paper that lies about, m: from thin to printer's (80 g/m2 is 0.1 mm)."""
STRIPS = {1: "a paper strip of {}", 2: "two paper strips of {} together"}
TOOLS = {"paper": ("paper strip",), "rim": ("dial or feeler gauge",), "ear": ()}


def jobs(hands: Hands) -> Iterator[Job]:
    """The jobs of a pair, or of a row with idlers: each pair of it brought into mesh and set, all in line at once.

    The pair at the driven end is set first: what is moved at the driver's end is moved last.

    Args:
        hands: at the stage.
    """
    pairs = (hands.meshes or (hands,))[::-1]
    yield from (_meshed(hands, pair) for pair in pairs)
    yield in_line(hands, "by their faces", after=tuple(f"{pair.path}:mesh" for pair in pairs))
    last = f"{hands.path}:line_up"
    for pair in pairs:
        yield _played(hands, pair, last)
        last = f"{pair.path}:play"
    if hands.slides:
        yield tightened(hands, last)
        last = f"{hands.path}:tighten"
    yield from (_checked(hands, pair, last) for pair in pairs)


def _meshed(hands: Hands, pair: Hands) -> Job:
    return Job(
        place=pair.path,
        verb="mesh",
        kind="gear",
        minutes=10,
        title=f"Bring the {' and the '.join(pair.wheels)} into mesh, all loose, and turn them by hand once round",
        parts=_parts(hands, pair),
        cautions=(hands.fingers,),
    )


def _checked(hands: Hands, pair: Hands, last: str) -> Job:
    return Job(
        place=pair.path,
        verb="check",
        kind="check",
        minutes=5,
        after=(last,),
        title=f"Feel the play of the {pair.driver} again at four places of the {pair.driven}, a quarter turn apart; "
        "then a little grease on the teeth",
        why="Tightening moves it, and a wheel that runs out is tight at one place and loose at the other.",
        record=Record("play at the pitch circle, where it is least", "mm"),
        parts=_parts(hands, pair),
        uses=("grease",),
        tools=("grease",),
        cautions=(hands.fingers,),
    )


def _played(hands: Hands, pair: Hands, last: str) -> Job:
    way = _way(pair)
    how = _HOW[way](pair)
    of = f" between the {pair.driver} and the {pair.driven}" if hands.meshes else ""
    move = f", {hands.sliding}" if hands.slides else ", with shims where it is not right"
    return Job(
        place=pair.path,
        verb="play",
        kind="gear",
        minutes=15,
        title=f"Set the play{of}{move}: {how}",
        why="Too tight heats the motor and wears the teeth; too loose strips them.",
        after=(last,),
        record=Record("play at the pitch circle", "mm"),
        parts=_parts(hands, pair),
        fittings=() if hands.slides else (Fitting("shims", "shims under a mount, 0.1 to 0.5 mm"),),
        tools=TOOLS[way],
        cautions=(hands.fingers,),
    )


def _parts(hands: Hands, pair: Hands) -> tuple[str, ...]:
    """What is handled at a pair: its stage, of a row also the shaft between, and both wheels."""
    return tuple(dict.fromkeys((hands.path, pair.path, *pair.names)))


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
