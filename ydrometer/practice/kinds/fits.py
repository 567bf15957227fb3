"""Whether it fits: centre distances, holes of a plate, a belt for a distance; and the weak place of a line."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from ydrometer.geometry import loops
from ydrometer.geometry.gears import centre_distance
from ydrometer.practice import rigs
from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.posed import Choice, Posed, Sum, choose
from ydrometer.practice.rigs import gears, rig
from ydrometer.questions import aids

ANGLE = math.radians(20.0)
PI = aids.PI
HOME = (2, 2)
"""The driver's hole on a plate, counted across and up."""
BEYOND = 2
"""Holes of a plate beyond the farthest one that is asked about."""


def _module(d: Draw) -> tuple[float, str, dict[str, object]]:
    """Tooth size: module in m, in words, and as a stage has it."""
    if d.system == "metric":
        module = d.choice((0.5, 0.8, 1.0, 1.5) if d.level > 1 else (1.0, 2.0))
        return 1e-3 * module, f"module {module:g} mm", {"module": f"{module:g} mm"}
    pitch = d.choice((16, 20, 24, 32))
    return 0.0254 / pitch, f"diametral pitch {pitch} 1/in", {"module": None, "diametral_pitch": f"{pitch} 1/in"}


def _of_size(stage: dict[str, object], size: dict[str, object]) -> dict[str, object]:
    return {key: value for key, value in {**stage, **size}.items() if value is not None}


def centres(d: Draw) -> Posed:
    """Centre distance of a pair, or of a gear in a ring."""
    module, sentence, size = _module(d)
    internal = d.level == 3 and d.choice((True, False))
    a, b = (d.whole(12, 24), d.whole(48, 72)) if internal else d.pair()
    apart = centre_distance(module, a, b, ANGLE, internal=internal)
    s = Sum()
    s.given("m", "module", module, "length")
    s.teeth(a, b)
    s.step("d_a", "pitch diameter of the first", "m*a", "length")
    s.step("d_b", "pitch diameter of the second", "m*b", "length")
    s.step("c", "from middle to middle", "(d_b - d_a)/2" if internal else "(d_a + d_b)/2", "length")
    what = f"inside a ring of {b} teeth" if internal else f"with one of {b} teeth"
    words = f"A gear with {a} teeth meshes {what}, {sentence}. How far apart are the two shafts, without backlash?"
    hints = (
        "Pitch diameter: module times teeth." if d.system == "metric" else "Pitch diameter: teeth by diametral pitch.",
        "Where the pitch circles touch, two radii meet."
        if not internal
        else "The ring's circle touches the gear's from outside.",
        "Take radii, not diameters.",
    )
    mistakes = {
        "not halved": "d_b - d_a" if internal else "d_a + d_b",
        "sum for difference" if internal else "difference for sum": "(d_a + d_b)/2" if internal else "(d_b - d_a)/2",
    }
    stage = _of_size(gears(a, b, internal=internal) if internal else gears(a, b), size)
    return s.number(
        d,
        words,
        "length",
        apart,
        mistakes,
        hints,
        rig([stage]),
        "centre distance = half of the difference"
        if internal
        else "centre distance = half of the sum of the pitch diameters",
    )


