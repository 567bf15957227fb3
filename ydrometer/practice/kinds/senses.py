"""Which way things turn: behind meshes, idlers, rings and belts; and which of two sources is mounted the other way."""

from __future__ import annotations

from typing import Any

from ydrometer.document import design
from ydrometer.evaluation.rotation import rotation
from ydrometer.practice import rigs
from ydrometer.practice.draw import Draw
from ydrometer.practice.posed import Choice, Posed, choose
from ydrometer.practice.rigs import gears, rig
from ydrometer.working.sheet import Sheet

SENSE = (
    "each outside mesh turns the sense round; a ring, an open belt and a chain keep it; a crossed belt turns it round"
)
ARROWS = (Choice("clockwise", "clockwise"), Choice("anticlockwise", "anticlockwise"))


def _mesh(d: Draw) -> tuple[dict[str, Any], str, str]:
    a, b = d.pair()
    return gears(a, b), "a pair of gears", "a reversal miscounted"


def _idlers(d: Draw) -> tuple[dict[str, Any], str, str]:
    (a, b), count = d.pair(), d.choice((1, 2))
    words = "a pair of gears with an idler between them" if count == 1 else "a pair with two idlers in a row"
    return gears(a, b, idlers=[d.whole(14, 30) for _ in range(count)]), words, "idler left out"


def _ring(d: Draw) -> tuple[dict[str, Any], str, str]:
    a, b = d.whole(12, 20), d.whole(48, 72)
    return gears(a, b, internal=True), "a gear inside a ring", "ring counted as an outside mesh"


def _belt(d: Draw) -> tuple[dict[str, Any], str, str]:
    a, b = d.whole(14, 22), d.whole(28, 48)
    return (
        {"kind": "belt", "driver_teeth": a, "driven_teeth": b, "pitch": "5 mm"},
        "a toothed belt",
        "belt counted as a mesh",
    )


def _crossed(d: Draw) -> tuple[dict[str, Any], str, str]:
    stage = {
        "kind": "v_belt",
        "driver_pitch_diameter": f"{d.whole(25, 40)} mm",
        "driven_pitch_diameter": f"{d.whole(50, 90)} mm",
        "crossed": True,
    }
    return stage, "a crossed belt", "crossed belt taken for an open one"


BY_LEVEL = {1: (_mesh, _idlers), 2: (_mesh, _idlers, _ring, _belt), 3: (_mesh, _idlers, _ring, _belt, _crossed)}


def last_wheel(d: Draw) -> Posed:
    """Which way the last wheel turns."""
    makers = [d.choice(BY_LEVEL[d.level]) for _ in range(d.level)]
    parts = [maker(d) for maker in makers]
    stages = [stage for stage, _, _ in parts]
    forwards = rigs.sense(*stages) > 0
    start = d.choice((True, False))
    answer = "clockwise" if start == forwards else "anticlockwise"
    first = "clockwise" if start else "anticlockwise"
    train = ", then ".join(words for _, words, _ in parts)
    words = (
        f"The first wheel turns {first}. Then comes {train}. Which way does the last wheel turn, seen from the same "
        "side?"
    )
    # What is easiest to get wrong comes last in the lists.
    trap = max(range(len(makers)), key=lambda k: BY_LEVEL[d.level].index(makers[k]))
    name = parts[trap][2]
    sheet = Sheet({})
    for k, stage in enumerate(rigs.stages_of(*stages), 1):
        sheet.put(f"s_{k}", f"sense behind {parts[k - 1][1]}", stage.rotation, "ratio", "solved")
    sheet.step("s", "the last wheel against the first", "*".join(f"s_{k}" for k in range(1, len(stages) + 1)), "ratio")
    hints = (
        "Go from wheel to wheel, one contact at a time.",
        "Two gears that mesh from outside turn against each other.",
        "Count only the contacts that turn the sense round: an even number leaves it as it was.",
    )
    wrong = {"clockwise": name, "anticlockwise": name}
    said = {"first": first, "contacts": [words for _, words, _ in parts]}
    return choose(
        words,
        ARROWS,
        answer,
        wrong,
        hints,
        rig(stages),
        SENSE,
        sheet,
        said=said,
        still=True,
        first=1 if start else -1,
        around=f"drive.branches[0].stages[{len(stages) - 1}] driven",
    )


def other_source(d: Draw) -> Posed:
    """Whether a second motor has to turn the other way to help the first one."""
    idlers = [d.whole(0, min(d.level, 2)) for _ in range(2)]
    ring = d.level == 3 and d.choice((True, False))
    own = [gears(*d.pair(), idlers=[d.whole(14, 30) for _ in range(count)]) for count in idlers]
    if ring:
        own[1] = gears(d.whole(12, 20), d.whole(48, 72), internal=True)
    raw = rig([])
    branch = raw["drive"]["branches"][0]
    raw["drive"]["branches"] = [{**branch, "stages": [stage]} for stage in own]
    raw["drive"]["stages"] = [{"kind": "belt", "driver_teeth": 18, "driven_teeth": 36, "pitch": "5 mm"}]
    against = bool(rotation(design.read(raw).design).against)
    ways = [f"motor {k} through {_between(stage)}" for k, stage in enumerate(own, 1)]
    words = (
        f"Two motors drive one shaft, {ways[0]}, {ways[1]}. Both are mounted from the same side, and motor 1 runs the "
        "right way. Must motor 2 turn the other way than motor 1?"
    )
    sheet = Sheet({})
    for k, stage in enumerate(rigs.stages_of(*own), 1):
        sheet.put(f"s_{k}", f"sense behind motor {k}", stage.rotation, "ratio", "solved")
    sheet.step("s", "one against the other", "s_1*s_2", "ratio")
    hints = (
        "Both have to turn the common shaft the same way.",
        "Count the outside meshes behind each motor.",
        "One more or one less between them, and the motors turn against each other.",
    )
    name = "idler left out" if any(idlers) else "ring counted as an outside mesh" if ring else "a reversal miscounted"
    choices = (Choice("yes", "yes, the other way"), Choice("no", "no, the same way"))
    return choose(
        words,
        choices,
        "yes" if against else "no",
        {"yes": name, "no": name},
        hints,
        raw,
        SENSE,
        sheet,
        said={"through": [_between(stage) for stage in own]},
        still=True,
    )


def _between(stage: dict[str, Any]) -> str:
    count = len(stage.get("idlers", ()))
    if stage.get("internal"):
        return "a gear inside a ring"
    return ("a pair of gears", "a pair with one idler", "a pair with two idlers")[count]