def on_holes(d: Draw) -> Posed:
    """On which holes of a plate a pair goes."""
    pitch = d.size("length", (8, 16, 1), (0.5, 0.5, 0.5))
    straight = d.level == 1
    across, up = d.whole(3, 6), 0 if straight else d.whole(1, 3)
    unit = 1e-3 if d.system == "metric" else 0.0254 / 32
    total = 2.0 * math.hypot(across, up) * pitch / unit
    teeth = round(total)
    if abs(teeth - total) > 0.3 or not 40 <= teeth <= 130:
        raise Again
    a = d.whole(max(12, teeth - 80), teeth // 2 - 2)
    b = teeth - a
    apart = centre_distance(unit, a, b, ANGLE)
    ways = {f"{x} {y}": math.hypot(x, y) * pitch for x, y in _ways(across, up, apart / pitch)}
    answer = min(ways, key=lambda key: abs(ways[key] - apart))
    if sorted(abs(way - apart) for way in ways.values())[1] < 0.03 * apart or answer != f"{across} {up}":
        raise Again
    s = Sum()
    s.given("m", "module", unit, "length")
    s.teeth(a, b)
    s.given("p", "from hole to hole", pitch, "length")
    s.sheet.put("x", "holes across", across, "ratio", "solved")
    s.sheet.put("y", "holes up", up, "ratio", "solved")
    s.step("c", "centre distance of the pair", "m*(a + b)/2", "length")
    s.step("h", "distance of the holes", "hypot(x, y)*p", "length")
    size = "module 1 mm" if d.system == "metric" else "diametral pitch 32 1/in"
    words = (
        f"The holes of a plate are {d.say(pitch, 'length')} apart, across and up. A pair of {a} and {b} teeth, "
        f"{size}, is to go on two of them. How far from each other must the holes be?"
    )
    hints = (
        "First the centre distance of the pair.",
        "How many hole distances is that?",
        "Across and up together: the straight line between the two holes counts.",
    )
    names = {key: _hole_mistake(way / apart) for key, way in ways.items() if key != answer}
    holes = [_hole(key) for key in sorted(ways)]
    choices = [Choice(key, _hole_words(*_hole(key))) for key in sorted(ways)]
    stage = (
        gears(a, b) if d.system == "metric" else _of_size(gears(a, b), {"module": None, "diametral_pitch": "32 1/in"})
    )
    return choose(
        words,
        choices,
        answer,
        names,
        hints,
        {**rig([stage]), "fit": _on_plate(pitch, _hole(answer), holes)},
        "centre distance = module · sum of teeth / 2",
        s.sheet,
        said={"ways": [list(hole) for hole in holes]},
        holes=tuple(holes),
    )


def _hole(key: str) -> tuple[int, int]:
    across, up = map(int, key.split())
    return across, up


def _on_plate(pitch: float, driven: tuple[int, int], holes: Sequence[tuple[int, int]]) -> dict[str, Any]:
    """A plate with the driver in its hole and what it drives in another; it has room for all that are asked about."""
    across, up = (HOME[k] + max(hole[k] for hole in holes) + BEYOND for k in range(2))
    spots = {"drive.branches[0].source": (0, 0), "drive.branches[0].stages[0]": driven}
    shafts = [
        {"shaft": path, "mount": "holes", "at": [pitch * (HOME[k] + hole[k]) for k in range(2)]}
        for path, hole in spots.items()
    ]
    return {"plate": {"hole_pitch": pitch, "across": across + 1, "up": up + 1}, "shafts": shafts}


def _ways(across: int, up: int, steps: float) -> list[tuple[int, int]]:
    """The right way, and those of usual mistakes."""
    ways = [(across, up), (2 * across, 2 * up), (max(1, round(steps / 2)), 0)]
    ways.append((across - up, up) if up and across - up > 0 else (across + 2, up))
    return list(dict.fromkeys(ways))


def _hole_mistake(share: float) -> str:
    """What leads to holes that are so many times as far apart as they should be."""
    if share > 1.6:
        return "not halved"
    return "difference for sum" if share < 0.7 else "across and up added"


def _hole_words(across: int, up: int) -> str:
    return f"{across} across" + (f" and {up} up" if up else "")


def belt_reaches(d: Draw) -> Posed:
    """The distance that a belt wants."""
    pitch = 5e-3 if d.system == "metric" else 0.2 * 0.0254
    a = d.choice((14, 16, 18, 20, 24))
    b = a if d.level == 1 else d.whole(a + 6, 48)
    teeth = d.whole(60, 120) if d.level > 1 else d.choice((60, 70, 80, 90, 100))
    r_a, r_b = loops.pitch_radius(pitch, a), loops.pitch_radius(pitch, b)
    apart = loops.centre_distance(teeth * pitch, r_a, r_b)
    if apart is None or apart < 1.4 * (r_a + r_b):
        raise Again
    s = Sum()
    s.given("p", "pitch of the belt", pitch, "length")
    s.given("n", "teeth of the belt", teeth)
    s.teeth(a, b)
    s.step("L", "length of the belt", "n*p", "length")
    s.step("r_a", "radius on which it runs, first", f"a*p/(2*{PI})", "length")
    s.step("r_b", "radius on which it runs, second", f"b*p/(2*{PI})", "length")
    s.sheet.put("c", "centre distance", apart, "length", "solved")
    s.step("u", "lean of the runs", "atan2(r_b - r_a, sqrt(c*c - (r_b - r_a)**2))", "angle")
    s.step("K", "around both pulleys", f"{PI}*(r_a + r_b) + 2*u*(r_b - r_a)", "length")
    s.step("c_0", "centre distance, once more", "(L - K)/2/cos(u)", "length")
    words = (
        f"A toothed belt of {teeth} teeth, {d.say(pitch, 'length')} apart, runs over pulleys of {a} and {b} "
        "teeth. How far apart must the "
        "shafts be for it to be taut?"
    )
    hints = (
        "How long is the belt?",
        "Part of it lies around the pulleys: about half of the circumference of each.",
        "What is left are two straight runs.",
    )
    mistakes = {"wrap left out": "L/2", "whole diameters taken off": "L/2 - 2*r_a - 2*r_b"}
    stage = {
        "kind": "belt",
        "driver_teeth": a,
        "driven_teeth": b,
        "pitch": f"{pitch:.9g} m",
        "belt_teeth": teeth,
        "efficiency": 1.0,
    }
    return s.number(
        d,
        words,
        "length",
        apart,
        mistakes,
        hints,
        rig([stage]),
        "belt = two straight runs + what lies around the pulleys",
    )


def stack_order(d: Draw) -> Posed:
    """Which of two planetary steps belongs at the motor."""
    steps = d.some((3.0, 3.5, 4.0, 4.5, 5.0, 5.5), 2)
    torque = d.size("torque", (0.2, 0.8, 0.1), (2, 7, 1))
    unit = 1.0 if d.system == "metric" else 0.112984829
    ratings = [d.whole(2, 14) * unit * (1.0 if d.system == "metric" else 8.0) for _ in range(2)]
    uses = {
        key: _worst(torque, [steps[k] for k in order], [ratings[k] for k in order]) for key, order in ORDERS.items()
    }
    best = min(uses, key=lambda key: uses[key])
    if not uses[best] < 0.95 or max(uses.values()) < 1.05 or abs(ratings[0] - ratings[1]) < 0.2 * ratings[0]:
        raise Again
    s = Sum()
    s.given("T", "torque of the motor", torque, "torque")
    for k in (0, 1):
        s.given(f"i_{'AB'[k]}", f"step {'AB'[k]}", steps[k])
        s.given(f"R_{'AB'[k]}", f"what step {'AB'[k]} stands at its output", ratings[k], "torque")
    first, last = best, "B" if best == "A" else "A"
    s.step("T_1", "behind the first step", f"T*i_{first}", "torque")
    s.step("T_2", "behind the second step", f"T_1*i_{last}", "torque")
    s.step("k", "the second step, of what it stands", f"T_2/R_{last}")
    words = (
        f"Two planetary steps are to be stacked behind a motor of {d.say(torque, 'torque')}: A, {steps[0]:g} : "
        "1, stands "
        f"{d.say(ratings[0], 'torque')} at its output; B, {steps[1]:g} : 1, stands "
        f"{d.say(ratings[1], 'torque')}. Which of the two belongs at the "
        "motor, so that both hold?"
    )
    hints = (
        "Torque grows from step to step.",
        "What does each step have to stand at its output, in either order?",
        "The last step has to stand the most, whichever it is.",
    )
    choices = (Choice("A", "step A at the motor"), Choice("B", "step B at the motor"))
    name = {"A": "weak step at the wheels", "B": "weak step at the wheels"}
    stage = {"kind": "planetary", "reductions": steps, "torque_ratings": ratings, "efficiency": 1.0}
    return choose(
        words,
        choices,
        best,
        name,
        hints,
        rigs.with_torque(torque, [stage]),
        "torque behind a step = torque before · its ratio",
        s.sheet,
    )


ORDERS = {"A": (0, 1), "B": (1, 0)}


def _worst(torque: float, steps: list[float], ratings: list[float]) -> float:
    """The largest share of what a step stands, of a stack in this order."""
    behind = [torque * rigs.reduction({"kind": "planetary", "reductions": steps[: k + 1]}) for k in range(len(steps))]
    return max(load / rating for load, rating in zip(behind, ratings, strict=True))


def slips_first(d: Draw) -> Posed:
    """Which of two V-belts slips first."""
    by_wrap = d.level == 1 or d.choice((True, False))
    small = d.size("length", (30, 60, 5), (1.25, 2.5, 0.25))
    slips = {}
    for key in ("A", "B"):
        driver = small if by_wrap else d.size("length", (30, 70, 5), (1.25, 3, 0.25))
        driven = d.size("length", (90, 220, 10), (3.5, 9, 0.5)) if by_wrap else driver
        apart = d.size("length", (160, 320, 20), (6, 12, 1))
        slips[key] = driver, driven, apart
    wraps = {
        key: loops.wraps(driver / 2, driven / 2, apart)[0] if apart > 0.55 * (driver + driven) else 0.0
        for key, (driver, driven, apart) in slips.items()
    }
    if min(wraps.values()) == 0.0 or (by_wrap and abs(wraps["A"] - wraps["B"]) < 0.12):
        raise Again
    if not by_wrap and max(slips[key][0] for key in slips) < 1.2 * min(slips[key][0] for key in slips):
        raise Again
    first = min(slips, key=lambda key: (wraps[key], slips[key][0]))
    s = Sum()
    for key, (driver, driven, apart) in slips.items():
        s.given(f"d_{key}", f"driver of {key}, running diameter", driver, "length")
        s.given(f"D_{key}", f"driven of {key}, running diameter", driven, "length")
        s.given(f"c_{key}", f"centre distance of {key}", apart, "length")
    for key in slips:
        s.step(
            f"w_{key}",
            f"how far {key} lies around its driver",
            f"{PI} - 2*atan2(D_{key} - d_{key}, sqrt(4*c_{key}**2 - (D_{key} - d_{key})**2))",
            "angle",
        )
    lines = "; ".join(
        f"belt {key} from {d.say(driver, 'length')} to {d.say(driven, 'length')}, {d.say(apart, 'length')} "
        "between the shafts"
        for key, (driver, driven, apart) in slips.items()
    )
    words = (
        f"Two V-belts of one kind, equally tight, pass the same torque: {lines} (running diameters). Which one "
        "slips first?"
    )
    hints = (
        "A belt holds by how far it lies around the smaller pulley.",
        "The larger the other pulley, and the nearer it is, the less it lies around the small one."
        if by_wrap
        else "Both lie around by half a turn. What force does the same torque need on a smaller pulley?",
        "Less wrap, or a smaller pulley: which of the two has that?",
    )
    choices = (Choice("A", "belt A"), Choice("B", "belt B"))
    name = {"A": "slipping pulley overlooked", "B": "slipping pulley overlooked"}
    driver, driven, _ = slips["A"]
    stage = {"kind": "v_belt", "driver_pitch_diameter": driver, "driven_pitch_diameter": driven}
    return choose(
        words,
        choices,
        first,
        name,
        hints,
        rig([stage]),
        "little wrap and a small pulley slip first",
        s.sheet,
        said={"by": "wrap" if by_wrap else "diameter"},
    )
